import { printedDigits } from '../control/index.ts'
import { roundTo } from '../quantity/index.ts'
import { type GaugeCase, printedLimits, printedMiddle, targetOf } from './case.ts'
import {
  type Characteristic,
  characteristicsOf,
  correctionOf,
  endsOf,
  type Feature,
  lengthIn,
} from './characteristic.ts'
import { isProbed } from './feature.ts'
import { partWith, valuesOf } from './part-with.ts'
import type { GaugePlan } from './plan.ts'
import type { ActualPart } from './stand-in.ts'
import { nextErrors, type Tried, tryProgram } from './try.ts'
import type { GaugeVariables } from './variables.ts'
import type { WrittenGauge } from './write.ts'

/** What kind of part a case is. */
export type CaseKind =
  | 'middle'
  | 'upper limit'
  | 'lower limit'
  | 'just above'
  | 'just below'
  | 'in the dead band'
  | 'far out'
  | 'wrong part'
  | 'no contact'
  | 'no part'

/** What should come of a part, by what the plan says in words. */
export interface Expected {
  does: 'goes on' | 'alarm' | 'skips'
  /** The value that decided it, by its key; a macro of the probe stops by itself where there is none. */
  key?: string
  /** What is added to each variable that is corrected. */
  corrects: ReadonlyMap<number, number>
}

export interface TriedCase {
  kind: CaseKind
  /** The value that the case is about; none where it is about the whole part. */
  key?: string
  /** What that value is. */
  value?: number
  expected: Expected
  tried: Omit<Tried, 'program' | 'rows'>
  /** What did not come out as it should; empty where all did. */
  wrong: string[]
  /** How far the value lies from its middle as the control has it, on this part and, corrected, on the next. */
  next?: { before: number; after: number }
}

/** Values of a part that count as equal, in either unit. */
const SAME = 1e-6

/** What a part should lead to: the plan in its order, decision by decision. */
function expect(
  { arranged }: Pick<WrittenGauge, 'arranged'>,
  where: GaugeCase,
  sizeOf: (of: Characteristic) => number,
  part: ActualPart,
): Expected {
  const { unit, profile } = where
  const digits = printedDigits(profile, unit)
  const corrects = new Map<number, number>()
  for (const step of arranged.steps) {
    if (step.does === 'measure') {
      if (part.empty || part.missing?.has(step.feature.id)) return { does: 'alarm', corrects }
      continue
    }
    const { feature, of } = step
    const value = sizeOf(of)
    const limits = printedLimits(of, profile, unit)
    const out = value > limits.upper + SAME || value < limits.lower - SAME
    const { react } = feature.params
    if ((react === 'stop' || react === 'right-part') && out) return { does: 'alarm', key: of.key, corrects }
    if (react === 'skip' && out) return { does: 'skips', key: of.key, corrects }
    const target = targetOf(feature, of, where)
    if (!target) continue
    const { share, deadBand, limit, stopsAtTolerance } = correctionOf(feature, of, unit)
    const error = value - printedMiddle(of, profile, unit)
    if (stopsAtTolerance ? out : Math.abs(error) > roundTo(limit, digits) + SAME)
      return { does: 'alarm', key: of.key, corrects }
    const added =
      Math.abs(error) < roundTo(deadBand, digits) - SAME
        ? 0
        : error * roundTo(share * Math.abs(target.factor), digits) * Math.sign(target.factor)
    corrects.set(target.variable, (corrects.get(target.variable) ?? 0) + added)
  }
  return { does: 'goes on', corrects }
}

/** What does not agree between what a program did and what it should have done. */
function differences(
  expected: Expected,
  tried: TriedCase['tried'],
  sizes: ReadonlyMap<string, number>,
): string[] {
  const wrong: string[] = []
  const { alarm, skipped, corrected, values } = tried
  const says = alarm?.says.toUpperCase() ?? ''
  if (expected.does === 'alarm' && !alarm) wrong.push('It should have stopped, and went on.')
  else if (expected.does !== 'alarm' && alarm)
    wrong.push(`It stopped in line ${alarm.line}${says ? ` (${alarm.says})` : ''}, and should not have.`)
  else if (alarm && expected.key !== undefined && !says.includes(expected.key.slice(0, 12)))
    wrong.push(`It stopped for another reason: ${alarm.says || 'without a message'}.`)
  if (expected.does === 'skips' && !skipped && !alarm)
    wrong.push('It should have skipped what follows, and did not.')
  if (expected.does === 'goes on' && skipped) wrong.push('It skipped what follows, and should not have.')
  for (const [key, value] of values) {
    const real = sizes.get(key)
    if (real !== undefined && Math.abs(real - value) > SAME)
      wrong.push(`${key} is ${Number(real.toFixed(6))} and was read as ${Number(value.toFixed(6))}.`)
  }
  for (const { target, before, after } of corrected) {
    const want = expected.corrects.get(target.variable) ?? 0
    if (Math.abs(after - before - want) > SAME)
      wrong.push(
        `${target.name} was corrected by ${Number((after - before).toFixed(6))}, and should be by ${Number(want.toFixed(6))}.`,
      )
  }
  return wrong
}

