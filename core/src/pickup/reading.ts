import { z } from 'zod'
import { fitCircle } from '../geometry/index.ts'
import { typedLength } from '../quantity/index.ts'
import { cornerIn, plain } from './corner.ts'
import { positionReading } from './position.ts'

const alongTable = z.enum(['X', 'Y'])
const way = z.enum(['+', '-'])
const above = (says: string) => typedLength.refine(({ value }) => value > 0, { error: says })
const touchedPoint = z.object({ x: typedLength, y: typedLength })

/**
 * Edge finder or probe against one face. `direction` is the way the spindle moves over the part into the face:
 * '+' touches a face that looks towards minus. `drawingPosition` is where the face is on the drawing, from part zero.
 */
const touched = z.object({
  method: z.enum(['edge-finder', 'probe']),
  axis: alongTable,
  direction: way,
  diameter: typedLength.describe('diameter of the finder tip, or the effective diameter of the stylus'),
  machinePosition: positionReading.describe('where it kicked or triggered'),
  drawingPosition: typedLength,
})

/** 3D sensor with both hands at zero: the spindle stands over the face. */
const sensor = z.object({
  method: z.literal('sensor'),
  axis: alongTable,
  machinePosition: positionReading,
  drawingPosition: typedLength,
})

/** Test indicator at zero on both sides of one plane; a ground insert held against the face gives the second side. */
const indicator = z.object({
  method: z.literal('indicator'),
  axis: alongTable,
  minusSide: positionReading.describe('machine position with the indicator on the minus side of the plane'),
  plusSide: positionReading.describe('machine position with the indicator on the plus side'),
  drawingPosition: typedLength,
})

const middleDevice = z.enum(['edge-finder', 'sensor', 'probe', 'indicator'])

/** Two opposite faces of a web (from outside) or a pocket (from inside): the middle between them. */
const middle = z.object({
  method: z.literal('middle'),
  axis: alongTable,
  device: middleDevice,
  side: z.enum(['web', 'pocket']),
  diameter: typedLength.describe('of the tip; 0 for a 3D sensor or an indicator'),
  low: positionReading.describe('machine position at the face on the minus side'),
  high: positionReading.describe('machine position at the face on the plus side'),
  width: typedLength.optional().describe("the drawing's width between the faces"),
  drawingPosition: typedLength.describe('of the middle'),
})

/** Bore or boss swept with an indicator: the dial on the plus and on the minus side of one axis, spindle at one place. */
const swept = z.object({
  method: z.literal('swept'),
  axis: alongTable,
  side: z.enum(['bore', 'boss']),
  machinePosition: positionReading,
  plusDial: typedLength.describe('pushing the stylus in reads plus'),
  minusDial: typedLength,
  drawingPosition: typedLength.describe('of the centre'),
})

const pointDevice = z.enum(['edge-finder', 'sensor', 'probe'])

/** Circle through three or more touches; the points are spindle positions. One reading gives one axis; the page records two. */
const circle = z
  .object({
    method: z.literal('circle'),
    axis: alongTable,
    device: pointDevice,
    side: z.enum(['bore', 'boss']),
    diameter: typedLength.describe('of the tip; 0 for a 3D sensor'),
    points: z.array(touchedPoint).min(3, 'Three touches or more are needed.').max(500),
    nominal: typedLength.optional().describe("the drawing's diameter of the bore or boss"),
    drawingX: typedLength.describe('of the centre'),
    drawingY: typedLength,
  })
  .refine(({ points }) => fitCircle(plain(points)) !== undefined, {
    error:
      'No circle goes through these touches: they lie on one line, or two are the same place. Touch at three places or more, spread round the bore.',
    path: ['points'],
  })

/**
 * Corner from touches on its two faces; the points are spindle positions. Two touches on a face give its own direction;
 * one alone takes it from the other face and the drawing's angle.
 */
