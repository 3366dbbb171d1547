import { type Block, dwellOf, has, lengthOf, turningTarget, wordValue } from './block.ts'
import { MAY_MOVE } from './check-words.ts'
import { readContour, withoutCompensation } from './contour.ts'
import type { ContourPiece } from './contour-piece.ts'
import { notTurnedAlong, spindleAngle, turnsOfWhat, turnsSpindle } from './driven.ts'
import {
  boxCycle,
  finishCycle,
  grooveCycle,
  repeatCycle,
  roughCycle,
  type TurningWords,
  threadCycle,
  threadMove,
} from './lathe-cycles.ts'
import { tapHand } from './mill-cycles.ts'
import { FLAG, isSameLength, ROW } from './motion.ts'
import type { Run } from './run.ts'

/** Axis words of a lathe's block; X and U as radii. */
function wordsOf(run: Run): TurningWords {
  const half = (value: number | undefined) => (value === undefined ? undefined : value / 2)
  const [x, , z] = turningTarget(run)
  const names = (a: string, b: string) => has(run, a) || has(run, b)
  return {
    x: names('X', 'U') ? x : undefined,
    z: names('Z', 'W') ? z : undefined,
    u: half(lengthOf(run, 'U')),
    w: lengthOf(run, 'W'),
    i: lengthOf(run, 'I'),
    k: lengthOf(run, 'K'),
    r: lengthOf(run, 'R'),
    d: scaled(run, 'D'),
    p: scaled(run, 'P'),
    q: scaled(run, 'Q'),
    rawP: wordValue(run, 'P'),
    rawQ: wordValue(run, 'Q'),
    f: scaled(run, 'F'),
  }
}

/** A number in the setup's unit that is read as it stands. */
const scaled = (run: Run, letter: string) => {
  const value = wordValue(run, letter)
  return value === undefined ? undefined : value * run.scale
}

/** Least increments, as P and Q of two-line cycles count them. */
const increments = (run: Run, value: number | undefined) =>
  (value ?? 0) * (run.inch ? 0.0001 : 0.001) * run.scale

/** What was set by a first line of a two-line cycle. */
function firstLine(run: Run, code: number, words: TurningWords): boolean {
  const { turningCycle } = run
  const hasContour = words.rawP !== undefined && words.rawQ !== undefined
  if ((code === 71 || code === 72) && !hasContour) {
    turningCycle.depth = Math.abs(
      code === 71 ? (has(run, 'U') ? (lengthOf(run, 'U') as number) : 0) : (words.w ?? 0),
    )
    turningCycle.retreat = Math.abs(words.r ?? 0)
    return true
  }
  if (code === 73 && !hasContour) {
    turningCycle.x = lengthOf(run, 'U') ?? 0
    turningCycle.z = words.w ?? 0
    turningCycle.passes = Math.max(1, Math.floor(wordValue(run, 'R') ?? 1))
    return true
  }
  if ((code === 74 || code === 75) && words.x === undefined && words.z === undefined) {
    turningCycle.retreat = Math.abs(words.r ?? 0)
    return true
  }
  if (code === 76 && words.x === undefined && words.z === undefined) {
    const p = Math.floor(words.rawP ?? 0)
    turningCycle.passes = Math.floor(p / 10_000) || 1
    // P020060: twice over the last depth, out over no leads (in tenths), an insert of 60 degrees.
    turningCycle.out = (Math.floor(p / 100) % 100) / 10
    turningCycle.least = increments(run, words.rawQ)
    turningCycle.finish = Math.abs(words.r ?? 0)
    return true
  }
  return false
}

/** Says when a cycle is written in the form that this control does not read. */
function form(run: Run, code: number, twoLine: boolean): void {
  const reads = run.options.profile.reading.turningCycles
  if (reads === (twoLine ? 'two-line' : 'one-line')) return
  run.wrong(
    'cycle-form',
    'stop',
    reads === null
      ? `G${code} is a cycle that this control does not have.`
      : `G${code} is written in ${twoLine ? 'two lines' : 'one line'}; this control reads ${reads === 'two-line' ? 'two lines' : 'one line'}.`,
    { does: 'The control stops with an alarm, or reads the words otherwise.', once: `${code}` },
  )
}

