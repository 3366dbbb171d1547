import type { Entry } from '@dogleg/core/setup'
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm'
import type { Reader } from '../database/connect.ts'
import { isDamage } from '../database/errors.ts'
import { entries as table } from '../database/schema.ts'
import { type DamagedRow, type LogRow, type RowReader, rowReader } from './rows.ts'

/** Texts of programs and measured parts by the hundred are long, and say nothing about whether the machine is ready. */
const withoutBulk = (entry: Entry): Entry => {
  switch (entry.kind) {
    case 'program':
    case 'saved':
      return { ...entry, text: '-' }
    case 'proved': {
      const { text: _, ...rest } = entry
      return rest
    }
    case 'palleted': {
      const pallets = entry.plan.pallets.map((pallet) => ({
        ...pallet,
        program: { ...pallet.program, text: '-' },
      }))
      return { ...entry, plan: { ...entry.plan, pallets, main: null } }
    }
    case 'gauged':
      return { ...entry, parts: entry.parts.slice(0, 1) }
    default:
      return entry
  }
}

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
  entries: Entry[]
  /** Rows that cannot be read as entries. */
  damaged: DamagedRow[]
  /** Place of the last. */
  seq: number
}

/** The log as it can be read; nothing in it is ever changed or removed. */
export function entryStore(db: Reader, { damaged: inDoubt = false }: { damaged?: boolean } = {}) {
  const read: RowReader = rowReader()
  const upTo = async (rows: readonly LogRow[], after: number): Promise<EntriesSince> => {
    const { entries, damaged, last } = await read(rows)
    return { entries, damaged, seq: last ?? after }
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

  /** Nothing of a damaged file can be relied on: what cannot be read may have been of any setup. */
  const doubt = (setup: string): DamagedRow[] =>
    inDoubt
      ? [
          {
            seq: 0,
            setup,
            says: 'The logbook file is damaged: entries of this setup may be missing.',
            raw: '',
          },
        ]
      : []

  /** Entries of one setup that arrived after `after`, and the place of the last. */
  const since = async (setup: string, after: number): Promise<EntriesSince> => {
    const question = db
      .select()
      .from(table)
      .where(and(eq(table.setup, setup), gt(table.seq, after)))
      .orderBy(asc(table.seq))
    const rows = await rowsOf(question, (row) => row.setup === setup && row.seq > after)
    const found = await upTo(rows, after)
    return { ...found, damaged: [...found.damaged, ...(after === 0 && rows.length > 0 ? doubt(setup) : [])] }
  }

  /** Entries of every setup on a machine that arrived after `after`, without what is long, and the place of the last. */
  const ofMachine = async (machine: string, after: number) => {
    const setups = db
      .select({ id: table.id })
      .from(table)
      .where(and(eq(table.id, table.setup), eq(machineOf, machine)))
    const rows = await db
      .select()
      .from(table)
      .where(and(inArray(table.setup, setups), gt(table.seq, after)))
      .orderBy(asc(table.seq))
    const since = await upTo(rows, after)
    return { ...since, entries: since.entries.map(withoutBulk) }
  }

  /** What is known of serial numbers in the whole shop: numbers given out, and whatever was struck out. */
  const ofNumbers = async (after: number) =>
    upTo(
      await db
        .select()
        .from(table)
        .where(and(inArray(kindOf, ['numbered', 'struck']), gt(table.seq, after)))
        .orderBy(asc(table.seq)),
      after,
    )

  /** Every entry, by setup, in the order of arrival; and the rows that cannot be read, by setup. */
  const bySetup = async () => {
    const rows = await rowsOf(db.select().from(table).orderBy(asc(table.seq)), () => true)
    const { entries, damaged } = await upTo(rows, 0)
    const logs = grouped(entries)
    return { logs, damaged: grouped([...damaged, ...[...logs.keys()].flatMap(doubt)]) }
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
