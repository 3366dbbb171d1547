import type { Machine } from '../machine/index.ts'
import {
  damagedSays,
  deriveReady,
  deriveSetup,
  deriveTools,
  type Entry,
  isUnreadable,
  type ReadyCase,
  type ReadyState,
  type Reference,
  type Setup,
  type Step,
  type StepState,
  type ToolFact,
} from '../setup/index.ts'
import { stateOfReady } from './ready-tasks.ts'
import type { Task } from './task.ts'
import { travelerOf } from './traveler.ts'

/** A setup at a glance. */
export interface SetupSummary {
  id: string
  title: string
  steps: { step: Step; state: StepState; asked: boolean }[]
  /** The facts that are stale, by name. */
  stale: string[]
  /** What to do next; nothing where all is done and handed over. */
  next?: Task
  lastAt: string
}

/** A note that waits to be read by whoever comes next. */
export interface WaitingNote {
  id: string
  setup: string
  text: string
  by: string
  at: string
}

/** A machine at a glance: its setups, the one worked on last first, and what waits. */
export interface MachineGlance {
  id: string
  name: string
  setups: SetupSummary[]
  notes: WaitingNote[]
  ready: StepState
}

/** The whole shop at a glance, and logs that no machine can be found for. */
export interface ShopBoard {
  machines: MachineGlance[]
  unreadable: { id: string; says: string }[]
}

/** What all setups of a machine are seen against. */
interface OnMachine {
  /** Lengths of its tools in a unit, worked out once for all its setups. */
  lengthsIn: (unit: Setup['unit']) => readonly ToolFact[]
  ready: ReadyState
  reference: Reference
}

function summarise(setup: Setup, { lengthsIn, ready, reference }: OnMachine): SetupSummary {
  const lengths = lengthsIn(setup.unit)
  const { steps, next, stale } = travelerOf(setup, { ready, lengths, reference })
  return {
    id: setup.id,
    title: setup.opened.title,
    steps: steps.map(({ step, state, asked }) => ({ step, state, asked })),
    stale: [...stale],
    lastAt: setup.log.at(-1)?.entry.at ?? '',
    ...(next ? { next } : {}),
  }
}

function glance(
  machine: Machine,
  logs: { setup: Setup; log: readonly Entry[] }[],
  reference: Reference,
  asked: Pick<ReadyCase, 'now' | 'operator'>,
  unread: number,
): MachineGlance {
  const entries = logs.flatMap(({ log }) => log)
  const ready = deriveReady({ machine, entries, unread, ...asked })
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

/** Whether a log is of a setup on a machine; one whose opening cannot be read may be on any. */
const isOn = ({ id }: Machine, log: readonly Entry[] = []) => {
  const opened = log.find((entry) => entry.kind === 'opened')
  return opened === undefined || opened.machine.id === id
}

/**
 * Every machine of the shop with what is on it, as it stands for whoever asks: `operator` are the initials, if anybody's.
 * A log that cannot be read says so instead of vanishing.
 */
export function shopBoard(
  logs: ReadonlyMap<string, readonly Entry[]>,
  reference: Reference,
  now: number,
  damaged: ReadonlyMap<string, readonly { says: string }[]> = new Map(),
  operator?: string,
): ShopBoard {
  const readable: { setup: Setup; log: readonly Entry[] }[] = []
  const unreadable: ShopBoard['unreadable'] = []
  for (const id of new Set([...logs.keys(), ...damaged.keys()])) {
    const log = logs.get(id) ?? []
    const rows = damaged.get(id) ?? []
    if (rows.length > 0) {
      unreadable.push({ id, says: damagedSays(rows.length) })
      continue
    }
    const setup = deriveSetup(log, reference)
    if (isUnreadable(setup)) unreadable.push({ id, says: setup.unreadable })
    else readable.push({ setup, log })
  }
  const machines = reference.machines.map((machine) =>
    glance(
      machine,
      readable.filter(({ setup }) => setup.machine.id === machine.id),
      reference,
      { now, ...(operator ? { operator } : {}) },
      [...damaged].reduce((sum, [id, rows]) => sum + (isOn(machine, logs.get(id)) ? rows.length : 0), 0),
    ),
  )
  return { machines, unreadable }
}
