import { describe, expect, it } from 'vitest'
import type { Profile } from '../control/index.ts'
import { type GaugeCase, targetOf } from './case.ts'
import { tryCases } from './cases.ts'
import { characteristicsOf } from './characteristic.ts'
import { checkPlan } from './check.ts'
import type { FeatureDraft } from './feature.ts'
import type { GaugePlan } from './plan.ts'
import { caseOf, compact, featureOf, planOf, written } from './testing.ts'
import { variablesOf } from './variables.ts'

// Which parts are tried, and what should come of each: worked with a pencil from the tolerances.

const { macros } = compact
if (!macros) throw new Error('no macros')
const counted = (wearAs: 'radius' | 'diameter'): GaugeCase => ({
  ...caseOf(compact),
  profile: { ...compact, macros: { ...macros, wearAs } },
})
const where = counted('diameter')
const tried = (plan: GaugePlan, change = (text: string) => text, on = where) => {
  const program = written(plan, on)
  return tryCases(change(program.text), plan, program, on)
}
/** The values that are tried of one characteristic, by their kind, to a hundredth of the last digit. */
const valuesOf = (plan: GaugePlan, key: string) =>
  Object.fromEntries(
    tried(plan)
      .filter((each) => each.key === key && each.value !== undefined)
      .map(({ kind, value }) => [kind, Number(value?.toFixed(6))]),
  )
const bore = (more: Partial<FeatureDraft> = {}, name = 'BORE', x = '0') =>
  featureOf('bore', name, { nominal: '1', tolerance: '.001', x, y: '0', tool: '5', ...more })
const wear = (more: Partial<FeatureDraft> = {}) => planOf([bore({ react: 'wear', ...more })])

describe('the parts that are tried', () => {
  it('of what is corrected: at the limits, a last digit beyond, in the dead band, half as far again as its limit', () => {
    expect(valuesOf(wear(), 'BORE')).toEqual({
      middle: 1,
      'upper limit': 1.001,
      'lower limit': 0.999,
      'just above': 1.0011,
      'just below': 0.9989,
      // A tenth of the tolerance, half of it out.
      'in the dead band': 1.0001,
      'far out': 1.0015,
    })
    // Half as far again as .0003 is less than two of the last digits further.
    expect(valuesOf(wear({ limit: '.0003' }), 'BORE')['far out']).toBe(1.0005)
    // A dead band that has no room for a value of the last digit is not tried.
    expect(valuesOf(wear({ deadBand: '.0001' }), 'BORE')).not.toHaveProperty('in the dead band')
    expect(valuesOf(wear({ deadBand: '.0002' }), 'BORE')['in the dead band']).toBe(1.0001)
  })

  it('of what is not: half as far again as the tolerance is wide, or as far as it is searched', () => {
    expect(valuesOf(planOf([bore()]), 'BORE')['far out']).toBe(1.003)
    // It is searched .1 past the surface: eight tenths of that are tried.
    expect(valuesOf(planOf([bore({ tolerance: '.1' })]), 'BORE')['far out']).toBe(1.08)
    // A tolerance that no last digit lies in counts as one of them.
    expect(valuesOf(planOf([bore({ tolerance: '+.00002 -.00002' })]), 'BORE')['far out']).toBe(1.00015)
    expect(valuesOf(planOf([bore({ react: 'right-part' })]), 'BORE')['wrong part']).toBe(1.003)
    // So much over a base of 1 in is an angle: atan .08.
    const edge = featureOf('edge', 'E', { angle: '10', tolerance: '10', base: '1', x: '0', y: '0' })
    expect(valuesOf(planOf([edge]), 'E')['far out']).toBeCloseTo(10 + 4.573921, 5)
  })

  it('a distance by the search of its second end, at its limits a thousandth of the last digit within', () => {
    const plan = planOf([
      bore({}, 'A'),
      bore({ past: '.05' }, 'B', '3'),
      featureOf('distance', 'D', { from: 'a', to: 'b', nominal: '3', tolerance: '1', along: 'X' }),
    ])
    const { 'far out': far } = valuesOf(plan, 'D')
    expect(far).toBe(3.04)
    const at = tried(plan).filter(({ key }) => key === 'D')
    expect(at.find(({ kind }) => kind === 'upper limit')?.value).toBeCloseTo(4 - 1e-7, 12)
    expect(at.find(({ kind }) => kind === 'lower limit')?.value).toBeCloseTo(2 + 1e-7, 12)
    expect(valuesOf(plan, 'B')['far out']).toBe(1.003)
    // What a form still holds from when it was a distance is none of a bore's.
    const was = planOf([bore({ tolerance: '.1', to: 'b' }, 'A'), bore({ past: '.05' }, 'B', '3')])
    expect(valuesOf(was, 'A')['far out']).toBe(1.08)
  })

  it('none where the probe has nothing to do', () => {
    const hand = planOf([featureOf('hand', 'H', { nominal: '1', tolerance: '.001' })])
    expect(tried(hand)).toEqual([])
    expect(tried(planOf([bore()])).map(({ kind, value }) => [kind, value !== undefined])).toContainEqual([
      'no part',
      false,
    ])
  })
})

