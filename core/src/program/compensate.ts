import {
  arc,
  besideEnd,
  besidePiece,
  besideStart,
  type Corner,
  corner,
  type Piece,
  pieceLength,
  type Rounding,
  straight,
} from '../geometry/index.ts'
import {
  type Alarm,
  alarmAtStart,
  alarmWhileOn,
  compensationOf,
  radiusUnknown,
} from './compensation-alarms.ts'
import { copyRow, type Passed, passed } from './copy-row.ts'
import type { Diagnoser } from './diagnose.ts'
import { FLAG, isArc, type ModalState, type Motion, MotionBuilder, PLANE_AXES, ROW } from './motion.ts'
import { RecentPieces } from './recent-pieces.ts'

/** How a control leads the tool beside the path that is written. */
export interface CompensationRules {
  /** Coming on ends square to the start of the next piece, or to its own end; going off begins likewise. */
  comingOn: 'next' | 'own'
  /** Outside of corners: an arc of the radius, or the pieces lengthened until they meet. */
  outside: 'arc' | 'lines'
  /** Blocks that are read ahead. */
  lookAhead: number
}

type Triple = [number, number, number]
interface Place {
  x: number
  y: number
}

/** A piece whose end is not known before the next one is. */
interface Held {
  row: number
  piece: Piece
  /** Distance of the tool's path to its left; below 0 to its right. */
  side: number
  /** Where the tool's path beside it begins. */
  start: Place
  comesOn: boolean
}

/** Of a plain move: nothing but the spindle, and compensation itself. */
const PLAIN_FLAGS = FLAG.SPINDLE | FLAG.COMPENSATED

const round = (value: number) => Number(value.toPrecision(6))

/** Whether any row of a motion is to be made beside the path that is written. */
export const isCompensated = ({ states }: Pick<Motion, 'states'>) => states.some(({ beside }) => beside !== 0)

/**
 * The path of the tool's centre where the program is written for the edge that it cuts (G41, G42): every piece beside the
 * written one at the radius, joined as the control joins them. Where a control stops with an alarm, that is said at its line, and the path
 * goes on as it can. `least` is the smallest step that the machine makes, in the unit of the motion. ISO 6983-1 for what the codes mean;
 * how corners are led round, and the alarms, are common practice.
 */
export function compensate(motion: Motion, rules: CompensationRules, least: number, say: Diagnoser): Passed {
  const pass = new Compensator(motion, rules, least, say)
  for (let row = 0; row < motion.count; row++) pass.take(row)
  return pass.finish()
}

class Compensator {
  private readonly motion: Motion
  private readonly rules: CompensationRules
  private readonly least: number
  private readonly say: Diagnoser
  private readonly out: MotionBuilder
  private readonly firstRow: Int32Array
  private mode: 'off' | 'on' | 'lost' = 'off'
  private held: Held | undefined
  /** Rows since the held one that do not move in the plane. */
  private between: number[] = []
  /** Where the tool stands, and where the written path does. */
  private readonly at: Triple
  private readonly from: Triple
  /** Where the row in hand ends as it is written, and as it is put out: used again and again. */
  private readonly to: Triple = [0, 0, 0]
  private readonly end: Triple = [0, 0, 0]
  private plane: 17 | 18 | 19 = 17
  private axes = PLANE_AXES[17]
  /** In the plane, from the tool's centre to the point of it that the motion follows: on a lathe the imaginary tip. */
  private shift: Place = { x: 0, y: 0 }
  private readonly recent: RecentPieces
  /** How corners are led round at feed, and at rapid: no control goes round by an arc there. */
  private readonly rounding: { feed: Rounding; rapid: Rounding }
  /** The last state that was found to be led in this plane, by its index. */
  private led = -1

