import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import type { Body } from '../prove/index.ts'
import { arrange } from './arrange.ts'
import type { GaugeCase } from './case.ts'
import { tryCases } from './cases.ts'
import { characteristicsOf } from './characteristic.ts'
import { checkPlan } from './check.ts'
import type { FeatureDraft } from './feature.ts'
import { partWith, valuesOf } from './part-with.ts'
import { proveGauge } from './prove-gauge.ts'
import { readResults } from './results.ts'
import { shortestRoute } from './route.ts'
import { anyPlan, caseOf, compact, featureOf, lengthOfWay, planOf, twoLine, written } from './testing.ts'
import { gaugeTime } from './time.ts'
import { tryProgram } from './try.ts'

const clamp: Body = {
  id: 'clamp',
  name: 'clamp',
  role: 'clamp',
  shape: 'box',
  at: { x: 1.7, y: -0.4, z: 0 },
  size: { x: 0.6, y: 0.8, z: 0.75 },
}

const per = ({ unit }: GaugeCase) => (unit === 'inch' ? 1 : 25.4)

/** Far from all that is gauged: the work area is not empty. */
const stop: Body = { ...clamp, id: 'stop', name: 'stop', role: 'stop', at: { x: -40, y: -40, z: -5 } }

/** What is proved besides the cases: the setup as it stands. */
const proofCase = (text: string, where: GaugeCase, bodies: readonly Body[] = []) => ({
  text,
  profile: where.profile,
  machine: where.machine,
  unit: where.unit,
  frame: 'G54',
  offsets: [{ name: 'G54', axes: { X: -15 * per(where), Y: -8 * per(where), Z: -10 * per(where) } }],
  lengths: [{ tool: 20, length: 6 * per(where) }],
  tools: [],
  layout: { unit: where.unit, bodies: [stop, ...bodies] },
})

const housing = (more: Partial<FeatureDraft> = {}) =>
  planOf([
    featureOf('bore', 'BORE', {
      nominal: '1',
      tolerance: '+.001 -.001',
      x: '0',
      y: '0',
      tool: '5',
      react: 'wear',
      ...more,
    }),
    featureOf('web', 'RIB', {
      axis: 'Y',
      nominal: '.5',
      tolerance: '.002',
      x: '4',
      y: '0',
      tool: '6',
      react: 'skip',
    }),
    featureOf('surface', 'TOP', {
      axis: 'Z',
      x: '0',
      y: '-3',
      top: '0',
      tolerance: '.002',
      tool: '5',
      react: 'wear',
    }),
    featureOf('distance', 'PITCH', {
      from: 'bore',
      to: 'hole',
      nominal: '2.5',
      tolerance: '.01',
      along: 'Y',
      react: 'right-part',
    }),
    featureOf('bore', 'HOLE', { nominal: '.5', tolerance: '.001', x: '0', y: '2.5', react: 'stop' }),
  ])

