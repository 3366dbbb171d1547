import fc from 'fast-check'
import Fraction from 'fraction.js'
import { describe, expect, it } from 'vitest'
import { describeTyped, readLength, typedInOther, typedLength } from './entry.ts'

const value = (text: string, unit: 'inch' | 'mm' = 'inch') => {
  const entry = readLength(text, unit)
  return entry.ok ? entry.value : entry.says
}

describe('a length as a machinist writes it', () => {
  // The forms that product.md names; the values are plain arithmetic, 25.4 mm to the inch (NIST SP 811, B.8).
  it.each([
    ['.5', 'inch', 0.5],
    ['1/2', 'inch', 0.5],
    ['1-1/2', 'inch', 1.5],
    ['1 1/2', 'inch', 1.5],
    ['-1-1/2', 'inch', -1.5],
    ['2-.125', 'inch', 1.875],
    ['2 - 1/8', 'inch', 1.875],
    ['1 - 1/2', 'inch', 0.5],
    ['3+1-1/2', 'inch', 4.5],
    ['-.0005', 'inch', -0.0005],
    ['\u2212.0005', 'inch', -0.0005],
    ['12.7mm', 'inch', 0.5],
    ['0.5in', 'mm', 12.7],
    ['1/2"', 'mm', 12.7],
    ['5 thou', 'inch', 0.005],
    ['1in+2mm', 'mm', 27.4],
    ['2in-.125in', 'mm', 47.625],
    ['0.1in', 'mm', 2.54],
    ['-0', 'inch', 0],
  ] as const)('%s in a field in %s is %d', (text, unit, expected) => {
    expect(value(text, unit)).toBe(expected)
  })

  it.each([
    ['abc', /is not a length/],
    ['1/0', /divides by zero/],
    ['12..5', /two decimal points/],
    ['1.2.3', /two decimal points/],
    ['12,7', /comma/],
    ['1,234.5', /comma/],
    ['1e5', /exponent/],
    ['2--.5', /two signs/],
    ['2+', /ends with a sign/],
    ['1-5/4', /two ways/],
    ['1.5/2', /two whole numbers/],
    ['12 ft', /"ft" is not understood/],
    ['½½', /not/],
    ['123456', /longer than any machine/],
    ['9'.repeat(500), /500 characters/],
    ['2-.125mm', /mixes numbers/],
  ])('%s gets a sentence', (text, says) => {
    expect(value(text)).toMatch(says)
  })

  it('reads every form back to the number that an independent library of fractions gives', () => {
    const digits = fc.integer({ min: 0, max: 99_999 })
    // Two of them in inches stay below the longest length that a field takes.
    const whole = fc.integer({ min: 0, max: 49_999 })
    const proper = fc
      .integer({ min: 2, max: 64 })
      .chain((d) => fc.tuple(fc.integer({ min: 1, max: d - 1 }), fc.constant(d)))
    const number = fc.oneof(
      fc.tuple(whole, digits).map(([a, b]) => ({ text: `${a}.${b}`, is: new Fraction(`${a}.${b}`) })),
      digits.map((a) => ({ text: `.${a}`, is: new Fraction(`0.${a}`) })),
      proper.map(([n, d]) => ({ text: `${n}/${d}`, is: new Fraction(n, d) })),
      fc
        .tuple(fc.integer({ min: 1, max: 400 }), proper, fc.constantFrom('-', ' '))
        .map(([w, [n, d], gap]) => ({
          text: `${w}${gap}${n}/${d}`,
          is: new Fraction(w).add(new Fraction(n, d)),
        })),
    )
    const suffix = fc.constantFrom(
      { text: 'mm', inInch: new Fraction(5, 127) },
      { text: ' in', inInch: new Fraction(1) },
      { text: 'thou', inInch: new Fraction(1, 1000) },
    )
    const signed = fc.tuple(fc.constantFrom('', '+', '-'), number, suffix)
    fc.assert(
      fc.property(
        signed,
        fc.array(fc.tuple(fc.constantFrom(' + ', ' - '), number, suffix), { maxLength: 1 }),
        (first, more) => {
          let sum = new Fraction(0)
          let text = ''
          for (const [sign, { text: written, is }, unit] of [first, ...more]) {
            text += `${sign}${written}${unit.text}`
            const inches = is.mul(unit.inInch)
            sum = sign.trim() === '-' ? sum.sub(inches) : sum.add(inches)
          }
          const entry = readLength(text, 'inch')
          if (!entry.ok) throw new Error(`${text}: ${entry.says}`)
          const exact = sum.valueOf()
          expect(Math.abs(entry.value - exact)).toBeLessThanOrEqual(Math.abs(exact) * 2 ** -52)
          expect(typedLength.safeParse({ text, value: entry.value, unit: 'inch' }).success).toBe(true)
        },
      ),
    )
  })

  it('never throws, whatever is typed', () => {
    const anything = fc.oneof(fc.string({ unit: 'binary' }), fc.stringMatching(/^[-+0-9./ inm"]*$/))
    fc.assert(fc.property(anything, (text) => typeof readLength(text, 'mm').ok === 'boolean'))
  })

  it('keeps what was typed beside what it meant, and refuses a pair that does not agree', () => {
    expect(describeTyped({ text: '12.7mm', value: 0.5, unit: 'inch' })).toBe('12.7mm = 0.5000 in')
    expect(describeTyped({ text: '.5', value: 0.5, unit: 'inch' })).toBe('0.5000 in')
    expect(typedLength.safeParse({ text: '1/2', value: 0.6, unit: 'inch' }).success).toBe(false)
  })
})

describe('a typed length in the other unit', () => {
  it('is as it would be typed there (25.4 mm to the inch exactly, NIST SP 811, B.8)', () => {
    expect(typedInOther('1', 'inch', 'mm')).toBe('25.4')
    expect(typedInOther('-30', 'inch', 'mm')).toBe('-762')
    expect(typedInOther('1-1/2', 'inch', 'mm')).toBe('38.1')
    expect(typedInOther('12.7', 'mm', 'inch')).toBe('0.5')
    // What says its own unit is that length in the other too.
    expect(typedInOther('25.4mm', 'inch', 'mm')).toBe('25.4')
    expect(typedInOther('.0001', 'inch', 'mm')).toBe('0.00254')
    expect([typedInOther('', 'inch', 'mm'), typedInOther('x', 'inch', 'mm')]).toEqual([undefined, undefined])
  })

  it('comes back as it was, to four digits of an inch', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1_000_000, max: 1_000_000 }), (tenths) => {
        const text = String(tenths / 10_000)
        const there = typedInOther(text, 'inch', 'mm') ?? ''
        expect(Number(typedInOther(there, 'mm', 'inch'))).toBeCloseTo(Number(text), 6)
      }),
    )
  })
})
