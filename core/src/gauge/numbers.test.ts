import { describe, expect, it } from 'vitest'
import { capability } from './capability.ts'
import {
  characteristicsOf,
  correctionOf,
  digitsOf,
  type Feature,
  halfTolerance,
  isOut,
} from './characteristic.ts'
import { type Correction, correctionFor, heldWithin, simulate } from './corrected.ts'
import { driftOf } from './drift.ts'
import type { FeatureDraft, FeatureKind } from './feature.ts'
import { individuals } from './individuals.ts'
import { nextValue } from './next-part.ts'
import { partWith, valuesOf } from './part-with.ts'
import type { GaugePlan } from './plan.ts'
import { lengthOfWay, shortestOrder } from './route.ts'
import { chartOf, type RuleName, signals } from './rules.ts'
import { standInOf } from './stand-in.ts'
import { resultSuspicions } from './suspicions.ts'
import { compact, featureOf, planOf, twoLine } from './testing.ts'
import { variablesOf } from './variables.ts'
import { offsetTarget, wearTarget } from './wear.ts'

// Worked with a pencil; tables of the t and chi-square distributions by NIST/SEMATECH e-Handbook 1.3.6.7, from memory.

const near = (value: number, digits = 9) => expect.closeTo(value, digits)
const one = (what: FeatureKind, more: Partial<FeatureDraft> = {}): { plan: GaugePlan; feature: Feature } => {
  const plan = planOf([
    featureOf(what, 'F', { nominal: '1', tolerance: '.002', x: '0', y: '0', base: '1', tool: '5', ...more }),
  ])
  return { plan, feature: plan.features[0] as Feature }
}
const [wearDiameter, wearRadius] = [compact.macros, twoLine.macros] as NonNullable<
  typeof compact.macros
>[] as [NonNullable<typeof compact.macros>, NonNullable<typeof compact.macros>]

