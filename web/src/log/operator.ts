import { useSyncExternalStore } from 'react'
import { listenerSet } from './listeners.ts'
import { storage } from './storage.ts'

const KEY = 'dogleg.operator'
const { notify, subscribe } = listenerSet()

/** The initials of whoever stands at this tablet; empty until told. */
export const operator = () => storage.get(KEY) ?? ''

export function setOperator(initials: string) {
  storage.set(KEY, initials)
  notify()
}

// Another page on this tablet may have been told.
window.addEventListener('storage', ({ key }) => {
  if (key === KEY || key === null) notify()
})

export const useOperator = () => useSyncExternalStore(subscribe, operator)
