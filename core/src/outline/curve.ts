import bspline from 'b-spline'
import { evenScale, mirrors, type OutlinePath, type Placing, placePoint, type Vertex } from './path.ts'

/** A piece of a curve is halved no more often. */
const MOST_HALVINGS = 12

type Point = readonly [number, number]

/** Places looked at between the ends of a chord; the first and the last show whether the curve leaves it there. */
const BETWEEN = [0.001, 1 / 8, 2 / 8, 3 / 8, 4 / 8, 5 / 8, 6 / 8, 7 / 8, 0.999] as const

/** Where a place lies beside a chord: how far from the nearest of its points, and how far along it (0 to 1 between its ends). */
function besideChord([x, y]: Point, [ax, ay]: Point, [bx, by]: Point) {
  const [dx, dy] = [bx - ax, by - ay]
  const long = dx * dx + dy * dy
  const along = long === 0 ? 0 : ((x - ax) * dx + (y - ay) * dy) / long
  const share = Math.min(1, Math.max(0, along))
  return { off: Math.hypot(x - ax - share * dx, y - ay - share * dy), along }
}

/**
 * Places along a curve so close that it is nowhere farther from its chords than a tolerance; looked at between them.
 * A piece that sets out backwards or comes back to its end turns beyond it: such a one is halved until it is as small
 * as the tolerance.
 */
function chords(at: (t: number) => Point, from: number, to: number, tolerance: number): Vertex[] {
  const vertices: Vertex[] = []
  const halve = (a: number, b: number, pa: Point, pb: Point, left: number) => {
    const points = BETWEEN.map((share) => at(a + (b - a) * share))
    const beside = points.map((point) => besideChord(point, pa, pb))
    const turns = (beside[0]?.along ?? 0) < 0 || (beside.at(-1)?.along ?? 0) > 1
    const small = () => points.every(([x, y]) => Math.hypot(x - pb[0], y - pb[1]) <= tolerance)
    if (left === 0 || (beside.every(({ off }) => off <= tolerance) && (!turns || small()))) {
      vertices.push({ x: pb[0], y: pb[1] })
      return
    }
    const half = (a + b) / 2
    const middle = at(half)
    halve(a, half, pa, middle, left - 1)
    halve(half, b, middle, pb, left - 1)
  }
  const first = at(from)
  vertices.push({ x: first[0], y: first[1] })
  halve(from, to, first, at(to), MOST_HALVINGS)
  return vertices
}

/** An ellipse or a piece of one: centre + u cos t + v sin t, from one t to another (radians, counter-clockwise from u to v). */
export interface EllipseArc {
  centre: Point
  u: Point
  v: Point
  from: number
  to: number
}

/** An ellipse as chords. Placed as it is; lengths of the result. */
export function ellipsePath({ centre, u, v, from, to }: EllipseArc, tolerance: number): OutlinePath {
  const sweep = to > from + 1e-12 ? to - from : to - from + 2 * Math.PI
  const at = (t: number): Point => [
    centre[0] + u[0] * Math.cos(t) + v[0] * Math.sin(t),
    centre[1] + u[1] * Math.cos(t) + v[1] * Math.sin(t),
  ]
  // By quarters, so that no half of it is taken for straight.
  const pieces = Math.max(1, Math.ceil(sweep / (Math.PI / 2) - 1e-9))
  const vertices = Array.from({ length: pieces }, (_, n) =>
    chords(at, from + (sweep * n) / pieces, from + (sweep * (n + 1)) / pieces, tolerance),
  ).flatMap((each, n) => (n === 0 ? each : each.slice(1)))
  const whole = sweep > 2 * Math.PI - 1e-9
  return { vertices: whole ? vertices.slice(0, -1) : vertices, closed: whole }
}

/** A spline as drawings have it: rational where it has weights. */
export interface Spline {
  degree: number
  points: readonly Point[]
  knots: readonly number[]
  weights?: readonly number[]
  closed: boolean
}

