import { arcLength, endOf, type Motion, PLANE_AXES, ROW } from '../program/index.ts'
import type { MachineSpeeds } from './machine-speeds.ts'
import { cornerSpeedSquared, restToRest, turnsFromRest } from './trapezoid.ts'

/** Taken once: these are looked at a million times. */
const { RAPID, LINE, ARC_CW, ARC_CCW, TAP_OUT, PROBE, EVENT } = ROW
const cornerOf = cornerSpeedSquared

/** Seconds of a cycle, by what they are spent on. */
export interface TimeParts {
  cutting: number
  rapid: number
  toolChange: number
  dwell: number
  spindle: number
  tappingOut: number
  probing: number
}

export interface CycleTime {
  total: number
  parts: TimeParts
  /** Seconds of each row of the motion. */
  rows: Float32Array
}

/**
 * When each axis arrives of a rapid (seconds): axes run at their own tops until they arrive, or all stretched to the
 * slowest. trade.md 9; each axis from rest to rest.
 */
export function rapidSeconds(dx: number, dy: number, dz: number, speeds: MachineSpeeds): number {
  const { rapid, acceleration } = speeds
  const [x, y, z] = [Math.abs(dx), Math.abs(dy), Math.abs(dz)]
  if (!speeds.straightRapids)
    return Math.max(
      restToRest(x, rapid[0], acceleration[0]),
      restToRest(y, rapid[1], acceleration[1]),
      restToRest(z, rapid[2], acceleration[2]),
    )
  const length = Math.sqrt(x * x + y * y + z * z)
  if (length === 0) return 0
  const speed = length / Math.max(x / rapid[0], y / rapid[1], z / rapid[2])
  const most = length / Math.max(x / acceleration[0], y / acceleration[1], z / acceleration[2])
  return restToRest(length, speed, most)
}

/** Most that can be done along a direction by axes of their own accelerations. */
const along = (of: readonly [number, number, number], x: number, y: number, z: number, length: number) =>
  length / Math.max(Math.abs(x) / of[0], Math.abs(y) / of[1], Math.abs(z) / of[2])

/** Directions at the two ends of an arc row, unit vectors. */
function tangents(motion: Motion, row: number): [number[], number[]] {
  const [first, second, normal] = PLANE_AXES[motion.states[motion.state[row] as number]?.plane ?? 17]
  const base = 6 * (motion.aux[row] as number)
  const sweep = motion.arcs[base + 3] as number
  const length = arcLength(motion, row)
  const rise = endOf(motion, row)[normal] - endOf(motion, row - 1)[normal]
  const level = Math.sqrt(Math.max(0, 1 - (rise / length) ** 2))
  const at = (point: readonly number[]) => {
    const [p, q] = [
      (point[first] as number) - (motion.arcs[base + first] as number),
      (point[second] as number) - (motion.arcs[base + second] as number),
    ]
    const radius = Math.hypot(p, q) || 1
    const way = Math.sign(sweep) * level
    const vector = [0, 0, 0]
    vector[first] = (-q / radius) * way
    vector[second] = (p / radius) * way
    vector[normal] = rise / length
    return vector
  }
  return [at(endOf(motion, row - 1)), at(endOf(motion, row))]
}

/**
 * Time of a whole program, row by row. Rapids and probing from rest to rest; feed moves run into each other as fast as
 * the corner between them can be rounded within the path tolerance, with look-ahead over the whole run of them; spindle,
 * tool changes and dwells by the machine's own times.
 */
export function cycleTime(motion: Motion, speeds: MachineSpeeds): CycleTime {
  const { count } = motion
  const feeds: FeedRows = {
    length: new Float32Array(count),
    top: new Float32Array(count),
    most: new Float32Array(count),
    enter: new Float32Array(count + 1),
  }
  const rows = new Float32Array(count)
  gatherFeeds(motion, speeds, feeds, rows)
  const cutting = lookAhead(count, feeds, rows)
  const parts = { ...otherRows(motion, speeds, rows) }
  parts.cutting += cutting
  const total = Object.values(parts).reduce((sum, part) => sum + part, 0)
  return { total, parts, rows }
}

/** Of every feed row: length, top speed, acceleration, and the square of the speed at its start; zeros for other rows. */
interface FeedRows {
  length: Float32Array
  top: Float32Array
  most: Float32Array
  enter: Float32Array
}

