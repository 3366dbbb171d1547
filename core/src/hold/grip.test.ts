import fc from 'fast-check'
import { linearRegression } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { asTyped } from '../quantity/index.ts'
import {
  barRange,
  bars,
  barsTakenBy,
  closingRatio,
  collet as colletSchema,
  fitRatio,
  type Grip,
  lengthSpread,
  movingRatio,
  rankPairs,
  readDiameters,
  readPairs,
  STOPS,
  type StopKind,
  stopKind,
  USUAL_COLLETS,
} from './index.ts'
import { grip, usualCollet } from './testing.ts'

const inch = (value: number) => asTyped(value, 'inch')
describe('the ratio of a cone', () => {
  it.each([
    [10, 2.836],
    [7, 4.072],
    [45, 0.5],
  ])('%d degrees per side gives %d (derived; 45 degrees by eye)', (degreesPerSide, ratio) => {
    expect(closingRatio({ ratio: { from: 'angle', degreesPerSide } }).value).toBeCloseTo(ratio, 3)
  })

  it('stands by the rule of thumb within half a turn of the tongue (common practice)', () => {
    for (const collet of USUAL_COLLETS.filter(({ closing }) => closing !== 'dead-length'))
      expect(Math.abs(closingRatio(collet).value - (collet.ruleOfThumb ?? 0))).toBeLessThan(0.2)
  })

  it('refuses a cone that never closes and one that is flat, with a sentence', () => {
    const says = (degreesPerSide: number) =>
      colletSchema.safeParse({ ...usualCollet('5c'), ratio: { from: 'angle', degreesPerSide } }).error
        ?.issues[0]?.message
    expect(says(0)).toMatch(/never closes/)
    expect(says(90)).toMatch(/flat face/)
    expect(says(10)).toBeUndefined()
  })
})

describe('what moves (common practice)', () => {
  const STILL: StopKind[] = ['chuck-face', 'chuck-built-in', 'jaw-shoulder', 'bar-feeder']
  it('with a collet that is drawn in, a stop on it or in the tube moves, and a bar is drawn back from one outside', () => {
    for (const stop of stopKind.options.filter((each) => each !== 'actuator'))
      expect(movingRatio(usualCollet('5c'), stop).value > 0).toBe(!STILL.includes(stop))
  })
  it('with dead-length and with jaws only what is clamped in the draw tube moves', () => {
    for (const id of ['dead-length', 'three-jaw'])
      for (const stop of stopKind.options)
        expect(movingRatio(usualCollet(id), stop).value > 0).toBe(stop === 'draw-tube')
  })
})

describe('how far off they may be (by judgement; combined as in JCGM 100:2008, 5.1.2)', () => {
  it.each([3, 7, 10, 15, 30])(
    'a cone of %d degrees that is off by a quarter of a degree (central difference)',
    (angle) => {
      const at = (degreesPerSide: number) => closingRatio({ ratio: { from: 'angle', degreesPerSide } })
      const across = (at(angle - 0.25).value - at(angle + 0.25).value) / 2
      expect(at(angle).doubt / across).toBeCloseTo(1, 1)
    },
  )

  it('a spread carries the ratio over the spread of the bars, and half of what the stop is said to leave', () => {
    const { doubt } = lengthSpread(grip({ collet: usualCollet('16c'), stop: 'draw-tube' }))
    expect(doubt.value).toBeCloseTo(Math.hypot(closingRatio(usualCollet('16c')).doubt * 0.002, 0.0005), 12)
    expect(lengthSpread(grip({ stop: 'chuck-face' })).doubt.value).toBeCloseTo(0.00025, 12)
  })
})

