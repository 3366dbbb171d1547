import type { Entry } from '@dogleg/core/setup'
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm'
import type { Reader, Writer } from '../database/open.ts'
import { entries as table } from '../database/schema.ts'
import { Problem } from '../problem.ts'

const AHEAD_MINUTES = 10

export interface Appended {
  added: number
  /** Entries that were here already, from an earlier sending. */
  known: number
}

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

/** Values that go with one statement: SQLite takes at most 32,766. */
const AT_ONCE = 5000

function* batches<T>(list: readonly T[]): Generator<T[]> {
  for (let at = 0; at < list.length; at += AT_ONCE) yield list.slice(at, at + AT_ONCE)
}

async function bodiesOf(db: Reader, ids: readonly string[]): Promise<Map<string, string>> {
  const bodies = new Map<string, string>()
  for (const some of batches(ids))
    for (const { id, body } of await db.select().from(table).where(inArray(table.id, some)))
      bodies.set(id, body)
  return bodies
}

/** Adds entries to the log, in the transaction that is open. Adding is idempotent by the id that the client made. `now` in ms since 1970. */
export async function appendEntries(tx: Writer, entries: readonly Entry[], now: number): Promise<Appended> {
  const opening = new Set(entries.filter(({ kind }) => kind === 'opened').map(({ id }) => id))
  const setups = [...new Set(entries.map(({ setup }) => setup))]
  const known = await bodiesOf(tx, setups)
  const standing = await bodiesOf(
    tx,
    entries.map(({ id }) => id),
  )
  const added: { id: string; setup: string; body: string }[] = []
  for (const entry of entries) {
    const body = JSON.stringify(entry)
    const before = standing.get(entry.id)
    if (before !== undefined && before !== body)
      throw new Problem(409, 'id-taken', 'Another entry has this id. Enter it again.', entry.id)
    if (before !== undefined) continue
    check(entry, opening.has(entry.setup) || known.has(entry.setup), now)
    standing.set(entry.id, body)
    added.push({ id: entry.id, setup: entry.setup, body })
  }
  for (const some of batches(added)) await tx.insert(table).values(some)
  return { added: added.length, known: entries.length - added.length }
}

/** Refuses an entry that cannot be right here, whatever it says. */
function check(entry: Entry, setupKnown: boolean, now: number) {
  if (entry.kind === 'opened' ? entry.setup !== entry.id : !setupKnown)
    throw new Problem(
      409,
      'setup-unknown',
      'The setup that this entry belongs to is not in this logbook.',
      entry.id,
    )
  if (entry.kind === 'struck' && entry.target === entry.setup)
    throw new Problem(422, 'opening-struck', 'The entry that opens a setup cannot be struck out.', entry.id)
  if (Date.parse(entry.at) > now + AHEAD_MINUTES * 60_000)
    throw new Problem(
      422,
      'clock-ahead',
      `This entry is dated ${entry.at}, which is still to come. Set the clock of this tablet and enter it again.`,
      entry.id,
    )
}

type Rows = { seq: number; body: string }[]

/** Entries as they were read, and the place of the last. */
const upTo = (rows: Rows, after: number): { entries: Entry[]; seq: number } => ({
  entries: rows.map(({ body }) => JSON.parse(body) as Entry),
  seq: rows.at(-1)?.seq ?? after,
})

/** The log as it can be read; nothing in it is ever changed or removed. */
export function entryStore(db: Reader) {
  /** Entries of one setup that arrived after `after`, and the place of the last. */
  const since = async (setup: string, after: number) =>
    upTo(
      await db
        .select()
        .from(table)
        .where(and(eq(table.setup, setup), gt(table.seq, after)))
        .orderBy(asc(table.seq)),
      after,
    )

  /** Entries of every setup on a machine that arrived after `after`, without what is long, and the place of the last. */
  const ofMachine = async (machine: string, after: number) => {
    const setups = db
      .select({ id: table.id })
      .from(table)
      .where(and(eq(table.id, table.setup), sql`json_extract(${table.body}, '$.machine.id') = ${machine}`))
    const rows = await db
      .select()
      .from(table)
      .where(and(inArray(table.setup, setups), gt(table.seq, after)))
      .orderBy(asc(table.seq))
    const { entries, seq } = upTo(rows, after)
    return { entries: entries.map(withoutBulk), seq }
  }

  /** What is known of serial numbers in the whole shop: numbers given out, and whatever was struck out. */
  const ofNumbers = async (after: number) =>
    upTo(
      await db
        .select()
        .from(table)
        .where(
          and(
            inArray(sql`json_extract(${table.body}, '$.kind')`, ['numbered', 'struck']),
            gt(table.seq, after),
          ),
        )
        .orderBy(asc(table.seq)),
      after,
    )

  /** Every entry, by setup, in the order of arrival. */
  const bySetup = async (): Promise<Map<string, Entry[]>> => {
    const logs = new Map<string, Entry[]>()
    for (const { setup, body } of await db.select().from(table).orderBy(asc(table.seq))) {
      const log = logs.get(setup)
      const entry = JSON.parse(body) as Entry
      if (log) log.push(entry)
      else logs.set(setup, [entry])
    }
    return logs
  }

  const isEmpty = async () => (await db.select({ seq: table.seq }).from(table).limit(1)).length === 0

  return { since, ofMachine, ofNumbers, bySetup, isEmpty }
}
export type EntryStore = ReturnType<typeof entryStore>
