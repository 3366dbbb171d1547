import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { isEasilyGuessed, MAY, mayAlso, mayStrike, newPin, sameInitials } from './index.ts'

describe('a PIN', () => {
  // Repetitive and sequential characters are refused by NIST SP 800-63B, 5.1.1.2, whose examples are 'aaaaaa' and '1234abcd' (from memory).
  it.each(['0000', '1111', '99999999', '1234', '2345', '56789', '7890', '4321', '9876', '3210', '0987'])(
    'of digits that repeat or count on is refused: %s',
    (pin) => {
      expect(isEasilyGuessed(pin)).toBe(true)
      expect(newPin.safeParse(pin).error?.issues[0]?.message).toMatch(/tried first/)
    },
  )
  it.each(['2580', '1123', '1357', '90210', '13579024'])('of any others is taken: %s', (pin) =>
    expect(newPin.parse(pin)).toBe(pin),
  )
  it('is 4 to 8 digits, and of those of four all but 30 are taken', () => {
    const all = Array.from({ length: 10_000 }, (_, n) => String(n).padStart(4, '0'))
    // Ten that repeat, ten that count up and ten that count down, from each digit on.
    expect(all.filter(isEasilyGuessed)).toHaveLength(30)
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        expect(newPin.safeParse(text).success).toBe(/^[0-9]{4,8}$/.test(text) && !isEasilyGuessed(text))
      }),
    )
    for (const text of ['123', '135791357', '25 80', '٢٥٨٠', '2580\n'])
      expect(newPin.safeParse(text).success).toBe(false)
  })
})

describe('what somebody may do', () => {
  it('is what those who may less may, and more', () => {
    for (const [n, is] of MAY.entries())
      for (const [m, wanted] of MAY.entries()) expect(mayAlso(is, wanted)).toBe(n >= m)
  })
  it('is to strike out their own, a lead anybody’s, a looker nothing', () => {
    const strikes = (may: (typeof MAY)[number], initials: string) =>
      mayStrike({ may, initials }, { by: 'RT' })
    expect(MAY.map((may) => [strikes(may, 'RT'), strikes(may, 'rt '), strikes(may, 'KM')])).toEqual([
      [false, false, false],
      [true, true, false],
      [true, true, true],
    ])
    expect(sameInitials('RT', 'R')).toBe(false)
  })
})