const FORMED = new Set([71, 72, 73, 74, 75, 76])

function cycle(block: Block, code: number): void {
  const { run } = block
  const words = wordsOf(run)
  if (FORMED.has(code) && firstLine(run, code, words)) {
    form(run, code, true)
    run.firstLineAt = run.lineIndex
    return
  }
  const twoLine = run.firstLineAt >= 0
  run.firstLineAt = -1
  if (FORMED.has(code) && !twoLine) form(run, code, false)
  const { turningCycle } = run
  if (code === 74 || code === 75) {
    grooveCycle(run, code, words, twoLine)
    return
  }
  if (code === 76) {
    const lead = words.f ?? run.feed
    threadCycle(run, {
      x: words.x ?? run.wx,
      z: words.z ?? run.wz,
      // One line: K the height, D the first cut. Two lines: P and Q in least increments.
      height: twoLine ? increments(run, words.rawP) : Math.abs(words.k ?? 0),
      first: twoLine ? increments(run, words.rawQ) : Math.abs(words.d ?? 0),
      lead,
      taper: (twoLine ? words.r : words.i) ?? 0,
      least: twoLine ? turningCycle.least : 0,
      finish: twoLine ? turningCycle.finish : 0,
      spring: twoLine ? turningCycle.passes : 0,
      out: twoLine ? turningCycle.out : undefined,
    })
    return
  }
  const found = readContour(block, code)
  if (!found) return
  if (code === 70) finishCycle(run, found.pieces)
  // What the tip goes along already is not led beside itself once more.
  else withoutCompensation(run, () => rough(run, code as 71 | 72 | 73, found.pieces, words, twoLine))
  block.next = Math.max(found.after, run.lineIndex + 1)
}

function rough(
  run: Run,
  code: 71 | 72 | 73,
  contour: readonly ContourPiece[],
  words: TurningWords,
  twoLine: boolean,
): void {
  const { turningCycle } = run
  if (code === 73)
    repeatCycle(run, contour, {
      i: twoLine ? turningCycle.x : (words.i ?? 0),
      k: twoLine ? turningCycle.z : (words.k ?? 0),
      u: words.u ?? 0,
      w: words.w ?? 0,
      passes: twoLine ? turningCycle.passes : Math.max(1, Math.floor(wordValue(run, 'D') ?? 1)),
    })
  else
    roughCycle(run, code, contour, {
      depth: twoLine ? turningCycle.depth : Math.abs(words.d ?? 0),
      retreat: twoLine ? turningCycle.retreat : run.options.profile.reading.retreat[run.unit] / 2,
      u: words.u ?? 0,
      w: words.w ?? 0,
    })
}

/**
 * Drilling and tapping along Z (G83, G84, the control's own for a left hand): from the R plane and out to it, on the centre line or, where a
 * driven tool does it, at an angle of the spindle. Another place or angle in a line of its own is another hole, by the words before.
 */
