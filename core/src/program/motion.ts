import type { Work } from './work.ts'

/** What one row of the motion stream is. */
export const ROW = {
  /** As the machine makes it: dogleg or straight. */
  RAPID: 0,
  LINE: 1,
  /** Seen from the positive end of the axis that stands on the plane. */
  ARC_CW: 2,
  ARC_CCW: 3,
  /** In step with the spindle: a thread or a tap going in. */
  IN_STEP: 4,
  TAP_OUT: 5,
  /** A protected move of a probe. */
  PROBE: 6,
  /** No move: what happens is in `events` at `aux`. */
  EVENT: 7,
} as const

/** Bits of a row's flags. */
export const FLAG = {
  SPINDLE: 1,
  COMPENSATED: 2,
  CYCLE: 4,
  /** Along a contour as a finishing cycle of a lathe follows it. */
  CONTOUR: 8,
  /** It goes home or to a machine position. */
  TO_MACHINE: 16,
  TURNED: 32,
  MAPPED: 64,
  /** It sends the rotary somewhere, be it to where that stands. */
  ROTARY: 128,
} as const

export type MotionEvent =
  | { does: 'dwell'; seconds: number }
  | { does: 'tool'; tool: number }
  /** `driven`: it is that of a driven tool on a lathe. */
  | { does: 'spindle'; rpm: number; turning: SpindleDirection; driven?: true }
  | { does: 'stop'; optional: boolean; says?: string }
  | { does: 'pallet'; pallet: number }
  | { does: 'end' }

/** Off, clockwise or counter-clockwise. */
export type SpindleDirection = 0 | 3 | 4

/** A tap or thread: what the feed was computed from. */
export interface InStep {
  rpm: number
  /** Length a turn that feed and speed make. */
  lead: number
  /** Out at this many times the speed in. */
  multiple: number
  rigid: boolean
  /** Rigid tapping was announced: the cycle starts the spindle itself. */
  starts: boolean
  /** A tap turns back at the bottom; a thread on a lathe does not. */
  tap: boolean
  /** Which way the spindle turns on the way in: that of the thread's hand. */
  turning: 3 | 4
}

/** Words for a place on the face of a turned part: X as a diameter (times 2) or a radius (1), and the letter of the length across it. */
export interface OnFace {
  times: 1 | 2
  across: 'C' | 'Y'
}

/** All that holds while a row is made; the same object for every row that it holds for. Lengths in the unit of the motion. */
export interface ModalState {
  tool: number
  /** Name of the work offset; on a lathe of the tool's geometry. */
  offset: string
  /** The length offset in force, or none. */
  length: { h: number; sign: 1 | -1 } | null
  compensation: 40 | 41 | 42
  d: number
  /** How far to the left of the written path the tool's centre goes, to the right below 0; 0 without compensation, NaN where the radius is not known. */
  beside: number
  /** On a lathe under compensation, where the programmed point lies from the middle of the nose, along X (a radius), Y and Z; null elsewhere. */
  tip: readonly [number, number, number] | null
  /** Spindle speed, rpm; under constant surface speed where the tool stood when it was called. */
  rpm: number
  turning: SpindleDirection
  coolant: boolean
  inch: boolean
  absolute: boolean
  plane: 17 | 18 | 19
  feedMode: 93 | 94 | 95
  /** Every move comes to a stop (G61). */
  exactStop: boolean
  /** How far corners may be rounded, where the program says so. */
  pathTolerance: number | null
  /** Back to the initial level or the R plane between holes. */
  retract: 98 | 99
  /** Code of the canned cycle in force, or 0. */
  cycle: number
  rotation: { x: number; y: number; degrees: number } | null
  /** Radius of the cylinder that Y is wrapped on, or none. */
  mapping: number | null
  /** What each axis is multiplied by, below 0 where it is mirrored; null where the program is neither scaled nor mirrored. */
  scaled: readonly [number, number, number] | null
  /** Positions are by radius and angle. */
  polar: boolean
  /** On a lathe under polar interpolation: how the program names places on the face, which the spindle turns under the tool; null elsewhere. */
  face: OnFace | null
  /** To be added to a position of the program (turned, where it is turned) to get one of the motion. */
  shift: readonly [number, number, number]
  /** To be added to a position of the motion to get a machine position; NaN where the offset is not known. */
  toMachine: readonly [number, number, number]
}

