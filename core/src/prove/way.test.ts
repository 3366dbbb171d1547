import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { ROW, read } from '../program/index.ts'
import type { Solid, Triple } from './body.ts'
import { pathOf, rapidPath } from './path.ts'
import {
  bandAtFull,
  isBand,
  type RapidSpeeds,
  type RapidStop,
  rapidBand,
  rapidCurve,
  sureCurves,
} from './rapid.ts'
import { boxesMeet, type Place, placeAt, sweep, sweepRound } from './sweep.ts'
import type { BlockPart, FlatPart, RoundPart } from './tool-parts.ts'

// Ways and meetings worked with a pencil: equations of motion, 3-4-5 triangles.

const near = (value: number, digits = 9) => expect.closeTo(value, digits)
const known: RapidSpeeds = {
  rapid: [2, 2, 3],
  acceleration: [1, 2, 1],
  straightRapids: false,
  unsure: { speed: [1, 1, 1], acceleration: 1, smoothing: 0 },
}
/** How far an axis has come from rest to rest, by the equations of motion. */
function come(distance: number, top: number, pull: number, seconds: number): number {
  const peak = Math.min(top, Math.sqrt(distance * pull))
  const whole = distance / peak + peak / pull
  const [t, left] = [Math.max(0, seconds), whole - seconds]
  if (left <= 0) return distance
  if (t < peak / pull) return (pull * t ** 2) / 2
  return left < peak / pull ? distance - (pull * left ** 2) / 2 : peak * (t - peak / pull / 2)
}
/** Of an axis: how far, how fast at most, how it speeds up. */
type Axis = readonly [distance: number, top: number, pull: number]
/** What an axis bulges over the chords before and after a moment: a dt^2 / 8 of the longer one on which it ramps. */
function bulged([distance, top, pull]: Axis, moments: readonly number[], n: number, late = 0): number {
  const peak = Math.min(top, Math.sqrt(distance * pull))
  const whole = distance / peak + peak / pull
  return Math.max(
    ...[n, n + 1].map((k) => {
      const [from, to] = [moments[k - 1], moments[k]]
      if (from === undefined || to === undefined) return 0
      const middle = (from + to) / 2 - late
      const up = middle > 0 && middle < peak / pull
      const down = middle > whole - peak / pull && middle < whole
      return up || down ? (pull * (to - from) ** 2) / 8 : 0
    }),
  )
}

