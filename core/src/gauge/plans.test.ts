import { describe, expect, it } from 'vitest'
import type { Profile } from '../control/index.ts'
import type { Body } from '../prove/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { arrange } from './arrange.ts'
import type { GaugeCase } from './case.ts'
import type { Characteristic, Feature } from './characteristic.ts'
import { checkFeatures, checkPlan } from './check.ts'
import {
  anotherFeature,
  type FeatureDraft,
  type FeatureKind,
  featureFields,
  probeTaskOf,
  type Reaction,
  readFeature,
  startingFeature,
} from './feature.ts'
import { type GaugePlan, newPlan, readPlan } from './plan.ts'
import { proveGauge } from './prove-gauge.ts'
import { caseOf, compact, featureOf, planOf, written } from './testing.ts'
import { nextErrors } from './try.ts'
import { wearTarget } from './wear.ts'

const { macros } = compact
if (!macros) throw new Error('no macros')

// Plans small enough to be worked by hand: in what order, how high, at which limit something is said, and what is written.

const boxOf = (at: [number, number, number], size: [number, number, number], name = 'box'): Body => ({
  id: name,
  name,
  role: 'clamp',
  shape: 'box',
  at: { x: at[0], y: at[1], z: at[2] },
  size: { x: size[0], y: size[1], z: size[2] },
})
const bore = (name: string, x: number, y: number, more: Partial<FeatureDraft> = {}) =>
  featureOf('bore', name, { nominal: '1', tolerance: '.001', x: String(x), y: String(y), ...more })
const textOf = (plan: GaugePlan, where: GaugeCase = caseOf(compact)) => written(plan, where).text

describe('the height for moving sideways', () => {
  // The body of the probe is 1.26 across: what it passes nearer than .63 counts.
  const over = (from: [number, number], to: [number, number], ...bodies: Body[]) =>
    arrange(planOf([bore('A', ...from), bore('B', ...to)]), { ...caseOf(compact), bodies }).over

  it('is the highest that stands there, half the ball, and 12 mm or what was typed', () => {
    const where = {
      ...caseOf(compact),
      bodies: [boxOf([2, -1, 0], [1, 2, 0.75]), boxOf([2, -1, 0], [1, 2, 0.5])],
    }
    const plan = planOf([bore('A', 0, 0), bore('B', 5, 0)])
    expect(arrange(plan, where).clear).toBeCloseTo(0.75 + 0.2362 / 2 + 12 / 25.4, 9)
    const typed = {
      ...plan,
      head: { ...plan.head, clearance: { text: '.25', value: 0.25, unit: 'inch' as const } },
    }
    expect(arrange(typed, where).clear).toBeCloseTo(0.75 + 0.2362 / 2 + 0.25, 9)
  })

  it('is not that of what is no higher than the features', () => {
    expect(over([0, 0], [5, 0], boxOf([2, -1, -1], [1, 2, 1]))).toBe('the features')
    expect(over([0, 0], [5, 0], boxOf([2, -1, -1], [1, 2, 1.01]))).toBe('box')
  })

  it('counts what a way along an axis passes by less than the body’s radius, on both sides and at both ends', () => {
    const along = (x: number, y: number) => over([1, 1], [5, 1], boxOf([x, y, 0], [1, 1, 1]))
    expect([along(2, 1.62), along(2, 1.64)]).toEqual(['box', 'the features'])
    expect([along(2, -0.62), along(2, -0.64)]).toEqual(['box', 'the features'])
    expect([along(-0.62, 1), along(-0.64, 1)]).toEqual(['box', 'the features'])
    expect([along(5.62, 1), along(5.64, 1)]).toEqual(['box', 'the features'])
    const across = (x: number, y: number) => over([1, 1], [1, 5], boxOf([x, y, 0], [1, 1, 1]))
    expect([across(1.62, 2), across(1.64, 2)]).toEqual(['box', 'the features'])
    expect([across(1, 5.62), across(1, 5.64)]).toEqual(['box', 'the features'])
  })

  it('counts what a slanting way crosses, either way along it', () => {
    // From (1, 1) to (5, 3) it climbs half an inch an inch: at X 3 it is at Y 2. The corner of a box that ends at X 3 and begins
    // d above that, both .63 nearer, lies on it where d - .63 = .63 / 2: d = .945. The same below, from X 3 on at Y 2 - d.
    for (const [from, to] of [
      [
        [1, 1],
        [5, 3],
      ],
      [
        [5, 3],
        [1, 1],
      ],
    ] as [[number, number], [number, number]][]) {
      const slant = (d: number) => over(from, to, boxOf([2, 2 + d, 0], [1, 1, 1]))
      expect([slant(0.94), slant(0.95)]).toEqual(['box', 'the features'])
      const below = (d: number) => over(from, to, boxOf([3, 1 - d, 0], [1, 1, 1]))
      expect([below(0.94), below(0.95)]).toEqual(['box', 'the features'])
    }
  })
})

