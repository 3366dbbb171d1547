import type { LengthUnit } from '../quantity/index.ts'
import type { LinearAxis } from './machine.ts'

/** Machine positions as they were read from where a machine's page says, in the machine's unit. */
export interface PositionsRead {
  unit: LengthUnit
  positions: Partial<Record<LinearAxis, number>>
  /** Since when each axis stands there, by the source's clock. */
  since: Partial<Record<LinearAxis, string>>
  /** The rotary's own position, in degrees, and since when. */
  rotary?: { degrees: number; since: string }
  /** What the source calls the machine. */
  name: string
  /** By the server's clock. */
  readAt: string
  /** What the source leaves open. */
  notes: string[]
}
