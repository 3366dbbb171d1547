import { describe, expect, it } from 'vitest'
import type { Solid, Triple } from './body.ts'
import { rapidPath } from './path.ts'
import { bandAtFull, bandOutline, type RapidSpeeds, type RapidStop, rapidBand, rapidCurve } from './rapid.ts'
import { placeAt, sweep } from './sweep.ts'
import type { BlockPart, FlatPart, RoundPart } from './tool-parts.ts'

// The same way elsewhere and along other axes is the same way; what slides along a face touches it on every side.

const speeds = (more: Partial<RapidSpeeds> = {}): RapidSpeeds => ({
  rapid: [2, 2, 2],
  acceleration: [1, 2, 1],
  straightRapids: false,
  unsure: { speed: [1, 1, 1], acceleration: 1, smoothing: 0 },
  ...more,
})

describe('the path of a rapid that is drawn', () => {
  it('keeps as many corners wherever the move stands', () => {
    const shifted = (to: Triple) =>
      rapidPath([10, 20, -30], [10 + to[0], 20 + to[1], -30 + to[2]], speeds()).map(([x, y, z]) =>
        [x - 10, y - 20, z + 30].map((each) => Number(each.toFixed(6)) + 0),
      )
    for (const to of [
      [4, 1, 0],
      [1, 4, 0],
      [0, 4, 1],
      [1, 0, 4],
    ] as Triple[]) {
      const here = rapidPath([0, 0, 0], to, speeds()).map((point) =>
        point.map((each) => Number(each.toFixed(6)) + 0),
      )
      expect(here.length).toBeGreaterThan(5)
      expect(here.length).toBeLessThan(25)
      expect(shifted(to)).toEqual(here)
    }
  })
  it('keeps the same corners where everything is as many times as large', () => {
    const here = rapidPath([0, 0, 0], [4, 1, 0.5], speeds())
    for (const times of [1 / 64, 64]) {
      const by = (of: Triple) => of.map((each) => each * times) as [number, number, number]
      const scaled = speeds({ rapid: by([2, 2, 2]), acceleration: by([1, 2, 1]) })
      expect(rapidPath([0, 0, 0], by([4, 1, 0.5]), scaled)).toEqual(here.map(by))
    }
  })
  it('is the same along other axes that are as quick', () => {
    const quick = speeds({ rapid: [2, 3, 3], acceleration: [1, 2, 2] })
    const flat = rapidPath([0, 0, 0], [4, 3, 0], quick)
    expect(rapidPath([0, 0, 0], [4, 0, 3], quick)).toEqual(flat.map(([x, y]) => [x, 0, y]))
    const turned = speeds({ rapid: [3, 3, 2], acceleration: [2, 2, 1] })
    expect(rapidPath([0, 0, 0], [0, 3, 4], turned)).toEqual(flat.map(([x, y]) => [0, y, x]))
  })
})

