import { describe, expect, it } from 'vitest'
import { capability } from './capability.ts'
import type { Characteristic } from './characteristic.ts'
import { type Correction, heldWithin, simulate } from './corrected.ts'
import { driftOf } from './drift.ts'
import type { FeatureDraft } from './feature.ts'
import { sizeAndClass } from './iso286.ts'
import { signals } from './rules.ts'
import { resultSuspicions } from './suspicions.ts'
import { caseOf, compact, featureOf, planOf, written } from './testing.ts'
import { readTolerance } from './tolerance.ts'

// Just on a limit, and on either side of it; in halves and quarters, which binary numbers hold exactly.

const near = (value: number, digits = 9) => expect.closeTo(value, digits)

describe('rules of a chart, at their limits (NIST/SEMATECH e-Handbook 6.3.2: beyond, not at)', () => {
  const spoken = (values: number[]) =>
    signals(values, { mean: 0, upper: 3 }).map(({ rule, at }) => `${rule} ${at}`)
  it('two at two deviations are not beyond them; the last one is one of them', () => {
    expect(spoken([0, 2, 2.5])).toEqual([])
    expect(spoken([0, -2, -2.5])).toEqual([])
    expect(spoken([0, 2.1, 2.5])).toEqual(['two-of-three 2'])
    expect(spoken([0, -2.1, -2.5])).toEqual(['two-of-three 2'])
    expect(spoken([2.5, 2.5, 2])).toEqual([])
    expect(spoken([-2.5, -2.5, -2])).toEqual([])
    expect(spoken([-2.5, -2.5, 0])).toEqual([])
    expect(spoken([3, 0, -3])).toEqual([])
  })
  it('are told in the order of the values, and not at all where nothing scatters', () => {
    expect(spoken([2.1, 0, 2.5, 0, 0, 4])).toEqual(['two-of-three 2', 'beyond 5'])
    expect(signals([1, 2], { mean: 1, upper: 1 })).toEqual([])
  })
})

describe('capability and drift, by hand', () => {
  it('within by the ranges from value to value, wherever the values lie', () => {
    // Ranges of 2: over 1.128. Two standard deviations of the same about their mean of 5.
    const found = capability([4, 6, 4, 6, 4, 6, 4, 6, 4, 6], { lower: 0, upper: 10 })
    expect(found?.within).toBeCloseTo(2 / 1.128, 9)
    expect(found?.overall).toBeCloseTo(Math.sqrt(10 / 9), 9)
    expect(
      capability(
        Array.from({ length: 10 }, () => 5),
        { lower: 0, upper: 10 },
      ),
    ).toBeUndefined()
  })
  it('corrects before one more part may come over the limit: its band is wider the further on', () => {
    // Residuals in the pattern 1 -2 0 2 -1 are square to a line. Half a ten-thousandth of it about .001 a part:
    // s = root(10 x .00005^2 / 3), t(.975, 3) = 3.182, band = t s root(1 + 1/5 + (x - 2)^2 / 10): .00056 at part 7.
    const values = [1, -2, 0, 2, -1].map((pattern, n) => 0.001 * n + 0.00005 * pattern)
    const before = (upper: number) => driftOf(values, 0, { lower: -1, upper })?.correctBefore
    expect(driftOf(values, 0, { lower: -1, upper: 1 })?.slope).toBeCloseTo(0.001, 12)
    // .007559 at 7, .008635 at 8.
    expect([before(0.00754), before(0.00758), before(0.0077)]).toEqual([7, 8, 8])
  })
})