describe('where a correction goes, and how much', () => {
  it.each<[FeatureKind, Partial<FeatureDraft>, byDiameter: number, byRadius: number]>([
    ['bore', {}, 1, 0.5],
    ['pocket', { axis: 'X' }, 1, 0.5],
    ['boss', {}, -1, -0.5],
    ['web', { axis: 'Y' }, -1, -0.5],
    ['surface', { axis: 'X', directionX: '+', directionY: '-' }, 2, 1],
    ['surface', { axis: 'X', directionX: '-', directionY: '+' }, -2, -1],
    ['surface', { axis: 'Y', directionX: '-', directionY: '+' }, 2, 1],
    ['surface', { axis: 'Y', directionX: '+', directionY: '-' }, -2, -1],
  ])('%s %o: %d of the error into a diameter, %d into a radius', (what, more, byDiameter, byRadius) => {
    const { params } = one(what, { ...more, react: 'wear' }).feature
    expect(wearTarget(params, 5, { ...wearDiameter, wearAs: 'diameter' })).toMatchObject({
      variable: wearDiameter.diameterWear + 4,
      factor: byDiameter,
    })
    const target = wearTarget(params, 5, { ...wearRadius, wearAs: 'radius' })
    expect(target.factor).toBe(byRadius)
    // What it adds is what brings the next part to the middle: reckoned from where the cutter goes.
    const quantity = what === 'surface' ? params.axis : 'size'
    for (const wearAs of ['diameter', 'radius'] as const) {
      const { factor } = wearTarget(params, 5, { ...wearRadius, wearAs })
      expect(nextValue(params, quantity, 1.0014, factor * 0.0014, wearAs)).toBeCloseTo(1, 9)
      expect(nextValue(params, quantity, 0.9981, factor * -0.0019, wearAs)).toBeCloseTo(1, 9)
    }
  })
  it('a top that is too high wants less length; an offset moves with what was measured', () => {
    const { params } = one('surface', { axis: 'Z', react: 'wear' }).feature
    const target = wearTarget(params, 5, wearDiameter)
    expect(target).toMatchObject({ variable: wearDiameter.lengthWear + 4, factor: -1 })
    expect(nextValue(params, 'Z', 0.003, target.factor * 0.003, 'radius')).toBeCloseTo(0, 12)
    const offsets = ['G54', 'G55', 'G56']
    // #5221 is X of G54, each offset 20 on (common practice).
    const macros = { ...wearDiameter, offsets: { first: 5221, step: 20 } }
    expect(offsetTarget('G54', 'X', offsets, macros)?.variable).toBe(5221)
    expect(offsetTarget('G56', 'Z', offsets, macros)).toMatchObject({ variable: 5263, factor: 1 })
    expect(offsetTarget('G59', 'X', offsets, macros)).toBeUndefined()
    const moved = one('surface', { axis: 'X', react: 'offset' }).feature.params
    expect(nextValue(moved, 'X', 0.5, 0.1, 'radius')).toBeCloseTo(0.4, 12)
  })
  it('with a dead band of a tenth and a limit at the tolerance, where none was typed', () => {
    const { feature } = one('bore', { tolerance: '+.003 -.001', react: 'wear' })
    const [of] = characteristicsOf(feature, 'inch')
    if (!of) throw new Error('no value')
    expect(of).toMatchObject({ nominal: 1, lower: near(0.999), upper: near(1.003), middle: near(1.001) })
    expect(halfTolerance(of)).toBeCloseTo(0.002, 12)
    expect(correctionOf(feature, of, 'inch')).toEqual({
      share: 0.5,
      deadBand: near(0.0004),
      limit: near(0.002),
      stopsAtTolerance: true,
    })
    const typed = one('bore', { react: 'wear', share: '0.3', deadBand: '.0001', limit: '.01' }).feature
    expect(correctionOf(typed, of, 'inch')).toEqual({
      share: 0.3,
      deadBand: 0.0001,
      limit: 0.01,
      stopsAtTolerance: false,
    })
    expect(correctionFor(feature, of, 'inch', { drift: 0.0001, scatter: 0.0002 })).toEqual({
      drift: 0.0001,
      scatter: 0.0002,
      share: 0.5,
      deadBand: near(0.0004),
      limit: near(0.002),
      half: near(0.002),
      reading: 0,
    })
  })
  it('a value is out beyond its limit, a twentieth of the last digit aside', () => {
    const [of] = characteristicsOf(one('bore').feature, 'inch')
    if (!of) throw new Error('no value')
    expect([digitsOf('inch'), digitsOf('mm'), digitsOf('deg')]).toEqual([4, 3, 4])
    expect([1.002, 1.002004, 0.998, 0.997996].map((each) => isOut(each, of))).toEqual([
      false,
      false,
      false,
      false,
    ])
    expect([1.002006, 0.997994].map((each) => isOut(each, of))).toEqual([true, true])
  })
})

