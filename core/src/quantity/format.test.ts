import fc from 'fast-check'
import Fraction from 'fraction.js'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { depth } from '../../testing/depth.ts'
import { computedLength, typedLength } from './entry.ts'
import { draftRead, lengthFields } from './field-problems.ts'
import {
  digitsOfStep,
  type FieldProblems,
  fixedDigits,
  formatAsMeant,
  formatLength,
  formatLess,
  formatShort,
  formatTerm,
  readDegrees,
  readDuration,
  readLength,
  readRows,
  roundTo,
  writeDuration,
} from './index.ts'
import { fromDecimal, rational, roundHalfAway, toNumber } from './rational.ts'

describe('digits', () => {
  it('are rounded half away from zero on the digits that are printed, by a general library of fractions', () => {
    // A decimal as it is printed: fifteen digits at most come back from a double as they were.
    const decimal = fc.tuple(
      fc.oneof(
        fc.integer({ min: -2_000_000, max: 2_000_000 }).map((n) => 5 * n),
        fc.integer({ min: -99_999_999, max: 99_999_999 }),
      ),
      fc.integer({ min: -8, max: 9 }),
    )
    fc.assert(
      fc.property(decimal, fc.integer({ min: 0, max: 7 }), ([n, places], digits) => {
        const value = Number(`${n}e${-places}`)
        const magnitude = new Fraction(Math.abs(n)).div(new Fraction(10).pow(places) as Fraction)
        const scaled = magnitude.mul(new Fraction(10).pow(digits) as Fraction)
        const whole = scaled.add(new Fraction(1, 2)).floor()
        const wanted = (whole.n as bigint).toString().padStart(digits + 1, '0')
        const plain = digits === 0 ? wanted : `${wanted.slice(0, -digits)}.${wanted.slice(-digits)}`
        const sign = value < 0 && /[1-9]/.test(plain) ? '-' : ''
        expect(fixedDigits(value, digits)).toBe(sign + plain)
        expect(roundTo(value, digits)).toBe(Number(sign + plain))
      }),
      depth(500, 5000),
    )
  })

  it('keep half steps, whole numbers, large numbers and no negative zero', () => {
    expect(
      [1.0005, 0.0005, 0.49995, -0.00004, -0, 0, 1, 9.99995].map((value) => fixedDigits(value, 4)),
    ).toEqual(['1.0005', '0.0005', '0.5000', '0.0000', '0.0000', '0.0000', '1.0000', '10.0000'])
    expect([0.5, 1.5, 2.5, -0.5, 0.49].map((value) => fixedDigits(value, 0))).toEqual([
      '1',
      '2',
      '3',
      '-1',
      '0',
    ])
    // A double of these has no digits left behind the point: they are computed exactly.
    expect(fixedDigits(123_456_789_012.5, 4)).toBe('123456789012.5000')
    expect(fixedDigits(1e12, 1)).toBe('1000000000000.0')
    expect(fixedDigits(1.005, 2)).toBe('1.01')
    expect(fixedDigits(8.345, 2)).toBe('8.35')
  })

  it('of a length are as many as were meant, and a term of a sum has its sign', () => {
    expect(formatAsMeant(0.00005, 'inch')).toBe('0.00005 in')
    expect(formatAsMeant(0.1, 'mm')).toBe('0.100 mm')
    expect(formatAsMeant(1 / 3, 'inch')).toBe('0.3333333 in')
    expect([formatTerm(1, 'inch'), formatTerm(-0.25, 'inch'), formatTerm(0, 'mm')]).toEqual([
      '+ 1.0000',
      '- 0.2500',
      '+ 0.000',
    ])
    expect([formatLess(1, 'inch'), formatLess(-0.25, 'inch'), formatLess(0, 'inch')]).toEqual([
      '- 1.0000',
      '+ 0.2500',
      '- 0.0000',
    ])
    expect(formatLength(0.5, 'mm', { plus: true })).toBe('+0.500')
  })

  it('of a step are those that it shows', () => {
    expect([0.0001, 0.0005, 0.001, 0.002, 0.01, 0.1, 1, 10, 0.00005].map(digitsOfStep)).toEqual([
      4, 4, 3, 3, 2, 1, 0, 0, 5,
    ])
  })
})

