import { alongContour, alongPiece, backTo, besideContour, contourPoints } from './contour.ts'
import type { ContourPiece } from './contour-piece.ts'
import { FLAG, isSameLength, ROW } from './motion.ts'
import type { Run } from './run.ts'

/** Passes and plunges beyond this are not followed: a word is wrong. */
const MOST_PASSES = 5_000

/** The words of a lathe cycle's block; X as a radius, lengths in the setup's unit, undefined where they are not written. */
export interface TurningWords {
  /** Target, radius and Z; undefined where neither the absolute nor the incremental word stands. */
  x: number | undefined
  z: number | undefined
  u: number | undefined
  w: number | undefined
  i: number | undefined
  k: number | undefined
  r: number | undefined
  d: number | undefined
  p: number | undefined
  q: number | undefined
  /** P and Q as they stand, for line numbers and least increments. */
  rawP: number | undefined
  rawQ: number | undefined
  f: number | undefined
}

const at = (run: Run) => ({ x: run.wx, z: run.wz })
const rapid = (run: Run, x: number, z: number) => run.go(ROW.RAPID, x, 0, z, FLAG.CYCLE)
const cut = (run: Run, x: number, z: number, feed?: number) => run.go(ROW.LINE, x, 0, z, FLAG.CYCLE, -1, feed)

/** A pass in step with the spindle; `mean` is the lead on its average, where it changes. The lead counts along the longer axis. */
function thread(run: Run, x: number, z: number, lead: number, mean = lead): void {
  const rpm = run.rpm()
  const [dx, dz] = [Math.abs(x - run.wx), Math.abs(z - run.wz)]
  const long = Math.max(dx, dz)
  const aux =
    run.out.inStep.push({
      rpm,
      lead,
      multiple: 1,
      rigid: true,
      starts: false,
      tap: false,
      turning: run.turning === 4 ? 4 : 3,
    }) - 1
  const along = long > 0 ? Math.hypot(dx, dz) / long : 1
  run.go(ROW.IN_STEP, x, 0, z, FLAG.CYCLE, aux, mean * rpm * along)
}

/**
 * A pass of a threading cycle, which at its end runs out over so much of Z at 45 degrees, `way` being that of X out of the thread; 0 where it
 * runs out square. Common practice.
 */
function threadPass(run: Run, x: number, z: number, lead: number, out: number, way: 1 | -1): void {
  const { x: fromX, z: fromZ } = at(run)
  const length = Math.abs(z - fromZ)
  if (out > 0 && out < length) {
    const share = 1 - out / length
    thread(run, fromX + (x - fromX) * share, fromZ + (z - fromZ) * share, lead)
    thread(run, run.wx + way * out, z, lead)
  } else thread(run, x, z, lead)
}

/** Over how much of Z a thread runs out by itself: as the profile says, while M23 holds. */
const runsOut = (run: Run, lead: number) =>
  run.threadOut ? (run.options.profile.reading.threads?.leads ?? 0) * lead : 0

function tooMany(run: Run, code: number, passes: number): boolean {
  if (passes <= MOST_PASSES) return false
  run.wrong(
    'cycle-passes',
    'stop',
    `G${code} comes to more than ${MOST_PASSES} passes: a depth or step is too small.`,
  )
  return true
}

const lacks = (run: Run, code: number, what: string) => {
  run.wrong('cycle-words', 'stop', `G${code} without ${what}.`, { does: 'The control stops with an alarm.' })
}

/**
 * G32: one threading pass in step with the spindle, from where the tool stands. G34: with a lead that is F at its start and grows by K each turn,
 * below 0 shrinks: after n turns it is F n + K n^2 / 2 further (the sum of the leads; common practice).
 */
export function threadMove(run: Run, code: 32 | 34, x: number, z: number, lead: number, change = 0): void {
  if (!(lead > 0)) {
    lacks(run, code, 'F, the lead')
    return
  }
  const length = Math.max(Math.abs(x - run.wx), Math.abs(z - run.wz))
  const inside = lead * lead + 2 * change * length
  if (code === 34 && change !== 0 && inside <= 0) {
    run.wrong('thread-lead', 'stop', 'The lead comes to nothing before the end of the thread.', {
      does: 'The control stops with an alarm.',
    })
    return
  }
  const turns = change === 0 ? length / lead : (Math.sqrt(inside) - lead) / change
  thread(run, x, z, lead, turns > 0 ? length / turns : lead)
}

