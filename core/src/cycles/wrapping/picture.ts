import { arcFrom, chordsOf, type FlatArc, type FlatMove } from './flat.ts'
import type { WrapSizes } from './sizes.ts'

type Point = readonly [x: number, y: number]

/** What is cut, as lines over the flat layout for drawing; a hole is a line of one point. */
export function flatLines({ moves, chord }: Pick<WrapSizes, 'moves' | 'chord'>): Point[][] {
  const lines: Point[][] = []
  let line: Point[] | undefined
  let before: FlatMove | undefined
  for (const move of moves) {
    if (move.does === 'rapid' || move.z >= 0) line = undefined
    else {
      if (!line) {
        line = [before ? [before.x, before.y] : [move.x, move.y]]
        lines.push(line)
      }
      if (move.does === 'arc') line.push(...arcPoints(move, before ?? move, chord))
      else if (before && (move.x !== before.x || move.y !== before.y)) line.push([move.x, move.y])
    }
    before = move
  }
  return lines
}

/** Pieces of an arc beyond these are not seen. */
const MOST_PIECES = 120

function arcPoints(move: FlatArc, from: FlatMove, chord: number): Point[] {
  const { sweep, size, ends } = arcFrom(move, from)
  return ends(Math.min(MOST_PIECES, chordsOf(Math.abs(sweep), size, 10 * chord)))
}

/** How the cylinder is looked at: from the front, a little from the right and from above. */
const AZIMUTH = 0.6
const ELEVATION = 0.35
const [CA, SA, CE, SE] = [Math.cos(AZIMUTH), Math.sin(AZIMUTH), Math.cos(ELEVATION), Math.sin(ELEVATION)]

/** A point in space as it is seen: right and up, in the same unit; parallel, without perspective. */
export const seen = (x: number, y: number, z: number): { x: number; y: number } => ({
  x: x * CA + y * SA,
  y: -x * SA * SE + y * CA * SE + z * CE,
})

/** Towards the eye. */
const EYE = [SA * CE, -CA * CE, SE] as const

/** A point of the flat layout on the cylinder: its place as it is seen, and whether it is on the near side. `turned`: degrees that the layout is turned back. */
export function onCylinder(x: number, y: number, radius: number, mapped: number, turned: number) {
  const angle = y / mapped - (turned * Math.PI) / 180
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  return { ...seen(x, radius * sin, radius * cos), near: sin * EYE[1] + cos * EYE[2] > 0 }
}

/** The outline of a cylinder from x0 to x1 along its axis: its two ends, and the two lines that bound it. */
export function cylinderOutline(x0: number, x1: number, radius: number) {
  const around = Array.from({ length: 49 }, (_, n) => (n * Math.PI) / 24)
  const ring = (x: number) =>
    around.map((angle) => seen(x, radius * Math.sin(angle), radius * Math.cos(angle)))
  // The face is seen edge on where its normal stands square to the eye.
  const edge = Math.atan2(-EYE[2], EYE[1])
  const sides = [edge, edge + Math.PI].map((angle) =>
    [x0, x1].map((x) => seen(x, radius * Math.sin(angle), radius * Math.cos(angle))),
  )
  return { near: ring(x1), far: ring(x0), sides }
}

/** An arc over the cylinder's top, the way that the top goes: towards Y plus, or minus. */
export const turningArrow = (x: number, radius: number, towards: 1 | -1) =>
  Array.from({ length: 13 }, (_, n) => {
    const angle = towards * (-0.5 + n / 12)
    return seen(x, 1.18 * radius * Math.sin(angle), 1.18 * radius * Math.cos(angle))
  })
