import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holeRadius, numberedPlaces } from './places-numbers.ts'

const grid = (across: number, down: number, step: number) =>
  Array.from({ length: across * down }, (_, n) => ({
    x: (n % across) * step,
    y: Math.floor(n / across) * step,
  }))

describe('the numbers beside the holes', () => {
  it('all stand where there is room', () => {
    expect(numberedPlaces(grid(3, 2, 60))).toEqual([0, 1, 2, 3, 4, 5])
    expect(numberedPlaces([])).toEqual([])
    expect(numberedPlaces([{ x: 5, y: 5 }])).toEqual([0])
  })

  it('stand above and beside the holes, where those are close', () => {
    const numbered = numberedPlaces(grid(30, 30, 10))
    expect(numbered.slice(0, 8)).toEqual([0, 4, 8, 12, 16, 20, 24, 28])
    expect(numbered.slice(8).filter((index) => index % 30 !== 29)).toEqual([])
    expect(numbered.at(-1)).toBe(899)
  })

  it('never lie on each other, and end with the last', () => {
    const spot = fc.record({ x: fc.integer({ min: 0, max: 700 }), y: fc.integer({ min: 0, max: 240 }) })
    fc.assert(
      fc.property(fc.array(spot, { minLength: 1, maxLength: 300 }), (places) => {
        const numbered = numberedPlaces(places)
        expect(numbered.length).toBeLessThanOrEqual(40)
        expect(numbered.at(-1)).toBe(places.length - 1)
        for (const [n, a] of numbered.entries())
          for (const b of numbered.slice(n + 1)) {
            const [one, other] = [places[a], places[b]]
            if (!one || !other) throw new Error('it numbers what is not there')
            expect(Math.abs(one.x - other.x) >= 34 || Math.abs(one.y - other.y) >= 15).toBe(true)
          }
      }),
    )
  })
})

describe('the size of the holes', () => {
  it('leaves a gap to the next one, and is never more than asked for, nor nothing', () => {
    expect(holeRadius(grid(2, 2, 100), 7)).toBe(7)
    expect(holeRadius(grid(30, 30, 10), 7)).toBe(4)
    expect(holeRadius(grid(100, 100, 1), 7)).toBe(1.5)
    expect(
      holeRadius(
        [
          { x: 1, y: 1 },
          { x: 1, y: 1 },
        ],
        7,
      ),
    ).toBe(7)
  })
})
