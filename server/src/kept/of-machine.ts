import type { Logged } from '@dogleg/core/setup'
import { type EarlierTime, lastPause, REPEATS, SAID_LAST, slimmed, WORKED_ON_LAST } from '@dogleg/core/setup'
import type { EntryStore, PlacedEntry } from '../entries/store.ts'
import type { KeptFile } from './open.ts'

/** Notes that wait to be read are looked for so far back: so many of them. */
const NOTES_WAITING = 30

/** What a question about a machine is answered with. */
export interface OfMachine {
  /** In the order of arrival, without what is long. */
  entries: Logged[]
  /** What is known of the time before that from which on all entries are there; undefined where all are there. */
  earlier?: EarlierTime
}

const column = <T>(rows: unknown[], name: string) => rows.map((row) => (row as Record<string, T>)[name] as T)

/** The setups that a machine is told of with, of all that there ever were on it. */
export function setupsThatCount(db: KeptFile, machine: string): Set<string> {
  const last = db
    .prepare('select setup from setups where machine = ? order by last desc limit ?')
    .all(machine, WORKED_ON_LAST)
  const notes = db
    .prepare('select setup from notes where machine = ? and waits order by seq desc limit ?')
    .all(machine, NOTES_WAITING)
  // From one name to the next, so that what was said often costs no more than what was said once.
  const names = db
    .prepare(
      `with recursive each (name) as (
        select min(name) from said where machine = ?1
        union all
        select (select min(name) from said where machine = ?1 and name > each.name) from each where each.name is not null
      ) select name from each where name is not null`,
    )
    .all(machine)
  const saidLast = db.prepare(
    'select setup from said where machine = ? and name = ? order by seq desc limit ?',
  )
  return new Set([
    ...column<string>(last, 'setup'),
    ...column<string>(notes, 'setup'),
    ...column<string>(names, 'name').flatMap((name) =>
      column<string>(saidLast.all(machine, name, SAID_LAST), 'setup'),
    ),
  ])
}

/** What is known of a machine from before the time from which on the setups that count have every entry. */
function earlierThan(db: KeptFile, machine: string, counting: ReadonlySet<string>): EarlierTime | undefined {
  let omitted: number | undefined
  const setups = db.prepare('select setup, last from setups where machine = ? order by last desc')
  for (const row of setups.iterate(machine)) {
    const { setup, last } = row as { setup: string; last: number }
    if (counting.has(setup)) continue
    omitted = last
    break
  }
  if (omitted === undefined) return undefined
  const moments = db.prepare('select at, seq from moments where machine = ? order by at desc')
  let until: number | undefined
  for (const row of moments.iterate(machine)) {
    const { at, seq } = row as { at: number; seq: number }
    if (seq > omitted) continue
    until = at
    break
  }
  // Of nothing that is left out is it sure when it was: it counts as long ago.
  if (until === undefined) return undefined
  const before = db.prepare('select at from moments where machine = ? and at <= ? order by at desc')
  function* times() {
    for (const row of before.iterate(machine, until)) yield (row as { at: number }).at
  }
  const stood = lastPause(times())
  return { until, ...(stood ? { stood } : {}) }
}

/** Setups whose opening cannot be read: they may be of any machine. */
export const setupsOfNobody = (db: KeptFile): string[] =>
  column<string>(db.prepare('select setup from setups where machine is null').all(), 'setup')

const slim = (entry: Logged) => (entry.kind === 'unread' ? entry : slimmed(entry))

/** What cannot be read of setups that may be of any machine: it is said everywhere. */
async function unreadOfNobody(db: KeptFile, store: EntryStore, after: number): Promise<Logged[]> {
  const found: Logged[] = []
  for (const setup of setupsOfNobody(db))
    found.push(...(await store.since(setup, after)).entries.filter(({ kind }) => kind === 'unread'))
  return found
}

