import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { type Legs, lengthOf, nearestNeighbour, shortestOrder } from './shortest-order.ts'

describe('the shortest order', () => {
  const legs = (n: number) =>
    fc
      .array(fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 })), {
        minLength: n + 2,
        maxLength: n + 2,
      })
      .map((points) => {
        const d = ([ax, ay]: [number, number], [bx, by]: [number, number]) =>
          Math.max(Math.abs(ax - bx), Math.abs(ay - by))
        const places = points.slice(2)
        return {
          between: places.map((a) => places.map((b) => d(a, b))),
          fromStart: places.map((a) => d(points[0] as [number, number], a)),
          toEnd: places.map((a) => d(a, points[1] as [number, number])),
        }
      })
  const every = (left: number[], order: number[], visit: (order: number[]) => void): void => {
    if (left.length === 0) visit(order)
    for (const place of left)
      every(
        left.filter((each) => each !== place),
        [...order, place],
        visit,
      )
  }

  it('is the shortest of all orders, tried one by one', () => {
    const brute = (of: Parameters<typeof lengthOf>[1]) => {
      let best = Number.POSITIVE_INFINITY
      every([...of.fromStart.keys()], [], (order) => {
        best = Math.min(best, lengthOf(order, of))
      })
      return best
    }
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }).chain(legs), (of) => {
        expect(lengthOf(shortestOrder(of), of)).toBeCloseTo(brute(of), 9)
      }),
      depth(20, 400),
    )
    fc.assert(
      fc.property(legs(8), (of) => {
        expect(lengthOf(shortestOrder(of), of)).toBeCloseTo(brute(of), 9)
      }),
      { numRuns: 1 },
    )
  })

  it('is every place once, and never longer than going to the nearest, nor than the order given', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 24 }).chain(legs), (of) => {
        const order = shortestOrder(of)
        const given = [...of.fromStart.keys()]
        expect([...order].sort((a, b) => a - b)).toEqual(given)
        expect(lengthOf(order, of)).toBeLessThanOrEqual(lengthOf(nearestNeighbour(of), of) + 1e-9)
        expect(lengthOf(order, of)).toBeLessThanOrEqual(lengthOf(given, of) + 1e-9)
      }),
      depth(60, 600),
    )
  })

  /** Places scattered over a plate of 20 by 20 whole inches, the same every time (Park and Miller's generator). */
  const scattered = (seed: number) => {
    let state = seed
    const next = () => {
      state = (state * 48271) % 2147483647
      return Math.floor((state / 2147483647) * 20)
    }
    return (n: number): Legs => {
      const points = Array.from({ length: n + 2 }, () => [next(), next()] as const)
      const d = (a: number, b: number) => {
        const [[ax, ay], [bx, by]] = [points[a], points[b]] as [Point, Point]
        return Math.max(Math.abs(ax - bx), Math.abs(ay - by))
      }
      const places = Array.from({ length: n }, (_, place) => place + 2)
      return {
        between: places.map((a) => places.map((b) => d(a, b))),
        fromStart: places.map((a) => d(0, a)),
        toEnd: places.map((a) => d(a, 1)),
      }
    }
  }
  type Point = readonly [number, number]
  /** The shortest way, from the end: through each set of places that may be left, from each place. */
  const shortest = (of: Legs) => {
    const n = of.fromStart.length
    const known = new Float64Array(n << n).fill(Number.NaN)
    const from = (at: number, left: number): number => {
      if (left === 0) return of.toEnd[at] as number
      let best = known[left * n + at] as number
      if (!Number.isNaN(best)) return best
      best = Number.POSITIVE_INFINITY
      for (let next = 0; next < n; next++)
        if (left & (1 << next))
          best = Math.min(best, (of.between[at]?.[next] as number) + from(next, left & ~(1 << next)))
      known[left * n + at] = best
      return best
    }
    return Math.min(...of.fromStart.map((leg, at) => leg + from(at, ((1 << n) - 1) & ~(1 << at))))
  }

  it('is the shortest at eleven, and within .4 % of it at twelve and fourteen: every way of improving counts', () => {
    const next = scattered(1)
    const [eleven, twelve, , fourteen] = [11, 12, 13, 14].map((n) =>
      Array.from({ length: 30 }, () => next(n)),
    ) as [Legs[], Legs[], Legs[], Legs[]]
    const sum = (all: Legs[], length: (of: Legs) => number) => all.reduce((sum, of) => sum + length(of), 0)
    const found = (of: Legs) => lengthOf(shortestOrder(of), of)
    expect(sum(eleven, found)).toBe(sum(eleven, shortest))
    const beyond = [...twelve, ...fourteen]
    expect(sum(beyond, found) / sum(beyond, shortest)).toBeLessThan(1.004)
    expect(sum(beyond, found)).toBeGreaterThanOrEqual(sum(beyond, shortest))
  })

  it('is improved up to 40 places; beyond, it is the better of the order given and the nearest', () => {
    const next = scattered(7)
    const lengths = (of: Legs) => ({
      found: lengthOf(shortestOrder(of), of),
      given: lengthOf([...of.fromStart.keys()], of),
      nearest: lengthOf(nearestNeighbour(of), of),
    })
    const forty = lengths(next(40))
    expect(forty.found).toBeLessThan(0.95 * Math.min(forty.given, forty.nearest))
    const more = lengths(next(41))
    expect(more.found).toBe(Math.min(more.given, more.nearest))
    // Given in the order of a row, which the nearest misses: it begins at the fourth, goes back, and comes by again.
    const row = Array.from({ length: 41 }, (_, place) => place)
    const sorted = lengths({
      between: row.map((a) => row.map((b) => Math.abs(a - b))),
      fromStart: row.map((a) => (a === 3 ? 0.5 : a + 1)),
      toEnd: row.map((a) => 40 - a),
    })
    expect(sorted.found).toBe(sorted.given)
    expect(sorted.found).toBeLessThan(sorted.nearest)
  })

  it('goes to the nearest that is left, the first of two that are as near', () => {
    const between = [
      [0, 2, 5, 3],
      [2, 0, 4, 4],
      [5, 4, 0, 1],
      [3, 4, 1, 0],
    ]
    const of = { between, fromStart: [7, 6, 6, 9], toEnd: [1, 1, 1, 1] }
    expect(nearestNeighbour(of)).toEqual([1, 0, 3, 2])
    expect(lengthOf([1, 0, 3, 2], of)).toBe(6 + 2 + 3 + 1 + 1)
  })
})
