import type { Logged } from '@dogleg/core/setup'
import {
  type EarlierTime,
  lastPause,
  needsItsLog,
  REPEATS,
  SAID_LAST,
  WORKED_ON_LAST,
} from '@dogleg/core/setup'
import type { EntryStore, PlacedEntry } from '../entries/store.ts'
import { type LogReader, slim } from './logs.ts'
import { type KeptFile, prepared } from './open.ts'

/** Notes that wait to be read are looked for so far back: so many of them. */
const NOTES_WAITING = 30

/** What a question about a machine is answered with. */
export interface OfMachine {
  /** In the order of arrival, without what is long. */
  entries: Logged[]
  /** Setups of which only single entries are there: what comes to one of them later is not understood without the rest of its log. */
  single?: string[]
  /** What is known of the time before that from which on all entries are there; undefined where all are there. */
  earlier?: EarlierTime
}

const column = <T>(rows: unknown[], name: string) => rows.map((row) => (row as Record<string, T>)[name] as T)

/** What a machine is told of: setups with all of their log, and single entries by their places. */
export interface Counts {
  setups: Set<string>
  places: Set<number>
}

/** What counts of all that there ever was on a machine. */
export function whatCounts(db: KeptFile, machine: string): Counts {
  const setups = new Set(
    column<string>(
      prepared(db, 'select setup from setups where machine = ? order by last desc limit ?').all(
        machine,
        WORKED_ON_LAST,
      ),
      'setup',
    ),
  )
  // From one name to the next, so that what was said often costs no more than what was said once.
  const names = prepared(
    db,
    `with recursive each (name) as (
      select min(name) from said where machine = ?1
      union all
      select (select min(name) from said where machine = ?1 and name > each.name) from each where each.name is not null
    ) select name from each where name is not null`,
  ).all(machine)
  const saidLast = prepared(
    db,
    'select setup, seq from said where machine = ? and name = ? order by seq desc limit ?',
  )
  const single: { setup: string; seq: number }[] = []
  for (const name of column<string>(names, 'name')) {
    const last = saidLast.all(machine, name, SAID_LAST) as { setup: string; seq: number }[]
    if (needsItsLog(name)) for (const { setup } of last) setups.add(setup)
    else single.push(...last)
  }
  single.push(
    ...(prepared(
      db,
      'select setup, seq from notes where machine = ? and waits order by seq desc limit ?',
    ).all(machine, NOTES_WAITING) as { setup: string; seq: number }[]),
  )
  const opening = prepared(db, 'select opened from setups where setup = ?')
  const places = new Set<number>()
  for (const { setup, seq } of single) {
    if (setups.has(setup)) continue
    places.add(seq)
    // Each stands with the entry that opened its setup: whose it is can be seen.
    const { opened } = opening.get(setup) as { opened: number | null }
    if (opened !== null) places.add(opened)
  }
  return { setups, places }
}

/** When somebody was surely at a machine before a time, the last first; read a few at a time. */
function* momentsBefore(db: KeptFile, machine: string, time: number) {
  const some = prepared(
    db,
    'select at, max(seq) as seq from moments where machine = ? and at < ? group by at order by at desc limit 100',
  )
  for (let before = time; ; ) {
    const rows = some.all(machine, before) as { at: number; seq: number }[]
    yield* rows
    const last = rows.at(-1)
    if (!last) return
    before = last.at
  }
}

/** What is known of a machine from before the time from which on the setups that count have every entry. */
function earlierThan(db: KeptFile, machine: string, counting: ReadonlySet<string>): EarlierTime | undefined {
  const omitted = (
    prepared(db, 'select setup, last from setups where machine = ? order by last desc limit ?').all(
      machine,
      counting.size + 1,
    ) as { setup: string; last: number }[]
  ).find(({ setup }) => !counting.has(setup))?.last
  if (omitted === undefined) return undefined
  let until: number | undefined
  for (const { at, seq } of momentsBefore(db, machine, Number.MAX_SAFE_INTEGER)) {
    if (seq > omitted) continue
    until = at
    break
  }
  // Of nothing that is left out is it sure when it was: it counts as long ago.
  if (until === undefined) return undefined
  // A pause counts that came after anything that is due again after one: it is looked for no further back than that was said.
  const { since } = prepared(
    db,
    `select min(moments.at) as since from said join moments on moments.setup = said.setup
        where said.machine = ? and said.seq in (
          select max(seq) from said where machine = ?1 and (name = 'home' or name glob 'ready/*') group by name
        )`,
  ).get(machine) as { since: number | null }
  function* times(from: number) {
    for (const { at } of momentsBefore(db, machine, from + 1)) {
      yield at
      if (since !== null && at < since) return
    }
  }
  const stood = lastPause(times(until))
  return { until, ...(stood ? { stood } : {}) }
}

