import type { LinearAxis, Machine } from '../machine/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import type { ContourPiece } from './contour-piece.ts'
import type { Corner } from './corners.ts'
import { Diagnoser, type Mend } from './diagnose.ts'
import { type Frame, newLocals } from './frame.ts'
import type { Library } from './library.ts'
import { inMotion } from './machine-place.ts'
import { modalState } from './modal-state.ts'
import { FLAG, MotionBuilder, type OnFace, type SpindleDirection } from './motion.ts'
import { type LengthMeasured, MOST_WRITTEN, type OffsetWritten, type VariableSet } from './offset-written.ts'
import type { Alarm, Probed } from './probed.ts'
import type { ReadOptions } from './read-options.ts'
import { Scanner } from './scan.ts'
import { rpmAlong, rpmAtRadius, rpmRound, type SurfaceSpeed } from './surface-speed.ts'
import type { TakenOnWord } from './taken.ts'
import type { Mirror, OpenAngle, Polar, Scaled, Scaling, Triple } from './ways.ts'
import { Work } from './work.ts'

export const RADIAN = Math.PI / 180

/**
 * The state of a control while it reads a program: its modes, and where it stands. Lengths in the unit of the setup; `w`
 * is the position in the program's own coordinates, `s` that of the motion.
 */
export class ControlState {
  readonly scan: Scanner
  readonly out: MotionBuilder
  readonly say = new Diagnoser()
  readonly work: Work
  readonly options: ReadOptions
  readonly lathe: boolean
  readonly unit: LengthUnit

  /** What the profile says of the machine's own codes. */
  readonly library: Library
  readonly libraryLine: number
  /** What was taken on somebody's word, by its code. */
  readonly taken = new Map<string, TakenOnWord>()

  // Where it reads.
  /** Line from 0. */
  lineIndex = 0
  /** Where the line begins in the text. */
  lineAt = 0
  ended = false
  /** It runs in the text of a program of the profile. */
  away = false
  frames: Frame[]
  common: Map<number, number>
  /** What its probing did, for who asks. */
  readonly probing: Probed = { calls: [], reads: [] }
  /** The probe is switched on. */
  probeOn = false
  /** The look-ahead is held back. */
  held = false
  /** Lines that it has printed to a log file. */
  readonly printed: string[] = []
  /** What it has written into offsets, by name; and each time that it did. */
  readonly written = new Map<string, Partial<Record<LinearAxis, number>>>()
  /** The same of the rotary's degrees. */
  readonly turnsWritten = new Map<string, number>()
  readonly offsetsWritten: OffsetWritten[] = []
  /** What it has written into the tables of lengths and of radii, by number, in the setup's unit. */
  readonly tables = { lengths: new Map<number, number>(), radii: new Map<number, number>() }
  /** Tools that it has measured on the setter. */
  readonly lengthsMeasured: LengthMeasured[] = []
  /** Where the last move that waits for a signal stopped, as its variables say it; and the point by which it last went home. */
  stoppedAt: readonly [number, number, number] | undefined
  via: readonly [number, number, number] | undefined
  /** Common variables that it has set, each time. */
  readonly variablesSet: VariableSet[] = []
  alarm: Alarm | undefined

