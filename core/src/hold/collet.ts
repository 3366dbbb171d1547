import { z } from 'zod'

export const closing = z.enum(['pull', 'dead-length', 'jaws'])
/** How it grips: drawn into its cone, held while a sleeve closes over it, or by jaws that a draw tube moves. */
export type Closing = z.infer<typeof closing>

/** Where the ratio of movement along the bar to a change in diameter comes from. */
const ratioFrom = z.discriminatedUnion('from', [
  z.object({
    from: z.literal('angle'),
    degreesPerSide: z
      .number()
      .gt(0, 'A cone of 0 degrees never closes: type the angle per side, such as 10.')
      .lt(90, 'A cone of 90 degrees is a flat face: type the angle per side, such as 10.'),
  }),
  z.object({
    from: z.literal('rule'),
    ratio: z.number().min(0, 'A ratio cannot be negative.').max(20, 'No collet moves that far: 3 is usual.'),
  }),
  z.object({
    from: z.literal('measured'),
    ratio: z.number().min(0, 'A ratio cannot be negative.').max(20, 'No collet moves that far: 3 is usual.'),
    doubt: z.number().min(0, 'A doubt cannot be negative.').max(20),
  }),
])
export type RatioFrom = z.infer<typeof ratioFrom>

/** A collet system or a set of jaws of the shop's library. A row with a version. */
export const collet = z.object({
  id: z.string().min(1).max(40),
  version: z.int().min(1),
  name: z.string().trim().min(1, 'Give it a name.').max(40, 'Keep the name under 40 characters.'),
  closing,
  ratio: ratioFrom,
  ruleOfThumb: z
    .number()
    .min(0, 'A ratio cannot be negative.')
    .max(20, 'No collet moves that far: 3 is usual.')
    .nullable()
    .describe('what is said at the machine, shown beside the exact ratio'),
  note: z.string().max(500),
})
export type Collet = z.infer<typeof collet>

/** How far a ratio from a rule of thumb may be off. By judgement: the rules are said to the half. */
const RULE_DOUBT = 0.5
/** How far a cone may be off its named angle, as made and worn, in degrees. By judgement. */
const ANGLE_DOUBT = 0.25

/**
 * Movement along the bar for each unit of diameter, dZ / dD = 1 / (2 tan a) for a cone of angle a per side (derived:
 * the radius changes by dD / 2, and a cone lets it do so over dD / 2 / tan a).
 * This is what the closing part moves by, be it the collet or the sleeve.
 */
export function closingRatio({ ratio }: Pick<Collet, 'ratio'>): { value: number; doubt: number } {
  if (ratio.from === 'angle') {
    const angle = (ratio.degreesPerSide * Math.PI) / 180
    // d(1 / (2 tan a)) / da = -1 / (2 sin^2 a).
    const slope = 1 / (2 * Math.sin(angle) ** 2)
    return { value: 1 / (2 * Math.tan(angle)), doubt: slope * ((ANGLE_DOUBT * Math.PI) / 180) }
  }
  return { value: ratio.ratio, doubt: ratio.from === 'rule' ? RULE_DOUBT : ratio.doubt }
}

const bySide = (
  id: string,
  name: string,
  degreesPerSide: number,
  ruleOfThumb: number,
  note = '',
): Collet => ({
  id,
  version: 1,
  name,
  closing: 'pull',
  ratio: { from: 'angle', degreesPerSide },
  ruleOfThumb,
  note,
})
const byRule = (id: string, name: string, closing: Closing, ratio: number, note = ''): Collet => ({
  id,
  version: 1,
  name,
  closing,
  ratio: { from: 'rule', ratio },
  ruleOfThumb: ratio,
  note,
})

/** What is usual in a shop (common practice). Check the angle of your own, or measure the ratio. */
export const USUAL_COLLETS: readonly Collet[] = [
  bySide('5c', '5C', 10, 3),
  bySide('16c', '16C', 10, 3),
  bySide('3j', '3J', 7, 4),
  byRule('s-type', 'S-type with pads', 'pull', 2.5),
  byRule('quick-change', 'Quick-change', 'pull', 2.5),
  {
    ...bySide('dead-length', 'Dead-length, 10 degree', 10, 0, 'The collet stays; a sleeve closes over it.'),
    closing: 'dead-length',
  },
  byRule(
    'three-jaw',
    'Three-jaw chuck',
    'jaws',
    2.5,
    'Moves so much when the part is located from the draw tube.',
  ),
  byRule('unknown', 'Unknown pull-to-close', 'pull', 3, 'Until its angle is known or its ratio measured.'),
]
