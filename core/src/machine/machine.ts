import { z } from 'zod'
import { convertLength, type LengthUnit, lengthUnit } from '../quantity/index.ts'

export const linearAxis = z.enum(['X', 'Y', 'Z'])
export type LinearAxis = z.infer<typeof linearAxis>
export const LINEAR_AXES = linearAxis.options

/** Travel of one axis in machine positions, in the machine's unit. Home is the origin that they refer to. */
const travel = z
  .object({
    least: z.number().describe('lowest machine position, in the machine unit'),
    greatest: z.number().describe('highest machine position, in the machine unit'),
  })
  .refine(({ least, greatest }) => least < greatest, {
    error: 'The lowest position must be below the highest.',
    path: ['greatest'],
  })
export type Travel = z.infer<typeof travel>

/**
 * A machine as the shop describes it. A row with a version: an edit makes the next version,
 * and an entry of the log records the version that it used.
 */
export const machine = z.object({
  id: z.string().min(1).max(40),
  version: z.int().min(1),
  name: z.string().trim().min(1, 'Give the machine a name.').max(40, 'Keep the name under 40 characters.'),
  unit: lengthUnit.describe('the unit that the control shows positions in'),
  axes: z.object({ X: travel, Y: travel, Z: travel }),
  tableMoves: z
    .object({ X: z.boolean(), Y: z.boolean() })
    .describe('true where the table moves and the spindle stands still'),
  leastStep: z
    .number()
    .positive('The least step must be more than zero.')
    .describe('last digit of the position display, in the machine unit'),
  toolLengths: z
    .enum(['gauge-line', 'master-tool'])
    .describe('what tool lengths are measured from: always positive, or against a master tool'),
  profileId: z.string().min(1).describe('the control profile that this machine speaks'),
  note: z.string().max(500),
})
export type Machine = z.infer<typeof machine>

/** A machine's travel along an axis, in the unit asked for. */
export function travelIn(of: Machine, axis: LinearAxis, unit: LengthUnit): Travel {
  const { least, greatest } = of.axes[axis]
  return {
    least: convertLength(least, of.unit, unit),
    greatest: convertLength(greatest, of.unit, unit),
  }
}

/** The least step of the position display, in the unit asked for. */
export const leastStepIn = (of: Machine, unit: LengthUnit) => convertLength(of.leastStep, of.unit, unit)

/** Whether a machine position can be reached: the ends belong to the travel, and so does one least step beyond them (rounding). */
export function withinTravel(of: Machine, axis: LinearAxis, position: number, unit: LengthUnit): boolean {
  const { least, greatest } = travelIn(of, axis, unit)
  const slack = leastStepIn(of, unit)
  return position >= least - slack && position <= greatest + slack
}
