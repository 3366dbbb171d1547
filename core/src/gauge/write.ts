import {
  type Block,
  clearUpBlocks,
  commentText,
  type Macros,
  type Probing,
  type Profile,
  type ProgramLine,
  printedDigits,
  programLines,
  writeNumber,
} from '../control/index.ts'
import type { Machine, ProbeShape } from '../machine/index.ts'
import { topOf } from '../pickup/index.ts'
import { isTop, MACRO, measuringWords } from '../probe/index.ts'
import type { Body } from '../prove/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { type Arranged, arrange, type GaugeStep } from './arrange.ts'
import {
  type Characteristic,
  characteristicsOf,
  correctionOf,
  type Feature,
  keyOf,
  LIMIT_SLACK,
  lengthIn,
} from './characteristic.ts'
import { FEATURE_NAMES, isProbed, probeTaskOf } from './feature.ts'
import type { GaugePlan } from './plan.ts'
import { type CorrectionTarget, offsetTarget, wearTarget } from './wear.ts'

/** What a gauging program is written for. Lengths in `unit`. */
export interface GaugeCase {
  machine: Machine
  profile: Profile
  unit: LengthUnit
  offset: string
  shape: ProbeShape
  /** What stands in the work area, the part among it. */
  bodies: readonly Body[]
  /** Lines of the heading: the setup, its log. */
  about: readonly string[]
}

/** The variables that a program uses. */
export interface GaugeVariables {
  /** Of each value, by its key. */
  values: ReadonlyMap<string, number>
  /** Places of features that a distance is taken between, by feature id. */
  places: ReadonlyMap<string, Partial<Record<'X' | 'Y', number>>>
  /** Set to 1 where what follows was skipped. */
  skipped: number
  error: number
  correction: number
  /** How many it takes, and how many there are. */
  needs: number
  has: number
}

/** Three variables at the end of those that are free: skipped, error, correction. */
const KEPT_BACK = 3

const placedAxes = ({ params }: Feature): readonly ('X' | 'Y')[] =>
  params.what === 'web' || params.what === 'pocket' || params.what === 'surface'
    ? params.axis === 'Z'
      ? []
      : [params.axis]
    : ['X', 'Y']

/** Which variable holds what, in the order of the plan. */
export function variablesOf({ features }: GaugePlan, unit: LengthUnit, { free }: Macros): GaugeVariables {
  let next = free.first
  const values = new Map<string, number>()
  const places = new Map<string, Partial<Record<'X' | 'Y', number>>>()
  for (const feature of features)
    if (feature.params.what !== 'hand')
      for (const { key } of characteristicsOf(feature, unit)) values.set(key, next++)
  const ends = new Set(
    features.flatMap(({ params }) => (params.what === 'distance' ? [params.from, params.to] : [])),
  )
  for (const feature of features)
    if (ends.has(feature.id))
      places.set(feature.id, Object.fromEntries(placedAxes(feature).map((axis) => [axis, next++])))
  return {
    values,
    places,
    skipped: free.last - 2,
    error: free.last - 1,
    correction: free.last,
    needs: next - free.first + KEPT_BACK,
    has: free.last - free.first + 1,
  }
}

export interface WrittenGauge {
  text: string
  lines: ProgramLine[]
  arranged: Arranged
  variables: GaugeVariables
}

/** The target of a feature's correction: wear of its tool, or the offset; undefined where it corrects nothing. */
export function targetOf(
  { params }: Feature,
  of: Characteristic,
  { profile, offset }: Pick<GaugeCase, 'profile' | 'offset'>,
): CorrectionTarget | undefined {
  const { macros } = profile
  if (!macros) return undefined
  if (params.react === 'wear' && params.tool !== null) return wearTarget(params, params.tool, macros)
  if (params.react === 'offset' && (of.quantity === 'X' || of.quantity === 'Y' || of.quantity === 'Z'))
    return offsetTarget(offset, of.quantity, profile.offsets.standard, macros)
  return undefined
}

/** Limits as they are printed: cut inwards, so that nothing passes by the last digit; a twentieth of it is let be. */
export function printedLimits({ lower, upper }: Characteristic, profile: Profile, unit: LengthUnit) {
  const per = 10 ** printedDigits(profile, unit)
  return {
    lower: Math.ceil(lower * per - LIMIT_SLACK) / per,
    upper: Math.floor(upper * per + LIMIT_SLACK) / per,
  }
}

