import type { Probing } from '../control/index.ts'
import { writeOffset } from './loads-offset.ts'
import { ballOf, meeting } from './meeting.ts'
import { FLAG, ROW } from './motion.ts'
import type { OffsetWritten } from './offset-written.ts'
import { takeOnWord } from './on-word.ts'
import { MOST_PROBED, type ProbeCallRun, type ProbeMacro } from './probed.ts'
import type { Run } from './run.ts'
import { notWhileScaled } from './scaled.ts'
import type { Triple } from './ways.ts'

/** The words of a macro call, in the setup's unit where they are lengths. */
export type CallWords = Partial<Record<string, number>>

type Axis = 0 | 1 | 2
const AXES = ['X', 'Y', 'Z'] as const

/** Places along some of the axes, in the program. */
type Places = Partial<Record<(typeof AXES)[number], number>>
const here = (run: Run): Triple => [run.wx, run.wy, run.wz]

const probe = (run: Run, to: Triple, feed: number) =>
  run.go(ROW.PROBE, to[0], to[1], to[2], FLAG.CYCLE, -1, feed)

/** A macro of the probe stops everything. */
function stopped(run: Run, says: string): void {
  run.event({ does: 'stop', optional: false, says })
  run.alarm = { line: run.line, says }
  run.ended = true
}

/** A protected move: stops where it meets something it should not. */
function protectedMove(run: Run, to: Triple, feed: number): void {
  const strict = run.options.standIn?.strict === true
  const from = here(run)
  const met = strict ? meeting(run, from, to) : undefined
  if (met === undefined) {
    run.go(ROW.PROBE, to[0], to[1], to[2], 0, -1, feed)
    return
  }
  const at = from.map((start, axis) => start + ((to[axis] as number) - start) * met) as Triple
  run.go(ROW.PROBE, at[0], at[1], at[2], 0, -1, feed)
  stopped(run, 'the protected move met something')
}

/** A result of a probe is no finer than this: it is cut to whole billionths, so that equal sizes compare as equal. */
const clean = (value: number) => Math.round(value * 1e9) / 1e9

/**
 * Touches along one axis and comes back; gives where it touched: the stand-in part's face, or the place that was asked for.
 * The ball stops half its width before it.
 */
function touch(run: Run, axis: Axis, nominal: number, over: number, feed: number): number {
  if (run.ended) return nominal
  const from = here(run)
  const way = Math.sign(nominal - from[axis]) || -1
  const ball = way * ballOf(run)
  const solid = run.options.standIn
  const furthest: Triple = [...from]
  furthest[axis] = nominal + way * over
  const share = meeting(run, from, furthest)
  // In the material to begin with: the stand-in part has no pocket here, and the wall is where it is said to be.
  const met =
    share === undefined || (share === 0 && !solid?.strict)
      ? undefined
      : from[axis] + (furthest[axis] - from[axis]) * share
  if (solid && share === undefined) {
    if (solid.strict) {
      furthest[axis] -= ball
      probe(run, furthest, feed)
      stopped(run, 'the probe met nothing')
      return nominal
    }
    run.wrong(
      'probe-misses',
      'look',
      `The probe goes to ${AXES[axis]} ${Number((nominal / run.scale).toPrecision(6))} and does not meet the part as it is placed.`,
      { does: 'The control stops with an alarm: no contact. Read on as if it had touched there.' },
    )
  }
  if (share === 0 && solid?.strict) {
    stopped(run, 'the probe stood against the part before it searched')
    return nominal
  }
  const at = met === undefined ? nominal : met - way * (solid?.scatter?.() ?? 0)
  const to = here(run)
  to[axis] = at - ball
  probe(run, to, feed)
  probe(run, from, feed)
  return at
}

function setResult(
  run: Run,
  { results }: Probing,
  of: Partial<Record<keyof Probing['results'], number>>,
): void {
  if (run.ended) return
  const set: number[] = []
  for (const [name, value] of Object.entries(of)) {
    const variable = results[name as keyof Probing['results']]
    run.setCommon(variable, clean(name === 'angle' ? value : value / run.scale))
    set.push(variable)
  }
  const call = run.probing.calls.at(-1)
  if (call) call.results = set
}

/** The offset that an S word names: its number, or by the profile that of a further one. */
function offsetOfWord({ options: { profile } }: Run, probing: Probing, s: number): string | undefined {
  const { standard, extended } = profile.offsets
  if (Number.isInteger(s) && standard[s - 1]) return standard[s - 1]
  const p = Math.round((s - probing.furtherBase) / probing.furtherStep)
  const isOne = Math.abs(probing.furtherBase + probing.furtherStep * p - s) < 1e-6
  return extended && isOne && p >= 1 && p <= extended.count ? `${extended.code} P${p}` : undefined
}

