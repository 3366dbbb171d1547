import { isUnread, type LogEntry } from '@dogleg/core/log'
import { type Logged, readEntry } from '@dogleg/core/setup'

const read = new WeakMap<LogEntry, Logged>()

function readOne(entry: LogEntry): Logged {
  const known = read.get(entry)
  if (known) return known
  // The server has read what it sends, and says itself what it cannot read; what this tablet has is read here.
  const now = isUnread(entry)
    ? entry
    : readEntry(entry, {}, entry.received ? 'read-before' : 'not-read-before')
  read.set(entry, now)
  return now
}

/** Entries as the server and this tablet have them, through the one door; each is read once. */
export const readLog = (entries: readonly LogEntry[]): Logged[] => entries.map(readOne)
