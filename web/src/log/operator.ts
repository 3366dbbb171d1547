import { useSyncExternalStore } from 'react'
import { listenerSet } from './listeners.ts'

const KEY = 'dogleg.operator'
const { notify, subscribe } = listenerSet()

/** The initials of whoever stands at this tablet; empty until told. */
export const operator = () => localStorage.getItem(KEY) ?? ''

export function setOperator(initials: string) {
  localStorage.setItem(KEY, initials)
  notify()
}

export const useOperator = () => useSyncExternalStore(subscribe, operator)
