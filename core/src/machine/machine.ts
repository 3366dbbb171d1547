import { z } from 'zod'
import { convertLength, type LengthUnit, lengthUnit } from '../quantity/index.ts'
import { spindleHead, turret } from './above-tool.ts'
import { surroundings } from './around.ts'
import { type ReadyItem, readyList, USUAL_READY_LIST } from './ready-list.ts'

export const linearAxis = z.enum(['X', 'Y', 'Z'])
export type LinearAxis = z.infer<typeof linearAxis>
export const LINEAR_AXES = linearAxis.options

export const machineKind = z.enum(['mill', 'lathe'])
export type MachineKind = z.infer<typeof machineKind>

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

const length = (says: string) => z.number().positive(says)

/** The probe of a machine and its own shape, in the machine's unit. */
export const probeShape = z.object({
  tool: z.int().min(0).max(9999).describe('its tool number'),
  stylus: length('The diameter of the stylus must be more than zero.').describe(
    'effective diameter, from the qualification',
  ),
  reach: length('The reach must be more than zero.').describe(
    'from the body down to the centre of the stylus ball',
  ),
  body: length('The diameter of the body must be more than zero.'),
  overtravel: length('The overtravel must be more than zero.').describe(
    'how far it may be deflected before it is damaged',
  ),
})
export type ProbeShape = z.infer<typeof probeShape>

const rapid = z.number().positive('A rapid must be more than zero.')

const acceleration = z.number().positive('An acceleration must be more than zero.')

/** How quickly the machine moves and turns, for cycle times; in the machine's unit. */
export const dynamics = z.object({
  acceleration: z
    .object({ X: acceleration, Y: acceleration.nullable().describe('null on a lathe'), Z: acceleration })
    .describe('machine unit per second squared'),
  smoothing: z
    .number()
    .min(0, 'A time, or 0 where it is steady.')
    .max(1, 'At most 1 second.')
    .nullable()
    .default(null)
    .describe(
      'seconds over which a ramp of the rapids is rounded (limited jerk); 0 where an axis speeds up steadily; null if not known',
    ),
  topFeed: z.number().positive('A feed must be more than zero.').describe('machine unit a minute'),
  cornerTolerance: z
    .number()
    .positive('A tolerance must be more than zero.')
    .describe('how far a corner may be rounded at feed, in the machine unit'),
  spindleTop: z.number().positive('A speed must be more than zero.').describe('rpm'),
  tapTop: z.number().positive('A speed must be more than zero.').describe('rpm, rigid tapping'),
  spindleAcceleration: acceleration.describe('turns per second squared'),
  spindleTimed: z
    .boolean()
    .default(false)
    .describe('it was found by timing, not taken from a page or a guess'),
  toolChange: z
    .number()
    .positive('A time must be more than zero.')
    .describe('seconds, chip to chip without the travel'),
  rotary: z
    .object({
      top: z.number().positive('A speed must be more than zero.').describe('degrees a minute'),
      acceleration: acceleration.describe('degrees per second squared'),
    })
    .nullable()
    .describe('null where there is no rotary axis'),
})
export type Dynamics = z.infer<typeof dynamics>

/** The axis that a rotary on the table turns, lying along X. */
export const rotaryAxis = z.object({
  word: z.enum(['A', 'B', 'C']),
  top: z
    .enum(['front', 'back'])
    .describe('where the top of the part goes as the number counts up: towards Y minus, or towards Y plus'),
  turns: z
    .object({ least: z.number(), greatest: z.number() })
    .refine(({ least, greatest }) => least < greatest, {
      error: 'The lowest angle must be below the highest.',
      path: ['greatest'],
    })
    .nullable()
    .describe('degrees that it can be sent to; null where it goes round without end'),
})
export type RotaryAxis = z.infer<typeof rotaryAxis>

/** +1 where the part turns from Y to Z as the number counts up, so that its top goes to the front. */
export const senseOf = ({ top }: Pick<RotaryAxis, 'top'>): 1 | -1 => (top === 'front' ? 1 : -1)

