import { z } from 'zod'
import { convertLength, type LengthUnit, typedLength } from '../quantity/index.ts'

/** Repeatability of a test indicator on one face, dial read twice. Common practice, as for the indicator in section Zero. */
export const DIAL_REPEATS = { inch: 0.0001, mm: 0.003 }

export const bolts = z.enum(['one', 'snug', 'tight'])
/** How the vise was held while it was swept: by one bolt, with the second just snug, or tightened. */
export type Bolts = z.infer<typeof bolts>

const above = (says: string) => typedLength.refine(({ value }) => value > 0, { error: says })

/** What a plus on the dial means: that the jaw comes towards the dial, or goes away from it. */
export const plusMeans = z.enum(['towards', 'away'])
export type PlusMeans = z.infer<typeof plusMeans>

/**
 * One sweep of the fixed jaw along X with a test indicator. Places are along the jaw from its left end, plus to the
 * right; readings are as the dial shows them.
 */
export const sweep = z.object({
  bolts,
  pivot: typedLength.describe('where the bolt that stays is, along X from the left end of the jaw'),
  points: z
    .array(z.object({ at: typedLength, reading: typedLength }))
    .min(2, 'Read the dial at two places at least.')
    .max(20, 'At most twenty readings.'),
  plusMeans,
  stylusAngle: z
    .number()
    .min(0, 'The angle of the stylus is between 0 and 80 degrees.')
    .max(80, 'The angle of the stylus is between 0 and 80 degrees.')
    .describe('degrees between the stylus and the jaw'),
  dialStep: above('The step of the dial must be more than zero.'),
  partLength: above('The length of the part must be more than zero.').describe('along the jaw'),
  allowed: above('What is allowed must be more than zero.').describe('out of square over the part'),
})
export type Sweep = z.infer<typeof sweep>

/** A point of the jaw: `at` along X from its left end, `reading` as the dial shows it, both in the setup's unit. */
export interface SweptPoint {
  at: number
  reading: number
}

/** A sweep with plain numbers in one unit. */
export interface PlainSweep {
  unit: LengthUnit
  bolts: Bolts
  pivot: number
  points: SweptPoint[]
  /** +1 where a plus on the dial means that the jaw comes towards it. */
  towardsDial: 1 | -1
  /** cos of the stylus angle: true movement per reading. */
  cosine: number
  dialStep: number
  partLength: number
  allowed: number
}

/** A sweep with every length in one unit. */
export function plainSweep(from: Sweep, unit: LengthUnit): PlainSweep {
  const length = (of: { value: number; unit: LengthUnit }) => convertLength(of.value, of.unit, unit)
  return {
    unit,
    bolts: from.bolts,
    pivot: length(from.pivot),
    points: from.points.map(({ at, reading }) => ({ at: length(at), reading: length(reading) })),
    towardsDial: from.plusMeans === 'towards' ? 1 : -1,
    cosine: Math.cos((from.stylusAngle * Math.PI) / 180),
    dialStep: length(from.dialStep),
    partLength: length(from.partLength),
    allowed: length(from.allowed),
  }
}