/** Fills the feed rows, and the corner speed between those that follow each other. One loop without calls: a million rows go through it. */
function gatherFeeds(
  motion: Motion,
  { acceleration, topFeed, cornerTolerance, rotaryTop }: MachineSpeeds,
  { length, top, most, enter }: FeedRows,
  rows: Float32Array,
): void {
  const { count, kind, x, y, z, feed, state, states, seconds } = motion
  const [ax, ay, az] = [1 / acceleration[0], 1 / acceleration[1], 1 / acceleration[2]]
  let stateIndex = -1
  let tolerance = cornerTolerance
  let px = motion.start[0]
  let py = motion.start[1]
  let pz = motion.start[2]
  // Direction at the end of the feed row before; none where `follows` is false.
  let follows = false
  let lx = 0
  let ly = 0
  let lz = 0
  for (let row = 0; row < count; row++) {
    const of = kind[row] as number
    const nx = x[row] as number
    const ny = y[row] as number
    const nz = z[row] as number
    const dx = nx - px
    const dy = ny - py
    const dz = nz - pz
    px = nx
    py = ny
    pz = nz
    if (of !== LINE && of !== ARC_CW && of !== ARC_CCW) {
      follows = false
      continue
    }
    if ((state[row] as number) !== stateIndex) {
      stateIndex = state[row] as number
      const now = states[stateIndex]
      tolerance = now?.exactStop ? 0 : (now?.pathTolerance ?? cornerTolerance)
    }
    const given = seconds === null ? 0 : (seconds[row] as number)
    const wanted = Math.min((feed[row] as number) / 60, topFeed)
    if (given > 0 || wanted <= 0) {
      rows[row] = given > 0 ? Math.max(given, rotaryLeast(motion, row, rotaryTop)) : 0
      follows = false
      continue
    }
    let size: number
    let sx: number
    let sy: number
    let sz: number
    let ex: number
    let ey: number
    let ez: number
    let pull: number
    let speed = wanted
    if (of === LINE) {
      size = Math.sqrt(dx * dx + dy * dy + dz * dz)
      if (size === 0) continue
      const per = 1 / size
      ex = sx = dx * per
      ey = sy = dy * per
      ez = sz = dz * per
      const wx = Math.abs(sx) * ax
      const wy = Math.abs(sy) * ay
      const wz = Math.abs(sz) * az
      pull = 1 / Math.max(wx, wy, wz)
    } else {
      size = arcLength(motion, row)
      if (size === 0) continue
      const [start, end] = tangents(motion, row)
      ;[sx, sy, sz] = start as [number, number, number]
      ;[ex, ey, ez] = end as [number, number, number]
      const base = 6 * (motion.aux[row] as number)
      const radius = Math.min(motion.arcs[base + 4] as number, motion.arcs[base + 5] as number)
      const [first, second] = PLANE_AXES[states[stateIndex]?.plane ?? 17]
      pull = Math.min(acceleration[first], acceleration[second])
      // Round a bend no faster than its axes can pull inwards: v^2 = a r.
      speed = Math.min(wanted, Math.sqrt(pull * Math.max(radius, 1e-9)))
    }
    length[row] = size
    top[row] = speed
    most[row] = pull
    if (follows && tolerance > 0) {
      const cosine = lx * sx + ly * sy + lz * sz
      const before = top[row - 1] as number
      const slower = Math.min(speed, before)
      const weaker = Math.min(pull, most[row - 1] as number)
      const corner = cornerOf(cosine, weaker, tolerance)
      enter[row] = Math.min(corner, slower * slower)
    }
    follows = true
    lx = ex
    ly = ey
    lz = ez
  }
}

/** Backwards: no faster into a row than it can be left; forwards: no faster than it can be reached. Gives the seconds in all. */
function lookAhead(count: number, { length, top, most, enter }: FeedRows, rows: Float32Array): number {
  for (let row = count - 1; row >= 0; row--) {
    const reach = (enter[row + 1] as number) + 2 * (most[row] as number) * (length[row] as number)
    if ((enter[row] as number) > reach) enter[row] = reach
  }
  let total = 0
  for (let row = 0; row < count; row++) {
    const size = length[row] as number
    if (size === 0) {
      total += rows[row] as number
      continue
    }
    const pull = most[row] as number
    const speed = top[row] as number
    const from2 = enter[row] as number
    const reach = from2 + 2 * pull * size
    if ((enter[row + 1] as number) > reach) enter[row + 1] = reach
    const to2 = enter[row + 1] as number
    const from = Math.sqrt(from2)
    const to = Math.sqrt(to2)
    const peak2 = (reach + to2) / 2
    const took =
      peak2 <= speed * speed
        ? (2 * Math.sqrt(peak2) - from - to) / pull
        : (2 * speed - from - to) / pull + (size - (2 * speed * speed - from2 - to2) / (2 * pull)) / speed
    rows[row] = took
    total += took
  }
  return total
}