/**
 * What a program makes the tool's tip do, one row a piece; row r goes from the end of row r - 1 to its own end.
 * Positions are of the tip in the frame of the main work offset (on a lathe X is a radius), in `unit`; feeds are
 * length a minute. Typed arrays, so that a million rows can be handed to another thread.
 */
export interface Motion {
  count: number
  kind: Uint8Array
  flags: Uint8Array
  x: Float64Array
  y: Float64Array
  z: Float64Array
  /** Rotary axis, degrees; null where none moves. */
  rotary: Float64Array | null
  /** Seconds that a row with a rotary move takes, 0 where its length and feed say so; null like `rotary`. */
  seconds: Float32Array | null
  feed: Float32Array
  /** Line of the text, from 1. */
  line: Uint32Array
  /** Index into `states`. */
  state: Uint32Array
  /** Index into arcs, events or inStep, by kind. */
  aux: Int32Array
  /** Six numbers an arc: centre X, Y, Z, sweep in radians (signed, about the plane's axis), radius at start and end. */
  arcs: Float64Array
  events: MotionEvent[]
  inStep: InStep[]
  states: ModalState[]
  /** Where the tip stands before the first row. */
  start: readonly [number, number, number]
  /** Blocks in the order in which they run. Block b makes the rows from `blockRow[b]` up to those of block b + 1. */
  blocks: number
  blockLine: Uint32Array
  blockRow: Uint32Array
  /** How many calls deep it runs. */
  blockDepth: Uint8Array
}

const grown = <T extends Uint8Array | Uint32Array | Int32Array | Float32Array | Float64Array>(
  old: T,
  length: number,
): T => {
  const next = new (old.constructor as new (length: number) => T)(length)
  next.set(old)
  return next
}

/** Builds a motion row by row; its arrays double as they fill. */
export class MotionBuilder {
  count = 0
  private capacity: number
  kind: Uint8Array
  flags: Uint8Array
  x: Float64Array
  y: Float64Array
  z: Float64Array
  rotary: Float64Array | null = null
  seconds: Float32Array | null = null
  feed: Float32Array
  line: Uint32Array
  state: Uint32Array
  aux: Int32Array
  arcs = new Float64Array(6 * 64)
  arcCount = 0
  readonly events: MotionEvent[] = []
  readonly inStep: InStep[] = []
  readonly states: ModalState[] = []
  blocks = 0
  blockLine: Uint32Array
  blockRow: Uint32Array
  blockDepth: Uint8Array

  /** What rows are counted against, where they are. */
  private readonly work: Work | undefined

  constructor(expected: number, work?: Work) {
    this.work = work
    const capacity = Math.max(64, Math.ceil(expected))
    this.capacity = capacity
    this.kind = new Uint8Array(capacity)
    this.flags = new Uint8Array(capacity)
    this.x = new Float64Array(capacity)
    this.y = new Float64Array(capacity)
    this.z = new Float64Array(capacity)
    this.feed = new Float32Array(capacity)
    this.line = new Uint32Array(capacity)
    this.state = new Uint32Array(capacity)
    this.aux = new Int32Array(capacity)
    this.blockLine = new Uint32Array(capacity)
    this.blockRow = new Uint32Array(capacity)
    this.blockDepth = new Uint8Array(capacity)
  }

  private grow() {
    this.capacity *= 2
    const { capacity } = this
    this.kind = grown(this.kind, capacity)
    this.flags = grown(this.flags, capacity)
    this.x = grown(this.x, capacity)
    this.y = grown(this.y, capacity)
    this.z = grown(this.z, capacity)
    if (this.rotary) this.rotary = grown(this.rotary, capacity)
    if (this.seconds) this.seconds = grown(this.seconds, capacity)
    this.feed = grown(this.feed, capacity)
    this.line = grown(this.line, capacity)
    this.state = grown(this.state, capacity)
    this.aux = grown(this.aux, capacity)
  }

