import type { Box, Solid, Triple } from './body.ts'
import type { BlockPart, FlatPart, RoundPart, ToolPart } from './tool-parts.ts'

/** Overlaps smaller than this are touches: a tool that slides along a face does not hit it. In either unit. */
const TOUCH = 1e-6

/** From when to when of a move, as shares of it. */
type Spell = [enter: number, leave: number]

/** Keeps of a spell what lies before or after the moment at which a + d t > 0 changes. */
function whilePositive(a: number, d: number, spell: Spell): boolean {
  if (d === 0) return a > 0 && spell[0] < spell[1]
  const t = -a / d
  if (d > 0) {
    if (t > spell[0]) spell[0] = t
  } else if (t < spell[1]) spell[1] = t
  return spell[0] < spell[1]
}

/**
 * Keeps of a spell while a stretch, whose ends go from `low` to `lowTo` and from `high` to `highTo`, reaches into
 * that from `least` to `greatest`.
 */
const whileMeets = (
  low: number,
  lowTo: number,
  high: number,
  highTo: number,
  least: number,
  greatest: number,
  spell: Spell,
): boolean =>
  whilePositive(greatest - low, low - lowTo, spell) && whilePositive(high - least, highTo - high, spell)

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

/** Where the tip may be when a piece of a move begins or ends: one place, or anywhere in a box. */
export interface Place {
  least: Triple
  greatest: Triple
}

/** A tip that stands at one place. */
export const placeAt = (at: Triple): Place => ({ least: at, greatest: at })

/**
 * When a standing cylinder of a tool, moved in a straight line, first goes into a solid: the share of the move, or
 * Infinity. Exact: the solid is grown by the cylinder (a rectangle with rounded corners, or a larger circle) and met by
 * the tip; heights are a slab of their own. Where the tip is only known to be in a box, whose corners go straight from
 * those of `from` to those of `to`, it is met by that box.
 */
export function sweepRound(part: RoundPart, from: Place, to: Place, solid: Solid): number {
  const { least, greatest } = solid.box
  const r = part.radius - TOUCH
  const [a, b, c, d] = [from.least, from.greatest, to.least, to.greatest]
  const span: Spell = [0, 1]
  const bottom = least[2] - part.to + TOUCH
  if (!whileMeets(a[2], c[2], b[2], d[2], bottom, greatest[2] - part.from - TOUCH, span))
    return Number.POSITIVE_INFINITY
  if (solid.kind === 'round') {
    const reach = r + solid.radius - TOUCH
    const round: Box = { least: [solid.x, solid.y, 0], greatest: [solid.x, solid.y, 0] }
    return reach > 0 ? roundedRectangle(from, to, round, reach, span) : Number.POSITIVE_INFINITY
  }
  if (r > 0) return roundedRectangle(from, to, solid.box, r, span)
  const meets =
    whileMeets(a[0], c[0], b[0], d[0], least[0] - r, greatest[0] + r, span) &&
    whileMeets(a[1], c[1], b[1], d[1], least[1] - r, greatest[1] + r, span)
  return meets ? span[0] : Number.POSITIVE_INFINITY
}

/** When the tip's box first comes nearer to a rectangle (in X and Y) than a radius, within a span of the move. */
function roundedRectangle(
  from: Place,
  to: Place,
  { least, greatest }: Box,
  radius: number,
  span: Spell,
): number {
  const [a, b, c, d] = [from.least, from.greatest, to.least, to.greatest]
  let first = Number.POSITIVE_INFINITY
  const wide: Spell = [span[0], span[1]]
  if (
    whileMeets(a[0], c[0], b[0], d[0], least[0] - radius, greatest[0] + radius, wide) &&
    whileMeets(a[1], c[1], b[1], d[1], least[1], greatest[1], wide)
  )
    first = wide[0]
  const tall: Spell = [span[0], span[1]]
  if (
    whileMeets(a[0], c[0], b[0], d[0], least[0], greatest[0], tall) &&
    whileMeets(a[1], c[1], b[1], d[1], least[1] - radius, greatest[1] + radius, tall)
  )
    first = Math.min(first, tall[0])
  // Of the tip's box the corner that faces this one.
  for (const right of [false, true])
    for (const back of [false, true]) {
      const x = right ? a[0] - greatest[0] : b[0] - least[0]
      const y = back ? a[1] - greatest[1] : b[1] - least[1]
      const dx = right ? c[0] - a[0] : d[0] - b[0]
      const dy = back ? c[1] - a[1] : d[1] - b[1]
      // Only while the corner is outside in both: else the sides above have said it.
      const outside: Spell = [span[0], span[1]]
      const apart =
        whileNotNegative(right ? x : -x, right ? dx : -dx, outside) &&
        whileNotNegative(back ? y : -y, back ? dy : -dy, outside)
      if (apart) first = Math.min(first, circle(x, y, dx, dy, radius, outside[0], outside[1]))
    }
  return first
}

/** As `whilePositive`, with zero. */
const whileNotNegative = (a: number, d: number, spell: Spell): boolean =>
  d === 0 ? a >= 0 && spell[0] < spell[1] : whilePositive(a, d, spell)

/** The same for a rectangle of a lathe's tool, in the plane through the centre line where it stands. */
function sweepFlat(part: FlatPart, from: Place, to: Place, { box: { least, greatest } }: Solid): number {
  const span: Spell = [0, 1]
  const [a, b, c, d] = [from.least, from.greatest, to.least, to.greatest]
  const meets =
    whileMeets(a[0], c[0], b[0], d[0], least[0] - part.x[1] + TOUCH, greatest[0] - part.x[0] - TOUCH, span) &&
    whileMeets(a[1], c[1], b[1], d[1], least[1], greatest[1], span) &&
    whileMeets(a[2], c[2], b[2], d[2], least[2] - part.z[1] + TOUCH, greatest[2] - part.z[0] - TOUCH, span)
  return meets ? span[0] : Number.POSITIVE_INFINITY
}

/** The same for what is square: on a standing cylinder a box that holds it is met. */
function sweepBlock(part: BlockPart, from: Place, to: Place, { box: { least, greatest } }: Solid): number {
  const span: Spell = [0, 1]
  const spans = [part.x, part.y, [part.from, part.to]] as const
  const meets = ([0, 1, 2] as const).every((axis) =>
    whileMeets(
      from.least[axis],
      to.least[axis],
      from.greatest[axis],
      to.greatest[axis],
      least[axis] - spans[axis][1] + TOUCH,
      greatest[axis] - spans[axis][0] - TOUCH,
      span,
    ),
  )
  return meets ? span[0] : Number.POSITIVE_INFINITY
}

/** When any piece of a tool first goes into a solid: the share of the move, or Infinity. */
export function sweep(part: ToolPart, from: Place, to: Place, solid: Solid): number {
  if (part.form === 'flat') return sweepFlat(part, from, to, solid)
  return part.form === 'block' ? sweepBlock(part, from, to, solid) : sweepRound(part, from, to, solid)
}

export const boxesMeet = (a: Box, b: Box) =>
  a.least[0] < b.greatest[0] &&
  a.greatest[0] > b.least[0] &&
  a.least[1] < b.greatest[1] &&
  a.greatest[1] > b.least[1] &&
  a.least[2] < b.greatest[2] &&
  a.greatest[2] > b.least[2]
