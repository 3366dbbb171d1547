import { FLAG, isSameLength, PLANE_AXES, ROW } from './motion.ts'
import type { Run } from './run.ts'
import { sixDigits } from './six-digits.ts'
import type { Triple } from './ways.ts'

/** Canned cycles of a mill that the reader knows. */
export const MILL_CYCLES: ReadonlySet<number> = new Set([73, 74, 76, 81, 82, 83, 84, 85, 86, 87, 88, 89])

/** The words of a cycle's block; lengths in the setup's unit, undefined where they are not written. */
export interface CycleWords {
  /** Along the axis that stands on the plane: Z in G17. */
  depth: number | undefined
  r: number | undefined
  q: number | undefined
  /** Seconds. */
  p: number | undefined
  i: number | undefined
  j: number | undefined
  /** How often it repeats. */
  repeats: number
  /** Retract multiple of a tapping cycle. */
  multiple: number | undefined
}

/** Pecks beyond this are not followed: the peck is wrong. */
const MOST_PECKS = 10_000

/** A place in the cycle's own terms: the two axes of the plane and the one that stands on it. */
interface Hole {
  run: Run
  at: [number, number]
  r: number
  bottom: number
  initial: number
  code: number
}

const position = (run: Run): Triple => [run.wx, run.wy, run.wz]

function go(run: Run, kind: number, at: readonly [number, number], height: number, aux = -1, feed?: number) {
  const [first, second, normal] = PLANE_AXES[run.plane]
  const point = position(run)
  point[first] = at[0]
  point[second] = at[1]
  point[normal] = height
  run.go(kind, point[0], point[1], point[2], FLAG.CYCLE, aux, feed)
}

const rapid = ({ run, at }: Hole, height: number) => go(run, ROW.RAPID, at, height)
const feed = ({ run, at }: Hole, height: number) => go(run, ROW.LINE, at, height)

/** The retreat of a peck: the control's own setting. */
const retreat = ({ options, unit }: Run) => options.profile.reading.retreat[unit]

function peck(hole: Hole, breaking: boolean): void {
  const { run, r, bottom } = hole
  const q = run.sticky.q
  if (!(q > 0)) {
    run.wrong('peck-missing', 'stop', `G${hole.code} without Q: how deep a peck goes is not said.`, {
      does: 'The control stops with an alarm, or drills in one go.',
    })
    feed(hole, bottom)
    return
  }
  const back = retreat(run)
  if (Math.abs(r - bottom) / q > MOST_PECKS) {
    run.wrong('peck-small', 'stop', `A peck of ${q} makes more than ${MOST_PECKS} pecks.`)
    feed(hole, bottom)
    return
  }
  const pecks = Math.ceil((r - bottom) / q - 1e-9)
  for (let n = 1; n < pecks; n++) {
    const depth = r - n * q
    feed(hole, depth)
    if (breaking) rapid(hole, Math.min(r, depth + back))
    else {
      rapid(hole, r)
      // Down again to just above where it left off.
      rapid(hole, Math.min(r, depth + Math.min(back, q)))
    }
  }
  feed(hole, bottom)
}

/** A spindle that turns the other way before a tapping cycle: what it then does is not the same on every control. */
export function tapHand(run: Run, code: number, turning: 3 | 4): void {
  if (run.turning === 0 || run.turning === turning || run.rigidAnnounced) return
  run.wrong(
    'tap-hand',
    'look',
    `M${run.turning} before G${code}, which taps a ${turning === 3 ? 'right' : 'left'}-hand thread.`,
    {
      does: 'One control turns the spindle round by itself, another goes in the way that it turns.',
    },
  )
}

