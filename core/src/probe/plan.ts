import { findOffset, isFinding, type Probing, type Profile, printedDigits } from '../control/index.ts'
import type { LinearAxis, Machine } from '../machine/index.ts'
import { plannedTop, topOf } from '../pickup/index.ts'
import type { PlannedStep } from '../program/index.ts'
import { type LengthUnit, roundTo } from '../quantity/index.ts'
import { FEATURES, isTop, isWhole, type ProbeTask } from './task.ts'
import { loadAddress, roughZero, topPlaceOf, type WholeStep, wholeSteps } from './whole.ts'

const sign = (direction: '+' | '-') => (direction === '+' ? 1 : -1)

/** Where the spindle stands before it goes down, on the drawing: over the start of the search. */
export function startOf(task: ProbeTask, stylus: number): { X: number; Y: number } {
  const off = task.gap + stylus / 2
  const { feature, axis, x, y } = task
  if (isWhole(task)) return topPlaceOf(task)
  const back = { X: -sign(task.directionX) * off, Y: -sign(task.directionY) * off }
  if (feature === 'outside-corner' || feature === 'inside-corner') return { X: x + back.X, Y: y + back.Y }
  if ((feature === 'surface' || feature === 'edge') && axis !== 'Z')
    return axis === 'X' ? { X: x + back.X, Y: y } : { X: x, Y: y + back.Y }
  return { X: x, Y: y }
}

/** A feature that one call of a macro measures. */
export type OneCall = Exclude<ProbeTask['feature'], 'block' | 'corner-top'>

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
} as const satisfies Record<OneCall, keyof Probing>

/** The S word that names the offset to be set: its number, or by the profile for a further one. */
export function offsetWord(profile: Profile, probing: Probing, offset: string): number | undefined {
  const address = findOffset(profile, offset)
  if (isFinding(address)) return undefined
  return address.extended ? roundTo(probing.furtherBase + probing.furtherStep * address.p, 3) : address.p
}

/** The words of the measuring call, before rounding: lengths by letter; S apart. */
export function measuringWords(
  task: Omit<ProbeTask, 'feature'> & { feature: OneCall },
): Record<string, number> {
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
  measures: boolean
}

/** A line of the program between its head and its end. */
export type ProbeLine =
  | { is: 'call'; call: ProbeCall }
  /** Keeps a size: in a variable that nothing else uses, or a stop where the control has no macro language. */
  | { is: 'keep'; what: 'length' | 'width'; variable: number | undefined }

export interface ProbePlan {
  lines: ProbeLine[]
  /** The offset as it is written at the start, roughly; `load` is null where it is keyed in by hand. */
  rough?: { axes: Record<LinearAxis, number>; load: { code: string; l: number; p: number } | null }
  /** Everything that the program does, the calls among it. */
  steps: PlannedStep[]
}

interface PlanSettings {
  offset: string
  unit: LengthUnit
  stylus: number
  tool: number
}

/** What writes the calls of a plan, with every length as the control will print it. */
function caller({ offset, unit }: PlanSettings, profile: Profile, probing: Probing) {
  const digits = printedDigits(profile, unit)
  const printed = <Words extends Record<string, number>>(words: Words) =>
    Object.fromEntries(
      Object.entries(words).map(([letter, value]) => [letter, roundTo(value, digits)]),
    ) as Words
  const call = (does: string, program: number, words: Record<string, number> = {}, measures = false) => ({
    does,
    measures,
    step: { does: 'call' as const, program, words, frame: offset },
  })
  return {
    printed,
    call,
    moveTo: (does: string, words: Record<string, number>): ProbeCall =>
      call(does, probing.protectedMove, { ...printed(words), F: probing.feed[unit] }),
    /** Sets the offset, unless `sets` says no. */
    measure: (does: string, macro: (typeof MACRO)[OneCall], words: Record<string, number>, sets = true) => {
      const s = sets ? offsetWord(profile, probing, offset) : undefined
      return call(does, probing[macro], { ...printed(words), ...(s === undefined ? {} : { S: s }) }, true)
    },
  }
}
/** Down to where the search begins, one call that measures, and away (common practice, in this order). */
function oneFeature(
  task: ProbeTask & { feature: OneCall },
  settings: PlanSettings,
  profile: Profile,
  probing: Probing,
): ProbeCall[] {
  const { moveTo, measure } = caller(settings, profile, probing)
  const clear = { Z: task.top + task.clearance }
  const outside = task.feature === 'web' || task.feature === 'boss'
  const down = isTop(task) ? task.top + task.gap : outside ? undefined : task.top + task.depth
  return [
    moveTo('protected move over the start, spindle at the top', startOf(task, settings.stylus)),
    moveTo('protected move down to the clear height', clear),
    ...(down === undefined ? [] : [moveTo('protected move down to where the search begins', { Z: down })]),
    measure(
      `measure: ${FEATURES[task.feature].name}`,
      MACRO[task.feature],
      measuringWords(task),
      task.feature !== 'edge',
    ),
    moveTo('protected move away', clear),
  ]
}

/**
 * What is meant: the probe in, on, protected to its place, measure, protected away, off (common practice, in this
 * order); every length as the control will print it.
 */
export function planProbe(
  task: ProbeTask,
  settings: PlanSettings,
  profile: Profile,
  probing: Probing,
  machine: Machine,
): ProbePlan {
  const { offset, unit, stylus, tool } = settings
  const { call, moveTo, measure, printed } = caller(settings, profile, probing)
  const { macros } = profile
  const ofWhole = (step: WholeStep): ProbeLine => {
    if (step.does === 'keep')
      return {
        is: 'keep',
        what: step.what,
        variable: macros ? macros.free.first + (step.what === 'length' ? 0 : 1) : undefined,
      }
    return {
      is: 'call',
      call: step.does === 'move' ? moveTo(step.says, step.words) : measure(step.says, step.macro, step.words),
    }
  }
  const asLine = (each: ProbeCall): ProbeLine => ({ is: 'call', call: each })
  const between = isWhole(task)
    ? wholeSteps(task, stylus).map(ofWhole)
    : oneFeature({ ...task, feature: task.feature as OneCall }, settings, profile, probing).map(asLine)
  const lines = [asLine(call('probe on', probing.on)), ...between, asLine(call('probe off', probing.off))]
  const rough = task.start && {
    axes: printed(roughZero(task, task.start)),
    load: loadAddress(profile, offset),
  }
  const up = plannedTop(topOf(profile, machine, unit))
  const stop: PlannedStep = { does: 'stop' }
  const loads = (): PlannedStep[] => {
    if (!rough) return []
    if (!rough.load) return [stop]
    const { l, p } = rough.load
    return [{ does: 'load-offset', l, p, axes: rough.axes }]
  }
  return {
    lines,
    ...(rough ? { rough } : {}),
    steps: [
      up,
      ...loads(),
      { does: 'tool', tool },
      { does: 'length', h: tool, axes: {}, frame: offset },
      ...lines.flatMap((line): PlannedStep[] =>
        line.is === 'call' ? [line.call.step] : line.variable === undefined ? [stop] : [],
      ),
      up,
      stop,
      { does: 'end' },
    ],
  }
}