  row(
    kind: number,
    flags: number,
    x: number,
    y: number,
    z: number,
    feed: number,
    line: number,
    state: number,
    aux = -1,
    rotary = 0,
    seconds = 0,
  ): void {
    this.work?.row()
    if (this.count === this.capacity) this.grow()
    const at = this.count++
    this.kind[at] = kind
    this.flags[at] = flags
    this.x[at] = x
    this.y[at] = y
    this.z[at] = z
    this.feed[at] = feed
    this.line[at] = line
    this.state[at] = state
    this.aux[at] = aux
    if ((rotary !== 0 || seconds !== 0) && !this.rotary) {
      this.rotary = new Float64Array(this.capacity)
      this.seconds = new Float32Array(this.capacity)
    }
    if (this.rotary) this.rotary[at] = rotary
    if (this.seconds) this.seconds[at] = seconds
  }

  /** A block of its own that is one straight row: as `block` and `row`, without what such a row never has. */
  plain(
    kind: number,
    flags: number,
    x: number,
    y: number,
    z: number,
    feed: number,
    line: number,
    state: number,
    depth: number,
  ): void {
    if (this.count === this.capacity) this.grow()
    if (this.blocks === this.blockLine.length) this.growBlocks()
    const at = this.count++
    this.kind[at] = kind
    this.x[at] = x
    this.y[at] = y
    this.z[at] = z
    this.feed[at] = feed
    this.line[at] = line
    if (flags !== 0) this.flags[at] = flags
    if (state !== 0) this.state[at] = state
    const block = this.blocks++
    this.blockLine[block] = line
    this.blockRow[block] = at
    if (depth !== 0) this.blockDepth[block] = depth
  }

  private growBlocks() {
    const length = this.blocks * 2
    this.blockLine = grown(this.blockLine, length)
    this.blockRow = grown(this.blockRow, length)
    this.blockDepth = grown(this.blockDepth, length)
  }

  arc(cx: number, cy: number, cz: number, sweep: number, from: number, to: number): number {
    if (6 * (this.arcCount + 1) > this.arcs.length) this.arcs = grown(this.arcs, this.arcs.length * 2)
    this.arcs.set([cx, cy, cz, sweep, from, to], 6 * this.arcCount)
    return this.arcCount++
  }

  block(line: number, depth: number): void {
    if (this.blocks === this.blockLine.length) this.growBlocks()
    const at = this.blocks++
    this.blockLine[at] = line
    this.blockRow[at] = this.count
    this.blockDepth[at] = depth
  }

  done(start: readonly [number, number, number]): Motion {
    const { count, blocks } = this
    return {
      count,
      kind: this.kind.subarray(0, count),
      flags: this.flags.subarray(0, count),
      x: this.x.subarray(0, count),
      y: this.y.subarray(0, count),
      z: this.z.subarray(0, count),
      rotary: this.rotary?.subarray(0, count) ?? null,
      seconds: this.seconds?.subarray(0, count) ?? null,
      feed: this.feed.subarray(0, count),
      line: this.line.subarray(0, count),
      state: this.state.subarray(0, count),
      aux: this.aux.subarray(0, count),
      arcs: this.arcs.subarray(0, 6 * this.arcCount),
      events: this.events,
      inStep: this.inStep,
      states: this.states,
      start,
      blocks,
      blockLine: this.blockLine.subarray(0, blocks),
      blockRow: this.blockRow.subarray(0, blocks),
      blockDepth: this.blockDepth.subarray(0, blocks),
    }
  }
}

export type Point = readonly [number, number, number]

/** Where row r ends; before the first row, where the tip stands at the start. */
export const endOf = (motion: Motion, row: number): [number, number, number] =>
  row < 0 ? [...motion.start] : [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number]

/** Two lengths of a program, in its unit, that are the same but for the rounding of sums: far below what any control can move. */
export const isSameLength = (a: number, b: number) => Math.abs(a - b) <= 1e-9

export const isArc = (kind: number) => kind === ROW.ARC_CW || kind === ROW.ARC_CCW

