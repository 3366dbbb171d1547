import { RADIAN } from './control-state.ts'
import { copyRow, type Passed, passed } from './copy-row.ts'
import type { Diagnoser } from './diagnose.ts'
import { alongArc, arcLength, endOf, FLAG, isArc, type Motion, MotionBuilder, ROW } from './motion.ts'
import type { Triple } from './ways.ts'

/** Halvings of a piece at most: beyond that it turns on the centre line. */
const MOST_HALVINGS = 14
/** Pieces of all rows together at most: beyond that a program is no part that anybody makes. */
const MOST_PIECES = 2_000_000
/** Where a piece is looked at between its ends, as shares of it. */
const LOOKED_AT = [0.25, 0.5, 0.75]

/** A place in the plane across the spindle, by how far from its centre line and at what angle, in radians. */
interface Turned {
  radius: number
  angle: number
}

/** The angle that is a whole number of turns from one angle, nearest to another; radians. */
const nearTo = (angle: number, to: number) => angle - 2 * Math.PI * Math.round((angle - to) / (2 * Math.PI))

/**
 * A motion whose rows on the face of a turned part (polar interpolation) are as the machine makes them: the slide goes out and in, and the
 * spindle turns. r = |(x, y)|, C = atan2(y, x), in pieces so short that along each of them both going evenly the tool stays within `off`
 * of the way that is written; each piece takes its share of the time. `off` is in the unit of the motion.
 */
export function ontoSpindle(motion: Motion, off: number, say?: Diagnoser, most = MOST_PIECES): Passed {
  const out = new MotionBuilder(motion.count * 2 + 64)
  out.states.push(...motion.states)
  for (const event of motion.events) out.events.push(event)
  for (const step of motion.inStep) out.inStep.push(step)
  const firstRow = new Uint32Array(motion.count + 1)
  /** Whole turns, in degrees, that the face left the spindle at beyond what the program counts. */
  let turns = 0
  let made = 0
  /** Where the spindle stands, in radians; undefined before the first row on the face. */
  let angle: number | undefined
  for (let row = 0; row < motion.count; row++) {
    firstRow[row] = out.count
    const kind = motion.kind[row] as number
    const onFace = motion.states[motion.state[row] as number]?.face != null
    const base = (motion.rotary?.[row] ?? 0) + turns
    if (!onFace) {
      if (angle !== undefined) {
        const left = angle / RADIAN
        turns += 360 * Math.round((left - base) / 360)
        angle = undefined
      }
      copyRow(motion, row, out, undefined, turns)
      continue
    }
    angle ??= base * RADIAN
    const from = endOf(motion, row - 1)
    const to = endOf(motion, row)
    if (kind === ROW.EVENT) {
      copyRow(
        motion,
        row,
        out,
        [Math.hypot(from[0], from[1]), 0, from[2]],
        angle / RADIAN - (motion.rotary?.[row] ?? 0),
      )
      continue
    }
    const arc = isArc(kind)
    const at = (share: number): Triple =>
      arc
        ? alongArc(motion, row, share)
        : ([0, 1, 2].map((axis) => mix(from[axis] as number, to[axis] as number, share)) as Triple)
    if (!arc && passesCentre(from, to, off)) {
      const line = motion.line[row] as number
      say?.add({
        code: 'face-centre',
        severity: 'stop',
        line,
        from: 0,
        to: 1,
        says: 'This move goes over the centre line of the spindle.',
        does: 'It would have to turn by half a turn at once: the control stops with an alarm. Go past the centre, or end there.',
      })
    }
    const length = arc
      ? arcLength(motion, row)
      : Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2])
    const feed = motion.feed[row] as number
    const seconds = feed > 0 ? (60 * length) / feed : 0
    const place = ([x, y]: Triple, near: number): Turned => {
      const radius = Math.hypot(x, y)
      // On the centre line any angle will do.
      return { radius, angle: radius < off / 100 ? near : nearTo(Math.atan2(y, x), near) }
    }
    let stands = place(from, angle)
    const put = (share: number, part: number) => {
      const point = at(share)
      stands = place(point, stands.angle)
      out.row(
        kind === ROW.RAPID ? ROW.RAPID : ROW.LINE,
        (motion.flags[row] as number) | FLAG.ROTARY,
        stands.radius,
        0,
        point[2],
        feed,
        motion.line[row] as number,
        motion.state[row] as number,
        -1,
        stands.angle / RADIAN,
        seconds * part,
      )
    }
    const isClose = (a: number, b: number) => {
      const begin = place(at(a), stands.angle)
      const end = place(at(b), begin.angle)
      return LOOKED_AT.every((share) => {
        const [x, y] = at(mix(a, b, share))
        const radius = mix(begin.radius, end.radius, share)
        const turned = mix(begin.angle, end.angle, share)
        return Math.hypot(radius * Math.cos(turned) - x, radius * Math.sin(turned) - y) <= off
      })
    }
    const go = (a: number, b: number, halved: number): void => {
      if (++made === most) tooMany(motion.line[row] as number, say)
      if (made > most || halved >= MOST_HALVINGS || isClose(a, b)) put(b, b - a)
      else {
        const middle = (a + b) / 2
        go(a, middle, halved + 1)
        go(middle, b, halved + 1)
      }
    }
    const sweep = arc ? Math.abs(motion.arcs[6 * (motion.aux[row] as number) + 3] as number) : 0
    const pieces = Math.max(1, Math.ceil(sweep / (Math.PI / 4)))
    for (let n = 0; n < pieces; n++) go(n / pieces, (n + 1) / pieces, 0)
    angle = stands.angle
  }
  firstRow[motion.count] = out.count
  return passed(out, motion, firstRow)
}

const tooMany = (line: number, say: Diagnoser | undefined) =>
  say?.add({
    code: 'too-much',
    severity: 'stop',
    line,
    from: 0,
    to: 1,
    says: 'The face comes to more turns of the spindle than are followed, from this line on.',
    does: 'The control would take very long. What comes after it is not shown as it goes.',
  })

const mix = (a: number, b: number, share: number) => a + (b - a) * share

/** Whether a straight move goes over the centre line itself; not where it begins or ends there. */
function passesCentre([ax, ay]: readonly number[], [bx, by]: readonly number[], off: number): boolean {
  const [px, py, qx, qy] = [ax, ay, bx, by] as [number, number, number, number]
  const [dx, dy] = [qx - px, qy - py]
  const square = dx * dx + dy * dy
  if (square === 0) return false
  const share = -(px * dx + py * dy) / square
  if (share <= 0 || share >= 1) return false
  const near = Math.abs(px * dy - py * dx) / Math.sqrt(square)
  return near < off && Math.hypot(px, py) > off && Math.hypot(qx, qy) > off
}
