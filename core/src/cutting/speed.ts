import type { LengthUnit } from '../quantity/index.ts'

/**
 * Turns a minute for a speed over the surface: 12 V / (pi D) with V in feet a minute and D in inches, 1000 V / (pi D)
 * with metres and millimetres (trade.md 7). The surface speed is in feet a minute in inch, metres a minute in mm.
 */
export const turnsFor = (surface: number, diameter: number, unit: LengthUnit) =>
  ((unit === 'inch' ? 12 : 1000) * surface) / (Math.PI * diameter)

/** The speed over the surface: the other way round. */
export const surfaceFor = (turns: number, diameter: number, unit: LengthUnit) =>
  (turns * Math.PI * diameter) / (unit === 'inch' ? 12 : 1000)

/** A speed as it is set: two significant digits below a hundred, else to ten, to fifty over a thousand. */
export function roundTurns(turns: number): number {
  const step = turns < 100 ? 5 : turns < 1_000 ? 10 : 50
  return Math.max(step, Math.floor(turns / step + 1e-9) * step)
}
