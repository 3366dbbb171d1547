import fc from 'fast-check'
import Fraction from 'fraction.js'
import { describe, expect, it } from 'vitest'
import { fixedDigits, formatAsMeant, formatLength } from './format.ts'
import { convertLength } from './unit.ts'

describe('conversion', () => {
  // Inch fractions in mm as handbooks print them; exact, since 1 in = 25.4 mm (NIST SP 811, B.8).
  it.each([
    [1 / 64, 0.396875],
    [5 / 16, 7.9375],
    [3 / 8, 9.525],
    [0.1, 2.54],
    [0.7, 17.78],
    [63 / 64, 25.003125],
  ])('%d inch is %d mm, and back', (inch, mm) => {
    expect(convertLength(inch, 'inch', 'mm')).toBe(mm)
    expect(convertLength(mm, 'mm', 'inch')).toBe(inch)
  })

  it('is the nearest double to the exact product', () => {
    fc.assert(
      fc.property(fc.integer({ min: -3_000_000, max: 3_000_000 }), (tenths) => {
        const inch = tenths / 10_000
        const exact = new Fraction(tenths, 10_000).mul(127, 5)
        expect(convertLength(inch, 'inch', 'mm')).toBe(exact.valueOf() + 0)
      }),
    )
  })
})

describe('formatting', () => {
  it('writes a length at its usual resolution, with no negative zero', () => {
    expect(formatLength(-14.13119999999, 'inch')).toBe('-14.1312')
    expect(formatLength(12.7, 'mm')).toBe('12.700')
    expect(formatLength(-0.00004, 'inch')).toBe('0.0000')
    expect(formatLength(0.0068, 'inch', { plus: true })).toBe('+0.0068')
    expect(formatAsMeant(0.00005, 'inch')).toBe('0.00005 in')
  })

  it('rounds halves away from zero on the digits as printed, as fraction.js rounds exact decimals', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -10_000_000, max: 10_000_000 }),
        fc.integer({ min: 0, max: 6 }),
        (n, digits) => {
          const exact = new Fraction(n, 100_000).abs().round(digits)
          const text = fixedDigits(n / 100_000, digits)
          expect(Math.abs(Number(text))).toBe(exact.valueOf())
          expect(text.startsWith('-')).toBe(n < 0 && exact.valueOf() !== 0)
        },
      ),
    )
  })
})
