import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { endOf, ROW } from './motion.ts'
import { read } from './read.ts'
import { rpmAlong, rpmAtRadius, rpmRound } from './surface-speed.ts'
import { compact, onLathe } from './testing.ts'

/** Minutes along a straight move by many small steps, each at the turns of its middle: knows no integral. */
function stepped(from: number, to: number, feed: number, turns: (radius: number) => number, steps = 20_000) {
  let minutes = 0
  for (let n = 0; n < steps; n++) {
    const middle = from + ((to - from) * (n + 0.5)) / steps
    minutes += Math.abs(to - from) / steps / (feed * turns(Math.abs(middle)))
  }
  return minutes
}

/** 12 V / (pi D) in inches and feet a minute, no more than the clamp (trade.md 7). */
const turns = (surface: number, top: number) => (radius: number) =>
  Math.min(top, (12 * surface) / (Math.PI * 2 * Math.max(radius, 1e-12)))
const held = (surface: number, top: number) => ({ perRadius: (12 * surface) / (2 * Math.PI), top })

describe('constant surface speed along a move', () => {
  it('faces 3 to 0 in 9.20 s: 0.010 a turn, 400 ft a minute, clamp 2500 (trade.md 7; worked by hand)', () => {
    // k = 12 x 400 / (2 pi) = 763.94; clamped within r = 0.30558: 0.30558 / (0.01 x 2500) min = 0.733 s; from there to 1.5
    // (1.5^2 - 0.30558^2) / (2 x 0.01 x 763.94) min = 8.469 s.
    const text = 'G20 G18 G99 G90\nT0101\nG50 S2500\nG96 S400 M3\nG0 X3. Z0.\nG1 X0. F.01\nM30'
    const { motion } = read(text, onLathe())
    const row = motion.kind.indexOf(ROW.LINE)
    const seconds = (60 * (endOf(motion, row - 1)[0] - endOf(motion, row)[0])) / (motion.feed[row] as number)
    expect(seconds).toBeCloseTo(9.2, 1)
    expect(seconds).toBeCloseTo(0.7334 + 8.4695, 3)
  })

  it('takes as long as many small steps do, towards the centre, across it and outwards', () => {
    const radius = fc.integer({ min: -4000, max: 8000 }).map((n) => n / 1000)
    fc.assert(
      fc.property(
        radius,
        radius,
        fc.integer({ min: 50, max: 2000 }),
        fc.integer({ min: 200, max: 6000 }),
        (from, to, v, top) => {
          if (Math.abs(to - from) < 0.01) return
          const minutes = Math.abs(to - from) / (0.01 * rpmAlong(from, to, held(v, top)))
          expect(minutes / stepped(from, to, 0.01, turns(v, top))).toBeCloseTo(1, 4)
        },
      ),
      depth(40, 400),
    )
  })

  it('along a diameter it is the turns there, never more than at the smaller end nor less than at the larger', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9000 }), fc.integer({ min: 1, max: 9000 }), (a, b) => {
        const of = held(400, 2500)
        const [from, to] = [a / 1000, b / 1000]
        expect(rpmAlong(from, from, of)).toBeCloseTo(turns(400, 2500)(from), 6)
        const mean = rpmAlong(from, to, of)
        expect(mean).toBeLessThanOrEqual(rpmAtRadius(Math.min(from, to), of) + 1e-6)
        expect(mean).toBeGreaterThanOrEqual(rpmAtRadius(Math.max(from, to), of) - 1e-6)
        expect(rpmRound((share) => from + (to - from) * share, of) / mean).toBeCloseTo(1, 6)
      }),
      depth(100, 1000),
    )
  })

  it('round an arc it follows the radius: a quarter round of 1 in at X2 is as long as its small steps', () => {
    const text = 'G20 G18 G99 G90\nT0101\nG50 S5000\nG96 S400 M3\nG0 X2. Z0.\nG3 X4. Z-1. R1. F.01\nM30'
    const { motion } = read(text, onLathe({ profile: compact }))
    const row = [...motion.kind].findIndex((kind) => kind === ROW.ARC_CW || kind === ROW.ARC_CCW)
    let minutes = 0
    for (let n = 0; n < 5000; n++) {
      // Round the centre at X2 Z-1: the radius from 1 to 2.
      const at = ((n + 0.5) / 5000) * (Math.PI / 2)
      minutes += Math.PI / 2 / 5000 / (0.01 * turns(400, 5000)(1 + Math.sin(at)))
    }
    expect(Math.PI / 2 / (motion.feed[row] as number) / minutes).toBeCloseTo(1, 3)
  })

  it('with a clamp of nothing the spindle does not turn', () => {
    const still = { perRadius: 100, top: 0 }
    expect([
      rpmAtRadius(1, still),
      rpmAtRadius(0, still),
      rpmAlong(1, 2, still),
      rpmAlong(-1, 1, still),
    ]).toEqual([0, 0, 0, 0])
    expect(rpmRound((share) => 1 + share, still)).toBe(0)
  })
})
