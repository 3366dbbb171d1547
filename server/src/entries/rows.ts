import { isDeepStrictEqual } from 'node:util'
import { type Logged, readEntryText } from '@dogleg/core/setup'
import type { entries as table } from '../database/schema.ts'

export type LogRow = Pick<typeof table.$inferSelect, 'id' | 'seq' | 'setup' | 'body' | 'received' | 'latest'>

const iso = (ms: number | null) => (ms === null ? undefined : new Date(ms).toISOString())

/** How long rows are read at a stretch before others have their turn, in ms. */
const STRETCH_MS = 10
const turn = () => new Promise((resolve) => setImmediate(resolve))

export interface ReadRows {
  /** Entries, and what cannot be read as one, in the order of their places. */
  entries: Logged[]
  /** Place of the last row; undefined where there was none. */
  last: number | undefined
}

/**
 * Reads rows of the log. Nothing changes a row once it is written, so that each is held against the schema once and then trusted; a
 * long log is read in stretches, between which the server answers others. Whoever reads each row once need not remember any.
 */
export function rowReader({ remembers = true }: { remembers?: boolean } = {}) {
  const known = new Set<number>()
  const readRow = ({ id, seq, setup, body, received, latest }: LogRow, at: string | undefined): Logged => {
    const times = { received: iso(received), latest: iso(latest) }
    const place = { id, seq, setup, ...times, ...(at === undefined ? {} : { at }) }
    const entry = readEntryText(body, place, known.has(seq) ? 'read-before' : 'not-read-before')
    if (entry.kind === 'unread') return entry
    // One that its schema adds something to is read anew each time.
    if (remembers && !known.has(seq) && isDeepStrictEqual(entry, JSON.parse(body))) known.add(seq)
    if (times.received !== undefined) entry.received = times.received
    if (times.latest !== undefined) entry.latest = times.latest
    return entry
  }
  return async (rows: readonly LogRow[]): Promise<ReadRows> => {
    const entries: Logged[] = []
    /** The latest time that a setup's entries claim so far: what cannot be read there came no earlier. */
    const latestAt = new Map<string, string>()
    let since = performance.now()
    for (const row of rows) {
      const before = latestAt.get(row.setup)
      const entry = readRow(row, iso(row.received) ?? before)
      entries.push(entry)
      if (before === undefined || entry.at > before) latestAt.set(row.setup, entry.at)
      if (performance.now() - since > STRETCH_MS) {
        await turn()
        since = performance.now()
      }
    }
    return { entries, last: rows.at(-1)?.seq }
  }
}
export type RowReader = ReturnType<typeof rowReader>
