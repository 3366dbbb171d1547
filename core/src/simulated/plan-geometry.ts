/** Geometry in plan, for what stands on the table: upright boxes in a frame that is turned about Z, and upright cylinders. */

export interface Spot {
  x: number
  y: number
}

/** Where a frame stands, and how far it is turned, in radians, counter-clockwise seen from +Z. */
export interface Frame extends Spot {
  angle: number
}

export interface Rect {
  x0: number
  x1: number
  y0: number
  y1: number
}

/** A place of a frame on the machine. */
export function fromFrame({ x, y, angle }: Frame, at: Spot): Spot {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  return { x: x + c * at.x - s * at.y, y: y + s * at.x + c * at.y }
}

/** A place of the machine in a frame. */
export function intoFrame({ x, y, angle }: Frame, at: Spot): Spot {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const [dx, dy] = [at.x - x, at.y - y]
  return { x: c * dx + s * dy, y: c * dy - s * dx }
}

/** A frame turned by an angle about a place of the machine. */
export function turnedAbout(frame: Frame, pivot: Spot, by: number): Frame {
  const moved = fromFrame({ ...pivot, angle: by }, { x: frame.x - pivot.x, y: frame.y - pivot.y })
  return { ...moved, angle: frame.angle + by }
}

/** How far a place lies outside a rectangle; inside, how deep, as a negative number. */
export function outside(rect: Rect, { x, y }: Spot): number {
  const dx = Math.max(rect.x0 - x, x - rect.x1)
  const dy = Math.max(rect.y0 - y, y - rect.y1)
  return dx > 0 && dy > 0 ? Math.hypot(dx, dy) : Math.max(dx, dy)
}

/** Where a straight line enters a rectangle, as a share of its direction; undefined where it passes it by. */
function entersBox({ x0, x1, y0, y1 }: Rect, from: Spot, direction: Spot): number | undefined {
  let [enters, leaves] = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY]
  for (const [low, high, at, along] of [
    [x0, x1, from.x, direction.x],
    [y0, y1, from.y, direction.y],
  ] as const) {
    if (along === 0) {
      if (at <= low || at >= high) return undefined
      continue
    }
    const [a, b] = [(low - at) / along, (high - at) / along]
    enters = Math.max(enters, Math.min(a, b))
    leaves = Math.min(leaves, Math.max(a, b))
  }
  return enters < leaves ? enters : undefined
}

/** The same of a circle. */
function entersCircle(centre: Spot, radius: number, from: Spot, direction: Spot): number | undefined {
  const [dx, dy] = [from.x - centre.x, from.y - centre.y]
  const along = dx * direction.x + dy * direction.y
  const under = along * along - (dx * dx + dy * dy - radius * radius)
  return under > 0 ? -along - Math.sqrt(under) : undefined
}

/** Ahead of it by this much it is looked whether a disc that touches goes deeper. */
const AHEAD = 1e-7

/**
 * How far a disc can go along a direction (of length 1) before it touches a rectangle; Infinity where it does not. A
 * negative radius asks for when its centre is that deep inside. What touches already may leave, and slide along.
 */
export function freeWay(rect: Rect, radius: number, from: Spot, direction: Spot): number {
  const gap = outside(rect, from) - radius
  if (gap <= 0) {
    const ahead = { x: from.x + AHEAD * direction.x, y: from.y + AHEAD * direction.y }
    return outside(rect, ahead) - radius < Math.min(gap, 0) - AHEAD * 1e-3 ? 0 : Number.POSITIVE_INFINITY
  }
  const { x0, x1, y0, y1 } = rect
  const grown = (byX: number, byY: number): Rect => ({
    x0: x0 - byX,
    x1: x1 + byX,
    y0: y0 - byY,
    y1: y1 + byY,
  })
  const found =
    radius <= 0
      ? [entersBox(grown(radius, radius), from, direction)]
      : [
          entersBox(grown(radius, 0), from, direction),
          entersBox(grown(0, radius), from, direction),
          ...[x0, x1].flatMap((x) => [y0, y1].map((y) => entersCircle({ x, y }, radius, from, direction))),
        ]
  return Math.min(
    Number.POSITIVE_INFINITY,
    ...(found.filter((way) => way !== undefined && way >= 0) as number[]),
  )
}
