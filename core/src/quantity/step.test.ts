import * as fc from 'fast-check'
import Fraction from 'fraction.js'
import { describe, expect, it } from 'vitest'
import { readLength, STEPS, stepped } from './index.ts'

describe('a length that is put up or down', () => {
  it.each([
    ['1.2500', 'inch', '.001', '1.2510'],
    ['1.25', 'inch', '.001', '1.251'],
    ['1.25', 'inch', '-.0001', '1.2499'],
    ['1/2', 'inch', '.001', '0.501'],
    ['-.0005', 'inch', '.001', '0.0005'],
    ['-.001', 'inch', '.001', '0.000'],
    ['', 'mm', '-.01', '-0.01'],
    ['12.7', 'mm', '.001', '12.701'],
    ['.5in', 'mm', '.01', '12.71'],
  ] as const)('%s %s by %s is %s', (text, unit, step, is) => expect(stepped(text, unit, step)).toBe(is))

  it('is nothing where what is typed is no length', () => {
    for (const text of ['1..2', 'x', '1,2', '1/0', '-']) expect(stepped(text, 'inch', '.001')).toBeUndefined()
  })

  it('is the exact sum (fraction.js), comes back the other way, and loses no decimal that was typed', () => {
    const typed = fc.tuple(
      fc.integer({ min: -999_999_999, max: 999_999_999 }),
      fc.integer({ min: 0, max: 6 }),
    )
    const step = fc
      .constantFrom(...STEPS.inch, ...STEPS.mm)
      .chain((each) => fc.constantFrom(each, `-${each}`))
    fc.assert(
      fc.property(typed, step, ([whole, decimals], by) => {
        const text = (whole / 10 ** decimals).toFixed(decimals)
        // What is beyond any travel is no length.
        fc.pre(readLength(text, 'mm').ok)
        const up = stepped(text, 'mm', by)
        expect(up).toBeDefined()
        expect(
          new Fraction(up ?? '').equals(new Fraction(text).add(new Fraction(by.replace('.', '0.')))),
        ).toBe(true)
        // One step further it may be beyond any travel, which the field says.
        fc.pre(readLength(up ?? '', 'mm').ok)
        const back = stepped(up ?? '', 'mm', by.startsWith('-') ? by.slice(1) : `-${by}`)
        expect(new Fraction(back ?? '').equals(new Fraction(text))).toBe(true)
      }),
    )
  })
})
