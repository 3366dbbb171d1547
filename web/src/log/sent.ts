import type { LogEntry } from '@dogleg/core/log'
import { storage } from './storage.ts'

/**
 * Entries of this tablet that the server has acknowledged, kept for a while all the same: where its logbook is lost, and the backup
 * is older, they can be given back. The newest are kept; where the storage is short, none.
 */
const PREFIX = 'dogleg.sent.'
/** Characters that they may take: of some five million that a browser gives. */
const MOST_CHARACTERS = 1_000_000
/** A single one that is longer is not kept: a program's text, which a file has as well. */
const LONGEST = 100_000

let size: number | undefined

const sizeNow = () =>
  storage.keys(PREFIX).reduce((sum, key) => sum + key.length + (storage.get(key)?.length ?? 0), 0)

/** Makes room for so many characters by letting go of the oldest. */
function makeRoom(wanted: number) {
  size ??= sizeNow()
  for (const key of storage.keys(PREFIX)) {
    if (size + wanted <= MOST_CHARACTERS) return
    size -= key.length + (storage.get(key)?.length ?? 0)
    storage.remove(key)
  }
}

export function keepSent(entries: readonly LogEntry[]) {
  for (const entry of entries) {
    const text = JSON.stringify(entry)
    if (text.length > LONGEST) continue
    makeRoom(text.length + PREFIX.length + entry.id.length)
    if (storage.set(PREFIX + entry.id, text))
      size = (size ?? 0) + text.length + PREFIX.length + entry.id.length
    else storage.remove(PREFIX + entry.id)
  }
}

/** Lets go of all of them, for what has not been acknowledged yet. */
export function letGoOfSent() {
  for (const key of storage.keys(PREFIX)) storage.remove(key)
  size = 0
}

/** Those that this tablet still has, the oldest first. */
export const sentEntries = (): LogEntry[] =>
  storage.keys(PREFIX).flatMap((key) => {
    try {
      return [JSON.parse(storage.get(key) ?? '') as LogEntry]
    } catch {
      return []
    }
  })
