import fc from 'fast-check'
import { linearRegression, mean, sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import { capability } from './capability.ts'
import { driftOf } from './drift.ts'
import { chartOf, type RuleName, signals } from './rules.ts'

/** Numbers from 0 to 1, the same each time (mulberry32, public domain). */
function seeded(seed: number) {
  let a = seed
  return () => {
    a = (a + 0x6d2b79f5) | 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
const normalOf = (random: () => number) => () =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())

describe('the rules of a chart', () => {
  const limits = { mean: 0, upper: 3 }
  const quiet = [0.5, -0.4, 0.3, -0.6]
  it.each<[RuleName, number[]]>([
    ['beyond', [...quiet, 3.1]],
    ['two-of-three', [...quiet, 2.2, 0.5, 2.4]],
    ['four-of-five', [...quiet, -1.2, -1.4, 0.1, -1.1, -1.3]],
    ['eight-one-side', [-0.2, 0.2, 0.4, 0.1, 0.3, 0.2, 0.5, 0.1, 0.4]],
    ['six-trend', [0.4, -0.8, -0.5, -0.2, 0.1, 0.4, 0.7]],
    ['fourteen-alternating', Array.from({ length: 14 }, (_, n) => (n % 2 ? 0.5 : -0.5))],
  ])('%s speaks at the last value, and no other rule does', (rule, values) => {
    expect(signals(values, limits)).toEqual([expect.objectContaining({ rule, at: values.length - 1 })])
    expect(signals(values.slice(0, -1), limits)).toEqual([])
    expect(
      signals(
        values.map((value) => -value),
        limits,
      ),
    ).toHaveLength(1)
  })

  it('speak by chance as often as they should: once in 91.75 values (Champ and Woodall 1987, quoted in the e-Handbook 6.3.2; from memory)', () => {
    const normal = normalOf(seeded(11))
    const western: readonly RuleName[] = ['beyond', 'two-of-three', 'four-of-five', 'eight-one-side']
    const often = times(3000, 3000)
    const runs = Array.from({ length: often }, () => {
      const values: number[] = []
      for (;;) {
        for (let n = 0; n < 40; n++) values.push(normal())
        const first = signals(values, limits).find(({ rule }) => western.includes(rule))
        if (first) return first.at + 1
      }
    })
    // Its standard error is about 1.6 over 3000 runs.
    expect(Math.abs(mean(runs) - 91.75)).toBeLessThan(6 * Math.sqrt(3000 / often))
  })

  it('are not asked where nothing scatters, or of too few values', () => {
    expect(signals([1, 1, 1, 1], { mean: 1, upper: 1 })).toEqual([])
    expect(chartOf([1, 2, 3])).toBeUndefined()
  })
})

describe('capability', () => {
  /** Values of a mean and a standard deviation, exactly, in some order. */
  function exactly(n: number, at: number, sd: number) {
    const normal = normalOf(seeded(n))
    const raw = Array.from({ length: n }, normal)
    const [m, s] = [mean(raw), sampleStandardDeviation(raw)]
    return raw.map((value) => at + ((value - m) / s) * sd)
  }

  it('is that of the example of NIST/SEMATECH e-Handbook 6.1.6: 8 to 20, mean 16, s 2 (from memory)', () => {
    const found = capability(exactly(50, 16, 2), { lower: 8, upper: 20 })
    expect(found?.pp.value).toBeCloseTo(1, 9)
    expect(found?.ppk.value).toBeCloseTo(2 / 3, 9)
    // Half normal tables: beyond 2 and beyond 4 standard deviations.
    expect(found?.out).toBeCloseTo(0.02275 + 0.00003, 5)
  })

  it('is in doubt by the chi-square table: 3.247 and 20.483 at 10 degrees of freedom (e-Handbook 1.3.6.7.4)', () => {
    const found = capability(exactly(11, 0, 1), { lower: -3, upper: 3 })
    expect(found?.pp.low).toBeCloseTo(Math.sqrt(0.3247), 3)
    expect(found?.pp.high).toBeCloseTo(Math.sqrt(2.0483), 3)
  })

  it('has the mean and scatter of simple-statistics, for any values; nothing is said of few', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -500, max: 500 }), { minLength: 10, maxLength: 60 }), (raw) => {
        const values = raw.map((each) => each / 1000)
        const found = capability(values, { lower: -0.5, upper: 0.5 })
        if (new Set(values).size === 1) return expect(found).toBeUndefined()
        expect(found?.mean).toBeCloseTo(mean(values), 12)
        expect(found?.overall).toBeCloseTo(sampleStandardDeviation(values), 12)
        expect(found && found.ppk.value <= found.pp.value + 1e-12).toBe(true)
      }),
    )
    expect(capability([1, 2, 3], { lower: 0, upper: 4 })).toBeUndefined()
    expect(capability(exactly(20, 0, 1), { lower: 1, upper: 0 })).toBeUndefined()
  })
})

describe('drift', () => {
  it('is the least squares slope (simple-statistics), and reaches the limit where the line does', () => {
    const normal = normalOf(seeded(3))
    const values = Array.from({ length: 40 }, (_, n) => 1 + 0.002 * n + 0.003 * normal())
    const found = driftOf(values, 0, { lower: 0.9, upper: 1.2 })
    const { m, b } = linearRegression(values.map((y, x) => [x, y]))
    expect(found?.slope).toBeCloseTo(m, 12)
    expect(found?.reaches?.at).toBe(Math.ceil((1.2 - b) / m))
    expect(found?.reaches?.limit).toBe('upper')
    const { at = 0, earliest = 0, latest = 0 } = found?.reaches ?? {}
    expect(earliest).toBeLessThanOrEqual(at)
    expect(latest).toBeGreaterThanOrEqual(at)
    expect(found?.correctBefore).toBeLessThanOrEqual(at)
  })

  it('holds what it says: 95 of 100 true slopes lie within its doubt', () => {
    const normal = normalOf(seeded(5))
    let within = 0
    for (let run = 0; run < 2000; run++) {
      const values = Array.from({ length: 12 }, (_, n) => 0.01 * n + normal())
      const found = driftOf(values, 0, { lower: -9, upper: 9 })
      if (found && Math.abs(found.slope - 0.01) <= found.doubt) within++
    }
    expect(within / 2000).toBeGreaterThan(0.935)
    expect(within / 2000).toBeLessThan(0.965)
  })

  it('counts from the last correction, and is not told of fewer than five parts', () => {
    const values = [9, 9, 9, 1, 1.1, 1.2, 1.3, 1.4, 1.5]
    expect(driftOf(values, 3, { lower: 0, upper: 2 })).toMatchObject({ over: 6, reaches: { at: 13 } })
    expect(driftOf(values, 5, { lower: 0, upper: 2 })).toBeUndefined()
  })
})
