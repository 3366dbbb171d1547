import { describe, expect, it } from 'vitest'
import { asTyped } from '../quantity/index.ts'
import {
  barRange,
  bars,
  byStop,
  chartOfRatio,
  fitRatio,
  type Grip,
  lengthSpread,
  type MeasuredPairs,
  type Moving,
  rankPairs,
  readDiameters,
  readPairs,
} from './index.ts'
import { grip, usualCollet } from './testing.ts'

// Collets and bars worked with a pencil.

const near = (value: number, digits = 9) => expect.closeTo(value, digits)
const inch = (value: number) => asTyped(value, 'inch')

describe('how far the length wanders', () => {
  it('bars by their tolerance, or by what some of them measured', () => {
    expect(barRange({ known: 'tolerance', diameter: inch(1), spread: inch(0.002) }, 'inch')).toEqual({
      least: near(0.999),
      greatest: near(1.001),
    })
    // Mean 7/3: squares of 4/3, 1/3 and 5/3 are 42/9, over 2.
    expect(barRange({ known: 'measured', diameters: [inch(1), inch(2), inch(4)] }, 'inch')).toEqual({
      least: 1,
      greatest: 4,
      measured: 3,
      deviation: near(Math.sqrt(42 / 18)),
    })
    const takes = (diameter: number, spread: number) =>
      bars.safeParse({ known: 'tolerance', diameter: inch(diameter), spread: inch(spread) }).success
    expect([takes(1, 0), takes(1, 0.99), takes(1, 1), takes(0, 0)]).toEqual([true, true, false, false])
    expect(bars.safeParse({ known: 'measured', diameters: [inch(1), inch(0)] }).success).toBe(false)
  })
  it('ratio by the spread of the bars, and the stop; its doubt by the ratio and half of the stop', () => {
    // 3 x .002 + .0005; half of the rule x .002, half of .0005.
    const found = lengthSpread(grip({}))
    expect(found).toMatchObject({
      value: near(0.0065),
      ratio: 3,
      doubt: { value: near(Math.hypot(0.001, 0.00025)) },
      needs: near(0.0165),
      needsDoubt: near(Math.hypot(0.001, 0.00025)),
      toFace: { value: near(0.0165) },
    })
    expect(lengthSpread(grip({ operation: 'second' }))).toMatchObject({
      needs: near(0.013),
      needsDoubt: near(2 * Math.hypot(0.001, 0.00025)),
    })
    const ratio = (of: Partial<Grip>) => {
      const line = lengthSpread(grip(of)).working[0]
      return `${line?.arithmetic} = ${line?.gives}`
    }
    expect(ratio({})).toBe('rule of thumb = 3.000')
    expect(ratio({ collet: usualCollet('5c') })).toBe('1 / (2 x tan 10°) = 2.836')
    expect(
      ratio({ collet: { ...usualCollet('5c'), ratio: { from: 'measured', ratio: 2.5, doubt: 0.1 } } }),
    ).toBe('measured = 2.500')
    expect(ratio({ measuredRatio: { value: 2.2, doubt: 0.1 } })).toBe('measured on this chuck = 2.200')
    expect(ratio({ stop: 'chuck-face' })).toBe('the stop stays = 0')
    // What is measured of a chuck does not make a stop move that stays.
    expect(ratio({ stop: 'chuck-face', measuredRatio: { value: 2.2, doubt: 0.1 } })).toBe(
      'the stop stays = 0',
    )
    expect(ratio({ collet: usualCollet('dead-length') })).toBe('nothing moves along = 0')
    expect(
      lengthSpread(grip({}))
        .working.slice(1)
        .map(({ arithmetic, gives }) => `${arithmetic} = ${gives}`),
    ).toEqual(['1.0010 - 0.9990 = 0.0020', '3.000 x 0.0020 + 0.0005 = 0.0065'])
  })
  it('is judged by what is left to face, or by half of what the part allows', () => {
    const first = (of: Partial<Grip>) => lengthSpread(grip(of)).findings[0]?.says
    expect(first({ allowed: 0.016 })).toBe('Leave at least 0.0165 in to face; 0.0160 in is not enough.')
    expect(first({ allowed: 0.017 })).toBe('Up to 0.0175 in may be needed to face; 0.0170 in is left.')
    expect(first({ allowed: 0.0176 })).toBeUndefined()
    const second = (allowed: number) => first({ operation: 'second', allowed })
    expect(second(0.0064)).toBe('The length will wander by 0.0065 in; the part allows 0.0064 in.')
    expect(second(0.01)).toBe(
      'The length will wander by 0.0065 in: more than half of the 0.0100 in that the part allows.',
    )
    expect(second(0.014)).toBe('The spread may be up to 0.0075 in; half of 0.0140 in is for it.')
    expect(second(0.0151)).toBeUndefined()
    const fits = (of: Partial<Grip>) =>
      lengthSpread(grip(of)).findings.find(({ code }) => code === 'does-not-fit')?.why
    expect(fits({ collet: usualCollet('three-jaw'), stop: 'collet' })).toBe('It belongs to a collet.')
    expect(fits({ stop: 'jaw-shoulder' })).toBe('It belongs to jaws.')
    expect(fits({})).toBeUndefined()
  })
  it('a few bars say less than a batch; many that vary widely say how wide', () => {
    const notes = (measured: number, deviation: number) =>
      lengthSpread(
        grip({ range: { least: 0.999, greatest: 1.001, measured, deviation }, allowed: 1 }),
      ).findings.map(({ says }) => says)
    expect(notes(4, 0.001)).toEqual(['4 bars were measured; ten tell more.'])
    // Six deviations against one and a half times what was measured, .003.
    expect(notes(5, 0.0006)).toEqual(['A whole batch may spread over 0.0036 in.'])
    expect(notes(5, 0.0004)).toEqual([])
    expect(lengthSpread(grip({ allowed: 1 })).findings).toEqual([])
  })
  it('every collet with every stop has its place, and says why', () => {
    const ranked = rankPairs({
      collets: [usualCollet('unknown')],
      operation: 'first',
      unit: 'inch',
      range: { least: 0.999, greatest: 1.001 },
      allowed: 0.0155,
      measured: new Map(),
    })
    const of = (stop: string, all = ranked) => all.find((each) => each.stop === stop)
    expect(of('collet')).toMatchObject({
      place: 'too-wide',
      reason: expect.stringContaining(' 0.0010 in more than is left to face.'),
    })
    expect(of('chuck-face')?.place).toBe('good')
    const second = rankPairs({
      collets: [usualCollet('unknown')],
      operation: 'second',
      unit: 'inch',
      range: { least: 0.999, greatest: 1.001 },
      allowed: 0.012,
      measured: new Map(),
    })
    expect(of('collet', second)?.reason).toContain(' 0.0005 in more than half of what the part allows.')
    const measured = (allowed: number) =>
      rankPairs({
        collets: [usualCollet('unknown')],
        operation: 'first',
        unit: 'inch',
        range: { least: 0.999, greatest: 1.001 },
        allowed,
        measured: new Map([['unknown', { value: 3, doubt: 0.1 }]]),
      })
    // Measured to a tenth it is .0165 +/- .0003.
    const close = measured(0.017)
    expect(of('collet', close)?.place).toBe('good')
    expect(of('collet', measured(0.0166))).toMatchObject({
      place: 'close',
      reason: expect.stringMatching(/ Close: measure the ratio first\.$/),
    })
    expect(byStop(close).length).toBeLessThanOrEqual(close.length)
  })
})

