import { z } from 'zod'
import { convertLength, type LengthUnit, lengthUnit } from '../quantity/index.ts'

export const toolKind = z.enum(['mill', 'drill', 'tap', 'engraver', 'probe', 'turning', 'grooving'])
export type ToolKind = z.infer<typeof toolKind>

const size = (what: string) => z.number().positive(`${what} must be more than zero.`)

/** The shape of a tool in its holder, as a machine carries it. A row with a version. Lengths in `unit`. */
export const toolShape = z
  .object({
    id: z.string().min(1).max(40),
    version: z.int().min(1),
    machineId: z.string().min(1).max(40).describe('the machine whose tool it is'),
    number: z.int('Write a whole number.').min(1, 'A tool number is 1 or more.').max(9999),
    name: z.string().trim().min(1, 'Give the tool a name.').max(40, 'Keep the name under 40 characters.'),
    kind: toolKind,
    unit: lengthUnit,
    diameter: size('The diameter').describe(
      'of the cutter; on a lathe how wide the insert and its bar are along Z',
    ),
    flute: size('The cutting length').describe('from the tip up, as far as it cuts'),
    stickOut: size('The stick-out').describe('from the tip up to the holder'),
    holderDiameter: size('The diameter of the holder'),
    holderLength: size('The length of the holder').describe('up to the spindle or turret'),
    pitch: size('The pitch').nullable().describe('length a turn, of a tap; null for others'),
    note: z.string().max(300),
  })
  .refine(({ flute, stickOut }) => flute <= stickOut, {
    error: 'The cutting length cannot be more than the stick-out.',
    path: ['flute'],
  })
  .refine(({ kind, pitch }) => (kind === 'tap') === (pitch !== null), {
    error: 'A tap has a pitch; other tools have none.',
    path: ['pitch'],
  })
export type ToolShape = z.infer<typeof toolShape>

/** The same shape in another unit. */
export function toolIn(tool: ToolShape, unit: LengthUnit): ToolShape {
  const own = (value: number) => convertLength(value, tool.unit, unit)
  return {
    ...tool,
    unit,
    diameter: own(tool.diameter),
    flute: own(tool.flute),
    stickOut: own(tool.stickOut),
    holderDiameter: own(tool.holderDiameter),
    holderLength: own(tool.holderLength),
    pitch: tool.pitch === null ? null : own(tool.pitch),
  }
}
