import {
  handOverState,
  nameStaleFacts,
  type Setup,
  STEP_NAMES,
  type Step,
  type StepState,
  stepsOf,
} from '../setup/index.ts'
import { angleBegun, lieTasks, partTasks, turnTasks } from './angle-tasks.ts'
import type { Task, TaskPart } from './board-schema.ts'
import { codeTasks, proveTasks, takeTasks } from './code-tasks.ts'
import { holdBegun, holdTasks } from './hold-tasks.ts'
import { lengthsNeeded } from './needs.ts'
import { readyBegun, readyTasks } from './ready-tasks.ts'
import { palletTasks, runBegun, runTasks } from './run-tasks.ts'
import { type Around, stateOfTasks } from './task.ts'
import { zeroBegun, zeroTasks } from './zero-tasks.ts'

/** A step of a setup at a glance. */
export interface StepGlance {
  step: Step
  state: StepState
  /** Whether something of it is left; not where nobody began it and nothing rests on it. */
  asked: boolean
  /** What is to be done in it, the first thing first; what can be, where nobody began it and nothing asks for it. */
  tasks: readonly Task[]
}

/** Where a setup stands: the one place that says what is done, what is left and what is next. */
export interface Traveler {
  steps: readonly StepGlance[]
  /** All that is left to do, in an order in which nothing takes back what was done before it. */
  left: readonly Task[]
  /** The facts that no longer hold, by name: those of the setup, and the lengths that its programs need. */
  stale: readonly string[]
  /** The first of it; or handing over; nothing where that is done as well. */
  next: Task | undefined
}

const HAND_OVER: Task = {
  step: 'hand-over',
  part: 'whole',
  stale: false,
  says: 'Hand it over.',
  why: 'Nothing is left to do: whoever comes next reads what stands.',
}

const START: Partial<Record<Step, { part: TaskPart; says: string; why: string }>> = {
  angle: {
    part: 'lies',
    says: 'Measure how the part lies: one edge at two places, or two holes.',
    why: 'Nobody knows yet how the part lies. Where that does not matter, go on.',
  },
  code: {
    part: 'whole',
    says: 'Add a cycle, and fill in what the drawing says.',
    why: 'The code is written as you type.',
  },
  prove: {
    part: 'whole',
    says: 'Place the part, the vise and the clamps, and open the program.',
    why: 'A crash is found only against what is placed.',
  },
}

/** How an optional step is begun: said on its own page, asked for nowhere. */
function startOf(step: Step, { machine }: Setup): Task[] {
  const of =
    step !== 'run'
      ? START[step]
      : machine.pallets
        ? {
            part: 'pallets' as const,
            says: 'Say what runs on each pallet.',
            why: 'The programs are read for how they call each other, and the start is checked against it.',
          }
        : {
            part: 'gauge' as const,
            says: 'Say what is to be measured on each part, and what is done with the result.',
            why: 'The program for the probe is written from it, and the chart is kept for it.',
          }
  return of ? [{ step, stale: false, ...of }] : []
}

/** A setup against its surroundings, as a traveler: what is done, what is left, what is next. */
export function travelerOf(setup: Setup, around: Around): Traveler {
  const { ready, inHand } = around
  const handedOver = handOverState(setup)
  const walk = readyTasks(ready)
  const hold = holdTasks(setup)
  const rest = [
    ...partTasks(setup),
    ...lieTasks(setup),
    ...zeroTasks(setup, around),
    ...turnTasks(setup),
    ...codeTasks(setup, inHand?.code),
    ...palletTasks(setup, inHand?.pallets),
    ...proveTasks(setup, inHand ?? {}),
    ...takeTasks(setup),
    ...runTasks(setup, inHand?.pallets),
  ]
  const begun: Record<Step, boolean> = {
    ready: readyBegun(ready),
    hold: holdBegun(setup),
    zero: zeroBegun(setup),
    angle: angleBegun(setup),
    code: setup.code.coded.length > 0,
    prove: setup.prove.proofs.length > 0 || setup.prove.layout !== undefined,
    run: runBegun(setup),
    'hand-over': handedOver === 'done',
  }
  // What comes before is passed over by whoever works at what comes after it; what stands there and no longer holds is not.
  const after = (step: Step) =>
    stepsOf(setup.machine).some((each, n, all) => n > all.indexOf(step) && begun[each])
  const asked = (step: Step) => begun[step] || !after(step)
  const work = [...(asked('hold') ? hold : []), ...rest]
  // What is done and handed over stays so while the machine stands.
  const left = [...(asked('ready') && (handedOver !== 'done' || work.length > 0) ? walk : []), ...work]
  const steps = stepsOf(setup.machine).map((step): StepGlance => {
    const all = { ready: walk, hold }[step as string] ?? rest.filter((task) => task.step === step)
    const state: StepState = step === 'hand-over' ? handedOver : stateOfTasks(all, begun[step])
    const tasks = step === 'hand-over' ? (handedOver === 'done' ? [] : [HAND_OVER]) : all
    const asked = left.some((task) => task.step === step)
    return { step, state, asked, tasks: tasks.length > 0 || begun[step] ? tasks : startOf(step, setup) }
  })
  const lengths = lengthsNeeded(setup, around).filter(({ known }) => known?.freshness.state === 'stale')
  const stale = [...nameStaleFacts(setup), ...lengths.map(({ tool }) => `The length of T${tool}`)]
  return { steps, left, stale, next: left[0] ?? (handedOver === 'done' ? undefined : HAND_OVER) }
}

/** The state of one part of a step that was begun; what the page shows as one may be several. */
export const stateOfPart = (tasks: readonly Task[], ...parts: readonly TaskPart[]): StepState =>
  stateOfTasks(
    tasks.filter(({ part }) => parts.includes(part)),
    true,
  )

/** What a page says at its foot: the next thing of all; beside it, where that is done elsewhere, what is next where the person is. */
export interface Foot {
  next: Task | undefined
  here: Task | undefined
}

/** @param isHere whether a task of the step is done in what is shown of it */
export function footOf({ steps, next }: Traveler, step: Step, isHere: (task: Task) => boolean): Foot {
  const own = steps.find((each) => each.step === step)?.tasks ?? []
  const ready = own.filter(({ waits }) => !waits)
  const here = ready.find(isHere) ?? (next?.step === step ? undefined : ready[0])
  return { next, here: here === next || (next?.step === step && isHere(next)) ? undefined : here }
}

/** A task as a line of a list: 'Zero: Take X of G54.' */
export const inWords = ({ step, says }: Pick<Task, 'step' | 'says'>) => `${STEP_NAMES[step]}: ${says}`
