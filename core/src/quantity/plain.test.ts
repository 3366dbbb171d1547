import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readDegrees, readLength } from './index.ts'
import { plainText } from './plain.ts'

describe('what a keyboard, a drawing or another program puts in', () => {
  const length = (text: string, unit: 'inch' | 'mm' = 'inch') => {
    const read = readLength(text, unit)
    return read.ok ? read.value : read.says
  }
  it.each<[string, number]>([
    ['½', 0.5],
    ['1½', 1.5],
    ['1 ½', 1.5],
    ['2⅜"', 2.375],
    ['1/2”', 0.5],
    ['1/2″', 0.5],
    ["1/2''", 0.5],
    ['\u00a01.250\u00a0in', 1.25],
    ['12.7\u202fmm', 0.5],
    ['–.0005', -0.0005],
    ['−.0005', -0.0005],
    ['2 − .125', 1.875],
    ['1⁄4', 0.25],
    ['\ufeff.5', 0.5],
  ])('%j is the length that it looks like', (text, value) => {
    expect(length(text)).toBeCloseTo(value, 12)
  })
  it('an angle takes its dash, its degree sign and its spaces', () => {
    for (const [text, value] of [
      ['–3°', -3],
      ['−3\u00a0°', -3],
      ['3 deg', 3],
    ] as const)
      expect(readDegrees(text)).toEqual({ ok: true, value })
  })
  it('leaves plain text as it is, and is done after once', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'0123456789.-+/ "inmthou') }), (text) => {
        expect(plainText(text)).toBe(text)
      }),
    )
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'01½⅛–−” \u00a0.') }), (text) => {
        expect(plainText(plainText(text))).toBe(plainText(text))
      }),
    )
  })
})
