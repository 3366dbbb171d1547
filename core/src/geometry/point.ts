/** A point of a plane, both coordinates in one unit; X to the right, Y up (ISO 841). */
export interface PlanePoint {
  x: number
  y: number
}

export const radians = (degrees: number) => (degrees * Math.PI) / 180
export const degrees = (radians: number) => (radians * 180) / Math.PI

/** An angle in degrees brought into (-180, 180]. */
export function halfTurn(angle: number): number {
  const within = angle % 360
  if (within > 180) return within - 360
  return within <= -180 ? within + 360 : within
}

/** Turns a point about another by degrees, counter-clockwise seen from +Z. */
export function turned({ x, y }: PlanePoint, by: number, about: PlanePoint): PlanePoint {
  const [c, s] = [Math.cos(radians(by)), Math.sin(radians(by))]
  const [dx, dy] = [x - about.x, y - about.y]
  return { x: about.x + c * dx - s * dy, y: about.y + s * dx + c * dy }
}

export const distance = (a: PlanePoint, b: PlanePoint) => Math.hypot(b.x - a.x, b.y - a.y)

/** The centroid of some points; of none, the origin. */
export function centroid(points: readonly PlanePoint[]): PlanePoint {
  const n = points.length || 1
  let [x, y] = [0, 0]
  for (const point of points) {
    x += point.x
    y += point.y
  }
  return { x: x / n, y: y / n }
}