describe('the order', () => {
  it('is first what says whether it is the right part, however far', () => {
    const plan = planOf([bore('A', 0, 0), bore('B', 1, 0), bore('KEY', 9, 0, { react: 'right-part' })])
    const measured = arrange(plan, caseOf(compact)).steps.flatMap((step) =>
      step.does === 'measure' ? [step.feature.id] : [],
    )
    expect(measured).toEqual(['key', 'b', 'a'])
  })
})

describe('what is said of a plan, at its limits', () => {
  const found = (features: Parameters<typeof planOf>[0], unit: LengthUnit = 'inch') =>
    checkPlan(planOf(features, unit), caseOf(compact, unit), {
      tools: [{ number: 5 }],
      near: { X: -15, Y: -8 },
    })
  const codes = (more: Partial<FeatureDraft>) =>
    found([bore('BORE', 0, 0, { tool: '5', ...more })])
      .filter(({ severity }) => severity !== 'note')
      .map(({ code }) => code)

  it('angles are said in degrees, lengths in their unit', () => {
    const [edge] = checkFeatures(
      planOf([featureOf('edge', 'E', { angle: '10', tolerance: '-1 +1', base: '1', x: '0', y: '0' })]),
      'inch',
    )
    expect(edge?.why).toBe('The upper limit would be 9 deg and the lower 11 deg: every part is out.')
    const [length] = checkFeatures(planOf([bore('B', 0, 0, { tolerance: '-.25 +.25' })]), 'inch')
    expect(length?.why).toBe('The upper limit would be 0.7500 in and the lower 1.2500 in: every part is out.')
  })

  it('a tolerance of four of the last digits is not too fine', () => {
    // The control prints thousandths of a millimetre.
    const wide = (width: string) =>
      found(
        [featureOf('bore', 'B', { nominal: '8', tolerance: `+${width} 0`, x: '0', y: '0' }, 'mm')],
        'mm',
      ).map(({ code }) => code)
    expect(wide('.0039')).toContain('tolerance-fine')
    expect(wide('.0041')).not.toContain('tolerance-fine')
  })

  it('a dead band as wide as the limit stops all, one as wide as half the tolerance is looked at', () => {
    const wear = { react: 'wear' as const, tolerance: '+.25 -.25', nominal: '2' }
    expect(codes({ ...wear, deadBand: '.25' })).toEqual(['dead-band-over-limit'])
    expect(codes({ ...wear, deadBand: '.24' })).toEqual([])
    expect(codes({ ...wear, deadBand: '.25', limit: '.5' })).toEqual([
      'dead-band-wide',
      'limit-over-tolerance',
    ])
    expect(codes({ ...wear, deadBand: '.24', limit: '.5' })).toEqual(['limit-over-tolerance'])
    expect(codes({ ...wear, limit: '.25' })).toEqual([])
    expect(codes({ ...wear, share: '.999' })).toEqual([])
  })

  it('a search as far as the stylus gives is let be; beyond it half of that is advised', () => {
    expect(codes({ past: '.24' })).toEqual([])
    const [far] = found([bore('BORE', 0, 0, { past: '.25' })])
    expect(far?.code).toBe('search-too-long')
    expect(far?.fix).toBe('Search 0.1200 in past it.')
  })

  it('a distance that lies just at its limit is as the drawing says', () => {
    const apart = (tolerance: string) =>
      found([
        bore('A', 0, 0),
        bore('B', 3, 0),
        featureOf('distance', 'D', { from: 'a', to: 'b', nominal: '2.5', tolerance }),
      ]).map(({ code }) => code)
    expect(apart('+.5 -.5')).toEqual([])
    expect(apart('+1 +.5')).toEqual([])
    expect(apart('+.4 -.5')).toEqual(['distance-differs'])
    expect(apart('+1 +.6')).toEqual(['distance-differs'])
  })
})