describe('a rapid of two axes, by the equations of motion', () => {
  // X 4 at 2 a second and 1 a second squared: up 2 s, down 2 s, 4 s in all. Z 1: up 1 s, down 1 s.
  const from: Triple = [1, 5, 2]
  const to: Triple = [5, 5, 1]
  it('is where each axis is, moment by moment', () => {
    const stops = rapidCurve(from, to, known)
    expect(stops.map(({ time }) => 4 * time)).toEqual(
      [
        ...new Set([
          ...Array.from({ length: 17 }, (_, n) => n / 4),
          ...Array.from({ length: 17 }, (_, n) => n / 8),
        ]),
      ]
        .sort((a, b) => a - b)
        .map((t) => near(t)),
    )
    for (const { least, greatest, time } of stops) {
      expect(least).toEqual(greatest)
      expect(least).toEqual([near(1 + come(4, 2, 1, 4 * time)), 5, near(2 - come(1, 3, 1, 4 * time))])
    }
    // By hand at 1 s and at 2 s.
    const at = (seconds: number) => stops.find(({ time }) => Math.abs(4 * time - seconds) < 1e-9)?.least
    expect(at(1)).toEqual([near(1.5), 5, near(1.5)])
    expect(at(2)).toEqual([near(3), 5, near(1)])
    expect(at(0)).toEqual(from)
    expect(at(4)).toEqual(to)
    // X 6 at 2 a second: 2 s up, 1 s along, 2 s down.
    const long = rapidCurve(from, [7, 5, 1], known)
    const end = long.find(({ time }) => Math.abs(5 * time - 3) < 1e-9)
    expect(end?.least[0]).toBeCloseTo(1 + 2 + 2, 9)
    expect(long.find(({ time }) => Math.abs(5 * time - 2) < 1e-9)?.least[0]).toBeCloseTo(1 + 2, 9)
  })
  it('at another override the axes are slower but speed up alike: a share of the speed squared', () => {
    // At half the speed, a quarter of its square, everything is seen in half as much time with four times the pull.
    for (const { least, time } of rapidCurve(from, to, known, 0.25))
      expect(least).toEqual([
        near(1 + come(4, 2, 4, 2.5 * time), 8),
        5,
        near(2 - come(1, 3, 4, 2.5 * time), 8),
      ])
    // At next to none it is a dogleg: X takes 2 s, Z a third of a second.
    const dogleg = rapidCurve(from, to, known, 0)
    expect(dogleg.map(({ least, time }) => [2 * time, ...least])).toEqual([
      [0, ...from],
      [near(1 / 3), near(1 + 2 / 3), 5, 1],
      [2, ...to],
    ])
    const curves = sureCurves(from, to, known)
    expect(curves).toHaveLength(9)
    expect(curves[0]).toEqual(rapidCurve(from, to, known))
    expect(curves[2]).toEqual(rapidCurve(from, to, known, 0.75))
    expect(curves[8]).toEqual(dogleg)
    const unsure = { ...known, unsure: { ...known.unsure, acceleration: 2 } }
    expect(sureCurves(from, to, unsure)).toEqual([dogleg])
  })
  it('goes straight along one axis, and on a control that keeps the line', () => {
    for (const [a, b, speeds] of [
      [from, [9, 5, 2], known],
      [from, to, { ...known, straightRapids: true }],
      [from, from, known],
    ] as [Triple, Triple, RapidSpeeds][]) {
      const line = [
        { least: a, greatest: a, time: 0 },
        { least: b, greatest: b, time: 1 },
      ]
      expect(rapidCurve(a, b, speeds)).toEqual(line)
      expect(sureCurves(a, b, speeds)).toEqual([line])
      expect(rapidBand(a, b, speeds)).toEqual([line])
      expect(isBand(a, b, { ...speeds, unsure: { speed: [3, 3, 3], acceleration: 4, smoothing: 1 } })).toBe(
        false,
      )
    }
    const open = (more: Partial<RapidSpeeds['unsure']>) =>
      isBand(from, to, { ...known, unsure: { ...known.unsure, ...more } })
    expect([
      open({}),
      open({ speed: [1, 1, 2] }),
      open({ acceleration: 2 }),
      open({ smoothing: 0.1 }),
    ]).toEqual([false, true, true, true])
  })
  it('as a band: the slowest and the quickest of each axis, and what a curve bulges over its chord (a dt² / 8)', () => {
    const open: RapidSpeeds = { ...known, unsure: { speed: [2, 1, 3], acceleration: 4, smoothing: 0.5 } }
    const band = bandAtFull(from, to, open)
    // X at a half to twice its 2 a second, a quarter to four times its 1, beginning up to half a second late.
    const slow = [
      [4, 1, 0.25],
      [1, 1, 0.25],
    ] as const
    const fast = [
      [4, 4, 4],
      [1, 9, 4],
    ] as const
    // The slowest X: root of (4 x .25) is 1 a second: 4 s up, 4 s down, half a second late.
    const whole = 8.5
    const moments = band.map(({ time }) => time * whole)
    band.forEach(({ least, greatest }, n) => {
      const t = moments[n] as number
      const [low, high] = [0, 1].map((k) => {
        const [late, soon] = [slow[k], fast[k]] as [Axis, Axis]
        return [
          Math.max(0, come(...late, t - 0.5) - bulged(late, moments, n, 0.5)),
          Math.min(soon[0], come(...soon, t) + bulged(soon, moments, n)),
        ] as [number, number]
      }) as [[number, number], [number, number]]
      expect(least).toEqual([near(1 + low[0]), 5, near(2 - high[1])])
      expect(greatest).toEqual([near(1 + low[1]), 5, near(2 - high[0])])
    })
    expect(band.at(-1)?.time).toBe(1)
    const all = rapidBand(from, to, open)
    expect(all).toHaveLength(8)
    // The third of them is from two to three eighths of the speed squared: pulls over 3/8 and 2/8, late by root of 3/8 of it.
    const late = 0.5 * Math.sqrt(3 / 8)
    const peak = Math.sqrt((4 * 0.25 * 8) / 3)
    const slowest = Math.min(1, peak)
    const end = late + 4 / slowest + slowest / ((0.25 * 8) / 3)
    const third = all[2] as RapidStop[]
    const thirds = third.map(({ time }) => time * end)
    const pull = (0.25 * 8) / 3
    third.forEach(({ least, greatest }, n) => {
      const t = thirds[n] as number
      expect(least[0]).toBeCloseTo(
        1 + Math.max(0, come(4, 1, pull, t - late) - bulged([4, 1, pull], thirds, n, late)),
        7,
      )
      expect(greatest[0]).toBeCloseTo(1 + Math.min(4, come(4, 4, 16, t) + bulged([4, 4, 16], thirds, n)), 7)
    })
    // At the lowest the quickest is at its speed at once: nothing bulges.
    const first = all[0] as RapidStop[]
    const end1 = first.length && (first.at(-1) as RapidStop).time
    expect(end1).toBe(1)
    for (const { greatest } of first) expect(Number.isFinite(greatest[0])).toBe(true)
  })
})

