import fc from 'fast-check'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { radians } from '../geometry/index.ts'
import { asTyped, fixedDigits } from '../quantity/index.ts'
import { type PickupDraft, readDraft } from './draft.ts'
import { pickUp } from './pick-up.ts'
import type { Reading, ReadingOf } from './reading.ts'
import { REPEATABILITY } from './repeatability.ts'

// A part at a hidden place, and what each device would show there (common practice for what a device shows):
// the readings, typed as text, must lead back to the place.

const inch = { unit: 'inch', leastStep: 0.0001 } as const
const text = (value: number) => fixedDigits(value, 8)
const number = (least: number, greatest: number) =>
  fc.integer({ min: least * 10_000, max: greatest * 10_000 }).map((n) => n / 10_000)
const axis = fc.constantFrom('X' as const, 'Y' as const)
const way = fc.constantFrom('+' as const, '-' as const)
const sign = (direction: '+' | '-') => (direction === '+' ? 1 : -1)

interface Hidden {
  draft: PickupDraft
  zeros: { X?: number; Y?: number; Z?: number }
}

const face = fc
  .record({
    method: fc.constantFrom('edge-finder' as const, 'probe' as const),
    axis,
    direction: way,
    zero: number(-20, -5),
    drawing: number(-4, 4),
    tip: number(0.05, 1),
  })
  .map(
    ({ method, axis, direction, zero, drawing, tip }): Hidden => ({
      zeros: { [axis]: zero },
      draft: {
        method,
        axis,
        choices: { direction },
        fields: {
          diameter: text(tip),
          machinePosition: text(zero + drawing - (sign(direction) * tip) / 2),
          drawingPosition: text(drawing),
        },
      },
    }),
  )

const plane = fc.record({ axis, zero: number(-20, -5), drawing: number(-4, 4), swing: number(0.2, 2) }).map(
  ({ axis, zero, drawing, swing }): Hidden => ({
    zeros: { [axis]: zero },
    draft: {
      method: 'indicator',
      axis,
      choices: {},
      fields: {
        minusSide: text(zero + drawing - swing),
        plusSide: text(zero + drawing + swing),
        drawingPosition: text(drawing),
      },
    },
  }),
)

const between = fc
  .record({
    axis,
    zero: number(-20, -5),
    drawing: number(-4, 4),
    side: fc.constantFrom('web' as const, 'pocket' as const),
    width: number(1, 5),
    tip: number(0.05, 0.5),
  })
  .map(({ axis, zero, drawing, side, width, tip }): Hidden => {
    const out = side === 'web' ? tip / 2 : -tip / 2
    return {
      zeros: { [axis]: zero },
      draft: {
        method: 'middle',
        axis,
        choices: { side, device: 'edge-finder' },
        fields: {
          diameter: text(tip),
          width: text(width),
          low: text(zero + drawing - width / 2 - out),
          high: text(zero + drawing + width / 2 + out),
          drawingPosition: text(drawing),
        },
      },
    }
  })

// The dial rises by as much as the wall is nearer to the stylus' circle, in a bore from within, on a boss from without.
const sweep = fc
  .record({
    axis,
    zero: number(-20, -5),
    drawing: number(-4, 4),
    side: fc.constantFrom('bore' as const, 'boss' as const),
    off: number(-0.04, 0.04),
    radius: number(0.3, 2),
  })
  .map(({ axis, zero, drawing, side, off, radius }): Hidden => {
    const [centre, at] = [zero + drawing, zero + drawing + off]
    const [plusWall, minusWall] = [centre + radius - at, at - (centre - radius)]
    const dial = (wall: number) => (side === 'bore' ? radius - wall : wall - radius)
    return {
      zeros: { [axis]: zero },
      draft: {
        method: 'swept',
        axis,
        choices: { side },
        fields: {
          machinePosition: text(at),
          plusDial: text(dial(plusWall)),
          minusDial: text(dial(minusWall)),
          drawingPosition: text(drawing),
        },
      },
    }
  })

