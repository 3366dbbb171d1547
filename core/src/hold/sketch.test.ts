import fc from 'fast-check'
import { linearRegression, linearRegressionLine } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { asTyped } from '../quantity/index.ts'
import {
  byStop,
  type ClearanceCase,
  type Collet,
  chartOfRatio,
  clearance,
  colletSketch,
  dialRange,
  fitRatio,
  jawSketch,
  rankPairs,
  SAMPLE_VISES,
  type SweepDraft,
  sideSketch,
  stopKind,
  USUAL_COLLETS,
  type Vise,
  viseReach,
} from './index.ts'

// The pictures show what the arithmetic says: each is held to it, not to what it looked like once.

const named = (id: string) => USUAL_COLLETS.find((each) => each.id === id) as Collet
const range = { least: 1.248, greatest: 1.252 }

describe('the cutaway', () => {
  it('keeps the collet in its cone at every diameter and angle: dR = dZ tan a', () => {
    fc.assert(
      fc.property(
        evenly(1, 80),
        evenly(0, 1),
        fc.constantFrom('pull' as const, 'dead-length' as const),
        (degreesPerSide, share, closing) => {
          const sketch = colletSketch(
            { closing, ratio: { from: 'angle', degreesPerSide } },
            'collet',
            range,
            share,
          )
          const along = closing === 'pull' ? sketch.collet : -sketch.tube
          expect(along * Math.tan((degreesPerSide * Math.PI) / 180)).toBeCloseTo(
            sketch.radius - sketch.smallest,
            12,
          )
          expect(Math.abs(sketch.tube)).toBeLessThanOrEqual(0.5 + 1e-12)
        },
      ),
    )
  })

  it('says how far the face truly moves: 0.002 on the diameter at 3 to 1 is 0.006 (common practice)', () => {
    const sketch = (collet: string, stop: 'collet' | 'draw-tube' | 'chuck-face') =>
      colletSketch(named(collet), stop, { least: 1, greatest: 1.002 }, 1)
    expect(sketch('unknown', 'collet').moved).toBeCloseTo(0.006, 12)
    expect(sketch('unknown', 'chuck-face').moved).toBe(0)
    expect(sketch('dead-length', 'collet').moved).toBe(0)
    // A sleeve that is pushed forward stops the earlier the larger the bar.
    expect(sketch('dead-length', 'draw-tube').moved).toBeLessThan(0)
    // What is drawn is the true movement times the stated factor, in shares of the largest radius.
    const { bar, moved, exaggeration } = sketch('unknown', 'collet')
    expect(bar * (1.002 / 2)).toBeCloseTo(moved * exaggeration, 12)
  })

  it('bars of one size do not move anything', () => {
    const one = colletSketch(named('5c'), 'collet', { least: 1, greatest: 1 }, 1)
    expect([one.bar, one.tube, one.exaggeration, one.radius]).toEqual([0, 0, 1, 1])
  })
})

describe('the side view', () => {
  const of = (jawAt: number, tableMoves: boolean): ClearanceCase => ({
    machine: { ...(demoReference.machines[0] as Machine), tableMoves: { X: true, Y: tableMoves } },
    vise: SAMPLE_VISES[0] as Vise,
    unit: 'inch',
    jawAt,
    wanted: 0.25,
    lowestZ: -12,
  })

  it('shows at each end of the travel the gap that was computed, whichever of table and head moves', () => {
    fc.assert(
      fc.property(evenly(0, 14), fc.boolean(), (jawAt, tableMoves) => {
        const found = clearance(of(jawAt, tableMoves))
        const drawn = (share: number, side: 'back' | 'front') => {
          const gap = sideSketch(of(jawAt, tableMoves), share, found).gaps.find((each) => each.side === side)
          return gap && gap.to - gap.from
        }
        expect(drawn(1, 'back')).toBeCloseTo(found.back?.gap ?? Number.NaN, 9)
        expect(drawn(0, 'front')).toBeCloseTo(found.front?.gap ?? Number.NaN, 9)
      }),
    )
  })

  it('keeps everything in the picture over the whole travel', () => {
    for (const share of [0, 0.5, 1]) {
      const sketch = sideSketch(of(10.9, true), share, {})
      for (const { from, to } of [sketch.table, ...sketch.vise.open, ...sketch.vise.closed])
        expect(from >= sketch.least - 1e-9 && to <= sketch.greatest + 1e-9).toBe(true)
    }
  })

  it('a vise reaches from its foremost to its rearmost part, in each state', () => {
    const six = SAMPLE_VISES[0] as Vise
    expect(viseReach(six, 'open')).toMatchObject({ front: -15, back: 3.4, top: 4.6 })
    expect(viseReach(six, 'closed')).toMatchObject({ front: -13.5, back: 4.9 })
  })
})

