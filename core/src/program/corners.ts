import { arc, type Piece, straight } from '../geometry/index.ts'
import { copyRow, type Passed, passed } from './copy-row.ts'
import type { Diagnoser } from './diagnose.ts'
import { isArc, type Motion, MotionBuilder, PLANE_AXES, ROW } from './motion.ts'

/** A chamfer or rounding that the move of a row asks for at its end. */
export interface Corner {
  row: number
  by: 'chamfer' | 'round'
  /** How far from the corner a chamfer begins and ends, or the radius. */
  size: number
}

/** Straight moves that turn by less than this have no corner; in radians. */
const NO_TURN = 1e-9

/**
 * Puts the chamfers and roundings of corners into a motion: between a straight feed move that asks for one and the next, which is one in the
 * same plane. A chamfer goes from so far before the corner to so far after it; a rounding is the arc that touches both moves,
 * R tan(t/2) from the corner of a turn by t. Common practice. What a control stops at is said at its line.
 */
export function withCorners(written: Motion, corners: readonly Corner[], say: Diagnoser): Passed {
  const out = new MotionBuilder(written.count + corners.length + 64)
  out.states.push(...written.states)
  out.events.push(...written.events)
  out.inStep.push(...written.inStep)
  const firstRow = new Uint32Array(written.count + 1)
  const asked = new Map(corners.map((corner) => [corner.row, corner]))
  for (let row = 0; row < written.count; row++) {
    firstRow[row] = out.count
    const corner = asked.get(row)
    const made = corner && cornerAt(written, out, row, corner)
    if (typeof made === 'string') {
      say.add({
        code: 'corner',
        severity: 'stop',
        line: written.line[row] as number,
        from: 0,
        to: 1,
        says: made,
        does: 'The control stops with an alarm.',
      })
      copyRow(written, row, out)
    } else if (made) {
      const [first, second] = PLANE_AXES[planeOf(written, row)]
      const to = [written.x[row], written.y[row], written.z[row]] as [number, number, number]
      ;[to[first], to[second]] = [made.from.x, made.from.y]
      copyRow(written, row, out, to)
      const end = [...to] as [number, number, number]
      ;[end[first], end[second]] = [made.to.x, made.to.y]
      const middle = [...to] as [number, number, number]
      ;[middle[first], middle[second]] = [made.centre.x, made.centre.y]
      const aux = made.sweep === 0 ? -1 : out.arc(...middle, made.sweep, ...made.radii)
      out.row(
        made.sweep === 0 ? ROW.LINE : made.sweep < 0 ? ROW.ARC_CW : ROW.ARC_CCW,
        written.flags[row] as number,
        ...end,
        written.feed[row] as number,
        written.line[row] as number,
        written.state[row] as number,
        aux,
      )
    } else copyRow(written, row, out)
  }
  firstRow[written.count] = out.count
  return passed(out, written, firstRow)
}

const planeOf = ({ states, state }: Motion, row: number) => states[state[row] as number]?.plane ?? 17

/** What goes over the corner at the end of a row; in words why there is none; undefined where the moves go straight on. */
function cornerAt(
  of: Motion,
  out: MotionBuilder,
  row: number,
  { by, size }: Corner,
): Piece | string | undefined {
  const what = by === 'chamfer' ? 'chamfer' : 'rounding'
  const plane = planeOf(of, row)
  const [first, second, normal] = PLANE_AXES[plane]
  const next = row + 1
  const place = (n: number) => [of.x[n], of.y[n], of.z[n]] as [number, number, number]
  if (next >= of.count || of.kind[next] !== ROW.LINE || planeOf(of, next) !== plane)
    return isArc(of.kind[next] ?? -1)
      ? `A ${what} between a straight move and an arc is not followed.`
      : `After a ${what} the next line has no straight move at feed in its plane.`
  const [at, to] = [place(row), place(next)]
  // From where the corner before it ends: it may have taken a piece of this move.
  const from =
    out.count === 0 ? [...of.start] : [out.x[out.count - 1], out.y[out.count - 1], out.z[out.count - 1]]
  if (from[normal] !== at[normal] || to[normal] !== at[normal])
    return `A ${what} at the end of a move that leaves its plane.`
  const p = { x: at[first], y: at[second] }
  const before = straight({ x: from[first] as number, y: from[second] as number }, p)
  const after = straight(p, { x: to[first], y: to[second] })
  const turn = Math.atan2(
    before.way.x * after.way.y - before.way.y * after.way.x,
    before.way.x * after.way.x + before.way.y * after.way.y,
  )
  if (Math.abs(turn) < NO_TURN) return undefined
  const back = by === 'chamfer' ? size : size * Math.tan(Math.abs(turn) / 2)
  const length = ({ from: a, to: b }: Piece) => Math.hypot(b.x - a.x, b.y - a.y)
  if (!(back < length(before) + 1e-9) || !(back < length(after) + 1e-9))
    return `The ${what} of ${Number(size.toPrecision(6))} is longer than a move beside it.`
  const begin = { x: p.x - back * before.way.x, y: p.y - back * before.way.y }
  const end = { x: p.x + back * after.way.x, y: p.y + back * after.way.y }
  if (by === 'chamfer') return straight(begin, end)
  const left = Math.sign(turn) * size
  return arc(begin, end, { x: begin.x - left * before.way.y, y: begin.y + left * before.way.x }, turn)
}
