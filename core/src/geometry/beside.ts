import {
  along,
  angleBetween,
  arc,
  beside,
  besideEnd,
  besideStart,
  carrier,
  cross,
  dot,
  endsHeading,
  meetings,
  type Piece,
  type Point2,
  startsHeading,
  straight,
} from './piece.ts'
import { distance } from './point.ts'

/** How a control leads the tool round the outside of a corner. */
export interface Rounding {
  outside: 'arc' | 'lines'
  /** Beside a corner that leads out less than this, the pieces are lengthened until they meet: no piece of its own. */
  least: number
}

/** Where the tool's path beside one piece goes over into that beside the next. */
export interface Corner {
  /** Where the path beside the first piece ends, and where that beside the second starts. */
  end: Point2
  start: Point2
  /** What leads from one to the other. */
  between: readonly Piece[]
  /** Beside the path they do not meet: the tool does not fit in. */
  apart?: true
}

const NONE: readonly Piece[] = []
const meets = (at: Point2): Corner => ({ end: at, start: at, between: NONE })

/**
 * Goes from the path beside one piece to that beside the next, which starts where the first ends. `before` and `after` are
 * the distances to the left of each (negative: to the right). Outside, an arc about the corner or straight pieces along both
 * headings, each no longer than the distance; inside, where the two paths cross. Common practice of controls.
 */
export function corner(first: Piece, second: Piece, before: number, after: number, how: Rounding): Corner {
  const quick = ofLines(first, second, before, after, how)
  if (quick) return meets(quick)
  const p = second.from
  const [ways, way] = [endsHeading(first), startsHeading(second)]
  const [end, start] = [beside(first.to, ways, before), beside(p, way, after)]
  const turn = Math.atan2(cross(ways, way), dot(ways, way))
  // On the other side, or with another radius: crossing where they do, else from one to the other.
  if (before !== after) {
    const at = crossing(first, second, before, after)
    return at ? meets(at) : { end, start, between: [straight(end, start)] }
  }
  if (distance(end, start) <= 1e-12 * Math.max(1, Math.abs(before))) return meets(start)
  if (turn * before > 0) {
    const at = crossing(first, second, before, after)
    return at ? meets(at) : { end, start, between: [straight(end, start)], apart: true }
  }
  const half = Math.abs(turn) / 2
  // Where both headings, lengthened, meet: the distance over the cosine of half the turn from the corner.
  const reach = Math.abs(before) * Math.tan(half)
  if (how.outside === 'arc') return { end, start, between: [arc(end, start, p, turn)] }
  // Each piece is lengthened as far as both meet, but by no more than the distance: a sharper corner is cut off there.
  const longer = Math.min(reach, Math.abs(before))
  const [a, b] = [along(end, ways, longer), along(start, way, -longer)]
  const across = reach > longer ? [straight(a, b)] : []
  return {
    // A straight piece runs on by itself; an arc needs a straight one after it.
    end: first.sweep === 0 ? a : end,
    start: second.sweep === 0 ? b : start,
    between: [
      ...(first.sweep === 0 ? [] : [straight(end, a)]),
      ...across,
      ...(second.sweep === 0 ? [] : [straight(b, start)]),
    ],
  }
}

/** Where two straight pieces go over into each other without a piece between, which is how most corners are. */
function ofLines(
  first: Piece,
  second: Piece,
  before: number,
  after: number,
  how: Rounding,
): Point2 | undefined {
  if (first.sweep !== 0 || second.sweep !== 0 || before !== after) return undefined
  const { way: a, to: p } = first
  const b = second.way
  const by = lengthenedBy(a.x, a.y, b.x, b.y, before, how.outside === 'lines', how.least)
  return Number.isNaN(by) ? undefined : { x: p.x - by * (a.y + b.y), y: p.y + by * (a.x + b.x) }
}

/**
 * Both paths beside two straight pieces, lengthened or cut off, meet at the corner + by (n + m), by = side / (1 + n m), n and m square
 * to the pieces to the left: `by`, for the ways (ax, ay) and (bx, by) that the pieces go; NaN where a piece comes between or they do not meet near by.
 */
export function lengthenedBy(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  side: number,
  lines: boolean,
  least: number,
): number {
  const cosine = ax * bx + ay * by
  // Nearly back: inside they do not meet near by, outside they are led round.
  if (cosine < -0.999_999) return Number.NaN
  const outside = (ax * by - ay * bx) * side < 0
  if (outside && !(lines && cosine >= 0)) {
    const both = Math.abs(side) * (Math.SQRT2 / Math.sqrt(1 + cosine) - 1)
    if (both > least) return Number.NaN
  }
  return side / (1 + cosine)
}

/** Where the paths beside two pieces cross, the nearest to the corner between them. */
function crossing(first: Piece, second: Piece, before: number, after: number): Point2 | undefined {
  const p = second.from
  let best: Point2 | undefined
  for (const at of meetings(carrier(first, before, 1), carrier(second, after, 0)))
    if (!best || distance(at, p) < distance(best, p)) best = at
  return best
}

/** What keeps the tool from going beside a piece. */
export type Obstacle = 'arc-smaller' | 'backwards'

/**
 * The path beside a piece from one point to another, which lie on it; or why there is none. `slack` is by how much it may run
 * backwards, as the rounding of what is written makes it do.
 */
export function besidePiece(
  piece: Piece,
  side: number,
  from: Point2,
  to: Point2,
  slack: number,
): Piece | Obstacle {
  if (piece.sweep === 0) {
    const { way } = piece
    const along = (to.x - from.x) * way.x + (to.y - from.y) * way.y
    return along < -slack ? 'backwards' : { from, to, sweep: 0, centre: from, radii: piece.radii, way }
  }
  const { centre, sweep } = piece
  const left = Math.sign(sweep)
  const radius = piece.radii[0] - left * side
  if (radius < -slack) return 'arc-smaller'
  if (radius <= slack) return straight(from, to)
  // How far along its start and its end were moved, in the direction of travel.
  const begins = left * angleBetween(besideStart(piece, side), from, centre)
  const ends = left * angleBetween(besideEnd(piece, side), to, centre)
  const swept = Math.abs(sweep) - begins + ends
  if (swept * radius < -slack) return 'backwards'
  return swept <= 0 ? straight(from, to) : arc(from, to, centre, left * swept)
}