describe('the path that is drawn', () => {
  it('of a rapid keeps its corners and leaves out what lies on a line', () => {
    // Both axes alike: the whole curve is one line.
    const alike = { ...known, rapid: [2, 2, 2], acceleration: [1, 1, 1] } as RapidSpeeds
    expect(rapidPath([0, 0, 0], [4, 4, 0], alike)).toEqual([
      [0, 0, 0],
      [4, 4, 0],
    ])
    expect(rapidPath([0, 0, 0], [3, 0, 0], known)).toEqual([
      [0, 0, 0],
      [3, 0, 0],
    ])
    const curve = rapidCurve([0, 0, 0], [4, 0, 1], known).map(({ least }) => least)
    const path = rapidPath([0, 0, 0], [4, 0, 1], known)
    expect(path.length).toBeLessThan(curve.length)
    expect(path[0]).toEqual([0, 0, 0])
    expect(path.at(-1)).toEqual([4, 0, 1])
    for (const point of path) expect(curve).toContainEqual(point)
    // Nothing that was left out lies farther off than a two thousandth of the whole length, root of 17.
    for (const point of curve) {
      const off = path.slice(1).map((to, n) => {
        const from = path[n] as Triple
        const along = to.map((each, axis) => each - (from[axis] as number))
        const square = along.reduce((sum, each) => sum + each ** 2, 0)
        const dot = point.reduce(
          (sum, each, axis) => sum + (each - (from[axis] as number)) * (along[axis] as number),
          0,
        )
        const share = Math.min(1, Math.max(0, dot / square))
        return Math.hypot(
          ...point.map((each, axis) => each - (from[axis] as number) - share * (along[axis] as number)),
        )
      })
      expect(Math.min(...off)).toBeLessThanOrEqual(0.0005 * Math.sqrt(17) + 1e-12)
    }
  })
  it('of an arc is chords within a two thousandth of its radius', () => {
    const [compact] = BUILT_IN_PROFILES as [Profile]
    const { motion } = read('G20 G90 G17\nG0 X1. Y0. Z0.\nG3 X-1. Y0. I-1. J0. F9.\nG1 X-2.\nT2 M6\nM30', {
      profile: compact,
      machine: demoReference.machines[0] as Machine,
      unit: 'inch',
    })
    const arc = motion.line.indexOf(3)
    const path = pathOf(motion, arc, known)
    // Half a circle in steps of 2 acos(.9995), 3.6239 degrees: 49.7.
    expect(path).toHaveLength(51)
    expect(path[0]).toEqual([1, 0, 0])
    path.forEach(([x, y], n) => {
      expect([x, y]).toEqual([near(Math.cos((Math.PI * n) / 50)), near(Math.sin((Math.PI * n) / 50))])
    })
    expect(pathOf(motion, arc + 1, known)).toEqual([
      [near(-1), near(0), 0],
      [-2, near(0), 0],
    ])
    expect(pathOf(motion, motion.kind.indexOf(ROW.EVENT), known)).toHaveLength(1)
  })
})

const box = (least: Triple, greatest: Triple): Solid => ({ kind: 'box', box: { least, greatest } }) as Solid
const post = (x: number, y: number, radius: number, low: number, high: number): Solid =>
  ({
    kind: 'round',
    x,
    y,
    radius,
    box: { least: [x - radius, y - radius, low], greatest: [x + radius, y + radius, high] },
  }) as Solid
const round = (radius: number, from = 0, to = 2): RoundPart =>
  ({ form: 'round', radius, from, to }) as RoundPart
const at = (x: number, y: number, z: number): Place => placeAt([x, y, z])
const spread = (least: Triple, greatest: Triple): Place => ({ least, greatest })

