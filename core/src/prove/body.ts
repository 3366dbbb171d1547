import { z } from 'zod'
import { convertLength, type LengthUnit, lengthUnit } from '../quantity/index.ts'

const place = z.number().min(-10_000).max(10_000)
const size = z.number().positive('A size must be more than zero.').max(10_000)
const triple = <T extends z.ZodType>(of: T) => z.object({ x: of, y: of, z: of })

export const bodyRole = z.enum(['part', 'vise', 'clamp', 'stop', 'chuck'])
export type BodyRole = z.infer<typeof bodyRole>

const common = {
  id: z.string().min(1).max(40),
  name: z.string().trim().min(1, 'Give it a name.').max(30, 'Keep the name under 30 characters.'),
  role: bodyRole,
}

const eachBody = z.discriminatedUnion('shape', [
  z.object({
    ...common,
    shape: z.literal('box'),
    at: triple(place).describe('its lowest corner'),
    size: triple(size),
  }),
  z.object({
    ...common,
    shape: z.literal('cylinder'),
    axis: z.enum(['X', 'Y', 'Z']),
    at: triple(place).describe('the middle of its end at the lower coordinate'),
    diameter: size,
    bore: size.optional().describe('through it from end to end, on a lathe along Z: a tube'),
    length: size,
  }),
])
/** What stands in the work area, from part zero. On a lathe X is a radius. */
export const body = eachBody.refine(
  (of) => of.shape === 'box' || of.bore === undefined || of.bore < of.diameter,
  { error: 'A bore must be smaller than what it goes through.', path: ['bore'] },
)
export type Body = z.infer<typeof body>

/** All that stands in the work area of a setup. Lengths in `unit`. */
export const layout = z.object({ unit: lengthUnit, bodies: z.array(body).max(60, 'At most 60 bodies.') })
export type Layout = z.infer<typeof layout>

export function layoutIn({ unit: own, bodies }: Layout, unit: LengthUnit): Layout {
  if (own === unit) return { unit, bodies }
  const length = (value: number) => convertLength(value, own, unit)
  const each = ({ x, y, z }: { x: number; y: number; z: number }) => ({
    x: length(x),
    y: length(y),
    z: length(z),
  })
  return {
    unit,
    bodies: bodies.map((of) =>
      of.shape === 'box'
        ? { ...of, at: each(of.at), size: each(of.size) }
        : {
            ...of,
            at: each(of.at),
            diameter: length(of.diameter),
            length: length(of.length),
            ...(of.bore === undefined ? {} : { bore: length(of.bore) }),
          },
    ),
  }
}

export type Triple = readonly [number, number, number]

export interface Box {
  least: Triple
  greatest: Triple
}

/** The box round a body. */
export function boundsOf(of: Body): Box {
  const { x, y, z } = of.at
  if (of.shape === 'box') return { least: [x, y, z], greatest: [x + of.size.x, y + of.size.y, z + of.size.z] }
  const r = of.diameter / 2
  const { length } = of
  if (of.axis === 'X') return { least: [x, y - r, z - r], greatest: [x + length, y + r, z + r] }
  if (of.axis === 'Y') return { least: [x - r, y, z - r], greatest: [x + r, y + length, z + r] }
  return { least: [x - r, y - r, z], greatest: [x + r, y + r, z + length] }
}

/** A lying cylinder is taken as this many boxes, one on the other, none smaller than it. */
const SLICES = 16

/** Boxes and standing cylinders that a body is made of; of a tube its section through the centre line. */
export type Solid =
  | { kind: 'box'; box: Box }
  | { kind: 'round'; box: Box; x: number; y: number; radius: number }

/** What the half of a lathe is that a tool stands in: the walls of a tube on both sides of its bore. */
function tubeWalls({ least, greatest }: Box, { at, bore }: { at: { x: number }; bore: number }): Solid[] {
  const r = bore / 2
  return [
    { kind: 'box', box: { least, greatest: [at.x - r, greatest[1], greatest[2]] } },
    { kind: 'box', box: { least: [at.x + r, least[1], least[2]], greatest } },
  ]
}

/** What a body is made of. On a mill nothing goes into a bore: a tube is taken as a full cylinder there. */
export function solidsOf(of: Body, lathe: boolean): Solid[] {
  const box = boundsOf(of)
  if (of.shape === 'box') return [{ kind: 'box', box }]
  if (lathe && of.axis === 'Z' && of.bore !== undefined) return tubeWalls(box, { at: of.at, bore: of.bore })
  if (of.axis === 'Z') return [{ kind: 'round', box, x: of.at.x, y: of.at.y, radius: of.diameter / 2 }]
  const across = of.axis === 'X' ? 1 : 0
  const r = of.diameter / 2
  return Array.from({ length: SLICES }, (_, n) => {
    const [low, high] = [-r + (2 * r * n) / SLICES, -r + (2 * r * (n + 1)) / SLICES]
    // As wide as it is at the height in this slice that is nearest to its middle.
    const nearest = low > 0 ? low : high < 0 ? -high : 0
    const half = Math.sqrt(Math.max(0, r * r - nearest * nearest))
    const middle = across === 1 ? of.at.y : of.at.x
    const least: [number, number, number] = [...box.least]
    const greatest: [number, number, number] = [...box.greatest]
    least[across] = middle - half
    greatest[across] = middle + half
    least[2] = of.at.z + low
    greatest[2] = of.at.z + high
    return { kind: 'box', box: { least, greatest } }
  })
}

/** Of a radius in a plane so far beside the centre line, what is left of it there. */
export const radiusBeside = (radius: number, beside: number) =>
  Math.sqrt(Math.max(0, radius * radius - beside * beside))

/** What a body of a lathe is made of in a plane beside that through the centre line: round ones are narrower there. */
export function solidsBeside(of: Body, beside: number): Solid[] {
  if (of.shape === 'cylinder' && of.axis === 'Z') {
    const diameter = 2 * radiusBeside(of.diameter / 2, beside)
    if (diameter === 0) return []
    const bore = 2 * radiusBeside((of.bore ?? 0) / 2, beside)
    const narrow = { ...of, diameter, bore: bore > 0 ? bore : undefined }
    return solidsOf(narrow, true)
  }
  const { least, greatest } = boundsOf(of)
  return beside < Math.max(-least[1], greatest[1]) ? solidsOf(of, true) : []
}