/**
 * An S word sets an offset so that what was measured lies where it was said to lie: it is shifted by as much as the feature
 * lies elsewhere. Common practice, from memory; the manual of the macros comes first.
 */
function setOffset(run: Run, probing: Probing, s: number | undefined, from: Places, to: Places): void {
  if (s === undefined || run.ended) return
  const offset = offsetOfWord(run, probing, s)
  if (offset === undefined) {
    lacks(run, `S${s} names no offset of this control.`)
    return
  }
  const place = ([x, y, z]: Triple, { X = x, Y = y, Z = z }: Places) => run.sceneOf(X, Y, Z)
  const [a, b] = [place(here(run), from), place(here(run), to)]
  const axes: OffsetWritten['axes'] = {}
  for (const [index, axis] of AXES.entries()) {
    const stood = run.offsetAt(offset, axis)
    if (to[axis] !== undefined && stood !== undefined)
      axes[axis] = stood + (b[index] as number) - (a[index] as number)
  }
  if (Object.keys(axes).length > 0) writeOffset(run, offset, axes)
}

/** Two faces along an axis, from outside (a web or boss, at depth Z from clearance R) or inside (a pocket or bore). */
function across(
  run: Run,
  axis: Axis,
  size: number,
  { depth, clearance, over }: { depth: number | undefined; clearance: number | undefined; over: number },
  feed: number,
): { middle: number; size: number } {
  const start = here(run)
  const outside = clearance !== undefined && clearance > 0
  const found: number[] = []
  for (const way of [1, -1]) {
    const nominal = start[axis] + (way * size) / 2
    const beside: Triple = [...start]
    if (outside) beside[axis] = nominal + way * (clearance + ballOf(run))
    if (run.ended) break
    probe(run, beside, feed)
    const down: Triple = [...beside]
    if (depth !== undefined) down[2] = depth
    probe(run, down, feed)
    found.push(touch(run, axis, nominal, over, feed))
    if (run.ended) break
    probe(run, beside, feed)
    probe(run, start, feed)
  }
  const [a = 0, b = 0] = found
  return { middle: (a + b) / 2, size: Math.abs(a - b) }
}

/** A bore or boss: across X, from its middle across Y, and from the middle of both across X again, so that both are diameters. */
function round(
  run: Run,
  diameter: number,
  words: { depth: number | undefined; clearance: number | undefined; over: number },
  feed: number,
) {
  const start = here(run)
  const inX = across(run, 0, diameter, words, feed)
  if (!run.ended) probe(run, [inX.middle, start[1], start[2]], feed)
  const inY = across(run, 1, diameter, words, feed)
  if (!run.ended) probe(run, [inX.middle, inY.middle, start[2]], feed)
  const again = across(run, 0, diameter, words, feed)
  return { X: again.middle, Y: inY.middle, size: (again.size + inY.size) / 2 }
}

/** The macro that a number stands for in a profile. */
const MACROS = [
  'on',
  'off',
  'protectedMove',
  'surface',
  'webPocket',
  'boreBoss',
  'outsideCorner',
  'insideCorner',
  'angle',
] as const satisfies readonly ProbeMacro[]

/**
 * Runs a call to a probe macro by its number against the stand-in part: the moves, and the results in their variables.
 * False where the number is none of the profile's. What each does is common practice; the macro's own manual comes first.
 */
export function probeCall(run: Run, number: number, words: CallWords): boolean {
  const { probing } = run.options.profile
  if (!probing) return false
  const macro = MACROS.find((name) => probing[name] === number)
  if (!macro) return false
  takeOnWord(run, `O${number}`, 'macro')
  // What is measured would be told in numbers that are scaled, and a wall is on the other side.
  notWhileScaled(run, 'Probing')
  const feed = probing.feed[run.unit]
  const usual = run.unit === 'inch' ? 0.4 : 10
  const over = words.Q ?? usual
  const row = run.out.count
  const measures = macro !== 'on' && macro !== 'off' && macro !== 'protectedMove'
  const call: ProbeCallRun = {
    line: run.line,
    macro,
    tool: run.tool,
    turning: run.turning,
    on: run.probeOn,
    rows: [row, row],
    ...(measures ? { over } : {}),
    results: [],
  }
  if (run.probing.calls.length < MOST_PROBED) run.probing.calls.push(call)
  carryOutCall(run, probing, number, words, { feed, over })
  call.rows = [row, run.out.count]
  return true
}

