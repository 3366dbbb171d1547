import { howStale } from '../fact/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { type OffsetState, type ProgramFact, type Setup, shiftTools } from '../setup/index.ts'
import type { Task } from './board-schema.ts'
import { lengthsNeeded, offsetsNeeded } from './needs.ts'
import { type Around, staleWhy } from './task.ts'

const STEP = { step: 'zero' } as const

/** Lengths come before Z: a Z is found with the length of its tool. */
function lengthTasks(setup: Setup, around: Pick<Around, 'reference' | 'lengths'>): Task[] {
  return lengthsNeeded(setup, around).flatMap(({ tool, known }): Task[] => {
    const about = `T${tool}`
    const of = { ...STEP, part: 'tools', about } as const
    if (!known)
      return [
        {
          ...of,
          stale: false,
          says: `Measure the length of ${about}.`,
          why: 'A program needs it, and nobody has measured it: the control would use whatever stands there.',
        },
      ]
    if (known.freshness.state === 'stale')
      return [
        {
          ...of,
          stale: true,
          says: `Measure the length of ${about} again.`,
          why: staleWhy(known.freshness.cause),
        },
      ]
    const stop = known.findings.find(({ severity }) => severity === 'stop')
    return stop
      ? [{ ...of, stale: false, says: `Measure the length of ${about} again.`, why: stop.says }]
      : []
  })
}

/** A work shift that no longer holds: taken with one tool it brings all of them back to the part. */
function shiftTask({ shift }: Setup): Task[] {
  if (!shift) return []
  const of = { ...STEP, part: 'shift', says: 'Take the work shift again.' } as const
  if (shift.freshness.state === 'stale') return [{ ...of, stale: true, why: staleWhy(shift.freshness.cause) }]
  return shift.verdict === 'stop' ? [{ ...of, stale: false, why: shift.findings[0]?.says ?? '' }] : []
}

/** The centre line of the rotary, once it was found. */
function centreTask({ centre }: Setup): Task[] {
  if (!centre) return []
  const of = { ...STEP, part: 'rotary', says: 'Find the rotary’s centre line again.' } as const
  if (centre.freshness.state === 'stale')
    return [{ ...of, stale: true, why: staleWhy(centre.freshness.cause) }]
  return centre.verdict === 'stop' ? [{ ...of, stale: false, why: centre.findings[0]?.says ?? '' }] : []
}

/** The rotary's angle of an offset, once it was taken: nobody says whether a program needs one. */
function rotaryTask({ name, rotary }: OffsetState): Task[] {
  if (!rotary) return []
  const of = { ...STEP, part: 'rotary', about: name, says: `Take ${rotary.axis} of ${name} again.` } as const
  if (rotary.freshness.state === 'stale')
    return [{ ...of, stale: true, why: staleWhy(rotary.freshness.cause) }]
  return rotary.verdict === 'stop' ? [{ ...of, stale: false, why: rotary.findings[0]?.says ?? '' }] : []
}

function axisTask({ name, axes }: OffsetState, axis: LinearAxis): Task[] {
  const fact = axes[axis]
  const part = fact?.entry.reading.method === 'centre-line' ? 'rotary' : axis
  const of = { ...STEP, part, about: name } as const
  if (!fact)
    return [
      {
        ...of,
        stale: false,
        says: `Take ${axis} of ${name}.`,
        why: `${name} has no ${axis} yet; the control would use whatever stands there.`,
      },
    ]
  if (fact.freshness.state === 'stale')
    return [
      {
        ...of,
        stale: true,
        says: `Take ${axis} of ${name} again.`,
        why: staleWhy(fact.freshness.cause),
      },
    ]
  return fact.verdict === 'stop'
    ? [{ ...of, stale: false, says: `Take ${axis} of ${name} again.`, why: fact.findings[0]?.says ?? '' }]
    : []
}

/** The program that loads the offset stands at the control, or is asked for before the first look. */
function loadTask({ name, program, check, wants }: OffsetState): Task[] {
  const of = { ...STEP, part: 'load', about: name } as const
  if (program?.freshness.state === 'stale')
    return [
      {
        ...of,
        stale: true,
        says: `Take the program for ${name} to the control again.`,
        why: `It ${howStale(program.freshness.cause)}: what the control has for ${name} is not what was found.`,
      },
    ]
  const looked = check?.freshness.state === 'fresh'
  return !program && !looked && wants.includes('Y')
    ? [
        {
          ...of,
          stale: false,
          says: `Take the program for ${name} to the control.`,
          why: 'It loads the offset and stands the spindle over part zero, to be looked at.',
        },
      ]
    : []
}

const fresh = ({ check }: OffsetState) => (check?.freshness.state === 'fresh' ? check.entry : undefined)

/** A pointed tool stood off: that comes first, at an axis that was looked at. */
function offTask(offset: OffsetState): Task[] {
  const { name, axes } = offset
  const check = fresh(offset)
  const looked = Object.values(axes).find(({ entry }) => check?.rests.includes(entry.id))
  return check?.result === 'off' && looked
    ? [
        {
          ...STEP,
          part: looked.axis,
          about: name,
          stale: false,
          says: `Find out why the pointed tool stood off ${name}, and take that axis again.`,
          why: `The check said: ${check.note}`,
        },
      ]
    : []
}

