import fc from 'fast-check'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../../testing/evenly.ts'
import {
  bestMultiple,
  fitAcceleration,
  holeSeconds,
  kneeOf,
  mostMultiple,
  multipleToTry,
  retractCurve,
  savingOf,
  type TapStroke,
  type TimedHoles,
} from './retract.ts'

/** Seconds of so many turns from rest to rest, by turning the spindle in steps of a tenth of a millisecond. */
function turned(turns: number, speed: number, acceleration: number): number {
  const dt = 1e-4
  let [at, now, seconds] = [0, 0, 0]
  while (at < turns) {
    // Slow down where what is left is what stopping takes.
    const stopping = (now * now) / (2 * acceleration) >= turns - at
    now = Math.max(
      stopping ? now - acceleration * dt : Math.min(speed, now + acceleration * dt),
      acceleration * dt,
    )
    at += now * dt
    seconds += dt
  }
  return seconds
}

const stroke = fc.record({
  strokes: fc.array(evenly(0.5, 40), { minLength: 1, maxLength: 4 }),
  speed: evenly(2, 30),
  acceleration: evenly(5, 200),
})
const limits = { most: 9, decimal: true, topSpeed: 1000 }
/** 16 turns at 10 turns a second: the knee is sqrt(16 A) / 10. */
const with16 = (acceleration: number): TapStroke => ({ strokes: [16], speed: 10, acceleration })

describe('a tapped hole', () => {
  it('takes as long as a spindle that is turned in small steps, in and out, stroke by stroke', () => {
    fc.assert(
      fc.property(stroke, evenly(1, 5), (of, multiple) => {
        const wanted = of.strokes.reduce(
          (sum, turns) =>
            sum +
            turned(turns, of.speed, of.acceleration) +
            turned(turns, of.speed * multiple, of.acceleration),
          0,
        )
        expect(Math.abs(holeSeconds(of, multiple) - wanted)).toBeLessThan(
          0.01 * of.strokes.length + 0.01 * wanted,
        )
      }),
      { numRuns: 30 },
    )
  })

  it('gains nothing beyond the knee, and something before it: sqrt(N A) / S of its longest stroke (trade.md 7)', () => {
    expect(kneeOf({ strokes: [4, 16], speed: 10, acceleration: 100 })).toBeCloseTo(4, 12)
    expect(kneeOf({ strokes: [1], speed: 10, acceleration: 4 })).toBe(1)
    fc.assert(
      fc.property(stroke, (of) => {
        const knee = kneeOf(of)
        expect(holeSeconds(of, knee * 1.5)).toBeCloseTo(holeSeconds(of, knee), 9)
        if (knee > 1) expect(holeSeconds(of, 1 + (knee - 1) * 0.9)).toBeGreaterThan(holeSeconds(of, knee))
      }),
    )
  })

  it('comes out at the least multiple that the control can write and that reaches the knee', () => {
    const knee = (value: number) => with16((100 * value * value) / 16)
    expect([2, 2.3, 2.31, 2.38, 1].map((value) => bestMultiple(knee(value), limits))).toEqual([
      2, 2.3, 2.4, 2.4, 1,
    ])
    const whole = { ...limits, decimal: false }
    expect([2, 2.01, 2.9, 3, 1].map((value) => bestMultiple(knee(value), whole))).toEqual([2, 3, 3, 3, 1])
    // No faster than the control takes, and than the spindle may tap.
    expect(bestMultiple(knee(4), { ...limits, most: 3 })).toBe(3)
    expect(bestMultiple(knee(4), { ...limits, topSpeed: 25.8 })).toBe(2.5)
    expect([25.8, 30, 9].map((topSpeed) => mostMultiple(knee(4), { ...whole, topSpeed }))).toEqual([2, 3, 1])
    expect([25.8, 25, 9].map((topSpeed) => mostMultiple(knee(4), { ...limits, topSpeed }))).toEqual([
      2.5, 2.5, 1,
    ])
    expect([true, false].map((timed) => multipleToTry(knee(4), limits, timed))).toEqual([4, 2])
    expect(multipleToTry(knee(1.5), limits, false)).toBe(1.5)
  })

  it('is drawn over the multiple by tenths, from 1 to the most', () => {
    const of = with16(40)
    const curve = retractCurve(of, 3)
    expect(curve.map(({ multiple }) => Math.round(multiple * 10))).toEqual(
      Array.from({ length: 21 }, (_, n) => 10 + n),
    )
    for (const { multiple, seconds } of curve) expect(seconds).toBeCloseTo(holeSeconds(of, multiple), 12)
    expect(retractCurve(of, 1)).toHaveLength(1)
  })

  it('saves by the hole, the part and the shift (by hand)', () => {
    // In: 1.6 + 10/40 s. Out the same at 1; at 2 in 2 sqrt(16/40): 20 turns a second are 10 turns up and 10 down.
    const of = with16(40)
    const out = 1.6 + 0.25
    const fast = 16 / 20 + 20 / 40
    expect(holeSeconds(of, 1)).toBeCloseTo(1.85 + out, 12)
    const rates = { holes: 6, partsAShift: 100, shiftsAMonth: 20, anHour: 90 }
    const saved = savingOf(of, 1, 2, rates)
    expect(kneeOf(of)).toBeGreaterThan(2)
    expect(saved.perHole).toBeCloseTo(out - fast, 12)
    expect(saved.perPart).toBeCloseTo(6 * (out - fast), 12)
    expect(saved.perShift).toBeCloseTo(600 * (out - fast), 9)
  })
})

