/** Limits of an individuals chart, in the unit of the values. */
export interface Individuals {
  mean: number
  /** Mean of the moving ranges: of what two values in a row lie apart. */
  movingRange: number
  lower: number
  upper: number
}

/** 3 / d2, with d2 = 1.128 for ranges of two. */
const PER_MOVING_RANGE = 2.66

/** The least values that limits can be had from; fewer say little. */
const LEAST = 4

/**
 * Mean and limits of single values in the order in which they came: mean +/- 2.66 mean moving range
 * (NIST/SEMATECH e-Handbook 6.3.2.2). Undefined with fewer than four values.
 */
export function individuals(values: readonly number[]): Individuals | undefined {
  const n = values.length
  if (n < LEAST) return undefined
  const mean = values.reduce((sum, value) => sum + value, 0) / n
  let ranges = 0
  for (let index = 1; index < n; index += 1)
    ranges += Math.abs((values[index] ?? 0) - (values[index - 1] ?? 0))
  const movingRange = ranges / (n - 1)
  return {
    mean,
    movingRange,
    lower: mean - PER_MOVING_RANGE * movingRange,
    upper: mean + PER_MOVING_RANGE * movingRange,
  }
}
