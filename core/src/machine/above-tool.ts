import { z } from 'zod'
import { convertLength, type LengthUnit } from '../quantity/index.ts'

const length = (says: string) => z.number().positive(`${says} must be more than zero.`)

/** What is above the holder on a mill, round the spindle's axis. In the machine's unit. */
export const spindleHead = z.object({
  nose: z
    .object({
      diameter: length('The diameter of the nose'),
      length: length('The length of the nose').describe('from the gauge line up to the head'),
    })
    .describe('the end of the spindle, a cylinder'),
  left: length('The head to the left').describe('from the axis of the spindle to its side'),
  right: length('The head to the right'),
  front: length('The head to the front'),
  back: length('The head to the back'),
})
export type SpindleHead = z.infer<typeof spindleHead>

/** A turret of a lathe, its axis along Z. In the machine's unit. */
export const turret = z.object({
  stations: z.int('Write a whole number.').min(2, 'Two or more.').max(30, 'At most 30.'),
  across: length('The turret across').describe('diameter, from where one holder sits to the other'),
  thick: length('The thickness of the turret').describe('along Z'),
})
export type Turret = z.infer<typeof turret>

/** A head as it is on many mills, taken where the page does not say; by judgement, in mm. */
const USUAL_HEAD: SpindleHead = {
  nose: { diameter: 100, length: 40 },
  left: 150,
  right: 150,
  front: 150,
  back: 400,
}

/** A turret as it is on many lathes, to begin with on the machine's page; by judgement, in mm. */
const USUAL_TURRET: Turret = { stations: 12, across: 300, thick: 90 }

/** The same head in another unit. */
export function headIn(of: SpindleHead, from: LengthUnit, to: LengthUnit): SpindleHead {
  const own = (value: number) => convertLength(value, from, to)
  return {
    nose: { diameter: own(of.nose.diameter), length: own(of.nose.length) },
    left: own(of.left),
    right: own(of.right),
    front: own(of.front),
    back: own(of.back),
  }
}

/** The same turret in another unit. */
export const turretIn = (of: Turret, from: LengthUnit, to: LengthUnit): Turret => ({
  stations: of.stations,
  across: convertLength(of.across, from, to),
  thick: convertLength(of.thick, from, to),
})

/** What is usual, in a unit. */
export const usualHead = (unit: LengthUnit) => headIn(USUAL_HEAD, 'mm', unit)
export const usualTurret = (unit: LengthUnit) => turretIn(USUAL_TURRET, 'mm', unit)
