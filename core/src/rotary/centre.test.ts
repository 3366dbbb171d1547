import fc from 'fast-check'
import { sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { convertLength } from '../quantity/index.ts'
import { measureCentre } from './centre.ts'
import { type CentreDraft, centreDraftOf, readCentreDraft, startingCentre } from './draft.ts'
import { judgeCentre } from './judge-centre.ts'
import { type CentreReading, centreReading } from './reading.ts'
import { middleAt, withRotary } from './testing.ts'

const mill = withRotary(demoReference.machines[0] as Machine)
const settings = { unit: 'inch', leastStep: 0.0001 } as const
const fine = { unit: 'inch', leastStep: 1e-9 } as const

/** By hand: a bar of 2 in, tip 0.2, runs out 0.003 to the back and 0.004 down at 0; the axis at Y -8, Z -14 (tool 6, block 1). */
const filled: CentreDraft = {
  ...startingCentre('probe', 'inch'),
  diameter: '.2',
  across: '2',
  tool: '20',
  toolLength: '6',
  block: '1',
  turned: '0',
  front: '-9.097',
  back: '-6.897',
  top: '-6.004',
  halfTurned: '180',
  halfFront: '-9.103',
  halfBack: '-6.903',
  halfTop: '-5.996',
}
const reading = (change: Partial<CentreDraft> = {}): CentreReading => {
  const read = readCentreDraft({ ...filled, ...change }, 'inch')
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}
const unturned = { halfTurned: '', halfFront: '', halfBack: '', halfTop: '' }
const judged = (change: Partial<CentreDraft>, last?: Parameters<typeof judgeCentre>[2]['last']) => {
  const of = reading(change)
  return judgeCentre(of, measureCentre(of, settings), { machine: mill, unit: 'inch', last })
}
const codes = (...of: Parameters<typeof judged>) => judged(...of).map(({ code }) => code)

describe('the centre line of a rotary', () => {
  it('is the middle of both sides, and of both by half a turn; half the difference is what runs out', () => {
    const found = measureCentre(reading(), settings)
    expect(found.Y?.value).toBeCloseTo(-8, 9)
    expect(found.Z?.value).toBeCloseTo(-14, 9)
    expect([found.Y?.runsOut, found.Z?.runsOut].map((of) => of?.toFixed(6))).toEqual([
      '0.003000',
      '-0.004000',
    ])
    // 3, 4, 5.
    expect(found.runsOut).toMatchObject({ value: expect.closeTo(0.005, 9), atLeast: false })
    expect(found.widths.map((width) => width.toFixed(6))).toEqual(['2.000000', '2.000000'])
    expect(found.Y?.working.at(-1)).toMatchObject({ finds: 'it runs out', gives: '0.0030' })
    expect(judged({})).toEqual([])
  })

  it('without half a turn has the part’s own place in it, and says so', () => {
    const found = measureCentre(reading(unturned), settings)
    expect(found.Y?.value).toBeCloseTo(-7.997, 9)
    expect(found.Z?.value).toBeCloseTo(-14.004, 9)
    expect(found.runsOut).toBeUndefined()
    expect(codes(unturned)).toEqual(['not-turned'])
    const onlyY = measureCentre(reading({ top: '', halfTop: '' }), settings)
    expect(onlyY.Z).toBeUndefined()
    expect(onlyY.runsOut).toMatchObject({ value: expect.closeTo(0.003, 9), atLeast: true })
  })

  it('leads back 1,000 hidden rotaries from the touches of a bar that runs out, in either unit', () => {
    fc.assert(
      fc.property(
        fc.record({ y: evenly(-10, -6), z: evenly(-16, -12) }),
        evenly(-200, 200),
        fc.record({ y: evenly(-0.05, 0.05), z: evenly(-0.05, 0.05) }),
        fc.record({ across: evenly(0.5, 4), tip: evenly(0, 0.25), tool: evenly(2, 8), block: evenly(0, 2) }),
        fc.constantFrom('front' as const, 'back' as const),
        fc.constantFrom(180, -180, 540),
        fc.constantFrom('inch' as const, 'mm' as const),
        (axis, turned, off, { across, tip, tool, block }, top, by, unit) => {
          const hidden = { axis, zero: 0, rotary: { word: 'A' as const, top, turns: null } }
          const text = (inch: number) => convertLength(inch, 'inch', unit).toFixed(8)
          const sides = (shown: number) => {
            const { y, z } = middleAt(hidden, shown, off)
            const reach = across / 2 + tip / 2
            // A tool's machine Z: its tip stands on the block, on top of the bar.
            return [text(y - reach), text(y + reach), text(z + across / 2 + block + tool)] as const
          }
          const [front, back, over] = sides(turned)
          const [halfFront, halfBack, halfTop] = sides(turned + by)
          const read = readCentreDraft(
            {
              ...startingCentre('probe', unit),
              diameter: text(tip),
              across: text(across),
              tool: '20',
              toolLength: text(tool),
              block: text(block),
              turned: turned.toFixed(8),
              halfTurned: (turned + by).toFixed(8),
              front,
              back,
              top: over,
              halfFront,
              halfBack,
              halfTop,
            },
            unit,
          )
          if (!read.ok) throw new Error(JSON.stringify(read.problems))
          const found = measureCentre(read.value, { ...fine, unit })
          const inch = (value: number | undefined) => convertLength(value ?? Number.NaN, unit, 'inch')
          expect(inch(found.Y?.value)).toBeCloseTo(axis.y, 6)
          expect(inch(found.Z?.value)).toBeCloseTo(axis.z, 6)
          expect(inch(found.runsOut?.value)).toBeCloseTo(Math.hypot(off.y, off.z), 6)
          const again = readCentreDraft(centreDraftOf(read.value), unit)
          expect(again.ok && again.value).toEqual(read.value)
        },
      ),
      depth(200, 1000),
    )
  })

  it('doubts as much as a Monte Carlo of its readings scatters, once and by half a turn', () => {
    let seed = 11
    const random = () => {
      seed = (seed * 16807) % 2147483647
      return seed / 2147483647
    }
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const noisy = (text: string, by = 0.0001) =>
      text === '' ? '' : String(Number(text) + by * normal() + 0.0001 * (random() - 0.5))
    for (const change of [{}, unturned]) {
      const own = { ...filled, ...change }
      const trials = Array.from({ length: 3000 }, () => {
        const { front, back, top, halfFront, halfBack, halfTop } = own
        const found = measureCentre(
          reading({
            ...change,
            front: noisy(front),
            back: noisy(back),
            top: noisy(top),
            halfFront: noisy(halfFront),
            halfBack: noisy(halfBack),
            halfTop: noisy(halfTop),
            across: String(2 + 0.0005 * normal()),
          }),
          settings,
        )
        return [found.Y?.value ?? 0, found.Z?.value ?? 0] as const
      })
      const found = measureCentre(reading(change), settings)
      for (const [axis, n] of [
        ['Y', 0],
        ['Z', 1],
      ] as const) {
        const scatter = sampleStandardDeviation(trials.map((of) => of[n]))
        const said = found[axis]?.doubt.value ?? 0
        expect(said / scatter, axis).toBeGreaterThan(0.85)
        expect(said / scatter, axis).toBeLessThan(1.15)
      }
    }
  })
})

describe('what can be wrong with a centre line', () => {
  it.each([
    [{ front: '-6.897', back: '-9.097' }, 'sides-swapped', 'front'],
    [{ halfTurned: '90' }, 'not-half-a-turn', 'halfTurned'],
    [{ across: '50.8' }, 'unit-mixed', 'across'],
    [{ across: '2.01' }, 'width-differs', 'across'],
    [{ halfBack: '-6.91' }, 'half-width-differs', 'halfFront'],
    [{ front: '-17.097' }, 'outside-travel', 'front'],
    [{ top: '2' }, 'outside-travel', 'top'],
    [{ halfFront: '-9.203', halfBack: '-7.003' }, 'runs-out', 'halfFront'],
  ] as [Partial<CentreDraft>, string, string][])('%o: %s at %s', (change, code, where) => {
    expect(judged(change)).toContainEqual(expect.objectContaining({ code, where }))
  })

  it('a bar that is not round has no width to be held against', () => {
    expect(codes({ across: '1.5', round: false })).toEqual([])
  })

  it('one that lies elsewhere than before is looked at, and noted where something had happened', () => {
    const last = { Y: { value: -8.01, doubt: 0.0001 }, fresh: true }
    expect(codes({}, last)).toEqual(['centre-moved'])
    expect(codes({}, { ...last, fresh: false })).toEqual(['centre-was'])
    expect(codes({}, { ...last, Y: { value: -8.0001, doubt: 0.0001 } })).toEqual([])
  })

  it('and each field says what it still needs', () => {
    const read = (change: Partial<CentreDraft>) => {
      const of = readCentreDraft({ ...filled, ...change }, 'inch')
      return of.ok ? {} : of.problems
    }
    const nothing = readCentreDraft(startingCentre('probe', 'inch'), 'inch')
    expect(!nothing.ok && Object.keys(nothing.problems).sort()).toEqual([
      'back',
      'diameter',
      'front',
      'turned',
    ])
    expect(read({ back: '' })).toHaveProperty('back')
    expect(read({ top: '' })).toHaveProperty('top')
    expect(read({ toolLength: '' })).toHaveProperty('toolLength')
    expect(read({ across: '' })).toHaveProperty('across')
    expect(read({ across: '-2' }).across?.says).toMatch(/more than zero/)
    expect(read({ diameter: '-.2' }).diameter?.says).toMatch(/no negative diameter/)
    expect(read({ block: '-1' })).toHaveProperty('toolLength')
    expect(read({ halfTurned: '' })).toHaveProperty('halfTurned')
    // Straight from a tablet, without the form: one side alone, a top without its tool.
    const whole = reading()
    const { back: _, ...front } = whole.first
    expect(centreReading.safeParse({ ...whole, first: front }).success).toBe(false)
    const { height: __, ...toolless } = whole
    expect(centreReading.safeParse(toolless).success).toBe(false)
    expect(centreReading.safeParse(whole).success).toBe(true)
    // An indicator has no diameter that counts, and a sensor at zero has none.
    expect(read({ device: 'indicator', diameter: '' })).toEqual({})
  })
})