describe('a corrected process, by hand', () => {
  const of: Correction = {
    drift: 0.1,
    share: 0.5,
    deadBand: 0.2,
    half: 0.42,
    scatter: 0.05,
    reading: 0.02,
    limit: 0.45,
  }
  it('keeps within the larger of dead band and drift over share, what is read and the scatter with it', () => {
    // Seen is off by .07: .2 + .07 + .1 = .37 against .1 / .5 + .07 = .27; a part .05 more.
    expect(heldWithin(of)).toMatchObject({ most: near(0.42), stays: true, goesOn: true })
    expect(heldWithin({ ...of, drift: -0.1 }).most).toBeCloseTo(0.42, 12)
    expect(heldWithin({ ...of, half: 0.4199 }).stays).toBe(false)
    expect(heldWithin({ ...of, limit: 0.4399 })).toMatchObject({ stays: true, goesOn: false })
    expect(heldWithin({ ...of, limit: 0.4401 })).toMatchObject({ stays: true, goesOn: true })
    // .1 / .2 + .07 = .57.
    expect(heldWithin({ ...of, share: 0.2 }).most).toBeCloseTo(0.62, 12)
  })
  it('says which of them it is', () => {
    const says = (more: Partial<Correction>) => heldWithin({ ...of, ...more }).says
    expect(says({})).toMatch(/every part stays/)
    expect(says({ limit: 0.43 })).toMatch(/beyond the limit/)
    // The scatter of a part and of what is read of it: .05 + .07.
    expect(says({ half: 0.11 })).toMatch(/scatter alone/)
    expect(says({ half: 0.13 })).toMatch(/moves too far/)
    // .1 + .07 + .05 = .22 is the least that there can be; .1 / .5 + .12 = .32 what this share comes to.
    expect(says({ half: 0.23 })).toMatch(/share is too small/)
    expect(says({ half: 0.31 })).toMatch(/share is too small/)
    expect(says({ half: 0.33 })).toMatch(/dead band is too wide/)
    expect(says({ half: 0.21 })).toMatch(/moves too far/)
  })
  it('part by part', () => {
    const none = () => 0
    const still = { ...of, scatter: 0, reading: 0, limit: 1 }
    // .3 less half of it, and .1; then .25, .225, .2125: above the dead band of .2 it goes on.
    expect(simulate(still, 4, none, none, 0.3).errors).toEqual([
      near(0.3),
      near(0.25),
      near(0.225),
      near(0.2125),
    ])
    expect(simulate(still, 4, none, none).errors).toEqual([near(0), near(0.1), near(0.2), near(0.2)])
    expect(simulate({ ...still, limit: 0.15 }, 9, none, none)).toEqual({
      errors: [near(0), near(0.1), near(0.2)],
      stoppedAt: 2,
    })
    const [first, second] = simulate(
      { ...of, deadBand: 0, limit: 9 },
      2,
      () => 1,
      () => -1,
      0.3,
    ).errors
    // A part of .35 that reads .33: .3 - .165 + .1 + .05.
    expect([first, second]).toEqual([near(0.35), near(0.285)])
  })
})

describe('a chart', () => {
  it('limits of four values: mean and 2.66 mean moving ranges', () => {
    expect(individuals([1, 2, 4, 1])).toEqual({
      mean: 2,
      movingRange: 2,
      lower: near(2 - 5.32),
      upper: near(2 + 5.32),
    })
    expect(chartOf([1, 2, 4, 1, 9], 4)).toMatchObject({
      mean: 2,
      ranges: [undefined, 1, 2, 3, 8],
      rangeUpper: near(6.534),
      signals: [{ rule: 'beyond', at: 4, from: 4 }],
    })
    expect(chartOf([1, 2, 4, 1, 9])?.mean).toBeCloseTo(3.4, 12)
  })
  const limits = { mean: 10, upper: 16 }
  const at = (...sigmas: number[]) =>
    signals(
      sigmas.map((each) => 10 + 2 * each),
      limits,
    )
  it.each<[RuleName, number[], from: number]>([
    ['beyond', [0.5, -0.5, 3.01], 2],
    ['beyond', [0.5, -0.5, -3.01], 2],
    ['two-of-three', [0.5, -0.5, 2.01, 0.1, 2.01], 2],
    ['two-of-three', [0.5, 0.4, -2.01, 0.1, -2.01], 2],
    ['four-of-five', [-0.5, 1.01, 1.01, -0.1, 1.01, 1.01], 1],
    ['eight-one-side', [-0.1, 0.3, 0.1, 0.2, 0.1, 0.3, 0.2, 0.1, 0.2], 1],
    ['six-trend', [0.5, -0.5, -0.4, -0.1, 0.1, 0.2, 0.3], 1],
  ])('%s begins where its first value is: %o', (rule, values, from) => {
    expect(at(...values)).toEqual([{ rule, at: values.length - 1, from }])
  })
  it('no rule speaks of what only reaches its line, and no sooner than there are enough', () => {
    expect(at(0.5, -0.5, 3)).toEqual([])
    expect(at(2, 0.1, 2)).toEqual([])
    expect(at(2.01, 2.01)).toEqual([])
    expect(at(2.01, -2.01, 0.1, 0.1, 2.01)).toEqual([])
    expect(at(1, 1, 1, -0.1, 1)).toEqual([])
    expect(at(1.1, 1.1, 1.1, 1.1)).toEqual([])
    // The last one itself has to lie out there.
    expect(at(2.1, 2.1, 0.1)).toEqual([])
    expect(at(0.1, 0.2, 0.2, 0.3, 0.4, 0.5)).toEqual([])
    expect(at(0.2, 0.2, 0.2, 0.2, 0.2, 0.2)).toEqual([])
    // Fourteen by turns; one step that stays and it is none.
    const turns = Array.from({ length: 14 }, (_, n) => (n % 2 ? 0.5 : -0.5))
    expect(at(...turns)).toEqual([{ rule: 'fourteen-alternating', at: 13, from: 0 }])
    expect(at(...turns.slice(1))).toEqual([])
    expect(at(...turns.slice(0, 7), 0.3, ...turns.slice(7, 13))).toEqual([])
    // Said once for a run, beyond the limits each time.
    expect(at(...Array.from({ length: 10 }, (_, n) => 0.1 + 0.1 * (n % 3)))).toEqual([
      { rule: 'eight-one-side', at: 7, from: 0 },
    ])
    expect(
      at(0.1, 3.1, -3.2, -3.3)
        .filter(({ rule }) => rule === 'beyond')
        .map(({ at: n }) => n),
    ).toEqual([1, 2, 3])
    expect(signals([1, 2], { mean: 1, upper: 0.5 })).toEqual([])
  })
})

