import { z } from 'zod'
import { typedLength } from '../quantity/index.ts'

const alongTable = z.enum(['X', 'Y'])

/**
 * Edge finder against one face. `direction` is the way the spindle moves over the part into the face:
 * '+' touches a face that looks towards minus. `drawingPosition` is where the face is on the drawing, from part zero.
 */
const edgeFinder = z.object({
  method: z.literal('edge-finder'),
  axis: alongTable,
  direction: z.enum(['+', '-']),
  diameter: typedLength.describe('diameter of the finder tip'),
  machinePosition: typedLength.describe('where it kicked'),
  drawingPosition: typedLength,
})

/** Test indicator at zero on both sides of one plane; a ground insert held against the face gives the second side. */
const indicator = z.object({
  method: z.literal('indicator'),
  axis: alongTable,
  minusSide: typedLength.describe('machine position with the indicator on the minus side of the plane'),
  plusSide: typedLength.describe('machine position with the indicator on the plus side'),
  drawingPosition: typedLength,
})

/** Z by a tool of known length on a gauge block, or on the face itself (block height 0). */
const toolOnBlock = z.object({
  method: z.literal('tool-on-block'),
  axis: z.literal('Z'),
  tool: z.int().min(0).max(9999).describe('tool number whose length was used'),
  machinePosition: typedLength,
  toolLength: typedLength.describe("in the machine's own convention"),
  blockHeight: typedLength.describe('gauge block or feeler between tool and face'),
  drawingPosition: typedLength,
})

/** What was read at the machine, by method. */
export const reading = z.discriminatedUnion('method', [edgeFinder, indicator, toolOnBlock])
export type Reading = z.infer<typeof reading>
export const pickupMethod = z.enum(['edge-finder', 'indicator', 'tool-on-block'])
export type PickupMethod = z.infer<typeof pickupMethod>
export type EdgeFinderReading = z.infer<typeof edgeFinder>
export type IndicatorReading = z.infer<typeof indicator>
export type ToolOnBlockReading = z.infer<typeof toolOnBlock>

export const METHOD_NAMES: Record<PickupMethod, string> = {
  'edge-finder': 'edge finder',
  indicator: 'indicator, both sides',
  'tool-on-block': 'tool on gauge block',
}

/** The methods that can find an axis, the usual one first. */
export const methodsFor = (axis: 'X' | 'Y' | 'Z'): PickupMethod[] =>
  axis === 'Z' ? ['tool-on-block'] : ['edge-finder', 'indicator']