  // Modes.
  inch: boolean
  unitSaid = false
  /** From the program's unit to that of the setup. */
  scale = 1
  motion = 0
  lastPlain = 0
  absolute = true
  plane: 17 | 18 | 19
  feedMode: 93 | 94 | 95
  retract: 98 | 99 = 98
  compensation: 40 | 41 | 42 = 40
  d = 0
  lengthCode: 43 | 44 | 49 = 49
  h = 0
  offset: string
  rotation: { x: number; y: number; degrees: number; cos: number; sin: number } | null = null
  mapping: { radius: number; y: number; rotary: number } | null = null
  scaling: Scaling | null = null
  mirror: Mirror = [null, null, null]
  /** What both come to. */
  scaled: Scaled | null = null
  polar: Polar | null = null
  /** On a lathe: X and a length across it make the face of the part, and the plane that held before. */
  face: { plane: 17 | 18 | 19; words: OnFace } | null = null
  wasOnFace = false
  /** On a lathe: how the driven tool turns and how quickly (rpm), and whether the spindle is an axis. */
  driven: SpindleDirection = 0
  drivenSpeed = 0
  spindleAxis = false
  /** Chamfers and roundings that rows ask for at their end. */
  readonly corners: Corner[] = []
  /** A line that was written by its angle only. */
  openAngle: OpenAngle | undefined
  tool = 0
  nextTool = -1
  feed = 0
  speed = 0
  /** Constant surface speed: length a minute of the program's own kind (feet or metres), or 0. */
  surfaceSpeed = 0
  topSpeed = Number.POSITIVE_INFINITY
  turning: SpindleDirection = 0
  coolant = false
  exactStop = false
  pathTolerance: number | null = null
  local: [number, number, number] = [0, 0, 0]
  /** What a tool change or stop leaves of the canned cycle: its words, in lengths of the setup. */
  sticky = { z: Number.NaN, r: Number.NaN, q: 0, p: 0, i: 0, j: 0, initial: 0, multiple: Number.NaN }
  rigidAnnounced = false
  /** The serial number that the text cycle engraves next. */
  serial: number
  /** Called after every move of the level that it was set in. */
  modalMacro: { program: number; args: Float64Array; level: number; name?: string } | null = null
  /** Where the box of G90, G92 or G94 goes, until another block says otherwise. */
  box = { x: 0, z: 0, taper: 0 }
  turningCycle = { depth: 0, retreat: 0, passes: 1, q: 0, out: 0, least: 0, finish: 0, x: 0, z: 0 }
  /** Threads run out at an angle (M23). */
  threadOut: boolean
  /** Line of the first half of a two-line cycle, or -1. */
  firstLineAt = -1
  /** Letters whose word was taken out of the block: its variable was never set. */
  unset = 0
  /** The meaning of a missing decimal point has been said. */
  saidPoint = false
  /** Lathe contours are gathered here while P to Q is read. */
  gathers: ContourPiece[] | null = null

  // Where it stands.
  wx = 0
  wy = 0
  wz = 0
  sx = 0
  sy = 0
  sz = 0
  /** Degrees as they are written, also beyond one turn. */
  rotary = 0
  shiftX = 0
  shiftY = 0
  shiftZ = 0
  /** Degrees from the program's angle of the rotary to that of the motion, which counts from the main offset's. */
  shiftTurn = 0
  flags = 0
  stateIndex = 0
  /** Somebody is told of every block: nothing goes the quick way. */
  listened = false
  /** A plain straight move in absolute lengths a minute needs no care: the quick way is open. */
  plain = false
  private readonly stateKeys = new Map<string, number>()
  readonly start: readonly [number, number, number]
  readonly offsetOfCode: ReadonlyMap<number, string>

  /** `text` is the program, and after it the programs of the library, from line `libraryLine` on (from 0). */
  constructor(text: string, options: ReadOptions, library: Library, libraryLine: number) {
    const { machine, profile, unit } = options
    this.options = options
    this.library = library
    this.libraryLine = libraryLine
    this.unit = unit
    this.lathe = machine.kind === 'lathe'
    this.scan = new Scanner(text)
    this.work = new Work(text, options.mostWork)
    this.out = new MotionBuilder(Math.min(text.length / 16, 4_000_000), this.work)
    this.inch = unit === 'inch'
    this.serial = options.serial ?? 0
    this.threadOut = profile.reading.threads?.starts ?? false
    this.common = new Map(options.variables)
    this.plane = this.lathe ? 18 : 17
    this.feedMode = this.lathe ? 95 : 94
    this.offsetOfCode = new Map(profile.offsets.standard.map((name) => [Number(name.slice(1)), name]))
    this.offset = options.frame ?? profile.offsets.standard[0] ?? 'G54'
    this.frames = [
      { kind: 'main', name: '', back: -1, begins: 0, repeats: 1, locals: newLocals(), loops: [] },
    ]
    this.reshift()
    const [hx, hy, hz] = this.home()
    this.sx = hx
    this.sy = hy
    this.sz = hz
    this.start = [hx, hy, hz]
    this.rework()
    this.changed()
  }

  /** Line of the program, from 1; while the text of a called program of the profile runs, the line that called it. */
  get line(): number {
    if (!this.away) return this.lineIndex + 1
    return this.frames.find(({ begins }) => begins >= this.libraryLine)?.back ?? this.lineIndex + 1
  }

  /** The level that runs. */
  get frame(): Frame {
    return this.frames[this.frames.length - 1] as Frame
  }

