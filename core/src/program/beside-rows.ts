import type { Piece, PlanePoint } from '../geometry/index.ts'
import { copyRow, type Passed, passed } from './copy-row.ts'
import { isArc, type Motion, MotionBuilder, PLANE_AXES, ROW } from './motion.ts'
import type { Triple } from './ways.ts'

/** Of a row of which nothing came yet. */
const NO_ROW = 2 ** 32 - 1

/** The rows of a motion as they go beside the written one: the tool's centre in a plane, handed on as the point that the motion follows. */
export class BesideRows {
  private readonly motion: Motion
  private readonly out: MotionBuilder
  private readonly firstRow: Uint32Array
  /** Where the tool stands. */
  private readonly at: Triple
  axes = PLANE_AXES[17]
  /** In the plane, from the tool's centre to the point of it that the motion follows: on a lathe the imaginary tip. */
  shift: PlanePoint = { x: 0, y: 0 }

  constructor(motion: Motion) {
    this.motion = motion
    this.out = new MotionBuilder(motion.count * 1.2 + 64)
    this.out.states.push(...motion.states)
    for (const event of motion.events) this.out.events.push(event)
    for (const step of motion.inStep) this.out.inStep.push(step)
    this.firstRow = new Uint32Array(motion.count + 1).fill(NO_ROW)
    this.at = [...motion.start]
  }

  /** A row of its own kind, as it is written or to another place. */
  copy(row: number, to: Triple): void {
    this.begin(row)
    copyRow(this.motion, row, this.out, to)
    this.stand(to)
  }

  /** A row that does not move in the plane: its own kind, where the tool stands there. */
  still(row: number): void {
    const { motion, at } = this
    const [first, second] = this.axes
    const to: Triple = [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number]
    to[first] = at[first]
    to[second] = at[second]
    this.copy(row, to)
  }

  /** A row along a piece of the tool's centre, to where its own end is across the plane. */
  along(row: number, piece: Piece, feed: number): void {
    const { motion } = this
    const to: Triple = [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number]
    this.row(row, piece, to, feed, piece.sweep !== 0 && isArc(motion.kind[row] as number))
  }

  /** A row of its own that leads round a corner to another row, where the tool stands across the plane. */
  round(row: number, piece: Piece): void {
    const { motion } = this
    const arc = piece.sweep !== 0 && motion.kind[row] !== ROW.RAPID
    this.row(row, piece, [...this.at], motion.feed[row] as number, arc)
  }

  /** A straight row at feed; `to` has where it ends, in the axes of the motion. */
  straight(row: number, to: Triple): void {
    const { motion } = this
    this.begin(row)
    const [feed, line] = [motion.feed[row] as number, motion.line[row] as number]
    this.out.row(
      ROW.LINE,
      motion.flags[row] as number,
      to[0],
      to[1],
      to[2],
      feed,
      line,
      motion.state[row] as number,
    )
    this.stand(to)
  }

  private row(row: number, piece: Piece, to: Triple, feed: number, arc: boolean): void {
    const { motion, out, shift } = this
    const [first, second] = this.axes
    this.begin(row)
    let kind: number = motion.kind[row] === ROW.RAPID ? ROW.RAPID : ROW.LINE
    let aux = -1
    if (arc) {
      const centre: Triple = [...this.at]
      centre[first] = piece.centre.x + shift.x
      centre[second] = piece.centre.y + shift.y
      kind = piece.sweep < 0 ? ROW.ARC_CW : ROW.ARC_CCW
      aux = out.arc(...centre, piece.sweep, ...piece.radii)
    }
    to[first] = piece.to.x + shift.x
    to[second] = piece.to.y + shift.y
    const [line, state] = [motion.line[row] as number, motion.state[row] as number]
    const rotary = motion.rotary?.[row] ?? 0
    out.row(kind, motion.flags[row] as number, to[0], to[1], to[2], feed, line, state, aux, rotary)
    this.stand(to)
  }

  private begin(row: number): void {
    if (this.firstRow[row] === NO_ROW) this.firstRow[row] = this.out.count
  }

  private stand(to: Triple): void {
    this.at[0] = to[0]
    this.at[1] = to[1]
    this.at[2] = to[2]
  }

  done(): Passed {
    const { motion, out, firstRow } = this
    firstRow[motion.count] = out.count
    return passed(out, motion, firstRow)
  }
}
