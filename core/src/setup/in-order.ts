import type { Entry } from './entries.ts'

/** Entries in the order in which they happened; equal times by id, which grows with time as well. */
export const inOrder = (entries: readonly Entry[]): Entry[] =>
  [...entries].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0))
