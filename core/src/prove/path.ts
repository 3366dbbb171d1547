import { alongArc, endOf, isArc, type Motion, ROW } from '../program/index.ts'
import type { Triple } from './body.ts'
import { goesStraight, type RapidSpeeds, rapidCurve } from './rapid.ts'

/** How far a chord may lie off its arc, as a share of the radius, and the most pieces. */
const CHORD = 0.0005
const MOST_CHORDS = 256

/** What may be left out of the drawing of a curve, as a share of its length. */
const FLAT = 0.0005

/** Leaves out what lies on a straight line between its neighbours. */
function thinned(path: readonly Triple[]): Triple[] {
  const [first, last] = [path[0] as Triple, path.at(-1) as Triple]
  const least = FLAT * Math.hypot(last[0] - first[0], last[1] - first[1], last[2] - first[2])
  const kept: Triple[] = [first]
  let from = 0
  for (let n = 1; n < path.length - 1; n++) {
    const [a, b] = [path[from], path[n + 1]] as [Triple, Triple]
    const between = path.slice(from + 1, n + 1)
    if (between.every((point) => fromChord(point, a, b) <= least)) continue
    kept.push(path[n] as Triple)
    from = n
  }
  kept.push(last)
  return kept
}

/** How far a point is from the line from one place to another. */
function fromChord(point: Triple, a: Triple, b: Triple): number {
  const along = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const
  const off = [point[0] - a[0], point[1] - a[1], point[2] - a[2]] as const
  const square = along[0] ** 2 + along[1] ** 2 + along[2] ** 2
  const share = square === 0 ? 0 : (off[0] * along[0] + off[1] * along[1] + off[2] * along[2]) / square
  return Math.hypot(off[0] - share * along[0], off[1] - share * along[1], off[2] - share * along[2])
}

/**
 * The places of the path that a rapid takes at 100 %, from its start to its end: every axis by its own trapezoid where
 * the control goes dogleg (trade.md 9), one line where it goes straight.
 */
export const rapidPath = (from: Triple, to: Triple, speeds: RapidSpeeds): Triple[] =>
  goesStraight(from, to, speeds)
    ? [from, to]
    : thinned(rapidCurve(from, to, speeds).map(({ least }) => least))

/** The corners of the path of any row: arcs as chords, rapids as the machine makes them. */
export function pathOf(motion: Motion, row: number, speeds: RapidSpeeds): Triple[] {
  const kind = motion.kind[row] as number
  const from = endOf(motion, row - 1)
  const to = endOf(motion, row)
  if (kind === ROW.EVENT) return [to]
  if (kind === ROW.RAPID) return rapidPath(from, to, speeds)
  if (!isArc(kind)) return [from, to]
  const sweep = Math.abs(motion.arcs[6 * (motion.aux[row] as number) + 3] as number)
  const pieces = Math.min(MOST_CHORDS, Math.max(2, Math.ceil(sweep / (2 * Math.acos(1 - CHORD)))))
  return Array.from({ length: pieces + 1 }, (_, n) => (n === 0 ? from : alongArc(motion, row, n / pieces)))
}
