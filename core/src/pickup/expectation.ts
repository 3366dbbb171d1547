import type { Machine } from '../machine/index.ts'
import { type LengthUnit, roundTo, usualDigits } from '../quantity/index.ts'

/** An earlier value of an axis of the same offset. */
export interface EarlierValue {
  value: number
  /** The machine position that it rested on. */
  position: number
  doubt: number
  fresh: boolean
}

/** What a pickup is judged against; all lengths in the setup's unit. */
export interface Expectation {
  machine: Machine
  unit: LengthUnit
  /** How close part zero must be for this part. */
  tolerance: number
  /** The value that this one takes the place of. */
  last?: EarlierValue | undefined
  /** The last value of the other axis along the table, for a swap. */
  lastOther?: EarlierValue | undefined
  /** The indicator's swing on the other axis. */
  otherSwing?: number | undefined
}

/** How many times the doubt of their difference two repeats may lie apart. Common practice: look again past about three. */
const REPEATS_WITHIN = 3

/** How far two values of the same thing may lie apart, given the doubt of each. */
export const repeatBound = (a: number, b: number) => REPEATS_WITHIN * Math.hypot(a, b)

/** Whether a doubt is within what is allowed, compared as it is shown: 0.00100042 in reads 0.0010 and is not over 0.0010. */
export const allowedDoubt = (doubt: number, tolerance: number, unit: LengthUnit) =>
  roundTo(doubt, usualDigits(unit)) <= tolerance
