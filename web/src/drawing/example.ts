import { Children, createContext, type ReactNode, use } from 'react'

/** What is still to be said, where a drawing shows an example whose numbers nobody typed; undefined where it shows what is. */
const Context = createContext<string | undefined>(undefined)
export const Example = Context.Provider
export const useExample = () => use(Context)

const NUMBERS = /[+-]?(?:\d+\.?\d*|\.\d+)/g

/** Words of a drawing with a mark in place of each number: what is not known is not shown as if it were. */
export const withoutNumbers = (words: ReactNode): ReactNode =>
  Children.map(words, (each) =>
    typeof each === 'string' || typeof each === 'number' ? String(each).replace(NUMBERS, '?') : each,
  )