const round = fc
  .record({
    zeroX: number(-20, -5),
    zeroY: number(-12, -4),
    x: number(-4, 4),
    y: number(-4, 4),
    side: fc.constantFrom('bore' as const, 'boss' as const),
    radius: number(0.4, 3),
    tip: number(0.05, 0.5),
    from: evenly(0, 6),
    n: fc.integer({ min: 3, max: 8 }),
  })
  .map(({ zeroX, zeroY, x, y, side, radius, tip, from, n }): Hidden => {
    const off = side === 'bore' ? radius - tip / 2 : radius + tip / 2
    const points = Array.from({ length: n }, (_, i) => {
      const angle = from + (i * 2 * Math.PI) / n
      return `${text(zeroX + x + off * Math.cos(angle))} ${text(zeroY + y + off * Math.sin(angle))}`
    })
    return {
      zeros: { X: zeroX, Y: zeroY },
      draft: {
        method: 'circle',
        axis: 'X',
        choices: { side, device: 'probe' },
        fields: {
          diameter: text(tip),
          nominal: text(2 * radius),
          points: points.join('\n'),
          drawingX: text(x),
          drawingY: text(y),
        },
      },
    }
  })

// A corner of any angle, lying at any slant: each face is touched some way from the corner, a tip's radius off it.
const corner = fc
  .record({
    zeroX: number(-20, -5),
    zeroY: number(-12, -4),
    x: number(-4, 4),
    y: number(-4, 4),
    directionX: way,
    directionY: way,
    inside: fc.boolean(),
    angle: fc.integer({ min: 60, max: 120 }),
    slant: evenly(-12, 12),
    tip: number(0.05, 0.5),
    touches: fc
      .tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }))
      .filter(([a, b]) => a + b > 2),
  })
  .map(({ zeroX, zeroY, x, y, directionX, directionY, inside, angle, slant, tip, touches }): Hidden => {
    const [sx, sy] = [sign(directionX), sign(directionY)]
    // Faces run from the corner away from the other face (outside), or back (inside).
    const back = inside ? -1 : 1
    const lean = sx * sy * (90 - angle)
    const along = {
      X: radians(90 + slant),
      Y: radians(0 + slant + lean),
    }
    const faceX = { x: back * sy * Math.cos(along.X), y: back * sy * Math.sin(along.X) }
    const faceY = { x: back * sx * Math.cos(along.Y), y: back * sx * Math.sin(along.Y) }
    const normalX = { x: -sx * Math.sin(along.X), y: sx * Math.cos(along.X) }
    const normalY = { x: sy * Math.sin(along.Y), y: -sy * Math.cos(along.Y) }
    const list = (face: { x: number; y: number }, normal: { x: number; y: number }, n: number) =>
      Array.from({ length: n }, (_, i) => {
        const t = 0.7 + 0.9 * i
        return `${text(zeroX + x + t * face.x + (tip / 2) * normal.x)} ${text(zeroY + y + t * face.y + (tip / 2) * normal.y)}`
      }).join('\n')
    return {
      zeros: { X: zeroX, Y: zeroY },
      draft: {
        method: 'corner',
        axis: 'X',
        choices: { device: 'probe', directionX, directionY },
        fields: {
          diameter: text(tip),
          pointsX: list(faceX, normalX, touches[0]),
          pointsY: list(faceY, normalY, touches[1]),
          cornerAngle: String(angle),
          drawingX: text(x),
          drawingY: text(y),
        },
      },
    }
  })

const top = fc
  .record({ zero: number(-18, -10), length: number(0.5, 6), block: number(0, 2), drawing: number(-2, 2) })
  .map(
    ({ zero, length, block, drawing }): Hidden => ({
      zeros: { Z: zero },
      draft: {
        method: 'tool-on-block',
        axis: 'Z',
        choices: {},
        fields: {
          tool: '7',
          toolLength: text(length),
          blockHeight: text(block),
          machinePosition: text(zero + drawing + block + length),
          drawingPosition: text(drawing),
        },
      },
    }),
  )

describe('simulated readings lead back to the pose', () => {
  it.each([
    ['a face', face],
    ['a plane by indicator', plane],
    ['a web or pocket', between],
    ['a bore or boss swept', sweep],
    ['a bore or boss by touches', round],
    ['a corner of any angle and slant', corner],
    ['a top by a tool on a block', top],
  ] as const)('%s', (_, hidden: fc.Arbitrary<Hidden>) => {
    fc.assert(
      fc.property(hidden, ({ draft, zeros }) => {
        const read = readDraft(draft, 'inch')
        if (!read.ok) throw new Error(JSON.stringify(read.problems))
        expect(read.readings.map(({ axis }) => axis).sort()).toEqual(Object.keys(zeros).sort())
        for (const each of read.readings)
          expect(pickUp(each, inch).value).toBeCloseTo(zeros[each.axis] ?? 0, 6)
        const { size } = pickUp(read.reading, inch)
        if (size?.nominal !== undefined) expect(size.value).toBeCloseTo(size.nominal, 5)
      }),
    )
  })
})

