import type { Profile } from '@dogleg/core/control'
import type { Machine, PositionsRead, ToolShape } from '@dogleg/core/machine'
import {
  act,
  advance,
  doubleOf,
  type HiddenTruth,
  hiddenOf,
  positionsOf,
  type SimulatedAction,
  type SimulatedMachine,
  type SimulatedState,
  viewOf,
} from '@dogleg/core/simulated'
import { expose } from 'comlink'

// Simulated machines of this tablet alone, while the server is away: in a thread of their own, so that no program holds up the page.

interface OwnMachine {
  seed: number
  startedAt: number
  /** Up to when a program that runs has been let run, ms since 1970. */
  advancedTo: number
  state: SimulatedState
}

/** The rows that a double is made of. */
export interface DoubleRows {
  machine: Machine
  profile: Profile | undefined
  tools: readonly ToolShape[]
}

const on = new Map<string, OwnMachine>()

/** Lets the time pass that has passed, and does something. */
function work(id: string, actions: readonly SimulatedAction[]): OwnMachine {
  const own = on.get(id)
  if (!own) throw new Error('This simulated machine is switched off.')
  const now = Date.now()
  own.state = actions.reduce(act, advance(own.state, Math.max(0, now - own.advancedTo) / 1000))
  own.advancedTo = now
  return own
}

const seen = (id: string, { seed, startedAt, state }: OwnMachine): SimulatedMachine => ({
  id,
  seed,
  startedAt: new Date(startedAt).toISOString(),
  view: viewOf(state),
})

const machines = {
  switchOn: (id: string, seed: number, rows: DoubleRows): SimulatedMachine => {
    const now = Date.now()
    const own = { seed, startedAt: now, advancedTo: now, state: doubleOf(seed, rows) }
    on.set(id, own)
    return seen(id, own)
  },
  work: (id: string, actions: readonly SimulatedAction[]): SimulatedMachine => seen(id, work(id, actions)),
  program: (id: string): { text: string } => ({ text: work(id, []).state.plan?.text ?? '' }),
  hidden: (id: string): HiddenTruth => hiddenOf(work(id, []).state),
  positions: (id: string): PositionsRead => positionsOf(work(id, []).state, new Date().toISOString()),
  switchOff: (id: string) => void on.delete(id),
}
export type OwnMachines = typeof machines

expose(machines)