/** The axes of an arc's plane, in the order in which angles count from the first to the second, and the axis that stands on it. */
export const PLANE_AXES: Record<17 | 18 | 19, readonly [0 | 1 | 2, 0 | 1 | 2, 0 | 1 | 2]> = {
  17: [0, 1, 2],
  18: [2, 0, 1],
  19: [1, 2, 0],
}

/** A point of an arc row, `share` (0 to 1) along it. */
export function alongArc(motion: Motion, row: number, share: number): [number, number, number] {
  const [first, second, normal] = PLANE_AXES[motion.states[motion.state[row] as number]?.plane ?? 17]
  const base = 6 * (motion.aux[row] as number)
  const from = endOf(motion, row - 1)
  const to = endOf(motion, row)
  const centre = [motion.arcs[base], motion.arcs[base + 1], motion.arcs[base + 2]] as number[]
  const [sweep, r0, r1] = [motion.arcs[base + 3], motion.arcs[base + 4], motion.arcs[base + 5]] as [
    number,
    number,
    number,
  ]
  if (share >= 1) return to
  const [ca, cb] = [centre[first] as number, centre[second] as number]
  const angle = Math.atan2(from[second] - cb, from[first] - ca) + sweep * share
  const radius = r0 + (r1 - r0) * share
  const point: [number, number, number] = [0, 0, 0]
  point[first] = ca + radius * Math.cos(angle)
  point[second] = cb + radius * Math.sin(angle)
  point[normal] = from[normal] + (to[normal] - from[normal]) * share
  return point
}

/** Length of an arc or helix row. */
export function arcLength(motion: Motion, row: number): number {
  const base = 6 * (motion.aux[row] as number)
  const normal = PLANE_AXES[motion.states[motion.state[row] as number]?.plane ?? 17][2]
  const rise = endOf(motion, row)[normal] - endOf(motion, row - 1)[normal]
  const sweep = motion.arcs[base + 3] as number
  const radius = ((motion.arcs[base + 4] as number) + (motion.arcs[base + 5] as number)) / 2
  return Math.hypot(sweep * radius, rise)
}

export interface Extents {
  least: [number, number, number]
  greatest: [number, number, number]
}

/** The box that the tip stays in, with the bulge of arcs; rows that start at an assumed place count with their ends only. */
export function extents(motion: Motion): Extents | null {
  const { count, kind, x, y, z } = motion
  let [x0, y0, z0, x1, y1, z1] = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity]
  for (let i = 0; i < count; i++) {
    const [px, py, pz] = [x[i] as number, y[i] as number, z[i] as number]
    if (px < x0) x0 = px
    if (px > x1) x1 = px
    if (py < y0) y0 = py
    if (py > y1) y1 = py
    if (pz < z0) z0 = pz
    if (pz > z1) z1 = pz
    const of = kind[i] as number
    if (of !== ROW.ARC_CW && of !== ROW.ARC_CCW) continue
    for (const [ax, ay, az] of quarters(motion, i)) {
      x0 = Math.min(x0, ax)
      x1 = Math.max(x1, ax)
      y0 = Math.min(y0, ay)
      y1 = Math.max(y1, ay)
      z0 = Math.min(z0, az)
      z1 = Math.max(z1, az)
    }
  }
  return count === 0 ? null : { least: [x0, y0, z0], greatest: [x1, y1, z1] }
}

/** The points of an arc where it turns back along an axis. */
function quarters(motion: Motion, row: number): [number, number, number][] {
  const [first, second] = PLANE_AXES[motion.states[motion.state[row] as number]?.plane ?? 17]
  const base = 6 * (motion.aux[row] as number)
  const from = endOf(motion, row - 1)
  const sweep = motion.arcs[base + 3] as number
  if (sweep === 0) return []
  const start = Math.atan2(
    from[second] - (motion.arcs[base + second] as number),
    from[first] - (motion.arcs[base + first] as number),
  )
  const step = Math.PI / 2
  const points: [number, number, number][] = []
  const way = Math.sign(sweep)
  let angle = way > 0 ? Math.ceil(start / step) * step : Math.floor(start / step) * step
  for (let n = 0; n < 5; n++, angle += way * step) {
    const share = (angle - start) / sweep
    if (share > 0 && share < 1) points.push(alongArc(motion, row, share))
  }
  return points
}