/** Whether it is one that can be computed. */
export const isSound = ({ degree, points, knots, weights }: Spline) =>
  degree >= 1 &&
  degree <= 25 &&
  points.length > degree &&
  knots.length === points.length + degree + 1 &&
  knots.every((knot, n) => Number.isFinite(knot) && (n === 0 || knot >= (knots[n - 1] as number))) &&
  (knots[degree] as number) < (knots[points.length] as number) &&
  points.every((point) => point.every(Number.isFinite)) &&
  (weights === undefined || (weights.length === points.length && weights.every((weight) => weight > 0)))

/** A spline as chords, span by span. */
export function splinePath(of: Spline, tolerance: number): OutlinePath {
  const { degree, points, knots, weights } = of
  const [low, high] = [knots[degree] as number, knots[points.length] as number]
  const at = (t: number): Point => {
    // The very end is rounded out of the domain.
    const share = Math.min(Math.max((t - low) / (high - low), 0), 1 - 1e-14)
    const [x, y] = bspline(share, degree, points, knots, weights)
    return [x as number, y as number]
  }
  const spans = [...new Set(knots.slice(degree, points.length + 1))]
  const vertices = spans.slice(1).flatMap((to, n) => {
    const each = chords(at, spans[n] as number, to, tolerance)
    return n === 0 ? each : each.slice(1)
  })
  const [first, last] = [vertices[0] as Vertex, vertices.at(-1) as Vertex]
  const meets = Math.hypot(first.x - last.x, first.y - last.y) <= tolerance
  return of.closed && meets ? { vertices: vertices.slice(0, -1), closed: true } : { vertices, closed: false }
}

/** The arc of a bulged piece as an ellipse that is one. */
function arcOf(from: Vertex, to: Vertex, bulge: number): EllipseArc & { clockwise: boolean } {
  const off = (1 - bulge * bulge) / (4 * bulge)
  const [dx, dy] = [to.x - from.x, to.y - from.y]
  const centre: Point = [from.x + dx / 2 - dy * off, from.y + dy / 2 + dx * off]
  const radius = Math.hypot(from.x - centre[0], from.y - centre[1])
  const clockwise = bulge < 0
  const [a, b] = clockwise ? [to, from] : [from, to]
  return {
    centre,
    u: [radius, 0],
    v: [0, radius],
    from: Math.atan2(a.y - centre[1], a.x - centre[0]),
    to: Math.atan2(b.y - centre[1], b.x - centre[0]),
    clockwise,
  }
}

/** An ellipse where a placing puts it. */
export const ellipseIn = (of: EllipseArc, placing: Placing): EllipseArc => {
  const direct = ([x, y]: Point): Point => [placing.a * x + placing.c * y, placing.b * x + placing.d * y]
  return { ...of, centre: placePoint(placing, ...of.centre), u: direct(of.u), v: direct(of.v) }
}

/** A line of an outline where a placing puts it: arcs stay arcs where they can, else they become chords. */
export function pathIn({ vertices, closed }: OutlinePath, placing: Placing, tolerance: number): OutlinePath {
  const even = evenScale(placing) !== undefined
  const sign = mirrors(placing) ? -1 : 1
  const placed = vertices.flatMap((vertex, n): Vertex[] => {
    const [x, y] = placePoint(placing, vertex.x, vertex.y)
    const { bulge } = vertex
    const next = vertices[n + 1] ?? (closed ? vertices[0] : undefined)
    if (!bulge || !next) return [{ x, y }]
    if (even) return [{ x, y, bulge: sign * bulge }]
    const arc = arcOf(vertex, next, bulge)
    const found = ellipsePath(ellipseIn(arc, placing), tolerance).vertices
    const way = arc.clockwise ? found.toReversed() : found
    return [{ x, y }, ...way.slice(1, -1)]
  })
  return { vertices: placed, closed }
}
