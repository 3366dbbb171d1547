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
import type { GaugePlan } from './plan.ts'
import { shortestRoute } from './route.ts'
import { chartOf, type RuleName, signals } from './rules.ts'
import { resultSuspicions } from './suspicions.ts'
import { compact, featureOf, lengthOfWay, planOf, twoLine } from './testing.ts'
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
    // What it adds is what brings the next part to the middle: computed from where the cutter goes.
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
      const order = shortestRoute(start, stops)
      expect(order.map((k) => stops[k]?.x)).toEqual(stops.map((_, n) => n + 1))
    }
    expect(shortestRoute(start, [])).toEqual([])
    expect(shortestRoute(start, [{ x: 9, y: 9 }])).toEqual([0])
  })
})