describe('exact fractions', () => {
  const big = fc.bigInt({ min: -(10n ** 30n), max: 10n ** 30n })
  const under = fc.bigInt({ min: 1n, max: 10n ** 30n })
  /** How far a double is from a fraction, exactly: numerator and denominator. A double is a whole number over a power of two. */
  const offBy = (value: number, numerator: bigint, denominator: bigint): [bigint, bigint] => {
    let [whole, power] = [value, 1n]
    while (!Number.isInteger(whole)) [whole, power] = [whole * 2, power * 2n]
    const off = BigInt(whole) * denominator - numerator * power
    return [off < 0n ? -off : off, power * denominator]
  }
  it('come to the nearest double: no neighbour is nearer', () => {
    fc.assert(
      fc.property(big, under, (numerator, denominator) => {
        const value = toNumber(rational(numerator, denominator))
        if (value === 0 || !Number.isFinite(value)) return
        const step = Math.abs(value) * Number.EPSILON
        const [own, ownOf] = offBy(value, numerator, denominator)
        for (const other of [value - step, value + step]) {
          const [far, farOf] = offBy(other, numerator, denominator)
          if (other !== value) expect(own * farOf <= far * ownOf).toBe(true)
        }
        expect(Math.sign(value)).toBe(numerator < 0n ? -1 : 1)
      }),
    )
    // Ties go to the even one; a bit that is shifted out is not forgotten.
    expect(toNumber(rational(2n ** 53n + 1n))).toBe(2 ** 53)
    expect(toNumber(rational(2n ** 53n + 3n))).toBe(2 ** 53 + 4)
    expect(toNumber(rational((2n ** 53n + 1n) * 10n ** 20n + 1n, 10n ** 20n))).toBe(2 ** 53 + 2)
    expect(toNumber(rational(1n, 10n ** 40n))).toBe(1e-40)
    expect(toNumber(rational(10n ** 40n))).toBe(1e40)
    expect(Object.is(toNumber(rational(0n, 7n)), 0)).toBe(true)
  })

  it('are read from decimals as they are printed, with an exponent too', () => {
    for (const text of ['12.75', '.5', '1e-7', '1.5e+21', '2.5e3', '0', '100', '1e0', '12.5e1'])
      expect(toNumber(fromDecimal(text))).toBe(Number(text))
  })

  it('are rounded to whole numbers, halves away from zero', () => {
    const cases = [
      [1n, 2n],
      [-1n, 2n],
      [3n, 2n],
      [-3n, 2n],
      [1n, 3n],
      [-1n, 3n],
      [2n, 3n],
      [-2n, 3n],
      [0n, 5n],
      [7n, 1n],
      [-7n, 1n],
    ] as const
    expect(cases.map(([n, d]) => roundHalfAway(rational(n, d)))).toEqual([
      1n,
      -1n,
      2n,
      -2n,
      0n,
      0n,
      1n,
      -1n,
      0n,
      7n,
      -7n,
    ])
  })
})

