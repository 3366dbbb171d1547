import { z } from 'zod'
import { convertLength, type LengthUnit, lengthUnit } from '../quantity/index.ts'

export const viseState = z.enum(['open', 'closed'])
export type ViseState = z.infer<typeof viseState>

/** How far a part of a vise reaches, from the gripping face of the fixed jaw, plus to the back. */
const extent = z.object({ front: z.number(), back: z.number() }).refine(({ front, back }) => front < back, {
  error: 'The front end must lie in front of the back end: a smaller number.',
  path: ['back'],
})
type Extent = z.infer<typeof extent>

/** One part of a vise, seen from the side: where it reaches with the vise open and closed, and between which heights. */
const visePart = z
  .object({
    name: z.string().trim().min(1, 'Give the part a name.').max(30, 'Keep the name under 30 characters.'),
    open: extent,
    closed: extent,
    bottom: z.number().min(0, 'Heights are counted up from the table.'),
    top: z.number(),
  })
  .refine(({ bottom, top }) => bottom < top, {
    error: 'The upper edge must lie above the lower one.',
    path: ['top'],
  })
export type VisePart = z.infer<typeof visePart>

/** A vise of the shop's library. A row with a version; lengths in its own unit. */
export const vise = z.object({
  id: z.string().min(1).max(40),
  version: z.int().min(1),
  name: z.string().trim().min(1, 'Give the vise a name.').max(40, 'Keep the name under 40 characters.'),
  unit: lengthUnit,
  jawLength: z.number().positive('The jaw must be longer than zero.').describe('along X'),
  parts: z.array(visePart).min(1, 'Enter at least the body.').max(8, 'At most eight parts.'),
  note: z.string().max(500),
})
export type Vise = z.infer<typeof vise>

/** The vise with its lengths brought into one unit. */
export function viseIn(of: Vise, unit: LengthUnit): Vise {
  const length = (value: number) => convertLength(value, of.unit, unit)
  const along = ({ front, back }: Extent) => ({ front: length(front), back: length(back) })
  return {
    ...of,
    unit,
    jawLength: length(of.jawLength),
    parts: of.parts.map(({ name, open, closed, bottom, top }) => ({
      name,
      open: along(open),
      closed: along(closed),
      bottom: length(bottom),
      top: length(top),
    })),
  }
}

/** How far a vise reaches over all its parts in one state, and its height above the table, in its unit. */
export function viseReach({ parts }: Pick<Vise, 'parts'>, state: ViseState) {
  const front = Math.min(...parts.map((part) => part[state].front))
  const back = Math.max(...parts.map((part) => part[state].back))
  return { front, back, length: back - front, top: Math.max(...parts.map(({ top }) => top)) }
}

/** The jaws: the parts of a vise that stand highest. */
export function jawsOf({ parts }: Pick<Vise, 'parts'>): VisePart[] {
  const highest = Math.max(...parts.map(({ top }) => top))
  return parts.filter(({ top }) => Math.abs(top - highest) < 1e-6)
}

/** Whether a part of a vise goes to and fro as it closes. */
export const movesIn = ({ open, closed }: VisePart) => open.back !== closed.back

/** How far a vise opens at the most, in its unit: from the fixed jaw to the moving one; undefined where no jaw moves. */
export function viseOpening(vise: Pick<Vise, 'parts'>): number | undefined {
  // A jaw that moves stands with its back, which grips, at the front face of the part.
  const opens = jawsOf(vise)
    .filter(movesIn)
    .map(({ open, closed }) => -Math.min(open.back, closed.back))
  return opens.length > 0 ? Math.min(...opens) : undefined
}

/**
 * Vises to start from (made up, of the usual proportions): the screw end goes out at the back by an inch and a half
 * as it closes, the handle stands out at the front. Measure your own.
 */
