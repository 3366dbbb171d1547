import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { roundTo } from '../quantity/index.ts'
import { BUILT_IN_PROFILES } from './builtin.ts'
import { findOffset, isFinding, offsetNames } from './offsets.ts'
import { type Profile, profile } from './profile.ts'
import { commentText, printedDigits, writeNumber, writeProgram } from './write.ts'

const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]

describe('numbers', () => {
  // A dimension word carries a decimal point, or it may be read in least increments (ISO 6983-1; common practice).
  it('always carry a decimal point, and mean what the profile can print', () => {
    const value = evenly(-999, 999)
    fc.assert(
      fc.property(
        value,
        fc.constantFrom(...BUILT_IN_PROFILES),
        fc.constantFrom('inch' as const, 'mm' as const),
        (v, on, unit) => {
          const text = writeNumber(v, unit, on)
          expect(text).toMatch(/^-?\d*\.\d*$/)
          expect(text).not.toMatch(/^-0*\.0*$/)
          expect(Number(text)).toBe(roundTo(v, printedDigits(on, unit)) + 0)
        },
      ),
    )
  })

  it('look as the profile wants them', () => {
    expect([compact, twoLine, plain].map((on) => writeNumber(-0.5, 'inch', on))).toEqual([
      '-0.5',
      '-.5',
      '-0.5000',
    ])
    expect([compact, twoLine, plain].map((on) => writeNumber(12, 'mm', on))).toEqual(['12.', '12.', '12.000'])
    expect([compact, twoLine, plain].map((on) => writeNumber(0, 'mm', on))).toEqual(['0.', '0.', '0.000'])
  })
})

describe('comments', () => {
  it('carry only what every control can show, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => /^[A-Z0-9 .,:+\-=/'*#]*$/.test(commentText(text))),
    )
    expect(commentText('Ø12 ±0.01 (left) % naïve')).toBe('DIA 12 +/-0.01 LEFT NAIVE')
  })
})

describe('a program', () => {
  const lines = (on: Profile) =>
    writeProgram(
      { title: 'sample', about: ['about'], unit: 'mm', blocks: [{ words: 'M30', does: 'end' }] },
      on,
    ).split('\n')

  it('starts with its number, says the caution first, then the unit with modes cancelled', () => {
    for (const on of BUILT_IN_PROFILES) {
      const text = lines(on).filter((line) => line !== '%')
      expect(text[0]).toMatch(/^O0?5400 [(;]/)
      expect(text[1]).toMatch(/PROVE THIS PROGRAM BEFORE IT IS USED/)
      // A control that cannot turn a program alarms at a G69 in the first line.
      const start = on.rotation ? 'G21 G90 G17 G40 G49 G80 G69 G94' : 'G21 G90 G17 G40 G49 G80 G94'
      expect(text.find((line) => line.includes('G21'))).toContain(start)
    }
    expect(lines(compact)[0]).toBe('%')
    expect(lines(plain)[0]).not.toBe('%')
    expect(lines(twoLine).filter((line) => line.startsWith('N'))).toHaveLength(2)
  })

  it('leaves block comments out where the profile wants the heading only', () => {
    const bare = { ...compact, comments: { ...compact.comments, amount: 'head-only' as const } }
    expect(lines(bare)).toContain('M30')
  })
})

describe('profiles and offsets', () => {
  it('built in: valid, named by trait, and every offset they list can be found', () => {
    for (const on of BUILT_IN_PROFILES) {
      expect(profile.safeParse(on).error).toBeUndefined()
      for (const name of offsetNames(on)) expect(isFinding(findOffset(on, name))).toBe(false)
    }
    // Usual counts (common practice): 99 by their own code, 48 under G54.1.
    expect(BUILT_IN_PROFILES.map((on) => offsetNames(on).length)).toEqual([105, 54, 6])
  })

  it('refuse what cannot be written', () => {
    const says = (change: Partial<Profile>) =>
      profile.safeParse({ ...plain, ...change }).error?.issues[0]?.message
    expect(says({ program: { ...plain.program, number: 54000 } })).toMatch(/more digits/)
    expect(says({ offsets: { ...plain.offsets, standard: ['G54', 'hello'] } })).toMatch(/letter and a number/)
    expect(says({ numbers: { ...plain.numbers, inchDigits: 9 } })).toMatch(/At most 5/)
  })
})
