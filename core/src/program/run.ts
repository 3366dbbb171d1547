import type { ContourPiece } from './contour-piece.ts'
import { ControlState, RADIAN } from './control-state.ts'
import { FLAG, type MotionEvent, ROW, type SpindleDirection } from './motion.ts'

/** A control that runs a program: the few ways in which it moves and does things, each a row of the motion. */
export class Run extends ControlState {
  /** A straight row to a point of the program. */
  go(kind: number, x: number, y: number, z: number, more = 0, aux = -1, feed?: number): void {
    if (this.gathers) {
      this.gather(x, z, kind === ROW.RAPID)
      return
    }
    if (this.mapping) {
      this.wrapTo(kind, x, y, z, more)
      return
    }
    const [px, py, pz] = this.sceneOf(x, y, z)
    this.goScene(kind, px, py, pz, more, aux, feed)
    this.wx = x
    this.wy = y
    this.wz = z
  }

  /** A piece of a contour that is read without cutting, to a point of the program. */
  gather(x: number, z: number, rapid: boolean, arc?: ContourPiece['arc']): void {
    const { feed, compensation, lineIndex: line } = this
    this.gathers?.push({ x, z, feed, rapid, compensation, line, ...(arc ? { arc } : {}) })
    this.wx = x
    this.wz = z
    this.sx = x + this.shiftX
    this.sz = z + this.shiftZ
  }

  /** A straight row to a point of the motion; the caller keeps the program's position. */
  goScene(kind: number, x: number, y: number, z: number, more = 0, aux = -1, feed?: number): void {
    const amount =
      kind === ROW.RAPID ? 0 : (feed ?? this.feedFor(Math.hypot(x - this.sx, y - this.sy, z - this.sz), x))
    this.out.row(kind, this.flags | more, x, y, z, amount, this.line, this.stateIndex, aux, this.rotary)
    this.sx = x
    this.sy = y
    this.sz = z
  }

  /** With Y wrapped on the rotary axis: A = 360 Y / (2 pi R) (trade.md 7). */
  private wrapTo(kind: number, x: number, y: number, z: number, more: number): void {
    const mapping = this.mapping
    if (!mapping) return
    const before = this.rotary
    this.rotary = mapping.rotary + y / mapping.radius / RADIAN
    const [px, , pz] = this.sceneOf(x, mapping.y, z)
    const round = (this.rotary - before) * RADIAN * mapping.radius
    const length = Math.hypot(px - this.sx, round, pz - this.sz)
    const feed = kind === ROW.RAPID ? 0 : this.feedFor(length)
    const seconds = feed > 0 ? (60 * length) / feed : 0
    this.out.row(
      kind,
      this.flags | more,
      px,
      this.sy,
      pz,
      feed,
      this.line,
      this.stateIndex,
      -1,
      this.rotary,
      seconds,
    )
    this.sx = px
    this.sz = pz
    this.wx = x
    this.wy = y
    this.wz = z
  }

  /** A straight row that also turns the rotary axis. Under G94 the feed is along the way, degrees counting as lengths do. */
  goTurning(kind: number, x: number, y: number, z: number, rotary: number): void {
    const [px, py, pz] = this.sceneOf(x, y, z)
    const length = Math.hypot(px - this.sx, py - this.sy, pz - this.sz)
    const whole = Math.hypot(length, rotary - this.rotary)
    const turned = this.rotary !== 0
    this.rotary = rotary
    // The quick way carries no angle: it is open only while the rotary stands at 0.
    if (turned !== (rotary !== 0)) this.changed()
    const feed = kind === ROW.RAPID ? 0 : this.feedFor(whole)
    const seconds = feed > 0 ? (60 * whole) / feed : 0
    const flags = this.flags | FLAG.ROTARY
    this.out.row(kind, flags, px, py, pz, feed, this.line, this.stateIndex, -1, rotary, seconds)
    this.sx = px
    this.sy = py
    this.sz = pz
    this.wx = x
    this.wy = y
    this.wz = z
  }

  event(event: MotionEvent): void {
    const aux = this.out.events.push(event) - 1
    this.out.row(
      ROW.EVENT,
      this.flags,
      this.sx,
      this.sy,
      this.sz,
      0,
      this.line,
      this.stateIndex,
      aux,
      this.rotary,
    )
  }

  dwell(seconds: number): void {
    if (seconds > 0) this.event({ does: 'dwell', seconds })
  }

  spindle(turning: SpindleDirection): void {
    if (turning === this.turning && turning === 0) return
    this.turning = turning
    this.changed()
    this.event({ does: 'spindle', rpm: turning ? this.rpm() : 0, turning })
  }

  /** The driven tool of a lathe, at so many rpm. */
  drive(turning: SpindleDirection, rpm: number): void {
    if (turning === this.driven && turning === 0) return
    this.driven = turning
    this.drivenSpeed = rpm
    this.changed()
    this.event({ does: 'spindle', rpm: turning ? rpm : 0, turning, driven: true })
  }

  /** The tool stands at this radius of the motion, with the spindle at an angle, in degrees: what the face comes to on the machine. */
  standAt(radius: number, degrees: number): void {
    this.sx = radius
    this.sy = 0
    this.rotary = degrees
    this.rework()
  }

  /** Another tool in the spindle: the tip is where the new one's is. */
  changeTool(tool: number): void {
    // Most machines go to the top by themselves before they change. Common practice.
    const [, , top] = this.home()
    if (this.sz !== top) this.goScene(ROW.RAPID, this.sx, this.sy, top, FLAG.TO_MACHINE)
    this.turning = 0
    this.tool = tool
    this.sz = this.home()[2]
    this.reshift()
    this.changed()
    this.event({ does: 'tool', tool })
  }

  /** Another station of a lathe's turret, and the geometry that its T word names: the turret stands, the tip is elsewhere. */
  changeStation(tool: number, geometry: number): void {
    const before = this.home()
    this.tool = tool
    this.offset = geometry > 0 ? `T${geometry}` : ''
    const [after, known] = [this.home(), this.toMachine()]
    // As far from home as before: also where nobody could say before the first tool where that is.
    if (!Number.isNaN(known[0])) this.sx += after[0] - before[0]
    if (!Number.isNaN(known[2])) this.sz += after[2] - before[2]
    this.reshift()
    this.changed()
    this.event({ does: 'tool', tool })
  }
}
