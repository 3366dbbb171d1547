import fc from 'fast-check'
import { inverse, Matrix, SVD } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { fitCircle } from './circle-fit.ts'
import { fitEdge } from './edge-fit.ts'
import { fitLine } from './line-fit.ts'
import { degrees, halfTurn, type PlanePoint, turned } from './point.ts'
import { fitRigid, moved } from './rigid-fit.ts'

// What a fit gives beside its parameters: scatter, spread, base, doubt, by general linear algebra and by hand.

const coordinate = fc.integer({ min: -400, max: 400 }).map((n) => n / 10)
const point = fc.record({ x: coordinate, y: coordinate })
const noise = fc.integer({ min: -100, max: 100 }).map((n) => n / 10_000)
const spreadOut = (points: readonly PlanePoint[]) =>
  points.some(({ x, y }) => Math.hypot(x - (points[0]?.x ?? 0), y - (points[0]?.y ?? 0)) > 2)
const squares = (all: readonly number[]) => all.reduce((sum, each) => sum + each * each, 0)

describe('an edge of any direction', () => {
  it('is the first right singular vector of the centred points; what is left is the second value', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -200, max: 200 }), noise), { minLength: 3, maxLength: 12 }),
        fc.integer({ min: -179, max: 180 }),
        point,
        (places, angle, from) => {
          fc.pre(Math.max(...places.map(([t]) => t)) - Math.min(...places.map(([t]) => t)) > 5)
          const points = places.map(([t, off]) =>
            turned({ x: from.x + t / 10, y: from.y + off }, angle, from),
          )
          const fit = fitEdge(points)
          if (!fit) throw new Error('there is an edge')
          const mean = { x: 0, y: 0 }
          for (const each of points) {
            mean.x += each.x / points.length
            mean.y += each.y / points.length
          }
          const svd = new SVD(new Matrix(points.map(({ x, y }) => [x - mean.x, y - mean.y])))
          const [large, small] = svd.diagonal as [number, number]
          const way = svd.rightSingularVectors
          const direction = degrees(Math.atan2(way.get(1, 0), way.get(0, 0)))
          expect(Math.abs(halfTurn(2 * (fit.direction - direction)))).toBeLessThan(1e-6)
          expect(fit.direction).toBeGreaterThan(-90 - 1e-12)
          expect(fit.direction).toBeLessThanOrEqual(90)
          expect(squares(fit.residuals)).toBeCloseTo(small ** 2, 8)
          expect(fit.scatter).toBeCloseTo(Math.sqrt(small ** 2 / (points.length - 2)), 8)
          expect(fit.spreadAlong).toBeCloseTo(large ** 2, 6)
          expect(fit.through.x).toBeCloseTo(mean.x, 9)
          const along = points.map(({ x, y }) => x * way.get(0, 0) + y * way.get(1, 0))
          expect(fit.base).toBeCloseTo(Math.max(...along) - Math.min(...along), 7)
        },
      ),
    )
  })

  it('counts what stands to the left of it as plus, and two points leave nothing over', () => {
    const fit = fitEdge([
      { x: 0, y: 0 },
      { x: 4, y: 0 },
      { x: 2, y: 0.3 },
    ])
    expect(fit?.residuals.map((each) => Math.sign(each))).toEqual([-1, -1, 1])
    expect(fit?.direction).toBe(0)
    const two = fitEdge([
      { x: 1, y: 1 },
      { x: 4, y: 5 },
    ])
    expect(two).toMatchObject({ scatter: undefined, base: 5, spreadAlong: 12.5 })
    expect(fitEdge([{ x: 1, y: 1 }])).toBeUndefined()
    expect(fitEdge([])).toBeUndefined()
    // At 45 degrees it spreads as far along X as along Y.
    expect(
      fitEdge([
        { x: 0, y: 0 },
        { x: 1, y: 1 },
        { x: 2, y: 2 },
      ])?.direction,
    ).toBeCloseTo(45, 12)
    expect(
      fitEdge([
        { x: 0, y: 0 },
        { x: 0, y: 3 },
      ])?.direction,
    ).toBe(90)
    // Far from the origin what is left of two places is rounding: there is no direction in it.
    expect(
      fitEdge([
        { x: 1e6, y: 1e6 },
        { x: 1e6 + 1e-10, y: 1e6 },
      ]),
    ).toBeUndefined()
    expect(
      fitEdge([
        { x: 1000, y: 0 },
        { x: 1000.001, y: 0 },
      ])?.direction,
    ).toBe(0)
  })
})

