import type { Probing } from '../control/index.ts'
import { FLAG, ROW } from './motion.ts'
import type { Run } from './run.ts'

/** The words of a macro call, in the setup's unit where they are lengths. */
export type CallWords = Partial<Record<string, number>>

type Axis = 0 | 1 | 2
const AXES = ['X', 'Y', 'Z'] as const

type Triple = [number, number, number]
const here = (run: Run): Triple => [run.wx, run.wy, run.wz]

const probe = (run: Run, to: Triple, feed: number) =>
  run.go(ROW.PROBE, to[0], to[1], to[2], FLAG.CYCLE, -1, feed)

/** Where a straight probing move along one axis meets the stand-in part, in the program; undefined where it goes past. */
function contact(run: Run, from: Triple, axis: Axis, to: number): number | undefined {
  const box = run.options.standIn
  if (!box || run.rotation) return undefined
  const shift = [run.shiftX, run.shiftY, run.shiftZ] as const
  for (const other of [0, 1, 2] as const) {
    if (other === axis) continue
    const at = from[other] + shift[other]
    if (at < box.least[other] || at > box.greatest[other]) return undefined
  }
  const face = (to > from[axis] ? box.least[axis] : box.greatest[axis]) - shift[axis]
  const between = (face - from[axis]) * (face - to) <= 0
  return between ? face : undefined
}

/** Touches along one axis and comes back; gives where it touched: the stand-in part's face, or the place that was asked for. */
function touch(run: Run, axis: Axis, nominal: number, over: number, feed: number, solid = true): number {
  const from = here(run)
  const way = Math.sign(nominal - from[axis]) || -1
  // The stand-in part has no pockets: inside one, the wall is where it is said to be.
  const met = solid ? contact(run, from, axis, nominal + way * over) : undefined
  if (solid && run.options.standIn && !run.rotation && met === undefined)
    run.wrong(
      'probe-misses',
      'look',
      `The probe goes to ${AXES[axis]} ${Number((nominal / run.scale).toPrecision(6))} and does not meet the part as it is placed.`,
      { does: 'The control stops with an alarm: no contact. Read on as if it had touched there.' },
    )
  const at = met ?? nominal
  const to = here(run)
  to[axis] = at
  probe(run, to, feed)
  probe(run, from, feed)
  return at
}

function setResult(
  run: Run,
  { results }: Probing,
  of: Partial<Record<keyof Probing['results'], number>>,
): void {
  for (const [name, value] of Object.entries(of))
    run.common.set(results[name as keyof Probing['results']], name === 'angle' ? value : value / run.scale)
}

/** Two faces along an axis, from outside (a web or boss, at depth Z from clearance R) or inside (a pocket or bore). */
function across(
  run: Run,
  axis: Axis,
  size: number,
  depth: number | undefined,
  clearance: number | undefined,
  feed: number,
): { middle: number; size: number } {
  const start = here(run)
  const outside = clearance !== undefined && clearance > 0
  const found: number[] = []
  for (const way of [1, -1]) {
    const nominal = start[axis] + (way * size) / 2
    const beside: Triple = [...start]
    if (outside) beside[axis] = nominal + way * clearance
    probe(run, beside, feed)
    const down: Triple = [...beside]
    if (depth !== undefined) down[2] = depth
    probe(run, down, feed)
    found.push(touch(run, axis, nominal, clearance ?? size / 4, feed, outside))
    probe(run, beside, feed)
    probe(run, start, feed)
  }
  const [a, b] = found as [number, number]
  return { middle: (a + b) / 2, size: Math.abs(a - b) }
}

/**
 * Runs a call to a probe macro by its number against the stand-in part: the moves, and the results in their variables.
 * False where the number is none of the profile's. What each does is common practice; the macro's own manual comes first.
 */
export function probeCall(run: Run, number: number, words: CallWords): boolean {
  const { probing } = run.options.profile
  if (!probing) return false
  const feed = probing.feed[run.unit]
  const over = words.Q ?? (run.unit === 'inch' ? 0.4 : 10)
  const place = (axis: Axis) => words[AXES[axis]]
  switch (number) {
    case probing.on:
      run.event({ does: 'dwell', seconds: 1 })
      return true
    case probing.off:
      run.event({ does: 'dwell', seconds: 1 })
      return true
    case probing.protectedMove: {
      const [x, y, z] = here(run)
      probe(run, [words.X ?? x, words.Y ?? y, words.Z ?? z], words.F && words.F > 0 ? words.F : feed)
      return true
    }
    case probing.surface: {
      const axes = ([0, 1, 2] as const).filter((axis) => place(axis) !== undefined)
      const [axis] = axes
      if (axis === undefined || axes.length > 1) {
        run.wrong('probe-words', 'stop', 'A single surface needs just one of X, Y and Z.', {
          does: 'The macro stops with an alarm.',
        })
        return true
      }
      const at = touch(run, axis, place(axis) as number, over, feed)
      setResult(run, probing, { [AXES[axis]]: at })
      return true
    }
    case probing.webPocket: {
      const axis = words.X === undefined ? 1 : 0
      const size = place(axis)
      if (size === undefined) {
        run.wrong('probe-words', 'stop', 'A web or pocket needs X or Y: its size.', {
          does: 'The macro stops with an alarm.',
        })
        return true
      }
      const found = across(run, axis, size, words.Z, words.R, feed)
      setResult(run, probing, { [AXES[axis]]: found.middle, size: found.size })
      return true
    }
    case probing.boreBoss: {
      if (words.D === undefined) {
        run.wrong('probe-words', 'stop', 'A bore or boss needs D: its diameter.', {
          does: 'The macro stops with an alarm.',
        })
        return true
      }
      const inX = across(run, 0, words.D, words.Z, words.R, feed)
      const inY = across(run, 1, words.D, words.Z, words.R, feed)
      setResult(run, probing, { X: inX.middle, Y: inY.middle, size: (inX.size + inY.size) / 2 })
      return true
    }
    case probing.outsideCorner:
    case probing.insideCorner: {
      if (words.X === undefined || words.Y === undefined) {
        run.wrong('probe-words', 'stop', 'A corner needs X and Y.', {
          does: 'The macro stops with an alarm.',
        })
        return true
      }
      setResult(run, probing, corner(run, words.X, words.Y, number === probing.outsideCorner, over, feed))
      return true
    }
    case probing.angle: {
      const axis = words.X === undefined ? 1 : 0
      const target = place(axis)
      const apart = words.D ?? 0
      if (target === undefined || apart === 0) {
        run.wrong('probe-words', 'stop', 'An angle needs X or Y, and D: how far apart it touches.', {
          does: 'The macro stops with an alarm.',
        })
        return true
      }
      const along: Axis = axis === 0 ? 1 : 0
      const start = here(run)
      const first = touch(run, axis, target, over, feed)
      const next: Triple = [...start]
      next[along] += apart
      probe(run, next, feed)
      const second = touch(run, axis, target, over, feed)
      probe(run, start, feed)
      setResult(run, probing, { angle: (Math.atan2(second - first, apart) * 180) / Math.PI })
      return true
    }
    default:
      return false
  }
}

/** The two faces that meet in a corner: inside straight on, outside from beyond the end of the other face. */
function corner(run: Run, x: number, y: number, outside: boolean, over: number, feed: number) {
  const start = here(run)
  if (!outside) return { X: touch(run, 0, x, over, feed, false), Y: touch(run, 1, y, over, feed, false) }
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