describe('the length spread', () => {
  it('is 0.006 and what the stop leaves, for 0.002 on diameter at 3 to 1 (worked example, common practice)', () => {
    const { value, working } = lengthSpread(grip({}))
    expect(value - STOPS.collet.repeats.inch).toBeCloseTo(0.006, 12)
    expect(working.at(-1)?.arithmetic).toBe('3.000 x 0.0020 + 0.0005')
    expect(lengthSpread(grip({ stop: 'chuck-face' })).value).toBe(STOPS['chuck-face'].repeats.inch)
  })

  it('grows with the diameter spread, and never for a stop that stays', () => {
    fc.assert(
      fc.property(evenly(0, 0.05), fc.constantFrom(...stopKind.options), (spread, stop) => {
        const of = (least: number, greatest: number) =>
          lengthSpread(grip({ stop, range: { least, greatest } })).value
        const [small, large] = [of(1, 1 + spread), of(1, 1 + 2 * spread)]
        if (movingRatio(usualCollet('unknown'), stop).value === 0) expect(large).toBe(small)
        else expect(large - small).toBeCloseTo(3 * spread, 12)
      }),
    )
  })

  it('on a first operation asks for stock to face, on a second for the length tolerance', () => {
    const codes = (of: Partial<Grip>) => lengthSpread(grip(of)).findings.map(({ code }) => code)
    // 3 to 1 over 0.002 and 0.0005 of the stop is 0.0065 from bar to bar; a sawn end takes 0.010 more.
    expect(codes({ allowed: 0.016 })).toEqual(['facing-short'])
    expect(codes({ allowed: 0.017 })).toEqual(['length-close'])
    expect(codes({ allowed: 0.02 })).toEqual([])
    const { toFace, value } = lengthSpread(grip({}))
    expect(value).toBeCloseTo(0.0065, 9)
    expect(toFace.value).toBeCloseTo(0.0165, 9)
    // The same way but for its last line.
    const { working } = lengthSpread(grip({}))
    expect(toFace.working.slice(0, -1)).toEqual(working.slice(0, -1))
    expect([working.at(-1)?.finds, toFace.working.at(-1)?.finds]).toEqual(['length spread', 'stock to face'])
    // Of a length tolerance half is for the spread: 0.013 would be all of it.
    expect(codes({ allowed: 0.0129, operation: 'second' })).toEqual(['length-too-wide'])
    expect(codes({ allowed: 0.005, operation: 'second' })).toEqual(['length-too-wide'])
    expect(codes({ allowed: 0.0135, operation: 'second' })).toEqual(['length-close'])
    expect(codes({ allowed: 0.02, operation: 'second' })).toEqual([])
    expect(codes({ stop: 'actuator' })).toEqual(['never-stop'])
    expect(codes({ stop: 'callipers', allowed: 0.03 })).toEqual(['last-resort'])
    expect(codes({ stop: 'jaw-shoulder' })).toEqual(['does-not-fit'])
    expect(codes({ measuredRatio: { value: 9, doubt: 0.1 }, allowed: 0.03 })).toEqual([])
    expect(lengthSpread(grip({ measuredRatio: { value: 9, doubt: 0.1 } })).value).toBeCloseTo(0.0185, 9)
  })

  it('asks how a part in jaws is seated before the ratio of a draw tube counts', () => {
    const takes = { unit: 'inch' as const, least: 0.25, greatest: 8 }
    const jaws = { collet: { ...usualCollet('three-jaw'), takes }, stop: 'draw-tube' as const, allowed: 1 }
    const said = (of: Partial<Grip>) => lengthSpread(grip({ ...jaws, ...of }))
    // 2.5 to 1 (trade.md 6) over 0.002, and 0.001 of the stop.
    expect(said({ seated: 'closing' }).value).toBeCloseTo(0.006, 9)
    expect(said({ seated: 'open' })).toMatchObject({ ratio: 0, value: expect.closeTo(0.001, 9) })
    expect(said({}).findings.map(({ code }) => code)).toEqual(['seated-unknown'])
    expect(said({}).value).toBeCloseTo(0.006, 9)
    expect(said({ seated: 'closing' }).findings).toEqual([])
    // A collet draws the part in: there is nothing to ask.
    expect(said({ collet: { ...usualCollet('unknown'), takes } }).findings).toEqual([])
  })

  it('takes measured bars instead of a tolerance, and says what a batch may do', () => {
    const measured = readDiameters('.4998 .5001, .5003;.4995\n.5000', 'inch')
    if (!measured.ok) throw new Error(measured.says)
    const range = barRange({ known: 'measured', diameters: measured.rows }, 'inch')
    expect(range).toMatchObject({ least: 0.4995, greatest: 0.5003, measured: 5 })
    expect(lengthSpread(grip({ range })).findings.map(({ code }) => code)).toEqual(['batch-is-wider'])
    expect(barRange({ known: 'tolerance', diameter: inch(1), spread: inch(0.002) }, 'mm').least).toBeCloseTo(
      25.3746,
      9,
    )
    const says = (spread: number) =>
      bars.safeParse({ known: 'tolerance', diameter: inch(1), spread: inch(spread) }).error?.issues[0]
        ?.message
    expect(says(-0.002)).toMatch(/cannot be negative/)
    expect(says(0)).toBeUndefined()
  })
})

