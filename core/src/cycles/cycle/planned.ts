import { endOf, FLAG, isArc, type Motion, ROW, type SpindleDirection } from '../../program/index.ts'

/** A place of the tip in the frame of the offset (on a lathe X is a radius); null where an axis stays where it is. */
export type Place = readonly [x: number | null, y: number | null, z: number | null]

/** One thing that is meant to happen. Lengths in the setup's unit; feeds are length a minute where the row begins. */
export type PlannedRow =
  /** Where `turn` stands, the rotary axis goes to that many degrees; else it stays where it is. */
  | { does: 'rapid'; to: Place; turn?: number }
  | { does: 'feed'; to: Place; feed: number; turn?: number }
  /** The same where the time is what is written: seconds. */
  | { does: 'timed'; to: Place; turn: number; seconds: number }
  /** An arc of the flat face on a cylinder of `radius`, which the control makes chords of: its end, its centre in the flat. */
  | {
      does: 'wrapped-arc'
      to: Place
      turn: number
      radius: number
      centre: readonly [number, number]
      clockwise: boolean
      feed: number
    }
  | { does: 'arc'; to: Place; centre: readonly [number, number]; clockwise: boolean; feed: number }
  /** A tap going in or out in step with the spindle: length a turn, and how many times the speed. */
  | { does: 'tap-in'; to: Place; rpm: number; lead: number; turning: 3 | 4 }
  | { does: 'tap-out'; to: Place; rpm: number; lead: number; turning: 3 | 4; multiple: number }
  | { does: 'dwell'; seconds: number }
  | { does: 'tool'; tool: number }
  | { does: 'spindle'; turning: SpindleDirection; rpm?: number }
  /** To the machine's own top or home: where that is, the machine knows. */
  | { does: 'up' }
  /** The program waits for cycle start. */
  | { does: 'stop' }
  | { does: 'end' }

const NEAR = 1e-9

const same = (a: number, b: number, scale = 1) => Math.abs(a - b) <= NEAR * Math.max(1, Math.abs(scale))

/** Whether a row that moves is of the kind that is planned. */
function ofKind(does: PlannedRow['does'], kind: number): boolean {
  switch (does) {
    case 'rapid':
      return kind === ROW.RAPID
    case 'feed':
    case 'timed':
    case 'wrapped-arc':
      return kind === ROW.LINE
    case 'arc':
      return isArc(kind)
    case 'tap-in':
      return kind === ROW.IN_STEP
    case 'tap-out':
      return kind === ROW.TAP_OUT
    default:
      return false
  }
}

const at = (place: Place) => place.map((value) => (value === null ? '-' : Number(value.toFixed(6)))).join(' ')

const toMachine = (motion: Motion, row: number) => ((motion.flags[row] as number) & FLAG.TO_MACHINE) !== 0

/** The stream holds feeds in single precision. */
const sameFeed = (read: number, planned: number) => Math.abs(read - planned) <= 1e-6 * Math.max(1, planned)

/** Whether a row ends at a place; row -1 is where the tip stands at the start. */
function endsAt(motion: Motion, row: number, [x, y, z]: Place): boolean {
  const [ax, ay, az] =
    row < 0 ? motion.start : [motion.x[row] as number, motion.y[row] as number, motion.z[row] as number]
  return (x === null || same(x, ax, x)) && (y === null || same(y, ay, y)) && (z === null || same(z, az, z))
}

const turnAt = ({ rotary }: Motion, row: number) => (row < 0 ? 0 : (rotary?.[row] ?? 0))

/** Whether the rotary axis stands at a row's end as is planned; where nothing is, it has not moved. */
const turnsTo = (motion: Motion, row: number, planned: PlannedRow) => {
  const turn = 'turn' in planned ? planned.turn : undefined
  return same(turnAt(motion, row), turn ?? turnAt(motion, row - 1), turn)
}

/** A straight row that goes nowhere: no control makes it. */
function standsStill(motion: Motion, row: number): boolean {
  const { kind, x, y, z, start } = motion
  const of = kind[row] as number
  if (of === ROW.EVENT || isArc(of)) return false
  const [px, py, pz] = row === 0 ? start : [x[row - 1] as number, y[row - 1] as number, z[row - 1] as number]
  const [nx, ny, nz] = [x[row] as number, y[row] as number, z[row] as number]
  return (
    same(px, nx, nx) &&
    same(py, ny, ny) &&
    same(pz, nz, nz) &&
    same(turnAt(motion, row), turnAt(motion, row - 1), turnAt(motion, row))
  )
}

/** How far the ends of an arc may lie off its circle where both are rounded to the digits of a control. */
const OFF_CIRCLE = { inch: 0.00025, mm: 0.0025 }

/**
 * The rows that a control makes of an arc on a cylinder: all of one block, each end on the circle, each further round the same
 * way. The last of them, or what is wrong.
 */