describe('capability, by hand', () => {
  it('of ten values that go 0 and 2: mean 1, s 1.0541, moving range 2', () => {
    const found = capability([0, 2, 0, 2, 0, 2, 0, 2, 0, 2], { lower: -5, upper: 5 })
    expect(found).toMatchObject({
      n: 10,
      mean: 1,
      overall: near(Math.sqrt(10 / 9)),
      within: near(2 / 1.128),
      cp: { value: near(10 / (6 * 1.773049645), 6) },
      cpk: { value: near(4 / (3 * 1.773049645), 6) },
      pp: { value: near(10 / (6 * 1.0540925534), 6) },
      ppk: { value: near(4 / (3 * 1.0540925534), 6) },
    })
    // 1.2649 +/- 1.96 root of (1/90 + 1.2649^2 / 18): the root of a tenth.
    expect(found?.ppk.low).toBeCloseTo(1.264911 - 1.959964 * Math.sqrt(0.1), 5)
    expect(found?.ppk.high).toBeCloseTo(1.264911 + 1.959964 * Math.sqrt(0.1), 5)
    // .752 +/- 1.96 root of (1/90 + .752^2 / (2 x .62 x 9)).
    expect(found?.cpk?.low).toBeCloseTo(0.752 - 0.487176, 5)
    expect(found?.cpk?.high).toBeCloseTo(0.752 + 0.487176, 5)
    // Chi-square of 9: 2.700 and 19.023; of 5.58 between those of 5 and 6, about 1.066 and 13.77.
    expect(found?.pp.low).toBeCloseTo(1.581139 * Math.sqrt(2.7 / 9), 3)
    expect(found?.pp.high).toBeCloseTo(1.581139 * Math.sqrt(19.023 / 9), 3)
    expect(found?.cp?.low).toBeCloseTo(0.94 * Math.sqrt(1.066 / 5.58), 2)
    expect(found?.cp?.high).toBeCloseTo(0.94 * Math.sqrt(13.77 / 5.58), 2)
    // Nearer to the lower limit it is that one.
    expect(capability([0, 2, 0, 2, 0, 2, 0, 2, 0, 2], { lower: -1, upper: 9 })?.ppk.value).toBeCloseTo(
      2 / (3 * 1.0540925534),
      6,
    )
    expect(capability([0, 2, 0, 2, 0, 2, 0, 2, 0], { lower: -5, upper: 5 })).toBeUndefined()
    expect(capability([0, 2, 0, 2, 0, 2, 0, 2, 0, 2], { lower: 5, upper: 5 })).toBeUndefined()
    // Out below at half normal tables: beyond one standard deviation 0.1587.
    expect(
      capability([0, 2, 0, 2, 0, 2, 0, 2, 0, 2], { lower: 1 - 1.0540925534, upper: 99 })?.out,
    ).toBeCloseTo(0.1587, 4)
  })
})

