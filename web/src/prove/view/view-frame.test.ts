import { housingLayout } from '@dogleg/core/demo'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../../../core/testing/evenly.ts'
import { fit, fromView, PLAN, pathExtent, SIDE, sceneExtent, TURNING, toView } from './view-frame.ts'

const size = { width: 420, height: 224 }
const extent = sceneExtent(housingLayout.bodies, undefined)

describe('a straight view', () => {
  it('shows all that is placed, with room round it, in proportion', () => {
    for (const side of [PLAN, SIDE]) {
      const window = fit(extent, side, size)
      for (const corner of [extent.least, extent.greatest]) {
        const { x, y } = toView(corner, side, window, size)
        expect(x).toBeGreaterThan(0)
        expect(x).toBeLessThan(size.width)
        expect(y).toBeGreaterThan(0)
        expect(y).toBeLessThan(size.height)
      }
    }
  })

  it('has X to the right and Y up in plan, Z up from the front, Z right and X up on a lathe', () => {
    const window = { right: 0, up: 0, scale: 10 }
    const at = (side: typeof PLAN, point: [number, number, number]) => toView(point, side, window, size)
    const middle = { x: size.width / 2, y: size.height / 2 }
    expect(at(PLAN, [1, 0, 9])).toEqual({ x: middle.x + 10, y: middle.y })
    expect(at(PLAN, [0, 1, 9])).toEqual({ x: middle.x, y: middle.y - 10 })
    expect(at(SIDE, [0, 9, 1])).toEqual({ x: middle.x, y: middle.y - 10 })
    expect(at(TURNING, [1, 0, 0])).toEqual({ x: middle.x, y: middle.y - 10 })
    expect(at(TURNING, [0, 0, 1])).toEqual({ x: middle.x + 10, y: middle.y })
  })

  it('a pixel is where it is drawn', () => {
    const number = evenly(-100, 100)
    fc.assert(
      fc.property(number, number, evenly(0.1, 500), (x, y, scale) => {
        const window = { right: 3, up: -2, scale }
        const pixel = toView([x, y, 0], PLAN, window, size)
        const back = fromView(pixel.x, pixel.y, window, size)
        expect(back.right).toBeCloseTo(x, 6)
        expect(back.up).toBeCloseTo(y, 6)
      }),
    )
  })

  it('with nothing placed is where the feed moves are', () => {
    const empty = new Uint32Array(1)
    const feed = Float32Array.from([0, 0, 0, 2, 1, -1])
    const picture = {
      feed,
      rapid: new Float32Array(0),
      feedBefore: empty,
      rapidBefore: empty,
      turned: null,
      axis: null,
      written: null,
    }
    expect(sceneExtent([], pathExtent(picture))).toEqual({ least: [0, 0, -1], greatest: [2, 1, 0] })
    expect(pathExtent({ ...picture, feed: new Float32Array(0) })).toBeUndefined()
    expect(sceneExtent([], undefined).greatest).toEqual([1, 1, 1])
  })
})