/** Rapids, probing, tapping, and what happens between moves. */
function otherRows(motion: Motion, speeds: MachineSpeeds, rows: Float32Array): TimeParts {
  const { count, kind, x, y, z, feed } = motion
  const { acceleration } = speeds
  const parts = { cutting: 0, rapid: 0, toolChange: 0, dwell: 0, spindle: 0, tappingOut: 0, probing: 0 }
  let spindle = 0
  let driven = 0
  for (let row = 0; row < count; row++) {
    const of = kind[row] as number
    if (of >= LINE && of <= ARC_CCW) continue
    const dx = (x[row] as number) - (row > 0 ? (x[row - 1] as number) : motion.start[0])
    const dy = (y[row] as number) - (row > 0 ? (y[row - 1] as number) : motion.start[1])
    const dz = (z[row] as number) - (row > 0 ? (z[row - 1] as number) : motion.start[2])
    let seconds = 0
    if (of === RAPID) {
      seconds = Math.max(rapidSeconds(dx, dy, dz, speeds), rotarySeconds(motion, row, speeds))
      parts.rapid += seconds
    } else if (of === PROBE) {
      const size = Math.hypot(dx, dy, dz)
      const speed = Math.max(feed[row] as number, 1e-9) / 60
      if (size > 0) seconds = restToRest(size, speed, along(acceleration, dx, dy, dz, size))
      parts.probing += seconds
    } else if (of === EVENT) {
      const event = motion.events[motion.aux[row] as number]
      if (event?.does === 'dwell') {
        seconds = event.seconds
        parts.dwell += seconds
      } else if (event?.does === 'tool') {
        const stop = speeds.stopsToChange ? Math.abs(spindle) / speeds.spindleAcceleration : 0
        parts.spindle += stop
        parts.toolChange += speeds.toolChange
        seconds = stop + speeds.toolChange
        if (speeds.stopsToChange) spindle = 0
      } else if (event?.does === 'spindle') {
        const next = ((event.turning === 4 ? -1 : event.turning === 3 ? 1 : 0) * event.rpm) / 60
        seconds = Math.abs(next - (event.driven ? driven : spindle)) / speeds.spindleAcceleration
        parts.spindle += seconds
        if (event.driven) driven = next
        else spindle = next
      }
    } else {
      seconds = inStepSeconds(motion, row, Math.hypot(dx, dy, dz), speeds)
      if (of === TAP_OUT) parts.tappingOut += seconds
      else parts.cutting += seconds
    }
    rows[row] = seconds
  }
  return parts
}

/** In step with the spindle: a tap starts and stops with it, a thread goes along at its feed. */
function inStepSeconds(motion: Motion, row: number, size: number, speeds: MachineSpeeds): number {
  const step = motion.inStep[motion.aux[row] as number]
  if (step?.tap && step.lead > 0) {
    const out = motion.kind[row] === TAP_OUT
    const speed = Math.min((step.rpm / 60) * (out ? step.multiple : 1), speeds.tapTop)
    return turnsFromRest(size / step.lead, speed, speeds.spindleAcceleration)
  }
  const feed = motion.feed[row] as number
  return feed > 0 ? (60 * size) / feed : 0
}

/** Seconds that a turn at feed takes at least: at the rotary's top. */
function rotaryLeast({ rotary }: Motion, row: number, top: number): number {
  if (!rotary) return 0
  return Math.abs((rotary[row] as number) - (row > 0 ? (rotary[row - 1] as number) : 0)) / top
}

function rotarySeconds({ rotary }: Motion, row: number, speeds: MachineSpeeds): number {
  if (!rotary) return 0
  const turn = Math.abs((rotary[row] as number) - (row > 0 ? (rotary[row - 1] as number) : 0))
  return restToRest(turn, speeds.rotaryTop, speeds.rotaryAcceleration)
}