/** G90 turning, G92 threading, G94 facing: a box of four moves from the start and back to it; R or I is the taper as a radius. */
export function boxCycle(run: Run, code: number, x: number, z: number, taper: number): void {
  const start = at(run)
  if (code === 94) {
    rapid(run, start.x, z + taper)
    cut(run, x, z)
    cut(run, x, start.z)
  } else {
    rapid(run, x + taper, start.z)
    if (code === 92) threadPass(run, x, z, run.feed, runsOut(run, run.feed), start.x >= x ? 1 : -1)
    else cut(run, x, z)
    if (code === 92) rapid(run, start.x, z)
    else cut(run, start.x, z)
  }
  rapid(run, start.x, start.z)
}

/** How far a groove's peck comes back to break the chip. */
const chipBreak = (run: Run) =>
  Math.min(run.options.profile.reading.retreat[run.unit], run.unit === 'inch' ? 0.02 : 0.5)

/**
 * G74 and G75: plunges along one axis with pecks, stepped along the other. One line: X Z, I and K as peck and step.
 * Two lines: R the retreat on the first, P and Q in least increments on the second. Ends at the last plunge, at the start's level.
 */
export function grooveCycle(run: Run, code: 74 | 75, words: TurningWords, twoLine: boolean): void {
  const start = at(run)
  const along = code === 75 ? 'x' : 'z'
  const aside = code === 75 ? 'z' : 'x'
  const bottom = words[along]
  if (bottom === undefined) {
    lacks(run, code, code === 75 ? 'X' : 'Z')
    return
  }
  const increment = (run.inch ? 0.0001 : 0.001) * run.scale
  const [p, q] = [(words.rawP ?? 0) * increment, (words.rawQ ?? 0) * increment]
  const peck = Math.abs(twoLine ? (code === 75 ? p : q) : ((code === 75 ? words.i : words.k) ?? 0))
  const step = Math.abs(twoLine ? (code === 75 ? q : p) : ((code === 75 ? words.k : words.i) ?? 0))
  const back = twoLine ? run.turningCycle.retreat : chipBreak(run)
  const last = words[aside] ?? start[aside]
  const span = last - start[aside]
  const isOnePlunge = isSameLength(last, start[aside])
  if (!isOnePlunge && step === 0) {
    lacks(run, code, 'a step between plunges')
    return
  }
  const plunges = isOnePlunge ? 1 : Math.ceil(Math.abs(span) / step - 1e-9) + 1
  const depth = bottom - start[along]
  const pecks = peck > 0 ? Math.ceil(Math.abs(depth) / peck - 1e-9) : 1
  if (tooMany(run, code, plunges * pecks)) return
  const place = (a: number, b: number) => (along === 'x' ? ([a, b] as const) : ([b, a] as const))
  for (let n = 0; n < plunges; n++) {
    const side = n === plunges - 1 ? last : start[aside] + Math.sign(span) * step * n
    if (!isSameLength(side, at(run)[aside])) rapid(run, ...place(start[along], side))
    for (let m = 1; m <= pecks; m++) {
      const to = m === pecks ? bottom : start[along] + Math.sign(depth) * peck * m
      cut(run, ...place(to, side))
      if (m < pecks) rapid(run, ...place(to - Math.sign(depth) * back, side))
    }
    rapid(run, ...place(start[along], side))
  }
}

/**
 * G76 threading: passes of less and less depth, the chip's area alike (depth of pass n is the first times the root of n),
 * down to the least cut. `height` and `first` are radial.
 */
export function threadCycle(
  run: Run,
  of: {
    x: number
    z: number
    height: number
    first: number
    lead: number
    taper: number
    least: number
    finish: number
    spring: number
    /** Over how many leads it runs out, where the cycle itself says so. */
    out: number | undefined
  },
): void {
  const start = at(run)
  const { height, first, least, finish } = of
  if (!(height > 0)) {
    lacks(run, 76, 'the height of the thread')
    return
  }
  if (!(first > 0)) {
    lacks(run, 76, 'the depth of the first cut')
    return
  }
  if (!(of.lead > 0)) {
    lacks(run, 76, 'F, the lead')
    return
  }
  const way = start.x >= of.x ? 1 : -1
  const out = of.out === undefined ? runsOut(run, of.lead) : of.out * of.lead
  const crest = of.x + way * height
  const depths: number[] = []
  let depth = 0
  for (let n = 1; depth < height - finish - 1e-12; n++) {
    depth = Math.min(height - finish, Math.max(first * Math.sqrt(n), depth + Math.max(least, first / 100)))
    depths.push(depth)
    if (tooMany(run, 76, n)) return
  }
  for (let n = 0; n < Math.max(1, of.spring) && finish > 0; n++) depths.push(height)
  for (const each of depths) {
    const x = crest - way * each
    rapid(run, x + of.taper, start.z)
    threadPass(run, x, of.z, of.lead, out, way)
    rapid(run, start.x, of.z)
    rapid(run, start.x, start.z)
  }
}

