import { degrees, type PlanePoint, radians } from './point.ts'

/** One feature: where the drawing has it, and where it was measured. One unit. */
export interface PointPair {
  nominal: PlanePoint
  measured: PlanePoint
}

export interface RigidFit {
  /** From the drawing to the part, counter-clockwise, degrees in (-180, 180]. */
  angle: number
  /** Where the drawing's origin lies among the measured points. */
  origin: PlanePoint
  /** Measured less fitted, feature by feature. */
  residuals: PlanePoint[]
  /** Standard deviation of one coordinate; undefined with two features or fewer coordinates than are fitted. */
  scatter: number | undefined
  /** Sum of the squares of the drawing's points about their centroid: the angle is off by (doubt of one coordinate) / sqrt of it, in radians. */
  spread: number
}

/** Where a fitted part has a place of the drawing. */
export function moved(
  { x, y }: PlanePoint,
  { angle, origin }: Pick<RigidFit, 'angle' | 'origin'>,
): PlanePoint {
  const [c, s] = [Math.cos(radians(angle)), Math.sin(radians(angle))]
  return { x: origin.x + c * x - s * y, y: origin.y + s * x + c * y }
}

/**
 * Turns and shifts the drawing onto the measured points with the least sum of squared distances (rigid fit in the plane;
 * W. Kabsch, Acta Cryst. A32, 1976, in two dimensions: theta = atan2(sum(a x b), sum(a . b)) about the centroids).
 * Undefined where there is none: fewer than two features, or all at one place of the drawing.
 */
export function fitRigid(pairs: readonly PointPair[]): RigidFit | undefined {
  const n = pairs.length
  if (n < 2) return undefined
  let [ax, ay, bx, by] = [0, 0, 0, 0]
  for (const { nominal, measured } of pairs) {
    ax += nominal.x
    ay += nominal.y
    bx += measured.x
    by += measured.y
  }
  ax /= n
  ay /= n
  bx /= n
  by /= n
  let [cross, dot, spread, size] = [0, 0, 0, 0]
  for (const { nominal, measured } of pairs) {
    const [px, py] = [nominal.x - ax, nominal.y - ay]
    const [qx, qy] = [measured.x - bx, measured.y - by]
    cross += px * qy - py * qx
    dot += px * qx + py * qy
    spread += px * px + py * py
    size = Math.max(size, Math.abs(nominal.x), Math.abs(nominal.y))
  }
  if (Math.sqrt(spread) <= 1e-12 * size || spread === 0 || Math.hypot(cross, dot) <= 1e-12 * spread)
    return undefined
  const theta = Math.atan2(cross, dot)
  const [c, s] = [Math.cos(theta), Math.sin(theta)]
  const residuals = new Array<PlanePoint>(n)
  let left = 0
  for (let index = 0; index < n; index += 1) {
    const { nominal, measured } = pairs[index] as PointPair
    const [px, py] = [nominal.x - ax, nominal.y - ay]
    const x = measured.x - bx - (c * px - s * py)
    const y = measured.y - by - (s * px + c * py)
    left += x * x + y * y
    residuals[index] = { x, y }
  }
  return {
    angle: theta === -Math.PI ? 180 : degrees(theta),
    origin: { x: bx - (c * ax - s * ay), y: by - (s * ax + c * ay) },
    residuals,
    scatter: n > 2 ? Math.sqrt(left / (2 * n - 3)) : undefined,
    spread,
  }
}