function tap(hole: Hole): void {
  const { run, r, bottom, code } = hole
  const rpm = run.rpm()
  const { reading } = run.options.profile
  const multiple = Number.isNaN(run.sticky.multiple) ? (reading.tapRetract?.usual ?? 1) : run.sticky.multiple
  if (rpm === 0)
    run.wrong('tap-no-speed', 'stop', `G${code} without a spindle speed.`, {
      does: 'The control stops with an alarm, or pushes a standing tap into the hole.',
    })
  const rate = run.feedFor(Math.abs(r - bottom))
  const inStep = {
    rpm,
    lead: rpm > 0 ? rate / rpm : 0,
    multiple,
    rigid: reading.rigidTap === null || run.rigidAnnounced,
    starts: run.rigidAnnounced,
    tap: true,
    turning: code === 74 ? (4 as const) : (3 as const),
  }
  tapHand(run, code, inStep.turning)
  const aux = run.out.inStep.push(inStep) - 1
  const step = run.sticky.q > 0 ? run.sticky.q : r - bottom
  if (!(step > 0) || (r - bottom) / step > MOST_PECKS) {
    go(run, ROW.IN_STEP, hole.at, bottom, aux, rate)
    go(run, ROW.TAP_OUT, hole.at, r, aux, rate * multiple)
    return
  }
  const pecks = Math.ceil((r - bottom) / step - 1e-9)
  for (let n = 1; n <= pecks; n++) {
    go(run, ROW.IN_STEP, hole.at, n === pecks ? bottom : r - n * step, aux, rate)
    if (n === pecks) run.dwell(run.sticky.p)
    go(run, ROW.TAP_OUT, hole.at, r, aux, rate * multiple)
  }
}

/** The shift that takes a boring bar off the wall: I and J, or Q along X. */
function offWall({ run, at }: Hole): [number, number] {
  const { i, j, q } = run.sticky
  return i !== 0 || j !== 0 ? [at[0] + i, at[1] + j] : [at[0] + q, at[1]]
}

function fineBore(hole: Hole): void {
  const { run, bottom } = hole
  const turning = run.turning
  feed(hole, bottom)
  run.dwell(run.sticky.p)
  run.spindle(0)
  const off = offWall(hole)
  go(run, ROW.LINE, off, bottom)
  const top = run.retract === 98 ? hole.initial : hole.r
  go(run, ROW.RAPID, off, top)
  go(run, ROW.RAPID, hole.at, top)
  run.spindle(turning)
}

/** R is below the part, Z the top of the cut from beneath; the bar goes through the hole shifted. Common practice. */
function backBore(hole: Hole): void {
  const { run, r, bottom } = hole
  const turning = run.turning
  const off = offWall(hole)
  run.spindle(0)
  go(run, ROW.RAPID, off, hole.initial)
  go(run, ROW.RAPID, off, r)
  go(run, ROW.LINE, hole.at, r)
  run.spindle(turning)
  go(run, ROW.LINE, hole.at, bottom)
  run.dwell(run.sticky.p)
  run.spindle(0)
  go(run, ROW.LINE, off, bottom)
  go(run, ROW.RAPID, off, hole.initial)
  go(run, ROW.RAPID, hole.at, hole.initial)
  run.spindle(turning)
}

/** What one hole does, from the R plane to where it comes out. RS274/NGC 3.5.16; common practice for the others. */
function drill(hole: Hole): void {
  const { run, bottom, r, code } = hole
  const turning = run.turning
  switch (code) {
    case 73:
      peck(hole, true)
      return
    case 83:
      peck(hole, false)
      return
    case 74:
    case 84:
      tap(hole)
      return
    case 76:
      fineBore(hole)
      return
    case 81:
      feed(hole, bottom)
      return
    case 85:
      feed(hole, bottom)
      feed(hole, r)
      return
    case 86:
      feed(hole, bottom)
      run.dwell(run.sticky.p)
      run.spindle(0)
      rapid(hole, run.retract === 98 ? hole.initial : r)
      run.spindle(turning)
      return
    case 88:
      feed(hole, bottom)
      run.dwell(run.sticky.p)
      run.spindle(0)
      run.event({ does: 'stop', optional: false, says: 'the spindle is brought out by hand' })
      rapid(hole, run.retract === 98 ? hole.initial : r)
      run.spindle(turning)
      return
    case 89:
      feed(hole, bottom)
      run.dwell(run.sticky.p)
      feed(hole, r)
      return
    default:
      feed(hole, bottom)
      run.dwell(run.sticky.p)
      return
  }
}

/** How a block stands to the canned cycle: its code stands there for the first time since G80, again, or not at all. */
export type CycleSaid = 'begins' | 'again' | 'goes on'

/**
 * The level that G98 goes back to: that from before the first cycle until G80; a code that is repeated does not set it
 * anew (common practice), but where the profile says so. It is said where the two differ and the tool goes back to it.
 */