describe('the bars that a collet takes (common practice, from memory: the largest round bar of each system)', () => {
  const sizes = (least: number, greatest = least) => ({ least, greatest })
  const stops = (id: string, range: { least: number; greatest: number }, more: Partial<Grip> = {}) =>
    lengthSpread(grip({ collet: usualCollet(id), range, allowed: 1, ...more }))
      .findings.filter(({ severity }) => severity === 'stop')
      .map(({ code }) => code)

  it('5C to 1-1/16, 16C to 1-5/8, 3J to 1-3/4; what is larger does not go in', () => {
    expect(stops('5c', sizes(1.0625))).toEqual([])
    expect(stops('5c', sizes(1.25))).toEqual(['bar-too-large'])
    expect(stops('16c', sizes(1.25))).toEqual([])
    expect(stops('16c', sizes(1.75))).toEqual(['bar-too-large'])
    expect(stops('3j', sizes(1.75))).toEqual([])
    expect(stops('3j', sizes(2))).toEqual(['bar-too-large'])
    expect(stops('5c', sizes(31.75), { unit: 'mm', allowed: 25 })).toEqual(['bar-too-large'])
    expect(stops('5c', sizes(26.9), { unit: 'mm', allowed: 25 })).toEqual([])
  })

  it('counts the largest and the smallest of the batch, and the little that a collet opens more', () => {
    expect(stops('5c', sizes(1.06, 1.066))).toEqual([])
    expect(stops('5c', sizes(1.06, 1.07))).toEqual(['bar-too-large'])
    expect(stops('16c', sizes(0.03))).toEqual(['bar-too-small'])
  })

  it('is as entered before it is as usual, and said where nobody knows', () => {
    const { takes: _, ...old } = usualCollet('5c')
    expect(barsTakenBy(old)).toEqual(usualCollet('5c').takes)
    expect(barsTakenBy({ ...old, id: 'ours' })).toBeNull()
    expect(barsTakenBy({ ...old, takes: null })).toBeNull()
    const own = { ...old, takes: { unit: 'mm' as const, least: 3, greatest: 42 } }
    expect(stops('5c', sizes(1.25), { collet: own })).toEqual([])
    expect(stops('5c', sizes(1.7), { collet: own })).toEqual(['bar-too-large'])
    expect(
      lengthSpread(grip({ collet: usualCollet('three-jaw'), stop: 'jaw-shoulder' })).findings.map(
        ({ code }) => code,
      ),
    ).toEqual(['bars-unknown'])
    expect(colletSchema.safeParse({ ...old, takes: { unit: 'inch', least: 2, greatest: 1 } }).success).toBe(
      false,
    )
  })

  it('puts a pair that the bar does not fit among those never to use, with the reason', () => {
    const pairs = rankPairs({
      collets: [usualCollet('5c'), usualCollet('16c')],
      operation: 'first',
      unit: 'inch',
      range: sizes(1.249, 1.251),
      allowed: 0.05,
      measured: new Map(),
    })
    expect(new Set(pairs.filter(({ collet: { id } }) => id === '5c').map(({ place }) => place))).toEqual(
      new Set(['never']),
    )
    expect(pairs[0]?.collet.id).toBe('16c')
    expect(pairs.find(({ collet: { id }, stop }) => id === '5c' && stop === 'collet')?.reason).toBe(
      'A bar of 1.2510 in does not go into 5C. 5C takes bars from 0.0156 in to 1.0625 in.',
    )
  })
})

