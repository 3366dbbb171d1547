import {
  arc,
  besideEnd,
  besidePiece,
  besideStart,
  type Corner,
  corner,
  lengthenedBy,
  type Piece,
  pieceLength,
  type Rounding,
  straight,
} from '../geometry/index.ts'
import { BesideRows } from './beside-rows.ts'
import {
  type Alarm,
  alarmAtStart,
  alarmWhileOn,
  compensationOf,
  radiusUnknown,
} from './compensation-alarms.ts'
import type { Passed } from './copy-row.ts'
import type { Diagnoser } from './diagnose.ts'
import { FLAG, isArc, type ModalState, type Motion, PLANE_AXES, ROW } from './motion.ts'
import { RecentPieces } from './recent-pieces.ts'
import { sixDigits } from './six-digits.ts'
import type { Triple } from './ways.ts'

/** How a control leads the tool beside the path that is written. */
export interface CompensationRules {
  /** Coming on ends square to the start of the next piece, or to its own end; going off begins likewise. */
  comingOn: 'next' | 'own'
  /** Outside of corners: an arc of the radius, or the pieces lengthened until they meet. */
  outside: 'arc' | 'lines'
  /** Blocks that are read ahead. */
  lookAhead: number
}

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
  /** It was led round a corner to there, and it or what was before it is an arc: lines go apart from a corner and stay apart. */
  rounded: boolean
}

/** Of a plain move: nothing but the spindle, and compensation itself. */
const PLAIN_FLAGS = FLAG.SPINDLE | FLAG.COMPENSATED

const NARROW: Alarm = {
  code: 'compensation-narrow',
  says: 'Beside this move the tool crosses where it was: the slot is narrower than the tool.',
}

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
  for (let row = 0; row < motion.count; ) row = pass.take(row)
  return pass.finish()
}

class Compensator {
  private readonly motion: Motion
  private readonly rules: CompensationRules
  private readonly least: number
  private readonly say: Diagnoser
  private readonly out: BesideRows
  private mode: 'off' | 'on' | 'lost' = 'off'
  private held: Held | undefined
  /** Rows since the held one that do not move in the plane. */
  private between: number[] = []
  /** Where the written path stands. */
  private readonly from: Triple
  /** Where the row in hand ends as it is written, and as it is put out, of a straight one: used again and again. */
  private readonly to: Triple = [0, 0, 0]
  private readonly end: Triple = [0, 0, 0]
  private plane: 17 | 18 | 19 = 17
  private axes = PLANE_AXES[17]
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
    this.out = new BesideRows(motion)
    this.recent = new RecentPieces(rules.lookAhead + 1)
    const half = least / 2
    this.rounding = {
      feed: { outside: rules.outside, least: half },
      rapid: { outside: 'lines', least: half },
    }
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

  /** Takes a row, or as many as go by themselves; gives the one after. */
  take(row: number): number {
    const after = this.straightOn(row)
    if (after > row) return after
    const { motion, to, from } = this
    to[0] = motion.x[row] as number
    to[1] = motion.y[row] as number
    to[2] = motion.z[row] as number
    this.follow(row, to)
    from[0] = to[0]
    from[1] = to[1]
    from[2] = to[2]
    return row + 1
  }