/** Where a contour, walked from its first point, reaches a radius (or a Z), as the other coordinate; undefined where it never does. */
function reached(
  points: readonly { x: number; z: number }[],
  level: number,
  on: 'x' | 'z',
): number | undefined {
  const other = on === 'x' ? 'z' : 'x'
  for (let n = 1; n < points.length; n++) {
    const [a, b] = [points[n - 1], points[n]] as [{ x: number; z: number }, { x: number; z: number }]
    const [from, to] = [a[on], b[on]]
    if ((from - level) * (to - level) > 0 || from === to) continue
    const share = (level - from) / (to - from)
    return a[other] + (b[other] - a[other]) * share
  }
  return undefined
}

/** G70: along the contour as it is written, and back to the start. */
export function finishCycle(run: Run, contour: readonly ContourPiece[]): void {
  const start = at(run)
  alongContour(run, contour)
  backTo(run, start.x, start.z)
}

/** What a roughing cycle goes by: the contour, or the tip's path beside it where the control leads the nose in these cycles too. */
const roughed = (run: Run, contour: readonly ContourPiece[]) =>
  run.options.profile.reading.compensation.roughing === 'beside' ? besideContour(run, contour) : contour

/**
 * G71 (passes along Z) and G72 (along X): roughs from the start down to the contour with stock left on it, then one pass
 * along it. `depth` is radial for G71; `u` is left on the radius, `w` on Z.
 */
export function roughCycle(
  run: Run,
  code: 71 | 72,
  contour: readonly ContourPiece[],
  of: { depth: number; retreat: number; u: number; w: number },
): void {
  const start = at(run)
  if (contour.length < 2) {
    lacks(run, code, 'a contour between P and Q')
    return
  }
  if (!(of.depth > 0)) {
    lacks(run, code, 'a depth of cut')
    return
  }
  const pieces = roughed(run, contour)
  const left = contourPoints(run, pieces).map(({ x, z }) => ({ x: x + of.u, z: z + of.w }))
  const level = code === 71 ? 'x' : 'z'
  const along = code === 71 ? 'z' : 'x'
  const place = (a: number, b: number) => (code === 71 ? ([a, b] as const) : ([b, a] as const))
  const levels = left.map((point) => point[level])
  const [lowest, highest] = [Math.min(...levels), Math.max(...levels)]
  // From outside inwards, or in a bore outwards.
  const way = start[level] >= (lowest + highest) / 2 ? 1 : -1
  const last = way > 0 ? lowest : highest
  const passes = Math.ceil(Math.abs(start[level] - last) / of.depth)
  if (tooMany(run, code, passes)) return
  for (let n = 1; n <= passes; n++) {
    const at = n === passes ? last : start[level] - way * of.depth * n
    const end = reached(left, at, level) ?? left.at(-1)?.[along] ?? start[along]
    rapid(run, ...place(at, start[along]))
    cut(run, ...place(at, end))
    const off = way * of.retreat
    cut(run, ...place(at + off, end + Math.sign(start[along] - end) * Math.abs(of.retreat)))
    rapid(run, ...place(at + off, start[along]))
  }
  for (const piece of pieces) alongPiece(run, { ...piece, rapid: false }, of.u, of.w)
  rapid(run, start.x, run.wz)
  rapid(run, start.x, start.z)
}

/** G73: the whole contour again and again, from `i`, `k` away down to the stock that is left. */
export function repeatCycle(
  run: Run,
  contour: readonly ContourPiece[],
  of: { i: number; k: number; u: number; w: number; passes: number },
): void {
  const start = at(run)
  if (contour.length === 0) {
    lacks(run, 73, 'a contour between P and Q')
    return
  }
  if (tooMany(run, 73, of.passes)) return
  const pieces = roughed(run, contour)
  for (let n = 0; n < of.passes; n++) {
    const share = of.passes === 1 ? 0 : 1 - n / (of.passes - 1)
    const [dx, dz] = [of.u + of.i * share, of.w + of.k * share]
    for (const [index, piece] of pieces.entries()) alongPiece(run, { ...piece, rapid: index === 0 }, dx, dz)
    rapid(run, start.x, run.wz)
    rapid(run, start.x, start.z)
  }
}