describe('the ranked pairs', () => {
  const rank = (allowed: number, operation: 'first' | 'second' = 'second') =>
    rankPairs({
      collets: USUAL_COLLETS,
      operation,
      unit: 'inch',
      range: { least: 0.999, greatest: 1.001 },
      allowed,
      measured: new Map(),
    })
  it('put what stays before what moves, and never the actuator but last, each with its reason', () => {
    const ranked = rank(0.002)
    expect(ranked[0]).toMatchObject({ place: 'good', stop: 'chuck-face' })
    expect(ranked.slice(-8).every(({ place, stop }) => place === 'never' && stop === 'actuator')).toBe(true)
    expect(
      ranked.filter(({ stop }) => stop === 'callipers').every(({ place }) => place === 'last-resort'),
    ).toBe(true)
    const pulled = ranked.find(({ collet, stop }) => collet.id === '5c' && stop === 'collet')
    expect(pulled).toMatchObject({
      place: 'too-wide',
      reason: 'Goes where the collet goes. 0.0052 in more than half of what the part allows.',
    })
    expect(ranked.find(({ collet, stop }) => collet.id === 'dead-length' && stop === 'collet')).toMatchObject(
      {
        place: 'good',
        reason: 'The collet stays while the sleeve closes.',
      },
    )
    expect(ranked.every(({ reason }) => reason.length > 10)).toBe(true)
    expect(ranked.some(({ collet, stop }) => collet.closing === 'jaws' && stop === 'collet')).toBe(false)
  })
  it('are in order within each place', () => {
    const spreads = rank(0.004)
      .filter(({ place }) => place === 'good')
      .map(({ spread }) => spread)
    expect(spreads).toEqual([...spreads].sort((a, b) => a - b))
  })
})

describe('the ratio that a chuck really has', () => {
  const rows = [
    [0.998, 1.4943],
    [0.9987, 1.4962],
    [0.9995, 1.4986],
    [1.0002, 1.5004],
    [1.0008, 1.5025],
    [1.0014, 1.5041],
    [1.002, 1.506],
  ] as const
  const pairs = rows.map(([diameter, length]) => ({ diameter: inch(diameter), length: inch(length) }))
  it('is the slope of the faces over the diameters (against simple-statistics)', () => {
    const fit = fitRatio(pairs, 'face', { value: 2.836, doubt: 0, way: 1 }, 'inch')
    expect(fit?.value).toBeCloseTo(linearRegression(rows.map(([d, l]) => [d, l])).m, 9)
    expect(fit?.doubt).toBeLessThan(0.1)
    expect(fit?.findings).toEqual([])
    expect(fitRatio(pairs, 'face', { value: 4.07, doubt: 0, way: 1 }, 'inch')?.findings[0]?.code).toBe(
      'ratio-differs',
    )
  })
  it('turns round for finished lengths, and says when the columns do not go with the cone', () => {
    expect(fitRatio(pairs, 'length', { value: 3, doubt: 0.5, way: 1 }, 'inch')?.findings[0]?.code).toBe(
      'ratio-backwards',
    )
    expect(
      fitRatio(
        pairs.map((each) => ({ ...each, diameter: inch(1) })),
        'face',
        { value: 3, doubt: 0, way: 1 },
        'inch',
      ),
    ).toBeUndefined()
    const close = pairs.map(({ length }, index) => ({
      diameter: inch(1 + index * 1e-5),
      length: inch(length.value + (index % 2) * 0.002),
    }))
    expect(fitRatio(close, 'face', { value: 3, doubt: 0, way: 1 }, 'inch')?.findings[0]?.code).toBe(
      'ratio-unclear',
    )
  })
})

describe('lists as typed or pasted', () => {
  it('are read in lines, columns and units', () => {
    expect(readDiameters('1/2 12.7mm\n.5', 'inch')).toMatchObject({
      ok: true,
      rows: [{ value: 0.5 }, { value: 0.5 }, { value: 0.5 }],
    })
    expect(readPairs('.998, 1.4943\n.9987\t1.4962', 'inch')).toMatchObject({
      ok: true,
      rows: [{ length: { value: 1.4943 } }, {}],
    })
  })
  it.each([
    ['', 'Type the diameters'],
    ['1,5 1,6', 'decimal point'],
    ['1 1/2', 'hyphen'],
    ['.5 abc', 'Line 1: '],
    [Array(300).fill('.5').join(' '), 'at most 200'],
  ])('%j gets a sentence', (text, says) => {
    const list = readDiameters(text, 'inch')
    expect(list.ok ? '' : list.says).toContain(says)
  })
  it('a pair needs two numbers', () => {
    expect(readPairs('.5', 'inch')).toMatchObject({ says: expect.stringContaining('two numbers') })
  })
})
