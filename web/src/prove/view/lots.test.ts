import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cutLots, type Lot, stepLots, wholeLots } from './lots.ts'

/** Rows that make up to three pieces of either kind. */
const counts = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.boolean()), { maxLength: 30 })
  .map((rows) => {
    const [rapid, feed] = [[0], [0]]
    for (const [pieces, isRapid] of rows) {
      rapid.push((rapid.at(-1) as number) + (isRapid ? pieces : 0))
      feed.push((feed.at(-1) as number) + (isRapid ? 0 : pieces))
    }
    return { rapidBefore: Uint32Array.from(rapid), feedBefore: Uint32Array.from(feed) }
  })

/** What stands on screen after the lots were painted over it. */
function paint(screen: Map<string, boolean>, lots: readonly Lot[]) {
  for (const { of, done, from, to } of lots)
    for (let piece = from; piece < to; piece++) screen.set(`${of} ${piece}`, done)
  return screen
}

const pictureOf = (lots: readonly Lot[]) => [...paint(new Map(), lots)].sort()
const rows = fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 1, maxLength: 8 })

describe('the lots of a path', () => {
  it('begin with the path as it is written, so that the tool’s own stands over it', () => {
    const of = { rapidBefore: Uint32Array.of(0, 1), feedBefore: Uint32Array.of(0, 2) }
    expect(
      wholeLots({ ...of, written: new Float32Array(18) }, 0).map((lot) => `${lot.of} ${lot.to}`),
    ).toEqual(['written 3', 'rapid 1', 'feed 2'])
    expect(wholeLots({ ...of, written: null }, 0).map((lot) => lot.of)).toEqual(['rapid', 'feed'])
  })

  it('hold every piece once', () => {
    fc.assert(
      fc.property(counts, fc.nat(40), (of, row) => {
        const lots = wholeLots(of, row)
        const pieces = lots.reduce((sum, { from, to }) => sum + to - from, 0)
        expect(pieces).toBe((of.rapidBefore.at(-1) as number) + (of.feedBefore.at(-1) as number))
        expect(pictureOf(lots)).toHaveLength(pieces)
      }),
    )
  })

  it('stepped through in any order come to the picture of the last row', () => {
    fc.assert(
      fc.property(counts, rows, (of, steps) => {
        const screen = paint(new Map(), wholeLots(of, steps[0] as number))
        for (let n = 1; n < steps.length; n++)
          paint(screen, stepLots(of, steps[n - 1] as number, steps[n] as number))
        expect([...screen].sort()).toEqual(pictureOf(wholeLots(of, steps.at(-1) as number)))
      }),
    )
  })

  it('painted in pieces of any size come to the same, none larger than asked for', () => {
    fc.assert(
      fc.property(counts, fc.nat(40), fc.integer({ min: 1, max: 9 }), (of, row, size) => {
        const screen = new Map<string, boolean>()
        let left = wholeLots(of, row)
        while (left.length > 0) {
          const { now, rest } = cutLots(left, size)
          expect(now.reduce((sum, { from, to }) => sum + to - from, 0)).toBeLessThanOrEqual(size)
          paint(screen, now)
          left = rest
        }
        expect([...screen].sort()).toEqual(pictureOf(wholeLots(of, row)))
      }),
    )
  })
})
