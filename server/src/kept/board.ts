import type { Machine } from '@dogleg/core/machine'
import {
  deriveReady,
  deriveSetup,
  deriveTools,
  inForce,
  isUnreadable,
  NOUNS,
  type ReadyState,
  type Reference,
  type Setup,
  type ToolFact,
  type Unreadable,
} from '@dogleg/core/setup'
import {
  type MachineGlance,
  machineGlance,
  readyMatters,
  type SetupSummary,
  type ShopBoard,
  setupLine,
  type ToldBoard,
} from '@dogleg/core/traveler'
import type { EntryStore } from '../entries/store.ts'
import type { ReferenceStore } from '../reference/store.ts'
import { type LogReader, use } from './logs.ts'
import { machineStands, type OfMachine, setupsOfNobody } from './of-machine.ts'
import { type KeptFile, keptValue, prepared } from './open.ts'

/** Of a machine the board shows so many setups that were worked on last, */
const SHOWN_LAST = 12
/** and those of so many days, in ms, up to so many. */
const SHOWN_MS = 14 * 24 * 3_600_000
const MINUTE = 60_000
const MOST_SHOWN = 60
/** Older setups come so many at a time. */
const A_PAGE = 20
/** Setups whose state is kept: more than a large shop has on its board. */
const MOST_KEPT = 1500
/** Lines of a setup that are kept: each person at a tablet may see it otherwise. */
const LINES_KEPT = 8

/** Who asks, and when: `now` in ms since 1970, `operator` are the initials, if anybody's. */
export interface AskedBy {
  now: number
  operator?: string | undefined
}

interface Line {
  lengths: readonly ToolFact[]
  matters: string
  line: SetupSummary
}

interface KnownSetup {
  /** What it was worked out of: its last entry, and the versions of all rows that it may use. */
  from: string
  derived: Setup | Unreadable
  lines: Line[]
}

type Lengths = Map<Setup['unit'], readonly ToolFact[]>

interface KnownMachine {
  /** The last entry on the machine, and the version of its row. */
  from: string
  stands: OfMachine
  lengths: Lengths
  /** As they were before the last entry. */
  before: Lengths
  /** Whether it is ready, for each who asked within this minute. */
  ready: Map<string, ReadyState>
  /** Whoever is named in what being ready goes by: for all others it is the same. */
  people: ReadonlySet<string>
  /** It on the board, with what cannot be read, for each who asked within this minute. */
  glances: Map<string, Glance>
}

/** A machine on the board, and setups on it that cannot be read. */
interface Glance {
  glance: MachineGlance
  unreadable: ShopBoard['unreadable']
}

/** What a line is seen against. */
interface Around {
  ready: ReadyState
  lengths: readonly ToolFact[]
  reference: Reference
}

interface KnownReference {
  stamp: number
  reference: Reference
  /** The versions of all rows that a setup on a machine may use, by machine. */
  versions: Map<string, string>
}

const named = ({ id, version }: { id: string; version: number }) => `${id}:${version}`

/** The versions of all rows that a setup on a machine may use; those of other machines are not among them. */
function versionsFor(reference: Reference, machine: string): string {
  return NOUNS.map((noun) => {
    if (noun === 'machines') return reference.machines.filter(({ id }) => id === machine).map(named)
    if (noun === 'tools') return reference.tools.filter(({ machineId }) => machineId === machine).map(named)
    return reference[noun].map(named)
  }).join(' ')
}

/** The setups of a machine that the board shows, how many there are beside them, and when any that is put away was worked on last. */
function shownOf(db: KeptFile, machine: string, now: number) {
  const rows = prepared(
    db,
    'select setup, at from setups where machine = ? and away = 0 order by last desc limit ?',
  ).all(machine, MOST_SHOWN) as { setup: string; at: number }[]
  const shown = rows.filter(({ at }, n) => n < SHOWN_LAST || at > now - SHOWN_MS).map(({ setup }) => setup)
  const { all } = prepared(db, 'select count(*) as "all" from setups where machine = ?').get(machine) as {
    all: number
  }
  const { at: awayAt } = prepared(
    db,
    'select max(worked) as at from setups where machine = ? and away = 1',
  ).get(machine) as { at: number | null }
  return { shown, more: all - shown.length, awayAt: awayAt ?? undefined }
}

/** Every machine that setups were opened on, be it here or not. */
const machinesIn = (db: KeptFile): string[] =>
  (
    prepared(
      db,
      `with recursive each (id) as (
          select min(machine) from setups
          union all
          select (select min(machine) from setups where machine > each.id) from each where each.id is not null
        ) select id from each where id is not null`,
    ).all() as { id: string }[]
  ).map(({ id }) => id)

