import { createHash } from 'node:crypto'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inPlaceOf, LONG_TEXT, mayName, standsApart, textsNamedIn, withoutTexts, withTexts } from './index.ts'

const name = (text: string) => createHash('sha256').update(text, 'utf8').digest('hex')

/** Any JSON with texts about as long as the limit, halves of characters and zeros among them. */
const anyText = fc.oneof(
  fc.string({ unit: 'binary' }),
  fc
    .tuple(
      fc.string({ unit: 'binary', maxLength: 4 }),
      fc.integer({ min: LONG_TEXT - 6, max: LONG_TEXT + 6 }),
      fc.constantFrom('', '\0', '\ud800', '\udc00x', '\u2028'),
    )
    .map(([text, length, odd]) => text + odd + 'N10 G1\n'.repeat(length).slice(0, length - text.length)),
)
const anyData = fc.letrec((tie) => ({
  value: fc.oneof(
    { depthSize: 'small' },
    anyText,
    fc.constantFrom(null, true, 0, -1.5),
    fc.array(tie('value'), { maxLength: 4 }),
    fc.dictionary(fc.oneof(fc.string(), fc.constantFrom('__proto__', 'text-sha256', 'text')), tie('value'), {
      maxKeys: 4,
    }),
  ),
})).value

describe('long texts', () => {
  it('come back as they were, whatever they stood in', () => {
    fc.assert(
      fc.property(anyData, (data) => {
        const texts = new Map<string, string>()
        const json = withoutTexts(data, (text) => {
          texts.set(name(text), text)
          return name(text)
        })
        const stored: unknown = JSON.parse(json)
        expect(textsNamedIn(stored)).toEqual(new Set(texts.keys()))
        expect(mayName(json) || texts.size === 0).toBe(true)
        expect(JSON.stringify(withTexts(stored, (hash) => texts.get(hash)))).toBe(JSON.stringify(data))
      }),
      { numRuns: 400 },
    )
  })

  it('stand apart from a thousand characters on, and only where they come back whole', () => {
    const long = 'G1 X0.\n'.repeat(200)
    expect(standsApart(long)).toBe(true)
    expect(standsApart(long.slice(0, LONG_TEXT))).toBe(true)
    expect(standsApart(long.slice(0, LONG_TEXT - 1))).toBe(false)
    expect(standsApart(`${long}\ud83d`)).toBe(false)
    expect(standsApart(`${long}\0`)).toBe(false)
  })

  it('are named by nothing but a name: what is like one stays what it is', () => {
    const hash = name('x')
    const likes = [
      { 'text-sha256': 'x' },
      { 'text-sha256': hash.toUpperCase() },
      { ...inPlaceOf(hash), more: 1 },
      { 'text-sha256': [hash] },
    ]
    for (const like of likes) {
      expect(textsNamedIn(like).size).toBe(0)
      expect(withTexts(like, () => 'put in')).toEqual(like)
    }
    expect(withTexts([inPlaceOf(hash)], () => 'put in')).toEqual(['put in'])
    expect(withTexts([inPlaceOf(hash)], () => undefined)).toEqual([inPlaceOf(hash)])
  })
})
