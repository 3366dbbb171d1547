import type { MachineSpeeds } from '../timing/index.ts'
import type { Triple } from './body.ts'

/** What the way of a rapid depends on. */
export type RapidSpeeds = Pick<MachineSpeeds, 'rapid' | 'acceleration' | 'straightRapids' | 'unsure'>

/** Where the tip may be at one moment of a rapid: one place, or anywhere in a box. */
export interface RapidStop {
  least: Triple
  greatest: Triple
  /** Share of the time that the move takes, 0 to 1. */
  time: number
}

/** Pieces that a ramp is seen as; what lies between them and the curve is added to the box. */
const PIECES = 8
/**
 * Shares of the full speed squared at which a rapid is looked at. The override slows the axes but not how they speed up, so that
 * every override has a path of its own: at the lowest the plain dogleg, at 100 % the one that is curved most.
 */
const OVERRIDES = 8

/** An axis that goes from rest to rest: how far, how fast at most, how quickly it gets there, how late it begins. */
interface Ramp {
  distance: number
  speed: number
  /** Infinity where it is at its speed at once. */
  acceleration: number
  late: number
}

/** Highest speed, seconds of one ramp and of the whole move. */
function phases({ distance, speed, acceleration }: Ramp) {
  if (distance <= 0) return { peak: 0, ramp: 0, whole: 0 }
  const peak = Math.min(speed, Math.sqrt(distance * acceleration))
  return { peak, ramp: peak / acceleration, whole: distance / peak + peak / acceleration }
}

/** How far an axis has come after so many seconds: up, along, down. Equations of motion. */
function come(of: Ramp, seconds: number): number {
  const { peak, ramp, whole } = phases(of)
  const t = seconds - of.late
  if (t <= 0) return 0
  if (t >= whole) return of.distance
  if (t < ramp) return (of.acceleration * t * t) / 2
  const left = whole - t
  if (left < ramp) return of.distance - (of.acceleration * left * left) / 2
  return peak * (t - ramp / 2)
}

/** When it changes from one kind of motion to another, its ramps in pieces. */
function moments(of: Ramp): number[] {
  const { ramp, whole } = phases(of)
  if (whole === 0) return []
  const pieces = ramp > 0 ? PIECES : 1
  const up = Array.from({ length: pieces + 1 }, (_, n) => (ramp * n) / pieces)
  return [...up, ...up.map((t) => whole - t)].map((t) => t + of.late)
}

/**
 * How far the curve of an axis may bulge over its chord between two moments with none of its own between them: a dt^2 / 8
 * while it speeds up or slows down, nothing while it goes along or stands.
 */
function bulge(of: Ramp, from: number, to: number): number {
  const { ramp, whole } = phases(of)
  const t = (from + to) / 2 - of.late
  const ramps = (t > 0 && t < ramp) || (t > whole - ramp && t < whole)
  return ramps ? (of.acceleration * (to - from) ** 2) / 8 : 0
}

/** The slowest and the quickest that each axis may go. */
interface Way {
  slow: readonly Ramp[]
  fast: readonly Ramp[]
}

const along = (from: number, to: number, by: number) => (to >= from ? from + by : from - by)

/**
 * Moments in their order, without those that only rounding sets apart: each is the end of two pieces, and a piece of no
 * length would take from its neighbour what belongs to it. The first and the last stay as they are.
 */
function apart(moments: number[]): number[] {
  const all = moments.sort((a, b) => a - b)
  const last = all.at(-1) as number
  const hair = last * 1e-9
  const kept = all.filter((t, n) => n === 0 || (t - (all[n - 1] as number) > hair && last - t > hair))
  return last > 0 ? [...kept, last] : kept
}

/** The places of one way, moment by moment; boxes hold all that lies between the slowest and the quickest. */
function stopsOf(from: Triple, to: Triple, { slow, fast }: Way, bulging: boolean): RapidStop[] {
  const all = apart([0, ...slow.flatMap(moments), ...fast.flatMap(moments)])
  const whole = all.at(-1) as number
  return all.map((t, n): RapidStop => {
    const [before, after] = [all[n - 1] ?? t, all[n + 1] ?? t]
    const over = (of: Ramp) => (bulging ? Math.max(bulge(of, before, t), bulge(of, t, after)) : 0)
    const least: [number, number, number] = [0, 0, 0]
    const greatest: [number, number, number] = [0, 0, 0]
    for (const axis of [0, 1, 2] as const) {
      const [late, soon] = [slow[axis] as Ramp, fast[axis] as Ramp]
      const least1 = Math.max(0, come(late, t) - over(late))
      const most1 = Math.min(soon.distance, come(soon, t) + over(soon))
      const [a, b] = [along(from[axis], to[axis], least1), along(from[axis], to[axis], most1)]
      least[axis] = Math.min(a, b)
      greatest[axis] = Math.max(a, b)
    }
    return { least, greatest, time: whole > 0 ? t / whole : 1 }
  })
}