/**
 * The lines of the board, kept: a setup is worked out anew only when its log, a row that it may use, or what its machine says of it has
 * changed. Everything can be thrown away at any moment; `shopBoard` of the same logs says the same.
 */
export function boardKeeper(store: EntryStore, rows: ReferenceStore, logs: LogReader) {
  const setups = new Map<string, KnownSetup>()
  const machines = new Map<string, KnownMachine>()
  let known: KnownReference | undefined
  /** How often anything was worked out, for those who look whether it was kept. */
  const worked = { setups: 0, lines: 0, machines: 0 }

  const referenceNow = async (): Promise<KnownReference> => {
    const stamp = await rows.stamp()
    if (known?.stamp !== stamp) known = { stamp, reference: await rows.current(), versions: new Map() }
    return known
  }

  const setupNow = async (
    db: KeptFile,
    setup: string,
    { reference, versions }: KnownReference,
  ): Promise<KnownSetup | undefined> => {
    const row = prepared(db, 'select machine, last from setups where setup = ?').get(setup) as
      | { machine: string | null; last: number }
      | undefined
    if (!row) return undefined
    const machine = row.machine ?? ''
    const used = versions.get(machine) ?? versionsFor(reference, machine)
    versions.set(machine, used)
    const from = `${row.last} ${used}`
    const before = setups.get(setup)
    if (before?.from === from) return use(setups, setup, before, MOST_KEPT)
    worked.setups++
    const { entries } = await store.since(setup, 0)
    return use(setups, setup, { from, derived: deriveSetup(entries, reference), lines: [] }, MOST_KEPT)
  }

  const standsNow = async (db: KeptFile, { id, version }: Machine): Promise<KnownMachine> => {
    const lastOf = (where: string, ...values: string[]) =>
      (
        prepared(db, `select max(last) as last from setups where ${where}`).get(...values) as {
          last: number | null
        }
      ).last
    // With what cannot be read of setups that may be of any machine.
    // While the logbook is read through, older ones come without a new last entry.
    const from = `${lastOf('machine = ?', id)} ${lastOf('machine is null')} ${keptValue(db, 'before')} ${version}`
    const before = machines.get(id)
    if (before?.from === from) return before
    worked.machines++
    const stands = await machineStands(db, store, logs, id)
    const now: KnownMachine = {
      from,
      stands,
      lengths: new Map(),
      before: before?.lengths ?? new Map(),
      ready: new Map(),
      people: new Set(stands.entries.map(({ by }) => by)),
      glances: new Map(),
    }
    machines.set(id, now)
    return now
  }

  /** The lengths of a machine's tools: the very same where nothing about them is another, so that no line is made anew for them. */
  const lengthsNow = (of: KnownMachine, machine: Machine, unit: Setup['unit']) => {
    const standing = of.lengths.get(unit)
    if (standing) return standing
    const lengths = deriveTools(of.stands.entries, machine, unit)
    const before = of.before.get(unit)
    const now = before && JSON.stringify(before) === JSON.stringify(lengths) ? before : lengths
    of.lengths.set(unit, now)
    return now
  }

  const lineOf = (of: KnownSetup, setup: Setup, around: Around, matters: string) => {
    const before = of.lines.find((each) => each.lengths === around.lengths && each.matters === matters)
    if (before) return before.line
    worked.lines++
    const line = setupLine(setup, around)
    of.lines = [{ lengths: around.lengths, matters, line }, ...of.lines].slice(0, LINES_KEPT)
    return line
  }

  /** Who asks and when, as far as it matters: somebody who is named in nothing is like anybody else. */
  const forWhom = ({ people }: KnownMachine, { now, operator }: AskedBy) =>
    `${Math.floor(now / MINUTE)} ${operator === undefined || people.has(operator) ? (operator ?? '') : '?'}`

  const readyNow = (of: KnownMachine, machine: Machine, { now, operator }: AskedBy): ReadyState => {
    const key = forWhom(of, { now, operator })
    const ready =
      of.ready.get(key) ?? deriveReady({ machine, ...of.stands, now, ...(operator ? { operator } : {}) })
    return use(of.ready, key, ready, LINES_KEPT)
  }

  /** Setups of a machine in a few lines; those that cannot be read say why. */
  const linesOf = async (
    db: KeptFile,
    ids: readonly string[],
    machine: Machine | undefined,
    ready: ReadyState | undefined,
    reference: KnownReference,
  ) => {
    const stands = machine && (await standsNow(db, machine))
    const matters = ready && readyMatters(ready)
    const lines: SetupSummary[] = []
    const unreadable: ShopBoard['unreadable'] = []
    for (const id of ids) {
      const known = await setupNow(db, id, reference)
      if (!known) continue
      const { derived } = known
      if (isUnreadable(derived) || !machine || !stands || !ready || matters === undefined) {
        unreadable.push({ id, says: isUnreadable(derived) ? derived.unreadable : 'Its machine is not here.' })
        continue
      }
      const lengths = lengthsNow(stands, machine, derived.unit)
      lines.push(lineOf(known, derived, { ready, lengths, reference: reference.reference }, matters))
    }
    return { lines, unreadable }
  }

  const glanceNow = async (
    db: KeptFile,
    machine: Machine,
    asked: AskedBy,
    known: KnownReference,
  ): Promise<Glance> => {
    const of = await standsNow(db, machine)
    const { shown, more, awayAt } = shownOf(db, machine.id, asked.now)
    const key = `${forWhom(of, asked)} ${known.stamp} ${more} ${shown.join(' ')}`
    const before = of.glances.get(key)
    if (before) return use(of.glances, key, before, LINES_KEPT)
    const ready = readyNow(of, machine, asked)
    const { lines, unreadable } = await linesOf(db, shown, machine, ready, known)
    const glance = machineGlance(machine, ready, lines, { more, awayAt })
    return use(of.glances, key, { glance, unreadable }, LINES_KEPT)
  }

  /** Machines that have entries after a place; undefined where there are some that may be of any. */
  const changedSince = (db: KeptFile, since: number): Set<string> | undefined => {
    const rows = prepared(db, 'select distinct machine from setups where last > ?').all(since)
    const machines = (rows as { machine: string | null }[]).map(({ machine }) => machine)
    return machines.includes(null) ? undefined : new Set(machines as string[])
  }

  const boardOf = async (db: KeptFile, asked: AskedBy, since: number): Promise<ToldBoard> => {
    const known = await referenceNow()
    const { reference } = known
    const board: ToldBoard = { machines: [], unreadable: [] }
    const changed = since > 0 ? changedSince(db, since) : undefined
    for (const machine of inForce(reference, 'machines')) {
      const same = changed !== undefined && !changed.has(machine.id)
      // What cannot be read on it is the same too, and told again.
      const told = same ? machines.get(machine.id)?.glances.values().next().value : undefined
      const { glance, unreadable } = told ?? (await glanceNow(db, machine, asked, known))
      board.machines.push(same ? { id: machine.id, same: true } : glance)
      board.unreadable.push(...unreadable)
    }
    const here = new Set(reference.machines.map(({ id }) => id))
    const elsewhere = machinesIn(db).filter((id) => !here.has(id))
    const lost = [...setupsOfNobody(db), ...elsewhere.flatMap((id) => shownOf(db, id, asked.now).shown)]
    board.unreadable.push(...(await linesOf(db, lost, undefined, undefined, known)).unreadable)
    return board
  }

  return {
    worked,
    /** Reference data as it is now. */
    reference: async (): Promise<Reference> => (await referenceNow()).reference,
    /** The whole shop: of each machine the setups that were worked on of late. */
    board: async (db: KeptFile, asked: AskedBy): Promise<ShopBoard> => {
      const told = await boardOf(db, asked, 0)
      return { ...told, machines: told.machines.filter((each): each is MachineGlance => !('same' in each)) }
    },
    /** The same for who knows the board up to a place: of a machine on which nothing has changed since only that. */
    boardSince: (db: KeptFile, asked: AskedBy, since: number): Promise<ToldBoard> =>
      boardOf(db, asked, since),
    /** Older setups of a machine, a page at a time: those whose last entry stands before a place. */
    older: async (db: KeptFile, id: string, before: number, asked: AskedBy) => {
      const known = await referenceNow()
      const machine = known.reference.machines.find((each) => each.id === id)
      const rows = prepared(
        db,
        'select setup, last from setups where machine = ? and last < ? order by last desc limit ?',
      ).all(id, before, A_PAGE + 1) as { setup: string; last: number }[]
      const page = rows.slice(0, A_PAGE)
      const ready = machine && readyNow(await standsNow(db, machine), machine, asked)
      const { lines, unreadable } = await linesOf(
        db,
        page.map(({ setup }) => setup),
        machine,
        ready,
        known,
      )
      const next = rows.length > A_PAGE ? page.at(-1)?.last : undefined
      return { setups: lines, unreadable, ...(next === undefined ? {} : { next }) }
    },
  }
}
export type BoardKeeper = ReturnType<typeof boardKeeper>
