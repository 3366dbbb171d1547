import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { read } from '../program/index.ts'
import { rapidSeconds, speedsOf } from '../timing/index.ts'
import type { Body, Triple } from './body.ts'
import { findHits } from './hits.ts'
import { rapidPath } from './path.ts'
import { prove } from './prove.ts'
import {
  bandAtFull,
  bandOutline,
  isBand,
  type RapidSpeeds,
  type RapidStop,
  rapidBand,
  rapidCurve,
  sureCurves,
} from './rapid.ts'

const [compact, , plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
const mill = demoReference.machines[0] as Machine
const known = speedsOf(mill, compact, 'inch')
const KNOWN: RapidSpeeds['unsure'] = { speed: [1, 1, 1], acceleration: 1, smoothing: 0 }

/**
 * The other way: one axis from rest to rest by small steps of time, never faster than its top, nor than it can still be
 * braked from, its speed then smoothed over a window (what limited jerk makes of it). Knows no trapezoid.
 */
function stepped(distance: number, top: number, pull: number, smoothing: number, step: number): number[] {
  let [at, speed] = [0, 0]
  const speeds: number[] = []
  for (let n = 0; at < distance - 1e-9 && n < 1e6; n++) {
    const next = Math.min(top, speed + pull * step, Math.sqrt(2 * pull * Math.max(0, distance - at)))
    at = Math.min(distance, at + ((speed + next) / 2) * step)
    speeds.push((speed + next) / 2)
    speed = Math.max(next, 1e-6)
  }
  const window = Math.max(1, Math.round(smoothing / step))
  const places = [0]
  for (let n = 0; n < speeds.length + window; n++) {
    let sum = 0
    for (let back = 0; back < window; back++) sum += speeds[n - back] ?? 0
    places.push(Math.min(distance, (places.at(-1) as number) + (sum / window) * step))
  }
  return places
}

/** Places of a real move: every axis by its own top, acceleration and smoothing. */
function realMove(
  from: Triple,
  to: Triple,
  axes: readonly { top: number; pull: number; smoothing: number }[],
  step: number,
): Triple[] {
  const runs = axes.map(({ top, pull, smoothing }, axis) =>
    stepped(Math.abs((to[axis] as number) - (from[axis] as number)), top, pull, smoothing, step),
  )
  const long = Math.max(...runs.map((run) => run.length))
  return Array.from({ length: long }, (_, n) => {
    const at = (axis: 0 | 1 | 2) => {
      const run = runs[axis] as number[]
      const come = run[Math.min(n, run.length - 1)] as number
      return from[axis] + Math.sign(to[axis] - from[axis]) * come
    }
    return [at(0), at(1), at(2)]
  })
}

/** Whether a place is in the band, give or take `slack`: between two neighbouring moments. */
const isIn = (bands: readonly RapidStop[][], at: Triple, slack: number) =>
  bands.some((stops) =>
    stops.some((stop, n) => {
      const next = stops[n + 1] ?? stop
      // The boxes go straight from one moment to the next: at some share of the way all three axes must hold the place.
      let [begin, end] = [0, 1]
      for (const axis of [0, 1, 2] as const) {
        const keep = (a: number, d: number) => {
          if (Math.abs(d) < 1e-12) {
            if (a < 0) end = -1
          } else if (d > 0) begin = Math.max(begin, -a / d)
          else end = Math.min(end, -a / d)
        }
        keep(at[axis] - stop.least[axis] + slack, -(next.least[axis] - stop.least[axis]))
        keep(stop.greatest[axis] + slack - at[axis], next.greatest[axis] - stop.greatest[axis])
      }
      return begin <= end + 1e-9
    }),
  )

const tenths = (least: number, most: number) => fc.integer({ min: least, max: most }).map((n) => n / 10)
const place = fc.tuple(tenths(-60, 60), tenths(-60, 60), tenths(-30, 30))
const share = fc.integer({ min: 0, max: 100 }).map((n) => n / 100)
const between = (a: number, b: number, by: number) => a * (b / a) ** by

describe('the way of a dogleg rapid', () => {
  it('takes as long as each axis takes from rest to rest', () => {
    fc.assert(
      fc.property(place, place, (from, to) => {
        const speeds = { ...known, unsure: KNOWN }
        const at = (axis: 0 | 1 | 2) => Math.abs(to[axis] - from[axis])
        const seconds = rapidSeconds(at(0), at(1), at(2), speeds)
        const axes = speeds.rapid.map((top, axis) => ({
          top,
          pull: speeds.acceleration[axis] as number,
          smoothing: 0,
        }))
        const step = 0.002
        const real = realMove(from, to, axes, step)
        expect(Math.abs((real.length - 2) * step - seconds)).toBeLessThan(0.02)
        if (from.filter((each, axis) => each !== to[axis]).length < 2) return
        for (const { least, time } of rapidCurve(from, to, speeds)) {
          const near = real[Math.round((time * seconds) / step)] ?? (real.at(-1) as Triple)
          expect(Math.hypot(...near.map((each, axis) => each - (least[axis] as number)))).toBeLessThan(0.08)
        }
      }),
      depth(60, 600),
    )
  })

  it('nothing that a machine can do lies outside: any override, any acceleration, speed and rounding that is open', () => {
    fc.assert(
      fc.property(
        place,
        place,
        fc.record({
          speed: fc.constantFrom(1, 1.5),
          acceleration: fc.constantFrom(1, 4),
          smoothing: fc.constantFrom(0, 0.05),
        }),
        fc.array(fc.tuple(share, share, share), { minLength: 3, maxLength: 3 }),
        fc.integer({ min: 5, max: 100 }),
        (from, to, open, picks, percent) => {
          const { speed, acceleration, smoothing } = open
          const speeds = {
            ...known,
            unsure: { speed: [speed, speed, speed] as Triple, acceleration, smoothing },
          }
          const override = percent / 100
          const axes = picks.map(([a, b, c], axis) => ({
            top:
              override *
              between((known.rapid[axis] as number) / speed, (known.rapid[axis] as number) * speed, a),
            pull: between(
              (known.acceleration[axis] as number) / acceleration,
              (known.acceleration[axis] as number) * acceleration,
              b,
            ),
            smoothing: smoothing * c,
          }))
          const bands = rapidBand(from, to, speeds)
          for (const at of realMove(from, to, axes, 0.002)) expect(isIn(bands, at, 0.01)).toBe(true)
        },
      ),
      depth(60, 600),
    )
  })

  it('the curves that are called sure lie in the band, and every one begins and ends where the move does', () => {
    fc.assert(
      fc.property(place, place, (from, to) => {
        const speeds = { ...known, unsure: { ...KNOWN, smoothing: 0.06 } }
        const bands = rapidBand(from, to, speeds)
        for (const curve of sureCurves(from, to, speeds)) {
          expect(curve[0]?.least).toEqual(from)
          for (const axis of [0, 1, 2] as const) expect(curve.at(-1)?.least[axis]).toBeCloseTo(to[axis], 9)
          for (const { least } of curve) expect(isIn(bands, least, 1e-6)).toBe(true)
        }
      }),
      depth(60, 600),
    )
  })

  it('is the same wherever the move lies: rounding makes no box wider or narrower', () => {
    const speeds = { ...known, unsure: { ...KNOWN, acceleration: 2, smoothing: 0.06 } }
    fc.assert(
      fc.property(place, place, place, (from, to, by) => {
        const moved = (at: Triple): Triple => [at[0] + by[0], at[1] + by[1], at[2] + by[2]]
        const there = rapidBand(moved(from), moved(to), speeds)
        const here = rapidBand(from, to, speeds)
        expect(there.map(({ length }) => length)).toEqual(here.map(({ length }) => length))
        let worst = 0
        for (const [n, band] of here.entries())
          for (const [m, stop] of band.entries())
            for (const end of ['least', 'greatest'] as const)
              for (const [axis, value] of moved(stop[end]).entries())
                worst = Math.max(worst, Math.abs((there[n]?.[m]?.[end][axis] as number) - value))
        expect(worst).toBeLessThan(1e-7)
      }),
      depth(100, 1000),
    )
  })

  it('is drawn as what lies between its two ways, whichever way it goes', () => {
    const speeds = { ...known, unsure: { ...KNOWN, smoothing: 0.05 } }
    for (const to of [
      [4, 0, 2],
      [-4, 0, 2],
      [4, 0, -2],
      [-4, 0, -2],
    ] as const) {
      const band = bandAtFull([0, 0, 0], to, speeds)
      const outline = bandOutline(band, 0, 2)
      expect(outline).toHaveLength(2 * band.length)
      // Its area by the shoelace formula is that between the two edges; every place of the path at 100 % is inside.
      const area = outline.reduce((sum, [x, , z], n) => {
        const [x2, , z2] = outline[(n + 1) % outline.length] as Triple
        return sum + (x * z2 - x2 * z) / 2
      }, 0)
      expect(Math.abs(area)).toBeGreaterThan(0.5)
      expect(Math.abs(area)).toBeLessThan(8)
      for (const [x, , z] of rapidPath([0, 0, 0], to, speeds)) {
        const above = outline.filter(
          ([px, , pz]) => Math.abs(px) <= Math.abs(x) + 1e-6 && Math.abs(pz) >= Math.abs(z) - 1e-6,
        )
        const below = outline.filter(
          ([px, , pz]) => Math.abs(px) >= Math.abs(x) - 1e-6 && Math.abs(pz) <= Math.abs(z) + 1e-6,
        )
        expect(above.length).toBeGreaterThan(0)
        expect(below.length).toBeGreaterThan(0)
      }
    }
  })

  it('is one line on a control that goes straight, and along one axis', () => {
    const straight = speedsOf(mill, plain, 'inch')
    expect(rapidPath([0, 0, 0], [3, 1, -1], straight)).toEqual([
      [0, 0, 0],
      [3, 1, -1],
    ])
    expect(rapidBand([0, 0, 0], [3, 1, -1], straight)).toHaveLength(1)
    expect(rapidPath([0, 0, 0], [3, 0, 0], known)).toHaveLength(2)
    expect(isBand([0, 0, 0], [3, 1, 0], straight)).toBe(false)
    expect(isBand([0, 0, 0], [3, 1, 0], { ...known, unsure: { ...KNOWN, smoothing: 0.02 } })).toBe(true)
  })
})

describe('rapids against a wall (trade.md 9)', () => {
  /** From low beside a wall to high behind it, in one line. */
  const TEXT = 'G20 G90 G54\nT7 M6\nG43 H7\nG0 X0 Y0\nZ.05\nX6. Z2.05\nM30'
  const wall: Body = {
    id: 'wall',
    name: 'wall',
    role: 'stop',
    shape: 'box',
    at: { x: 2.5, y: -0.5, z: -1 },
    size: { x: 0.3, y: 1, z: 2.849 },
  }
  const tool = { ...(demoReference.tools.find(({ number }) => number === 7) ?? never()), diameter: 0.25 }
  function never(): never {
    throw new Error('the demo has T7')
  }
  const proofOf = (machine: Machine, profile = compact, bodies = [wall]) =>
    prove({
      text: TEXT,
      profile,
      machine,
      unit: 'inch',
      frame: 'G54',
      offsets: [{ name: 'G54', axes: { X: -12, Y: -8, Z: -18 } }],
      lengths: [{ tool: 7, length: 6 }],
      tools: [tool],
      layout: { unit: 'inch', bodies },
    }).findings.filter(({ code }) => code.startsWith('rapid'))

  it('stops a move that goes into it once the axes speed up as the page has them', () => {
    // Worked by hand. X speeds up by 60 in/s2 to 1000 in/min in 0.278 s and 2.315 in: its front edge is at the wall,
    // X2.375, after 0.2814 s. Z never gets to its top: half way after 0.2 s at 50 in/s2, then it brakes, and has come
    // 2 - 25 (0.4 - 0.2814)^2 = 1.648 by then: Z1.698, 0.151 below the wall's top. By constant speeds it would be Z1.95.
    const [found] = proofOf(mill)
    expect(found?.severity).toBe('stop')
    const at = found?.at as Triple
    expect(at[0]).toBeCloseTo(2.375, 2)
    expect(at[2]).toBeCloseTo(1.698, 2)
  })

  it('is a look, and says why, where the page does not say how they speed up', () => {
    const [found] = proofOf({ ...mill, dynamics: null })
    expect([found?.severity, found?.code]).toEqual(['look', 'rapid-may-hit'])
    expect(found?.why).toContain('how the axes speed up')
  })

  it('says nothing of what no override comes near, though the rectangle of the move holds it', () => {
    // At X4.4 Z has long been at the top: the wall is an inch and a half under the tool.
    const low: Body = { ...wall, at: { x: 4.5, y: -0.5, z: -1 }, size: { x: 0.5, y: 1, z: 1.5 } }
    expect(proofOf(mill, compact, [low])).toEqual([])
  })

  it('says nothing of a straight line that clears it, nor of Z first', () => {
    const { motion } = read('G20 G90\nG0 X0 Y0\nZ.05\nZ2.05\nX6.', {
      profile: compact,
      machine: mill,
      unit: 'inch',
    })
    const bodies = [wall]
    expect(findHits({ motion, bodies, tools: new Map([[0, tool]]), speeds: known, lathe: false })).toEqual([])
  })
})
