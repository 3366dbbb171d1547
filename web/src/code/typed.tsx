import type { SheetDraft } from '@dogleg/core/code'
import { createContext, type ReactNode, use, useMemo } from 'react'

/**
 * The program in hand as it is typed this moment. Only the fields that show what is typed read it: a key draws them, and not the page
 * round them, which follows.
 */
const Context = createContext<SheetDraft | undefined>(undefined)
export const TypedProvider = Context.Provider

export function useTyped(): SheetDraft {
  const sheet = use(Context)
  if (!sheet) throw new Error('a field of a program stands outside it')
  return sheet
}

/** One answer of the program as it is typed, drawn by `children`. */
export function Typed<Field extends keyof SheetDraft>({
  field,
  children,
}: {
  field: Field
  children: (typed: SheetDraft[Field]) => ReactNode
}) {
  const typed = useTyped()[field]
  return useMemo(() => children(typed), [children, typed])
}
