import { distance, type PlanePoint } from './point.ts'

/** A point of a plane, or a direction of length 1 in it. */
export type Point2 = Readonly<PlanePoint>

/** A straight piece of a path, or an arc of it, in its plane. Lengths in one unit. */
export interface Piece {
  readonly from: Point2
  readonly to: Point2
  /** Radians about the centre, positive counter-clockwise; 0 of a straight piece. */
  readonly sweep: number
  /** Of an arc. */
  readonly centre: Point2
  /** Radius of an arc where it starts and where it ends: they differ by the rounding of what was written. */
  readonly radii: readonly [number, number]
  /** Of a straight piece: the way that it goes. */
  readonly way: Point2
}

const NO_RADII = [0, 0] as const
const NO_WAY: Point2 = { x: 1, y: 0 }

function heading(dx: number, dy: number): Point2 {
  // Squares of lengths of a program neither overflow nor vanish: quicker than the general way, a million times.
  const length = Math.sqrt(dx * dx + dy * dy)
  return length > 0 ? { x: dx / length, y: dy / length } : NO_WAY
}

export const straight = (from: Point2, to: Point2): Piece => ({
  from,
  to,
  sweep: 0,
  centre: from,
  radii: NO_RADII,
  way: heading(to.x - from.x, to.y - from.y),
})

export const arc = (from: Point2, to: Point2, centre: Point2, sweep: number): Piece => ({
  from,
  to,
  sweep,
  centre,
  radii: [distance(from, centre), distance(to, centre)],
  way: NO_WAY,
})

export const cross = (a: Point2, b: Point2) => a.x * b.y - a.y * b.x
export const dot = (a: Point2, b: Point2) => a.x * b.x + a.y * b.y
export const along = (p: Point2, way: Point2, by: number): Point2 => ({
  x: p.x + by * way.x,
  y: p.y + by * way.y,
})

/** The point at right angles to a heading: so far to its left, where negative to its right. */
export const beside = (p: Point2, way: Point2, by: number): Point2 => ({
  x: p.x - by * way.y,
  y: p.y + by * way.x,
})

/** The way a piece goes at one of its points, which lies on it. */
function headingAt({ way, sweep, centre }: Piece, p: Point2): Point2 {
  if (sweep === 0) return way
  const out = heading(p.x - centre.x, p.y - centre.y)
  return sweep > 0 ? { x: -out.y, y: out.x } : { x: out.y, y: -out.x }
}

export const startsHeading = (piece: Piece) => headingAt(piece, piece.from)
export const endsHeading = (piece: Piece) => headingAt(piece, piece.to)

/** The point beside where a piece starts, square to it; `side` is the distance to the left. */
export const besideStart = (piece: Piece, side: number) => beside(piece.from, startsHeading(piece), side)
export const besideEnd = (piece: Piece, side: number) => beside(piece.to, endsHeading(piece), side)

/** A line without ends, or a whole circle: what a piece lies on once it is moved to its side. */
export type Carrier =
  | { line: true; at: Point2; way: Point2 }
  | { line: false; centre: Point2; radius: number }

export function carrier(piece: Piece, side: number, near: 0 | 1): Carrier {
  if (piece.sweep === 0) {
    const way = startsHeading(piece)
    return { line: true, at: beside(near === 0 ? piece.from : piece.to, way, side), way }
  }
  return { line: false, centre: piece.centre, radius: piece.radii[near] - Math.sign(piece.sweep) * side }
}

/** Where two carriers meet: none, one, or two points. */
export function meetings(a: Carrier, b: Carrier): Point2[] {
  if (a.line && b.line) {
    const turn = cross(a.way, b.way)
    if (turn === 0) return []
    const gap = { x: b.at.x - a.at.x, y: b.at.y - a.at.y }
    return [along(a.at, a.way, cross(gap, b.way) / turn)]
  }
  if (a.line && !b.line) return lineCircle(a.at, a.way, b.centre, b.radius)
  if (!a.line && b.line) return lineCircle(b.at, b.way, a.centre, a.radius)
  if (!a.line && !b.line) return circleCircle(a.centre, a.radius, b.centre, b.radius)
  return []
}