describe('when a moved tool first meets', () => {
  const cube = box([4, -1, -1], [6, 1, 1])
  it('a side: its radius before it, whichever way it comes', () => {
    // 10 long: 4 - .5 is 3.5 of it; back from 10 it is 6.5.
    expect(sweepRound(round(0.5), at(0, 0, 0), at(10, 0, 0), cube)).toBeCloseTo(0.35, 5)
    expect(sweepRound(round(0.5), at(10, 0, 0), at(0, 0, 0), cube)).toBeCloseTo(0.35, 5)
    expect(sweepRound(round(0.5), at(5, -5, 0), at(5, 5, 0), cube)).toBeCloseTo(0.35, 5)
    expect(sweepRound(round(0.5), at(5, 5, 0), at(5, -5, 0), cube)).toBeCloseTo(0.35, 5)
    expect(sweepRound(round(0.5), at(0, 1.501, 0), at(10, 1.501, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(0.5), at(0, -1.501, 0), at(10, -1.501, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(0.5), at(0, 1.49, 0), at(10, 1.49, 0), cube)).toBeLessThan(0.4)
  })
  it('a corner by its circle (3-4-5)', () => {
    // A radius of 1 whose middle goes by .8 beside the edge: .6 before the corner at 4.
    expect(sweepRound(round(1), at(0, 1.8, 0), at(10, 1.8, 0), cube)).toBeCloseTo(0.34, 5)
    expect(sweepRound(round(1), at(0, -1.8, 0), at(10, -1.8, 0), cube)).toBeCloseTo(0.34, 5)
    expect(sweepRound(round(1), at(10, 1.8, 0), at(0, 1.8, 0), cube)).toBeCloseTo(0.34, 5)
    expect(sweepRound(round(1), at(3.2, 10, 0), at(3.2, 0, 0), cube)).toBeCloseTo(0.84, 5)
    expect(sweepRound(round(1), at(6.8, -10, 0), at(6.8, 0, 0), cube)).toBeCloseTo(0.84, 5)
    // Standing by a corner: .8 and .61 off is more than 1.
    expect(sweepRound(round(1), at(3.2, 1.61, 0), at(3.2, 1.61, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(1), at(3.2, 1.59, 0), at(3.2, 1.59, 0), cube)).toBe(0)
  })
  it('from above when its tip comes under the top; from below when its top does', () => {
    expect(sweepRound(round(0.5), at(5, 0, 6), at(5, 0, -4), cube)).toBeCloseTo(0.5, 5)
    expect(sweepRound(round(0.5, 1, 2), at(5, 0, 6), at(5, 0, -4), cube)).toBeCloseTo(0.6, 5)
    // Its upper end, 2 over the tip, comes up to -1 when the tip is at -3.
    expect(sweepRound(round(0.5), at(5, 0, -8), at(5, 0, 2), cube)).toBeCloseTo(0.5, 5)
    expect(sweepRound(round(0.5), at(0, 0, 1), at(10, 0, 1), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(0.5), at(0, 0, -3), at(10, 0, -3), cube)).toBe(Number.POSITIVE_INFINITY)
    // On its way up it has left before it gets there: 10 along and 10 up, over it from 4 - .5 on.
    expect(sweepRound(round(0.5), at(0, 0, 0), at(10, 0, 10), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(0.5), at(0, 0, 0), at(10, 0, 2), cube)).toBeCloseTo(0.35, 5)
  })
  it('a post where both circles touch', () => {
    expect(sweepRound(round(0.5), at(0, 0, 0), at(10, 0, 0), post(5, 0, 1, -1, 1))).toBeCloseTo(0.35, 5)
    // .9 beside it and 1.5 from its middle: 1.2 before it.
    expect(sweepRound(round(0.5), at(0, 0.9, 0), at(10, 0.9, 0), post(5, 0, 1, -1, 1))).toBeCloseTo(0.38, 5)
    expect(sweepRound(round(0.5), at(0, 1.51, 0), at(10, 1.51, 0), post(5, 0, 1, -1, 1))).toBe(
      Number.POSITIVE_INFINITY,
    )
    expect(sweepRound(round(0.5), at(9, 0, 0), at(10, 0, 0), post(5, 0, 1, -1, 1))).toBe(
      Number.POSITIVE_INFINITY,
    )
    expect(sweepRound(round(0.5), at(0, 0, 0), at(3, 0, 0), post(5, 0, 1, -1, 1))).toBe(
      Number.POSITIVE_INFINITY,
    )
    expect(sweepRound(round(0.5), at(5, 0.2, 0), at(5, 0.3, 0), post(5, 0, 1, -1, 1))).toBe(0)
  })
  it('with a tip that may be anywhere in a box: by the nearest of its places', () => {
    // Its right side goes from 1 to 11: it is at 3.5 after .25.
    const [a, b] = [spread([-1, -0.2, 0], [1, 0.2, 0]), spread([9, -0.2, 0], [11, 0.2, 0])]
    expect(sweepRound(round(0.5), a, b, cube)).toBeCloseTo(0.25, 5)
    // Its far corner at 1.8 - .2 passes .6 beside the edge, radius 1: .8 before the corner, with its front at 3.2.
    const [c, d] = [spread([-1, 1.6, 0], [1, 2, 0]), spread([9, 1.6, 0], [11, 2, 0])]
    expect(sweepRound(round(1), c, d, cube)).toBeCloseTo(0.22, 5)
    const growing = sweepRound(round(0.5), spread([0, 3, 0], [0, 3, 0]), spread([10, 1, 0], [10, 3, 0]), cube)
    // Its near side comes down to 1.5 when three quarters are done, X is then at 7.5: past the end at 6.5.
    expect(growing).toBe(Number.POSITIVE_INFINITY)
    // The corner of a near side that comes down from 2 to 0: (4 - 10 t)^2 + (1 - 2 t)^2 = .25.
    expect(
      sweepRound(round(0.5), spread([0, 2, 0], [0, 3, 0]), spread([10, 0, 0], [10, 3, 0]), cube),
    ).toBeCloseTo((84 - Math.sqrt(88)) / 208, 5)
  })
  it('with no radius at all, by a point', () => {
    expect(sweepRound(round(0), at(0, 0, 0), at(10, 0, 0), cube)).toBeCloseTo(0.4, 5)
    expect(sweepRound(round(0), at(0, 1.01, 0), at(10, 1.01, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(0), at(0, -1.01, 0), at(10, -1.01, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(0), at(7, 0, 0), at(10, 0, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(round(0), at(5, 0, 0), at(5, 0, 0), post(5, 0, 1e-7, -1, 1))).toBe(
      Number.POSITIVE_INFINITY,
    )
  })
  it('the rectangle of a lathe tool, and a block', () => {
    const flat = { form: 'flat', x: [-0.5, 1], z: [-0.25, 2] } as unknown as FlatPart
    // Along X its right side, 1 on, is at 4 after .3; from the right its left side, .5 back.
    expect(sweep(flat, at(0, 0, 0), at(10, 0, 0), cube)).toBeCloseTo(0.3, 5)
    expect(sweep(flat, at(10, 0, 0), at(0, 0, 0), cube)).toBeCloseTo(0.35, 5)
    expect(sweep(flat, at(5, 0, 6.25), at(5, 0, -3.75), cube)).toBeCloseTo(0.5, 5)
    expect(sweep(flat, at(5, 0, -8), at(5, 0, 2), cube)).toBeCloseTo(0.5, 5)
    expect(sweep(flat, at(0, 1.1, 0), at(10, 1.1, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweep(flat, at(0, -1.1, 0), at(10, -1.1, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    const block = { form: 'block', x: [-0.5, 1], y: [-2, 0.5], from: 1, to: 3 } as unknown as BlockPart
    expect(sweep(block, at(0, 0, 0), at(10, 0, 0), cube)).toBe(Number.POSITIVE_INFINITY)
    expect(sweep(block, at(0, 0, -1), at(10, 0, -1), cube)).toBeCloseTo(0.3, 5)
    expect(sweep(block, at(10, 0, -1), at(0, 0, -1), cube)).toBeCloseTo(0.35, 5)
    // Its front, .5 on in Y, and its back, 2 back.
    expect(sweep(block, at(5, -5, -1), at(5, 5, -1), cube)).toBeCloseTo(0.35, 5)
    expect(sweep(block, at(5, 8, -1), at(5, -2, -1), cube)).toBeCloseTo(0.5, 5)
    expect(sweep(block, at(5, 0, 6), at(5, 0, -4), cube)).toBeCloseTo(0.6, 5)
    expect(sweep(block, at(5, 0, -9), at(5, 0, 1), cube)).toBeCloseTo(0.5, 5)
    expect(sweep(round(0.5), at(0, 0, 0), at(10, 0, 0), cube)).toBeCloseTo(0.35, 5)
  })
  it('boxes meet where they overlap in all three', () => {
    const one = { least: [0, 0, 0], greatest: [1, 1, 1] } as const
    const meets = (x: number, y: number, z: number) =>
      boxesMeet(one as never, { least: [x, y, z], greatest: [x + 1, y + 1, z + 1] } as never)
    expect(meets(0.9, 0.9, 0.9)).toBe(true)
    expect(meets(-0.9, -0.9, -0.9)).toBe(true)
    for (const off of [1, -1, 1.1, -1.1])
      expect([meets(off, 0, 0), meets(0, off, 0), meets(0, 0, off)]).toEqual([false, false, false])
  })
})
