import fc from 'fast-check'
import { sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine, RotaryAxis } from '../machine/index.ts'
import { convertLength } from '../quantity/index.ts'
import { flatDraftOf, readFlatDraft, startingFlat, wasTurned } from './draft.ts'
import { measureFlat, tiltOf } from './flat.ts'
import { judgeFlat } from './judge-flat.ts'
import { type FlatReading, flatReading } from './reading.ts'
import { ballOn, ROTARY, typed, withRotary } from './testing.ts'

const mill = withRotary(demoReference.machines[0] as Machine)
const settings = { unit: 'inch', leastStep: 0.0001 } as const
const fine = { unit: 'inch', leastStep: 1e-9 } as const
const LOOKS = { up: 90, front: 180, back: 0 } as const

type Touches = Extract<FlatReading, { method: 'touches' }>
const touches = (
  first: readonly [number, number],
  second: readonly [number, number],
  more: Partial<Touches> = {},
): Touches => ({
  method: 'touches',
  device: 'probe',
  faces: 'up',
  turned: 0,
  first: { y: typed(first[0]), z: typed(first[1]) },
  second: { y: typed(second[0]), z: typed(second[1]) },
  drawing: 0,
  ...more,
})
const judged = (reading: FlatReading, of: Partial<Parameters<typeof judgeFlat>[3]> = {}, machine = mill) => {
  const rotary = machine.rotary as RotaryAxis
  return judgeFlat(reading, measureFlat(reading, rotary, settings), rotary, {
    machine,
    unit: 'inch',
    centreY: undefined,
    last: undefined,
    ...of,
  })
}
const codes = (...of: Parameters<typeof judged>) => judged(...of).map(({ code }) => code)