interface Pen {
  of: GaugeCase
  probing: Probing
  macros: Macros
  plan: GaugePlan
  variables: GaugeVariables
  blocks: Block[]
  /** What every number is printed with. */
  number: (value: number) => string
  /** The alarms so far. */
  alarms: number
}

/** A line, in the name of a feature. */
function line(pen: Pen, words: string, does?: string, feature?: Feature): void {
  pen.blocks.push({
    words: feature ? [{ text: words, field: feature.id }] : words,
    ...(does ? { does } : {}),
  })
}

/** An alarm with its message, on the line of its condition: the message is the comment that stands there. */
function alarm(pen: Pen, when: string, says: string, feature: Feature): void {
  const { macros } = pen
  pen.alarms++
  const message = commentText(says).slice(0, macros.longestMessage)
  line(pen, `IF [${when}] THEN #${macros.alarm}= ${pen.alarms} (${message})`, undefined, feature)
}

const call = (program: number, words: readonly string[] = []) => ['G65', `P${program}`, ...words].join(' ')

function moveTo(
  pen: Pen,
  does: string,
  axes: Partial<Record<'X' | 'Y' | 'Z', number>>,
  feature?: Feature,
): void {
  const { plan, probing, of, number } = pen
  const feed = plan.head.feed ? lengthIn(plan.head.feed, of.unit) : probing.feed[of.unit]
  const words = Object.entries(axes).map(([axis, value]) => `${axis}${number(value)}`)
  line(pen, call(probing.protectedMove, [...words, `F${number(feed)}`]), does, feature)
}

/** Lines to the log file of the control, between POPEN and PCLOS where it wants that. */
function print(pen: Pen, texts: readonly string[], feature?: Feature): void {
  const { macros, plan } = pen
  if (!plan.head.prints || macros.print === 'none') return
  if (macros.print === 'opened') line(pen, 'POPEN', undefined, feature)
  for (const text of texts) line(pen, `DPRNT[${text}]`, 'to the log file', feature)
  if (macros.print === 'opened') line(pen, 'PCLOS', undefined, feature)
}

const starred = (text: string) => text.replace(/ /g, '*')
const printedVariable = ({ of }: Pen, variable: number) =>
  `#${variable}[4${printedDigits(of.profile, of.unit)}]`

/** The variable of the probe's macros that holds a value. */
function resultOf({ quantity }: Characteristic, { results }: Probing): number {
  if (quantity === 'distance') return 0
  return results[quantity]
}

/** To a feature, unless the probe stands over it already, and away again with its results read. */
function measure(
  pen: Pen,
  { feature, start }: GaugeStep & { does: 'measure' },
  clear: number,
  isOver: boolean,
): void {
  const { of, probing, variables, number } = pen
  const { params } = feature
  const { unit, shape, profile } = of
  const name = keyOf(params.name)
  const task = probeTaskOf(params, unit, shape.stylus, clear)
  const outside = params.what === 'boss' || params.what === 'web'
  if (!isOver) moveTo(pen, `protected move over the start of ${name}`, { X: start.x, Y: start.y }, feature)
  if (isTop(task))
    moveTo(
      pen,
      'protected move down to where the search begins',
      { Z: task.top + shape.stylus / 2 + task.gap },
      feature,
    )
  else if (!outside)
    moveTo(pen, 'protected move down to where the search begins', { Z: task.top + task.depth }, feature)
  const { lookAhead } = profile.reading
  if (lookAhead)
    line(pen, `${lookAhead} P1`, 'look-ahead held back: results are read when they are there', feature)
  const words = Object.entries(measuringWords(task)).map(([letter, value]) => `${letter}${number(value)}`)
  line(
    pen,
    call(probing[MACRO[task.feature]], words),
    `measure ${name}: ${FEATURE_NAMES[params.what]}`,
    feature,
  )
  const characteristics = characteristicsOf(feature, unit)
  for (const each of characteristics)
    line(pen, `#${variables.values.get(each.key)}= #${resultOf(each, probing)}`, each.key, feature)
  for (const [axis, variable] of Object.entries(variables.places.get(feature.id) ?? {}))
    line(pen, `#${variable}= #${probing.results[axis as 'X' | 'Y']}`, `${axis} of ${name}`, feature)
  if (lookAhead) line(pen, lookAhead, 'look-ahead as it was', feature)
  moveTo(pen, 'protected move away, to the clear height', { Z: clear }, feature)
  print(
    pen,
    characteristics.map(
      (each) => `${starred(each.key)}*${printedVariable(pen, variables.values.get(each.key) ?? 0)}`,
    ),
    feature,
  )
}

