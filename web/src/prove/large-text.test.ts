import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { LARGE, LargeText, programText, textOf } from './large-text.ts'

describe('a text in pieces', () => {
  it('gives what the whole string gives, wherever it is cut', () => {
    fc.assert(
      fc.property(fc.array(fc.string()), fc.nat(60), fc.nat(60), (pieces, from, to) => {
        const text = new LargeText(new Blob(pieces), pieces)
        expect(text.length).toBe(pieces.join('').length)
        expect(text.slice(from, to)).toBe(pieces.join('').slice(from, to))
        expect(text.slice(from)).toBe(pieces.join('').slice(from))
      }),
    )
  })

  it('comes from a file as the platform decodes it, also what is no text', async () => {
    const bytes = fc.uint8Array({ maxLength: 200 }).map((array) => Uint8Array.from(array))
    await fc.assert(
      fc.asyncProperty(fc.oneof(bytes, fc.string({ unit: 'grapheme' })), async (content) => {
        const file = new Blob([content])
        expect(await textOf(file)).toBe(await file.text())
      }),
    )
  })

  it('is large from so many characters on, and then stays a file', async () => {
    const long = 'G1 X1.\n'.repeat(Math.ceil(LARGE / 7) + 1)
    expect(programText(long.slice(0, LARGE))).toBe(long.slice(0, LARGE))
    const typed = programText(long)
    const opened = await textOf(new Blob([long]))
    for (const text of [typed, opened]) {
      if (typeof text === 'string') throw new Error('it is no file')
      expect(text.slice(LARGE - 9, LARGE + 5)).toBe(long.slice(LARGE - 9, LARGE + 5))
      expect(await text.file.text()).toBe(long)
    }
  })
})
