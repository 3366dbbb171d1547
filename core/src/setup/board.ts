import type { Machine } from '../machine/index.ts'
import { nextCode } from './coding.ts'
import { deriveSetup, type Reference, type Setup } from './derive.ts'
import type { Entry } from './entries.ts'
import { handOverState } from './hand-over.ts'
import { isUnreadable } from './log-lines.ts'
import { nextFor } from './next.ts'
import { nextAngle } from './next-angle.ts'
import { nextHold } from './next-hold.ts'
import { nextProve } from './prove-case.ts'
import { deriveReady, type ReadyState } from './ready.ts'
import { nextRun, runBegun, runState } from './run.ts'
import { type Step, type StepState, stepsOf } from './steps.ts'
import { nameStaleFacts } from './what-if.ts'

/** A setup at a glance. */
export interface SetupSummary {
  id: string
  title: string
  steps: { step: Step; state: StepState }[]
  /** The step that is in hand: the first that is not done; undefined when all are. */
  inStep?: Step
  /** The facts that are stale, by name. */
  stale: string[]
  /** What to do next in that step. */
  next: string
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

/** What to do next in a step of a setup, in a sentence. */
export function nextInStep(setup: Setup, ready: ReadyState, step: Step): string {
  switch (step) {
    case 'ready':
      return readySays(ready)
    case 'hold':
      return nextHold(setup).says
    case 'zero': {
      const offset =
        setup.offsets.find(({ state }) => state === 'stale') ??
        setup.offsets.find(({ state }) => state === 'open') ??
        setup.offsets[0]
      return offset ? nextFor(offset).says : ''
    }
    case 'angle':
      return nextAngle(setup).says
    case 'code':
      return nextCode(setup).says
    case 'prove':
      return nextProve(setup).says
    case 'run':
      return nextRun(setup).says
    case 'hand-over':
      return 'Hand it over.'
  }
}

/** Whether a step was passed over by those who work at the setup: what nobody has begun is not asked for. */
export function passedOver(setup: Setup, step: Step): boolean {
  const begun = setup.hold.sweeps.length > 0 || setup.hold.grip || setup.hold.clearance
  const zeroBegun = setup.offsets.some(({ axes }) => Object.keys(axes).length > 0)
  return (
    (step === 'ready' && (Boolean(begun) || zeroBegun)) ||
    (step === 'hold' && !begun && zeroBegun) ||
    (step === 'code' && setup.code.coded.length === 0) ||
    (step === 'prove' && !setup.prove.layout && setup.prove.proofs.length === 0) ||
    (step === 'run' && !runBegun(setup)) ||
    // A part that nobody turns needs no angle.
    (step === 'angle' && setup.offsets.every(({ angle }) => !angle))
  )
}

/** What a setup's next thing is: the first stale step, else the first open one that was not passed over. */
function nextOf(setup: Setup, ready: ReadyState): { step?: Step; says: string } {
  const states = stepStates(setup, ready)
  const step =
    states.find(({ step, state }) => state === 'stale' && step !== 'ready')?.step ??
    states.find(({ step, state }) => state !== 'done' && !passedOver(setup, step))?.step
  return step ? { step, says: nextInStep(setup, ready, step) } : { says: 'All steps are done.' }
}

const readySays = ({ lines }: ReadyState) =>
  lines.some(({ state }) => state === 'stale') ? 'Walk round again.' : 'Walk round and power up.'

/** The steps that there are for a setup's machine, with the state of each. */
export function stepStates(setup: Setup, ready: ReadyState): { step: Step; state: StepState }[] {
  const states: Record<Step, StepState> = {
    ready: ready.state,
    hold: setup.hold.state,
    zero: setup.zero,
    angle: setup.angle,
    code: setup.code.state,
    prove: setup.prove.state,
    run: runState(setup),
    'hand-over': handOverState(setup),
  }
  return stepsOf(setup.machine).map((step) => ({ step, state: states[step] }))
}

function summarise(setup: Setup, ready: ReadyState): SetupSummary {
  const { step, says } = nextOf(setup, ready)
  return {
    id: setup.id,
    title: setup.opened.title,
    steps: stepStates(setup, ready),
    ...(step ? { inStep: step } : {}),
    stale: nameStaleFacts(setup),
    next: says,
    lastAt: setup.log.at(-1)?.entry.at ?? '',
  }
}

function glance(
  machine: Machine,
  logs: { setup: Setup; log: readonly Entry[] }[],
  now: number,
  unread: number,
): MachineGlance {
  const ready = deriveReady({ machine, entries: logs.flatMap(({ log }) => log), now, unread })
  return {
    id: machine.id,
    name: machine.name,
    ready: ready.state,
    setups: logs
      .map(({ setup }) => summarise(setup, ready))
      .sort((a, b) => (a.lastAt < b.lastAt ? 1 : a.lastAt > b.lastAt ? -1 : 0)),
    notes: ready.notes
      .filter(({ waits }) => waits)
      .map(({ text, entry: { id, setup, by, at } }) => ({ id, setup, text, by, at })),
  }
}

/** What is said of a log with rows that cannot be read: none of its facts can be relied on. */
export const damagedSays = (rows: number) =>
  `${rows === 1 ? 'One entry' : `${rows} entries`} of this log cannot be read: what it said is not known, so nothing of this setup counts as fresh.`

/** Whether a log is of a setup on a machine; one whose opening cannot be read may be on any. */
const isOn = ({ id }: Machine, log: readonly Entry[] = []) => {
  const opened = log.find((entry) => entry.kind === 'opened')
  return opened === undefined || opened.machine.id === id
}

/** Every machine of the shop with what is on it. A log that cannot be read says so instead of vanishing. */
export function shopBoard(
  logs: ReadonlyMap<string, readonly Entry[]>,
  reference: Reference,
  now: number,
  damaged: ReadonlyMap<string, readonly { says: string }[]> = new Map(),
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
      now,
      [...damaged].reduce((sum, [id, rows]) => sum + (isOn(machine, logs.get(id)) ? rows.length : 0), 0),
    ),
  )
  return { machines, unreadable }
}
