import type { Entry } from '@dogleg/core/setup'
import { and, asc, eq, gt, inArray, sql } from 'drizzle-orm'
import type { Database } from '../database/open.ts'
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

/** The log. Adding is idempotent by the id that the client made; nothing is ever changed or removed. */
export function entryStore({ db }: Database) {
  const bodiesOf = (ids: string[]) =>
    new Map(
      db
        .select()
        .from(table)
        .where(inArray(table.id, ids))
        .all()
        .map(({ id, body }) => [id, body]),
    )

  const setupExists = (id: string) =>
    db.select({ seq: table.seq }).from(table).where(eq(table.id, id)).get() !== undefined

  const check = (entry: Entry, opening: ReadonlySet<string>, now: number) => {
    if (
      entry.kind === 'opened'
        ? entry.setup !== entry.id
        : !opening.has(entry.setup) && !setupExists(entry.setup)
    )
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

  /** Adds entries in one transaction: all of them or none. `now` in ms since 1970. */
  const append = (entries: readonly Entry[], now: number): Appended =>
    db.transaction(
      () => {
        const opening = new Set(entries.filter(({ kind }) => kind === 'opened').map(({ id }) => id))
        const standing = bodiesOf(entries.map(({ id }) => id))
        let added = 0
        for (const entry of entries) {
          const body = JSON.stringify(entry)
          const before = standing.get(entry.id)
          if (before !== undefined && before !== body)
            throw new Problem(409, 'id-taken', 'Another entry has this id. Enter it again.', entry.id)
          if (before !== undefined) continue
          check(entry, opening, now)
          db.insert(table).values({ id: entry.id, setup: entry.setup, body }).run()
          standing.set(entry.id, body)
          added += 1
        }
        return { added, known: entries.length - added }
      },
      { behavior: 'immediate' },
    )

  /** Entries of one setup that arrived after `after`, and the place of the last. */
  const since = (setup: string, after: number): { entries: Entry[]; seq: number } => {
    const rows = db
      .select()
      .from(table)
      .where(and(eq(table.setup, setup), gt(table.seq, after)))
      .orderBy(asc(table.seq))
      .all()
    return { entries: rows.map(({ body }) => JSON.parse(body) as Entry), seq: rows.at(-1)?.seq ?? after }
  }

  /** Entries of every setup on a machine that arrived after `after`, and the place of the last. */
  const ofMachine = (machine: string, after: number): { entries: Entry[]; seq: number } => {
    const setups = db
      .select({ id: table.id })
      .from(table)
      .where(and(eq(table.id, table.setup), sql`json_extract(${table.body}, '$.machine.id') = ${machine}`))
    const rows = db
      .select()
      .from(table)
      .where(and(inArray(table.setup, setups), gt(table.seq, after)))
      .orderBy(asc(table.seq))
      .all()
    return {
      entries: rows.map(({ body }) => withoutBulk(JSON.parse(body) as Entry)),
      seq: rows.at(-1)?.seq ?? after,
    }
  }

  /** What is known of serial numbers in the whole shop: numbers given out, and whatever was struck out. */
  const ofNumbers = (after: number): { entries: Entry[]; seq: number } => {
    const rows = db
      .select()
      .from(table)
      .where(
        and(
          inArray(sql`json_extract(${table.body}, '$.kind')`, ['numbered', 'struck']),
          gt(table.seq, after),
        ),
      )
      .orderBy(asc(table.seq))
      .all()
    return { entries: rows.map(({ body }) => JSON.parse(body) as Entry), seq: rows.at(-1)?.seq ?? after }
  }

  /** Every entry, by setup, in the order of arrival. */
  const bySetup = (): Map<string, Entry[]> => {
    const logs = new Map<string, Entry[]>()
    for (const { setup, body } of db.select().from(table).orderBy(asc(table.seq)).all()) {
      const log = logs.get(setup)
      const entry = JSON.parse(body) as Entry
      if (log) log.push(entry)
      else logs.set(setup, [entry])
    }
    return logs
  }

  const isEmpty = () => db.select({ seq: table.seq }).from(table).limit(1).get() === undefined

  return { append, since, ofMachine, ofNumbers, bySetup, setupExists, isEmpty }
}
export type EntryStore = ReturnType<typeof entryStore>