  constructor(motion: Motion, rules: CompensationRules, least: number, say: Diagnoser) {
    this.motion = motion
    this.rules = rules
    this.least = least
    this.say = say
    this.out = new MotionBuilder(motion.count * 1.2 + 64)
    this.out.states.push(...motion.states)
    for (const event of motion.events) this.out.events.push(event)
    for (const step of motion.inStep) this.out.inStep.push(step)
    this.recent = new RecentPieces(rules.lookAhead + 1)
    const half = least / 2
    this.rounding = {
      feed: { outside: rules.outside, least: half },
      rapid: { outside: 'lines', least: half },
    }
    this.firstRow = new Int32Array(motion.count + 1).fill(-1)
    this.at = [...motion.start]
    this.from = [...motion.start]
  }

  private stateOf(row: number): ModalState {
    return this.motion.states[this.motion.state[row] as number] as ModalState
  }

  private alarm(row: number, { code, says, does }: Alarm): void {
    const line = this.motion.line[row] as number
    this.say.add({
      code,
      severity: 'stop',
      line,
      from: 0,
      to: 1,
      says,
      does: does ?? 'The control stops with an alarm.',
    })
  }

  take(row: number): void {
    const { motion, to, from } = this
    to[0] = motion.x[row] as number
    to[1] = motion.y[row] as number
    to[2] = motion.z[row] as number
    this.follow(row, to)
    from[0] = to[0]
    from[1] = to[1]
    from[2] = to[2]
  }

  private follow(row: number, to: Triple): void {
    const { motion } = this
    const state = this.stateOf(row)
    const kind = motion.kind[row] as number
    if (this.mode === 'lost') {
      if (state.beside === 0) this.mode = 'off'
      this.copy(row, to)
      return
    }
    if (this.mode === 'off') {
      if (state.beside === 0 || kind === ROW.EVENT) this.copy(row, to)
      else this.comeOn(row, to, state)
      return
    }
    const moves = kind !== ROW.EVENT && this.movesInPlane(row, to)
    if (state.beside === 0) {
      if (moves) this.goOff(row, to)
      else this.between.push(row)
      return
    }
    const lost = this.isLed(row, kind) ? undefined : alarmWhileOn(motion, row, state, this.plane)
    if (lost) {
      this.alarm(row, lost)
      this.endHeld()
      this.mode = 'lost'
      this.copy(row, to)
    } else if (moves) this.goOn(row, to, state)
    else this.between.push(row)
  }

  /** A plain move in a state that was looked at before. */
  private isLed(row: number, kind: number): boolean {
    const { motion } = this
    const plain = kind <= ROW.ARC_CCW && (motion.flags[row] as number) <= PLAIN_FLAGS
    const state = motion.state[row] as number
    if (plain && state === this.led) return true
    this.led = plain ? state : -1
    return false
  }

  private movesInPlane(row: number, to: Triple): boolean {
    if (isArc(this.motion.kind[row] as number)) return true
    const { axes, from } = this
    return to[axes[0]] !== from[axes[0]] || to[axes[1]] !== from[axes[1]]
  }

  // Pieces.

  private placeOf(at: Triple): Place {
    return { x: at[this.axes[0]], y: at[this.axes[1]] }
  }

  /** The written piece of a row, in its plane. */
  private pieceOf(row: number, to: Triple): Piece {
    const { motion } = this
    const from = this.held?.piece.to ?? this.placeOf(this.from)
    const end = this.placeOf(to)
    if (!isArc(motion.kind[row] as number)) return straight(from, end)
    const [first, second] = this.axes
    const base = 6 * (motion.aux[row] as number)
    const centre = { x: motion.arcs[base + first] as number, y: motion.arcs[base + second] as number }
    return arc(from, end, centre, motion.arcs[base + 3] as number)
  }

  // Modes.