describe('a gauging program, whatever the plan', () => {
  it.each([
    ['compact, inch', compact, 'inch'],
    ['compact, mm', compact, 'mm'],
    ['two-line, inch', twoLine, 'inch'],
    ['two-line, mm', twoLine, 'mm'],
  ] as const)(
    'does what the plan says with every kind of part, read back in %s, and nothing says stop in Prove',
    (_, profile, unit) => {
      const where = caseOf(profile, unit)
      let [tried, whole] = [0, 0]
      fc.assert(
        fc.property(anyPlan(unit), (plan) => {
          tried += 1
          const per = unit === 'inch' ? 1 : 25.4
          const found = checkPlan(plan, where, { tools: [], near: { X: -15 * per, Y: -8 * per } })
          // A dead band may be typed that leaves nothing to correct: that is refused, and nothing is written.
          if (found.some(({ severity }) => severity === 'stop')) return
          whole += 1
          const program = written(plan, where)
          const proof = proveGauge(plan, program, where, proofCase(program.text, where))
          // No stop, and no alarm on a good part.
          expect(
            proof.findings.filter(({ severity, code }) => severity === 'stop' || code === 'alarm'),
          ).toEqual([])
          expect(
            proof.cases.flatMap(({ kind, key, wrong }) => wrong.map((says) => [key, kind, says])),
          ).toEqual([])
          // What it prints is what it measured, and reads back.
          const part = partWith(plan, new Map(), unit)
          const { printed } = tryProgram(program.text, plan.features, program.variables, where, part)
          const keys = plan.features.flatMap((feature) =>
            characteristicsOf(feature, unit).map(({ key }) => key),
          )
          const read = readResults(printed.join('\n'), keys, 1)
          expect(read.problems).toEqual([])
          for (const [key, value] of valuesOf(plan, part, unit))
            expect(read.parts[0]?.values[key]).toBeCloseTo(value, unit === 'inch' ? 3 : 2)
        }),
        depth(10, 2000),
      )
      expect(whole).toBeGreaterThan(tried / 2)
    },
  )

  it('has the limits of ISO 286 in inches to the last digit: 20 H7 is 0.7874 to 0.7882', () => {
    const plan = planOf([featureOf('bore', 'FIT', { nominal: '20 H7', x: '0', y: '0', react: 'stop' })])
    const { text } = written(plan, caseOf(compact))
    expect(text).toContain('D0.7874 Q0.1')
    expect(text).toContain('IF [#100 GT 0.7882] THEN #3000= 1 (FIT ABOVE 0.7882)')
    expect(text).toContain('IF [#100 LT 0.7874] THEN #3000= 2 (FIT BELOW 0.7874)')
  })

  it('measures what says whether it is the right part first, and stops before the rest', () => {
    const where = caseOf(compact)
    const plan = housing()
    const order = arrange(plan, where).steps.map((step) => `${step.does} ${step.feature.params.name}`)
    expect(order.slice(0, 5)).toEqual(
      expect.arrayContaining(['measure BORE', 'measure HOLE', 'decide PITCH', 'decide BORE']),
    )
    expect(order.indexOf('decide PITCH')).toBeLessThan(order.indexOf('measure RIB'))
    const { text, variables } = written(plan, where)
    const wrong = partWith(plan, new Map([['PITCH', 2.57]]), 'inch')
    const tried = tryProgram(text, plan.features, variables, where, wrong)
    expect(tried.alarm?.says).toBe('WRONG PART - PITCH')
    expect(tried.values.has('RIB')).toBe(false)
  })

  it('skips to where the probe is switched off, and says so in its variable', () => {
    for (const profile of [compact, twoLine]) {
      const where = caseOf(profile)
      const plan = planOf([
        featureOf('boss', 'PIN', { nominal: '.5', tolerance: '.001', x: '0', y: '0', react: 'skip' }),
        featureOf('bore', 'HOLE', { nominal: '.75', tolerance: '.001', x: '3', y: '0' }),
      ])
      const { text, variables } = written(plan, where)
      const tried = tryProgram(
        text,
        plan.features,
        variables,
        where,
        partWith(plan, new Map([['PIN', 0.502]]), 'inch'),
      )
      expect(tried.skipped).toBe(true)
      expect(tried.values.has('HOLE')).toBe(false)
      expect(tried.program.probing.calls.at(-1)?.macro).toBe('off')
    }
  })

  it('clears what stands between the features with the probe’s own shape, and hits it where it is sent lower', () => {
    const where = { ...caseOf(compact), bodies: [clamp] }
    const plan = planOf([
      featureOf('bore', 'BORE', { nominal: '1', tolerance: '.001', x: '0', y: '0' }),
      featureOf('web', 'RIB', { axis: 'Y', nominal: '.5', tolerance: '.002', x: '4', y: '0' }),
    ])
    const program = written(plan, where)
    expect(program.arranged).toMatchObject({ over: 'clamp' })
    const stops = (text: string) =>
      proveGauge(plan, program, where, proofCase(text, where, [clamp]))
        .findings.filter(({ severity }) => severity === 'stop')
        .map(({ code }) => code)
    expect(stops(program.text)).toEqual([])
    const z = /G65 P9810 Z(\d\.\d+) F120\. \(PROTECTED MOVE AWAY/.exec(program.text)?.[1]
    expect(stops(program.text.replaceAll(`Z${z}`, 'Z0.3'))).toEqual(['feed-hits'])
  })

  it('costs what it saves to leave out, and less in one program than in several', () => {
    const where = caseOf(compact)
    const { probing, macros } = compact
    if (!probing || !macros) throw new Error('no macros')
    const plan = housing()
    const time = gaugeTime(plan, where, probing, macros)
    const without = planOf([featureOf('bore', 'BORE', { nominal: '1', tolerance: '.001', x: '0', y: '0' })])
    expect(time.total).toBeGreaterThan(gaugeTime(without, where, probing, macros).total)
    expect([...time.saves.values()].every((saved) => saved > 0 && saved < time.total)).toBe(true)
    // The bore's saving is the hole's distance too: what rests on it goes with it.
    expect(time.joined).toBeGreaterThan(3 * time.once * 0.5)
  })
})

describe('what is wrong with a program is found by running it', () => {
  const where = caseOf(compact)
  const plan = housing()
  const program = written(plan, where)
  /** Each slip is one that a hand can make; what follows is the finding that must name it. */
  it.each<[string, (text: string) => string, string]>([
    [
      'wear corrected the wrong way',
      (text) => text.replace('#2605= #2605 + #149', '#2605= #2605 - #149'),
      'corrected-wrong-way',
    ],
    [
      'length corrected the wrong way',
      (text) => text.replace('#2205= #2205 - #149', '#2205= #2205 + #149'),
      'corrected-wrong-way',
    ],
    ['wear of another tool', (text) => text.replaceAll('#2605', '#2606'), 'case-fails'],
    ['limits turned round', (text) => text.replace('IF [#104 GT 0.501]', 'IF [#104 LT 0.501]'), 'case-fails'],
    ['a limit typed wrong', (text) => text.replace('GT 0.501]', 'GT 0.51]'), 'case-fails'],
    ['the share left out', (text) => text.replace('#148 * 0.5', '#148 * 2.5'), 'corrected-wrong-way'],
    [
      'a protected move before it made a rapid',
      (text) => text.replace('G65 P9810 Z-0.25 F120.', 'G0 Z-0.25'),
      'unprotected-before',
    ],
    [
      'a protected move away made a rapid',
      (text) =>
        text.replace(/G65 P9810 (Z[\d.]+) F120\. \(PROTECTED MOVE AWAY/, 'G0 $1 (PROTECTED MOVE AWAY'),
      'unprotected-after',
    ],
    [
      'the spindle left on',
      (text) => text.replace('M5 (A PROBE', 'M3 S500 (A PROBE').replace('T20 M6', 'T20 M6\nM3 S500'),
      'probe-turns',
    ],
    ['another tool', (text) => text.replace('T20 M6', 'T5 M6'), 'wrong-probe-tool'],
    ['the probe never switched on', (text) => text.replace('G65 P9832', 'G4 P1.'), 'probe-off'],
    ['a search of plenty', (text) => text.replace('D1. Q0.1', 'D1. Q0.9'), 'probe-search'],
    ['read before the look-ahead is held', (text) => text.replaceAll('G103 P1 ', ''), 'read-early'],
    [
      'the result of another call',
      (text) => text.replace('= #188 (BORE)', '= #187 (BORE)'),
      'result-of-another',
    ],
    [
      'read before it was measured',
      (text) => text.replace('DPRNT[GAUGE*TEST]', 'G103 P1\n#120= #188\nG103'),
      'result-of-another',
    ],
  ])('%s', (_, slip, code) => {
    const text = slip(program.text)
    expect(text).not.toBe(program.text)
    const { findings, verdict } = proveGauge(plan, program, where, proofCase(text, where))
    expect(findings.map((each) => each.code)).toContain(code)
    expect(verdict).toBe('stop')
  })

  it('and nothing in the program as it was written', () => {
    expect(proveGauge(plan, program, where, proofCase(program.text, where)).verdict).toBe('good')
  })

  it('can be stopped on the way', () => {
    let calls = 0
    const proof = proveGauge(plan, program, where, proofCase(program.text, where), () => ++calls < 4)
    expect(proof.cancelled).toBe(true)
    expect(proof.cases.length).toBeLessThan(10)
  })
})

describe('a plan is refused before anything is written', () => {
  const codes = (features: Parameters<typeof planOf>[0], where: GaugeCase = caseOf(compact)) =>
    checkPlan(planOf(features), where, { tools: [{ number: 5 }], near: { X: -15, Y: -8 } })
      .filter(({ severity }) => severity !== 'note')
      .map(({ severity, code }) => `${severity} ${code}`)
  const bore = (more: Partial<FeatureDraft>) =>
    featureOf('bore', 'BORE', { nominal: '1', tolerance: '.001', x: '0', y: '0', tool: '5', ...more })
  it.each<[string, Partial<FeatureDraft>, string[]]>([
    ['as it should be', {}, []],
    ['a tolerance upside down', { tolerance: '-.001 +.001' }, ['stop tolerance-upside-down']],
    ['no tolerance', { tolerance: '0' }, ['stop tolerance-zero']],
    ['finer than the control prints', { tolerance: '.0001' }, ['look tolerance-fine']],
    ['a positive depth', { depth: '.25' }, ['stop depth-sign']],
    ['deeper than the stylus', { depth: '-2' }, ['stop body-against-part']],
    ['a search of plenty', { past: '.5' }, ['stop search-too-long']],
    ['a hole too small for the ball', { nominal: '.2' }, ['stop stylus-larger-than-pocket']],
    ['a dead band over the limit', { react: 'wear', deadBand: '.002' }, ['stop dead-band-over-limit']],
    ['a limit over the tolerance', { react: 'wear', limit: '.005' }, ['look limit-over-tolerance']],
    ['the whole error', { react: 'wear', share: '1' }, ['look share-whole']],
    ['a tool that is not there', { react: 'wear', tool: '9' }, ['look tool-not-known']],
  ])('%s', (_, more, expected) => expect(codes([bore(more)])).toEqual(expected))

  it('for a control without macros, or an offset without a variable', () => {
    const plain = { ...compact, probing: null, macros: null }
    expect(codes([bore({})], caseOf(plain))).toEqual(['stop no-probe-macros', 'stop no-macro-language'])
    const corner = featureOf('outside-corner', 'C', { x: '0', y: '0', tolerance: '.01', react: 'offset' })
    expect(codes([corner], { ...caseOf(compact), offset: 'G154 P3' })).toEqual([
      'stop offset-not-reached',
      'stop offset-not-reached',
    ])
  })

  it('where two places are not as far apart as the drawing says, or two features correct one tool', () => {
    expect(
      codes([
        bore({}),
        featureOf('bore', 'B', { nominal: '1', tolerance: '.001', x: '3', y: '0' }),
        featureOf('distance', 'D', { from: 'bore', to: 'b', nominal: '2.9', tolerance: '.01' }),
      ]),
    ).toEqual(['stop distance-differs'])
    expect(
      codes([
        bore({ react: 'wear' }),
        featureOf('bore', 'B', { nominal: '1', tolerance: '.001', x: '3', y: '0', tool: '5', react: 'wear' }),
      ]),
    ).toEqual(['look corrected-twice'])
  })
})

describe('the way between the features', () => {
  const place = fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) })
  const orders = (of: readonly number[]): number[][] =>
    of.length < 2
      ? [[...of]]
      : of.flatMap((first) => orders(of.filter((each) => each !== first)).map((rest) => [first, ...rest]))
  it('is the shortest of all (every order looked at)', () => {
    fc.assert(
      fc.property(place, fc.array(place, { minLength: 1, maxLength: 6 }), (start, stops) => {
        const length = (order: readonly number[]) =>
          lengthOfWay(
            start,
            order.map((at) => stops[at] as { x: number; y: number }),
          )
        const found = shortestRoute(start, stops)
        expect([...found].sort((a, b) => a - b)).toEqual([...stops.keys()])
        expect(length(found)).toBeCloseTo(Math.min(...orders([...stops.keys()]).map(length)), 9)
      }),
    )
  })
  it('visits each once and is no longer than as they were typed, for many', () => {
    fc.assert(
      fc.property(fc.array(place, { minLength: 12, maxLength: 24 }), (stops) => {
        const start = stops[0] as { x: number; y: number }
        const found = shortestRoute(start, stops)
        expect(new Set(found).size).toBe(stops.length)
        expect(
          lengthOfWay(
            start,
            found.map((at) => stops[at] as { x: number; y: number }),
          ),
        ).toBeLessThanOrEqual(lengthOfWay(start, stops) + 1e-9)
      }),
      depth(40, 400),
    )
  })
})

describe('the cases that are tried', () => {
  it('are all that the plan can meet', () => {
    const where = caseOf(compact)
    const plan = housing()
    const cases = tryCases(written(plan, where).text, plan, written(plan, where), where)
    const kinds = (key: string) => cases.filter((each) => each.key === key).map(({ kind }) => kind)
    expect(kinds('BORE')).toEqual([
      'middle',
      'upper limit',
      'lower limit',
      'just above',
      'just below',
      'in the dead band',
      'far out',
      'no contact',
    ])
    expect(kinds('PITCH')).toContain('wrong part')
    expect(cases.at(-1)?.kind).toBe('no part')
    expect(cases.every(({ tried }) => tried.seconds > 0)).toBe(true)
  })
})
