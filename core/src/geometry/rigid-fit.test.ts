import fc from 'fast-check'
import { Matrix, SVD } from 'ml-matrix'
import { linearRegression } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { fitEdge } from './edge-fit.ts'
import { degrees, halfTurn, type PlanePoint, turned } from './point.ts'
import { fitRigid, moved, type PointPair } from './rigid-fit.ts'

const coordinate = evenly(-40, 40)
const point = fc.record({ x: coordinate, y: coordinate })
const angle = evenly(-179.9, 180)
const noise = evenly(-0.01, 0.01)

const wellSpread = (points: readonly PlanePoint[]) =>
  points.some(({ x, y }) => Math.hypot(x - (points[0]?.x ?? 0), y - (points[0]?.y ?? 0)) > 1)

/** The same fit by the singular value decomposition of ml-matrix (Kabsch's own way). */
function bySvd(pairs: readonly PointPair[]): number {
  const mean = (of: (pair: PointPair) => number) =>
    pairs.reduce((sum, pair) => sum + of(pair), 0) / pairs.length
  const [ax, ay] = [mean(({ nominal }) => nominal.x), mean(({ nominal }) => nominal.y)]
  const [bx, by] = [mean(({ measured }) => measured.x), mean(({ measured }) => measured.y)]
  const a = new Matrix(pairs.map(({ nominal }) => [nominal.x - ax, nominal.y - ay]))
  const b = new Matrix(pairs.map(({ measured }) => [measured.x - bx, measured.y - by]))
  const svd = new SVD(a.transpose().mmul(b))
  const [u, v] = [svd.leftSingularVectors, svd.rightSingularVectors]
  const r = v.mmul(u.transpose())
  const flip = r.get(0, 0) * r.get(1, 1) - r.get(0, 1) * r.get(1, 0) < 0 ? -1 : 1
  const turn = v.mmul(Matrix.diag([1, flip])).mmul(u.transpose())
  return degrees(Math.atan2(turn.get(1, 0), turn.get(0, 0)))
}

describe('the rigid fit', () => {
  it('agrees with the singular value decomposition of ml-matrix over random parts with noise', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(point, noise, noise), { minLength: 2, maxLength: 12 }),
        angle,
        point,
        (features, by, shift) => {
          fc.pre(wellSpread(features.map(([each]) => each)))
          const pairs = features.map(([nominal, dx, dy]) => {
            const { x, y } = turned(nominal, by, { x: 0, y: 0 })
            return { nominal, measured: { x: x + shift.x + dx, y: y + shift.y + dy } }
          })
          const fit = fitRigid(pairs)
          expect(Math.abs(halfTurn((fit?.angle ?? 0) - bySvd(pairs)))).toBeLessThan(1e-8)
        },
      ),
    )
  })

  it('leads back to the pose: angle, origin, and every feature where it was', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 2, maxLength: 8 }), angle, point, (nominals, by, origin) => {
        fc.pre(wellSpread(nominals))
        const pairs = nominals.map((nominal) => ({
          nominal,
          measured: moved(nominal, { angle: by, origin }),
        }))
        const fit = fitRigid(pairs)
        expect(Math.abs(halfTurn((fit?.angle ?? 0) - by))).toBeLessThan(1e-9)
        expect(fit?.origin.x).toBeCloseTo(origin.x, 9)
        for (const { x, y } of fit?.residuals ?? []) expect(Math.hypot(x, y)).toBeLessThan(1e-9)
      }),
    )
  })

  it('has no answer for one feature, or for features that are all at one place', () => {
    const here = { nominal: { x: 1, y: 1 }, measured: { x: 5, y: 5 } }
    expect(fitRigid([here])).toBeUndefined()
    expect(fitRigid([here, here, here])).toBeUndefined()
  })
})

describe('the straight edge of any direction', () => {
  it('is the line itself where the points lie on one, upright ones too', () => {
    fc.assert(
      fc.property(
        point,
        angle,
        fc.uniqueArray(fc.integer({ min: -20, max: 20 }), { minLength: 2 }),
        (from, by, places) => {
          const along = places.map((t) => turned({ x: from.x + t, y: from.y }, by, from))
          const fit = fitEdge(along)
          expect(Math.abs(halfTurn(2 * ((fit?.direction ?? 0) - by)))).toBeLessThan(1e-7)
          expect(fit?.base).toBeCloseTo(Math.max(...places) - Math.min(...places), 9)
        },
      ),
    )
  })

  it('comes near the regression of simple-statistics where the line is nearly level', () => {
    const points = [0, 1, 2, 3, 4].map((x, i) => ({
      x,
      y: 0.002 * x + ([0.0001, -0.0002, 0, 0.0002, -0.0001][i] ?? 0),
    }))
    const { m } = linearRegression(points.map(({ x, y }) => [x, y]))
    expect(Math.tan(((fitEdge(points)?.direction ?? 0) * Math.PI) / 180)).toBeCloseTo(m, 8)
  })

  it('has no direction for points at one place', () => {
    expect(
      fitEdge([
        { x: 3, y: 3 },
        { x: 3, y: 3 },
      ]),
    ).toBeUndefined()
  })
})
