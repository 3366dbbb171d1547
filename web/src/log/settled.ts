import { useEffect, useState, useSyncExternalStore } from 'react'
import { listenerSet } from './listeners.ts'

/** A second tap of a hand that meant the key before comes within so long. */
export const SETTLE_MS = 1000

const { notify, subscribe } = listenerSet()
let last = Number.NEGATIVE_INFINITY

/** Told by whoever records something. */
export function noteRecorded() {
  last = performance.now()
  notify()
}

/** How long ago something was recorded on this tablet, in ms. */
export const sinceRecorded = () => performance.now() - last

const isSettled = (at: number) => performance.now() - at >= SETTLE_MS

/**
 * Whether it is long enough since something was recorded on this tablet that a key which claims a look may count: false within a
 * second of it, and of when the key came on screen.
 */
export function useSettled(): boolean {
  const recorded = useSyncExternalStore(subscribe, () => last)
  const [shown] = useState(() => performance.now())
  const at = Math.max(recorded, shown)
  const [, again] = useState(0)
  useEffect(() => {
    const left = at + SETTLE_MS - performance.now()
    const timer = window.setTimeout(() => again((n) => n + 1), Math.max(0, left) + 1)
    return () => window.clearTimeout(timer)
  }, [at])
  return isSettled(at)
}