function lineCircle(at: Point2, way: Point2, centre: Point2, radius: number): Point2[] {
  const to = { x: centre.x - at.x, y: centre.y - at.y }
  const foot = dot(to, way)
  const off = cross(way, to)
  const inside = (Math.abs(radius) - Math.abs(off)) * (Math.abs(radius) + Math.abs(off))
  if (inside < 0) return []
  const half = Math.sqrt(inside)
  return [along(at, way, foot - half), along(at, way, foot + half)]
}

function circleCircle(a: Point2, ra: number, b: Point2, rb: number): Point2[] {
  const apart = distance(a, b)
  if (apart === 0) return []
  const way = heading(b.x - a.x, b.y - a.y)
  // Distance from a to the line through both meetings.
  const foot = (apart + ((ra - rb) * (ra + rb)) / apart) / 2
  const inside = (Math.abs(ra) - Math.abs(foot)) * (Math.abs(ra) + Math.abs(foot))
  if (inside < 0) return []
  const half = Math.sqrt(inside)
  const at = along(a, way, foot)
  return [beside(at, way, half), beside(at, way, -half)]
}

/** The length of a piece; of an arc with the mean of its radii. */
export const pieceLength = ({ from, to, sweep, radii }: Piece) =>
  sweep === 0 ? distance(from, to) : Math.abs(sweep) * ((radii[0] + radii[1]) / 2)

/** How far along a piece (0 to 1) the foot of a point on it lies. */
function shareOf({ from, to, sweep, centre }: Piece, p: Point2): number {
  if (sweep === 0) {
    const way = { x: to.x - from.x, y: to.y - from.y }
    const length = dot(way, way)
    return length > 0 ? dot({ x: p.x - from.x, y: p.y - from.y }, way) / length : 0
  }
  const turned = Math.sign(sweep) * angleBetween(from, p, centre)
  return (turned < 0 ? turned + 2 * Math.PI : turned) / Math.abs(sweep)
}

/** Whether two pieces cross at a point that is neither's end by more than a share of it. */
export function crosses(a: Piece, b: Piece, share = 1e-6): boolean {
  if (a.sweep === 0 && b.sweep === 0)
    return linesCross(Float64Array.from([...endsOf(a), ...endsOf(b)]), 0, 4, share)
  const inside = (piece: Piece, p: Point2) => {
    const at = shareOf(piece, p)
    return at > share && at < 1 - share
  }
  return meetings(carrier(a, 0, 0), carrier(b, 0, 0)).some((p) => inside(a, p) && inside(b, p))
}

/**
 * The same of straight pieces, by the shares of both at which their lines meet. Each is four numbers of a list, X and Y of its
 * start and of its end, from the one at `a` and at `b`: handed on as numbers they would cost an object each, a million times.
 */
export function linesCross(numbers: Float64Array, a: number, b: number, share = 1e-6): boolean {
  const ax = numbers[a] as number
  const ay = numbers[a + 1] as number
  const gx = (numbers[b] as number) - ax
  const gy = (numbers[b + 1] as number) - ay
  const ux = (numbers[a + 2] as number) - ax
  const uy = (numbers[a + 3] as number) - ay
  const vx = (numbers[b + 2] as number) - (numbers[b] as number)
  const vy = (numbers[b + 3] as number) - (numbers[b + 1] as number)
  const turn = ux * vy - uy * vx
  // The shares times the square of `turn`: nothing is divided, and where the lines are parallel all of it is 0. One question
  // instead of four, since no machine guesses their answers.
  const all = turn * turn
  const near = share * all
  const first = (gx * vy - gy * vx) * turn
  const second = (gx * uy - gy * ux) * turn
  return Math.min(first, all - first, second, all - second) > near
}

const endsOf = ({ from, to }: Piece) => [from.x, from.y, to.x, to.y]

/** The angle from one point to another about a centre, -pi to pi, counter-clockwise. */
export const angleBetween = (a: Point2, b: Point2, centre: Point2) => {
  const [p, q] = [
    { x: a.x - centre.x, y: a.y - centre.y },
    { x: b.x - centre.x, y: b.y - centre.y },
  ]
  return Math.atan2(cross(p, q), dot(p, q))
}