function checkTask(offset: OffsetState): Task[] {
  const { name, check, wants } = offset
  if (fresh(offset)?.result === 'agrees' || offTask(offset).length > 0) return []
  return [
    {
      ...STEP,
      part: 'check',
      about: name,
      stale: check?.freshness.state === 'stale',
      says: wants.includes('Y')
        ? `Check ${name} with a pointed tool.`
        : `Key ${name} in, and check it at the bar.`,
      why:
        check?.freshness.state === 'stale'
          ? `The last check ${howStale(check.freshness.cause)}.`
          : check
            ? `The last check said: ${check.entry.note}`
            : 'Nobody has looked yet.',
    },
  ]
}

/** A program that probed for it and no longer holds must not run again. */
function probeTask({ name, further: { probe } }: OffsetState): Task[] {
  return again(probe, {
    ...STEP,
    part: 'probe',
    about: name,
    says: `Take the probe program for ${name} again, or strike it out if it is not at the control any more.`,
  })
}

/** The block was held against the part, and no longer is; or the part does not come out of it. */
function stockTask({ name, stock }: OffsetState): Task[] {
  if (!stock) return []
  const of = { ...STEP, part: 'stock', about: name } as const
  const says = `Hold the block of ${name} against the part again.`
  if (stock.freshness.state === 'stale')
    return [{ ...of, stale: true, says, why: staleWhy(stock.freshness.cause) }]
  return stock.verdict === 'stop' ? [{ ...of, stale: false, says, why: stock.findings[0]?.says ?? '' }] : []
}

/** A program that drives a stop to the bar and no longer holds must not run again. */
const barTask = ({ name, further: { bar } }: OffsetState): Task[] =>
  again(bar, {
    ...STEP,
    part: 'bar',
    about: name,
    says: `Take the program for the bar stop in ${name} again, or strike it out if it is not at the control any more.`,
  })

/** Asks again for a program that stands at the control and no longer holds. */
export const again = (program: ProgramFact | undefined, task: Omit<Task, 'stale' | 'why'>): Task[] =>
  program?.freshness.state === 'stale'
    ? [{ ...task, stale: true, why: staleWhy(program.freshness.cause) }]
    : []

function offsetTasks(offset: OffsetState): Task[] {
  const taken = offset.wants.flatMap((axis) => axisTask(offset, axis))
  // What is taken at the rotary is taken in one go.
  const axes = [
    ...offTask(offset),
    ...taken.filter(({ part }) => part !== 'rotary'),
    ...taken.filter(({ part }) => part === 'rotary'),
    ...rotaryTask(offset),
  ]
  const stock = waiting(stockTask(offset), axes)
  const load = waiting(loadTask(offset), axes)
  return [
    ...axes,
    ...stock,
    ...load,
    ...waiting(checkTask(offset), [...axes, ...load]),
    ...probeTask(offset),
    ...waiting(barTask(offset), axes),
  ]
}

const waiting = (tasks: Task[], before: readonly Task[]): Task[] =>
  before.length > 0 ? tasks.map((task) => ({ ...task, waits: true })) : tasks

/** Whether anything was taken for an offset of the setup. */
export const zeroBegun = ({ offsets }: Setup) =>
  offsets.some(({ axes, check, program }) => Object.keys(axes).length > 0 || check || program)

/** Nobody has said which tool of a lathe cuts: the first of the list is only shown. */
const toolUnsaid = ({ machine, offsets, code: { coded }, prove: { proofs } }: Setup) =>
  machine.kind === 'lathe' &&
  coded.length === 0 &&
  proofs.length === 0 &&
  offsets.every(
    ({ axes, check, further }) =>
      Object.keys(axes).length === 0 && !check && Object.keys(further).length === 0,
  )

function sayTool(setup: Setup): Task[] {
  const [shown] = setup.offsets
  return [
    {
      ...STEP,
      part: 'X',
      ...(shown ? { about: shown.name } : {}),
      stale: false,
      says: 'Choose the tool that cuts, and take its X.',
      why: 'No program says yet which tools cut; one that is built in Code does.',
    },
  ]
}

/**
 * The work shift stands before the tools, which it brings back to the part. Where it can be taken with none of them as they
 * are (the machine was homed again, a Z was struck out), it waits for the first Z.
 */
function withShift(setup: Setup, tools: Task[]): Task[] {
  const shift = shiftTask(setup)
  if (shiftTools(setup.offsets).length > 0) return [...shift, ...tools]
  const firstZ = tools.findIndex(({ part }) => part === 'Z')
  const before = firstZ < 0 ? tools.length : firstZ + 1
  return [...tools.slice(0, before), ...waiting(shift, tools), ...tools.slice(before)]
}

/** What is still to be taken, measured and looked at before a program can rest on its offsets and lengths. */
export const zeroTasks = (setup: Setup, around: Pick<Around, 'reference' | 'lengths'>): Task[] => [
  ...lengthTasks(setup, around),
  ...centreTask(setup),
  ...withShift(setup, toolUnsaid(setup) ? sayTool(setup) : offsetsNeeded(setup).flatMap(offsetTasks)),
]
