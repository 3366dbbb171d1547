import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { type Body, boundsOf, solidsOf, type Triple } from './body.ts'
import { type Place, placeAt, sweepRound } from './sweep.ts'

const part = { form: 'round' as const, name: 'cutter' as const, radius: 0.5, from: 0, to: 2 }
const box: Body = {
  id: 'b',
  name: 'b',
  role: 'clamp',
  shape: 'box',
  at: { x: 0, y: 0, z: 0 },
  size: { x: 1, y: 2, z: 1 },
}
const post: Body = {
  id: 'p',
  name: 'p',
  role: 'stop',
  shape: 'cylinder',
  axis: 'Z',
  at: { x: 0, y: 0, z: 0 },
  diameter: 1,
  length: 1,
}
const lying: Body = { ...post, axis: 'X', at: { x: -1, y: 0, z: 0 }, length: 2 }

/** How far a point in the plane lies outside a rectangle (Euclid). */
const outside = (x: number, y: number, [x0, y0]: Triple, [x1, y1]: Triple) =>
  Math.hypot(Math.max(x0 - x, 0, x - x1), Math.max(y0 - y, 0, y - y1))

/** Whether the tool, standing still, is in the body: for the body's exact shape, not its pieces. */
function inside([x, y, z]: Triple, body: Body): boolean {
  const { least, greatest } = boundsOf(body)
  if (z + part.to <= least[2] || z + part.from >= greatest[2]) return false
  if (body.shape === 'box') return outside(x, y, least, greatest) < part.radius
  if (body.axis === 'Z') return Math.hypot(x - body.at.x, y - body.at.y) < part.radius + body.diameter / 2
  return false
}

const LETTERS = ['x', 'y', 'z'] as const

const number = fc.integer({ min: -400, max: 400 }).map((n) => n / 100)
const point = fc.tuple(number, number, number)

describe('a tool that is moved', () => {
  it('meets a box or a post when, and first where, small steps along the way do', () => {
    fc.assert(
      fc.property(point, point, fc.constantFrom(box, post), (from, to, body) => {
        const share = Math.min(
          ...solidsOf(body, false).map((solid) => sweepRound(part, placeAt(from), placeAt(to), solid)),
        )
        const STEPS = 400
        const at = (t: number): Triple => [
          from[0] + (to[0] - from[0]) * t,
          from[1] + (to[1] - from[1]) * t,
          from[2] + (to[2] - from[2]) * t,
        ]
        const first = Array.from({ length: STEPS + 1 }, (_, n) => n / STEPS).find((t) => inside(at(t), body))
        // Steps can miss a graze; what they meet the sweep must meet, no later.
        if (first !== undefined) expect(share).toBeLessThanOrEqual(first + 1e-4)
        // What the sweep meets is met just behind its first place.
        if (share < 1 && first === undefined) {
          const deep = Array.from({ length: 4000 }, (_, n) => share + (n / 4000) * (1 - share))
          const near = deep.some((t) => {
            const grown = { ...part, radius: part.radius + 1e-4 }
            const [x, y, z] = at(t)
            const { least, greatest } = boundsOf(body)
            if (z + part.to <= least[2] || z + part.from >= greatest[2]) return false
            return body.shape === 'box'
              ? outside(x, y, least, greatest) < grown.radius
              : Math.hypot(x, y) < grown.radius + 0.5
          })
          expect(near).toBe(true)
        }
      }),
      depth(500, 5000),
    )
  })

  it('may slide along a face and over a top: touching is no hit', () => {
    const [solid] = solidsOf(box, false)
    if (!solid) throw new Error('a box is one solid')
    expect(sweepRound(part, placeAt([-0.5, -3, 0]), placeAt([-0.5, 3, 0]), solid)).toBe(
      Number.POSITIVE_INFINITY,
    )
    expect(sweepRound(part, placeAt([-3, 1, 1]), placeAt([3, 1, 1]), solid)).toBe(Number.POSITIVE_INFINITY)
    expect(sweepRound(part, placeAt([-0.499, -3, 0]), placeAt([-0.499, 3, 0]), solid)).toBeLessThan(1)
    // A corner is passed by the cylinder's radius, not by a square round it.
    expect(sweepRound(part, placeAt([-3, -0.4, 0]), placeAt([0 - 0.31, -0.4, 0]), solid)).toBe(
      Number.POSITIVE_INFINITY,
    )
    expect(sweepRound(part, placeAt([-3, -0.4, 0]), placeAt([0 - 0.29, -0.4, 0]), solid)).toBeLessThan(1)
  })

  it('a lying bar is taken no smaller than it is, and hardly larger', () => {
    const thin = { ...part, radius: 1e-3 }
    const down = (y: number) =>
      Math.min(
        ...solidsOf(lying, false).map((solid) =>
          sweepRound(thin, placeAt([0, y, 2]), placeAt([0, y, 0]), solid),
        ),
      )
    for (const y of [0, 0.2, 0.4]) {
      const height = 2 - 2 * down(y)
      const exact = Math.sqrt(0.25 - y * y)
      expect(height).toBeGreaterThanOrEqual(exact - 1e-3)
      expect(height).toBeLessThanOrEqual(exact + 1 / 16 + 1e-3)
    }
  })
})

describe('a tool of which only a box is known', () => {
  const between = (a: Triple, b: Triple): Place => ({
    least: [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.min(a[2], b[2])],
    greatest: [Math.max(a[0], b[0]), Math.max(a[1], b[1]), Math.max(a[2], b[2])],
  })
  it('meets where any place in the box does, no later than the first of them, and nowhere else', () => {
    fc.assert(
      fc.property(point, point, point, point, fc.constantFrom(box, post), (a, b, c, d, body) => {
        const [from, to] = [between(a, b), between(c, d)]
        const share = Math.min(...solidsOf(body, false).map((solid) => sweepRound(part, from, to, solid)))
        const ways = [0, 0.25, 0.5, 0.75, 1]
        const at = (t: number, [p, q, r]: Triple): Triple => {
          const on = (axis: 0 | 1 | 2, by: number) => {
            const low = from.least[axis] + (to.least[axis] - from.least[axis]) * t
            const high = from.greatest[axis] + (to.greatest[axis] - from.greatest[axis]) * t
            return low + (high - low) * by
          }
          return [on(0, p), on(1, q), on(2, r)]
        }
        for (let n = 0; n <= 40; n++)
          for (const p of ways)
            for (const q of ways)
              for (const r of ways)
                if (inside(at(n / 40, [p, q, r]), body)) expect(share).toBeLessThanOrEqual(n / 40 + 1e-4)
        // Where it is said to meet, the place of the box that is nearest to the body touches it.
        if (share > 0 && share < 1) {
          const { least, greatest } = boundsOf(body)
          const [low, high] = [at(share, [0, 0, 0]), at(share, [1, 1, 1])]
          const nearest = (axis: 0 | 1 | 2) => {
            const middle =
              body.shape === 'box'
                ? [least[axis], greatest[axis]]
                : [body.at[LETTERS[axis]], body.at[LETTERS[axis]]]
            return Math.max(0, (middle[0] as number) - high[axis], low[axis] - (middle[1] as number))
          }
          const off = Math.hypot(nearest(0), nearest(1)) - (body.shape === 'box' ? 0 : 0.5)
          expect(off).toBeLessThan(part.radius + 1e-4)
          expect(Math.min(greatest[2] - low[2] - part.from, high[2] + part.to - least[2])).toBeGreaterThan(
            -1e-4,
          )
        }
      }),
      depth(150, 1500),
    )
  })
})