  /**
   * Straight moves at feed one after another, each of which meets the next with nothing between: what most of a program is, done
   * without an object for each of them. Says the same as `goOn` does of each. Stops before the first that is not so; gives that one.
   */
  private straightOn(row: number): number {
    const { motion, held, rules, least, out, recent, end: place } = this
    const { shift } = out
    const { ends } = recent
    if (this.mode !== 'on' || !held || held.comesOn || held.rounded || held.piece.sweep !== 0) return row
    const { kind, flags, state, count } = motion
    const of = motion.state[held.row] as number
    if (this.led !== of || this.between.length > 0 || motion.rotary || this.stateOf(row).feedMode === 93)
      return row
    const [first, second, third] = this.axes
    const { x, y, z } = motion
    const axes = [x, y, z] as const
    const [along, across, deep] = [axes[first], axes[second], axes[third]]
    const { side } = held
    const lines = rules.outside === 'lines'
    const slack = least / 2
    let at = held.row
    let { x: fx, y: fy } = held.piece.from
    let { x: tx, y: ty } = held.piece.to
    let { x: wx, y: wy } = held.piece.way
    let { x: sx, y: sy } = held.start
    let next = row
    for (; next < count; next++) {
      if (kind[next] !== ROW.LINE || state[next] !== of || (flags[next] as number) > PLAIN_FLAGS) break
      if (kind[at] !== ROW.LINE) break
      const px = along[next] as number
      const py = across[next] as number
      const dx = px - tx
      const dy = py - ty
      const length = Math.sqrt(dx * dx + dy * dy)
      if (!(length > 0)) break
      const nx = dx / length
      const ny = dy / length
      const by = lengthenedBy(wx, wy, nx, ny, side, lines, slack)
      const ex = tx - by * (wy + ny)
      const ey = ty + by * (wx + nx)
      // Also where nothing is lengthened, which is not a number.
      if (!((ex - sx) * wx + (ey - sy) * wy >= -least)) break
      const own = recent.place
      ends[own] = sx
      ends[own + 1] = sy
      ends[own + 2] = ex
      ends[own + 3] = ey
      ends[own + 4] = fx
      ends[own + 5] = fy
      ends[own + 6] = tx
      ends[own + 7] = ty
      if (recent.crossLine()) this.alarm(at, NARROW)
      place[first] = ex + shift.x
      place[second] = ey + shift.y
      place[third] = deep[at] as number
      out.straight(at, place)
      at = next
      fx = tx
      fy = ty
      tx = px
      ty = py
      wx = nx
      wy = ny
      sx = ex
      sy = ey
    }
    if (next === row) return row
    this.from[0] = x[at] as number
    this.from[1] = y[at] as number
    this.from[2] = z[at] as number
    held.row = at
    held.piece = straight({ x: fx, y: fy }, { x: tx, y: ty })
    held.start = { x: sx, y: sy }
    return next
  }

  private follow(row: number, to: Triple): void {
    const { motion } = this
    const state = this.stateOf(row)
    const kind = motion.kind[row] as number
    if (this.mode === 'lost') {
      if (state.beside === 0) this.mode = 'off'
      this.out.copy(row, to)
      return
    }
    if (this.mode === 'off') {
      if (state.beside === 0 || kind === ROW.EVENT) this.out.copy(row, to)
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
      this.out.copy(row, to)
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
      this.out.copy(row, to)
      return
    }
    const piece = this.pieceOf(row, to)
    const lost = alarmWhileOn(this.motion, row, state, this.plane) ?? alarmAtStart(piece, state)
    if (lost) this.alarm(row, lost)
    if (lost && lost.code !== 'compensation-short') {
      this.mode = 'lost'
      this.out.copy(row, to)
      return
    }
    const { tip } = state
    const shift = tip ? { x: tip[this.axes[0]], y: tip[this.axes[1]] } : { x: 0, y: 0 }
    this.out.axes = this.axes
    this.out.shift = shift
    const start = { x: piece.from.x - shift.x, y: piece.from.y - shift.y }
    this.held = { row, piece, side: state.beside, start, comesOn: true, rounded: false }
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
      this.out.copy(row, to)
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
    for (const each of at.between) this.out.round(row, each)
    const rounded = at.between.length > 0 && !at.apart && (piece.sweep !== 0 || held.piece.sweep !== 0)
    this.held = { row, piece, side: beside, start: at.start, comesOn: false, rounded }
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
      if (leads) for (const each of own.between) this.out.round(row, each)
      this.held = undefined
    }
    this.mode = 'off'
    this.out.copy(row, to)
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
    const { row, piece, side, start, comesOn, rounded } = held
    const { motion } = this
    const found = comesOn ? straight(start, end) : besidePiece(piece, side, start, end, this.least)
    const beside = typeof found === 'string' ? straight(start, end) : found
    if (found === 'arc-smaller')
      this.alarm(row, {
        code: 'compensation-arc-small',
        says: `The inside of an arc of ${sixDigits(piece.radii[0])} is smaller than the radius of ${sixDigits(Math.abs(side))}.`,
      })
    else if (found === 'backwards')
      this.alarm(row, {
        code: 'compensation-backwards',
        says: 'The tool would run backwards beside this move: the step or slot is narrower than the tool.',
      })
    else if (!comesOn && this.recent.cross(piece, beside, rounded ? Math.abs(side) : 0))
      this.alarm(row, NARROW)
    const share = this.stateOf(row).feedMode === 93 ? lengthShare(piece, beside) : 1
    this.out.along(row, beside, (motion.feed[row] as number) * share)
  }

  private putBetween(): void {
    const { between } = this
    if (between.length === 0) return
    this.between = []
    for (const row of between) this.out.still(row)
  }

  finish(): Passed {
    this.endHeld()
    return this.out.done()
  }
}

/** Under inverse time a move takes its time however long it is: its feed grows and shrinks with its length. */
function lengthShare(written: Piece, beside: Piece): number {
  const length = pieceLength(written)
  return length > 0 ? pieceLength(beside) / length : 1
}
