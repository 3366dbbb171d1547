import { findOffset, isFinding, printedDigits } from '../control/index.ts'
import { type Finding, finding, type Severity, worstFirst } from '../fact/index.ts'
import type { LinearAxis, ToolShape } from '../machine/index.ts'
import { checkProbe } from '../probe/index.ts'
import { formatWithUnit } from '../quantity/index.ts'
import { type GaugeCase, needsProbe, targetOf } from './case.ts'
import {
  type Characteristic,
  characteristicsOf,
  correctionOf,
  type Feature,
  halfTolerance,
  keyOf,
  lengthIn,
} from './characteristic.ts'
import { isProbed, probeTaskOf } from './feature.ts'
import { valuesOf } from './part-with.ts'
import type { GaugePlan } from './plan.ts'
import { variablesOf } from './variables.ts'

/** What is known besides the case, for what can be wrong with a plan. */
export interface PlanFacts {
  /** Shapes of the machine's tools, as far as the table has them. */
  tools: readonly Pick<ToolShape, 'number'>[]
  /** What is known of the offset so far, machine positions. */
  near: Partial<Record<LinearAxis, number>>
}

/** A finding about one feature: `where` is its id and the field. */
const at = (
  severity: Severity,
  code: string,
  { id, params }: Feature,
  field: string,
  says: string,
  why: string,
  fix?: string,
) => finding(severity, code, `${id}.${field}`, `${keyOf(params.name)}: ${says}`, why, fix)

function ofTolerance(feature: Feature, of: Characteristic): Finding[] {
  const show = (value: number) => (of.unit === 'deg' ? `${value} deg` : formatWithUnit(value, of.unit))
  if (of.lower > of.upper)
    return [
      at(
        'stop',
        'tolerance-upside-down',
        feature,
        'tolerance',
        'the tolerance is upside down.',
        `The upper limit would be ${show(of.upper)} and the lower ${show(of.lower)}: every part is out.`,
        'Type the upper deviation first, with its sign.',
      ),
    ]
  if (of.lower === of.upper)
    return [
      at(
        'stop',
        'tolerance-zero',
        feature,
        'tolerance',
        'there is no tolerance.',
        'No part measures exactly the nominal size.',
        'Type what the drawing allows.',
      ),
    ]
  return []
}

/** What is kept to the digits that the control prints. */
function ofDigits(feature: Feature, of: Characteristic, { profile, unit }: GaugeCase): Finding[] {
  const width = of.upper - of.lower
  if (of.unit === 'deg' || width <= 0 || width >= 4 * 10 ** -printedDigits(profile, unit)) return []
  return [
    at(
      'look',
      'tolerance-fine',
      feature,
      'tolerance',
      'the tolerance is only a few of the last digits that the control prints.',
      'Limits are cut inwards to these digits.',
      'Measure it by a finer way.',
    ),
  ]
}

function ofCorrection(feature: Feature, of: Characteristic, where: GaugeCase, facts: PlanFacts): Finding[] {
  const { params } = feature
  const { unit } = where
  if (params.react === 'offset' && !targetOf(feature, of, where))
    return [
      at(
        'stop',
        'offset-not-reached',
        feature,
        'react',
        `${where.offset} has no variable.`,
        'Only the standard offsets can be corrected by a macro statement of this profile.',
        'Gauge in one of the standard offsets.',
      ),
    ]
  if (!targetOf(feature, of, where)) return []
  const { deadBand, limit, share } = correctionOf(feature, of, unit)
  const half = halfTolerance(of)
  const found: Finding[] = []
  if (deadBand >= limit)
    found.push(
      at(
        'stop',
        'dead-band-over-limit',
        feature,
        'deadBand',
        'the dead band is not smaller than the limit.',
        'Whatever is measured is either left alone or stops the machine: nothing is ever corrected.',
        `Type a dead band below ${formatWithUnit(limit, unit)}.`,
      ),
    )
  else if (deadBand >= half)
    found.push(
      at(
        'look',
        'dead-band-wide',
        feature,
        'deadBand',
        'the dead band is as wide as the tolerance.',
        'Nothing is corrected before parts are out.',
        'A tenth of the tolerance is usual here.',
      ),
    )
  if (limit > half * 1.000001)
    found.push(
      at(
        'look',
        'limit-over-tolerance',
        feature,
        'limit',
        'a part out of tolerance is corrected for, and not stopped.',
        `Half of the tolerance is ${formatWithUnit(half, unit)}, the limit ${formatWithUnit(limit, unit)}.`,
        'Leave the limit empty: then it stops at the tolerance.',
      ),
    )
  if (share > 0.999 && params.react === 'wear')
    found.push(
      at(
        'look',
        'share-whole',
        feature,
        'share',
        'the whole error is corrected each time.',
        'The scatter of parts and of the probe is corrected with it, and makes the next part worse.',
        'A half or a third is usual.',
      ),
    )
  if (
    params.react === 'wear' &&
    params.tool !== null &&
    !facts.tools.some(({ number }) => number === params.tool)
  )
    found.push(
      at(
        'look',
        'tool-not-known',
        feature,
        'tool',
        `T${params.tool} is not in the tool table.`,
        'Its wear is corrected all the same.',
        'Check the number, or enter the tool.',
      ),
    )
  return found
}

