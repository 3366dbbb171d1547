import { z } from 'zod'
import { convertLength, type LengthUnit, lengthUnit } from '../quantity/index.ts'
import type { ProbeShape } from './machine.ts'

export const toolKind = z.enum(['mill', 'drill', 'tap', 'engraver', 'probe', 'turning', 'grooving'])
export type ToolKind = z.infer<typeof toolKind>

/** Whether a tool turns: it is round about its own middle. An insert is not. */
export const isRoundTool = ({ kind }: { kind: ToolKind }) => kind !== 'turning' && kind !== 'grooving'

/** Which way a tool of a lathe is made for: it points to the centre line, away from it, or towards the chuck. */
export const toolSide = z.enum(['outside', 'inside', 'face'])
export type ToolSide = z.infer<typeof toolSide>

const size = (what: string) => z.number().positive(`${what} must be more than zero.`)

/** How a tool stands on a lathe. Lengths in the tool's unit. */
const onLathe = z
  .object({
    side: toolSide.describe('a drill or a tap on the centre line is a tool for the face'),
    corner: z
      .enum(['low', 'high'])
      .describe(
        'the corner of an insert that is programmed: at its lower coordinate (towards the chuck; in a face towards the centre) or the other',
      ),
    point: z
      .enum(['corner', 'edge', 'nose'])
      .describe(
        'what of an insert is programmed: that corner, the edge of the nose at it (where it touches what it points to), or the middle of that nose',
      ),
    bar: size('The thickness of the bar')
      .nullable()
      .describe('of a bar for inside, without what the insert stands out of it; null for others'),
  })
  .refine(({ side, bar }) => (side === 'inside') === (bar !== null), {
    error: 'A tool for inside has a bar; other tools have none.',
    path: ['bar'],
  })
export type ToolOnLathe = z.infer<typeof onLathe>

/** The shape of a tool in its holder, as a machine carries it. A row with a version. Lengths in `unit`. */
export const toolShape = z
  .object({
    shape: z.literal(2),
    id: z.string().min(1).max(40),
    version: z.int().min(1),
    machineId: z.string().min(1).max(40).describe('the machine whose tool it is'),
    number: z.int('Write a whole number.').min(1, 'A tool number is 1 or more.').max(9999),
    name: z.string().trim().min(1, 'Give the tool a name.').max(40, 'Keep the name under 40 characters.'),
    kind: toolKind,
    unit: lengthUnit,
    diameter: size('The diameter').describe('of the cutter; of an insert its width'),
    flute: size('The cutting length').describe('from the tip up, as far as it cuts'),
    stickOut: size('The stick-out').describe('from the tip up to the holder'),
    holderDiameter: size('The diameter of the holder'),
    holderLength: size('The length of the holder').describe('up to the spindle or turret'),
    nose: size('The nose radius')
      .nullable()
      .optional()
      .describe('of an insert; null or nothing where nobody entered it'),
    onLathe: onLathe.optional().describe('where it is not as its kind usually stands'),
    pitch: size('The pitch').nullable().describe('length a turn, of a tap; null for others'),
    note: z.string().max(300),
  })
  .refine(({ flute, stickOut }) => flute <= stickOut, {
    error: 'The cutting length cannot be more than the stick-out.',
    path: ['flute'],
  })
  .refine((tool) => !isRoundTool(tool) || tool.onLathe?.side !== 'inside', {
    error: 'A tool that turns stands across or along the bar, not in a bore.',
    path: ['onLathe', 'side'],
  })
  .refine((tool) => !tool.nose || isRoundTool(tool) || tool.nose <= tool.diameter / 2 + 1e-9, {
    error: 'A nose is no larger than half of its insert: check the unit, or the width.',
    path: ['nose'],
  })
  .refine((tool) => isRoundTool(tool) || (tool.onLathe?.point ?? 'corner') === 'corner' || !!tool.nose, {
    error: 'An insert that is not programmed at its corner needs its nose radius.',
    path: ['nose'],
  })
  .refine(({ kind, pitch }) => (kind === 'tap') === (pitch !== null), {
    error: 'A tap has a pitch; other tools have none.',
    path: ['pitch'],
  })
export type ToolShape = z.infer<typeof toolShape>

/** How a tool stands on a lathe: what was entered, or what is usual for its kind. */
export const toolOnLathe = (tool: Pick<ToolShape, 'kind' | 'onLathe'>): ToolOnLathe =>
  tool.onLathe ?? { side: isRoundTool(tool) ? 'face' : 'outside', corner: 'low', point: 'corner', bar: null }

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
    ...(tool.onLathe
      ? { onLathe: { ...tool.onLathe, bar: tool.onLathe.bar === null ? null : own(tool.onLathe.bar) } }
      : {}),
    ...(tool.nose ? { nose: own(tool.nose) } : {}),
    pitch: tool.pitch === null ? null : own(tool.pitch),
  }
}

/** The same probe in another unit. */
export function probeIn(probe: ProbeShape, from: LengthUnit, to: LengthUnit): ProbeShape {
  const length = (of: number) => convertLength(of, from, to)
  return {
    tool: probe.tool,
    stylus: length(probe.stylus),
    reach: length(probe.reach),
    body: length(probe.body),
    overtravel: length(probe.overtravel),
  }
}

/** A machine's probe as a tool in its holder: the stylus with its ball, and the body over it, as long as it is wide. */
export const probeAsTool = (
  probe: ProbeShape,
  { id, unit }: { id: string; unit: LengthUnit },
): ToolShape => ({
  shape: 2,
  id: `${id}-probe`,
  version: 1,
  machineId: id,
  number: probe.tool,
  name: 'Probe',
  kind: 'probe',
  unit,
  diameter: probe.stylus,
  flute: Math.min(probe.stylus, probe.reach),
  stickOut: probe.reach,
  holderDiameter: probe.body,
  holderLength: probe.body,
  pitch: null,
  note: '',
})

/** What the radius of each cutter that turns is, by its number, in a unit: what compensation goes by. */
export const cutterRadii = (tools: readonly ToolShape[], unit: LengthUnit): Map<number, number> =>
  new Map(tools.filter(isRoundTool).map((tool) => [tool.number, toolIn(tool, unit).diameter / 2]))
