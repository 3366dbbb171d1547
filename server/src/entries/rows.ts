import { isDeepStrictEqual } from 'node:util'
import { mayName, textsNamedIn, withTexts } from '@dogleg/core/log'
import { type Logged, readEntry, readEntryText } from '@dogleg/core/setup'
import type { entries as table } from '../database/schema.ts'

export type LogRow = Pick<
  typeof table.$inferSelect,
  'id' | 'seq' | 'setup' | 'body' | 'received' | 'latest' | 'tablet'
>

const iso = (ms: number | null) => (ms === null ? undefined : new Date(ms).toISOString())

/** How long rows are read at a stretch before others have their turn, in ms. */
const STRETCH_MS = 10
const turn = () => new Promise((resolve) => setImmediate(resolve))

export interface ReadRows {
  /** Entries, and what cannot be read as one, in the order of their places. */
  entries: Logged[]
  /** Place of the last row; undefined where there was none. */
  last: number | undefined
  /** The long texts that stand apart from them, by their hash. */
  texts: ReadonlyMap<string, string>
}

/** Texts by their hash; one that cannot be read is left out. */
export type TextsOf = (hashes: readonly string[]) => Promise<ReadonlyMap<string, string>>

const NO_TEXTS: ReadonlyMap<string, string> = new Map()

/** A body from which texts may stand apart, as data; undefined for any other. */
function apartIn(body: string): { data: unknown; named: Set<string> } | undefined {
  if (!mayName(body)) return undefined
  try {
    const data: unknown = JSON.parse(body)
    const named = textsNamedIn(data)
    return named.size === 0 ? undefined : { data, named }
  } catch {
    // No JSON, or nested too deeply: it is read for what it is.
    return undefined
  }
}

/**
 * Reads rows of the log. Nothing changes a row once it is written, so that each is held against the schema once and then trusted; a
 * long log is read in stretches, between which the server answers others. Whoever reads each row once need not remember any.
 */
export function rowReader(textsOf: TextsOf, { remembers = true }: { remembers?: boolean } = {}) {
  const known = new Set<number>()
  const readRow = (
    { id, seq, setup, body, received, latest, tablet }: LogRow,
    at: string | undefined,
    apart: ReturnType<typeof apartIn>,
    texts: ReadonlyMap<string, string>,
  ): Logged => {
    const times = { received: iso(received), latest: iso(latest), tablet: tablet ?? undefined }
    const place = { id, seq, setup, ...times, ...(at === undefined ? {} : { at }) }
    const lacks = apart && [...apart.named].some((hash) => !texts.has(hash))
    const data = apart && withTexts(apart.data, (hash) => texts.get(hash))
    const trust = known.has(seq) && !lacks ? 'read-before' : 'not-read-before'
    const entry = apart ? readEntry(data, place, trust) : readEntryText(body, place, trust)
    if (entry.kind === 'unread')
      return lacks && entry.why === 'damaged'
        ? { ...entry, says: 'A long text that belongs to it cannot be read: the logbook file is damaged.' }
        : entry
    // One that its schema adds something to is read anew each time.
    if (remembers && !known.has(seq) && isDeepStrictEqual(entry, data ?? JSON.parse(body))) known.add(seq)
    if (times.received !== undefined) entry.received = times.received
    if (times.latest !== undefined) entry.latest = times.latest
    if (times.tablet !== undefined) entry.tablet = times.tablet
    return entry
  }
  return async (rows: readonly LogRow[]): Promise<ReadRows> => {
    const entries: Logged[] = []
    const apart = new Map<number, NonNullable<ReturnType<typeof apartIn>>>()
    for (const { seq, body } of rows) {
      const named = apartIn(body)
      if (named) apart.set(seq, named)
    }
    const hashes = new Set([...apart.values()].flatMap(({ named }) => [...named]))
    const texts = hashes.size === 0 ? NO_TEXTS : await textsOf([...hashes])
    /** The latest time that a setup's entries claim so far: what cannot be read there came no earlier. */
    const latestAt = new Map<string, string>()
    let since = performance.now()
    for (const row of rows) {
      const before = latestAt.get(row.setup)
      const entry = readRow(row, iso(row.received) ?? before, apart.get(row.seq), texts)
      entries.push(entry)
      if (before === undefined || entry.at > before) latestAt.set(row.setup, entry.at)
      if (performance.now() - since > STRETCH_MS) {
        await turn()
        since = performance.now()
      }
    }
    return { entries, last: rows.at(-1)?.seq, texts }
  }
}
export type RowReader = ReturnType<typeof rowReader>