describe('the band of a rapid', () => {
  it('holds each axis at its own slowest and quickest', () => {
    // 40 along each at 2 a second, Y at half to twice of it, Z at a quarter to four times: slowest 2, 1 and .5 a second, at once.
    const open = speeds({
      acceleration: [Infinity, Infinity, Infinity],
      unsure: { speed: [1, 2, 4], acceleration: 1, smoothing: 0 },
    })
    const band = bandAtFull([0, 0, 0], [40, 40, 40], open)
    const whole = 80
    const { least, greatest } = band.reduce((best, stop) =>
      Math.abs(stop.time * whole - 20) < Math.abs(best.time * whole - 20) ? stop : best,
    )
    expect(least[0]).toBeCloseTo(40, 0)
    expect(least[1]).toBeCloseTo(20, 0)
    expect(least[2]).toBeCloseTo(10, 0)
    expect(greatest).toEqual([expect.closeTo(40, 0), 40, 40])
  })
  it('is no wider than the ways of its overrides lie apart and a ramp bulges', () => {
    // 10 in/s and 5 in/s with 50 and 25 in/s2, 10 along X and 2 along Z: while X goes along at its speed nothing bulges. At
    // X 5 Z is at 2 at every override; a ramp is seen in eighths of .2 s: 25 x .025^2 / 8 is .002.
    const mill = speeds({ rapid: [10, 10, 5], acceleration: [50, 50, 25] })
    const full = rapidBand([0, 0, 0], [10, 0, 2], mill).at(-1) as RapidStop[]
    const path = rapidCurve([0, 0, 0], [10, 0, 2], mill).map(({ least }) => least)
    for (const { least, greatest } of full) {
      expect(greatest[0] - least[0]).toBeLessThan(0.35)
      expect(greatest[2] - least[2]).toBeLessThan(0.15)
    }
    // Nothing of the band at 100 % and a little below comes nearer to the corner X10 Z0 than the path does, but for that much.
    const nearest = (places: readonly Triple[]) =>
      Math.min(...places.map(([x, , z]) => Math.hypot(10 - x, z)))
    expect(nearest(full.map(({ least, greatest }) => [greatest[0], 0, least[2]]))).toBeGreaterThan(
      nearest(path) - 0.2,
    )
  })
  it('is outlined by its corners: out where the first axis is quick, back where the second is', () => {
    const at = (least: Triple, greatest: Triple = least): RapidStop => ({ least, greatest, time: 0 })
    expect(bandOutline([at([0, 5, 0]), at([1, 5, 1], [2, 5, 3]), at([4, 5, 4])], 0, 2)).toEqual([
      [0, 5, 0],
      [2, 5, 1],
      [4, 5, 4],
      [4, 5, 4],
      [1, 5, 3],
      [0, 5, 0],
    ])
    // X the other way: the quick one is at the smaller X.
    expect(bandOutline([at([4, 5, 0]), at([2, 5, 1], [3, 5, 3]), at([0, 5, 4])], 0, 2)).toEqual([
      [4, 5, 0],
      [2, 5, 1],
      [0, 5, 4],
      [0, 5, 4],
      [3, 5, 3],
      [4, 5, 0],
    ])
    expect(bandOutline([], 0, 2)).toEqual([])
  })
})

describe('what slides along a face', () => {
  const cube: Solid = { kind: 'box', box: { least: [4, -1, -1], greatest: [6, 1, 1] } }
  const hits = (part: object, from: Triple, to: Triple) =>
    Number.isFinite(sweep(part as RoundPart | FlatPart | BlockPart, placeAt(from), placeAt(to), cube))
  it('a point: along the four sides no hit, a hair inside one', () => {
    const point = { form: 'round', radius: 0, from: 0, to: 1 }
    for (const [x, inside] of [
      [4, 4.00001],
      [6, 5.99999],
    ] as const) {
      expect(hits(point, [x, -5, 0], [x, 5, 0])).toBe(false)
      expect(hits(point, [inside, -5, 0], [inside, 5, 0])).toBe(true)
    }
    for (const [y, inside] of [
      [-1, -0.99999],
      [1, 0.99999],
    ] as const) {
      expect(hits(point, [0, y, 0], [9, y, 0])).toBe(false)
      expect(hits(point, [0, inside, 0], [9, inside, 0])).toBe(true)
    }
  })
  it('the rectangle of a lathe tool, and a block: the same by their sides', () => {
    const flat = { form: 'flat', x: [-0.5, 1], z: [-0.25, 2] }
    const block = { form: 'block', x: [-0.5, 1], y: [-2, 0.5], from: -0.25, to: 2 }
    for (const part of [flat, block]) {
      // Its right side at 4, its left one at 6; its top at -1, its bottom at 1.
      for (const [x, inward] of [
        [3, 0.00001],
        [6.5, -0.00001],
      ] as const) {
        expect(hits(part, [x, 0, -9], [x, 0, 9]), `x ${x}`).toBe(false)
        expect(hits(part, [x + inward, 0, -9], [x + inward, 0, 9])).toBe(true)
      }
      for (const [z, inward] of [
        [-3, 0.00001],
        [1.25, -0.00001],
      ] as const) {
        expect(hits(part, [0, 0, z], [9, 0, z]), `z ${z}`).toBe(false)
        expect(hits(part, [0, 0, z + inward], [9, 0, z + inward])).toBe(true)
      }
    }
    for (const [y, inward] of [
      [-1.5, 0.00001],
      [3, -0.00001],
    ] as const) {
      expect(hits(block, [0, y, 0], [9, y, 0]), `y ${y}`).toBe(false)
      expect(hits(block, [0, y + inward, 0], [9, y + inward, 0])).toBe(true)
    }
  })
})