describe('A from a flat', () => {
  // By hand, with a pocket calculator: the flat rises 0.0175 in over 1 in towards the back, atan(0.0175) = 1.0026 deg.
  it('turns it back by its tilt, in the way that the rotary counts', () => {
    const reading = touches([-8.5, -10], [-7.5, -9.9825], { turned: 10 })
    const front = measureFlat(reading, ROTARY, settings)
    expect(front.tilt).toBeCloseTo(1.0026, 4)
    // Its back is high. Counting up takes the top to the front and the back up: so it goes back, to 8.9974.
    expect(front.value).toBeCloseTo(8.9974, 4)
    expect(measureFlat(reading, { ...ROTARY, top: 'back' }, settings).value).toBeCloseTo(11.0026, 4)
    expect(measureFlat({ ...reading, drawing: 90 }, ROTARY, settings).value).toBeCloseTo(-81.0026, 4)
    expect(front.working.map(({ gives }) => gives)).toEqual([
      '0.0175',
      '1.0000',
      '1.003 deg',
      '8.997 deg',
      '8.997 deg',
    ])
  })

  it('is the same whichever of two touches comes first, and a flat that stands as it faces has no tilt', () => {
    expect(tiltOf(1, 0, 'up')).toBeCloseTo(0, 12)
    expect(tiltOf(0, -1, 'front')).toBeCloseTo(0, 12)
    fc.assert(
      fc.property(
        evenly(-2, 2),
        evenly(-2, 2),
        fc.constantFrom('up' as const, 'front' as const, 'back' as const),
        (dy, dz, faces) => {
          fc.pre((faces === 'up' ? dy : dz) !== 0)
          expect(tiltOf(-dy, -dz, faces)).toBeCloseTo(tiltOf(dy, dz, faces), 9)
        },
      ),
    )
  })

  it('leads back 1,000 hidden parts from where a ball touches them, whichever way the flat faces and the rotary counts', () => {
    fc.assert(
      fc.property(
        fc.record({ y: evenly(-10, -6), z: evenly(-14, -10) }),
        evenly(-400, 400),
        evenly(-25, 25),
        evenly(-170, 170),
        fc.constantFrom('up' as const, 'front' as const, 'back' as const),
        fc.constantFrom('front' as const, 'back' as const),
        fc.record({
          height: evenly(0.2, 2),
          ball: evenly(0.02, 0.12),
          from: evenly(-0.6, 0.6),
          over: evenly(0.2, 1),
        }),
        fc.constantFrom('inch' as const, 'mm' as const),
        (axis, zero, off, drawing, faces, top, { height, ball, from, over }, unit) => {
          const rotary: RotaryAxis = { word: 'A', top, turns: null }
          const hidden = { axis, zero, rotary }
          // The flat faces so when the program has the rotary at `drawing`: as drawn it looks elsewhere.
          const sense = top === 'front' ? 1 : -1
          const face = { height, looks: LOOKS[faces] - sense * drawing }
          const turned = zero + drawing + off
          const along = faces === 'up' ? 'down' : 'across'
          const middle = faces === 'up' ? axis.y : axis.z
          const [a, b] = [from, from + over].map((at) =>
            ballOn(hidden, turned, face, ball, along, middle + at),
          ) as [{ y: number; z: number }, { y: number; z: number }]
          const text = (inch: number) => convertLength(inch, 'inch', unit).toFixed(8)
          const read = readFlatDraft(
            {
              ...startingFlat('probe'),
              faces,
              turned: turned.toFixed(8),
              drawing: drawing.toFixed(8),
              y1: text(a.y),
              z1: text(a.z),
              y2: text(b.y),
              z2: text(b.z),
            },
            unit,
          )
          if (!read.ok) throw new Error(JSON.stringify(read.problems))
          const flat = measureFlat(read.value, rotary, { ...fine, unit })
          expect(flat.value).toBeCloseTo(zero, 4)
          expect(flat.tilt).toBeCloseTo(sense * off, 4)
          // And from its form again.
          const again = readFlatDraft(flatDraftOf(read.value), unit)
          expect(again.ok && again.value).toEqual(read.value)
        },
      ),
      depth(200, 1000),
    )
  })

  it('from an indicator swept along it: the difference of the dial over the way', () => {
    // By hand: 0.002 in over 2 in is 0.0573 deg (1 mil in an inch is 3.438 minutes of arc).
    const level: FlatReading = {
      method: 'level',
      turned: 33,
      span: typed(2),
      front: typed(0.001),
      back: typed(0.003),
      drawing: 0,
    }
    expect(measureFlat(level, ROTARY, settings).tilt).toBeCloseTo(0.0573, 4)
    expect(measureFlat(level, ROTARY, settings).value).toBeCloseTo(33 - 0.0573, 4)
    expect(measureFlat({ ...level, back: typed(0.001) }, ROTARY, settings).value).toBe(33)
    expect(flatReading.safeParse({ ...level, span: typed(0) }).success).toBe(false)
    expect(readFlatDraft(flatDraftOf(level), 'inch')).toEqual({ ok: true, value: level })
  })

  it('doubts as much as a Monte Carlo of its readings scatters', () => {
    const normal = (random: () => number) =>
      Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    let seed = 7
    const random = () => {
      seed = (seed * 16807) % 2147483647
      return seed / 2147483647
    }
    for (const [faces, first, second] of [
      ['up', [-8.4, -10], [-7.6, -9.99]],
      ['front', [-8.4, -10], [-8.42, -9.4]],
    ] as const) {
      const step = 0.0001
      const noisy = (value: number) =>
        Math.round((value + 0.0001 * normal(random)) / step + (random() - 0.5)) * step
      const values = Array.from({ length: 4000 }, () => {
        const of = (point: readonly [number, number]): [number, number] =>
          faces === 'up' ? [point[0], noisy(point[1])] : [noisy(point[0]), point[1]]
        const turned = Math.round(0.001 * (random() - 0.5) * 1e6) / 1e6
        return measureFlat(touches(of(first), of(second), { faces, turned }), ROTARY, settings).value
      })
      const { doubt } = measureFlat(touches([...first], [...second], { faces }), ROTARY, settings)
      const scatter = sampleStandardDeviation(values)
      expect(doubt.value / scatter).toBeGreaterThan(0.85)
      expect(doubt.value / scatter).toBeLessThan(1.15)
    }
  })
})