function drillCycle(run: Run, code: number): void {
  const [x, , to] = turningTarget(run)
  const angle = spindleAngle(run)
  const { sticky } = run
  const z = has(run, 'Z') || has(run, 'W') || Number.isNaN(sticky.z) ? to : sticky.z
  const plane = lengthOf(run, 'R') ?? (Number.isNaN(sticky.r) ? run.wz : sticky.r)
  sticky.z = z
  sticky.r = plane
  if (has(run, 'Q')) sticky.q = Math.abs(lengthOf(run, 'Q') as number)
  if (has(run, 'P')) sticky.p = dwellOf(run)
  turnsOfWhat(run)
  if (angle === undefined) run.go(ROW.RAPID, x, 0, run.wz, FLAG.CYCLE)
  else run.goTurning(ROW.RAPID, x, 0, run.wz, angle)
  if (!isSameLength(plane, run.wz)) run.go(ROW.RAPID, x, 0, plane, FLAG.CYCLE)
  if (code !== 83) {
    if (run.driven !== 0 && run.turning === 0)
      run.wrong(
        'driven-tap',
        'stop',
        `G${code} by a driven tool is not followed: which spindle it is in step with.`,
        {
          does: MAY_MOVE,
        },
      )
    const turning = code === 84 ? 3 : 4
    tapHand(run, code, turning)
    const rpm = run.rpm()
    const feed = run.feedFor(Math.abs(plane - z))
    const { tapRetract, rigidTap } = run.options.profile.reading
    const multiple = (tapRetract && wordValue(run, tapRetract.address)) ?? tapRetract?.usual ?? 1
    const aux =
      run.out.inStep.push({
        rpm,
        lead: rpm > 0 ? feed / rpm : 0,
        multiple,
        rigid: rigidTap === null || run.rigidAnnounced,
        starts: run.rigidAnnounced,
        tap: true,
        turning,
      }) - 1
    run.go(ROW.IN_STEP, x, 0, z, FLAG.CYCLE, aux, feed)
    run.go(ROW.TAP_OUT, x, 0, plane, FLAG.CYCLE, aux, feed * multiple)
    return
  }
  const peck = sticky.q
  const depth = plane - z
  const pecks = peck > 0 ? Math.min(5_000, Math.ceil(depth / peck - 1e-9)) : 1
  for (let n = 1; n <= pecks; n++) {
    const to = n === pecks ? z : plane - peck * n
    run.go(ROW.LINE, x, 0, to, FLAG.CYCLE)
    if (n === pecks) run.dwell(sticky.p)
    run.go(ROW.RAPID, x, 0, plane, FLAG.CYCLE)
    if (n < pecks)
      run.go(ROW.RAPID, x, 0, to + Math.min(peck, run.options.profile.reading.retreat[run.unit]), FLAG.CYCLE)
  }
}

/** The codes of a lathe that a mill reads otherwise; true where the block was one of them. */
export function turningBlock(block: Block): boolean {
  const { run, g, codes } = block
  for (const code of g) {
    if (code === 50) {
      if (['X', 'Z', 'U', 'W'].some((letter) => has(run, letter)))
        run.wrong('not-seen', 'stop', 'G50 with X, Z, U or W is not followed: it shifts the zero.', {
          does: MAY_MOVE,
          once: 'G50',
        })
      const top = wordValue(run, 'S')
      if (top !== undefined) run.topSpeed = Math.max(0, top)
      run.changed()
      return true
    }
    if (code === 96) {
      run.surfaceSpeed = Math.max(0, wordValue(run, 'S') ?? run.surfaceSpeed)
      if (!Number.isFinite(run.topSpeed))
        run.wrong('no-clamp', 'look', 'Constant surface speed without a highest speed (G50 S) before it.', {
          does: 'Towards the centre the spindle runs up to its own top speed.',
          once: 'all',
        })
      run.changed()
    }
    if (code >= 70 && code <= 76) {
      if (turnsSpindle(run)) notTurnedAlong(run, `G${code}`)
      cycle(block, code)
      return true
    }
    if (code === 90 || code === 92 || code === 94) {
      run.motion = code
      run.box = { x: run.wx, z: run.wz, taper: 0 }
    }
    if (code === 32 || code === 33) run.motion = 32
    if (code === 34) run.motion = 34
    if (code === 83 || code === 84 || code === codes.leftTap) {
      run.motion = code
      run.sticky = { ...run.sticky, z: Number.NaN, r: Number.NaN, q: 0, p: 0 }
    }
  }
  const moves = ['X', 'Z', 'U', 'W'].some((letter) => has(run, letter)) || turnsSpindle(run)
  if (!moves || run.motion < 4) return false
  const drills = run.motion === 83 || run.motion === 84 || run.motion === codes.leftTap
  if (!drills && turnsSpindle(run)) notTurnedAlong(run, `G${run.motion}`)
  const [x, , z] = turningTarget(run)
  if (run.motion === 32 || run.motion === 34)
    threadMove(run, run.motion, x, z, run.feed, lengthOf(run, 'K') ?? 0)
  else if (drills) drillCycle(run, run.motion)
  else {
    const { box } = run
    if (has(run, 'X') || has(run, 'U')) box.x = x
    if (has(run, 'Z') || has(run, 'W')) box.z = z
    box.taper = lengthOf(run, 'R') ?? lengthOf(run, 'I') ?? box.taper
    boxCycle(run, run.motion, box.x, box.z, box.taper)
  }
  return true
}