describe('limits of what is typed', () => {
  it('hold at their very ends', () => {
    const says = (text: string) => {
      const read = readLength(text, 'inch')
      return read.ok ? read.value : read.says
    }
    expect(says('100000')).toBe(100_000)
    expect(says('100000.1')).toContain('longer than any machine')
    expect(says('-100000')).toBe(-100_000)
    expect(says(`.${'1'.repeat(59)}`)).toBeCloseTo(1 / 9, 12)
    expect(says(`.${'1'.repeat(60)}`)).toContain('61 characters')
    expect(says('1-3/3')).toContain('two ways')
    expect(says('1-2/3')).toBeCloseTo(5 / 3, 12)
    expect(readDegrees('360')).toEqual({ ok: true, value: 360 })
    expect(readDegrees('-360')).toEqual({ ok: true, value: -360 })
    expect(readDegrees('360.1').ok).toBe(false)
    expect(readDuration('168 h')).toMatchObject({ ok: true, seconds: 604_800 })
    expect(readDuration('168 h 1 s').ok).toBe(false)
    expect([59.999, 60, 0, 3600].map((each) => writeDuration(each))).toEqual(['59.999', '1:00', '0', '1 h'])
    expect([0, 3600, 5400, 60].map((each) => writeDuration(each, 'hours'))).toEqual([
      '0:00:00',
      '1 h',
      '1:30:00',
      '0:01:00',
    ])
    expect([9.99, 9.995, 10, 59.94, 59.95].map(formatShort)).toEqual([
      '9.99 s',
      '10.0 s',
      '10.0 s',
      '59.9 s',
      '1:00',
    ])
  })

  it('of a list are told with the line, and hold at their very ends', () => {
    const XY = { columns: ['X', 'Y'], needs: 'Two numbers.', least: 1, most: 3 }
    expect(readRows('1 2\n\n3 4\n5 6', 'inch', XY).ok).toBe(true)
    expect(readRows('1 2\n3 4\n5 6\n7 8', 'inch', XY)).toMatchObject({
      ok: false,
      says: 'That is 4 lines; at most 3 are taken.',
    })
    expect(readRows('1 2\n\nx y', 'inch', XY)).toMatchObject({
      ok: false,
      says: expect.stringContaining('Line 3'),
    })
    expect(readRows('1 2', 'inch', { ...XY, least: 2 })).toMatchObject({ ok: false, empty: true })
  })
})

describe('the end of reading a form', () => {
  const schema = z.object({
    points: z.array(z.object({ at: z.number() })).min(1, 'One at least.'),
    name: z.string().min(1, 'A name.'),
  })
  it('says what the schema has against fields that are understood, and nothing twice', () => {
    const problems: FieldProblems = {}
    expect(lengthFields('inch', problems)('points.0.at', '1.5')).toEqual({
      text: '1.5',
      value: 1.5,
      unit: 'inch',
    })
    expect(problems).toEqual({})
    expect(draftRead(schema.safeParse({ points: [{ at: 1 }], name: 'A' }), problems)).toEqual({
      ok: true,
      value: { points: [{ at: 1 }], name: 'A' },
    })
    expect(draftRead(schema.safeParse({ points: [], name: '' }), {})).toEqual({
      ok: false,
      problems: { points: { says: 'One at least.', empty: false }, name: { says: 'A name.', empty: false } },
    })
    // A field within `points` has its own sentence already: the list has nothing to add. The name has.
    const told: FieldProblems = {}
    lengthFields('inch', told)('points.0.at', 'x')
    const read = draftRead(schema.safeParse({ points: undefined, name: '' }), told)
    expect(read.ok || Object.keys(read.problems)).toEqual(['points.0.at', 'name'])
    const typed: FieldProblems = { name: { says: 'Type it.', empty: true } }
    const both = draftRead(schema.safeParse({ points: [{ at: 1 }], name: '' }), typed)
    expect(both.ok || both.problems).toEqual({ name: { says: 'Type it.', empty: true } })
    // Understood by the schema, but not by a field: it is not taken.
    expect(
      draftRead(schema.safeParse({ points: [{ at: 1 }], name: 'A' }), { name: { says: 'No.', empty: false } })
        .ok,
    ).toBe(false)
  })
})

describe('a length that was computed', () => {
  it('stands as it would be typed, and reads back as itself, however small it is', () => {
    for (const value of [0, -0, 0.1 + 0.2, -15.2, 1e-7, 1e-12, 1234.5, -0.000000049, 2 / 3])
      for (const unit of ['inch', 'mm'] as const) {
        const length = computedLength(value, unit)
        expect(typedLength.safeParse(length).success, String(value)).toBe(true)
        expect(Math.abs(length.value - value)).toBeLessThanOrEqual(5e-10)
      }
  })
})
