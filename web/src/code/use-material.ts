import { createContext, use } from 'react'

const Context = createContext('')
export const MaterialProvider = Context.Provider

/** The id of the material of the program in hand. */
export const useMaterial = () => use(Context)