/** Addresses that are not called are refused by the server; this is only their shape. */
const agentAddress = z
  .string()
  .trim()
  .max(200, 'Keep the address under 200 characters.')
  .regex(
    /^https?:\/\/[^\s/?#@]+(\/[^\s?#]*)?$/i,
    'An address such as http://192.168.1.40:5000, without a question mark or a password.',
  )

/** Where the machine's positions can be read from: the simulated machine, or an MTConnect agent in the shop's own network. */
export const positionSource = z.discriminatedUnion('from', [
  z.object({ from: z.literal('simulated') }),
  z.object({
    from: z.literal('agent'),
    address: agentAddress,
    device: z
      .string()
      .trim()
      .max(60, 'Keep the name under 60 characters.')
      .describe('empty for the only one'),
    turnedX: z.enum(['diameter', 'radius']).describe('what the agent says of X on a lathe'),
  }),
])
export type PositionSource = z.infer<typeof positionSource>

/**
 * A machine as the shop describes it. A row with a version: an edit makes the next version,
 * and an entry of the log records the version that it used. What came later than the first release has a default,
 * so that older rows still read.
 */
export const machine = z
  .object({
    shape: z.literal(2),
    id: z.string().min(1).max(40),
    version: z.int().min(1),
    name: z.string().trim().min(1, 'Give the machine a name.').max(40, 'Keep the name under 40 characters.'),
    kind: machineKind.default('mill'),
    unit: lengthUnit.describe('the unit that the control shows positions in'),
    axes: z.object({
      X: travel.describe('in diameters on a lathe'),
      Y: travel.nullable().describe('null on a lathe'),
      Z: travel,
    }),
    tableMoves: z
      .object({ X: z.boolean(), Y: z.boolean() })
      .describe('true where the table moves and the spindle stands still'),
    home: z
      .object({ X: z.number(), Y: z.number(), Z: z.number() })
      .default({ X: 0, Y: 0, Z: 0 })
      .describe('what the control shows after homing, in the machine unit'),
    secondHome: z
      .object({ X: z.number(), Y: z.number(), Z: z.number() })
      .nullable()
      .default(null)
      .describe(
        'where G30 goes, in machine positions and unit, X as a diameter on a lathe; null if not known',
      ),
    rapids: z
      .object({ X: rapid, Y: rapid.nullable().describe('null on a lathe'), Z: rapid })
      .nullable()
      .default(null)
      .describe('rapid speed at 100 %, in the machine unit per minute; null where it is not known'),
    rapidMarks: z
      .array(z.int('Write whole numbers.').min(1, 'From 1 to 100 %.').max(100, 'From 1 to 100 %.'))
      .min(1)
      .max(8, 'At most eight.')
      .nullable()
      .default(null)
      .describe('places of the rapid override switch, per cent; null for those of the advice in Ready'),
    xSpeeds: z
      .enum(['slide', 'diameter'])
      .nullable()
      .default(null)
      .describe('what rapid and acceleration of X are said in on a lathe; null if nobody said'),
    dynamics: dynamics.nullable().default(null).describe('null where it is not known'),
    rotary: rotaryAxis.nullable().default(null).describe('null where it has none, or nobody said'),
    around: surroundings.nullable().default(null).describe('what stands round the table; null if not known'),
    head: spindleHead.nullable().default(null).describe('of a mill; null where it is not known'),
    turret: turret.nullable().default(null).describe('of a lathe; null where it has none, or nobody said'),
    costs: z
      .object({
        anHour: z.number().positive('More than zero.').describe('money a machine hour'),
        shiftsAMonth: z.number().positive('More than zero.').max(200, 'At most 200.'),
      })
      .nullable()
      .default(null)
      .describe('what its time costs the shop; null if nobody said'),
    pallets: z
      .object({
        count: z.int('Write a whole number.').min(2, 'Two or more.').max(12, 'At most 12.'),
        swap: z.number().positive('A time must be more than zero.').describe('seconds of one change'),
      })
      .nullable()
      .default(null)
      .describe('null where it has no pallet changer'),
    readyList: readyList.nullable().default(null).describe('null for the usual list'),
    leastStep: z
      .number()
      .positive('The least step must be more than zero.')
      .describe('last digit of the position display, in the machine unit'),
    toolLengths: z
      .enum(['gauge-line', 'master-tool'])
      .describe('what tool lengths are measured from: always positive, or against a master tool'),
    probe: probeShape.nullable().default(null).describe('null where the machine has none'),
    profileId: z.string().min(1).describe('the control profile that this machine speaks'),
    positions: positionSource.nullable().default(null).describe('null where positions are typed only'),
    note: z.string().max(500),
  })
  .refine(({ kind, axes }) => (kind === 'mill') === (axes.Y !== null), {
    error: 'A mill has a travel in Y, a lathe has none.',
    path: ['axes', 'Y'],
  })
  .refine(({ kind, rapids }) => rapids === null || (kind === 'mill') === (rapids.Y !== null), {
    error: 'A mill has a rapid in Y, a lathe has none.',
    path: ['rapids', 'Y'],
  })
  .refine(({ kind, dynamics: of }) => of === null || (kind === 'mill') === (of.acceleration.Y !== null), {
    error: 'A mill has an acceleration in Y, a lathe has none.',
    path: ['dynamics', 'acceleration', 'Y'],
  })
export type Machine = z.infer<typeof machine>

/** Marks of a rapid override where the page names none: those that the advice for setting up and running goes by. */
export const USUAL_RAPID_MARKS: readonly number[] = [5, 25, 100]

/** The axes that a machine has. */
export const axesOf = ({ axes }: Machine): LinearAxis[] => LINEAR_AXES.filter((axis) => axes[axis] !== null)

/** The walk-round and power-up list in force. */
export const readyListOf = (of: Machine): readonly ReadyItem[] => of.readyList ?? USUAL_READY_LIST[of.kind]

/** A machine's travel along an axis that it has, in the unit asked for. Throws on one that it has not. */
export function travelIn(of: Machine, axis: LinearAxis, unit: LengthUnit): Travel {
  const own = of.axes[axis]
  if (!own) throw new Error(`${of.name} has no ${axis}`)
  return {
    least: convertLength(own.least, of.unit, unit),
    greatest: convertLength(own.greatest, of.unit, unit),
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
