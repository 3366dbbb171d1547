/** The database of a made-up tablet, in place of idb-keyval's in all tests of the page: what is kept in it, and whether it has room. */
export const kept = new Map<string, unknown>()
export const room = { full: false }

/** Stores of their own are one map here: their keys do not meet. */
const keyIn = (key: string, store?: string) => (store ? `${store}/${key}` : key)

export const createStore = (database: string, name: string) => `${database}/${name}`
export const get = async (key: string, store?: string) => kept.get(keyIn(key, store))
export const set = async (key: string, value: unknown, store?: string) => {
  if (room.full) throw new Error('QuotaExceededError')
  kept.set(keyIn(key, store), value)
}
export const delMany = async (keys: readonly string[], store?: string) => {
  for (const key of keys) kept.delete(keyIn(key, store))
}
export const entries = async (store?: string) =>
  [...kept].flatMap(([key, value]) =>
    key.startsWith(keyIn('', store)) ? [[key.slice(keyIn('', store).length), value] as const] : [],
  )
export const clear = async (store?: string) => {
  for (const [key] of await entries(store)) kept.delete(keyIn(key, store))
}
