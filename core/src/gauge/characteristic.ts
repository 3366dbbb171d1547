import { convertLength, type LengthUnit, type TypedLength, usualDigits } from '../quantity/index.ts'
import { deviationsOf, type FeatureParams, isCorner, isSized } from './feature.ts'

/** What of a feature is measured. */
export type Quantity = 'size' | 'X' | 'Y' | 'Z' | 'angle' | 'distance'

/** One measured value of a part, and what it may be: lengths in the setup's unit, angles in degrees. */
export interface Characteristic {
  /** The name under which its values are kept, printed and charted. */
  key: string
  feature: string
  quantity: Quantity
  unit: LengthUnit | 'deg'
  nominal: number
  lower: number
  upper: number
  /** Middle of the tolerance: what is corrected towards. */
  middle: number
  /** The tool that cuts it. */
  tool: number | null
}

/** A feature with its id in a plan. */
export interface Feature {
  id: string
  params: FeatureParams
}

/** The features whose places a distance is taken between: from one to the other. A form may hold ends from when it was one. */
export const endsOf = ({ params }: Feature): string[] =>
  params.what === 'distance' ? [params.from, params.to] : []

/** Names are kept in capitals, as a control prints them. */
export const keyOf = (name: string) =>
  name
    .trim()
    .toUpperCase()
    .replace(/[^A-Z0-9 .-]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

export const lengthIn = ({ value, unit }: TypedLength, to: LengthUnit) => convertLength(value, unit, to)

function quantitiesOf({ what, axis }: FeatureParams): readonly Quantity[] {
  if (isSized(what) || what === 'hand') return ['size']
  if (isCorner(what)) return ['X', 'Y']
  if (what === 'surface') return [axis]
  return [what === 'edge' ? 'angle' : 'distance']
}

/** The values that a feature gives, with their limits. A tolerance that is not understood gives none. */
export function characteristicsOf({ id, params }: Feature, unit: LengthUnit): Characteristic[] {
  const off = deviationsOf(params, unit)
  if (!off.ok) return []
  const key = keyOf(params.name)
  const corner = isCorner(params.what)
  return quantitiesOf(params).map((quantity) => {
    const nominal =
      quantity === 'angle'
        ? params.angle
        : quantity === 'X' || quantity === 'Y' || quantity === 'Z'
          ? lengthIn(quantity === 'X' ? params.x : quantity === 'Y' ? params.y : params.top, unit)
          : lengthIn(params.nominal, unit)
    const [lower, upper] = [nominal + off.lower, nominal + off.upper]
    return {
      key: corner ? `${key} ${quantity}` : key,
      feature: id,
      quantity,
      unit: quantity === 'angle' ? 'deg' : unit,
      nominal,
      lower,
      upper,
      middle: (lower + upper) / 2,
      tool: params.tool,
    }
  })
}

export const halfTolerance = ({ lower, upper }: Pick<Characteristic, 'lower' | 'upper'>) =>
  (upper - lower) / 2

/** A dead band of a tenth of the tolerance, where none was typed: by judgement. */
const USUAL_DEAD_BAND = 0.1

/** What is corrected, in the setup's unit: dead band and limit of the error from the middle of the tolerance. */
export function correctionOf({ params }: Feature, of: Characteristic, unit: LengthUnit) {
  const { share, deadBand, limit } = params
  return {
    share,
    deadBand: deadBand ? lengthIn(deadBand, unit) : USUAL_DEAD_BAND * (of.upper - of.lower),
    limit: limit ? lengthIn(limit, unit) : halfTolerance(of),
    /** No limit was typed: it stops just at the tolerance. */
    stopsAtTolerance: limit === null,
  }
}

/**
 * A limit may be passed by this share of the last digit that is printed: 20 H7 is 0.7874016 in at least, and a bore that reads
 * 0.7874 is in. Far below what any probe repeats to; by judgement.
 */
export const LIMIT_SLACK = 0.05

/** Digits after the point that values are read and shown with; of degrees four. */
export const digitsOf = (unit: Characteristic['unit']) => (unit === 'deg' ? 4 : usualDigits(unit))

/** Whether a value lies beyond the limits. */
export const isOut = (value: number, { lower, upper, unit }: Characteristic): boolean => {
  const slack = LIMIT_SLACK * 10 ** -digitsOf(unit)
  return value > upper + slack || value < lower - slack
}
