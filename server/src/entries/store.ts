import { NO_TIME, type UnreadEntry } from '@dogleg/core/log'
import type { Logged } from '@dogleg/core/setup'
import { and, asc, desc, eq, gt, inArray, lte, sql } from 'drizzle-orm'
import type { Reader } from '../database/connect.ts'
import { isDamage } from '../database/errors.ts'
import { entries as table } from '../database/schema.ts'
import { type LogRow, type RowReader, rowReader } from './rows.ts'
import { readTexts } from './texts.ts'

/** Values that go with one question: SQLite takes at most 32,766. */
const AT_ONCE = 5000

/** Entries of a log from a place on. */
export interface EntriesSince {
  /** What cannot be read as an entry stands among them. */
  entries: Logged[]
  /** Place of the last. */
  seq: number
  /** The long texts that stand apart from them, by their hash. */
  texts: ReadonlyMap<string, string>
}

/** An entry with its place in the logbook. */
export interface PlacedEntry {
  entry: Logged
  seq: number
}

/** The log as it can be read; nothing in it is ever changed or removed. */
export function entryStore(
  db: Reader,
  { damaged: inDoubt = false, remembers = true }: { damaged?: boolean; remembers?: boolean } = {},
) {
  const read: RowReader = rowReader((hashes) => readTexts(db, hashes, { inDoubt }), { remembers })
  const upTo = async (rows: readonly LogRow[], after: number): Promise<EntriesSince> => {
    const { entries, last, texts } = await read(rows)
    return { entries, seq: last ?? after, texts }
  }

  /** The rows of a damaged file that can be read, one by one. */
  const rowsOneByOne = async (wanted: (row: LogRow) => boolean): Promise<LogRow[]> => {
    const rows: LogRow[] = []
    const { seq: end } = await last()
    for (let seq = 1; seq <= end; seq++) {
      try {
        rows.push(...(await db.select().from(table).where(eq(table.seq, seq))).filter(wanted))
      } catch (error) {
        if (!isDamage(error)) throw error
      }
    }
    return rows
  }

  /** What a question gives; of a damaged file what can still be read of it. */
  const rowsOf = async (
    question: PromiseLike<LogRow[]>,
    wanted: (row: LogRow) => boolean,
  ): Promise<LogRow[]> => {
    try {
      return await question
    } catch (error) {
      if (!inDoubt || !isDamage(error)) throw error
      return rowsOneByOne(wanted)
    }
  }

  /** Nothing of a damaged file can be relied on: what cannot be read may have been of any setup, and as late as its last entry. */
  const doubted = (setup: string, log: readonly Logged[]): Logged[] => {
    const last = log
      .map(({ at }) => at)
      .sort()
      .at(-1)
    const doubt: UnreadEntry = {
      id: `file-${setup}`.slice(0, 40),
      setup,
      at: last ?? NO_TIME,
      by: '',
      kind: 'unread',
      why: 'damaged',
      says: 'The logbook file is damaged: entries of this setup may be missing.',
      raw: '',
      seq: 0,
    }
    return [...log, doubt]
  }

  /** Entries of one setup that arrived after `after`, and the place of the last. */
  const since = async (setup: string, after: number): Promise<EntriesSince> => {
    const question = db
      .select()
      .from(table)
      .where(and(eq(table.setup, setup), gt(table.seq, after)))
      .orderBy(asc(table.seq))
    const rows = await rowsOf(question, (row) => row.setup === setup && row.seq > after)
    const found = await upTo(rows, after)
    return inDoubt && after === 0 && rows.length > 0
      ? { ...found, entries: doubted(setup, found.entries) }
      : found
  }

  /** A setup's log, each entry with its place. */
  const placed = async (setup: string): Promise<PlacedEntry[]> => {
    const question = db.select().from(table).where(eq(table.setup, setup)).orderBy(asc(table.seq))
    const rows = await rowsOf(question, (row) => row.setup === setup)
    const { entries } = await read(rows)
    const log = inDoubt && rows.length > 0 ? doubted(setup, entries) : entries
    return log.map((entry, n) => ({ entry, seq: rows[n]?.seq ?? 0 }))
  }

  /** Setups that have entries after a place, and how far was looked: at most so many entries, all of a damaged file. */
  const touchedSince = async (after: number, most: number): Promise<{ setups: string[]; seq: number }> => {
    const where = gt(table.seq, after)
    const rows = inDoubt
      ? await rowsOf(db.select().from(table).where(where).orderBy(asc(table.seq)), ({ seq }) => seq > after)
      : await db
          .select({ setup: table.setup, seq: table.seq })
          .from(table)
          .where(where)
          .orderBy(asc(table.seq))
          .limit(most)
    return { setups: [...new Set(rows.map(({ setup }) => setup))], seq: rows.at(-1)?.seq ?? after }
  }

  /** Setups that have entries up to a place, the last first, and the place before which was not looked: so many entries at most. */
  const touchedUpTo = async (place: number, most: number): Promise<{ setups: string[]; before: number }> => {
    const rows = await db
      .select({ setup: table.setup, seq: table.seq })
      .from(table)
      .where(lte(table.seq, place))
      .orderBy(desc(table.seq))
      .limit(most)
    const whole = rows.length < most
    return {
      setups: [...new Set(rows.map(({ setup }) => setup))],
      before: whole ? 0 : (rows.at(-1)?.seq ?? 1) - 1,
    }
  }

  /** Entries at some places, in their order. */
  const placedAt = async (seqs: readonly number[]): Promise<PlacedEntry[]> => {
    const found: LogRow[] = []
    for (let from = 0; from < seqs.length; from += AT_ONCE)
      found.push(
        ...(await rowsOf(
          db
            .select()
            .from(table)
            .where(inArray(table.seq, seqs.slice(from, from + AT_ONCE))),
          ({ seq }) => seqs.includes(seq),
        )),
      )
    const { entries } = await read(found.sort((a, b) => a.seq - b.seq))
    return entries.map((entry, n) => ({ entry, seq: found[n]?.seq ?? 0 }))
  }

  /** A long text by its hash; undefined where none is. */
  const text = async (hash: string): Promise<string | undefined> =>
    (await readTexts(db, [hash], { inDoubt })).get(hash)

  /** The id of the entry at a place; undefined where none is. */
  const idAt = async (seq: number): Promise<string | undefined> =>
    (await db.select({ id: table.id }).from(table).where(eq(table.seq, seq)).limit(1))[0]?.id

  const isEmpty = async () => (await db.select({ seq: table.seq }).from(table).limit(1)).length === 0

  /** Place of the last entry of all; 0 in an empty log. */
  const last = async (): Promise<{ seq: number }> => {
    try {
      const [row] = await db.select({ seq: sql<number | null>`max(${table.seq})` }).from(table)
      return { seq: row?.seq ?? 0 }
    } catch (error) {
      if (!inDoubt || !isDamage(error)) throw error
      // The last page is damaged: SQLite remembers elsewhere how far it went.
      const [row] = await db
        .select({ seq: sql<number | null>`(select seq from sqlite_sequence where name = 'entries')` })
        .from(sql`(select 1)`)
      return { seq: row?.seq ?? 0 }
    }
  }

  /** The latest time at which anything was received, in ms since 1970; 0 where nothing was. */
  const lastReceived = async (): Promise<number> => {
    const [row] = await db.select({ at: sql<number | null>`max(${table.received})` }).from(table)
    return row?.at ?? 0
  }

  return { since, placed, touchedSince, touchedUpTo, placedAt, text, idAt, isEmpty, last, lastReceived }
}
export type EntryStore = ReturnType<typeof entryStore>
