import { centroid, degrees, type PlanePoint, radians } from './point.ts'

export interface EdgeFit {
  /** A point of the line: the centroid of the points. */
  through: PlanePoint
  /** Direction in degrees from +X, in (-90, 90]; a line has no front. */
  direction: number
  /** Distance of each point from the line: plus is to the left of `direction`. */
  residuals: number[]
  /** Standard deviation of one point about the line; undefined with two points. */
  scatter: number | undefined
  /** Sum of the squares of the points' places along the line about their mean: a direction is off by (doubt of one point) / sqrt of it, in radians. */
  spreadAlong: number
  /** From the first to the last point, along the line. */
  base: number
}

/**
 * The straight line of any direction with the least sum of squared distances from two or more points
 * (total least squares; the direction is that of the larger principal axis, K. Pearson, Phil. Mag. 2, 1901).
 * Undefined where there is none: fewer than two points, or all at one place.
 */
export function fitEdge(points: readonly PlanePoint[]): EdgeFit | undefined {
  const n = points.length
  if (n < 2) return undefined
  const through = centroid(points)
  const off = points.map(({ x, y }) => ({ x: x - through.x, y: y - through.y }))
  let [xx, xy, yy] = [0, 0, 0]
  for (const { x, y } of off) {
    xx += x * x
    xy += x * y
    yy += y * y
  }
  const size = Math.max(...points.map(({ x, y }) => Math.hypot(x, y)))
  if (Math.sqrt(xx + yy) <= 1e-12 * size || xx + yy === 0) return undefined
  const direction = degrees(Math.atan2(2 * xy, xx - yy) / 2)
  const [c, s] = [Math.cos(radians(direction)), Math.sin(radians(direction))]
  const along = off.map(({ x, y }) => c * x + s * y)
  const residuals = off.map(({ x, y }) => c * y - s * x)
  const left = residuals.reduce((sum, each) => sum + each * each, 0)
  return {
    through,
    direction,
    residuals,
    scatter: n > 2 ? Math.sqrt(left / (n - 2)) : undefined,
    spreadAlong: along.reduce((sum, each) => sum + each * each, 0),
    base: Math.max(...along) - Math.min(...along),
  }
}