describe('the plan view', () => {
  const draft = (far: string, pivot = '-1'): SweepDraft => ({
    bolts: 'one',
    plusMeans: 'towards',
    pivot,
    points: [
      { at: '.25', reading: '0' },
      { at: '5.75', reading: far },
    ],
    stylusAngle: '0',
    dialStep: '.0005',
    partLength: '4',
    allowed: '.001',
  })

  it('is exaggerated by a factor that can be said, the largest that keeps it in the picture', () => {
    fc.assert(
      fc.property(evenly(1e-4, 0.5), (far) => {
        const { exaggeration, slope } = jawSketch(draft(String(far)), 6, 'inch')
        expect(String(exaggeration)).toMatch(/^[125]0*$/)
        expect(exaggeration === 1 || exaggeration * Math.abs(slope) <= 0.16).toBe(true)
      }),
    )
  })

  it('draws what is not typed yet where it usually is, and says so', () => {
    const { pivot, points, slope } = jawSketch(draft('', 'abc'), 6, 'inch')
    expect([pivot.known, points[1]?.readingKnown, slope]).toEqual([false, false, 0])
    expect(jawSketch(draft('-.03', '12'), 6, 'inch')).toMatchObject({
      greatest: 12,
      stays: 'right',
      otherBolt: -6,
    })
  })

  it('the dial has room for the reading and for the target', () => {
    fc.assert(
      fc.property(evenly(-0.2, 0.2), evenly(-0.2, 0.2), (from, target) => {
        const half = dialRange({ from, target })
        expect(half).toBeGreaterThan(Math.max(Math.abs(from), Math.abs(target)))
        expect(half).toBeLessThanOrEqual(2.5 * Math.max(Math.abs(from), Math.abs(target), 1e-4) + 1e-12)
      }),
    )
  })
})

describe('the chart of measured lengths', () => {
  it('draws the line of simple-statistics through what was measured, as it was measured', () => {
    const rows = [
      [1.248, 2.0031],
      [1.249, 2.0002],
      [1.251, 1.9945],
      [1.252, 1.992],
    ] as const
    const pairs = rows.map(([diameter, length]) => ({
      diameter: asTyped(diameter, 'inch'),
      length: asTyped(length, 'inch'),
    }))
    const expected = { value: 2.836, doubt: 0, way: 1 as const }
    const fit = fitRatio(pairs, 'length', expected, 'inch')
    if (!fit) throw new Error('no fit')
    const line = linearRegressionLine(linearRegression(rows.map(([d, l]) => [d, l])))
    const { lines } = chartOfRatio(pairs, 'length', fit, expected, 'inch')
    for (const { diameter, fitted } of lines) expect(fitted).toBeCloseTo(line(diameter), 9)
    const [low, high] = lines
    expect(((high?.expected ?? 0) - (low?.expected ?? 0)) / 0.004).toBeCloseTo(-2.836, 9)
  })
})

describe('pairs taken together by stop', () => {
  it('are all the pairs, each once, in the order of the best of each', () => {
    const ranked = rankPairs({
      collets: USUAL_COLLETS,
      operation: 'second',
      unit: 'inch',
      range,
      allowed: 0.005,
      measured: new Map(),
    })
    const groups = byStop(ranked)
    expect(groups.flatMap(({ collets, stop }) => collets.map(({ id }) => `${id} ${stop}`)).sort()).toEqual(
      ranked.map(({ collet, stop }) => `${collet.id} ${stop}`).sort(),
    )
    expect(groups[0]?.collets.length).toBeGreaterThan(1)
    expect(groups.at(-1)).toMatchObject({ stop: 'actuator', place: 'never' })
    expect(new Set(groups.map(({ stop }) => stop))).toEqual(new Set(stopKind.options))
  })
})