describe('corrections, at their limits', () => {
  const correction: Correction = {
    drift: 0.0625,
    share: 1,
    deadBand: 0.25,
    half: 0.5,
    scatter: 0.0625,
    reading: 0.0625,
    limit: 0.5625,
  }
  it('a part that may come just to the limit stays; a reading that may, goes on', () => {
    // .25 + .125 + .0625 of the process and .0625 of its scatter: half an inch; .0625 more is read.
    expect(heldWithin(correction)).toMatchObject({ most: 0.5, stays: true, goesOn: true })
    expect(heldWithin({ ...correction, limit: 0.5624 })).toMatchObject({ stays: true, goesOn: false })
    expect(heldWithin({ ...correction, half: 0.4999 }).stays).toBe(false)
  })
  it('says what is too much where it cannot stay', () => {
    const says = (more: Partial<Correction>) => heldWithin({ ...correction, ...more }).says
    const bare = { reading: 0, scatter: 0.125, half: 0.375, deadBand: 0.25 }
    // Scatter and what is seen of it, .25, are half of the tolerance.
    expect(says({ ...bare, half: 0.25 })).toMatch(/the scatter alone is wider/)
    // With a drift of .125 just all of it: neither the way to the next part nor the share is too much.
    expect(says({ ...bare, drift: 0.125 })).toMatch(/the dead band is too wide/)
    expect(says({ ...bare, drift: 0.126 })).toMatch(/moves too far from one part to the next/)
    expect(says({ ...bare, drift: 0.1, share: 0.5 })).toMatch(/the share is too small/)
  })
  it('stops beyond its limit, not at it', () => {
    const run = (start: number) =>
      simulate(
        { ...correction, deadBand: 1, drift: 0, limit: 0.5 },
        3,
        () => 0,
        () => 0,
        start,
      )
    expect(run(0.5)).toEqual({ errors: [0.5, 0.5, 0.5] })
    expect(run(0.50001)).toEqual({ errors: [0.50001], stoppedAt: 0 })
  })
})

describe('sizes and tolerances', () => {
  it('a class for a size in inches gives both its deviations in inches', () => {
    // 20 mm g6 is -7 -20 micrometres.
    expect(readTolerance('g6', 20 / 25.4, 'inch')).toMatchObject({
      ok: true,
      upper: near(-0.007 / 25.4),
      lower: near(-0.02 / 25.4),
    })
    expect(sizeAndClass('0 H7', 'inch')).toBeUndefined()
    expect(sizeAndClass('20 H7', 'inch')?.mm).toBeCloseTo(20, 9)
  })
  it('twenty tolerances off are not far yet', () => {
    const of = { key: 'F', nominal: 1, lower: 0.96875, upper: 1.03125, unit: 'inch' } as Characteristic
    const says = (value: number) =>
      resultSuspicions([{ values: { F: value } }] as unknown as Parameters<typeof resultSuspicions>[0], [of])
    expect(says(2.25)).toEqual([])
    expect(says(2.251)).toHaveLength(1)
  })
})

describe('what the program does with a value', () => {
  const text = (...features: Parameters<typeof planOf>[0]) => {
    return written(planOf([...features]), caseOf(compact)).text
  }
  const bore = (name: string, more: Partial<FeatureDraft> = {}) =>
    featureOf('bore', name, { nominal: '1', tolerance: '.002', x: '0', y: '0', ...more })
  it('a distance along an axis, or straight; from which to which', () => {
    const ends = [bore('A'), bore('B', { x: '3' })]
    const distance = (along: 'X' | 'straight') =>
      text(...ends, featureOf('distance', 'D', { nominal: '3', tolerance: '.01', from: 'a', to: 'b', along }))
    expect(distance('X')).toMatch(/= ABS\[#\d+ - #\d+\]/)
    expect(distance('X')).not.toContain('SQRT')
    expect(distance('straight')).toMatch(/= SQRT\[\[#\d+ - #\d+\] \* /)
    expect(distance('X')).toContain('FROM A TO B')
  })
  it('says the tool where its wear is corrected, and has no dead band of nothing', () => {
    const worn = (more: Partial<FeatureDraft>) =>
      text(bore('A', { react: 'wear', tool: '5', limit: '.01', ...more }))
    expect(worn({ deadBand: '.0002' })).toContain('TOO FAR OUT - T5')
    expect(worn({ deadBand: '.0002' })).toMatch(/IF \[ABS\[#\d+\] LT 0?\.0002\] THEN/)
    expect(worn({ deadBand: '0' })).not.toMatch(/\] LT [^\n]*\] THEN #\d+= 0/)
    const moved = text(bore('A', { react: 'offset', limit: '.01' }))
    expect(moved).not.toContain('- T')
  })
})