describe('a ratio from bars that were measured', () => {
  const pairs = (...of: [number, number][]) =>
    of.map(([diameter, length]) => ({ diameter: inch(diameter), length: inch(length) })) as MeasuredPairs
  const pull: Moving = { value: 3, doubt: 0.2, way: 1 }
  const push: Moving = { ...pull, way: -1 }
  const stays: Moving = { value: 0, doubt: 0, way: 1 }
  const fit = (of: MeasuredPairs, what: 'face' | 'length' = 'face', expected = pull) => {
    const found = fitRatio(of, what, expected, 'inch')
    if (!found) throw new Error('no ratio')
    return found
  }
  const rising = pairs([0.99, 0.1], [1, 0.13], [1.01, 0.16])
  const falling = pairs([0.99, 0.16], [1, 0.13], [1.01, 0.1])
  it('is the slope, with the sign of what was measured and of the way that it closes', () => {
    for (const [of, what, expected, slope] of [
      [rising, 'face', pull, 3],
      [falling, 'length', pull, -3],
      [falling, 'face', push, -3],
      [rising, 'length', push, 3],
    ] as const)
      expect(fit(of, what, expected)).toMatchObject({
        value: near(3),
        ofCollet: true,
        line: { at: near(1), length: near(0.13), slope: near(slope) },
        findings: [],
      })
    // Root of the sum of the squares of .01 0 .01, about a scatter of .001: residuals .0005 -.001 .0005, over one degree.
    const rough = fit(pairs([0.99, 0.1005], [1, 0.129], [1.01, 0.1605]))
    expect(rough.scatter).toBeCloseTo(Math.sqrt(0.0005 ** 2 + 0.001 ** 2 + 0.0005 ** 2), 9)
    expect(rough.doubt).toBeCloseTo(rough.scatter / Math.sqrt(0.0002), 9)
  })
  it('says what is the matter with it', () => {
    const says = (...of: Parameters<typeof fit>) => fit(...of).findings[0]?.says
    expect(says(falling, 'face')).toBe(
      'Larger bars stood further in; with this collet and stop they stand further out.',
    )
    expect(says(rising, 'face', push)).toBe(
      'Larger bars stood further out; with this collet and stop they stand further in.',
    )
    expect(says(rising, 'length')).toBe(
      'Larger bars came out longer; with this collet and stop they come out shorter.',
    )
    expect(says(falling, 'length', push)).toBe(
      'Larger bars came out shorter; with this collet and stop they come out longer.',
    )
    expect(says(pairs([0.99, 0.12], [1, 0.13], [1.01, 0.14]))).toBe(
      'This chuck moves 1.00 to 1; 3.00 to 1 was expected.',
    )
    expect(fit(pairs([0.99, 0.12], [1, 0.13], [1.01, 0.14])).findings[0]?.fix).toContain(
      'Use the measured ratio',
    )
    // A stop that should stay: within twice the doubt and .05 it does.
    const still = fit(pairs([0.99, 0.13], [1, 0.1304], [1.01, 0.1308]), 'face', stays)
    expect(still.findings[0]).toMatchObject({ code: 'stop-stays' })
    expect(still.ofCollet).toBe(false)
    const moves = fit(pairs([0.99, 0.13], [1, 0.1308], [1.01, 0.1316]), 'face', stays)
    expect(moves.findings[0]).toMatchObject({
      code: 'ratio-differs',
      fix: expect.stringContaining('what lets the stop move'),
    })
    // Expected to 3 +/- .2: .45 off is within it and .05, .46 is not.
    const off = (ratio: number) =>
      fit(pairs([0.99, 0.13 - 0.01 * ratio], [1, 0.13], [1.01, 0.13 + 0.01 * ratio])).findings.length
    expect([off(3.44), off(3.46), off(2.56), off(2.54)]).toEqual([0, 1, 0, 1])
    // Bars that hardly differ, lengths that do.
    expect(fit(pairs([1, 0.13], [1.0001, 0.135], [1.0002, 0.13])).findings[0]?.code).toBe('ratio-unclear')
    // Hardly backwards is not backwards.
    expect(fit(pairs([0.99, 0.1302], [1, 0.13], [1.01, 0.1304]), 'face', stays).findings[0]?.code).toBe(
      'stop-stays',
    )
  })
  it('is drawn with the line that was expected, both through the middle of the bars', () => {
    const chart = chartOfRatio(rising, 'face', fit(rising), { ...pull, value: 2 }, 'inch')
    expect(chart.lines).toEqual([
      { diameter: 0.99, fitted: near(0.1), expected: near(0.11) },
      { diameter: 1.01, fitted: near(0.16), expected: near(0.15) },
    ])
    const other = chartOfRatio(falling, 'length', fit(falling, 'length'), { ...pull, value: 2 }, 'inch')
    expect(other.lines[0]?.expected).toBeCloseTo(0.15, 9)
    expect(
      chartOfRatio(falling, 'face', fit(falling, 'face', push), { ...push, value: 2 }, 'inch').lines[0]
        ?.expected,
    ).toBeCloseTo(0.15, 9)
  })
  it('lists are read to two hundred lines, each with its number', () => {
    const many = (count: number) => Array.from({ length: count }, () => '1.0').join('\n')
    expect(readDiameters(many(200), 'inch').ok).toBe(true)
    expect(readDiameters(many(201), 'inch')).toMatchObject({
      says: 'That is 201 lines; at most 200 are taken.',
    })
    expect(readDiameters(`1 2\n${many(199)}`, 'inch')).toMatchObject({
      says: 'That is 201 diameters; at most 200 are taken.',
    })
    expect(readDiameters(`1 2\n${many(198)}`, 'inch').ok).toBe(true)
    expect(readDiameters('1\nx', 'inch')).toMatchObject({ says: expect.stringMatching(/^Line 2: /) })
    expect(readPairs('1 2\n3', 'inch')).toMatchObject({
      says: expect.stringMatching(/^Line 2: write two numbers/),
    })
    expect(readPairs('1 2\n1,000 2', 'inch')).toMatchObject({ says: expect.stringMatching(/^Line 2/) })
  })
})