function wrappedArc(
  motion: Motion,
  row: number,
  { radius, centre: [cx, cy], clockwise }: Extract<PlannedRow, { does: 'wrapped-arc' }>,
): { last: number } | { says: string } {
  const flat = (at: number): [number, number] => [
    (at < 0 ? motion.start[0] : (motion.x[at] as number)) - cx,
    ((turnAt(motion, at) * Math.PI) / 180) * radius - cy,
  ]
  let [px, py] = flat(row - 1)
  const size = Math.hypot(px, py)
  const off = OFF_CIRCLE[motion.states[motion.state[row] as number]?.inch ? 'inch' : 'mm']
  let at = row
  for (; at < motion.count && motion.line[at] === motion.line[row] && motion.kind[at] === ROW.LINE; at++) {
    const [x, y] = flat(at)
    if (Math.abs(Math.hypot(x, y) - size) > off) return { says: 'leaves its circle' }
    const way = px * y - py * x
    if (way !== 0 && way > 0 === clockwise) return { says: 'goes round the other way' }
    px = x
    py = y
  }
  return { last: at - 1 }
}

function rowDiffers(motion: Motion, row: number, planned: PlannedRow): string | undefined {
  const kind = motion.kind[row] as number
  if (planned.does === 'up') return toMachine(motion, row) ? undefined : 'does not go to the top'
  if (kind === ROW.EVENT) {
    const event = motion.events[motion.aux[row] as number]
    if (event?.does !== planned.does) return `does ${event?.does ?? 'nothing'}, not ${planned.does}`
    if (event.does === 'tool' && planned.does === 'tool' && event.tool !== planned.tool)
      return `takes T${event.tool}`
    if (event.does === 'dwell' && planned.does === 'dwell' && !same(event.seconds, planned.seconds))
      return `dwells ${event.seconds} s`
    if (event.does === 'spindle' && planned.does === 'spindle') {
      if (event.turning !== planned.turning) return `turns M${event.turning || 5}`
      if (planned.rpm !== undefined && !same(event.rpm, planned.rpm)) return `turns ${event.rpm} rpm`
    }
    return undefined
  }
  if (!ofKind(planned.does, kind)) return `is a row of kind ${kind}, not ${planned.does}`
  if (!('to' in planned)) return undefined
  if (!turnsTo(motion, row, planned)) return `turns to ${turnAt(motion, row)} degrees`
  if (planned.does === 'timed' && !sameFeed(motion.seconds?.[row] ?? 0, planned.seconds))
    return `takes ${motion.seconds?.[row]} s, not ${planned.seconds}`
  if (!endsAt(motion, row, planned.to)) return `goes to ${at(endOf(motion, row))}, not to ${at(planned.to)}`
  if (toMachine(motion, row)) return 'goes to a machine position'
  if ('feed' in planned && !sameFeed(motion.feed[row] as number, planned.feed))
    return `feeds ${motion.feed[row]}, not ${planned.feed}`
  if (planned.does === 'arc') {
    if ((kind === ROW.ARC_CW) !== planned.clockwise) return 'goes round the other way'
    const base = 6 * (motion.aux[row] as number)
    const [first, second] = motion.states[motion.state[row] as number]?.plane === 18 ? [0, 2] : [0, 1]
    if (
      !same(motion.arcs[base + (first as number)] as number, planned.centre[0]) ||
      !same(motion.arcs[base + (second as number)] as number, planned.centre[1])
    )
      return 'goes round another centre'
  }
  if (planned.does === 'tap-in' || planned.does === 'tap-out') {
    const step = motion.inStep[motion.aux[row] as number]
    if (!step?.tap || !same(step.rpm, planned.rpm)) return `taps at ${step?.rpm} rpm`
    if (step.turning !== planned.turning) return `taps the other hand, M${step.turning}`
    if (Math.abs(step.lead - planned.lead) > 1e-9) return `taps with a lead of ${step.lead}`
    if (planned.does === 'tap-out' && !same(step.multiple, planned.multiple))
      return `comes out at ${step.multiple}`
  }
  return undefined
}

/**
 * What a motion that was read does otherwise than was planned: the first difference, with its line; undefined where it
 * does just that, in that order, to a billionth of the unit. The way to the machine's own top counts once.
 */
export function plannedDiffers(
  motion: Motion,
  planned: readonly PlannedRow[],
): { line: number; says: string } | undefined {
  let next = 0
  let here = -1
  let up = false
  const skipIdle = () => {
    for (let row = planned[next]; row; row = planned[++next]) {
      if (row.does !== 'rapid' && row.does !== 'feed' && row.does !== 'timed') return
      if (!endsAt(motion, here, row.to)) return
      if (row.turn !== undefined && !same(turnAt(motion, here), row.turn, row.turn)) return
    }
  }
  for (let row = 0; row < motion.count; row++) {
    const home = toMachine(motion, row)
    if (home ? up : standsStill(motion, row)) continue
    up = home
    skipIdle()
    const want = planned[next]
    const line = motion.line[row] as number
    if (!want) return { line, says: 'does more than was planned' }
    let end = row
    if (want.does === 'wrapped-arc' && motion.kind[row] === ROW.LINE) {
      const arc = wrappedArc(motion, row, want)
      if ('says' in arc) return { line, says: arc.says }
      end = arc.last
    }
    const says = rowDiffers(motion, end, want)
    if (says) return { line, says }
    here = row = end
    next++
  }
  skipIdle()
  const left = planned[next]
  return left
    ? { line: motion.line.at(-1) ?? 1, says: `does not do all that was planned: ${left.does} is missing` }
    : undefined
}
