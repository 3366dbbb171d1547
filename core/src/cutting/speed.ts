import type { LengthUnit } from '../quantity/index.ts'

/**
 * Spindle speed in rpm for a speed over the surface: 12 V / (pi D) with V in feet a minute and D in inches, 1000 V / (pi D)
 * with metres and millimetres (trade.md 7). The surface speed is in feet a minute in inch, metres a minute in mm.
 */
export const rpmFor = (surface: number, diameter: number, unit: LengthUnit) =>
  ((unit === 'inch' ? 12 : 1000) * surface) / (Math.PI * diameter)

/** The speed over the surface: the other way round. */
export const surfaceFor = (rpm: number, diameter: number, unit: LengthUnit) =>
  (rpm * Math.PI * diameter) / (unit === 'inch' ? 12 : 1000)

/** A speed as it is set: two significant digits below a hundred, else to ten, to fifty over a thousand. */
export function roundRpm(rpm: number): number {
  const step = rpm < 100 ? 5 : rpm < 1_000 ? 10 : 50
  return Math.max(step, Math.floor(rpm / step + 1e-9) * step)
}
