import { z } from 'zod'
import { type Finding, finding } from '../fact/index.ts'
import { convertLength, formatWithUnit, type LengthUnit, lengthUnit } from '../quantity/index.ts'

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

const barSize = z.number('Type a diameter.').positive('A bar has a diameter above zero.')

/** The bars that a collet system or a set of jaws takes, by diameter. */
const barsTaken = z
  .object({ unit: lengthUnit, least: barSize, greatest: barSize })
  .refine(({ least, greatest }) => least <= greatest, {
    error: 'The largest bar cannot be smaller than the smallest.',
    path: ['greatest'],
  })
export type BarsTaken = z.infer<typeof barsTaken>

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
  takes: barsTaken
    .nullable()
    .optional()
    .describe('null where it is not known; nothing in rows from before it was asked for'),
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
  takes: BarsTaken | null,
  note = '',
): Collet => ({
  id,
  version: 1,
  name,
  closing: 'pull',
  ratio: { from: 'angle', degreesPerSide },
  ruleOfThumb,
  takes,
  note,
})
const byRule = (id: string, name: string, closing: Closing, ratio: number, note = ''): Collet => ({
  id,
  version: 1,
  name,
  closing,
  ratio: { from: 'rule', ratio },
  ruleOfThumb: ratio,
  takes: null,
  note,
})
const round = (least: number, greatest: number): BarsTaken => ({ unit: 'inch', least, greatest })

/**
 * What is usual in a shop (common practice), with the round bars that the system is made for (common practice, from memory: 5C to
 * 1-1/16 in, 16C to 1-5/8, 3J to 1-3/4). Check the angle and the sizes of your own, or measure the ratio.
 */
export const USUAL_COLLETS: readonly Collet[] = [
  bySide('5c', '5C', 10, 3, round(1 / 64, 1 + 1 / 16)),
  bySide('16c', '16C', 10, 3, round(1 / 16, 1 + 5 / 8)),
  bySide('3j', '3J', 7, 4, round(1 / 16, 1 + 3 / 4)),
  byRule('s-type', 'S-type with pads', 'pull', 2.5),
  byRule('quick-change', 'Quick-change', 'pull', 2.5),
  {
    ...bySide(
      'dead-length',
      'Dead-length, 10 degree',
      10,
      0,
      null,
      'The collet stays; a sleeve closes over it.',
    ),
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

/** The bars that a collet takes: as entered, else as is usual for its kind; null where nobody knows. */
export const barsTakenBy = ({ id, takes }: Pick<Collet, 'id' | 'takes'>): BarsTaken | null =>
  takes === undefined ? (USUAL_COLLETS.find((usual) => usual.id === id)?.takes ?? null) : takes

/** What a collet opens and closes beyond the size that it is made for. By judgement. */
const OPENS_MORE: Record<LengthUnit, number> = { inch: 0.005, mm: 0.12 }

/** Whether a collet takes bars from the least to the greatest diameter, both in `unit`. */
export function bySize(
  collet: Pick<Collet, 'id' | 'name' | 'takes'>,
  { least, greatest }: { least: number; greatest: number },
  unit: LengthUnit,
): Finding[] {
  const takes = barsTakenBy(collet)
  const length = (value: number) => formatWithUnit(value, unit)
  if (!takes)
    return [
      finding(
        'note',
        'bars-unknown',
        'collet',
        `Which bars ${collet.name} takes was not looked at.`,
        'Nobody entered it on the page of the collets.',
      ),
    ]
  const [smallest, largest] = [takes.least, takes.greatest].map((of) =>
    convertLength(of, takes.unit, unit),
  ) as [number, number]
  const says = `${collet.name} takes bars from ${length(smallest)} to ${length(largest)}.`
  const fix = 'Choose another, or correct the size of the bars.'
  if (greatest > largest + OPENS_MORE[unit])
    return [
      finding(
        'stop',
        'bar-too-large',
        'collet',
        `A bar of ${length(greatest)} does not go into ${collet.name}.`,
        says,
        fix,
      ),
    ]
  return least < smallest - OPENS_MORE[unit]
    ? [
        finding(
          'stop',
          'bar-too-small',
          'collet',
          `A bar of ${length(least)} is not held by ${collet.name}.`,
          says,
          fix,
        ),
      ]
    : []
}