function takeInitial(run: Run, code: number, height: number, said: CycleSaid): void {
  const { sticky } = run
  const each = run.options.profile.reading.initialLevel === 'each-code'
  if (said === 'again' && run.retract === 98 && !isSameLength(sticky.initial, height)) {
    const [kept, taken] = each ? [height, sticky.initial] : [sticky.initial, height]
    run.wrong(
      'initial-level',
      'look',
      `G${code} again within a cycle: G98 goes back to ${sixDigits(kept)}.`,
      {
        does: `That is ${each ? 'where it stands now' : 'the level from before the first cycle'}, by the profile; another control goes back to ${sixDigits(taken)}.`,
      },
    )
  }
  if (said === 'begins' || each) sticky.initial = height
}

/** Takes the words of the block into those that hold; false where the cycle lacks what it cannot do without. */
function take(run: Run, code: number, words: CycleWords, said: CycleSaid): boolean {
  const { sticky } = run
  const normal = PLANE_AXES[run.plane][2]
  const height = position(run)[normal]
  if (said !== 'goes on') {
    Object.assign(sticky, { z: Number.NaN, r: Number.NaN, q: 0, p: 0, i: 0, j: 0, multiple: Number.NaN })
    takeInitial(run, code, height, said)
  }
  if (words.r !== undefined) sticky.r = run.absolute ? words.r : height + words.r
  if (words.depth !== undefined) sticky.z = run.absolute ? words.depth : sticky.r + words.depth
  if (words.q !== undefined) sticky.q = Math.abs(words.q)
  if (words.p !== undefined) sticky.p = words.p
  if (words.i !== undefined) sticky.i = words.i
  if (words.j !== undefined) sticky.j = words.j
  if (words.multiple !== undefined) sticky.multiple = words.multiple
  const lacks = [Number.isNaN(sticky.z) ? 'XYZ'[normal] : '', Number.isNaN(sticky.r) ? 'R' : ''].filter(
    Boolean,
  )
  if (lacks.length > 0) {
    run.wrong('cycle-words', 'stop', `G${code} without ${lacks.join(' and ')}.`, {
      does: 'The control stops with an alarm, or uses what was left from before.',
    })
    return false
  }
  return true
}

/** A block while a canned cycle holds: goes to its place and makes the hole, as often as it says. `target` is of the program. */
export function millCycle(run: Run, code: number, target: Triple, words: CycleWords, said: CycleSaid): void {
  if (!take(run, code, words, said)) return
  const [first, second, normal] = PLANE_AXES[run.plane]
  const { sticky } = run
  if (code !== 87 && sticky.z > sticky.r && !isSameLength(sticky.z, sticky.r))
    run.wrong(
      'cycle-upwards',
      'stop',
      `The bottom, ${sixDigits(sticky.z)}, is above the R plane, ${sixDigits(sticky.r)}.`,
      {
        does: 'The control stops with an alarm, or goes up at feed.',
      },
    )
  if (run.feed <= 0)
    run.wrong('no-feed', 'stop', 'No feed has been given.', {
      does: 'The control stops with an alarm.',
      once: 'cycle',
    })
  const step: [number, number] = [
    target[first] - position(run)[first],
    target[second] - position(run)[second],
  ]
  const times = run.absolute ? Math.min(words.repeats, 1000) : Math.min(words.repeats, 10_000)
  for (let n = 0; n < times; n++) {
    const here = position(run)
    const at: [number, number] = run.absolute
      ? [target[first], target[second]]
      : [here[first] + step[0], here[second] + step[1]]
    const initial = Math.max(sticky.initial, sticky.r)
    const isAtR = isSameLength(here[normal], sticky.r)
    if (here[normal] < sticky.r && !isAtR && code !== 87)
      go(run, ROW.RAPID, [here[first], here[second]], sticky.r)
    const now = position(run)
    if (!isSameLength(now[first], at[0]) || !isSameLength(now[second], at[1]))
      go(run, ROW.RAPID, at, now[normal])
    const hole: Hole = { run, at, r: sticky.r, bottom: sticky.z, initial, code }
    if (code !== 87 && !isSameLength(position(run)[normal], sticky.r)) rapid(hole, sticky.r)
    if (code === 87) backBore(hole)
    else drill(hole)
    const out = run.retract === 98 ? initial : sticky.r
    if (!isSameLength(position(run)[normal], out) && code !== 87) rapid(hole, out)
  }
}
