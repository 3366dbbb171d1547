import { isUnread } from '../log/index.ts'
import type { Machine } from '../machine/index.ts'
import {
  deriveReady,
  deriveSetup,
  deriveTools,
  inForce,
  isUnreadable,
  type Logged,
  type ReadyCase,
  type ReadyState,
  type Reference,
  type Setup,
  type ToolFact,
  workedOnLast,
} from '../setup/index.ts'
import type { MachineGlance, SetupSummary, ShopBoard, WaitingNote } from './board-schema.ts'
import { stateOfReady } from './ready-tasks.ts'
import { travelerOf } from './traveler.ts'

/** What all setups of a machine are seen against. */
interface OnMachine {
  /** Lengths of its tools, in the unit of the setup. */
  lengths: readonly ToolFact[]
  ready: ReadyState
  reference: Reference
}

const countingOf = ({ log }: Setup): Logged[] =>
  log.filter(({ standing }) => standing !== 'struck').map(({ entry }) => entry)

/** One line of the board: a setup at a glance. */
export function setupLine(setup: Setup, around: OnMachine): SetupSummary {
  const { steps, next, stale } = travelerOf(setup, around)
  return {
    id: setup.id,
    title: setup.opened.title,
    steps: steps.map(({ step, state, asked }) => ({ step, state, asked })),
    stale: [...stale],
    unread: setup.unread.length,
    lastAt: setup.log.at(-1)?.entry.at ?? '',
    ...(next ? { next } : {}),
    ...(setup.away ? { away: workedOnLast(countingOf(setup)) } : {}),
  }
}

/** The setup that was worked on last stands first. */
export const lastFirst = (a: SetupSummary, b: SetupSummary) =>
  a.lastAt < b.lastAt ? 1 : a.lastAt > b.lastAt ? -1 : 0

/**
 * A machine on the board; `lines` are those of the setups that are shown, `more` is how many are not. `awayAt` is when anything that is put
 * away was worked on last, in ms since 1970.
 */
export const machineGlance = (
  { id, name }: Pick<Machine, 'id' | 'name'>,
  ready: ReadyState,
  lines: readonly SetupSummary[],
  { more, awayAt }: { more: number; awayAt: number | undefined },
): MachineGlance => ({
  id,
  name,
  ready: stateOfReady(ready),
  setups: [...lines].sort(lastFirst),
  more,
  ...(awayAt !== undefined && lines.every(({ lastAt }) => Date.parse(lastAt) < awayAt)
    ? { cleared: true }
    : {}),
  notes: ready.notes
    .filter(({ waits }) => waits)
    .map(({ text, entry: { id: note, setup, by, at } }): WaitingNote => ({ id: note, setup, text, by, at })),
})

interface ReadableLog {
  setup: Setup
  log: readonly Logged[]
}

function glance(
  machine: Machine,
  logs: readonly ReadableLog[],
  /** Entries that cannot be read, of logs that may be of this machine. */
  unread: readonly Logged[],
  reference: Reference,
  asked: Pick<ReadyCase, 'now' | 'operator'>,
): MachineGlance {
  const entries = [...logs.flatMap(({ log }) => log), ...unread]
  const ready = deriveReady({ machine, entries, ...asked })
  const lines = logs.map(({ setup }) =>
    setupLine(setup, { lengths: deriveTools(entries, machine, setup.unit), ready, reference }),
  )
  const shown = lines.filter(({ away }) => away === undefined)
  const away = lines.flatMap((line) => (line.away === undefined ? [] : [Date.parse(line.away)]))
  return machineGlance(machine, ready, shown, {
    more: away.length,
    awayAt: away.length === 0 ? undefined : Math.max(...away),
  })
}

/**
 * Every machine of the shop that is not retired, with all that is on it, worked out from nothing but the logs, as it stands for whoever asks: `operator` are
 * the initials, if anybody's. What the server keeps of it is held against this. A log that cannot be read says so instead of vanishing;
 * what cannot be read of one whose opening is gone may be of any machine.
 */
export function shopBoard(
  logs: ReadonlyMap<string, readonly Logged[]>,
  reference: Reference,
  now: number,
  operator?: string,
): ShopBoard {
  const readable: ReadableLog[] = []
  const unreadable: ShopBoard['unreadable'] = []
  const ofAny: Logged[] = []
  for (const [id, log] of logs) {
    const setup = deriveSetup(log, reference)
    if (!isUnreadable(setup)) readable.push({ setup, log })
    else {
      unreadable.push({ id, says: setup.unreadable })
      if (!log.some(({ kind }) => kind === 'opened')) ofAny.push(...log.filter(isUnread))
    }
  }
  const machines = inForce(reference, 'machines').map((machine) =>
    glance(
      machine,
      readable.filter(({ setup }) => setup.machine.id === machine.id),
      ofAny,
      reference,
      { now, ...(operator ? { operator } : {}) },
    ),
  )
  return { machines, unreadable }
}
