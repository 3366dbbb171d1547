import fc from 'fast-check'
import { linearRegression, mean, standardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { demoReference } from '../demo/index.ts'
import { type Machine, type Obstacle, travelIn } from '../machine/index.ts'
import { asTyped, convertLength, type LengthUnit } from '../quantity/index.ts'
import {
  barRange,
  type ClearanceCase,
  clearance,
  fitRatio,
  lengthSpread,
  type Squareness,
  type Sweep,
  squareness,
  stopKind,
  USUAL_COLLETS,
  type Vise,
  type ViseState,
} from './index.ts'

const finite = (min: number, max: number) => evenly(min, max)
/** A length with as many digits as a dial or a rule shows, so that it is typed as it is. */
const typedIn = (min: number, max: number, digits: number) =>
  finite(min, max).map((value) => Number(value.toFixed(digits)))

describe('squaring does not depend on how things are counted', () => {
  const cases = fc.record({
    pivot: typedIn(-3, 9, 2),
    far: typedIn(2, 6, 2),
    near: typedIn(0, 1.5, 2),
    readings: fc.tuple(typedIn(-0.05, 0.05, 4), typedIn(-0.05, 0.05, 4)),
  })
  type Case = typeof cases extends fc.Arbitrary<infer Value> ? Value : never
  const sweepOf = (
    { pivot, near, far, readings: [first, last] }: Case,
    more: Partial<Sweep> = {},
  ): Sweep => ({
    bolts: 'one',
    pivot: asTyped(pivot, 'inch'),
    points: [
      { at: asTyped(near, 'inch'), reading: asTyped(first, 'inch') },
      { at: asTyped(far, 'inch'), reading: asTyped(last, 'inch') },
    ],
    plusMeans: 'towards',
    stylusAngle: 0,
    dialStep: asTyped(0.0005, 'inch'),
    partLength: asTyped(4, 'inch'),
    allowed: asTyped(0.001, 'inch'),
    ...more,
  })
  const found = (sweep: Sweep, unit: LengthUnit = 'inch'): Squareness => {
    const squared = squareness(sweep, unit)
    if (!squared.ok) throw new Error('no slope')
    return squared
  }

  it('in inches and in mm', () => {
    fc.assert(
      fc.property(cases, (of) => {
        const [inch, mm] = [found(sweepOf(of)), found(sweepOf(of), 'mm')]
        expect(mm.tap.target / 25.4).toBeCloseTo(inch.tap.target, 9)
        expect(mm.outOfSquare.value / 25.4).toBeCloseTo(inch.outOfSquare.value, 9)
        expect(mm.angle).toBeCloseTo(inch.angle, 9)
        expect([mm.tap.side, mm.tap.way]).toEqual([inch.tap.side, inch.tap.way])
      }),
    )
  })

  it('where the bolt stands midway between the readings, in either unit', () => {
    // 5 - 3.15 and 3.15 - 1.3 differ in the sixteenth digit, one way in inches and the other in mm.
    const of: Case = { pivot: 3.15, far: 5, near: 1.3, readings: [-0.05, -0.04] }
    const [inch, mm] = [found(sweepOf(of)), found(sweepOf(of), 'mm')]
    expect([inch.tap.side, inch.tap.way]).toEqual([mm.tap.side, mm.tap.way])
    expect(mm.tap.at / 25.4).toBeCloseTo(inch.tap.at, 9)
  })

  it('from the left end or from the right one: the same dial is tapped to the same reading', () => {
    fc.assert(
      fc.property(cases, (of) => {
        const jaw = 7
        // From the bolt midway between them, it is the first that is told, whichever that is.
        fc.pre(Math.abs(of.near + of.far - 2 * of.pivot) > 1e-6)
        const mirrored: Case = {
          pivot: jaw - of.pivot,
          near: jaw - of.far,
          far: jaw - of.near,
          readings: [of.readings[1], of.readings[0]],
        }
        const [left, right] = [found(sweepOf(of)), found(sweepOf(mirrored))]
        // With the bolt in the very middle either end is as far from it.
        fc.pre(Math.abs(Math.abs(of.near - of.pivot) - Math.abs(of.far - of.pivot)) > 1e-6)
        expect(right.tap.target).toBeCloseTo(left.tap.target, 9)
        expect(right.tap.at).toBeCloseTo(jaw - left.tap.at, 9)
        expect(right.angle).toBeCloseTo(-left.angle, 9)
        expect(right.tap.way).toBe(left.tap.way)
      }),
    )
  })

  it('with the dial plus towards or away: the same jaw goes the same way', () => {
    fc.assert(
      fc.property(cases, (of) => {
        const away = found(
          sweepOf({ ...of, readings: [-of.readings[0], -of.readings[1]] }, { plusMeans: 'away' }),
        )
        const towards = found(sweepOf(of))
        fc.pre(towards.tap.by > 1e-9)
        expect(away.tap.way).toBe(towards.tap.way)
        expect(away.angle).toBeCloseTo(towards.angle, 12)
        expect(away.tap.target).toBeCloseTo(-towards.tap.target, 12)
      }),
    )
  })
})

describe('the gaps, against a table that is driven through its whole travel', () => {
  const mill = demoReference.machines[0] as Machine
  const extent = fc
    .tuple(finite(-10, 4), finite(0.2, 5))
    .map(([front, length]) => ({ front, back: front + length }))
  const part = fc
    .record({
      name: fc.constant('part'),
      open: extent,
      closed: extent,
      bottom: finite(0, 3),
      height: finite(0.3, 3),
    })
    .map(({ height, ...of }) => ({ ...of, top: of.bottom + height }))
  const obstacle = (side: 'back' | 'front', at: fc.Arbitrary<number>): fc.Arbitrary<Obstacle> =>
    fc
      .record({ at, bottom: finite(-3, 12), height: finite(0.5, 20), comesDownWithZ: fc.boolean() })
      .map(({ height, ...of }) => ({ name: side, side, top: of.bottom + height, ...of }))
  const cases = fc.record({
    parts: fc.array(part, { minLength: 1, maxLength: 4 }),
    back: obstacle('back', finite(14, 20)),
    front: obstacle('front', finite(-9, -3)),
    jawAt: finite(2, 12),
    lowestZ: finite(-19, -1),
  })

  /** Two boxes: how far apart along Y where their heights meet, negative where they overlap; no number where they pass. */
  const apart = (a: [number, number, number, number], b: [number, number, number, number]) =>
    a[2] < b[3] && b[2] < a[3] ? Math.max(a[0] - b[1], b[0] - a[1]) : undefined

  it('are the least that is met anywhere, with the vise open and closed', () => {
    fc.assert(
      fc.property(cases, ({ parts, back, front, jawAt, lowestZ }) => {
        const vise: Vise = { id: 'v', version: 1, name: 'v', unit: 'inch', jawLength: 6, note: '', parts }
        const machine: Machine = { ...mill, around: { tableDepth: 14, obstacles: [back, front] } }
        const of: ClearanceCase = { machine, vise, unit: 'inch', jawAt, wanted: 0, lowestZ }
        const found = clearance(of)
        const { least, greatest } = travelIn(machine, 'Y', 'inch')
        const travel = greatest - least
        const worst = { back: Number.POSITIVE_INFINITY, front: Number.POSITIVE_INFINITY }
        for (let step = 0; step <= 16; step += 1) {
          const table = (travel * step) / 16
          // The obstacles stand in the room: at the back beyond the table's rearmost place, at the front at its foremost.
          for (const { side, at, bottom, top, comesDownWithZ } of [back, front]) {
            const down = comesDownWithZ ? lowestZ - greatest : 0
            const face = side === 'back' ? at + travel : at
            const solid: [number, number, number, number] =
              side === 'back'
                ? [face, face + 1000, bottom + down, top]
                : [face - 1000, face, bottom + down, top]
            for (const each of parts)
              for (const state of ['open', 'closed'] as ViseState[]) {
                const { front: from, back: to } = each[state]
                const gap = apart([table + jawAt + from, table + jawAt + to, each.bottom, each.top], solid)
                if (gap !== undefined) worst[side] = Math.min(worst[side], gap)
              }
          }
        }
        expect(found.back?.gap ?? Number.POSITIVE_INFINITY).toBeCloseTo(worst.back, 9)
        expect(found.front?.gap ?? Number.POSITIVE_INFINITY).toBeCloseTo(worst.front, 9)
      }),
    )
  })
})

describe('collets and stops', () => {
  it('the spread is the same length in inches and in mm, but for the usual figure of the stop', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...USUAL_COLLETS),
        fc.constantFrom(...stopKind.options),
        typedIn(0.2, 3, 4),
        typedIn(0, 0.02, 4),
        (collet, stop, diameter, spread) => {
          const of = (unit: LengthUnit) => {
            const bars = {
              known: 'tolerance' as const,
              diameter: asTyped(diameter, 'inch'),
              spread: asTyped(spread, 'inch'),
            }
            const range = barRange(bars, unit)
            const still = lengthSpread({
              collet,
              stop,
              unit,
              operation: 'second',
              range: { least: range.least, greatest: range.least },
              allowed: 1,
            }).value
            const whole = lengthSpread({ collet, stop, unit, operation: 'second', range, allowed: 1 }).value
            return convertLength(Number((whole - still).toFixed(12)), unit, 'inch')
          }
          expect(of('mm')).toBeCloseTo(of('inch'), 9)
        },
      ),
    )
  })

  it('the doubt of a measured ratio agrees with the spread of many chucks drawn at random', () => {
    let seed = 7
    const random = () => {
      seed = (seed * 1664525 + 1013904223) % 4294967296
      return seed / 4294967296
    }
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const drawn = Array.from({ length: 1500 }, () => {
      const pairs = Array.from({ length: 10 }, (_, index) => {
        const diameter = Number((1.248 + index * 0.0004).toFixed(4))
        const length = Number((3 * (diameter - 1.248) + 0.0004 * normal()).toFixed(7))
        return { diameter: asTyped(diameter, 'inch'), length: asTyped(length, 'inch') }
      })
      const fit = fitRatio(pairs, 'face', { value: 3, doubt: 0.5, way: 1 }, 'inch')
      if (!fit) throw new Error('no fit')
      const rows = pairs.map(({ diameter, length }) => [diameter.value, length.value])
      expect(fit.value).toBeCloseTo(linearRegression(rows).m, 6)
      return fit
    })
    expect(mean(drawn.map(({ value }) => value))).toBeCloseTo(3, 1)
    const stated = Math.sqrt(mean(drawn.map(({ doubt }) => doubt ** 2)))
    expect(standardDeviation(drawn.map(({ value }) => value)) / stated).toBeCloseTo(1, 1)
  })
})
