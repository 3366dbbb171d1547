import type { LinearAxis } from '../machine/index.ts'

/** An offset that a program wrote: which, the machine positions that stand in it from then on in the unit of the setup, and the block. */
export interface OffsetWritten {
  offset: string
  axes: Partial<Record<LinearAxis, number>>
  /** Degrees of the rotary, where they were written too. */
  rotary?: number
  /** Which block did it, counted as the motion counts them. */
  block: number
}

/** A common variable that a program set, in the program's own unit, and the block that did. */
export interface VariableSet {
  variable: number
  value: number
  block: number
}

/** A length that the macro of a tool setter measured and wrote into the table, and the block that did. */
export interface LengthMeasured {
  tool: number
  block: number
}

/** What is kept of each in one program; more say nothing new. */
export const MOST_WRITTEN = 10_000