describe('what can be wrong with a flat', () => {
  it('one touched from two sides of the axis is no flat, known by the centre line or by how steep it would be', () => {
    const front = { faces: 'front' } as const
    const right = touches([-8.5, -11], [-8.5, -10.5], front)
    expect(codes(right, { centreY: -8 })).toEqual([])
    // 0.5 thick, and 0.9 apart in height: 29 degrees, which only the centre line tells from a flat that is turned.
    const both = touches([-8.25, -11.2], [-7.75, -10.3], front)
    expect(codes(both, { centreY: -8 })).toEqual(['other-side', 'turn-nearer'])
    expect(codes(both)).toEqual(['turn-nearer'])
    expect(codes(touches([-8.5, -11], [-7.5, -10.5], front))).toEqual(['not-one-flat'])
    expect(judged(touches([-7.5, -11], [-7.5, -10.5], front), { centreY: -8 })[0]?.fix).toBe(
      'Say which way the flat faces.',
    )
  })

  it('a rotary that counts the other way than its page says is found by the second measuring', () => {
    const first = measureFlat(touches([-8.5, -10], [-7.5, -9.95], { turned: 0 }), ROTARY, settings)
    const last = { ...first, doubt: first.doubt.value, fresh: true }
    // Sent to where it should be level: rightly it is, wrongly it is tilted twice as much.
    const level = touches([-8.5, -10], [-7.5, -10], { turned: first.level })
    const worse = touches([-8.5, -10], [-7.5, -9.8992], { turned: first.level })
    expect(codes(level, { last })).toEqual([])
    expect(codes(worse, { last })).toEqual(['counts-other-way', 'differs-from-last'])
    expect(codes(worse, { last: { ...last, fresh: false } })).toEqual(['was-before'])
  })

  it('places and angles that the machine has not, and touches that are too near', () => {
    const limited = withRotary(mill, { word: 'A', top: 'front', turns: { least: -10, greatest: 110 } })
    expect(codes(touches([-8.5, -10], [-7.5, -10], { turned: 120 }), {}, limited)).toEqual(['rotary-limits'])
    expect(codes(touches([-8.5, -10], [-7.5, -9.9], { turned: -8 }), {}, limited)).toEqual(['rotary-limits'])
    expect(codes(touches([8.5, -10], [7.5, -10]))).toEqual(['outside-travel', 'outside-travel'])
    expect(codes(touches([-8.5, -10], [-8.44, -10]))).toEqual(['angle-doubted'])
  })

  it('a rotary that was turned between the touches is told by more than a step of its display', () => {
    expect([wasTurned('10', '10.001'), wasTurned('10', '10.002'), wasTurned('-0.5', '0.5')]).toEqual([
      false,
      true,
      true,
    ])
    expect(wasTurned('ten', '10')).toBe(false)
  })

  it('and each field says what it still needs', () => {
    const empty = readFlatDraft({ ...startingFlat('probe'), drawing: '' }, 'inch')
    if (empty.ok) throw new Error('read')
    expect(Object.keys(empty.problems).sort()).toEqual(['drawing', 'turned', 'y1', 'y2', 'z1', 'z2'])
    expect(Object.values(empty.problems).every(({ empty }) => empty)).toBe(true)
    const form = { ...startingFlat('probe'), turned: '0', y1: '-8', z1: '-10', y2: '-8', z2: '-9' }
    const same = readFlatDraft(form, 'inch')
    expect(!same.ok && same.problems.y2?.says).toMatch(/one place across the flat/)
    // The same place in two units is one place.
    expect(flatReading.safeParse(touches([-1, -10], [-1, -9])).success).toBe(false)
    const inMm = { text: '-25.4', value: -25.4, unit: 'mm' as const }
    const twice = touches([-1, -10], [-2, -9])
    expect(flatReading.safeParse({ ...twice, second: { ...twice.second, y: inMm } }).success).toBe(false)
    const finder = readFlatDraft({ ...form, y2: '-7', device: 'edge-finder' }, 'inch')
    expect(!finder.ok && finder.problems.device?.says).toMatch(/finds no height/)
    const huge = readFlatDraft({ ...form, y2: '-7', turned: '1e9' }, 'inch')
    expect(!huge.ok && huge.problems.turned?.says).toMatch(/is not an angle/)
    const far = readFlatDraft({ ...form, y2: '-7', turned: '100000' }, 'inch')
    expect(!far.ok && far.problems.turned?.says).toMatch(/further than any control counts/)
  })
})