describe('what should come of each', () => {
  const expected = (plan: GaugePlan, kind: string, on = where) => {
    const found = tried(plan, undefined, on).find((each) => each.kind === kind)
    expect(found?.wrong).toEqual([])
    const { does, corrects } = found?.expected ?? {}
    return [does, ...[...(corrects?.values() ?? [])].map((each) => Number(each.toFixed(7)))]
  }

  it('half of the error goes into a wear of diameters, half of that into one of radii', () => {
    expect(expected(wear(), 'upper limit')).toEqual(['goes on', 0.0005])
    expect(expected(wear(), 'lower limit')).toEqual(['goes on', -0.0005])
    expect(expected(wear(), 'upper limit', counted('radius'))).toEqual(['goes on', 0.00025])
    expect(expected(wear({ share: '.8' }), 'upper limit', counted('radius'))).toEqual(['goes on', 0.0004])
    expect(expected(wear(), 'in the dead band')).toEqual(['goes on', 0])
    const boss = planOf([
      featureOf('boss', 'PIN', { nominal: '1', tolerance: '.001', x: '0', y: '0', tool: '5', react: 'wear' }),
    ])
    expect(expected(boss, 'upper limit')).toEqual(['goes on', -0.0005])
  })

  it('it stops beyond a limit that was typed, not at it; it corrects at the dead band, not within', () => {
    expect(expected(wear({ limit: '.001' }), 'upper limit')).toEqual(['goes on', 0.0005])
    expect(expected(wear({ limit: '.001' }), 'just above')).toEqual(['alarm'])
    expect(expected(wear({ limit: '.0005' }), 'upper limit')).toEqual(['alarm'])
    expect(expected(wear({ limit: '.0005' }), 'middle')).toEqual(['goes on', 0])
    expect(expected(wear({ limit: '.002' }), 'just above')).toEqual(['goes on', 0.00055])
    expect(expected(wear({ limit: '.002', deadBand: '.001' }), 'upper limit')).toEqual(['goes on', 0.0005])
    expect(expected(wear({ limit: '.002', deadBand: '.0011' }), 'upper limit')).toEqual(['goes on', 0])
    // Without a limit the tolerance is it.
    expect(expected(wear(), 'just above')).toEqual(['alarm'])
  })

  it('a middle between two of the last digits is corrected towards the one that the control has', () => {
    // 1.0003 to 1.0008: the middle 1.00055 is written as 1.0006 (or 1.0005), and a part in the very middle is .00005 from it.
    const uneven = wear({ tolerance: '+.0008 +.0003', share: '.05' })
    for (const on of [counted('radius'), counted('diameter')])
      expect(
        tried(uneven, undefined, on).flatMap(({ kind, wrong }) => wrong.map((says) => [kind, says])),
      ).toEqual([])
    const turned = tried(uneven, (text) => text.replace(/(#\d+)= \1 \+ /, '$1= $1 - '), counted('radius'))
    expect(turned.flatMap(({ wrong }) => wrong).join()).toContain('corrected the wrong way')
  })

  it('what does not come out so is said with its numbers', () => {
    const wrong = (change: (text: string) => string, kind: string) =>
      tried(wear(), change).find((each) => each.kind === kind)?.wrong
    const read = /= #188 \(BORE\)/
    expect(wrong((text) => text.replace(read, '= #188 + 0.0004 (BORE)'), 'middle')).toEqual([
      'BORE is 1 and was read as 1.0004.',
      'wear of diameter, T5 was corrected by 0.0002, and should be by 0.',
      'The next part would come out further from the middle, not nearer: wear of diameter, T5 is corrected the wrong way.',
    ])
    expect(wrong((text) => text.replace('#148 * 0.5', '#148 * 0.25'), 'upper limit')).toEqual([
      'wear of diameter, T5 was corrected by 0.00025, and should be by 0.0005.',
    ])
  })
})

describe('what a correction goes into', () => {
  const target = (
    what: 'surface' | 'outside-corner',
    axis: 'X' | 'Y' | 'Z',
    react: 'offset' | 'record' = 'offset',
  ) => {
    const [feature] = planOf([
      featureOf(what, 'S', { axis, x: '0', y: '0', tolerance: '.002', react }),
    ]).features
    if (!feature) throw new Error('no feature')
    return characteristicsOf(feature, 'inch').map((of) => targetOf(feature, of, where)?.name)
  }
  it('an offset along the axis that is measured; nothing of what is only recorded', () => {
    expect(target('surface', 'X')).toEqual(['X of G54'])
    expect(target('surface', 'Y')).toEqual(['Y of G54'])
    expect(target('surface', 'Z')).toEqual(['Z of G54'])
    expect(target('outside-corner', 'X')).toEqual(['X of G54', 'Y of G54'])
    expect(target('surface', 'X', 'record')).toEqual([undefined])
    // A form that was changed after it was read may still say so of a size.
    const [feature] = planOf([bore()]).features
    if (!feature) throw new Error('no feature')
    const [of] = characteristicsOf(feature, 'inch')
    const odd = { ...feature, params: { ...feature.params, react: 'offset' as const } }
    expect(of && targetOf(odd, of, where)).toBeUndefined()
  })
})

describe('the variables of a profile', () => {
  it('may be just as many as a plan needs', () => {
    const plan = planOf([bore(), bore({}, 'B', '3')])
    const { needs } = variablesOf(plan, 'inch', macros)
    const codes = (count: number) => {
      const free = { first: 100, last: 100 + count - 1 }
      const profile: Profile = { ...compact, macros: { ...macros, free } }
      return checkPlan(plan, { ...caseOf(compact), profile }, { tools: [], near: { X: -15, Y: -8 } }).map(
        ({ code }) => code,
      )
    }
    expect(codes(needs)).not.toContain('variables-too-few')
    expect(codes(needs - 1)).toContain('variables-too-few')
  })
})