function distance(pen: Pen, feature: Feature, of: Characteristic): void {
  const { variables, plan } = pen
  const { params } = feature
  const variable = variables.values.get(of.key)
  const apart = (axis: 'X' | 'Y') => {
    const [from, to] = [variables.places.get(params.from)?.[axis], variables.places.get(params.to)?.[axis]]
    return from === undefined || to === undefined ? undefined : `[#${to} - #${from}]`
  }
  const [x, y] = [apart('X'), apart('Y')]
  const nameOf = (id: string) => keyOf(plan.features.find((each) => each.id === id)?.params.name ?? '')
  const along = params.along === 'X' ? x : params.along === 'Y' ? y : undefined
  line(
    pen,
    params.along === 'straight'
      ? `#${variable}= SQRT[${x} * ${x} + ${y} * ${y}]`
      : `#${variable}= ABS${along}`,
    `${of.key}: from ${nameOf(params.from)} to ${nameOf(params.to)}`,
    feature,
  )
  print(pen, [`${starred(of.key)}*${printedVariable(pen, variable ?? 0)}`], feature)
}

/** Stops above the upper limit and below the lower. */
function outOfTolerance(pen: Pen, feature: Feature, of: Characteristic, more = ''): void {
  const { variables, number } = pen
  const value = `#${variables.values.get(of.key)}`
  const limits = printedLimits(of, pen.of.profile, pen.of.unit)
  alarm(pen, `${value} GT ${number(limits.upper)}`, `${of.key} above ${number(limits.upper)}${more}`, feature)
  alarm(pen, `${value} LT ${number(limits.lower)}`, `${of.key} below ${number(limits.lower)}${more}`, feature)
}

function correct(pen: Pen, feature: Feature, of: Characteristic, target: CorrectionTarget): void {
  const { variables, number } = pen
  const { share, deadBand, limit, stopsAtTolerance } = correctionOf(feature, of, pen.of.unit)
  const value = `#${variables.values.get(of.key)}`
  const [error, correction] = [`#${variables.error}`, `#${variables.correction}`]
  const tool = feature.params.react === 'wear' ? ` - T${feature.params.tool}` : ''
  if (stopsAtTolerance) outOfTolerance(pen, feature, of, tool)
  line(pen, `${error}= ${value} - ${number(of.middle)}`, 'how far from the middle of the tolerance', feature)
  if (!stopsAtTolerance)
    alarm(pen, `ABS[${error}] GT ${number(limit)}`, `${of.key} too far out${tool}`, feature)
  line(
    pen,
    `${correction}= ${error} * ${number(share * Math.abs(target.factor))}`,
    `the share of it that is corrected: ${share}`,
    feature,
  )
  if (deadBand > 0)
    line(
      pen,
      `IF [ABS[${error}] LT ${number(deadBand)}] THEN ${correction}= 0`,
      'dead band: nothing is done',
      feature,
    )
  const sign = target.factor < 0 ? '-' : '+'
  line(
    pen,
    `#${target.variable}= #${target.variable} ${sign} ${correction}`,
    `correct: ${target.name}`,
    feature,
  )
  print(pen, [`${starred(target.printed)}*${printedVariable(pen, target.variable)}`], feature)
}

/** Where a skip goes to: the number of the block is put in when all blocks are there. */
const END = '{END}'