describe('a line of y on x', () => {
  it('leaves of each point what lies between it and the line, and two points leave nothing over', () => {
    const points = [
      { x: 10, y: 5 },
      { x: 12, y: 6.5 },
      { x: 17, y: 4 },
    ]
    const fit = fitLine(points)
    points.forEach(({ x, y }, n) => {
      expect(fit?.residuals[n]).toBeCloseTo(y - ((fit?.intercept ?? 0) + (fit?.slope ?? 0) * x), 12)
    })
    expect(fit?.scatter).toBeCloseTo(Math.sqrt(squares(fit?.residuals ?? [])), 12)
    // Mean 13: 9 + 1 + 16.
    expect(fit?.spreadOfX).toBe(26)
    expect(fitLine(points.slice(0, 2))?.scatter).toBeUndefined()
  })
})

describe('a circle', () => {
  const ring = (n: number, r: number, off: readonly number[]) =>
    Array.from({ length: n }, (_, i) => {
      const at = 0.3 + (2 * Math.PI * i * 0.7) / n
      const away = r + (off[i] ?? 0)
      return { x: 3 + away * Math.cos(at), y: -2 + away * Math.sin(at) }
    })

  it('has for its doubts the inverse of the normal equations, and its scatter and form from what is left', () => {
    fc.assert(
      fc.property(
        fc.array(noise, { minLength: 4, maxLength: 10 }),
        fc.integer({ min: 5, max: 90 }),
        (off, size) => {
          const r = size / 10
          const points = ring(off.length, r, off)
          const fit = fitCircle(points)
          if (!fit) throw new Error('there is a circle')
          const rows = points.map(({ x, y }) => {
            const away = Math.hypot(x - fit.centre.x, y - fit.centre.y)
            return [(fit.centre.x - x) / away, (fit.centre.y - y) / away, -1]
          })
          const jacobian = new Matrix(rows)
          const covariance = inverse(jacobian.transpose().mmul(jacobian))
          const near = (ours: number, theirs: number) => expect(ours / theirs).toBeCloseTo(1, 5)
          near(fit.sensitivity.x, Math.sqrt(covariance.get(0, 0)))
          near(fit.sensitivity.y, Math.sqrt(covariance.get(1, 1)))
          near(fit.sensitivity.radius, Math.sqrt(covariance.get(2, 2)))
          const left = points.map(({ x, y }) => Math.hypot(x - fit.centre.x, y - fit.centre.y) - fit.radius)
          left.forEach((each, n) => {
            expect(fit.residuals[n]).toBeCloseTo(each, 9)
          })
          expect(fit.form).toBeCloseTo(Math.max(...left) - Math.min(...left), 9)
          expect(fit.scatter).toBeCloseTo(Math.sqrt(squares(left) / (off.length - 3)), 9)
          // At the least sum of squares the slopes of the residuals sum to nothing.
          for (const column of [0, 1, 2])
            expect(
              rows.reduce((sum, row, n) => sum + (row[column] as number) * (left[n] as number), 0),
            ).toBeCloseTo(0, 7)
        },
      ),
    )
  })

  it('is no circle where it would be more than a thousand times as large as what was touched of it', () => {
    const flat = (sag: number) =>
      fitCircle([
        { x: -1, y: 0 },
        { x: 0, y: sag },
        { x: 1, y: 0 },
      ])
    // Radius of a chord of 2 with a sagitta: (1 + s^2) / (2 s), over a spread of about 1.
    expect(flat(1 / 1_000)?.radius).toBeCloseTo(500, 0)
    expect(flat(1 / 1_400)?.radius).toBeCloseTo(700, 0)
    expect(flat(1 / 2_500)).toBeUndefined()
  })

  it('comes down to the least sum of squares from points that are far off a circle', () => {
    const points = [
      { x: 0, y: 0 },
      { x: 4, y: 0.5 },
      { x: 4.5, y: 3 },
      { x: 0.5, y: 4 },
      { x: 2, y: 5.5 },
    ]
    const fit = fitCircle(points)
    if (!fit) throw new Error('there is a circle')
    const sum = (x: number, y: number, r: number) =>
      squares(points.map((each) => Math.hypot(each.x - x, each.y - y) - r))
    const own = sum(fit.centre.x, fit.centre.y, fit.radius)
    for (const by of [-1e-4, 1e-4]) {
      expect(sum(fit.centre.x + by, fit.centre.y, fit.radius)).toBeGreaterThan(own)
      expect(sum(fit.centre.x, fit.centre.y + by, fit.radius)).toBeGreaterThan(own)
      expect(sum(fit.centre.x, fit.centre.y, fit.radius + by)).toBeGreaterThan(own)
    }
  })
})