  /** Says what is wrong with a word, or with the whole line. */
  wrong(
    code: string,
    severity: 'stop' | 'look' | 'note',
    says: string,
    more: {
      does?: string
      word?: number
      at?: [number, number]
      mend?: Omit<Mend, 'line'>
      own?: string
      once?: string | number
    } = {},
  ): void {
    const { scan } = this
    const [from, to] =
      more.at ??
      (more.word === undefined
        ? [this.lineAt, scan.count > 0 ? (scan.to[scan.count - 1] as number) : this.lineAt + 1]
        : [scan.from[more.word] as number, scan.to[more.word] as number])
    const { line } = this
    const does = more.does ? { does: more.does } : {}
    const own = more.own ? { own: more.own } : {}
    if (this.away) {
      // It is said where the program calls what the profile has the text of.
      const inside = this.lineIndex + 1 - this.frame.begins
      const where = `In ${this.frame.name}, line ${inside} of it: ${says}`
      this.say.add({ code, severity, line, from: 0, to: 1, says: where, ...does, ...own }, more.once ?? where)
      return
    }
    this.say.add(
      {
        code,
        severity,
        line,
        from: Math.max(0, from - this.lineAt),
        to: Math.max(0, to - this.lineAt),
        says,
        ...does,
        ...own,
        ...(more.mend ? { mend: { ...more.mend, line } } : {}),
      },
      more.once ?? line,
    )
  }

  // Frames.

  /** A tool's true length, if the table has it. */
  trueLength(): number | undefined {
    return this.tool > 0 ? this.options.lengths?.get(this.tool) : undefined
  }

  /** What the motion's Z is off by for the length offset: H that is added, less the length that is there. */
  private lengthShift(): number {
    if (this.lathe) return 0
    const own = this.trueLength()
    if (this.lengthCode === 49 || this.h === 0) return own === undefined ? 0 : -own
    const table = this.tables.lengths.get(this.h) ?? this.options.lengths?.get(this.h)
    if (own === undefined || table === undefined) return 0
    return (this.lengthCode === 44 ? -table : table) - own
  }

  /** To be added to a position of the motion to get a machine position (on a lathe a radius); NaN where it is not known. */
  toMachine(): [number, number, number] {
    const known = (name: string | undefined, axis: 'X' | 'Y' | 'Z') =>
      (name === undefined ? undefined : this.options.offsets?.get(name)?.[axis]) ?? Number.NaN
    if (this.lathe) {
      const name = this.offset.startsWith('T') ? this.offset : undefined
      return [known(name, 'X') / 2, 0, known(name, 'Z') + (this.options.workShift ?? 0)]
    }
    const frame = this.options.frame ?? this.options.profile.offsets.standard[0]
    const length = this.tool === 0 ? 0 : (this.trueLength() ?? Number.NaN)
    return [known(frame, 'X'), known(frame, 'Y'), known(frame, 'Z') + length]
  }

  /** Sets a common variable, in the program's own unit. */
  setCommon(variable: number, value: number): void {
    this.common.set(variable, value)
    if (this.variablesSet.length < MOST_WRITTEN)
      this.variablesSet.push({ variable, value, block: this.out.blocks - 1 })
  }

  /** The machine position over the zero of an offset, as it stands there by now. */
  offsetAt(name: string, axis: LinearAxis): number | undefined {
    return this.written.get(name)?.[axis] ?? this.options.offsets?.get(name)?.[axis]
  }

  /** Where the machine shows the rotary at 0 of an offset, as it stands there by now. */
  rotaryAt(name: string): number | undefined {
    return this.turnsWritten.get(name) ?? this.options.rotaryZeros?.get(name)
  }

  /** Takes the shift between program and motion again, and where the tool stands in the program. */
  reshift(): void {
    const { options } = this
    const frame = options.frame ?? options.profile.offsets.standard[0] ?? 'G54'
    const delta = (axis: LinearAxis) => {
      if (this.lathe || (this.offset === frame && !this.written.has(frame))) return 0
      const [own, main] = [this.offsetAt(this.offset, axis), options.offsets?.get(frame)?.[axis]]
      return own === undefined || main === undefined ? 0 : own - main
    }
    const [turn, main] = [this.rotaryAt(this.offset), options.rotaryZeros?.get(frame)]
    this.shiftTurn = turn === undefined || main === undefined ? 0 : turn - main
    this.shiftX = delta('X') + this.local[0]
    this.shiftY = delta('Y') + this.local[1]
    this.shiftZ = delta('Z') + this.local[2] + this.lengthShift()
    this.rework()
  }

  /** The position in the program's coordinates, from that of the motion. */
  rework(): void {
    const [x, y] = [this.sx - this.shiftX, this.sy - this.shiftY]
    const turn = this.rotation
    if (turn) {
      const [dx, dy] = [x - turn.x, y - turn.y]
      this.wx = turn.x + dx * turn.cos + dy * turn.sin
      this.wy = turn.y - dx * turn.sin + dy * turn.cos
    } else {
      this.wx = x
      this.wy = y
    }
    this.wz = this.sz - this.shiftZ
    if (this.scaled) {
      const { times, plus } = this.scaled
      this.wx = (this.wx - plus[0]) / times[0]
      this.wy = (this.wy - plus[1]) / times[1]
      this.wz = (this.wz - plus[2]) / times[2]
    }
    if (this.mapping) this.wy = (this.rotary - this.mapping.rotary) * RADIAN * this.mapping.radius
  }

