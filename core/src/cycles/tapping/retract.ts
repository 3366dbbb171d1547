import { type SavedTime, type ShopRates, savedTime } from '../../timing/index.ts'

/** One tapped hole and the spindle that taps it: turns, turns a second, turns a second squared. */
export interface TapStroke {
  /** Turns of each stroke from the R plane down, travel over pitch: one, or one a peck. */
  strokes: readonly number[]
  /** Turns a second going in. */
  speed: number
  /** Turns a second squared. */
  acceleration: number
}

/** Seconds of `turns` from rest to rest: N/S + S/A, or 2 sqrt(N/A) where the spindle never gets to speed (trade.md 7). */
const legSeconds = (turns: number, speed: number, acceleration: number) =>
  turns >= (speed * speed) / acceleration
    ? turns / speed + speed / acceleration
    : 2 * Math.sqrt(turns / acceleration)

/** Seconds in and out of one hole that comes out at `multiple` times the speed. */
export const holeSeconds = ({ strokes, speed, acceleration }: TapStroke, multiple: number) =>
  strokes.reduce(
    (sum, turns) =>
      sum + legSeconds(turns, speed, acceleration) + legSeconds(turns, speed * multiple, acceleration),
    0,
  )

/** The multiple beyond which nothing is saved: sqrt(N A) / S (trade.md 7); at least 1. */
export const kneeOf = ({ strokes, speed, acceleration }: TapStroke) =>
  Math.max(1, Math.sqrt(Math.max(...strokes) * acceleration) / speed)

/** What a control and a machine allow: the highest multiple, whether 2.5 can be written, the highest tapping speed (turns a second). */
export interface RetractLimits {
  most: number
  decimal: boolean
  topSpeed: number
}

/** A multiple as this control takes it, not above the value. */
const writable = (value: number, decimal: boolean) =>
  decimal ? Math.floor(value * 10 + 1e-9) / 10 : Math.floor(value + 1e-9)

/** The highest multiple that speed and control allow. */
export const mostMultiple = (
  { speed }: Pick<TapStroke, 'speed'>,
  { most, decimal, topSpeed }: RetractLimits,
) => Math.max(1, writable(Math.min(most, topSpeed / speed), decimal))

/** The multiple to recommend: the knee, under the cap. */
export const bestMultiple = (of: TapStroke, limits: RetractLimits) =>
  Math.max(
    1,
    Math.min(
      mostMultiple(of, limits),
      writable(kneeOf(of) + (limits.decimal ? 0.0999 : 0.999), limits.decimal),
    ),
  )

/** The most to begin with on a spindle that nobody has timed; common practice goes up in steps. */
const UNTIMED_MOST = 2

/** The multiple to begin with: the best there is, or 2 where nobody has timed how the spindle speeds up. */
export const multipleToTry = (of: TapStroke, limits: RetractLimits, timed: boolean) =>
  timed ? bestMultiple(of, limits) : Math.min(UNTIMED_MOST, bestMultiple(of, limits))

/** Time of one hole over the multiple, from 1 to `most`, for a chart. */
export function retractCurve(of: TapStroke, most: number): { multiple: number; seconds: number }[] {
  const steps = Math.round((most - 1) * 10)
  return Array.from({ length: steps + 1 }, (_, n) => {
    const multiple = 1 + n / 10
    return { multiple, seconds: holeSeconds(of, multiple) }
  })
}

/** How the shop runs the part, and how many holes it has. */
export interface HoleRates extends ShopRates {
  holes: number
}

export interface Saving extends SavedTime {
  perHole: number
}

/** What coming out at one multiple saves against another, in seconds; (t1 - tk) x holes x parts (trade.md 7). */
export function savingOf(of: TapStroke, from: number, to: number, rates: HoleRates): Saving {
  const perHole = holeSeconds(of, from) - holeSeconds(of, to)
  return { perHole, ...savedTime(perHole * rates.holes, rates) }
}

/** Two holes that were timed at the machine, the same but for the multiple. */
export interface TimedHoles {
  turns: number
  /** Turns a second. */
  speed: number
  /** Seconds at multiple 1, and at `multiple`. */
  slow: number
  fast: number
  multiple: number
  /** How far off each time may be, seconds. */
  timingDoubt: number
}

export type FittedAcceleration =
  | { ok: true; value: number; doubt: number; reached: boolean }
  | { ok: false; says: string }

/**
 * The spindle's acceleration from two timed holes. Their difference s = t(1) - t(k) holds only the way out, so that what
 * both holes have in common (the approach, a hand on the watch) falls out. With N turns and S turns a second:
 * reaching kS, s = N/S (1 - 1/k) - S (k - 1)/A; not reaching it, s = N/S + S/A - 2 sqrt(N/A), which is
 * (sqrt(N/S) - sqrt(S/A))^2. Derived from trade.md 7. Doubt: both times off, in quadrature, through the slope.
 */
export function fitAcceleration(of: TimedHoles): FittedAcceleration {
  const { turns, speed, slow, fast, multiple, timingDoubt } = of
  if (!(multiple > 1)) return { ok: false, says: 'The second hole must come out faster than the first.' }
  const saved = slow - fast
  const most = (turns / speed) * (1 - 1 / multiple)
  if (saved <= 0)
    return {
      ok: false,
      says: 'The faster hole was not faster: time both again, with a longer thread if you can.',
    }
  // A spindle that needed no time to come to speed would save this much, and no other more.
  if (saved >= most)
    return {
      ok: false,
      says: `It saved more than coming out ${multiple} times as fast can save: the two holes were not the same. Time both again.`,
    }
  const at = (s: number): { value: number; reached: boolean } => {
    const reached = (speed * (multiple - 1)) / (most - s)
    // It gets to k S where the way out is long enough for it.
    if (turns >= (multiple * speed) ** 2 / reached) return { value: reached, reached: true }
    const root = Math.sqrt(turns / speed) - Math.sqrt(s)
    return { value: speed / (root * root), reached: false }
  }
  const { value, reached } = at(saved)
  const both = Math.hypot(timingDoubt, timingDoubt)
  const step = Math.min(both, saved / 2, (most - saved) / 2) || 1e-6
  const slope = Math.abs(at(saved + step).value - at(saved - step).value) / (2 * step)
  return { ok: true, value, doubt: slope * both, reached }
}