describe('drift, by hand', () => {
  // Through 1 2 3 4 6: slope 1.2, intercept 0.8, residuals .2 0 -.2 -.4 .4: s = root of (.4 / 3); t of 3 is 3.1824.
  const values = [1, 2, 3, 4, 6]
  const s = Math.sqrt(0.4 / 3)
  const t = 3.182446
  const doubt = (t * s) / Math.sqrt(10)
  it('reaches the limit where line, steepest, flattest and the band of one more part do', () => {
    for (const first of [0, 10]) {
      const before: number[] = Array.from({ length: first }, () => 77)
      const found = driftOf([...before, ...values], first, { lower: 0, upper: 20 })
      expect(found).toEqual({
        over: 5,
        slope: near(1.2),
        doubt: near(doubt, 5),
        seen: true,
        line: { from: first, to: first + 4, a: near(0.8), b: near(5.6) },
        // (20 - .8) / 1.2 = 16; 2 + 16.8 / 1.5675 = 12.7; 2 + 16.8 / .8325 = 22.2.
        reaches: { limit: 'upper', at: first + 16, earliest: first + 12, latest: first + 23 },
        // At 12 it is 15.2 + 3.89, at 13 16.4 + 4.24.
        correctBefore: first + 13,
      })
    }
    const down = driftOf(
      values.map((each) => -each),
      0,
      { lower: -20, upper: 0 },
    )
    expect(down).toMatchObject({
      slope: near(-1.2),
      reaches: { limit: 'lower', at: 16, earliest: 12, latest: 23 },
      correctBefore: 13,
    })
  })
  it('is at the limit with the next part where it is past it already; says nothing where nothing is seen', () => {
    expect(driftOf(values, 0, { lower: 0, upper: 3 })).toMatchObject({
      reaches: { at: 5, earliest: 5, latest: 5 },
      correctBefore: 5,
    })
    const none = driftOf([1, 2, 1, 2, 1], 0, { lower: 0, upper: 3 })
    expect(none?.seen).toBe(false)
    expect(none?.reaches).toBeUndefined()
    expect(driftOf([1, 2, 3, 4], 0, { lower: 0, upper: 3 })).toBeUndefined()
    // So far off that no prediction is made.
    expect(driftOf(values, 0, { lower: 0, upper: 1e7 })?.correctBefore).toBeUndefined()
  })
})