function ofProbe(feature: Feature, where: GaugeCase, { near }: PlanFacts): Finding[] {
  const { params } = feature
  if (!isProbed(params.what)) return []
  const { unit, shape, machine, offset } = where
  const task = probeTaskOf(params, unit, shape.stylus, lengthIn(params.top, unit) + 1)
  const past = lengthIn(params.past, unit)
  const found = checkProbe(task, { machine, shape, unit, offset, near })
    .filter(({ code }) => code !== 'no-rough-zero' && code !== 'search-too-long')
    .map((each) => ({
      ...each,
      where: `${feature.id}.${each.where}`,
      says: `${keyOf(params.name)}: ${each.says}`,
    }))
  if (past > shape.overtravel)
    found.push(
      at(
        'stop',
        'search-too-long',
        feature,
        'past',
        `it searches ${formatWithUnit(past, unit)} past the surface.`,
        `If the tip misses, the body meets the part; the stylus may be deflected ${formatWithUnit(shape.overtravel, unit)} at most.`,
        `Search ${formatWithUnit(shape.overtravel / 2, unit)} past it.`,
      ),
    )
  return found
}

/** Distances whose ends lie otherwise on the plan than the drawing says. */
function ofDistances(plan: GaugePlan, unit: GaugeCase['unit']): Finding[] {
  const drawn = valuesOf(plan, {}, unit)
  return plan.features.flatMap((feature) => {
    const [of] = characteristicsOf(feature, unit)
    const apart = of?.quantity === 'distance' ? drawn.get(of.key) : undefined
    if (!of || apart === undefined || (apart >= of.lower && apart <= of.upper)) return []
    return [
      at(
        'stop',
        'distance-differs',
        feature,
        'nominal',
        `the two lie ${formatWithUnit(apart, unit)} apart where they are placed.`,
        'A part as on the drawing would be out of tolerance.',
        'Check the places and the distance.',
      ),
    ]
  })
}

/** One variable that two features correct: they work against each other. */
function ofRivals(plan: GaugePlan, where: GaugeCase): Finding[] {
  const seen = new Map<number, Feature>()
  return plan.features.flatMap((feature) =>
    characteristicsOf(feature, where.unit).flatMap((of) => {
      const target = targetOf(feature, of, where)
      if (!target) return []
      const rival = seen.get(target.variable)
      seen.set(target.variable, feature)
      return rival
        ? [
            at(
              'look',
              'corrected-twice',
              feature,
              'react',
              `${target.name} is corrected by ${keyOf(rival.params.name)} too.`,
              'Both corrections are added, and may overshoot.',
              'Let one feature correct it, and only record the other.',
            ),
          ]
        : []
    }),
  )
}

/** What can be wrong with the tolerances of a plan, whoever measures. */
export const checkFeatures = (plan: GaugePlan, unit: GaugeCase['unit']): Finding[] =>
  plan.features.flatMap((feature) =>
    characteristicsOf(feature, unit).flatMap((of) => ofTolerance(feature, of)),
  )

/** What can be wrong with a plan before its program is written. Worst first. */
export function checkPlan(plan: GaugePlan, where: GaugeCase, facts: PlanFacts): Finding[] {
  const { profile, offset, unit } = where
  const found: Finding[] = []
  if (!profile.probing)
    found.push(
      finding(
        'stop',
        'no-probe-macros',
        'profile',
        `The profile ${profile.name} has no probe macros.`,
        'A feature is measured by calling the macros that are loaded in the control.',
        'Enter their numbers in the profile, from the manual of the probe.',
      ),
    )
  if (!profile.macros)
    found.push(
      finding(
        'stop',
        'no-macro-language',
        'profile',
        `The profile ${profile.name} has no macro language.`,
        'Results are kept and compared by macro statements.',
        'Enter its variables in the profile, from the manual of the control.',
      ),
    )
  else {
    const { needs, has } = variablesOf(plan, unit, profile.macros)
    if (needs > has)
      found.push(
        finding(
          'stop',
          'variables-too-few',
          'profile',
          `The plan needs ${needs} variables; the profile has ${has} that are free.`,
          'Each value is kept in one of its own.',
          'Gauge fewer features in one program, or widen the range in the profile.',
        ),
      )
  }
  const address = findOffset(profile, offset)
  if (isFinding(address)) found.push(address)
  if (needsProbe(plan) && (facts.near.X === undefined || facts.near.Y === undefined))
    found.push(
      finding(
        'look',
        'no-rough-zero',
        'offset',
        `X and Y of ${offset} have not been taken.`,
        'The probe goes to places of this offset.',
        'Take it in the Zero step.',
      ),
    )
  for (const feature of plan.features) {
    found.push(...ofProbe(feature, where, facts))
    for (const of of characteristicsOf(feature, unit))
      found.push(
        ...(feature.params.what === 'hand' ? [] : ofDigits(feature, of, where)),
        ...ofCorrection(feature, of, where, facts),
      )
  }
  return worstFirst([
    ...found,
    ...checkFeatures(plan, unit),
    ...ofDistances(plan, unit),
    ...ofRivals(plan, where),
  ])
}