function decide(pen: Pen, { feature, of }: GaugeStep & { does: 'decide' }): void {
  const { params } = feature
  const { variables, number } = pen
  if (params.what === 'distance') distance(pen, feature, of)
  const value = `#${variables.values.get(of.key)}`
  const limits = printedLimits(of, pen.of.profile, pen.of.unit)
  const [above, below] = [`${value} GT ${number(limits.upper)}`, `${value} LT ${number(limits.lower)}`]
  const target = targetOf(feature, of, pen.of)
  switch (params.react) {
    case 'record':
      return
    case 'stop':
      outOfTolerance(pen, feature, of)
      return
    case 'right-part':
      alarm(pen, above, `wrong part - ${of.key}`, feature)
      alarm(pen, below, `wrong part - ${of.key}`, feature)
      return
    case 'skip': {
      const skipped = `#${variables.skipped}`
      line(
        pen,
        `IF [${above}] THEN ${skipped}= 1`,
        `${of.key} above ${number(limits.upper)}: skip what follows`,
        feature,
      )
      line(
        pen,
        `IF [${below}] THEN ${skipped}= 1`,
        `${of.key} below ${number(limits.lower)}: skip what follows`,
        feature,
      )
      line(pen, `IF [${skipped} EQ 1] GOTO ${END}`, 'to where the probe is switched off', feature)
      return
    }
    default:
      if (target) correct(pen, feature, of, target)
  }
}

/** Puts the number of the block with the label where the skips go to. */
function withLabel(blocks: readonly Block[], label: number, { blocks: numbering }: Profile): Block[] {
  const number = numbering.numbered ? (label + 2) * numbering.step : 9000
  const put = (text: string) => text.replaceAll(END, String(number))
  return blocks.map((block, index): Block => {
    const words =
      typeof block.words === 'string'
        ? put(block.words)
        : block.words.map((word) => ({ ...word, text: put(word.text) }))
    const labelled = index === label && !numbering.numbered && typeof words === 'string'
    return { ...block, words: labelled ? `N${number} ${words}` : words }
  })
}

/** Whether a probe is needed for a plan at all. */
export const needsProbe = ({ features }: Pick<GaugePlan, 'features'>) =>
  features.some(({ params }) => isProbed(params.what))

/**
 * Writes the program of a plan: the probe in and on, to each feature by protected moves, measured with the look-ahead held
 * back, away, and then what is done with the result; off (common practice, in this order). It is not read back here:
 * `checkGauge` runs it.
 */
export function writeGauge(plan: GaugePlan, of: GaugeCase, probing: Probing, macros: Macros): WrittenGauge {
  const { profile, machine, unit, offset, shape } = of
  const arranged = arrange(plan, of)
  const variables = variablesOf(plan, unit, macros)
  const pen: Pen = {
    of,
    probing,
    macros,
    plan,
    variables,
    blocks: [],
    number: (value) => writeNumber(value, unit, profile),
    alarms: 0,
  }
  const top = clearUpBlocks(topOf(profile, machine, unit), unit, profile)
  const skips = plan.features.some(({ params }) => params.react === 'skip')
  pen.blocks.push(
    ...top,
    { words: 'M5', does: 'a probe never turns' },
    { words: `T${shape.tool} M6`, does: 'the probe' },
    { words: `G90 ${offset}` },
    { words: `G43 H${shape.tool}`, does: "the probe's own length" },
  )
  if (skips) line(pen, `#${variables.skipped}= 0`, '1 afterwards: what follows was skipped')
  print(pen, [starred(`GAUGE ${keyOf(plan.head.title)}`)])
  line(pen, call(probing.on), 'probe on')
  let lowered = false
  for (const step of arranged.steps) {
    if (step.does === 'decide') {
      decide(pen, step)
      continue
    }
    if (!lowered) {
      moveTo(pen, 'protected move, spindle at the top', { X: step.start.x, Y: step.start.y }, step.feature)
      moveTo(pen, 'protected move down to the clear height', { Z: arranged.clear }, step.feature)
    }
    measure(pen, step, arranged.clear, !lowered)
    lowered = true
  }
  const label = pen.blocks.length
  line(pen, call(probing.off), 'probe off')
  pen.blocks.push(...top)
  line(pen, plan.head.ends === 'program' ? 'M30' : 'M99')
  const lines = programLines(
    {
      title: plan.head.title,
      about: [
        ...of.about,
        `Probe in T${shape.tool}. Clear height Z${pen.number(arranged.clear)}, over ${arranged.over}. Macro numbers and variables are defaults: check them against the manuals of the control and of the probe.`,
        ...[...variables.values].map(([key, variable]) => `${key} in variable ${variable}.`),
      ],
      unit,
      number: plan.head.number,
      blocks: skips ? withLabel(pen.blocks, label, profile) : pen.blocks,
    },
    profile,
  )
  return { text: lines.map(({ text }) => `${text}\n`).join(''), lines, arranged, variables }
}