  turn(x: number, y: number, degrees: number): void {
    this.rotation = { x, y, degrees, cos: Math.cos(degrees * RADIAN), sin: Math.sin(degrees * RADIAN) }
    this.rework()
    this.changed()
  }

  /** A point of the program in the motion. */
  sceneOf(x: number, y: number, z: number): [number, number, number] {
    if (this.scaled) {
      const { times, plus } = this.scaled
      return [
        times[0] * x + plus[0] + this.shiftX,
        times[1] * y + plus[1] + this.shiftY,
        times[2] * z + plus[2] + this.shiftZ,
      ]
    }
    const turn = this.rotation
    if (!turn) return [x + this.shiftX, y + this.shiftY, z + this.shiftZ]
    const [dx, dy] = [x - turn.x, y - turn.y]
    return [
      turn.x + dx * turn.cos - dy * turn.sin + this.shiftX,
      turn.y + dx * turn.sin + dy * turn.cos + this.shiftY,
      z + this.shiftZ,
    ]
  }

  /** Home, or another place of the machine in its own unit and diameters, in the motion's frame. */
  home(place: Machine['home'] = this.options.machine.home): Triple {
    return inMotion(place, this.options, this.toMachine())
  }

  // Modes.

  /** Takes the modes again after a change: the flags of rows to come, the state that they point at, the quick way. */
  changed(): void {
    this.flags =
      (this.turning || this.driven ? FLAG.SPINDLE : 0) |
      (this.compensation === 40 ? 0 : FLAG.COMPENSATED) |
      (this.rotation ? FLAG.TURNED : 0) |
      (this.mapping ? FLAG.MAPPED : 0)
    const state = modalState(this)
    const key = JSON.stringify(state)
    let index = this.stateKeys.get(key)
    if (index === undefined) {
      index = this.out.states.push(state) - 1
      this.stateKeys.set(key, index)
    }
    this.stateIndex = index
    this.plain =
      !this.lathe &&
      !this.listened &&
      !this.away &&
      this.absolute &&
      this.rotation === null &&
      this.mapping === null &&
      this.scaled === null &&
      this.polar === null &&
      this.motion <= 1 &&
      this.feedMode === 94 &&
      this.rotary === 0 &&
      !this.rigidAnnounced &&
      this.modalMacro === null
  }

  /** It is the driven tool that turns, not the part. */
  private get turnsTool(): boolean {
    return this.driven !== 0 && this.turning === 0
  }

  /** Spindle speed in rpm where the tool stands; of the driven tool while the spindle stands. */
  rpm(): number {
    if (this.turnsTool) return this.drivenSpeed
    const held = this.heldSpeed()
    return held ? rpmAtRadius(this.sx, held) : Math.min(this.speed, this.topSpeed)
  }

  /** The speed over the surface that is held; undefined where the spindle speed is. */
  private heldSpeed(): SurfaceSpeed | undefined {
    if (this.surfaceSpeed === 0) return undefined
    // 12 V / (pi D) with V in feet a minute, D in inches; metres a minute through feet (trade.md 7).
    const feet = this.inch ? this.surfaceSpeed : this.surfaceSpeed / 0.3048
    const top = Math.min(this.topSpeed, this.options.machine.dynamics?.spindleTop ?? Number.POSITIVE_INFINITY)
    return {
      perRadius: ((12 * feet) / (2 * Math.PI)) * (this.unit === 'mm' ? 25.4 : 1),
      top: Number.isFinite(top) ? top : 1e4,
    }
  }

  /** Spindle speed in rpm over a move to a radius, or along an arc: the one that takes as long as the speeds that change along it. */
  rpmTo(to: number | ((share: number) => number)): number {
    const held = this.turnsTool ? undefined : this.heldSpeed()
    if (!held) return this.rpm()
    return typeof to === 'number' ? rpmAlong(this.sx, to, held) : rpmRound(to, held)
  }

  /**
   * Feed as length a minute in the setup's unit, for a move of this length to a radius (on a lathe); the mean along it
   * where the turns change.
   */
  feedFor(length: number, to: number | ((share: number) => number) = this.sx): number {
    if (this.feedMode === 94) return this.feed
    if (this.feedMode === 95) return this.feed * this.rpmTo(to)
    return this.feed * length
  }
}