/** What is wrong with the words of a call. */
const lacks = (run: Run, says: string) =>
  run.wrong('probe-words', 'stop', says, { does: 'The macro stops with an alarm.' })

function carryOutCall(
  run: Run,
  probing: Probing,
  number: number,
  words: CallWords,
  { feed, over }: { feed: number; over: number },
): void {
  const sides = (size: number) => ({
    depth: words.Z,
    clearance: words.R,
    over: words.Q ?? words.R ?? size / 4,
  })
  const place = (axis: Axis) => words[AXES[axis]]
  switch (number) {
    case probing.on:
    case probing.off:
      run.probeOn = number === probing.on
      run.event({ does: 'dwell', seconds: 1 })
      return
    case probing.protectedMove: {
      const [x, y, z] = here(run)
      protectedMove(run, [words.X ?? x, words.Y ?? y, words.Z ?? z], words.F && words.F > 0 ? words.F : feed)
      return
    }
    case probing.surface: {
      const axes = ([0, 1, 2] as const).filter((axis) => place(axis) !== undefined)
      const [axis] = axes
      if (axis === undefined || axes.length > 1) {
        lacks(run, 'A single surface needs just one of X, Y and Z.')
        return
      }
      const at = touch(run, axis, place(axis) as number, over, feed)
      setResult(run, probing, { [AXES[axis]]: at })
      setOffset(run, probing, words.S, { [AXES[axis]]: place(axis) }, { [AXES[axis]]: at })
      return
    }
    case probing.webPocket: {
      const axis = words.X === undefined ? 1 : 0
      const size = place(axis)
      if (size === undefined) {
        lacks(run, 'A web or pocket needs X or Y: its size.')
        return
      }
      const stood = here(run)[axis]
      const found = across(run, axis, size, sides(size), feed)
      setResult(run, probing, { [AXES[axis]]: found.middle, size: found.size })
      setOffset(run, probing, words.S, { [AXES[axis]]: stood }, { [AXES[axis]]: found.middle })
      return
    }
    case probing.boreBoss: {
      if (words.D === undefined) {
        lacks(run, 'A bore or boss needs D: its diameter.')
        return
      }
      const [X, Y] = here(run)
      const found = round(run, words.D, sides(words.D), feed)
      setResult(run, probing, found)
      setOffset(run, probing, words.S, { X, Y }, { X: found.X, Y: found.Y })
      return
    }
    case probing.outsideCorner:
    case probing.insideCorner: {
      if (words.X === undefined || words.Y === undefined) {
        lacks(run, 'A corner needs X and Y.')
        return
      }
      const { X, Y } = words
      const found = corner(run, X, Y, number === probing.outsideCorner, over, feed)
      setResult(run, probing, found)
      setOffset(run, probing, words.S, { X, Y }, found)
      return
    }
    case probing.angle: {
      const axis = words.X === undefined ? 1 : 0
      const target = place(axis)
      const apart = words.D ?? 0
      if (target === undefined || apart === 0) {
        lacks(run, 'An angle needs X or Y, and D: how far apart it touches.')
        return
      }
      const along: Axis = axis === 0 ? 1 : 0
      const start = here(run)
      const first = touch(run, axis, target, over, feed)
      const next: Triple = [...start]
      next[along] += apart
      probe(run, next, feed)
      const second = touch(run, axis, target, over, feed)
      probe(run, start, feed)
      // Counter-clockwise is positive: a face that is touched along X then leans to X minus as Y grows.
      const leans = axis === 0 ? first - second : second - first
      setResult(run, probing, { angle: (Math.atan2(leans, apart) * 180) / Math.PI })
      return
    }
  }
}

/** The two faces that meet in a corner: inside straight on, outside from beyond the end of the other face. */
function corner(run: Run, x: number, y: number, outside: boolean, over: number, feed: number) {
  const start = here(run)
  if (!outside) return { X: touch(run, 0, x, over, feed), Y: touch(run, 1, y, over, feed) }
  // From the start, which lies off the corner, along each face by as much again as it lies off.
  const beyondY: Triple = [start[0], y + (y - start[1]), start[2]]
  probe(run, beyondY, feed)
  const X = touch(run, 0, x, over, feed)
  probe(run, start, feed)
  const beyondX: Triple = [x + (x - start[0]), start[1], start[2]]
  probe(run, beyondX, feed)
  const Y = touch(run, 1, y, over, feed)
  probe(run, start, feed)
  return { X, Y }
}