describe('what a form asks for', () => {
  const fields = (what: FeatureKind, axis: 'X' | 'Y' | 'Z' = 'X', react: Reaction = 'record') =>
    featureFields({ what, axis, react })
  it('the direction of a wall or an edge by its axis, none of a top, and no depth there', () => {
    expect(fields('surface', 'X').slice(0, 3)).toEqual(['name', 'what', 'directionX'])
    expect(fields('surface', 'Y').slice(0, 3)).toEqual(['name', 'what', 'directionY'])
    expect(fields('edge', 'Y').slice(0, 3)).toEqual(['name', 'what', 'directionY'])
    expect(fields('edge', 'Z')).toContain('directionX')
    expect(fields('edge', 'Z')).toContain('depth')
    expect(fields('surface', 'Z')).toEqual([
      'name',
      'what',
      'axis',
      'tolerance',
      'x',
      'y',
      'top',
      'gap',
      'past',
      'tool',
      'react',
    ])
    expect(fields('surface', 'X')).toContain('depth')
    expect(fields('web', 'Z')).toContain('depth')
    expect(fields('bore')).not.toContain('directionX')
  })
  it('share, dead band and limit where something is corrected; a tool of all but a distance', () => {
    const corrects = (what: FeatureKind, react: Reaction) => fields(what, 'X', react).includes('share')
    expect(corrects('bore', 'wear')).toBe(true)
    expect(corrects('outside-corner', 'offset')).toBe(true)
    expect(corrects('bore', 'stop')).toBe(false)
    // A bore corrects no offset: that is no more than recorded.
    expect(corrects('bore', 'offset')).toBe(false)
    expect(fields('distance')).not.toContain('tool')
    expect(fields('hand')).toContain('tool')
  })
  it('no tool of what its wear was corrected by before it became something else', () => {
    const read = (what: FeatureKind, tool = '') =>
      readFeature(
        featureOf(what, 'F', {
          nominal: '1',
          tolerance: '.001',
          base: '1',
          x: '0',
          y: '0',
          from: 'a',
          to: 'b',
          react: 'wear',
          tool,
        }).draft,
        'inch',
      )
    for (const what of ['distance', 'hand', 'edge', 'outside-corner'] as const)
      expect(read(what), what).toMatchObject({ ok: true, value: { react: 'record' } })
    expect(read('bore')).toMatchObject({ ok: false, problems: { tool: { empty: true } } })
    expect(read('bore', '5')).toMatchObject({ ok: true, value: { react: 'wear', tool: 5 } })
  })
  it('begins with a surface as a top, all else along X', () => {
    expect(startingFeature('surface', 'S', 'inch').axis).toBe('Z')
    expect(startingFeature('web', 'W', 'mm').axis).toBe('X')
  })

  it('another like one that stands is as large and as close, and stands nowhere yet', () => {
    const bore = {
      ...startingFeature('bore', 'BORE 1', 'inch'),
      nominal: '.5',
      tolerance: '.001',
      x: '1',
      y: '-1',
    }
    const another = anotherFeature(bore, 'BORE 2')
    expect(another).toEqual({ ...bore, name: 'BORE 2', x: '', y: '' })
    const read = readFeature(another, 'inch')
    expect(read.ok ? {} : read.problems).toMatchObject({ x: { empty: true }, y: { empty: true } })
  })
  it('two ends of a distance, and two different ones', () => {
    const problems = (from: string, to: string) => {
      const distance = featureOf('distance', 'D', { from, to, nominal: '3', tolerance: '.01' })
      const { features } = readPlan({ ...newPlan('T', 1), features: [bore('A', 0, 0), distance] }, 'inch')
      return features.d
    }
    expect(problems('a', 'a')).toEqual({
      to: { says: 'Choose another feature than the first.', empty: false },
    })
    const place = { says: 'Choose a feature that has a place.', empty: true }
    expect(problems('gone', 'gone')?.to?.says).toBe('Choose another feature than the first.')
    expect(problems('a', 'gone')).toEqual({ to: place })
  })
})

