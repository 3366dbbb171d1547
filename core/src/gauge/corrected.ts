import type { LengthUnit } from '../quantity/index.ts'
import { type Characteristic, correctionOf, type Feature, halfTolerance } from './characteristic.ts'

/** How a size is corrected from part to part, in one unit of length; errors count from the middle of the tolerance. */
export interface Correction {
  /** How much the size moves by itself from one part to the next, signed. */
  drift: number
  /** Share of the error that is corrected, above 0 to 1. */
  share: number
  /** Errors smaller than this are left alone. */
  deadBand: number
  /** Half of the tolerance. */
  half: number
  /** How far one part may scatter about the drifting size, and one reading about the part, either way. */
  scatter: number
  reading: number
  /** Errors above this stop the machine instead. */
  limit: number
}

export interface Held {
  /** No part comes out further from the middle than this, once the start is forgotten. */
  most: number
  /** Every part stays in tolerance. */
  stays: boolean
  /** No reading reaches the limit, so that the correction goes on. */
  goesOn: boolean
  says: string
}

/**
 * The furthest that a corrected size can come from the middle. With e the error of the process, m that of the reading at
 * most, d the drift, s the share and b the dead band: where nothing is corrected |e| < b + m, and the next is within
 * b + m + |d|; where it is, |e'| <= (1 - s)|e| + s m + |d|, whose fixed point is |d|/s + m. So |e| stays within the larger
 * of the two, and a part within that and its scatter [derived here].
 */
export function heldWithin({ drift, share, deadBand, half, scatter, reading, limit }: Correction): Held {
  const d = Math.abs(drift)
  // What is read is the part with its scatter, so that the correction follows the scatter too.
  const seen = reading + scatter
  const process = Math.max(deadBand + seen + d, d / share + seen)
  const most = process + scatter
  const stays = most <= half
  const goesOn = most + reading <= limit
  const says = (): string => {
    if (stays)
      return goesOn
        ? 'Corrected like this, every part stays in tolerance.'
        : 'It stays in tolerance, but a reading may come beyond the limit and stop it.'
    if (scatter + seen >= half) return 'It cannot stay in tolerance: the scatter alone is wider.'
    if (d + seen + scatter > half)
      return 'It cannot stay in tolerance: the size moves too far from one part to the next.'
    return d / share + seen + scatter > half
      ? 'It does not stay in tolerance: the share is too small for this drift. Take a larger one.'
      : 'It does not stay in tolerance: the dead band is too wide for this drift and scatter.'
  }
  return { most, stays, goesOn, says: says() }
}

/**
 * Sizes of parts that are corrected one after the other: errors from the middle. `scatterOf` and `readingOf` give what one part
 * and one reading are off by, from -1 to 1 of what they may be. Ends where the limit stops the machine.
 */
export function simulate(
  of: Correction,
  parts: number,
  scatterOf: (part: number) => number,
  readingOf: (part: number) => number,
  start = 0,
): { errors: number[]; stoppedAt?: number } {
  const errors: number[] = []
  let process = start
  for (let part = 0; part < parts; part++) {
    const error = process + of.scatter * scatterOf(part)
    errors.push(error)
    const read = error + of.reading * readingOf(part)
    if (Math.abs(read) > of.limit) return { errors, stoppedAt: part }
    if (Math.abs(read) >= of.deadBand) process -= of.share * read
    process += of.drift
  }
  return { errors }
}

/** How a feature's size is corrected over many parts, for a drift and a scatter in the setup's unit. */
export function correctionFor(
  feature: Feature,
  of: Characteristic,
  unit: LengthUnit,
  { drift, scatter }: { drift: number; scatter: number },
): Correction {
  const { share, deadBand, limit } = correctionOf(feature, of, unit)
  return { drift, scatter, share, deadBand, limit, half: halfTolerance(of), reading: 0 }
}
