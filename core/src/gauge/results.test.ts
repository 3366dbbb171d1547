import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { characteristicsOf } from './characteristic.ts'
import { labelAfter, type ReportedPart, resultsCsv, resultsJson } from './reports.ts'
import { measuredPart, readResults, readTypedPart } from './results.ts'
import { resultSuspicions } from './suspicions.ts'
import { featureOf, planOf } from './testing.ts'

const plan = planOf([
  featureOf('bore', 'Bore A', { nominal: '1', tolerance: '.001', x: '0', y: '0' }),
  featureOf('hand', 'Wall', { nominal: '.125', tolerance: '.005' }),
  featureOf('edge', 'Lean', { tolerance: '.05', x: '0', y: '3', base: '1' }),
])
const characteristics = plan.features.flatMap((feature) => characteristicsOf(feature, 'inch'))
const keys = characteristics.map(({ key }) => key)

describe('results come in', () => {
  it.each<[string, string, { label: string; values: Record<string, number> }[]]>([
    [
      'a row to a part, blanks',
      '1.0002 .1251 0.01\n1.0004 .1249 -0.02',
      [
        { label: '7', values: { 'BORE A': 1.0002, WALL: 0.1251, LEAN: 0.01 } },
        { label: '8', values: { 'BORE A': 1.0004, WALL: 0.1249, LEAN: -0.02 } },
      ],
    ],
    [
      'one value alone',
      '1.0002\n1.0003\n',
      [
        { label: '7', values: { 'BORE A': 1.0002 } },
        { label: '8', values: { 'BORE A': 1.0003 } },
      ],
    ],
    [
      'a table with a heading, in another order',
      'part,WALL,bore a\nA12,.126,1.0001\nA13,,1.0002\n',
      [
        { label: 'A12', values: { WALL: 0.126, 'BORE A': 1.0001 } },
        { label: 'A13', values: { 'BORE A': 1.0002 } },
      ],
    ],
    ['semicolons', 'part;Lean\n4;0.02', [{ label: '4', values: { LEAN: 0.02 } }]],
    [
      'a byte order mark and carriage returns',
      '\uFEFFpart,wall\r\n1,.125\r\n',
      [{ label: '1', values: { WALL: 0.125 } }],
    ],
  ])('%s', (_, text, parts) => {
    const read = readResults(text, keys, 7)
    expect(read.problems).toEqual([])
    expect(read.parts).toEqual(parts)
  })

  it('says as what it was read, and how many parts and values there are', () => {
    const says = (text: string) => readResults(text, keys, 7).says
    expect(says('1.0002 .1251')).toBe('Read as a row to a part: 1 part, 2 values.')
    expect(says('1.0002 .1251\n\n1.0004 .1249')).toBe('Read as a row to a part: 2 parts, 4 values.')
    expect(says('WALL\n.125')).toBe('Read as a table with a heading: 1 part, 1 value.')
    // Without its heading too, where every line is one of a log.
    expect(says('BORE A 1.0004\nWALL .125')).toBe('Read as the log file of a control: 1 part, 2 values.')
  })

  it('a part has a value or more, and sixty at most', () => {
    const of = (count: number) =>
      measuredPart.safeParse({
        label: '1',
        values: Object.fromEntries(Array.from({ length: count }, (_, n) => [`V${n}`, 1])),
      }).success
    expect([0, 1, 60, 61].map(of)).toEqual([false, true, true, false])
  })

  it('says where it could not be read, by its line', () => {
    const problems = (text: string, of = keys) =>
      readResults(text, of, 7).problems.map(({ line, says }) => `${line}: ${says}`)
    expect(problems('part,WALL\n1,.125,7\n2,.126,')).toEqual([
      '2: It has 3 cells under a heading of 2; it is left out. Is a comma meant as a decimal point?',
    ])
    expect(problems('part,WALL\n1,.125\n2,abc')).toEqual(['3: "abc" under WALL is not a number.'])
    expect(problems('1.0002 .1251 0.01 5')).toEqual(['1: A part has 3 values; "5" is one more.'])
    expect(problems('1.0002 .1251', ['BORE A'])).toEqual(['1: A part has 1 value; ".1251" is one more.'])
    expect(problems('BORE A 1.0004\nfoo bar')).not.toEqual([])
    // The marks of a tape with nothing between them are no log without a problem.
    expect(problems('%\n%')).toEqual(['1: "%" is not a number.', '2: "%" is not a number.'])
    expect(readResults('WALL\n.125\n.126', keys, 7).parts.map(({ label }) => label)).toEqual(['7', '8'])
    // No part has more than so many values: what is beyond is cut off.
    expect(problems(Array.from({ length: 100 }, () => '1').join(',')).length).toBe(60 - keys.length)
    expect(problems(' '.repeat(2_000_000))).toEqual([])
    expect(problems(' '.repeat(2_000_001))).toHaveLength(1)
  })

  it('as the log file of a control, with what it corrected', () => {
    const log =
      '%\nGAUGE TEST\nBORE A 1.0004\nT5 DIA WEAR -0.0002\nWALL 0.1250\nGAUGE TEST\nBORE A 1.0001\nT5 DIA WEAR -0.0001\n'
    expect(readResults(log, keys, 1).parts).toEqual([
      { label: '1', values: { 'BORE A': 1.0004, WALL: 0.125 }, corrected: { 'T5 DIA WEAR': -0.0002 } },
      { label: '2', values: { 'BORE A': 1.0001 }, corrected: { 'T5 DIA WEAR': -0.0001 } },
    ])
  })

  it.each([
    ['1.0002 abc', 'is not a number'],
    ['1 2 3 4', 'is one more'],
    ['part,Bore A,Bore Z\n1,1.0,2', 'is no value of this plan'],
    ['GAUGE TEST\nBORE Q 1.0', 'is no value of this plan'],
    ['part,Bore A\n1,abc', 'is not a number'],
  ])('"%s" says what is wrong, with its line', (text, says) => {
    const { problems } = readResults(text, keys, 1)
    expect(problems[0]?.line).toBeGreaterThan(0)
    expect(problems.map((each) => each.says).join(' ')).toContain(says)
  })

  it('more than two million characters are not read, and that is said', () => {
    expect(readResults('1'.repeat(2_000_001), keys, 1).problems[0]?.says).toContain('two million')
  })

  it('any text at all, without throwing; every part it gives is one that can be kept', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.string({ maxLength: 300 }), fc.string({ unit: 'binary', maxLength: 300 })),
        (text) => {
          for (const part of readResults(text, keys, 1).parts) {
            const kept = measuredPart.safeParse(part)
            if (!kept.success) expect(part.values).not.toEqual({})
          }
        },
      ),
    )
    expect(readResults('', keys, 1).parts).toEqual([])
  })

  it('typed a field at a time, in the unit of the field; an empty one is not measured', () => {
    expect(
      readTypedPart('9', { 'BORE A': '25.4mm', WALL: '', LEAN: '-.02' }, characteristics, 'inch'),
    ).toEqual({
      ok: true,
      value: { label: '9', values: { 'BORE A': 1, LEAN: -0.02 } },
    })
    const wrong = readTypedPart('9', { 'BORE A': 'one' }, characteristics, 'inch')
    expect(!wrong.ok && Object.keys(wrong.problems)).toContain('BORE A')
    expect(readTypedPart('9', {}, characteristics, 'inch').ok).toBe(false)
  })
})