describe('a rigid fit', () => {
  it('leaves residuals that are measured less placed, and scatters by what they come to', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(point, noise, noise), { minLength: 3, maxLength: 10 }),
        fc.integer({ min: -179, max: 180 }),
        point,
        (features, angle, shift) => {
          fc.pre(spreadOut(features.map(([each]) => each)))
          const pairs = features.map(([nominal, dx, dy]) => {
            const at = turned(nominal, angle, { x: 0, y: 0 })
            return { nominal, measured: { x: at.x + shift.x + dx, y: at.y + shift.y + dy } }
          })
          const fit = fitRigid(pairs)
          if (!fit) throw new Error('there is a fit')
          let left = 0
          pairs.forEach(({ nominal, measured }, n) => {
            const at = moved(nominal, fit)
            expect(fit.residuals[n]?.x).toBeCloseTo(measured.x - at.x, 9)
            expect(fit.residuals[n]?.y).toBeCloseTo(measured.y - at.y, 9)
            left += (measured.x - at.x) ** 2 + (measured.y - at.y) ** 2
          })
          // n features have 2 n coordinates, three of which are fitted.
          expect(fit.scatter).toBeCloseTo(Math.sqrt(left / (2 * pairs.length - 3)), 9)
          const mean = (of: (each: PlanePoint) => number) =>
            pairs.reduce((sum, { nominal }) => sum + of(nominal), 0) / pairs.length
          const [mx, my] = [mean(({ x }) => x), mean(({ y }) => y)]
          expect(fit.spread).toBeCloseTo(
            pairs.reduce((sum, { nominal: { x, y } }) => sum + (x - mx) ** 2 + (y - my) ** 2, 0),
            6,
          )
        },
      ),
    )
  })

  it('of two features leaves no scatter; turned by half a turn it says plus', () => {
    const pairs = [
      { nominal: { x: 0, y: 0 }, measured: { x: 5, y: 5 } },
      { nominal: { x: 3, y: 0 }, measured: { x: 2, y: 5 } },
    ]
    expect(fitRigid(pairs)).toMatchObject({ angle: 180, scatter: undefined, origin: { x: 5, y: 5 } })
    expect(
      fitRigid(pairs.map(({ nominal, measured }) => ({ nominal, measured: { ...measured, y: -measured.y } })))
        ?.angle,
    ).toBe(180)
    // A hair short of half a turn the other way round is half a turn: plus.
    const hair = [
      { nominal: { x: 0, y: 0 }, measured: { x: 0, y: 0 } },
      { nominal: { x: 2, y: 0 }, measured: { x: -2, y: -1e-300 } },
    ]
    expect(fitRigid(hair)?.angle).toBe(180)
    // What was measured twice at one place has no direction.
    expect(fitRigid(pairs.map(({ nominal }) => ({ nominal, measured: { x: 1, y: 1 } })))).toBeUndefined()
    // A rounding apart, far from the origin, is one place.
    const far = (by: number) => [
      { nominal: { x: 1e6, y: 0 }, measured: { x: 0, y: 0 } },
      { nominal: { x: 1e6 + by, y: 0 }, measured: { x: by, y: 0 } },
    ]
    expect(fitRigid(far(1e-9))).toBeUndefined()
    expect(fitRigid(far(1e-3))?.angle).toBeCloseTo(0, 6)
  })
})
