import type { Box, Solid, Triple } from './body.ts'
import type { FlatPart, RoundPart, ToolPart } from './tool-parts.ts'

/** Overlaps smaller than this are touches: a tool that slides along a face does not hit it. In either unit. */
const TOUCH = 1e-6

/** The share (0 to 1) of a move from which on a value that goes from `a` by `d` lies between two others, or none. */
function slab(a: number, d: number, least: number, greatest: number, span: [number, number]): boolean {
  if (d === 0) return a > least && a < greatest
  const t0 = (least - a) / d
  const t1 = (greatest - a) / d
  const [enter, leave] = t0 < t1 ? [t0, t1] : [t1, t0]
  if (enter > span[0]) span[0] = enter
  if (leave < span[1]) span[1] = leave
  return span[0] < span[1]
}

/** When a point that moves from (x, y) by (dx, dy) is first within a circle, inside a span of the move; Infinity for never. */
function circle(
  x: number,
  y: number,
  dx: number,
  dy: number,
  radius: number,
  from: number,
  to: number,
): number {
  const a = dx * dx + dy * dy
  const b = x * dx + y * dy
  const c = x * x + y * y - radius * radius
  if (a === 0) return c < 0 ? from : Number.POSITIVE_INFINITY
  const root = b * b - a * c
  if (root <= 0) return Number.POSITIVE_INFINITY
  const half = Math.sqrt(root)
  const enter = Math.max((-b - half) / a, from)
  const leave = Math.min((-b + half) / a, to)
  return enter < leave ? enter : Number.POSITIVE_INFINITY
}

/**
 * When a standing cylinder of a tool, moved in a straight line, first goes into a solid: the share of the move, or
 * Infinity. Exact: the solid is grown by the cylinder (a rectangle with rounded corners, or a larger circle) and met by
 * a point; heights are a slab of their own.
 */
export function sweepRound(part: RoundPart, from: Triple, to: Triple, solid: Solid): number {
  const { least, greatest } = solid.box
  const r = part.radius - TOUCH
  const [dx, dy, dz] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]]
  const span: [number, number] = [0, 1]
  if (!slab(from[2], dz, least[2] - part.to + TOUCH, greatest[2] - part.from - TOUCH, span))
    return Number.POSITIVE_INFINITY
  if (solid.kind === 'round')
    return circle(from[0] - solid.x, from[1] - solid.y, dx, dy, r + solid.radius - TOUCH, span[0], span[1])
  const grow = Math.max(r, 0)
  const shrink = Math.min(r, 0)
  let first = Number.POSITIVE_INFINITY
  const wide: [number, number] = [...span]
  if (
    slab(from[0], dx, least[0] - grow - shrink, greatest[0] + grow + shrink, wide) &&
    slab(from[1], dy, least[1] - shrink, greatest[1] + shrink, wide)
  )
    first = wide[0]
  const tall: [number, number] = [...span]
  if (
    slab(from[0], dx, least[0] - shrink, greatest[0] + shrink, tall) &&
    slab(from[1], dy, least[1] - grow - shrink, greatest[1] + grow + shrink, tall)
  )
    first = Math.min(first, tall[0])
  if (grow > 0)
    for (const cx of [least[0], greatest[0]])
      for (const cy of [least[1], greatest[1]])
        first = Math.min(first, circle(from[0] - cx, from[1] - cy, dx, dy, grow, span[0], span[1]))
  return first
}

/** The same for a rectangle of a lathe's tool, in the plane through the centre line where it stands. */
function sweepFlat(part: FlatPart, from: Triple, to: Triple, { box: { least, greatest } }: Solid): number {
  const span: [number, number] = [0, 1]
  const [dx, dy, dz] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]]
  const meets =
    slab(from[0], dx, least[0] - part.x[1] + TOUCH, greatest[0] - part.x[0] - TOUCH, span) &&
    slab(from[1], dy, least[1], greatest[1], span) &&
    slab(from[2], dz, least[2] - part.z[1] + TOUCH, greatest[2] - part.z[0] - TOUCH, span)
  return meets ? span[0] : Number.POSITIVE_INFINITY
}

/** When any piece of a tool first goes into a solid: the share of the move, or Infinity. */
export const sweep = (part: ToolPart, from: Triple, to: Triple, solid: Solid): number =>
  part.form === 'flat' ? sweepFlat(part, from, to, solid) : sweepRound(part, from, to, solid)

export const boxesMeet = (a: Box, b: Box) =>
  a.least[0] < b.greatest[0] &&
  a.greatest[0] > b.least[0] &&
  a.least[1] < b.greatest[1] &&
  a.greatest[1] > b.least[1] &&
  a.least[2] < b.greatest[2] &&
  a.greatest[2] > b.least[2]