describe('what the probe is told', () => {
  it('inside, the gap is from the ball in the middle; outside it is as typed; sideways from the clear height', () => {
    const paramsOf = (features: Parameters<typeof planOf>[0]) =>
      planOf(features).features[0]?.params as Feature['params']
    const inside = probeTaskOf(paramsOf([bore('A', 0, 0, { top: '.5' })]), 'inch', 0.25, 2)
    expect(inside).toMatchObject({ gap: 0.375, clearance: 1.5, top: 0.5, size: 1 })
    expect(inside.search).toBeCloseTo(0.375 + 0.1, 9)
    const boss = featureOf('boss', 'B', { nominal: '1', tolerance: '.001', x: '0', y: '0', gap: '.4' })
    expect(probeTaskOf(paramsOf([boss]), 'inch', 0.25, 2)).toMatchObject({ gap: 0.4, clearance: 2 })
  })
})

describe('what is written', () => {
  const top = featureOf('surface', 'TOP', {
    axis: 'Z',
    x: '0',
    y: '0',
    top: '.5',
    tolerance: '.002',
    gap: '.4',
  })
  it('down to the gap over a top by the ball’s underside', () => {
    // .5, half of .2362, .4.
    expect(textOf(planOf([top]))).toContain('Z1.0181 F120. (PROTECTED MOVE DOWN TO WHERE THE SEARCH BEGINS)')
  })

  it('skips to the block that switches the probe off, whose number it is', () => {
    const plan = planOf([bore('A', 0, 0, { react: 'skip' }), bore('B', 3, 0)])
    for (const [numbered, step] of [
      [true, 10],
      [true, 5],
      [false, 10],
    ] as const) {
      const profile: Profile = { ...compact, blocks: { ...compact.blocks, numbered, step } }
      const text = textOf(plan, { ...caseOf(compact), profile })
      const [, to] = /GOTO ?(\d+)/.exec(text) ?? []
      expect(text.split('\n').find((line) => line.startsWith(`N${to} `))).toMatch(/PROBE OFF/)
    }
  })

  it('keeps whether it skipped only where it may; ends as it is asked to', () => {
    const skipped = '1 AFTERWARDS: WHAT FOLLOWS WAS SKIPPED'
    expect(textOf(planOf([bore('A', 0, 0, { react: 'skip' })]))).toContain(skipped)
    expect(textOf(planOf([bore('A', 0, 0)]))).not.toContain(skipped)
    const plan = planOf([bore('A', 0, 0)])
    const last = (ends: GaugePlan['head']['ends']) =>
      textOf({ ...plan, head: { ...plan.head, ends } })
        .trim()
        .split('\n')
        .filter((line) => line !== '%')
        .at(-1)
    expect([last('program'), last('subprogram')]).toEqual(['M30', 'M99'])
  })

  it('opens the log file and closes it, where the control wants that', () => {
    const prints = (print: 'opened' | 'direct') => {
      const text = textOf(planOf([bore('A', 0, 0)]), {
        ...caseOf(compact),
        profile: { ...compact, macros: { ...macros, print } as Profile['macros'] },
      })
      return text
        .split('\n')
        .filter((line) => /POPEN|DPRNT|PCLOS/.test(line))
        .map((line) => /POPEN|DPRNT|PCLOS/.exec(line)?.[0])
    }
    expect(prints('opened')).toEqual(['POPEN', 'DPRNT', 'PCLOS', 'POPEN', 'DPRNT', 'PCLOS'])
    expect(prints('direct')).toEqual(['DPRNT', 'DPRNT'])
  })
})