describe('results that look wrong are said before they are recorded', () => {
  it.each([
    [[1.0002, 0.9995], []],
    [[25.4, 25.405], ['BORE A: 25.4 looks like mm; the plan is in inch.']],
    [[-1.0001], ['BORE A: -1.0001 has the wrong sign.']],
    [[1, 1.2], ['BORE A: 1.2 is far from 1: another value, or a slip?']],
  ])('%j', (values, says) => {
    const parts = values.map((value, at) => ({ label: String(at), values: { 'BORE A': value } }))
    expect(resultSuspicions(parts, characteristics)).toEqual(says)
  })
})

describe('results go out', () => {
  const anyPart = fc.record({
    label: fc.stringMatching(/^[A-Za-z0-9 ,"-]{1,12}$/).map((text) => text.trim() || '1'),
    at: fc.constant('2026-11-25T07:00:00.000Z'),
    by: fc.constant('RT'),
    values: fc.record({
      'BORE A': fc.integer({ min: -99999, max: 99999 }).map((of) => of / 10000),
      WALL: fc.integer({ min: 0, max: 9999 }).map((of) => of / 10000),
    }),
    out: fc.constant([]),
    note: fc.string({ maxLength: 20 }),
  }) satisfies fc.Arbitrary<ReportedPart>
  it('as CSV that reads back as it was, and JSON that says against what', () => {
    fc.assert(
      fc.property(fc.array(anyPart, { minLength: 1, maxLength: 20 }), (parts) => {
        const read = readResults(resultsCsv(characteristics, parts), keys, 1)
        expect(read.problems).toEqual([])
        expect(read.parts.map(({ values }) => values)).toEqual(parts.map(({ values }) => values))
        const json = JSON.parse(resultsJson({ setup: 's', plan: 'p', unit: 'inch' }, characteristics, parts))
        expect(json.parts).toEqual(JSON.parse(JSON.stringify(parts)))
        expect(json.characteristics[0]).toMatchObject({ key: 'BORE A', lower: 0.999, upper: 1.001 })
      }),
    )
  })
  it('parts are counted on by their number', () => {
    expect([labelAfter('199', 2), labelAfter('A12', 3)]).toEqual(['201', 'A12 + 3'])
  })
})
