import fc from 'fast-check'
import { sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { doubtOfMean } from './few-readings.ts'

/** A dice of its own: the same numbers every time (Park and Miller), normal by Box and Muller. */
function normal(seed: number) {
  let state = seed
  const uniform = () => {
    state = (state * 16_807) % 2_147_483_647
    return state / 2_147_483_647
  }
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
}

describe('the doubt of a mean of few readings', () => {
  it('is the method’s for one, and what two show for two that lie apart: 0.020 apart is 0.010, not 0.0007', () => {
    expect(doubtOfMean([1.25], 0.001)).toBe(0.001)
    // The mean of two that do not repeat is no better than half of what lies between them.
    expect(doubtOfMean([1.25, 1.27], 0.001)).toBeCloseTo(0.01, 12)
    // Worked by hand: range 0.002 over d2 1.128 is 0.001773; pooled with 0.001 as of five, root of
    // (5 x 0.001^2 + 0.001773^2) / 6 = 0.001165; over root 2 0.000824.
    expect(doubtOfMean([1.25, 1.252], 0.001)).toBeCloseTo(0.000824, 6)
    // Three: 0.002 / 1.693 = 0.001181; root of (5 x 0.001^2 + 2 x 0.001181^2) / 7 = 0.001055; over root 3 0.000609.
    expect(doubtOfMean([1.25, 1.251, 1.252], 0.001)).toBeCloseTo(0.000609, 6)
  })

  it('goes over to half the range just where readings lie further apart than three times root 2 of the method’s figure', () => {
    const apart = 3 * Math.SQRT2 * 0.001
    // Worked by hand: 0.0042 over 1.128 is 0.003723; root of (5 x 0.001^2 + 0.003723^2) / 6 = 0.001774, less than half of
    // the range, 0.0021; over root 2 0.001485. A hair more, and it is half the range itself.
    expect(doubtOfMean([0, 0.0042], 0.001)).toBeCloseTo(0.001485, 6)
    expect(doubtOfMean([0, apart], 0.001)).toBeLessThan(0.0016)
    expect(doubtOfMean([0, apart * 1.001], 0.001)).toBeCloseTo((apart * 1.001) / 2, 9)
    // At six readings their own deviation counts: 1 to 6 has one of root 3.5.
    expect(doubtOfMean([1, 2, 3, 4, 5, 6], 1.5)).toBeCloseTo(Math.sqrt(3.5 / 6), 9)
    expect(doubtOfMean([1, 2, 3, 4, 5, 6], 2.5)).toBeCloseTo(2.5 / Math.sqrt(6), 9)
  })

  it('range over d2 is the deviation, on average (NIST/SEMATECH e-Handbook): 20,000 sets of readings', () => {
    const next = normal(4711)
    for (const [times, d2] of [
      [2, 1.128],
      [3, 1.693],
      [4, 2.059],
      [5, 2.326],
    ] as const) {
      let ranges = 0
      for (let n = 0; n < 20_000; n++) {
        const values = Array.from({ length: times }, next)
        ranges += Math.max(...values) - Math.min(...values)
      }
      expect(ranges / 20_000).toBeCloseTo(d2, 1)
    }
  })

  it('covers the truth as it should where the method repeats as it says, and where it is four times as bad', () => {
    const next = normal(99)
    for (const worse of [1, 4])
      for (const times of [2, 3, 4, 5, 10]) {
        let covered = 0
        for (let n = 0; n < 4_000; n++) {
          const values = Array.from({ length: times }, () => worse * next())
          const mean = values.reduce((sum, each) => sum + each, 0) / times
          if (Math.abs(mean) <= 2 * doubtOfMean(values, 1)) covered++
        }
        // Twice the doubt holds the truth nineteen times of twenty; of what is far worse than said less often, of two
        // readings least: by the method's figure alone it was a third.
        expect(covered / 4_000).toBeGreaterThan(worse === 1 ? 0.93 : times === 2 ? 0.65 : 0.8)
      }
  })

  it('never lies below the method’s own over root n; grows with the readings; is the same in any order and unit', () => {
    const reading = fc.integer({ min: -40, max: 40 }).map((n) => n / 10_000)
    fc.assert(
      fc.property(
        fc.array(reading, { minLength: 2, maxLength: 12 }),
        fc.integer({ min: 1, max: 30 }),
        (values, own) => {
          const each = own / 10_000
          const doubt = doubtOfMean(values, each)
          expect(doubt).toBeGreaterThanOrEqual(each / Math.sqrt(values.length) - 1e-15)
          expect(doubtOfMean(values.toReversed(), each)).toBeCloseTo(doubt, 15)
          expect(
            doubtOfMean(
              values.map((value) => 25.4 * value + 3),
              25.4 * each,
            ),
          ).toBeCloseTo(25.4 * doubt, 9)
          const range = Math.max(...values) - Math.min(...values)
          if (range > 3 * Math.SQRT2 * each * (1 + 1e-9))
            expect(doubt).toBeGreaterThanOrEqual(range / 2 - 1e-15)
          if (values.length > 5)
            expect(doubt).toBeGreaterThanOrEqual(
              sampleStandardDeviation(values) / Math.sqrt(values.length) - 1e-12,
            )
        },
      ),
      depth(200, 2000),
    )
  })
})