/** Setups whose opening cannot be read: they may be of any machine. */
export const setupsOfNobody = (db: KeptFile): string[] =>
  column<string>(prepared(db, 'select setup from setups where machine is null').all(), 'setup')

/** What cannot be read of setups that may be of any machine: it is said everywhere. */
async function unreadOfNobody(db: KeptFile, store: EntryStore, after: number): Promise<Logged[]> {
  const found: Logged[] = []
  for (const setup of setupsOfNobody(db))
    found.push(...(await store.since(setup, after)).entries.filter(({ kind }) => kind === 'unread'))
  return found
}

/** How a machine stands: what counts of all that there ever was on it. */
export async function machineStands(
  db: KeptFile,
  store: EntryStore,
  logs: LogReader,
  machine: string,
): Promise<OfMachine> {
  const { setups, places } = whatCounts(db, machine)
  const placed: PlacedEntry[] = []
  for (const setup of setups) placed.push(...(await logs(db, setup)))
  // A note may have been read in a setup that does not count: then that is all that is told of it.
  const readings = prepared(
    db,
    'select readings.setup, readings.seq from notes join readings on readings.note = notes.id and readings.machine = notes.machine where notes.setup = ?',
  )
  for (const setup of setups)
    for (const each of readings.all(setup) as { setup: string; seq: number }[])
      if (!setups.has(each.setup)) places.add(each.seq)
  for (const { entry, seq } of await store.placedAt([...places])) placed.push({ entry: slim(entry), seq })
  placed.sort((a, b) => a.seq - b.seq)
  const earlier = earlierThan(db, machine, setups)
  const single = new Set(placed.flatMap(({ entry }) => (setups.has(entry.setup) ? [] : entry.setup)))
  return {
    entries: [...placed.map(({ entry }) => entry), ...(await unreadOfNobody(db, store, 0))],
    ...(earlier ? { earlier } : {}),
    ...(single.size > 0 ? { single: [...single] } : {}),
  }
}

/** What came to a machine after a place. */
export async function machineSince(
  db: KeptFile,
  store: EntryStore,
  machine: string,
  after: number,
): Promise<Logged[]> {
  const touched = prepared(db, 'select setup from setups where machine = ? and last > ?').all(machine, after)
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
  const last = prepared(
    db,
    'select max(seq) as last from listed where machine = ? and list = ? group by name order by last desc limit ?',
  ).all(machine, list, MOST_LISTED[list])
  const seqs = [...new Set(column<number>(last, 'last'))]
  return (await store.placedAt(seqs)).map(({ entry }) => slim(entry))
}

/** What others say of a setup: the last setups of the job before it, and who has read its notes. */
export async function earlierRuns(db: KeptFile, store: EntryStore, setup: string): Promise<Logged[]> {
  const earlier = prepared(
    db,
    `select other.setup from setups as own join setups as other
        on other.machine = own.machine and other.job = own.job and other.first < own.first
        where own.setup = ? order by other.first desc limit ?`,
  ).all(setup, REPEATS)
  const found: Logged[] = []
  for (const each of column<string>(earlier, 'setup').reverse())
    found.push(...(await store.since(each, 0)).entries.map(slim))
  const readings = prepared(
    db,
    'select readings.seq from notes join readings on readings.note = notes.id and readings.machine = notes.machine where notes.setup = ? and readings.setup <> ?1',
  ).all(setup)
  const read = await store.placedAt(column<number>(readings, 'seq'))
  return [...found, ...read.map(({ entry }) => entry)]
}

/** Serial numbers of a series that were given out in the whole shop, and what cannot be read of any log. */
export async function numbersOf(db: KeptFile, store: EntryStore, series: string): Promise<Logged[]> {
  const given = prepared(db, "select seq from listed where list = 'numbered' and name = ?").all(series)
  const unread = prepared(db, "select setup from said where name = 'unread'").all()
  const found = (await store.placedAt(column<number>(given, 'seq'))).map(({ entry }) => entry)
  for (const setup of column<string>(unread, 'setup')) {
    const { entries } = await store.since(setup, 0)
    found.push(...entries.filter(({ kind }) => kind === 'unread' || kind === 'struck'))
  }
  return found
}