/** How a machine stands: the logs of the setups that count of all on it. */
export async function machineStands(db: KeptFile, store: EntryStore, machine: string): Promise<OfMachine> {
  const counting = setupsThatCount(db, machine)
  const placed: PlacedEntry[] = []
  for (const setup of counting) placed.push(...(await store.placed(setup)))
  // A note may have been read in a setup that does not count: then that is all that is told of it.
  const readings = db.prepare(
    'select readings.setup, readings.seq from notes join readings on readings.note = notes.id and readings.machine = notes.machine where notes.setup = ?',
  )
  const elsewhere = [...counting].flatMap((setup) =>
    (readings.all(setup) as { setup: string; seq: number }[]).filter((each) => !counting.has(each.setup)),
  )
  placed.push(...(await store.placedAt([...new Set(elsewhere.map(({ seq }) => seq))])))
  placed.sort((a, b) => a.seq - b.seq)
  const earlier = earlierThan(db, machine, counting)
  return {
    entries: [...placed.map(({ entry }) => slim(entry)), ...(await unreadOfNobody(db, store, 0))],
    ...(earlier ? { earlier } : {}),
  }
}

/** What came to a machine after a place. */
export async function machineSince(
  db: KeptFile,
  store: EntryStore,
  machine: string,
  after: number,
): Promise<Logged[]> {
  const touched = db.prepare('select setup from setups where machine = ? and last > ?').all(machine, after)
  const found: Logged[] = []
  for (const setup of column<string>(touched, 'setup'))
    found.push(...(await store.since(setup, after)).entries.map(slim))
  return [...found, ...(await unreadOfNobody(db, store, after))]
}

/** Of programs that stand at a control, so many of those that came last; of cycles that were timed likewise. */
const MOST_LISTED = { program: 500, timed: 200 } as const

/** The entries of a machine that stand in a list: the last of each name. */
export async function listedOnMachine(
  db: KeptFile,
  store: EntryStore,
  machine: string,
  list: keyof typeof MOST_LISTED,
): Promise<Logged[]> {
  const last = db
    .prepare(
      'select max(seq) as last from listed where machine = ? and list = ? group by name order by last desc limit ?',
    )
    .all(machine, list, MOST_LISTED[list])
  const seqs = [...new Set(column<number>(last, 'last'))]
  return (await store.placedAt(seqs)).map(({ entry }) => slim(entry))
}

/** What others say of a setup: the last setups of the job before it, and who has read its notes. */
export async function earlierRuns(db: KeptFile, store: EntryStore, setup: string): Promise<Logged[]> {
  const earlier = db
    .prepare(
      `select other.setup from setups as own join setups as other
        on other.machine = own.machine and other.job = own.job and other.first < own.first
        where own.setup = ? order by other.first desc limit ?`,
    )
    .all(setup, REPEATS)
  const found: Logged[] = []
  for (const each of column<string>(earlier, 'setup').reverse())
    found.push(...(await store.since(each, 0)).entries.map(slim))
  const readings = db
    .prepare(
      'select readings.seq from notes join readings on readings.note = notes.id and readings.machine = notes.machine where notes.setup = ? and readings.setup <> ?1',
    )
    .all(setup)
  const read = await store.placedAt(column<number>(readings, 'seq'))
  return [...found, ...read.map(({ entry }) => entry)]
}

/** Serial numbers of a series that were given out in the whole shop, and what cannot be read of any log. */
export async function numbersOf(db: KeptFile, store: EntryStore, series: string): Promise<Logged[]> {
  const given = db.prepare("select seq from listed where list = 'numbered' and name = ?").all(series)
  const unread = db.prepare("select setup from said where name = 'unread'").all()
  const found = (await store.placedAt(column<number>(given, 'seq'))).map(({ entry }) => entry)
  for (const setup of column<string>(unread, 'setup')) {
    const { entries } = await store.since(setup, 0)
    found.push(...entries.filter(({ kind }) => kind === 'unread' || kind === 'struck'))
  }
  return found
}
