import fc from 'fast-check'
import { Vector3 } from 'three'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../../../core/testing/evenly.ts'
import { cameraOf } from './cameras.ts'
import { fit, PLAN, SIDE, TURNING, toView } from './view-frame.ts'

const size = { width: 640, height: 360 }
/** Where a camera puts a point on the picture, in pixels from its top left. */
const seen = (
  camera: ReturnType<typeof cameraOf>,
  [x, y, z]: readonly [number, number, number],
  { width, height } = size,
) => {
  const at = new Vector3(x, y, z).project(camera)
  return { x: ((at.x + 1) / 2) * width, y: ((1 - at.y) / 2) * height, depth: at.z }
}
const within = evenly(-20, 20)
const point = fc.tuple(within, within, within)

describe('the path on the graphics card and the bodies on the page', () => {
  it('fall on the same pixel from every side: the drawing of the page against the camera of three', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(PLAN, SIDE, TURNING),
        point,
        fc.record({ right: within, up: within, scale: evenly(1, 200) }),
        (side, at, window) => {
          const drawn = toView(at, side, window, size)
          const { x, y, depth } = seen(cameraOf({ side, window }, size), at)
          expect(x).toBeCloseTo(drawn.x, 3)
          expect(y).toBeCloseTo(drawn.y, 3)
          // Neither before nor behind what the camera sees.
          expect(Math.abs(depth)).toBeLessThan(1)
        },
      ),
    )
  })
})

describe('the work area in space', () => {
  const extent = { least: [-2, -3, -1], greatest: [4, 1, 2] } as {
    least: [number, number, number]
    greatest: [number, number, number]
  }
  const eye = { turn: 0, tilt: 0.5, closer: 1, extent }
  it('is in sight whole, from wherever it is looked at', () => {
    fc.assert(
      fc.property(
        evenly(-7, 7),
        evenly(-1.5, 1.5),
        fc.constantFrom(size, { width: 400, height: 700 }),
        (turn, tilt, size) => {
          const camera = cameraOf({ ...eye, turn, tilt }, size)
          for (const x of [extent.least[0], extent.greatest[0]])
            for (const y of [extent.least[1], extent.greatest[1]])
              for (const z of [extent.least[2], extent.greatest[2]]) {
                const at = seen(camera, [x, y, z], size)
                expect(at.x).toBeGreaterThan(0)
                expect(at.x).toBeLessThan(size.width)
                expect(at.y).toBeGreaterThan(0)
                expect(at.y).toBeLessThan(size.height)
                expect(Math.abs(at.depth)).toBeLessThan(1)
              }
        },
      ),
    )
  })
  it('has X to the right and Z up where somebody stands in front of the machine, and what is nearer is larger', () => {
    const camera = cameraOf(eye, size)
    const [left, right] = [seen(camera, [0, 0, 0]), seen(camera, [1, 0, 0])]
    expect(right.x).toBeGreaterThan(left.x)
    expect(seen(camera, [0, 0, 1]).y).toBeLessThan(left.y)
    const wide = (y: number) => seen(camera, [1, y, 0]).x - seen(camera, [0, y, 0]).x
    expect(wide(-3)).toBeGreaterThan(wide(1))
    // From the right-hand side of the machine, what is in front lies on the left.
    const side = cameraOf({ ...eye, turn: Math.PI / 2 }, size)
    expect(seen(side, [0, -1, 0]).x).toBeLessThan(seen(side, [0, 1, 0]).x)
  })
  it('fits the window of each straight view as well', () => {
    for (const side of [PLAN, SIDE, TURNING]) {
      const camera = cameraOf({ side, window: fit(extent, side, size) }, size)
      for (const corner of [extent.least, extent.greatest]) {
        const { x, y } = seen(camera, corner)
        expect(x > 0 && x < size.width && y > 0 && y < size.height).toBe(true)
      }
    }
  })
})
