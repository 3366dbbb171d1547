import { type Profile, printedDigits } from '../control/index.ts'
import type { Machine, ProbeShape } from '../machine/index.ts'
import type { Body } from '../prove/index.ts'
import { type LengthUnit, roundTo } from '../quantity/index.ts'
import { type Characteristic, type Feature, LIMIT_SLACK } from './characteristic.ts'
import { isProbed } from './feature.ts'
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
/** Whether a probe is needed for a plan at all. */
export const needsProbe = ({ features }: Pick<GaugePlan, 'features'>) =>
  features.some(({ params }) => isProbed(params.what))

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

/** The middle of a tolerance as it is printed: what a program corrects towards. */
export const printedMiddle = ({ middle }: Characteristic, profile: Profile, unit: LengthUnit) =>
  roundTo(middle, printedDigits(profile, unit))