export const SAMPLE_VISES: readonly Vise[] = [
  {
    id: 'vise-6',
    version: 1,
    name: '6 in vise',
    unit: 'inch',
    jawLength: 6,
    parts: [
      {
        name: 'body',
        open: { front: -10.5, back: 3 },
        closed: { front: -10.5, back: 3 },
        bottom: 0,
        top: 2.9,
      },
      {
        name: 'fixed jaw',
        open: { front: 0, back: 2 },
        closed: { front: 0, back: 2 },
        bottom: 2.9,
        top: 4.6,
      },
      {
        name: 'moving jaw',
        open: { front: -9.5, back: -6 },
        closed: { front: -3.6, back: -0.1 },
        bottom: 2.9,
        top: 4.6,
      },
      {
        name: 'screw end',
        open: { front: 3, back: 3.4 },
        closed: { front: 3, back: 4.9 },
        bottom: 0.8,
        top: 1.8,
      },
      {
        name: 'handle',
        open: { front: -15, back: -10.5 },
        closed: { front: -13.5, back: -10.5 },
        bottom: 0.6,
        top: 2,
      },
    ],
    note: 'Sample. Measure your own, open and closed, and enter it here.',
  },
  {
    id: 'vise-4',
    version: 1,
    name: '4 in vise',
    unit: 'inch',
    jawLength: 4,
    parts: [
      {
        name: 'body',
        open: { front: -7.2, back: 2.2 },
        closed: { front: -7.2, back: 2.2 },
        bottom: 0,
        top: 2.3,
      },
      {
        name: 'fixed jaw',
        open: { front: 0, back: 1.5 },
        closed: { front: 0, back: 1.5 },
        bottom: 2.3,
        top: 3.6,
      },
      {
        name: 'moving jaw',
        open: { front: -6.4, back: -4 },
        closed: { front: -2.5, back: -0.1 },
        bottom: 2.3,
        top: 3.6,
      },
      {
        name: 'handle',
        open: { front: -10.7, back: -7.2 },
        closed: { front: -9.7, back: -7.2 },
        bottom: 0.5,
        top: 1.6,
      },
    ],
    note: 'Sample. Measure your own, open and closed, and enter it here.',
  },
  {
    id: 'vise-160',
    version: 1,
    name: '160 mm vise',
    unit: 'mm',
    jawLength: 160,
    parts: [
      {
        name: 'body',
        open: { front: -262, back: 70 },
        closed: { front: -262, back: 70 },
        bottom: 0,
        top: 72,
      },
      {
        name: 'fixed jaw',
        open: { front: 0, back: 46 },
        closed: { front: 0, back: 46 },
        bottom: 72,
        top: 115,
      },
      {
        name: 'moving jaw',
        open: { front: -240, back: -155 },
        closed: { front: -88, back: -3 },
        bottom: 72,
        top: 115,
      },
      {
        name: 'screw end',
        open: { front: 70, back: 82 },
        closed: { front: 70, back: 118 },
        bottom: 20,
        top: 46,
      },
      {
        name: 'handle',
        open: { front: -368, back: -262 },
        closed: { front: -332, back: -262 },
        bottom: 14,
        top: 50,
      },
    ],
    note: 'Sample. Measure your own, open and closed, and enter it here.',
  },
]

/** Lengths that are the same to so much were not measured anew, in mm. */
const SAME_MM = 1e-6

/** Whether a vise has the made-up lengths of a sample still: nobody measured it, whatever it is called. */
export function isSampleVise(of: Vise): boolean {
  const lengths = (vise: Vise) => {
    const { jawLength, parts } = viseIn(vise, 'mm')
    return [
      jawLength,
      ...parts.flatMap(({ open, closed, bottom, top }) =>
        [open, closed].flatMap(({ front, back }) => [front, back]).concat(bottom, top),
      ),
    ]
  }
  const own = lengths(of)
  return SAMPLE_VISES.map(lengths).some(
    (sample) =>
      sample.length === own.length &&
      sample.every((each, n) => Math.abs(each - (own[n] ?? Number.NaN)) <= SAME_MM),
  )
}
