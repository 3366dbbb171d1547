import { z } from 'zod'
import { positionReading } from '../pickup/index.ts'
import { convertLength, type TypedLength, typedLength } from '../quantity/index.ts'

/** Turns of a rotary that a control can show, in degrees either way. */
export const MOST_DEGREES = 99_999

const degreesShown = z.number().min(-MOST_DEGREES).max(MOST_DEGREES)

export const rotaryDevice = z.enum(['probe', 'sensor', 'edge-finder', 'indicator'])
export type RotaryDevice = z.infer<typeof rotaryDevice>

/** Which way a flat looks: up, to the front (Y minus) or to the back (Y plus). */
export const flatFaces = z.enum(['up', 'front', 'back'])
export type FlatFaces = z.infer<typeof flatFaces>

const touch = z.object({ y: positionReading, z: positionReading })

/** Touches that are nearer than this across a flat tell nothing of it, in mm. */
const NEAREST_MM = 0.1
const inMm = ({ value, unit }: TypedLength) => convertLength(value, unit, 'mm')
const apart = (a: TypedLength, b: TypedLength) => Math.abs(inMm(a) - inMm(b)) >= NEAREST_MM

/** Two touches on one flat, from the same side; `turned` is where the machine showed the rotary to stand. */
const touches = z
  .object({
    method: z.literal('touches'),
    device: rotaryDevice,
    faces: flatFaces,
    turned: degreesShown,
    first: touch,
    second: touch,
    drawing: degreesShown.describe('where the program has the rotary when this flat faces so'),
  })
  .refine(({ faces, device }) => faces !== 'up' || device !== 'edge-finder', {
    error:
      'An edge finder finds no height: touch from above with a probe or a 3D sensor, or choose a flat that faces front or back.',
    path: ['device'],
  })
  .refine(
    ({ faces, first, second }) => (faces === 'up' ? apart(first.y, second.y) : apart(first.z, second.z)),
    {
      error: 'Both touches are at one place across the flat. Touch at two places, as far apart as it allows.',
      path: ['second'],
    },
  )

const above = (says: string) => typedLength.refine(({ value }) => value > 0, { error: says })

/** An indicator swept along Y over a flat that faces up: what its dial read at the front end and at the back end. */
const level = z.object({
  method: z.literal('level'),
  turned: degreesShown,
  span: typedLength
    .refine((span) => inMm(span) >= NEAREST_MM, { error: 'Type how far Y was moved, more than zero.' })
    .describe('along Y, from the one reading to the other'),
  front: typedLength.describe('pushing the stylus in reads plus'),
  back: typedLength,
  drawing: degreesShown,
})

/** What the A of an offset is found from. */
export const flatReading = z.discriminatedUnion('method', [touches, level])
export type FlatReading = z.infer<typeof flatReading>
export type FlatMethod = FlatReading['method']

export const FLAT_METHODS: Record<FlatMethod, string> = {
  touches: 'two touches across a flat',
  level: 'indicator along a flat',
}

const height = {
  tool: z.int().min(0).max(9999).describe('tool number whose length was used'),
  toolLength: typedLength.describe("in the machine's own convention"),
  block: typedLength
    .refine(({ value }) => value >= 0, { error: 'A gauge block has no negative height; 0 for none.' })
    .describe('gauge block or feeler between tool and part'),
}

const sides = z
  .object({
    turned: degreesShown,
    front: positionReading.optional().describe('machine Y with the tip on the front'),
    back: positionReading.optional(),
    top: positionReading.optional().describe('machine Z with the tool on the top'),
  })
  .refine(({ front, back }) => (front === undefined) === (back === undefined), {
    error: 'Touch the front and the back: the middle lies between the two.',
    path: ['back'],
  })

/**
 * The centre line of a rotary that lies along X: the part touched at its front and back (Y) and on its top (Z), and the same
 * once it was turned by half. `across` is what the part measures through the middle, from the touched top to what is opposite.
 */
export const centreReading = z
  .object({
    device: rotaryDevice,
    diameter: typedLength
      .refine(({ value }) => value >= 0, { error: 'A tip has no negative diameter; 0 for a 3D sensor.' })
      .describe('of the tip; 0 for a 3D sensor or an indicator'),
    round: z.boolean().describe('the part is round there'),
    across: above('Type what the part measures through the middle, more than zero.').optional(),
    acrossWithin: above('Nothing is measured to better than nothing: type how well it is known.').optional(),
    height: z.object(height).optional(),
    first: sides,
    half: sides.optional(),
  })
  .refine(({ first, half, height: of }) => of !== undefined || (!first.top && !half?.top), {
    error: 'Say with which tool, how long, the top was touched.',
    path: ['height'],
  })
  .refine(({ first }) => first.front !== undefined || first.top !== undefined, {
    error: 'Touch the front and the back, or the top, or both.',
    path: ['first'],
  })
  .refine(({ first, across, acrossWithin }) => !first.top || (across !== undefined && acrossWithin), {
    error: 'Type what the part measures through the middle: the centre line lies half of it under the top.',
    path: ['across'],
  })
export type CentreReading = z.infer<typeof centreReading>
export type Sides = z.infer<typeof sides>
