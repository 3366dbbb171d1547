import type { ReadyState, StepState } from '../setup/index.ts'
import type { Task } from './board-schema.ts'
import { stateOfTasks } from './task.ts'

const STEP = { step: 'ready' } as const

/** Whether anybody began to walk round. */
export const readyBegun = ({ lines, home }: ReadyState) =>
  home !== undefined || lines.some(({ tick }) => tick !== undefined)

/** What is to be done before the machine is ready; of a walk-round that nobody began, all of it. */
export function readyTasks({ lines, home }: ReadyState): Task[] {
  const tasks: Task[] = []
  const due = lines.find(({ state }) => state === 'stale')
  if (due)
    tasks.push({
      ...STEP,
      part: 'list',
      stale: true,
      says: 'Walk round the machine again.',
      why: `“${due.item.says}” was ${due.due ?? 'ticked before'}.`,
    })
  const open = lines.find(({ state }) => state === 'open')
  if (!due && open)
    tasks.push({
      ...STEP,
      part: 'list',
      stale: false,
      says: 'Walk round the machine.',
      why: `Nobody has ticked “${open.item.says}” on it yet.`,
    })
  if (!home)
    tasks.push({
      ...STEP,
      part: 'home',
      stale: false,
      says: 'Home the machine, Z first, and read what it shows.',
      why: 'All machine positions refer to home.',
    })
  else if (home.freshness.state === 'stale')
    tasks.push({
      ...STEP,
      part: 'home',
      stale: true,
      says: 'Read the home positions again.',
      why: `They were ${home.freshness.cause.says}.`,
    })
  else if (home.verdict !== 'good')
    tasks.push({
      ...STEP,
      part: 'home',
      stale: false,
      says: 'Find out why home is off, and home again.',
      why: home.findings[0]?.says ?? '',
    })
  return tasks
}

/** All of being ready that a setup's traveler looks at, as a text: where it is the same, so is the traveler. */
export const readyMatters = (ready: ReadyState): string =>
  JSON.stringify([readyTasks(ready), readyBegun(ready)])

/** The state of the machine's walk-round and home positions. A note that waits to be read is shown beside it and holds nothing up. */
export const stateOfReady = (ready: ReadyState): StepState =>
  stateOfTasks(readyTasks(ready), readyBegun(ready))
