import { z } from 'zod'
import { fitEdge, fitRigid } from '../geometry/index.ts'
import { type TypedLength, typedLength } from '../quantity/index.ts'

export const angleDevice = z.enum(['edge-finder', 'sensor', 'indicator', 'probe'])
export type AngleDevice = z.infer<typeof angleDevice>

const point = z.object({ x: typedLength, y: typedLength })
const plain = ({ x, y }: { x: TypedLength; y: TypedLength }) => ({ x: x.value, y: y.value })
const direction = z
  .number()
  .min(-360)
  .max(360)
  .describe('by the drawing, degrees from +X, counter-clockwise seen from +Z')

/** Two touches or more on one straight edge, all with the same tip from the same side; the points are spindle positions. */
const edge = z
  .object({
    method: z.literal('edge'),
    device: angleDevice,
    points: z.array(point).min(2, 'Two touches or more are needed for an angle.').max(500),
    nominal: direction,
  })
  .refine(({ points }) => points.length < 2 || fitEdge(points.map(plain)) !== undefined, {
    error:
      'All these touches are at one place. Touch at two places or more, as far apart as the edge allows.',
    path: ['points'],
  })

/** The centres of two holes; the direction is that from the first to the second. */
const holes = z
  .object({
    method: z.literal('holes'),
    device: angleDevice,
    first: point,
    second: point,
    nominal: direction,
  })
  .refine(({ first, second }) => first.x.value !== second.x.value || first.y.value !== second.y.value, {
    error: 'Both holes are at one place. Type the centres of two different holes.',
    path: ['second'],
  })

const feature = z.object({
  name: z.string().max(20).describe('its own, or its number in the list'),
  nominal: point.describe('by the drawing'),
  measured: point.describe('machine position'),
})

/** Many features, each with its place by the drawing and its machine position: a rigid fit. */
const features = z
  .object({
    method: z.literal('features'),
    device: angleDevice,
    features: z.array(feature).min(2, 'Two features or more are needed for an angle.').max(500),
  })
  .refine(
    ({ features }) =>
      features.length < 2 ||
      fitRigid(
        features.map(({ nominal, measured }) => ({ nominal: plain(nominal), measured: plain(measured) })),
      ) !== undefined,
    {
      error:
        'These features are all at one place, on the drawing or on the machine. Two different places or more are needed.',
      path: ['features'],
    },
  )

/** The angle that the control's own probe cycle left in its variable, over the base that it was measured on. */
const shown = z.object({
  method: z.literal('shown'),
  device: z.literal('probe'),
  angle: z.number().min(-180).max(180).describe('degrees, counter-clockwise'),
  base: typedLength.refine(({ value }) => value > 0, {
    error: 'The base must be more than zero: how far apart the two touches were.',
  }),
})

/** What an angle is found from, by method. */
export const angleReading = z.discriminatedUnion('method', [edge, holes, features, shown])
export type AngleReading = z.infer<typeof angleReading>
export type AngleMethod = AngleReading['method']

/** What is asked of the angle, as typed: how far the part reaches from part zero, and what may be lost there. */
export const angleAsked = z.object({
  reach: typedLength.refine(({ value }) => value > 0, {
    error: 'Type how far the farthest cut is from part zero, more than zero.',
  }),
  allowed: typedLength.refine(({ value }) => value > 0, {
    error: 'Type a length above zero: how far off the farthest cut may be.',
  }),
  needsSquare: z.boolean().describe('a rotary axis, a stop or the next part needs the part itself square'),
})
export type AngleAsked = z.infer<typeof angleAsked>

export const ANGLE_METHODS: Record<AngleMethod, string> = {
  edge: 'one edge',
  holes: 'two holes',
  features: 'many features',
  shown: "probe's result",
}