const AS_SAID: Triple = [1, 1, 1]
const slower = (by: Triple): Triple => [1 / by[0], 1 / by[1], 1 / by[2]]

/** The ramps of the three axes, their speeds and accelerations by factors. */
function ramps(
  from: Triple,
  to: Triple,
  { rapid, acceleration }: RapidSpeeds,
  speed: Triple,
  pull: number,
  late: number,
): Ramp[] {
  return ([0, 1, 2] as const).map((axis) => ({
    distance: Math.abs(to[axis] - from[axis]),
    speed: rapid[axis] * speed[axis],
    acceleration: acceleration[axis] * pull,
    late,
  }))
}

/** An axis that goes no further than this stands still: rounding of decimals that were added, in either unit. */
const STILL = 1e-9

/** Whether the axes go one after another or bend at all: with one axis, or where the control keeps the line, they do not. */
export const goesStraight = (from: Triple, to: Triple, { straightRapids }: RapidSpeeds) =>
  straightRapids || ([0, 1, 2] as const).filter((axis) => Math.abs(to[axis] - from[axis]) > STILL).length < 2

const straight = (from: Triple, to: Triple): RapidStop[] => [
  { least: from, greatest: from, time: 0 },
  { least: to, greatest: to, time: 1 },
]

/**
 * The curve of a rapid at one override, as places: each axis goes by its own trapezoid (trade.md 9). `share` is the
 * override squared, 1 for 100 %; at 0 every axis is at its speed at once.
 */
export function rapidCurve(from: Triple, to: Triple, speeds: RapidSpeeds, share = 1): RapidStop[] {
  if (goesStraight(from, to, speeds)) return straight(from, to)
  const same = ramps(from, to, speeds, AS_SAID, 1 / share, 0)
  return stopsOf(from, to, { slow: same, fast: same }, false)
}

/**
 * The curves that a rapid surely takes at one override or another, as the machine's page has it. Where it does not say how
 * quickly the axes speed up that is the slowest only.
 */
export function sureCurves(from: Triple, to: Triple, speeds: RapidSpeeds): RapidStop[][] {
  if (goesStraight(from, to, speeds)) return [straight(from, to)]
  const shares = Array.from({ length: OVERRIDES + 1 }, (_, n) => 1 - n / OVERRIDES)
  return (speeds.unsure.acceleration > 1 ? [0] : shares).map((share) => rapidCurve(from, to, speeds, share))
}

/**
 * Everywhere that the tip may be during a rapid, at any override: override by override the boxes between the slowest
 * and the quickest that each axis may be. Nothing that the machine can do lies outside.
 */
export function rapidBand(from: Triple, to: Triple, speeds: RapidSpeeds): RapidStop[][] {
  if (goesStraight(from, to, speeds)) return [straight(from, to)]
  const { speed, acceleration, smoothing } = speeds.unsure
  return Array.from({ length: OVERRIDES }, (_, n) => {
    const [low, high] = [n / OVERRIDES, (n + 1) / OVERRIDES]
    return stopsOf(
      from,
      to,
      {
        slow: ramps(from, to, speeds, slower(speed), 1 / (acceleration * high), smoothing * Math.sqrt(high)),
        fast: ramps(from, to, speeds, speed, acceleration / low, 0),
      },
      true,
    )
  })
}

/** Whether the path at full speed is one curve, or what the page leaves open makes it a band. */
export const isBand = (from: Triple, to: Triple, speeds: RapidSpeeds) =>
  !goesStraight(from, to, speeds) &&
  (speeds.unsure.speed.some((by) => by > 1) || speeds.unsure.acceleration > 1 || speeds.unsure.smoothing > 0)

/** Everywhere that the tip may be during a rapid at 100 %. */
export function bandAtFull(from: Triple, to: Triple, speeds: RapidSpeeds): RapidStop[] {
  const { speed, acceleration, smoothing } = speeds.unsure
  return stopsOf(
    from,
    to,
    {
      slow: ramps(from, to, speeds, slower(speed), 1 / acceleration, smoothing),
      fast: ramps(from, to, speeds, speed, acceleration, 0),
    },
    true,
  )
}

/**
 * The outline of a band as it is seen along the third axis: out along the way on which the first axis is quick and the
 * second slow, back along the other.
 */
export function bandOutline(band: readonly RapidStop[], first: 0 | 1 | 2, second: 0 | 1 | 2): Triple[] {
  const [begin, end] = [band[0], band.at(-1)]
  if (!begin || !end) return []
  const corner = (stop: RapidStop, quick: 0 | 1 | 2): Triple => {
    const on = (axis: 0 | 1 | 2) =>
      end.greatest[axis] >= begin.greatest[axis] === (axis === quick) ? stop.greatest[axis] : stop.least[axis]
    return [on(0), on(1), on(2)]
  }
  return [
    ...band.map((stop) => corner(stop, first)),
    ...band.toReversed().map((stop) => corner(stop, second)),
  ]
}
