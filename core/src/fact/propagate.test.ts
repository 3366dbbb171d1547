import fc from 'fast-check'
import { derivative } from 'mathjs'
import { describe, expect, it } from 'vitest'
import { multiplied, sensitivities } from './propagate.ts'

describe('how far a result moves for its inputs', () => {
  const value = fc.integer({ min: 10, max: 90 }).map((n) => n / 10)
  it('is its partial derivatives, as a general library takes them', () => {
    const formula = 'x^2 * y - sin(z) + x / z'
    const of = ([x = 0, y = 0, z = 0]: readonly number[]) => x ** 2 * y - Math.sin(z) + x / z
    const exact = (['x', 'y', 'z'] as const).map((name) => derivative(formula, name))
    fc.assert(
      fc.property(value, value, value, (x, y, z) => {
        const found = sensitivities(of, [x, y, z], 1e-4)
        exact.forEach((each, n) => {
          const wanted = each.evaluate({ x, y, z }) as number
          expect(Math.abs((found[n] as number) - wanted)).toBeLessThan(1e-4 * Math.max(1, Math.abs(wanted)))
        })
      }),
    )
  })
  it('multiplies a doubt that all inputs have, independently, by the root of the sum of squares', () => {
    expect(multiplied([3, 4])).toBe(5)
    expect(multiplied([])).toBe(0)
  })
})
