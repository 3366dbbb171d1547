import { describe, expect, it } from 'vitest'
import type { Feature } from './characteristic.ts'
import type { FeatureDraft, FeatureKind } from './feature.ts'
import { partWith, valuesOf } from './part-with.ts'
import type { GaugePlan } from './plan.ts'
import { standInOf } from './stand-in.ts'
import { caseOf, compact, featureOf, planOf } from './testing.ts'
import { gaugeTime } from './time.ts'
import { variablesOf } from './variables.ts'

// Worked with a pencil from the drawing's places.

const near = (value: number, digits = 9) => expect.closeTo(value, digits)
const one = (what: FeatureKind, more: Partial<FeatureDraft> = {}): { plan: GaugePlan; feature: Feature } => {
  const plan = planOf([
    featureOf(what, 'F', { nominal: '1', tolerance: '.002', x: '0', y: '0', base: '1', tool: '5', ...more }),
  ])
  return { plan, feature: plan.features[0] as Feature }
}
const macros = compact.macros as NonNullable<typeof compact.macros>

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
      ...macros,
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
  // Beside each place where a feature is touched it is free by .02; a tenth further off a top is touched, which says material.
  // Size 1 about (1, 2); corners are touched a gap and half a stylus, .4, off: round the ends outside, within inside.
  it.each<[FeatureKind, Partial<FeatureDraft>, free: (readonly [number, number])[]]>([
    [
      'bore',
      {},
      [
        [0.52, 2],
        [1.48, 2],
        [1, 1.52],
        [1, 2.48],
      ],
    ],
    [
      'boss',
      {},
      [
        [0.48, 2],
        [1.52, 2],
        [1, 1.48],
        [1, 2.52],
      ],
    ],
    [
      'pocket',
      { axis: 'X' },
      [
        [0.52, 2],
        [1.48, 2],
      ],
    ],
    [
      'web',
      { axis: 'Y' },
      [
        [1, 1.48],
        [1, 2.52],
      ],
    ],
    ['surface', { axis: 'Y', directionY: '+' }, [[1, 1.98]]],
    [
      'edge',
      { axis: 'X', directionX: '+', angle: '0', tolerance: '1' },
      [
        [0.98, 2],
        [0.98, 3],
      ],
    ],
    [
      'edge',
      { axis: 'Y', directionY: '+', angle: '0', tolerance: '1' },
      [
        [1, 1.98],
        [2, 1.98],
      ],
    ],
    [
      'outside-corner',
      { directionX: '+', directionY: '-' },
      [
        [0.98, 1.6],
        [1.4, 2.02],
      ],
    ],
    [
      'inside-corner',
      { directionX: '+', directionY: '-' },
      [
        [0.98, 2.4],
        [0.6, 2.02],
      ],
    ],
  ])('%s %o: whoever is touched nearest says what is there', (what, more, places) => {
    const usual = { top: '0', depth: '-.25', gap: '.3', past: '.1' }
    for (const [x, y] of places) {
      const beside = (by: number) => {
        const plan = planOf([
          featureOf(what, 'F', {
            nominal: '1',
            tolerance: '.002',
            x: '1',
            y: '2',
            base: '1',
            tool: '5',
            ...usual,
            ...more,
          }),
          featureOf('surface', 'TOP', {
            ...usual,
            axis: 'Z',
            x: String(x),
            y: String(Number((y - by).toFixed(4))),
            tolerance: '.002',
          }),
        ])
        return standInOf(plan.features, { unit: 'inch', stylus: 0.2 }, {}).holds(x, y, -0.2)
      }
      expect([beside(0.1), beside(0.01)], `${x} ${y}`).toEqual([false, true])
    }
  })
})

describe('what a feature costs in time', () => {
  it('is what the program without it, and without the distances to it, does not take', () => {
    const { probing } = compact
    if (!probing) throw new Error('no probing')
    const bore = (name: string, x: string) =>
      featureOf('bore', name, { nominal: '1', tolerance: '.002', x, y: '0' })
    const distance = featureOf('distance', 'D', {
      nominal: '3',
      tolerance: '.01',
      from: 'a',
      to: 'b',
      along: 'X',
    })
    const timed = (...features: Parameters<typeof planOf>[0]) =>
      gaugeTime(planOf([...features]), caseOf(compact), probing, macros)
    const [a, b, c] = [bore('A', '0'), bore('B', '3'), bore('C', '9')]
    const all = timed(a, b, c, distance)
    expect(all.saves.get('c')).toBeCloseTo(all.total - timed(a, b, distance).total, 9)
    expect(all.saves.get('a')).toBeCloseTo(all.total - timed(b, c).total, 9)
    expect(all.saves.get('b')).toBeCloseTo(all.total - timed(a, c).total, 9)
    const alone = [a, b, c].reduce((sum, each) => sum + timed(each).total, 0)
    expect(all.joined).toBeCloseTo(alone - all.total, 9)
    expect(all.joined).toBeGreaterThan(0)
    expect(timed(a).saves.get('a')).toBe(timed(a).total)
    // What a form still holds from when it was a distance rests on nothing.
    const was = featureOf('bore', 'C', {
      nominal: '1',
      tolerance: '.002',
      x: '9',
      y: '0',
      from: 'a',
      to: 'b',
    })
    expect(timed(a, b, was).saves.get('a')).toBeCloseTo(timed(a, b, c).saves.get('a') as number, 9)
    expect(timed(a, b, was).saves.get('b')).toBeCloseTo(timed(a, b, c).saves.get('b') as number, 9)
  })
  it('a distance keeps of a wall the axis that it is touched along, and of a top none', () => {
    const plan = planOf([
      featureOf('surface', 'S', { axis: 'X', x: '0', y: '0', tolerance: '.002' }),
      featureOf('bore', 'A', { nominal: '1', tolerance: '.002', x: '3', y: '0' }),
      featureOf('distance', 'D', { nominal: '3', tolerance: '.01', from: 's', to: 'a', along: 'X' }),
    ])
    const { places } = variablesOf(plan, 'inch', { ...macros, free: { first: 100, last: 149 } })
    expect([...places]).toEqual([
      ['s', { X: 103 }],
      ['a', { X: 104, Y: 105 }],
    ])
  })
})