describe('a part as it is, and as it is measured', () => {
  const plan = planOf([
    featureOf('bore', 'A', { nominal: '1', tolerance: '+.003 -.001', x: '1', y: '2' }),
    featureOf('bore', 'B', { nominal: '.5', tolerance: '.001', x: '4', y: '6' }),
    featureOf('distance', 'D', { from: 'a', to: 'b', along: 'straight', nominal: '5', tolerance: '.01' }),
    featureOf('surface', 'S', { axis: 'X', x: '9', y: '0', tolerance: '.002' }),
    featureOf('outside-corner', 'C', { x: '0', y: '9', tolerance: '.002' }),
    featureOf('edge', 'E', { axis: 'X', x: '0', y: '0', base: '1', angle: '1', tolerance: '.1' }),
  ])
  const sizes = new Map([
    ['D', 5.01],
    ['S', 9.001],
    ['C X', -0.001],
    ['C Y', 9.002],
    ['E', 1.05],
    ['B', 0.499],
  ])
  it('has the sizes that it was given, in the middle of their tolerance those that it was not', () => {
    const part = partWith(plan, sizes, 'inch')
    expect(part.larger).toEqual(
      new Map([
        ['a', near(0.001)],
        ['b', near(-0.001)],
        ['e', near(0.05)],
      ]),
    )
    // The end of a distance by 3-4-5: .01 along it is .006 and .008.
    expect(part.moved).toEqual(
      new Map([
        ['b', { x: near(0.006), y: near(0.008) }],
        ['s', { x: near(0.001) }],
        ['c', { x: near(-0.001), y: near(0.002) }],
      ]),
    )
    const values = valuesOf(plan, part, 'inch')
    expect(values.get('A')).toBeCloseTo(1.001, 9)
    for (const [key, value] of sizes) expect(values.get(key)).toBeCloseTo(value, 9)
  })
  it.each([
    ['X', 3.01],
    ['Y', 4.01],
  ] as const)('a distance along %s is taken along it', (along, value) => {
    const one = planOf([
      featureOf('bore', 'A', { nominal: '1', tolerance: '.001', x: '1', y: '2' }),
      featureOf('bore', 'B', { nominal: '.5', tolerance: '.001', x: '4', y: '6' }),
      featureOf('distance', 'D', { from: 'a', to: 'b', along, nominal: '3', tolerance: '.02' }),
    ])
    const part = partWith(one, new Map([['D', value]]), 'inch')
    expect(part.moved?.get('b')).toEqual(
      along === 'X' ? { x: near(0.01), y: near(0) } : { x: near(0), y: near(0.01) },
    )
    expect(valuesOf(one, part, 'inch').get('D')).toBeCloseTo(value, 9)
    expect(valuesOf(one, {}, 'inch').get('D')).toBeCloseTo(along === 'X' ? 3 : 4, 9)
  })
  it('its values have variables in the order of the plan, distances the places of their ends besides', () => {
    const { values, places, skipped, error, correction, needs, has } = variablesOf(plan, 'inch', {
      ...wearDiameter,
      free: { first: 100, last: 149 },
    })
    expect([...values]).toEqual([
      ['A', 100],
      ['B', 101],
      ['D', 102],
      ['S', 103],
      ['C X', 104],
      ['C Y', 105],
      ['E', 106],
    ])
    expect([...places]).toEqual([
      ['a', { X: 107, Y: 108 }],
      ['b', { X: 109, Y: 110 }],
    ])
    expect([skipped, error, correction, needs, has]).toEqual([147, 148, 149, 14, 50])
  })
})

