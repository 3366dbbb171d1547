import { findOffset, isFinding, type Probing, type Profile, printedDigits } from '../control/index.ts'
import type { Machine } from '../machine/index.ts'
import { plannedTop, topOf } from '../pickup/index.ts'
import type { PlannedStep } from '../program/index.ts'
import { type LengthUnit, roundTo } from '../quantity/index.ts'
import { FEATURES, isTop, type ProbeTask } from './task.ts'

const sign = (direction: '+' | '-') => (direction === '+' ? 1 : -1)

/** Where the spindle stands before it goes down, on the drawing: over the start of the search. */
export function startOf(task: ProbeTask, stylus: number): { X: number; Y: number } {
  const off = task.gap + stylus / 2
  const { feature, axis, x, y } = task
  const back = { X: -sign(task.directionX) * off, Y: -sign(task.directionY) * off }
  if (feature === 'outside-corner' || feature === 'inside-corner') return { X: x + back.X, Y: y + back.Y }
  if ((feature === 'surface' || feature === 'edge') && axis !== 'Z')
    return axis === 'X' ? { X: x + back.X, Y: y } : { X: x, Y: y + back.Y }
  return { X: x, Y: y }
}

/** The macro that measures a feature. */
export const MACRO = {
  surface: 'surface',
  web: 'webPocket',
  pocket: 'webPocket',
  bore: 'boreBoss',
  boss: 'boreBoss',
  'outside-corner': 'outsideCorner',
  'inside-corner': 'insideCorner',
  edge: 'angle',
} as const satisfies Record<ProbeTask['feature'], keyof Probing>

/** The S word that names the offset to be set: its number, or by the profile for a further one. */
export function offsetWord(profile: Profile, probing: Probing, offset: string): number | undefined {
  const address = findOffset(profile, offset)
  if (isFinding(address)) return undefined
  return address.extended ? roundTo(probing.furtherBase + probing.furtherStep * address.p, 3) : address.p
}

/** The words of the measuring call, before rounding: lengths by letter; S apart. */
export function measuringWords(task: ProbeTask): Record<string, number> {
  const { feature, axis, x, y, top, depth, size, gap, search } = task
  const past = { Q: search - gap }
  const outside = { Z: top + depth, R: gap }
  switch (feature) {
    case 'surface':
      return { [axis]: axis === 'X' ? x : axis === 'Y' ? y : top, ...past }
    case 'web':
      return { [axis]: size, ...outside, ...past }
    case 'pocket':
      return { [axis]: size, ...past }
    case 'boss':
      return { D: size, ...outside, ...past }
    case 'bore':
      return { D: size, ...past }
    case 'outside-corner':
    case 'inside-corner':
      return { X: x, Y: y, ...past }
    case 'edge':
      return { [axis]: axis === 'X' ? x : y, D: size, ...past }
  }
}

/** A macro call that is meant, and what it does. */
export interface ProbeCall {
  step: PlannedStep & { does: 'call' }
  does: string
}

export interface ProbePlan {
  calls: ProbeCall[]
  /** The call that measures, one of them. */
  measures: ProbeCall
  /** Everything that the program does, the calls among it. */
  steps: PlannedStep[]
}

/**
 * What is meant: the probe in, on, protected to its place, measure, protected away, off (common practice, in this
 * order); every length as the control will print it.
 */
export function planProbe(
  task: ProbeTask,
  { offset, unit, stylus, tool }: { offset: string; unit: LengthUnit; stylus: number; tool: number },
  profile: Profile,
  probing: Probing,
  machine: Machine,
): ProbePlan {
  const digits = printedDigits(profile, unit)
  const printed = (words: Record<string, number>) =>
    Object.fromEntries(Object.entries(words).map(([letter, value]) => [letter, roundTo(value, digits)]))
  const call = (does: string, program: number, words: Record<string, number> = {}): ProbeCall => ({
    does,
    step: { does: 'call', program, words, frame: offset },
  })
  const moveTo = (does: string, words: Record<string, number>) =>
    call(does, probing.protectedMove, { ...printed(words), F: probing.feed[unit] })
  const clear = { Z: task.top + task.clearance }
  const outside = task.feature === 'web' || task.feature === 'boss'
  const down = isTop(task) ? task.top + task.gap : outside ? undefined : task.top + task.depth
  const s = task.feature === 'edge' ? undefined : offsetWord(profile, probing, offset)
  const measures = call(`measure: ${FEATURES[task.feature].name}`, probing[MACRO[task.feature]], {
    ...printed(measuringWords(task)),
    ...(s === undefined ? {} : { S: s }),
  })
  const calls = [
    call('probe on', probing.on),
    moveTo('protected move over the start, spindle at the top', startOf(task, stylus)),
    moveTo('protected move down to the clear height', clear),
    ...(down === undefined ? [] : [moveTo('protected move down to where the search begins', { Z: down })]),
    measures,
    moveTo('protected move away', clear),
    call('probe off', probing.off),
  ]
  const up = plannedTop(topOf(profile, machine, unit))
  return {
    calls,
    measures,
    steps: [
      up,
      { does: 'tool', tool },
      { does: 'length', h: tool, axes: {}, frame: offset },
      ...calls.map(({ step }) => step),
      up,
      { does: 'stop' },
      { does: 'end' },
    ],
  }
}