  private comeOn(row: number, to: Triple, state: ModalState): void {
    this.plane = state.plane
    this.axes = PLANE_AXES[state.plane]
    if (!this.movesInPlane(row, to)) {
      this.copy(row, to)
      return
    }
    const piece = this.pieceOf(row, to)
    const lost = alarmWhileOn(this.motion, row, state, this.plane) ?? alarmAtStart(piece, state)
    if (lost) this.alarm(row, lost)
    if (lost && lost.code !== 'compensation-short') {
      this.mode = 'lost'
      this.copy(row, to)
      return
    }
    const { tip } = state
    this.shift = tip ? { x: tip[this.axes[0]], y: tip[this.axes[1]] } : { x: 0, y: 0 }
    const start = { x: piece.from.x - this.shift.x, y: piece.from.y - this.shift.y }
    this.held = { row, piece, side: state.beside, start, comesOn: true }
    this.mode = 'on'
    this.led = -1
    this.recent.clear()
  }

  private goOn(row: number, to: Triple, { beside }: ModalState): void {
    const { held } = this
    if (!held || Number.isNaN(beside)) {
      if (Number.isNaN(beside)) this.alarm(row, radiusUnknown(this.stateOf(row)))
      this.endHeld()
      this.mode = 'lost'
      this.copy(row, to)
      return
    }
    const piece = this.pieceOf(row, to)
    const at = held.comesOn
      ? this.afterComingOn(held, row, piece, beside)
      : this.cornerOf(held, row, piece, beside)
    if (at.apart)
      this.alarm(row, {
        code: 'compensation-apart',
        says: 'The tool does not fit into this corner: beside the path its two sides do not meet.',
      })
    this.lookedTooFar(row)
    this.put(held, at.end)
    this.putBetween()
    this.join(row, at.between)
    this.held = { row, piece, side: beside, start: at.start, comesOn: false }
  }

  /** `row` is that of the next piece. */
  private cornerOf({ piece, side }: Held, row: number, next: Piece, beside: number): Corner {
    const { feed, rapid } = this.rounding
    return corner(piece, next, side, beside, this.motion.kind[row] === ROW.RAPID ? rapid : feed)
  }

  /** Where the first move ends: square to the next piece, or beside its own end and round the corner from there. */
  private afterComingOn(held: Held, row: number, next: Piece, beside: number): Corner {
    const square = besideStart(next, beside)
    if (this.rules.comingOn === 'next') return { end: square, start: square, between: [] }
    const own = this.cornerOf({ ...held, side: beside }, row, next, beside)
    return own.between.length > 0 && !own.apart ? own : { end: square, start: square, between: [] }
  }

  private goOff(row: number, to: Triple): void {
    const { held } = this
    if (held && isArc(this.motion.kind[row] as number)) {
      this.alarm(row, {
        code: 'compensation-arc',
        says: `${compensationOf(this.stateOf(held.row))} goes off in an arc.`,
      })
      this.endHeld()
    } else if (held) {
      const exit = this.pieceOf(row, to)
      const own =
        this.rules.comingOn === 'own' && !held.comesOn ? this.cornerOf(held, row, exit, held.side) : undefined
      const leads = own && own.between.length > 0 && !own.apart
      this.put(held, leads ? own.end : besideEnd(held.piece, held.side))
      this.putBetween()
      if (leads) this.join(row, own.between)
      this.held = undefined
    }
    this.mode = 'off'
    this.copy(row, to)
  }

  /** More blocks without a move in the plane than the control reads ahead. */
  private lookedTooFar(row: number): void {
    if (this.between.length <= this.rules.lookAhead) return
    const lines = new Set(this.between.map((each) => this.motion.line[each]))
    if (lines.size <= this.rules.lookAhead) return
    this.alarm(row, {
      code: 'compensation-no-move',
      says: `${lines.size} lines without a move in the plane stand before this one; the control reads ${this.rules.lookAhead} ahead.`,
    })
  }

  /** The held piece comes to its end without another after it. */
  private endHeld(): void {
    const { held } = this
    if (held) this.put(held, besideEnd(held.piece, held.side))
    this.held = undefined
    this.putBetween()
  }

  // Rows.