interface Wanted {
  kind: CaseKind
  feature?: Feature
  of?: Characteristic
  value?: number
  part: ActualPart
}

/** The values of one characteristic that are tried. */
function casesOf(plan: GaugePlan, feature: Feature, of: Characteristic, where: GaugeCase): Wanted[] {
  const { unit, profile } = where
  const step = 10 ** -printedDigits(profile, unit)
  const limits = printedLimits(of, profile, unit)
  const target = targetOf(feature, of, where)
  const { deadBand, limit } = correctionOf(feature, of, unit)
  // No further than it is searched, of a distance at its second end: beyond that nothing is met.
  const touched = plan.features.find(({ id }) => id === endsOf(feature)[1]) ?? feature
  const past = 0.8 * lengthIn(touched.params.past, unit)
  const reach =
    of.quantity === 'angle' ? (Math.atan2(past, lengthIn(feature.params.base, unit)) * 180) / Math.PI : past
  // A distance is computed from four readings: at the limit to a thousandth of the last digit.
  const least = of.quantity === 'distance' ? step / 1000 : 0
  const width = Math.max(limits.upper - limits.lower, step)
  const far = Math.min(reach, target ? Math.max(1.5 * limit, limit + 2 * step) : 1.5 * width)
  const values: (readonly [CaseKind, number])[] = [
    ['middle', of.middle],
    ['upper limit', limits.upper - least],
    ['lower limit', limits.lower + least],
    ['just above', limits.upper + step],
    ['just below', limits.lower - step],
    ...(target && deadBand > 1.5 * step ? [['in the dead band', of.middle + deadBand / 2] as const] : []),
    [feature.params.react === 'right-part' ? 'wrong part' : 'far out', of.middle + far],
  ]
  return values.map(([kind, value]) => ({
    kind,
    feature,
    of,
    value,
    part: partWith(plan, new Map([[of.key, value]]), unit),
  }))
}

/** Every kind of part that a plan must be shown to deal with. */
function wantedCases(plan: GaugePlan, where: GaugeCase): Wanted[] {
  const probed = plan.features.filter(({ params }) => isProbed(params.what))
  return [
    ...plan.features
      .filter(({ params }) => params.what !== 'hand')
      .flatMap((feature) =>
        characteristicsOf(feature, where.unit).flatMap((of) => casesOf(plan, feature, of, where)),
      ),
    ...probed.map(
      (feature): Wanted => ({
        kind: 'no contact',
        feature,
        part: { ...partWith(plan, new Map(), where.unit), missing: new Set([feature.id]) },
      }),
    ),
    ...(probed.length > 0 ? [{ kind: 'no part', part: { empty: true } } as const] : []),
  ]
}

/**
 * Runs a gauging program, as it stands, against every kind of part: in, at the limit, just out, far out, nothing to touch, the
 * wrong part. Each is held to what the plan says in words, and each correction to what the next part would then measure.
 * `onProgress` is told the share done, and stops it by giving false.
 */
export function tryCases(
  text: string,
  plan: GaugePlan,
  written: Pick<WrittenGauge, 'arranged'> & { variables: GaugeVariables },
  where: GaugeCase,
  onProgress?: (share: number) => boolean,
): TriedCase[] {
  const cases: TriedCase[] = []
  const wanted = wantedCases(plan, where)
  for (const [index, each] of wanted.entries()) {
    if (onProgress && !onProgress(index / wanted.length)) break
    const { kind, feature, of, value, part } = each
    const values = valuesOf(plan, part, where.unit)
    const sizeOf = (characteristic: Characteristic) =>
      values.get(characteristic.key) ?? characteristic.nominal
    const expected = expect(written, where, sizeOf, part)
    const { program: _, rows: __, ...tried } = tryProgram(text, plan.features, written.variables, where, part)
    const wrong = differences(expected, tried, values)
    const target = feature && of ? targetOf(feature, of, where) : undefined
    const next = of && nextErrors(plan.features, tried, sizeOf, where).get(of.key)
    if (next && target && Math.abs(next.after) > Math.abs(next.before))
      wrong.push(
        `The next part would come out further from the middle, not nearer: ${target.name} is corrected the wrong way.`,
      )
    cases.push({
      kind,
      ...(of ? { key: of.key } : feature ? { key: feature.params.name } : {}),
      ...(value === undefined ? {} : { value }),
      expected,
      tried,
      wrong,
      ...(next ? { next } : {}),
    })
  }
  return cases
}
