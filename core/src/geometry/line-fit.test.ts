import fc from 'fast-check'
import { linearRegression } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { fitLine } from './index.ts'

/** NIST StRD linear regression data set 'Norris' [y, x] (memory, data and certified values; checked by agreeing with each other). */
const NORRIS = [
  [0.1, 0.2],
  [338.8, 337.4],
  [118.1, 118.2],
  [888.0, 884.6],
  [9.2, 10.1],
  [228.1, 226.5],
  [668.5, 666.3],
  [998.5, 996.3],
  [449.1, 448.6],
  [778.9, 777.0],
  [559.2, 558.2],
  [0.3, 0.4],
  [0.1, 0.6],
  [778.1, 775.5],
  [668.8, 666.9],
  [339.3, 338.0],
  [448.9, 447.5],
  [10.8, 11.6],
  [557.7, 556.0],
  [228.3, 228.1],
  [998.0, 995.8],
  [888.8, 887.6],
  [119.6, 120.2],
  [0.3, 0.3],
  [0.6, 0.3],
  [557.6, 556.8],
  [339.3, 339.1],
  [888.0, 887.2],
  [998.5, 999.0],
  [778.9, 779.0],
  [10.2, 11.1],
  [117.6, 118.3],
  [228.9, 229.2],
  [668.4, 669.1],
  [449.2, 448.9],
  [0.2, 0.5],
].map(([y = 0, x = 0]) => ({ x, y }))

describe('the least squares line', () => {
  it('agrees with the certified values of NIST StRD Norris', () => {
    const fit = fitLine(NORRIS)
    expect(fit?.slope).toBeCloseTo(1.00211681802045, 11)
    expect(fit?.intercept).toBeCloseTo(-0.262323073774029, 10)
    expect(fit?.scatter).toBeCloseTo(0.884796396144373, 10) // certified residual standard deviation (memory)
  })

  it('agrees with simple-statistics, and its residuals sum to nothing', () => {
    const finite = evenly(-1e3, 1e3)
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: finite, y: finite }), { minLength: 2, maxLength: 12 }),
        (points) => {
          const xs = points.map(({ x }) => x)
          fc.pre(Math.max(...xs) - Math.min(...xs) > 1)
          const fit = fitLine(points)
          const theirs = linearRegression(points.map(({ x, y }) => [x, y]))
          expect(fit?.slope).toBeCloseTo(theirs.m, 6)
          expect(fit?.intercept).toBeCloseTo(theirs.b, 5)
          expect(fit?.residuals.reduce((sum, each) => sum + each, 0)).toBeCloseTo(0, 8)
        },
      ),
    )
  })

  it('is not there for one point, or for points on top of each other', () => {
    expect(fitLine([{ x: 1, y: 2 }])).toBeUndefined()
    expect(
      fitLine([
        { x: 0.1, y: 2 },
        { x: 0.1, y: 3 },
        { x: 0.1, y: 4 },
      ]),
    ).toBeUndefined()
  })
})
