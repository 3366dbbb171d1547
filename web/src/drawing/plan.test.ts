import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../../core/testing/evenly.ts'
import { plan, polygon } from './plan.ts'

const room = { left: 40, top: 20, width: 380, height: 300 }
const number = evenly(-500, 500)
const size = evenly(0.01, 500)

describe('a drawing in plan', () => {
  it('keeps everything in its room, at one scale, with Y up', () => {
    fc.assert(
      fc.property(number, number, size, size, (x, y, wide, high) => {
        const on = plan({ x, y }, { x: x + wide, y: y + high }, room)
        const [low, high_] = [on.place({ x, y }), on.place({ x: x + wide, y: y + high })]
        for (const at of [low, high_]) {
          expect(at.x).toBeGreaterThanOrEqual(room.left - 1e-6)
          expect(at.x).toBeLessThanOrEqual(room.left + room.width + 1e-6)
          expect(at.y).toBeGreaterThanOrEqual(room.top - 1e-6)
          expect(at.y).toBeLessThanOrEqual(room.top + room.height + 1e-6)
        }
        expect(high_.x - low.x).toBeCloseTo(wide * on.scale, 6)
        expect(low.y - high_.y).toBeCloseTo(high * on.scale, 6)
      }),
    )
  })

  it('is not upset by places that are all one, and writes a polygon as SVG has it', () => {
    const on = plan({ x: 3, y: 3 }, { x: 3, y: 3 }, room)
    expect(on.place({ x: 3, y: 3 })).toEqual({ x: 230, y: 170 })
    expect(
      polygon([
        { x: 1, y: 2 },
        { x: 3, y: 4 },
      ]),
    ).toBe('1,2 3,4')
  })
})
