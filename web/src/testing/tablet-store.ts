/** The database of a made-up tablet, in place of idb-keyval's: what is kept in it, and whether it has room. */
export const kept = new Map<string, unknown>()
export const room = { full: false }

export const get = async (key: string) => kept.get(key)
export const set = async (key: string, value: unknown) => {
  if (room.full) throw new Error('QuotaExceededError')
  kept.set(key, value)
}
