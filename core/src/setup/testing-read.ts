import { type Entry, readEntry } from './kinds.ts'

// The door, for tests.

/** An entry as it is read. Throws where it cannot be. */
export function read(of: unknown): Entry {
  const entry = readEntry(of)
  if (entry.kind === 'unread') throw new Error(entry.says)
  return entry
}

/** What is wrong with an entry, in a sentence; undefined where it is read. */
export function faultOf(of: unknown): string | undefined {
  const entry = readEntry(of)
  return entry.kind === 'unread' ? entry.says : undefined
}