const corner = z
  .object({
    method: z.literal('corner'),
    axis: alongTable,
    device: pointDevice,
    diameter: typedLength.describe('of the tip; 0 for a 3D sensor'),
    directionX: way.describe('the way the spindle moved along X into the first face'),
    pointsX: z.array(touchedPoint).min(1).max(100),
    directionY: way.describe('the way the spindle moved along Y into the second face'),
    pointsY: z.array(touchedPoint).min(1).max(100),
    cornerAngle: z
      .number()
      .min(10)
      .max(170)
      .describe("between the faces, in the part's material or the pocket, degrees"),
    drawingX: typedLength.describe('of the corner'),
    drawingY: typedLength,
  })
  .refine(({ pointsX, pointsY }) => pointsX.length + pointsY.length > 2, {
    error: 'A corner needs three touches or more: two of them on one face.',
    path: ['pointsX'],
  })
  .refine((of) => of.pointsX.length + of.pointsY.length < 3 || cornerIn(of) !== undefined, {
    error:
      'These touches make no corner. Two different places on one face are needed, and faces that meet at a clear angle. Check that no touch stands under the wrong face.',
    path: ['pointsX'],
  })

/**
 * Z by a tool of known length on a gauge block or feeler, or on the face itself (height 0), or by a 3D sensor or probe
 * of known length (height 0).
 */
const toolOnBlock = z.object({
  method: z.enum(['tool-on-block', 'tool-on-feeler', 'sensor-down', 'probe-down']),
  axis: z.literal('Z'),
  tool: z.int().min(0).max(9999).describe('tool number whose length was used'),
  machinePosition: positionReading,
  toolLength: typedLength.describe("in the machine's own convention"),
  blockHeight: typedLength.describe('gauge block or feeler between tool and face'),
  drawingPosition: typedLength,
})

/**
 * What the offset page shows after the control's own probe cycle has set it. Where both sides were touched the cycle leaves the
 * size as well, and the feature is the middle.
 */
const probeSet = z.object({
  method: z.literal('probe-set'),
  axis: z.enum(['X', 'Y', 'Z']),
  shown: typedLength,
  size: above('A size must be more than zero.')
    .optional()
    .describe('across it, as the cycle left it; of what was touched on both sides'),
  width: typedLength.optional().describe('the size that was asked for'),
  drawingPosition: typedLength.optional().describe('where the program had the feature on the drawing'),
  shift: typedLength
    .optional()
    .describe('from where the cycle set it to part zero, where that was moved since'),
})

/**
 * A copy or a shift of another offset. `base` is that offset as it stood; the entry rests on its pickup, and goes stale
 * when that is taken again.
 */
const fromOffset = z.object({
  method: z.literal('from-offset'),
  axis: z.enum(['X', 'Y', 'Z']),
  source: z.string().min(2).max(12),
  base: typedLength,
  baseDoubt: typedLength,
  shift: typedLength,
  shiftWithin: typedLength
    .refine(({ value }) => value >= 0, { error: 'How well the shift is known cannot be negative.' })
    .describe('how well the shift is known'),
})

/**
 * Y or Z from the centre line of a rotary. `base` is that line as it stood; the entry rests on it, and goes stale when it is found
 * again.
 */
const onCentreLine = z.object({
  method: z.literal('centre-line'),
  axis: z.enum(['Y', 'Z']),
  base: typedLength,
  baseDoubt: typedLength,
  drawingPosition: typedLength.describe('of the centre line, from part zero'),
})

/** Lathe: a light cut, and the diameter that it left, measured. Machine X is in diameters. */
const skimmed = z.object({
  method: z.literal('skimmed'),
  axis: z.literal('X'),
  machinePosition: positionReading,
  measured: above(
    'A diameter must be more than zero. Type what the micrometer shows, as a diameter and not a radius.',
  ),
})

/** Lathe: a face that was cut or touched with the tool. */
const faced = z.object({
  method: z.literal('faced'),
  axis: z.literal('Z'),
  machinePosition: positionReading,
  drawingPosition: typedLength.describe('Z of the face, from part zero'),
  shift: typedLength
    .optional()
    .describe('the work shift that the control had then; none where it is missing'),
})

/** What was read at the machine, by method. */
export const reading = z.discriminatedUnion('method', [
  touched,
  sensor,
  indicator,
  middle,
  swept,
  circle,
  corner,
  toolOnBlock,
  probeSet,
  fromOffset,
  onCentreLine,
  skimmed,
  faced,
])
export type Reading = z.infer<typeof reading>
export type PickupMethod = Reading['method']
export type ReadingOf<Method extends PickupMethod> = Extract<Reading, { method: Method }>
export type TouchedReading = z.infer<typeof touched>
export type HeightReading = z.infer<typeof toolOnBlock>

/** Whether a reading found Z with a tool of known length. */
export const isHeight = (of: Reading): of is HeightReading => 'toolLength' in of
