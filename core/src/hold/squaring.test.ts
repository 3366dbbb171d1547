import fc from 'fast-check'
import { mean, standardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import { offTheJaw, squareness, squareOrTurn, sweep } from './index.ts'
import { type Case, codes, FIRST, square, sweepOf } from './testing.ts'

describe('the target at the far end', () => {
  it('is 0.0068 past zero for a bolt outboard of the sweep (worked example, common practice: "go past zero by 0.005 to 0.010")', () => {
    const { tap, outOfSquare } = square(FIRST)
    expect(tap).toMatchObject({ at: 5.75, side: 'right', way: 'front' })
    expect(tap.target).toBeCloseTo(0.0068, 4)
    expect(tap.by).toBeCloseTo(0.0368, 4)
    expect(outOfSquare.working.map(({ finds, arithmetic, gives }) => [finds, arithmetic, gives])).toEqual([
      ['slope m', '(-0.0300 - 0.0000) / (5.7500 - 0.2500)', '-0.005455'],
      ['target', '-0.0300 - (-0.005455) x (5.7500 + 1.0000)', '+0.0068'],
      ['out of square', '|-0.005455| x 4.0000', '0.0218'],
    ])
  })

  it('is on the near side with the bolt between the points, zero with the dial zeroed over it, and taken at the end far from it', () => {
    expect(square({ ...FIRST, pivot: 3 }).tap.target).toBeCloseTo(-0.015, 4)
    expect(codes({ ...FIRST, pivot: 3 })).toContain('pivot-between')
    expect(square({ ...FIRST, pivot: 0.25 }).tap.target).toBeCloseTo(0, 12)
    const right = square({ ...FIRST, pivot: 7 }).tap
    expect(right).toMatchObject({ at: 0.25, side: 'left' })
    expect(right?.target).toBeCloseTo(-0.0368, 4)
  })

  it('does not care where the dial was zeroed, and names the way by what plus means on this dial', () => {
    const shifted = square({
      ...FIRST,
      points: [
        [0.25, 0.1],
        [5.75, 0.07],
      ],
    })
    expect(shifted.tap.target).toBeCloseTo(0.1068, 4)
    expect(square({ ...FIRST, plusMeans: 'away' }).tap.way).toBe('back')
    expect(square(FIRST).angle).toBeCloseTo((Math.atan(0.03 / 5.5) * 180) / Math.PI, 9)
    expect(square({ ...FIRST, plusMeans: 'away' }).angle).toBeLessThan(0)
  })
})

describe('the stylus angle', () => {
  it.each([
    [10, 0.98],
    [30, 0.87],
    [45, 0.71],
    [60, 0.5],
  ])('at %d degrees the truth is %d of the reading (common practice; the cosine)', (stylusAngle, share) => {
    const flat = square(FIRST)
    const leaning = square({ ...FIRST, stylusAngle })
    expect(leaning.outOfSquare.value / flat.outOfSquare.value).toBeCloseTo(share, 2)
    // The dial itself is watched while tapping: its target is the same.
    expect(leaning.tap.target).toBe(flat.tap.target)
  })
})

describe('doubt and judgement', () => {
  it('agrees with the spread of many sweeps drawn at random', () => {
    // A rectangular dial step and a normal hand, as the doubt assumes; a linear congruential generator for repeatable draws.
    let seed = 42
    const random = () => {
      seed = (seed * 1664525 + 1013904223) % 4294967296
      return seed / 4294967296
    }
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const read = (true_: number) => {
      const shown = true_ + 0.0001 * normal() + (random() - 0.5) * 0.0005
      return Math.round(shown * 1e7) / 1e7
    }
    const drawn = Array.from({ length: 4000 }, () =>
      square({
        ...FIRST,
        points: [
          [0, read(0)],
          [2, read(0.01)],
          [5, read(0.025)],
        ],
      }),
    )
    const values = drawn.map(({ outOfSquare }) => outOfSquare.value)
    expect(mean(values)).toBeCloseTo(0.02, 4)
    expect(standardDeviation(values) / (drawn[0]?.outOfSquare.doubt.value ?? 0)).toBeCloseTo(1, 1)
  })

  it.each<[string, Case, string]>([
    [
      'points on top of each other',
      {
        points: [
          [2, 0],
          [2, 0.01],
        ],
      },
      'points-together',
    ],
    [
      'points a hair apart',
      {
        pivot: 2,
        points: [
          [2, 0],
          [2.0000001, 0],
        ],
      },
      'short-base',
    ],
    [
      'a short base',
      {
        points: [
          [0, 0],
          [1, 0],
        ],
      },
      'short-base',
    ],
    [
      'a wild reading',
      {
        points: [
          [0, 0],
          [5, 0.3],
        ],
      },
      'coarse',
    ],
    ['a steep stylus', { ...FIRST, stylusAngle: 70 }, 'steep-stylus'],
    ['more than the part allows', FIRST, 'not-square'],
    [
      'less than the dial can show',
      {
        points: [
          [0, 0],
          [5, 0],
        ],
        dialStep: 0.005,
      },
      'cannot-tell',
    ],
    [
      'a chip at one place',
      {
        points: [
          [0, 0],
          [1, 0],
          [2, 0.003],
          [3, 0],
          [4, 0],
          [5, 0],
        ],
      },
      'one-stands-out',
    ],
    [
      'a bowed jaw',
      {
        points: [
          [0, 0],
          [1, 0.0024],
          [2, 0.0036],
          [3, 0.0036],
          [4, 0.0024],
          [5, 0],
        ],
      },
      'bowed',
    ],
    [
      'dirt all over',
      {
        points: [
          [0, 0],
          [1, 0.003],
          [2, -0.002],
          [3, 0.003],
          [4, -0.003],
          [5, 0.002],
        ],
      },
      'rough',
    ],
    [
      'three off a line',
      {
        points: [
          [0, 0],
          [2, 0.003],
          [5, 0],
        ],
      },
      'three-off-line',
    ],
  ])('%s', (_, of, code) => {
    expect(codes(of)).toContain(code)
  })

  it('finds nothing in a good sweep, and names the chip and the fit without it', () => {
    expect(
      codes({
        bolts: 'tight',
        points: [
          [0, 0],
          [2, 0.0005],
          [4, 0],
          [5.5, 0.0005],
        ],
      }),
    ).toEqual([])
    const chip = squareness(
      sweepOf({
        points: [
          [0, 0],
          [1, 0.001],
          [2, 0.006],
          [3, 0.003],
          [4, 0.004],
        ],
      }),
      'inch',
    )
    const finding = chip.findings.find(({ code }) => code === 'one-stands-out')
    expect(finding?.says).toBe('The reading at 2.0000 stands 0.0040 in off the line of the others.')
    expect(finding?.why).toMatch(/out by 0\.0040 in over the part/)
  })

  const few = fc.integer({ min: -5, max: 5 }).map((n) => n / 100_000)
  const shape = fc.record({
    count: fc.integer({ min: 4, max: 7 }),
    slope: fc.integer({ min: -40, max: 40 }).map((n) => n / 10_000),
    noise: fc.array(few, { minLength: 7, maxLength: 7 }),
  })
  it('a chip under any one reading, the ends with them, is never called a bow, and is named where it is', () => {
    // With four readings 200 of 200 chips under an end were a bow, with five 44 of 100.
    let named = 0
    fc.assert(
      fc.property(
        shape,
        fc.integer({ min: 0, max: 6 }),
        fc.integer({ min: 20, max: 80 }),
        ({ count, slope, noise }, where, size) => {
          const at = where % count
          const points = Array.from({ length: count }, (_, n): [number, number] => {
            const reading = slope * n + (noise[n] as number) + (n === at ? size / 10_000 : 0)
            return [n, Number(reading.toFixed(5))]
          })
          const { findings } = squareness(sweepOf({ points, dialStep: 0.0001 }), 'inch')
          const said = findings.find(({ code }) =>
            ['bowed', 'one-stands-out', 'bow-or-chip', 'rough'].includes(code),
          )
          expect(['one-stands-out', 'bow-or-chip']).toContain(said?.code)
          expect(said?.says).toContain(`at ${at.toFixed(4)}`)
          // Three thousandths and more are no bow, however few the readings.
          if (size >= 40) expect(said?.code).toBe('one-stands-out')
          named++
        },
      ),
    )
    expect(named).toBeGreaterThan(times(50, 500))
  })
  it('a bow is never called a chip', () => {
    fc.assert(
      fc.property(
        shape,
        fc.integer({ min: 10, max: 60 }),
        fc.boolean(),
        ({ count, slope, noise }, size, inwards) => {
          const half = (count - 1) / 2
          const points = Array.from({ length: count }, (_, n): [number, number] => {
            const sag = (inwards ? 1 : -1) * (size / 10_000) * (1 - ((n - half) / half) ** 2)
            return [n, Number((slope * n + sag + (noise[n] as number)).toFixed(5))]
          })
          const found = codes({ points, dialStep: 0.0001 })
          expect(found).not.toContain('one-stands-out')
          expect(found).not.toContain('rough')
          // How much the middle stands off, as it was made.
          if (found.includes('bowed')) {
            const { findings } = squareness(sweepOf({ points, dialStep: 0.0001 }), 'inch')
            const off = Number(
              /stands ([\d.]+) in/.exec(findings.find(({ code }) => code === 'bowed')?.says ?? '')?.[1],
            )
            expect(Math.abs(off - size / 10_000)).toBeLessThan(0.0002)
          }
        },
      ),
    )
  })

  it('says where the target lies against zero, with the bolt between the swept points', () => {
    const note = (of: Case) =>
      squareness(sweepOf(of), 'inch').findings.find(({ code }) => code === 'pivot-between')?.says ?? ''
    const points = (far: number): Case['points'] => [
      [0, 0],
      [5, far],
    ]
    // Bolt at 1: tapped at 5, from 0.010 to 0.002. Bolt at 4: tapped at 0, where the dial shows nothing, to 0.008.
    expect(square({ pivot: 1, points: points(0.01) }).tap).toMatchObject({
      at: 5,
      target: expect.closeTo(0.002, 9),
    })
    expect(note({ pivot: 1, points: points(0.01) })).toContain('short of zero')
    expect(square({ pivot: 4, points: points(0.01) }).tap).toMatchObject({
      at: 0,
      target: expect.closeTo(0.008, 9),
    })
    expect(note({ pivot: 4, points: points(0.01) })).toContain('past zero')
    // Zeroed between: it reads -0.004 at the left end and goes to 0.004.
    const between: Case['points'] = [
      [0, -0.004],
      [5, 0.006],
    ]
    expect(square({ pivot: 4, points: between }).tap).toMatchObject({
      at: 0,
      target: expect.closeTo(0.004, 9),
    })
    expect(note({ pivot: 4, points: between })).toContain('past zero, on the other side')
  })

  it('names a place that lies off the jaw of the vise', () => {
    const { sweep } = square(FIRST)
    expect(offTheJaw(sweep, 6)).toEqual([])
    expect(offTheJaw(sweep, 4)[0]?.says).toBe('The place 5.7500 lies off the jaw, which is 4.0000 in long.')
    expect(offTheJaw({ ...sweep, points: [{ at: -0.1, reading: 0 }] }, 4)).toHaveLength(1)
  })

  it('refuses negative tolerances, dial steps of nothing and a stylus on end, with a sentence', () => {
    for (const bad of [{ allowed: -0.001 }, { dialStep: 0 }, { partLength: 0 }, { stylusAngle: 90 }])
      expect(sweep.safeParse(sweepOf({ ...FIRST, ...bad })).error?.issues[0]?.message).toMatch(
        /must be|between/,
      )
  })
})

describe('square it, or turn the program', () => {
  it.each([
    [0.3, true, 'G68', [], 'either'],
    [0.3, false, null, [], 'square'],
    [0.3, false, 'G68', ['fourth-axis'], 'square'],
    [12, false, 'G68', [], 'square'],
    [0.3, false, 'G68', [], 'turn'],
  ] as const)('angle %d, square %s, %s, %j: %s', (angle, within, code, bearers, choice) => {
    expect(squareOrTurn(angle, within, code, bearers).choice).toBe(choice)
  })
})