describe('the acceleration from two timed holes', () => {
  it('has a doubt by how steeply it follows the time saved, on either side of it (by hand)', () => {
    // 10 turns at 5 a second, out at 2: A = 5 / (1 - s). With 20 it saves .75 s; steps of .125, half of what is left to 1:
    // 5 / .125 = 40 and 5 / .375 = 13.33, over .25: 106.7 a second, by root of 2 of .2 s.
    const found = fitAcceleration({ turns: 10, speed: 5, slow: 4, fast: 3.25, multiple: 2, timingDoubt: 0.2 })
    expect(found).toMatchObject({ ok: true, reached: true })
    expect(found.ok && found.value).toBeCloseTo(20, 9)
    expect(found.ok && found.doubt).toBeCloseTo(((40 - 40 / 3) / 0.25) * 0.2 * Math.SQRT2, 9)
    // Never twice 10 a second in 10 turns: A = 10 / (1 - root s)^2. It saved .04 s, half of it either way: .02 and .06.
    const never = fitAcceleration({
      turns: 10,
      speed: 10,
      slow: 3,
      fast: 2.96,
      multiple: 2,
      timingDoubt: 0.1,
    })
    const by = (s: number) => 10 / (1 - Math.sqrt(s)) ** 2
    expect(never).toMatchObject({ ok: true, reached: false })
    expect(never.ok && never.value).toBeCloseTo(10 / 0.64, 9)
    expect(never.ok && never.doubt).toBeCloseTo(((by(0.06) - by(0.02)) / 0.04) * 0.1 * Math.SQRT2, 9)
  })
  const timed = (acceleration: number, more: Partial<TimedHoles> = {}): TimedHoles => {
    const of = with16(acceleration)
    const multiple = more.multiple ?? 3
    return {
      turns: 16,
      speed: 10,
      slow: holeSeconds(of, 1),
      fast: holeSeconds(of, multiple),
      multiple,
      timingDoubt: 0.005,
      ...more,
    }
  }
  it('is what the holes were turned with, whether the spindle came to speed on its way out or not', () => {
    for (const acceleration of [12, 20, 40, 60, 90, 140]) {
      const found = fitAcceleration(timed(acceleration))
      expect(found).toMatchObject({ ok: true, reached: 16 >= 900 / acceleration })
      expect(found.ok && found.value).toBeCloseTo(acceleration, 6)
    }
  })

  it('scatters by its doubt when both times are off (JCGM 101:2008, Monte Carlo)', () => {
    let state = 4_321
    const uniform = () => {
      state = (state * 16_807) % 2_147_483_647
      return state / 2_147_483_647
    }
    const off = () => 0.001 * Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
    for (const acceleration of [20, 90]) {
      const of = timed(acceleration, { timingDoubt: 0.001 })
      const values = Array.from({ length: 4000 }, () => {
        const found = fitAcceleration({ ...of, slow: of.slow + off(), fast: of.fast + off() })
        return found.ok ? found.value : Number.NaN
      })
      const found = fitAcceleration(of)
      if (!found.ok) throw new Error(found.says)
      expect(mean(values)).toBeCloseTo(acceleration, 0)
      expect(sampleStandardDeviation(values) / found.doubt).toBeCloseTo(1, 1)
    }
  })

  it('is refused where the times cannot tell it, with what to do', () => {
    const says = (more: Partial<TimedHoles>, acceleration = 40) => {
      const found = fitAcceleration(timed(acceleration, more))
      return found.ok ? 'ok' : found.says
    }
    expect(says({ multiple: 1 })).toMatch(/must come out faster/)
    expect(says({ fast: timed(40).slow })).toMatch(/was not faster/)
    // Three times as fast 16 turns take a third of 1.6 s at the least: no spindle saves 1.067 s.
    expect(says({ fast: timed(40).slow - 1.067 })).toMatch(/more than coming out 3 times as fast can save/)
    expect(says({ fast: timed(40).slow - 1.066 })).toBe('ok')
    // 16 turns at 10 a second need 100 / 16 = 6.25 turns a second squared to come to speed: less, and both take the same.
    expect(says({}, 6)).toMatch(/was not faster: time both again, with a longer thread/)
    expect(says({}, 12)).toBe('ok')
  })
})
