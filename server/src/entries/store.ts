import { isUnread, NO_TIME, type UnreadEntry } from '@dogleg/core/log'
import { type Logged, slimmed } from '@dogleg/core/setup'
import { and, asc, eq, gt, inArray, isNull, or, type SQL, sql } from 'drizzle-orm'
import type { Reader } from '../database/connect.ts'
import { isDamage } from '../database/errors.ts'
import { entries as table } from '../database/schema.ts'
import { type LogRow, type RowReader, rowReader } from './rows.ts'

/** The kind of an entry, where its row can be read at all. */
export const kindOf = sql<string>`case when json_valid(${table.body}) then json_extract(${table.body}, '$.kind') end`
const machineOf = sql<string>`case when json_valid(${table.body}) then json_extract(${table.body}, '$.machine.id') end`

function grouped<T extends { setup: string }>(all: readonly T[]): Map<string, T[]> {
  const by = new Map<string, T[]>()
  for (const each of all) {
    const own = by.get(each.setup)
    if (own) own.push(each)
    else by.set(each.setup, [each])
  }
  return by
}

/** Entries of a log from a place on. */
export interface EntriesSince {
  /** What cannot be read as an entry stands among them. */
  entries: Logged[]
  /** Place of the last. */
  seq: number
}

/** The log as it can be read; nothing in it is ever changed or removed. */
export function entryStore(db: Reader, { damaged: inDoubt = false }: { damaged?: boolean } = {}) {
  const read: RowReader = rowReader()
  const upTo = async (rows: readonly LogRow[], after: number): Promise<EntriesSince> => {
    const { entries, last } = await read(rows)
    return { entries, seq: last ?? after }
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

  /** Entries of every setup on a machine that arrived after `after`, without what is long, and the place of the last. */
  const ofMachine = async (machine: string, after: number) => {
    const openedOn = (on: SQL | undefined) =>
      db
        .select({ id: table.id })
        .from(table)
        .where(and(eq(table.id, table.setup), on))
    const rowsOfSetups = (setups: ReturnType<typeof openedOn>) =>
      db
        .select()
        .from(table)
        .where(and(inArray(table.setup, setups), gt(table.seq, after)))
        .orderBy(asc(table.seq))
    const { entries, seq } = await upTo(await rowsOfSetups(openedOn(eq(machineOf, machine))), after)
    // A setup whose opening cannot be read may be of any machine: what cannot be read of it is said everywhere.
    const lost = await upTo(await rowsOfSetups(openedOn(isNull(machineOf))), after)
    return {
      entries: [
        ...entries.map((entry) => (entry.kind === 'unread' ? entry : slimmed(entry))),
        ...lost.entries.filter(isUnread),
      ],
      seq: Math.max(seq, lost.seq),
    }
  }

  /** What is known of serial numbers in the whole shop: numbers given out, whatever was struck out, and what cannot be read at all. */
  const ofNumbers = async (after: number) =>
    upTo(
      await db
        .select()
        .from(table)
        .where(and(or(inArray(kindOf, ['numbered', 'struck']), isNull(kindOf)), gt(table.seq, after)))
        .orderBy(asc(table.seq)),
      after,
    )

  /** Every entry, by setup, in the order of arrival, what cannot be read among them. */
  const bySetup = async () => {
    const rows = await rowsOf(db.select().from(table).orderBy(asc(table.seq)), () => true)
    const { entries } = await upTo(rows, 0)
    const logs = grouped(entries)
    return inDoubt ? new Map([...logs].map(([setup, log]) => [setup, doubted(setup, log)])) : logs
  }

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

  return { since, ofMachine, ofNumbers, bySetup, isEmpty, last, lastReceived }
}
export type EntryStore = ReturnType<typeof entryStore>