  private put(held: Held, end: Place): void {
    const { row, piece, side, start, comesOn } = held
    const { motion, end: to } = this
    to[0] = motion.x[row] as number
    to[1] = motion.y[row] as number
    to[2] = motion.z[row] as number
    const found = comesOn ? straight(start, end) : besidePiece(piece, side, start, end, this.least)
    const beside = typeof found === 'string' ? straight(start, end) : found
    if (found === 'arc-smaller')
      this.alarm(row, {
        code: 'compensation-arc-small',
        says: `The inside of an arc of ${round(piece.radii[0])} is smaller than the radius of ${round(Math.abs(side))}.`,
      })
    else if (found === 'backwards')
      this.alarm(row, {
        code: 'compensation-backwards',
        says: 'The tool would run backwards beside this move: the step or slot is narrower than the tool.',
      })
    else if (!comesOn && this.recent.cross(piece, beside))
      this.alarm(row, {
        code: 'compensation-narrow',
        says: 'Beside this move the tool crosses where it was: the slot is narrower than the tool.',
      })
    to[this.axes[0]] = end.x + this.shift.x
    to[this.axes[1]] = end.y + this.shift.y
    const share = this.stateOf(row).feedMode === 93 ? lengthShare(piece, beside) : 1
    this.row(row, beside, to, (motion.feed[row] as number) * share)
  }

  private join(row: number, pieces: readonly Piece[]): void {
    if (pieces.length === 0) return
    const [first, second] = this.axes
    for (const piece of pieces) {
      const to: Triple = [...this.at]
      to[first] = piece.to.x + this.shift.x
      to[second] = piece.to.y + this.shift.y
      this.row(row, piece, to, this.motion.feed[row] as number, this.motion.kind[row] === ROW.RAPID)
    }
  }

  private putBetween(): void {
    const { motion, between } = this
    if (between.length === 0) return
    this.between = []
    const [first, second] = this.axes
    for (const row of between) {
      const to: Triple = [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number]
      to[first] = this.at[first]
      to[second] = this.at[second]
      this.copy(row, to)
    }
  }

  /** A row of its own kind, as it is written or to another place. */
  private copy(row: number, to: Triple): void {
    this.begin(row)
    copyRow(this.motion, row, this.out, to)
    this.stand(to)
  }

  /** A row that comes of another, straight or along an arc. */
  private row(row: number, piece: Piece, to: Triple, feed: number, rapid = false): void {
    const { motion, out } = this
    this.begin(row)
    let kind: number = motion.kind[row] === ROW.RAPID ? ROW.RAPID : ROW.LINE
    let aux = -1
    if (piece.sweep !== 0 && !rapid) {
      const [first, second] = this.axes
      const centre: Triple = [...this.at]
      centre[first] = piece.centre.x + this.shift.x
      centre[second] = piece.centre.y + this.shift.y
      kind = piece.sweep < 0 ? ROW.ARC_CW : ROW.ARC_CCW
      aux = out.arc(...centre, piece.sweep, ...piece.radii)
    }
    const rotary = motion.rotary?.[row] ?? 0
    const flags = motion.flags[row] as number
    const [x, y, z] = [to[0], to[1], to[2]]
    out.row(kind, flags, x, y, z, feed, motion.line[row] as number, motion.state[row] as number, aux, rotary)
    this.stand(to)
  }

  private begin(row: number): void {
    if (this.firstRow[row] === -1) this.firstRow[row] = this.out.count
  }

  private stand(to: Triple): void {
    this.at[0] = to[0]
    this.at[1] = to[1]
    this.at[2] = to[2]
  }

  finish(): Passed {
    this.endHeld()
    const { motion, out } = this
    this.firstRow[motion.count] = out.count
    const firstRow = Uint32Array.from(this.firstRow)
    return passed(out, motion, firstRow)
  }
}

/** Under inverse time a move takes its time however long it is: its feed grows and shrinks with its length. */
function lengthShare(written: Piece, beside: Piece): number {
  const length = pieceLength(written)
  return length > 0 ? pieceLength(beside) / length : 1
}
