import { useSyncExternalStore } from 'react'

const KEY = 'dogleg.operator'
const listeners = new Set<() => void>()

/** The initials of whoever stands at this tablet; empty until told. */
export const operator = () => localStorage.getItem(KEY) ?? ''

export function setOperator(initials: string) {
  localStorage.setItem(KEY, initials)
  for (const listener of listeners) listener()
}

const subscribe = (listener: () => void) => {
  listeners.add(listener)
  return () => listeners.delete(listener)
}
export const useOperator = () => useSyncExternalStore(subscribe, operator)