describe('what is shown of it', () => {
  const where = caseOf(compact)
  const plan = planOf([
    bore('A', 0, 0, { react: 'stop' }),
    bore('B', 3, 0, { react: 'stop' }),
    bore('C', 6, 0, { react: 'stop' }),
  ])
  const program = written(plan, where)
  const of = (text: string) => ({
    text,
    profile: compact,
    machine: where.machine,
    unit: where.unit,
    frame: 'G54',
    offsets: [{ name: 'G54', axes: { X: -15, Y: -8, Z: -12 } }],
    lengths: [{ tool: 20, length: 5 }],
    tools: [],
    layout: { unit: where.unit, bodies: [boxOf([-40, -40, -5], [1, 1, 1])] },
  })

  it('six cases that failed one by one, and beyond them how many more', () => {
    const told = (text: string) => {
      const { findings, cases } = proveGauge(plan, program, where, of(text))
      return {
        failed: cases.filter(({ wrong }) => wrong.length > 0).length,
        each: findings.filter(({ code }) => code === 'case-fails').length,
        more: findings.filter(({ code }) => code === 'more-cases-fail').map(({ says }) => says),
      }
    }
    // A bore that is never too large fails in two cases: just above, and far out.
    const above = program.text.replaceAll(/GT (\d\.\d+)/g, 'GT 9.')
    expect(told(above)).toEqual({ failed: 6, each: 6, more: [] })
    const more = (text: string) => told(text).more.join()
    const lower = /LT (\d\.\d+)/
    const first = above.replace(lower, 'LT 0.')
    expect(told(first)).toMatchObject({ failed: 7, each: 6 })
    expect(more(first)).toBe('One more case does not come out as the plan says.')
    expect(more(above.replaceAll(new RegExp(lower, 'g'), 'LT 0.'))).toBe(
      '3 more cases do not come out as the plan says.',
    )
  })

  it('its progress goes from nothing to all, and never back', () => {
    const shares: number[] = []
    proveGauge(plan, program, where, of(program.text), (share) => shares.push(share) > 0)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares[0]).toBeLessThan(0.3)
    expect(shares.some((share) => share > 0.3 && share < 0.65)).toBe(true)
    expect(shares.at(-1)).toBeGreaterThan(0.8)
    expect(shares.at(-1)).toBeLessThanOrEqual(1)
  })

  it('the next part counts from what stood in the wear before', () => {
    const feature = planOf([bore('A', 0, 0, { react: 'wear', tool: '5' })]).features[0] as Feature
    const target = wearTarget(feature.params, 5, macros)
    if (!target) throw new Error('no target')
    const error = (before: number, after: number) =>
      nextErrors(
        [feature],
        { corrected: [{ feature: 'a', target, before, after }] },
        ({ middle }: Characteristic) => middle + 0.004,
        where,
      ).get('A')
    const from0 = error(0, 0.002)
    expect(from0?.before).toBeCloseTo(0.004, 9)
    expect(error(0.01, 0.012)?.after).toBeCloseTo(from0?.after as number, 9)
    expect(from0?.after).not.toBeCloseTo(0.004, 4)
    expect(error(0.01, 0.01)).toBeUndefined()
  })
})
