import type { GaugeStep } from './arrange.ts'
import { printedLimits, targetOf } from './case.ts'
import { type Characteristic, correctionOf, type Feature, keyOf } from './characteristic.ts'
import { alarm, line, type Pen, print, printedVariable, starred } from './pen.ts'
import type { CorrectionTarget } from './wear.ts'

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
export const END = '{END}'

/** What is done with one value, now that it is measured. */
export function decide(pen: Pen, { feature, of }: GaugeStep & { does: 'decide' }): void {
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