describe('material round a feature that stands in for the part', () => {
  const holds = (what: FeatureKind, more: Partial<FeatureDraft>, larger = 0) => {
    const { plan, feature } = one(what, {
      x: '1',
      y: '2',
      top: '0',
      depth: '-.25',
      gap: '.3',
      past: '.1',
      ...more,
    })
    const part = { larger: new Map([[feature.id, larger]]) }
    const stand = standInOf(plan.features, { unit: 'inch', stylus: 0.2 }, part)
    return (x: number, y: number, z = -0.2) => stand.holds(x, y, z)
  }
  it('a bore and a pocket: free within, material up to three times the search behind', () => {
    const bore = holds('bore', {})
    // Size 1: half is .5, and .3 of material behind.
    expect([bore(1, 2), bore(1.49, 2), bore(1.51, 2), bore(1, 2.79), bore(1, 2.81)]).toEqual([
      false,
      false,
      true,
      true,
      false,
    ])
    // 3-4-5: .3 and .4 is .5 from the middle.
    expect([bore(1.29, 2.39), bore(1.31, 2.41)]).toEqual([false, true])
    expect([bore(1.51, 2, 0.01), bore(1.51, 2, 0), bore(1.51, 2, -0.79), bore(1.51, 2, -0.81)]).toEqual([
      false,
      true,
      true,
      false,
    ])
    expect(holds('bore', {}, 0.04)(1.51, 2)).toBe(false)
    expect(holds('bore', {}, 0.04)(1.53, 2)).toBe(true)
    const pocket = holds('pocket', { axis: 'X' })
    expect([pocket(1.49, 2), pocket(1.51, 2), pocket(0.49, 2), pocket(1, 2.9)]).toEqual([
      false,
      true,
      true,
      false,
    ])
    // Beside the way of the probe, one and a half times the gap, it says nothing.
    expect([pocket(1.51, 2.44), pocket(1.51, 2.46), pocket(1.51, 1.54)]).toEqual([true, false, false])
    const upright = holds('pocket', { axis: 'Y' })
    expect([upright(1, 2.49), upright(1, 2.51), upright(1.44, 2.51), upright(1.46, 2.51)]).toEqual([
      false,
      true,
      true,
      false,
    ])
  })
  it('a boss and a web: material within', () => {
    const boss = holds('boss', {})
    expect([boss(1, 2), boss(1.49, 2), boss(1.51, 2), boss(1.29, 2.39), boss(1.31, 2.41)]).toEqual([
      true,
      true,
      false,
      true,
      false,
    ])
    const web = holds('web', { axis: 'Y' })
    expect([web(1, 2.49), web(1, 2.51), web(1, 1.51), web(1.44, 2), web(1.46, 2)]).toEqual([
      true,
      false,
      true,
      true,
      false,
    ])
  })
  it('a surface begins at its wall in the direction of the touch; a top is material below', () => {
    const plus = holds('surface', { axis: 'X', directionX: '+' })
    expect([plus(0.99, 2), plus(1.01, 2), plus(1.29, 2), plus(1.31, 2), plus(1.01, 2.46)]).toEqual([
      false,
      true,
      true,
      false,
      false,
    ])
    const minus = holds('surface', { axis: 'Y', directionY: '-' })
    expect([minus(1, 2.01), minus(1, 1.99), minus(1, 1.71), minus(1, 1.69)]).toEqual([
      false,
      true,
      true,
      false,
    ])
    const top = holds('surface', { axis: 'Z', top: '.5' })
    expect([top(1, 2, 0.51), top(1, 2, 0.5), top(1, 2, 0.21), top(1, 2, 0.19)]).toEqual([
      false,
      true,
      true,
      false,
    ])
    // Within one and a half times the gap round it (3-4-5).
    expect([top(1.26, 2.35, 0.4), top(1.28, 2.37, 0.4)]).toEqual([true, false])
  })
  it('an edge leans by its angle, counter-clockwise: one along Y to X minus, one along X to Y plus', () => {
    // tan 10 degrees is .17633: over a base of 1 the far end lies .17633 off.
    const alongY = holds('edge', { axis: 'X', directionX: '+', angle: '10', tolerance: '1' })
    expect([alongY(0.83, 3), alongY(0.82, 3), alongY(0.99, 2), alongY(1.01, 2)]).toEqual([
      true,
      false,
      false,
      true,
    ])
    const alongX = holds('edge', { axis: 'Y', directionY: '+', angle: '10', tolerance: '1' })
    expect([alongX(2, 2.18), alongX(2, 2.17)]).toEqual([true, false])
    expect([alongX(2.44, 2.4), alongX(2.46, 2.4), alongX(0.56, 2.1), alongX(0.54, 2.1)]).toEqual([
      true,
      false,
      true,
      false,
    ])
    // Half a degree more than drawn: tan 10.5 is .18534.
    expect(holds('edge', { axis: 'Y', directionY: '+', angle: '10', tolerance: '1' }, 0.5)(2, 2.18)).toBe(
      false,
    )
    const back = holds('edge', { axis: 'Y', directionY: '-', angle: '10', tolerance: '1' })
    expect([back(2, 2.17), back(2, 2.18)]).toEqual([true, false])
  })
  it('corners: outside where both are beyond, inside where one is', () => {
    const outside = holds('outside-corner', { directionX: '+', directionY: '-' })
    // Material to X plus and Y minus of (1, 2).
    expect([outside(1.01, 1.99), outside(0.99, 1.99), outside(1.01, 2.01)]).toEqual([true, false, false])
    // As far as the probe goes about it: 2 gaps, the search and one and a half gaps: 1.15.
    expect([outside(2.14, 1.9), outside(2.16, 1.9), outside(1.1, 0.84)]).toEqual([true, false, false])
    const inside = holds('inside-corner', { directionX: '+', directionY: '-' })
    expect([inside(1.01, 2.5), inside(0.5, 1.99), inside(0.99, 2.01)]).toEqual([true, true, false])
  })
  it('where two say something, the one that is touched nearest is asked; a part that is not there says nothing', () => {
    const plan = planOf([
      featureOf('boss', 'L', { nominal: '1', tolerance: '.001', x: '0', y: '0', gap: '.3', past: '.1' }),
      featureOf('bore', 'R', { nominal: '1', tolerance: '.001', x: '1.4', y: '0', past: '.1', gap: '.3' }),
    ])
    const where = { unit: 'inch', stylus: 0.2 } as const
    const both = standInOf(plan.features, where, {})
    // Left of the bore's wall (.9) there is material, but nearer to the boss's (.5) there is none.
    expect([both.holds(0.8, 0, -0.1), both.holds(0.6, 0, -0.1), both.holds(0.4, 0, -0.1)]).toEqual([
      true,
      false,
      true,
    ])
    const alone = standInOf(plan.features, where, { missing: new Set(['r']) })
    expect(alone.holds(0.8, 0, -0.1)).toBe(false)
    expect(standInOf(plan.features, where, { empty: true }).holds(0, 0, -0.1)).toBe(false)
    const moved = standInOf(plan.features, where, { moved: new Map([['l', { x: 0.1, y: 0.2, z: 0.3 }]]) })
    expect([moved.holds(0.1, 0.2, 0.29), moved.holds(0.1, 0.2, 0.31), moved.holds(0.1, -0.35, 0.1)]).toEqual([
      true,
      false,
      false,
    ])
  })
})

