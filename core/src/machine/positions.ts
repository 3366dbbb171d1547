import { z } from 'zod'
import { lengthUnit } from '../quantity/index.ts'
import { linearAxis } from './machine.ts'

const moment = z.iso.datetime({ offset: true })

/** Machine positions as they were read from where a machine's page says, in the machine's unit. */
export const positionsRead = z.object({
  unit: lengthUnit.describe('of the positions: that of the machine'),
  positions: z.partialRecord(linearAxis, z.number()),
  since: z
    .partialRecord(linearAxis, z.string())
    .describe("since when each axis stands there, ISO 8601, by the source's clock"),
  rotary: z
    .object({ degrees: z.number(), since: z.string() })
    .exactOptional()
    .describe("the rotary's own position, in degrees, and since when"),
  name: z.string().describe('what the source calls the machine'),
  readAt: moment.describe("by the server's clock"),
  notes: z.array(z.string()).describe('what the source leaves open'),
})
export type PositionsRead = z.infer<typeof positionsRead>

/** Digits that a position is told with: those of a length that travels in mm come to no more than this in an inch or a mm. */
export const POSITION_DIGITS = { inch: 6, mm: 5 } as const
