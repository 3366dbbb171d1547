import { alongArc, endOf, isArc, type Motion, ROW } from '../program/index.ts'
import type { MachineSpeeds } from '../timing/index.ts'
import type { Triple } from './body.ts'

/** How far a chord may lie off its arc, as a share of the radius, and the most pieces. */
const CHORD = 0.0005
const MOST_CHORDS = 256

/**
 * The corners of the path that a rapid really takes, from its start to its end. Dogleg: every axis runs at its own top
 * until it arrives (t = |d| / v, trade.md 9), so up to three straight pieces; straight: one.
 */
export function rapidPath(
  from: Triple,
  to: Triple,
  speeds: Pick<MachineSpeeds, 'rapid' | 'straightRapids'>,
): Triple[] {
  if (speeds.straightRapids) return [from, to]
  const d = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const
  const times = d.map((each, axis) => Math.abs(each) / (speeds.rapid[axis as 0 | 1 | 2] as number))
  const moments = [...new Set(times)].filter((time) => time > 0).sort((a, b) => a - b)
  const at = (time: number): Triple => {
    const place = (axis: 0 | 1 | 2) =>
      time >= (times[axis] as number) ? to[axis] : from[axis] + (d[axis] * time) / (times[axis] as number)
    return [place(0), place(1), place(2)]
  }
  return [from, ...moments.map(at)]
}

/** The corners of the path of any row: arcs as chords, rapids as the machine makes them. */
export function pathOf(
  motion: Motion,
  row: number,
  speeds: Pick<MachineSpeeds, 'rapid' | 'straightRapids'>,
): Triple[] {
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
