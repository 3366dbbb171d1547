import { isUnread } from '../log/index.ts'
import type { Machine } from '../machine/index.ts'
import {
  deriveReady,
  deriveSetup,
  deriveTools,
  isUnreadable,
  type Logged,
  type ReadyCase,
  type ReadyState,
  type Reference,
  type Setup,
  type ToolFact,
} from '../setup/index.ts'
import type { MachineGlance, SetupSummary, ShopBoard } from './board-schema.ts'
import { stateOfReady } from './ready-tasks.ts'
import { travelerOf } from './traveler.ts'

/** What all setups of a machine are seen against. */
interface OnMachine {
  /** Lengths of its tools in a unit, worked out once for all its setups. */
  lengthsIn: (unit: Setup['unit']) => readonly ToolFact[]
  ready: ReadyState
  reference: Reference
}

interface ReadableLog {
  setup: Setup
  log: readonly Logged[]
}

function summarise(setup: Setup, { lengthsIn, ready, reference }: OnMachine): SetupSummary {
  const lengths = lengthsIn(setup.unit)
  const { steps, next, stale } = travelerOf(setup, { ready, lengths, reference })
  return {
    id: setup.id,
    title: setup.opened.title,
    steps: steps.map(({ step, state, asked }) => ({ step, state, asked })),
    stale: [...stale],
    unread: setup.unread.length,
    lastAt: setup.log.at(-1)?.entry.at ?? '',
    ...(next ? { next } : {}),
  }
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
  const known = new Map<Setup['unit'], readonly ToolFact[]>()
  const lengthsIn = (unit: Setup['unit']) => {
    const lengths = known.get(unit) ?? deriveTools(entries, machine, unit)
    known.set(unit, lengths)
    return lengths
  }
  return {
    id: machine.id,
    name: machine.name,
    ready: stateOfReady(ready),
    setups: logs
      .map(({ setup }) => summarise(setup, { lengthsIn, ready, reference }))
      .sort((a, b) => (a.lastAt < b.lastAt ? 1 : a.lastAt > b.lastAt ? -1 : 0)),
    notes: ready.notes
      .filter(({ waits }) => waits)
      .map(({ text, entry: { id, setup, by, at } }) => ({ id, setup, text, by, at })),
  }
}

/**
 * Every machine of the shop with what is on it, as it stands for whoever asks: `operator` are the initials, if anybody's.
 * A log that cannot be read says so instead of vanishing; what cannot be read of one whose opening is gone may be of any machine.
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
  const machines = reference.machines.map((machine) =>
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