/** Normal deviates by Box and Muller from a generator with a seed (Park and Miller, CACM 31, 1988). */
function normals(seed: number) {
  let state = seed
  const uniform = () => {
    state = (state * 16_807) % 2_147_483_647
    return state / 2_147_483_647
  }
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
}

describe('the doubt is what the readings scatter by (JCGM 101:2008, propagation by Monte Carlo)', () => {
  const fine = { unit: 'inch', leastStep: 1e-9 } as const
  const u = REPEATABILITY['edge-finder'].inch
  const scattered = (of: (noise: () => number) => Reading) => {
    const noise = normals(20_261_125)
    return sampleStandardDeviation(
      Array.from(
        { length: Math.max(1000, times(4000, 4000)) },
        () =>
          pickUp(
            of(() => u * noise()),
            fine,
          ).value,
      ),
    )
  }
  const at = (value: number) => asTyped(Number(value.toFixed(9)), 'inch')
  const point = (x: number, y: number) => ({ x: at(x), y: at(y) })

  it('for the middle of two faces, and for a mean of four readings', () => {
    const middle = (noise: () => number): ReadingOf<'middle'> => ({
      method: 'middle',
      axis: 'X',
      device: 'edge-finder',
      side: 'web',
      diameter: at(0.2),
      low: at(-10 + noise()),
      high: at(-8 + noise()),
      drawingPosition: at(0),
    })
    expect(
      scattered(middle) /
        pickUp(
          middle(() => 0),
          fine,
        ).doubt.value,
    ).toBeCloseTo(1, 1)
    const four = (noise: () => number): Reading => ({
      method: 'edge-finder',
      axis: 'X',
      direction: '+',
      diameter: at(0.2),
      machinePosition: {
        ...at(-10 + noise()),
        repeats: [at(-10 + noise()), at(-10 + noise()), at(-10 + noise())],
      },
      drawingPosition: at(0),
    })
    expect(scattered(four) / (u / 2)).toBeCloseTo(1, 1)
    expect(
      pickUp(
        four(() => 0),
        fine,
      ).doubt.value,
    ).toBeCloseTo(u / 2, 9)
  })

  it('for the centre of a circle through touches on half of it', () => {
    const circle = (noise: () => number): ReadingOf<'circle'> => ({
      method: 'circle',
      axis: 'Y',
      device: 'edge-finder',
      side: 'bore',
      diameter: at(0.2),
      points: [0, 45, 90, 135, 180].map((angle) => {
        const r = 1 + noise()
        return point(-10 + r * Math.cos(radians(angle)), -5 + r * Math.sin(radians(angle)))
      }),
      drawingX: at(0),
      drawingY: at(0),
    })
    expect(
      scattered(circle) /
        pickUp(
          circle(() => 0),
          fine,
        ).doubt.value,
    ).toBeCloseTo(1, 1)
  })

  it('for a corner from three touches', () => {
    const corner = (noise: () => number): ReadingOf<'corner'> => ({
      method: 'corner',
      axis: 'X',
      device: 'edge-finder',
      diameter: at(0.2),
      directionX: '+',
      pointsX: [point(-10.1 + noise(), -4)],
      directionY: '+',
      pointsY: [point(-9, -5.1 + noise()), point(-6, -5.1 + noise())],
      cornerAngle: 90,
      drawingX: at(0),
      drawingY: at(0),
    })
    expect(
      scattered(corner) /
        pickUp(
          corner(() => 0),
          fine,
        ).doubt.value,
    ).toBeCloseTo(1, 1)
  })

  it('the mean is that of simple-statistics', () => {
    const values = [-9.2205, -9.2201, -9.221]
    const [first, ...more] = values.map((value) => asTyped(value, 'inch'))
    const reading = {
      method: 'sensor',
      axis: 'X',
      machinePosition: { ...first, repeats: more },
      drawingPosition: at(0),
    } as Reading
    expect(pickUp(reading, inch).value).toBeCloseTo(mean(values), 12)
  })
})
