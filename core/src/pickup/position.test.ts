import fc from 'fast-check'
import { max, mean, min } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { meanOf, positionReading, readPosition, spreadOf, valuesOf } from './position.ts'

const values = fc.array(
  fc.integer({ min: -200_000, max: 200_000 }).map((n) => n / 10_000),
  { minLength: 1, maxLength: 20 },
)

describe('a position that is read several times', () => {
  it('has the mean, spread and standard deviation of simple-statistics, typed as text', () => {
    fc.assert(
      fc.property(values, (readings) => {
        const read = readPosition(readings.join('; '), 'inch')
        if (!read.ok) throw new Error(read.says)
        expect(valuesOf(read.value)).toEqual(readings)
        expect(meanOf(read.value)).toBeCloseTo(mean(readings), 9)
        expect(spreadOf(read.value)).toBeCloseTo(max(readings) - min(readings), 12)
        expect(positionReading.safeParse(read.value).success).toBe(true)
      }),
    )
  })

  it('takes a unit on each, and a semicolon too many', () => {
    const read = readPosition('25.4mm; 1-1/2 ;', 'inch')
    expect(read.ok && valuesOf(read.value)).toEqual([1, 1.5])
  })

  it('says what is wrong with any of them', () => {
    expect(readPosition('', 'inch')).toMatchObject({ ok: false, empty: true })
    expect(readPosition('-9.2; -9,2', 'inch')).toMatchObject({
      ok: false,
      says: expect.stringMatching(/comma/),
    })
    expect(readPosition(Array.from({ length: 21 }, () => '1').join(';'), 'inch')).toMatchObject({
      ok: false,
      says: 'That is 21 readings; at most 20 are taken.',
    })
  })

  it('is refused where a repeat does not agree with its own text', () => {
    const forged = {
      text: '1',
      value: 1,
      unit: 'inch',
      repeats: [{ text: '2', value: 3, unit: 'inch' }],
    }
    expect(positionReading.safeParse(forged).success).toBe(false)
  })
})
