import type { Stroke } from '../../lettering/index.ts'
import type { HolePlace } from '../cycle/index.ts'

/** Points of the strokes no further from each other than `step`: between two of them a line can hide nothing larger. */
export function pointsAlong(strokes: readonly Stroke[], step: number): [number, number][] {
  const points: [number, number][] = []
  for (const stroke of strokes)
    stroke.forEach(([x, y], n) => {
      const [px, py] = stroke[n - 1] ?? [x, y]
      const pieces = Math.min(200, Math.max(1, Math.ceil(Math.hypot(x - px, y - py) / step)))
      for (let piece = n === 0 ? pieces : 1; piece <= pieces; piece++)
        points.push([px + ((x - px) * piece) / pieces, py + ((y - py) * piece) / pieces])
    })
  return points
}

/** The first of some holes that a line `reach` wide on each side comes into, by its place. */
export const holeUnder = (
  points: readonly (readonly [number, number])[],
  holes: readonly (HolePlace & { radius: number })[],
  reach: number,
) => holes.find(({ x, y, radius }) => points.some(([px, py]) => Math.hypot(px - x, py - y) < radius + reach))

/** The least distance between two sets of points. */
export function between(
  ones: readonly (readonly [number, number])[],
  others: readonly (readonly [number, number])[],
): number {
  let least = Number.POSITIVE_INFINITY
  for (const [x, y] of ones)
    for (const [px, py] of others) {
      const far = Math.hypot(px - x, py - y)
      if (far < least) least = far
    }
  return least
}
