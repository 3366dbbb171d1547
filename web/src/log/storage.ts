import { useSyncExternalStore } from 'react'
import { listenerSet } from './listeners.ts'

/**
 * The tablet's storage, which may be full, blocked, or not there at all: every look at it and every write goes through here. What it
 * does not take is held by the page, as long as that is open.
 */
const held = new Map<string, string>()
const { notify, subscribe } = listenerSet()

/** Does something with the storage; what it gives, or `otherwise` where the storage cannot be used. */
function attempt<T>(does: (storage: Storage) => T, otherwise: T): T {
  try {
    return does(localStorage)
  } catch {
    return otherwise
  }
}

/** What stands under a name; null where nothing does. */
const get = (key: string): string | null => held.get(key) ?? attempt((storage) => storage.getItem(key), null)

/** Keeps something under a name; false where it is held by the page only. An earlier state of it stays in the storage. */
function set(key: string, value: string): boolean {
  const taken = attempt((storage) => {
    storage.setItem(key, value)
    return true
  }, false)
  const before = held.size
  if (taken) held.delete(key)
  else held.set(key, value)
  if (held.size !== before) notify()
  return taken
}

/** Keeps something of which an earlier state must not come back when it could not be kept. */
function replace(key: string, value: string): boolean {
  const taken = set(key, value)
  if (!taken) attempt((storage) => storage.removeItem(key), undefined)
  return taken
}

function remove(key: string) {
  attempt((storage) => storage.removeItem(key), undefined)
  if (held.delete(key)) notify()
}

/** Names that begin so, in order. */
const keys = (prefix: string): string[] =>
  [...new Set([...attempt((storage) => Object.keys(storage), []), ...held.keys()])]
    .filter((key) => key.startsWith(prefix))
    .sort()

/** Whether something that begins so is held by the page only. */
const isHeld = (key: string) => held.has(key)

export const storage = { get, set, replace, remove, keys, isHeld }

/** How many things are held by the page only, and would be gone if it were closed now. */
export const useHeld = () => useSyncExternalStore(subscribe, () => held.size)
