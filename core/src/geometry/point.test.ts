import fc from 'fast-check'
import { evaluate, rotationMatrix, unit } from 'mathjs'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { cosineOf, sineOf } from './degrees.ts'
import { centroid, degrees, distance, halfTurn, radians, turned } from './point.ts'

const number = evenly(-900, 900)
const point = fc.record({ x: fc.integer({ min: -50, max: 50 }), y: fc.integer({ min: -50, max: 50 }) })

describe('angles', () => {
  it('go from degrees to radians and back as a general library has them', () => {
    fc.assert(
      fc.property(number, (angle) => {
        expect(radians(angle)).toBeCloseTo(unit(angle, 'deg').toNumber('rad'), 9)
        expect(degrees(radians(angle))).toBeCloseTo(angle, 9)
      }),
    )
    expect(degrees(Math.PI)).toBe(180)
  })

  it('are brought within half a turn, the half itself plus: the same direction, never farther round', () => {
    expect([0, 180, -180, 181, -181, 359, -359, 360, 540, -540, 720.5].map(halfTurn)).toEqual([
      0, 180, 180, -179, 179, -1, 1, 0, 180, 180, 0.5,
    ])
    fc.assert(
      fc.property(number, (angle) => {
        const within = halfTurn(angle)
        expect(within).toBeGreaterThan(-180)
        expect(within).toBeLessThanOrEqual(180)
        expect(Math.sin(radians(within))).toBeCloseTo(Math.sin(radians(angle)), 9)
        expect(Math.cos(radians(within))).toBeCloseTo(Math.cos(radians(angle)), 9)
      }),
    )
  })

  it('have the sine and cosine of a general library, exact at the quarters of a turn', () => {
    for (const turn of [-720, -360, 0, 360, 720]) {
      expect([0, 90, 180, 270].map((angle) => sineOf(turn + angle))).toEqual([0, 1, 0, -1])
      expect([0, 90, 180, 270].map((angle) => cosineOf(turn + angle))).toEqual([1, 0, -1, 0])
    }
    fc.assert(
      fc.property(number, (angle) => {
        expect(sineOf(angle)).toBeCloseTo(evaluate(`sin(${angle} deg)`) as number, 9)
        expect(cosineOf(angle)).toBeCloseTo(evaluate(`cos(${angle} deg)`) as number, 9)
      }),
    )
  })
})

describe('points', () => {
  it('are turned about another as a rotation matrix does, counter-clockwise', () => {
    expect(turned({ x: 3, y: 1 }, 90, { x: 1, y: 1 })).toEqual({
      x: expect.closeTo(1, 12),
      y: expect.closeTo(3, 12),
    })
    fc.assert(
      fc.property(point, number, point, (of, by, about) => {
        const matrix = rotationMatrix(unit(by, 'deg').toNumber('rad') as never) as unknown as number[][] & {
          toArray?: () => number[][]
        }
        const rows = (matrix.toArray?.() ?? matrix) as number[][]
        const [dx, dy] = [of.x - about.x, of.y - about.y]
        const at = turned(of, by, about)
        expect(at.x).toBeCloseTo(about.x + (rows[0]?.[0] as number) * dx + (rows[0]?.[1] as number) * dy, 9)
        expect(at.y).toBeCloseTo(about.y + (rows[1]?.[0] as number) * dx + (rows[1]?.[1] as number) * dy, 9)
      }),
    )
  })

  it('are as far apart as Pythagoras says, and have their mean in the middle', () => {
    expect(distance({ x: 1, y: 2 }, { x: 4, y: 6 })).toBe(5)
    expect(distance({ x: -1, y: 2 }, { x: 4, y: -10 })).toBe(13)
    expect(centroid([])).toEqual({ x: 0, y: 0 })
    expect(
      centroid([
        { x: 1, y: 8 },
        { x: 3, y: -2 },
        { x: 5, y: 0 },
      ]),
    ).toEqual({ x: 3, y: 2 })
  })
})