describe('results and routes', () => {
  it('a value far from its size is another unit, a sign, or a slip; how many more', () => {
    const [bore] = characteristicsOf(one('bore').feature, 'inch')
    if (!bore) throw new Error('no value')
    const says = (of: typeof bore, ...values: number[]) =>
      resultSuspicions(
        values.map((value) => ({ label: '1', values: { F: value } })),
        [of],
      )
    // Twenty tolerances of .004 are .08.
    expect([says(bore, 1.0799), says(bore, 0.9201)]).toEqual([[], []])
    expect(says(bore, 1.0801)).toEqual(['F: 1.0801 is far from 1: another value, or a slip?'])
    expect(says(bore, 1.2, 1, 0.5, 0.6)).toEqual([
      'F: 1.2 is far from 1, and 2 more: another value, or a slip?',
    ])
    // An inch is 25.4 mm; within two in a hundred of it.
    expect(says(bore, 25.9)).toEqual(['F: 25.9 looks like mm; the plan is in inch.'])
    expect(says(bore, 26)).toEqual(['F: 26 is far from 1: another value, or a slip?'])
    const mm = { ...bore, unit: 'mm' as const, nominal: 50.8, lower: 50.79, upper: 50.81 }
    expect(says(mm, 2.01)).toEqual(['F: 2.01 looks like inch; the plan is in mm.'])
    expect(says(bore, -1.02)).toEqual(['F: -1.02 has the wrong sign.'])
    expect(says({ ...bore, lower: 1, upper: 1 }, 5)).toEqual([])
  })
  it('the shortest way: exact to eleven places, nearly so beyond', () => {
    const start = { x: 0, y: 0 }
    const row = (count: number) =>
      Array.from({ length: count }, (_, n) => ({ x: ((n * 5) % count) + 1, y: 0 }))
    expect(
      lengthOfWay(start, [
        { x: 3, y: 4 },
        { x: 6, y: 8 },
      ]),
    ).toBe(10)
    for (const count of [2, 3, 7, 11, 12, 13]) {
      const stops = row(count)
      const order = shortestOrder(start, stops)
      expect(order.map((k) => stops[k]?.x)).toEqual(stops.map((_, n) => n + 1))
    }
    expect(shortestOrder(start, [])).toEqual([])
    expect(shortestOrder(start, [{ x: 9, y: 9 }])).toEqual([0])
  })
})
