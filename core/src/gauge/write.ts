import {
  type Block,
  clearUpBlocks,
  type Macros,
  type Probing,
  type Profile,
  type ProgramLine,
  programLines,
  writeNumber,
} from '../control/index.ts'
import { topOf } from '../pickup/index.ts'
import { isTop, MACRO, measuringWords } from '../probe/index.ts'
import { type Arranged, arrange, type GaugeStep } from './arrange.ts'
import type { GaugeCase } from './case.ts'
import { type Characteristic, characteristicsOf, keyOf } from './characteristic.ts'
import { decide, END } from './decide.ts'
import { FEATURE_NAMES, probeTaskOf } from './feature.ts'
import { call, line, moveTo, type Pen, print, printedVariable, starred } from './pen.ts'
import type { GaugePlan } from './plan.ts'
import { type GaugeVariables, variablesOf } from './variables.ts'

export interface WrittenGauge {
  text: string
  lines: ProgramLine[]
  arranged: Arranged
  variables: GaugeVariables
}
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
