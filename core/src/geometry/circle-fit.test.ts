import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { fitCircle } from './circle-fit.ts'

const at = (...pairs: [number, number][]) => pairs.map(([x, y]) => ({ x, y }))
const gander = at([1, 7], [2, 6], [5, 8], [7, 7], [9, 5], [3, 7])

describe('the circle with the least squared distances', () => {
  it('is that of Gander, Golub, Strebel, BIT 34 (1994), table of the geometric fit (values from memory)', () => {
    const fit = fitCircle(gander)
    expect(fit?.centre.x).toBeCloseTo(4.7398, 4)
    expect(fit?.centre.y).toBeCloseTo(2.9835, 4)
    expect(fit?.radius).toBeCloseTo(4.7142, 4)
    // The algebraic fit of the same paper, (5.3794, 7.2532) and 3.0370, is a worse circle by the distances themselves.
    const squares = (x: number, y: number, r: number) =>
      gander.reduce((sum, point) => sum + (Math.hypot(point.x - x, point.y - y) - r) ** 2, 0)
    const own = squares(fit?.centre.x ?? 0, fit?.centre.y ?? 0, fit?.radius ?? 0)
    expect(own).toBeLessThan(squares(5.3794, 7.2532, 3.037))
  })

  it('finds a circle that was there, wherever, whatever its size, from any part of a third of it or more', () => {
    const number = evenly(-500, 500)
    fc.assert(
      fc.property(
        number,
        number,
        evenly(0.05, 200),
        evenly(0, 6),
        fc.integer({ min: 3, max: 12 }),
        (x, y, r, from, n) => {
          const points = Array.from({ length: n }, (_, i) => {
            const angle = from + (i * 2.1) / (n - 1)
            return { x: x + r * Math.cos(angle), y: y + r * Math.sin(angle) }
          })
          const fit = fitCircle(points)
          expect(Math.hypot((fit?.centre.x ?? 0) - x, (fit?.centre.y ?? 0) - y)).toBeLessThan(1e-8)
          expect(fit?.radius).toBeCloseTo(r, 8)
          expect(fit?.form).toBeLessThan(1e-8)
        },
      ),
    )
  })

  it('has no scatter with three points, and no circle for points on a line or at one place', () => {
    expect(fitCircle(at([0, 0], [1, 1], [2, 0]))).toMatchObject({ scatter: undefined, form: 0 })
    expect(fitCircle(at([0, 0], [1, 1]))).toBeUndefined()
    expect(fitCircle(at([0, 0], [1, 1], [2, 2]))).toBeUndefined()
    expect(fitCircle(at([-12.5, -7.1], [-10.5, -7.1], [-8.5, -7.1], [-6.5, -7.1]))).toBeUndefined()
    expect(fitCircle(at([3, 4], [3, 4], [3, 4]))).toBeUndefined()
    expect(fitCircle(at([3, 4], [3, 4], [5, 4]))).toBeUndefined()
  })

  it('four points evenly spread leave 1/sqrt 2 of a point in the centre, half in the radius (sums of squares by hand)', () => {
    const { sensitivity } = fitCircle(at([1, 0], [0, 1], [-1, 0], [0, -1])) ?? {}
    expect(sensitivity?.x).toBeCloseTo(Math.SQRT1_2, 10)
    expect(sensitivity?.y).toBeCloseTo(Math.SQRT1_2, 10)
    expect(sensitivity?.radius).toBeCloseTo(0.5, 10)
  })
})
