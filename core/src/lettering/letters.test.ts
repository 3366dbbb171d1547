import { text as library } from '@jscad/modeling'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { arcStrokes, glyphOf, lackingIn, layText, type Stroke, textStrokes } from './index.ts'

const CAPITAL = 21

/** The same letters as a general-purpose modelling library from the registry ships them; asked for in the data's own units. */
const OWN_UNITS = { height: 14 }

/** Letters of the library set beside each other by hand. */
function theirs(text: string): { strokes: number[][][]; width: number } {
  let at = 0
  const strokes: number[][][] = []
  for (const character of text) {
    const { width, segments } = library.vectorChar({ ...OWN_UNITS, xOffset: at }, character)
    strokes.push(...segments.map((points) => points.map(([x, y]) => [x / CAPITAL, y / CAPITAL])))
    at += width
  }
  return { strokes, width: at / CAPITAL }
}

const PRINTED = Array.from({ length: 95 }, (_, n) => String.fromCharCode(32 + n))
const inked = fc.string({
  unit: fc.constantFrom(...PRINTED.filter((each) => each !== ' ')),
  minLength: 1,
  maxLength: 12,
})
const flat = (strokes: readonly Stroke[]) => strokes.flat()
const near = (a: number, b: number) => Math.abs(a - b) < 1e-9

describe('single-stroke letters', () => {
  it('are those of the published set, each of them', () => {
    for (const character of PRINTED) {
      const own = glyphOf(character)
      const other = theirs(character)
      expect(own?.advance).toBeCloseTo(other.width, 12)
      expect(own?.strokes.length).toBe(other.strokes.length)
      for (const [n, stroke] of (own?.strokes ?? []).entries())
        for (const [m, [x, y]] of stroke.entries()) {
          expect(x).toBeCloseTo(other.strokes[n]?.[m]?.[0] as number, 12)
          expect(y).toBeCloseTo(other.strokes[n]?.[m]?.[1] as number, 12)
        }
    }
  })

  it('names what it has no letter for, as typed, and what it has besides', () => {
    expect(lackingIn('Ø20 ±0.1° 3×4')).toEqual([])
    expect(lackingIn('größe ö €')).toEqual(['ö', 'ß', '€'])
  })

  it('stand in a row as the published widths say, turned about where the text begins', () => {
    fc.assert(
      fc.property(
        inked,
        evenly(-180, 180),
        evenly(0.01, 20),
        evenly(0.5, 2),
        (text, angle, height, stretch) => {
          const other = theirs(text)
          const all = other.strokes.flat()
          const left = Math.min(...all.map(([x]) => x as number))
          const right = Math.max(...all.map(([x]) => x as number))
          const laid = layText(text)
          const own = flat(textStrokes(text, { x: 3, y: -2, angle, height, stretch }))
          expect(own.length).toBe(all.length)
          const turn = (angle * Math.PI) / 180
          own.forEach(([x, y], n) => {
            const [u, v] = [
              (x - 3) * Math.cos(turn) + (y + 2) * Math.sin(turn),
              -(x - 3) * Math.sin(turn) + (y + 2) * Math.cos(turn),
            ]
            expect(near(v / height, all[n]?.[1] as number)).toBe(true)
            expect(near(u / height / stretch, (all[n]?.[0] as number) - left)).toBe(true)
          })
          expect(near(laid.width, right - left)).toBe(true)
        },
      ),
      depth(200, 2000),
    )
  })

  it('stand on a circle without stretching, feet on it, read from outside or from inside', () => {
    fc.assert(
      fc.property(
        inked,
        evenly(-360, 360),
        evenly(2, 50),
        fc.constantFrom('outside' as const, 'inside' as const),
        (text, at, radius, reads) => {
          const arc = { x: 1, y: 2, radius, at, height: 0.3, reads }
          const row = textStrokes(text, { x: 0, y: 0, angle: 0, height: 0.3, stretch: 1 })
          const round = arcStrokes(text, arc)
          round.forEach((stroke, n) => {
            const flatOne = row[n] as Stroke
            for (let m = 1; m < stroke.length; m++) {
              const along = (of: Stroke) =>
                Math.hypot(
                  (of[m]?.[0] as number) - (of[m - 1]?.[0] as number),
                  (of[m]?.[1] as number) - (of[m - 1]?.[1] as number),
                )
              expect(near(along(stroke), along(flatOne))).toBe(true)
            }
          })
          // A point that is higher than the base line is further out, or further in.
          for (const [n, stroke] of round.entries())
            for (const [m, [x, y]] of stroke.entries()) {
              const out = Math.hypot(x - 1, y - 2) - radius
              if ((row[n]?.[m]?.[1] as number) > 0.1)
                expect(Math.sign(out)).toBe(reads === 'outside' ? 1 : -1)
            }
        },
      ),
      depth(200, 2000),
    )
    // At the top, read from outside: the first letter is on the left. At the bottom, from inside: likewise.
    for (const [at, reads] of [
      [90, 'outside'],
      [270, 'inside'],
    ] as const) {
      const strokes = arcStrokes('IJ', { x: 0, y: 0, radius: 10, at, height: 1, reads })
      expect(strokes[0]?.[0]?.[0]).toBeLessThan(strokes[1]?.[0]?.[0] as number)
      expect(strokes[0]?.[0]?.[1]).toBeGreaterThan(strokes[0]?.[1]?.[1] as number)
    }
  })
})
