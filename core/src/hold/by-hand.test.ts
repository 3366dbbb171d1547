import { describe, expect, it } from 'vitest'
import { asTyped } from '../quantity/index.ts'
import { convergence } from './convergence.ts'
import { offTheJaw, offTheLine, plainSweep, sweepDraft, withPartLength } from './index.ts'
import { sweep as sweepSchema } from './sweep.ts'
import { type Case, codes, square, sweepOf } from './testing.ts'
import { type JawUpright, uprightness } from './upright.ts'

// A jaw that was swept, worked with a pencil. The stylus at 60 degrees shows twice what the jaw moves: its cosine is .5.

const near = (value: number, digits = 9) => expect.closeTo(value, digits)
const lines = (of: Case) =>
  square(of).outOfSquare.working.map(({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`)
const says = (of: Case, code: string) => square(of).findings.find((each) => each.code === code)
/** .02 over 4 from the left end: a slope of .005, the bolt an inch left of the jaw. */
const tilted: Case = {
  points: [
    [0, 0],
    [4, 0.02],
  ],
  dialStep: 0.001,
  partLength: 6,
}

describe('a sweep of two points', () => {
  it('slope, target, tap and out of square, with the stylus flat and at an angle', () => {
    expect(lines(tilted)).toEqual([
      'slope m: (0.0200 - 0.0000) / (4.0000 - 0.0000) = 0.005000',
      'target: 0.0200 - 0.005000 x (4.0000 + 1.0000) = -0.0050',
      'out of square: |0.005000| x 6.0000 = 0.0300',
    ])
    const steep = { ...tilted, stylusAngle: 60, plusMeans: 'away' } as const
    expect(lines(steep)[2]).toBe('out of square: |0.005000| x 6.0000 x 0.5000 = 0.0150')
    const found = square(steep)
    expect(found.tap).toEqual({
      at: 4,
      from: 0.02,
      target: near(-0.005),
      by: near(0.0125),
      side: 'right',
      way: 'front',
    })
    expect(square({ ...steep, plusMeans: 'towards' }).tap.way).toBe('back')
    expect(found.slope).toBeCloseTo(-0.0025, 12)
    expect(found.angle).toBeCloseTo((Math.atan(0.0025) * 180) / Math.PI, 9)
    // Each reading by half of 6 over root of 8: a step of .001 over root 12, and .0001 of the dial itself.
    expect(found.outOfSquare.doubt.parts.map(({ value }) => value)).toEqual([
      near((0.001 / Math.sqrt(12)) * (3 / Math.sqrt(8))),
      near(0.0001 * (3 / Math.sqrt(8))),
    ])
    const means = (of: Case) => square(of).outOfSquare.working.at(-1)?.means
    expect([means(tilted), means(steep)]).toEqual([
      'slope x part',
      'slope x part x cosine of the stylus angle',
    ])
    // With both bolts tight there is nothing to tap.
    expect(lines({ ...tilted, bolts: 'tight' })).toHaveLength(2)
    expect(
      square({
        ...tilted,
        points: [
          [0, 0.01],
          [4, 0.01],
        ],
      }).tap,
    ).toMatchObject({ by: 0, way: 'back' })
  })
  it('is tapped at the end far from the bolt; of two that are as far at the first', () => {
    expect(square({ ...tilted, pivot: 2 }).tap).toMatchObject({ at: 0, side: 'left' })
    expect(square({ ...tilted, pivot: 1.9 }).tap).toMatchObject({ at: 4, side: 'right' })
    expect(square({ ...tilted, pivot: 4.5 }).tap).toMatchObject({ at: 0, side: 'left', target: near(0.0225) })
  })
  it('says where the target lies against zero, with the bolt between the points', () => {
    const target = (from: number, to: number, pivot: number) =>
      says(
        {
          ...tilted,
          points: [
            [0, from],
            [4, to],
          ],
          pivot,
        },
        'pivot-between',
      )?.says.replace(/^[^:]*: /, '')
    expect(target(0, 0.02, 3)).toBe('the target is past zero: where the dial shows nothing now.')
    expect(target(0, 0.02, 1)).toBe('the target is short of zero, on the near side.')
    expect(target(0.01, -0.01, 1)).toBe('the target is past zero, on the other side.')
    expect(target(0.01, 0.03, 3)).toBe('the target is farther from zero than the dial stands now.')
    // A bolt under an end point is not between them.
    expect(codes({ ...tilted, pivot: 0 })).not.toContain('pivot-between')
    expect(codes({ ...tilted, pivot: 4 })).not.toContain('pivot-between')
    expect(codes({ ...tilted, pivot: 2, bolts: 'tight' })).not.toContain('pivot-between')
  })
  it('is good up to what is said: base, coarse readings, stylus, what the part allows', () => {
    expect(codes({ ...tilted, partLength: 8 })).not.toContain('short-base')
    expect(codes({ ...tilted, partLength: 8.1 })).toContain('short-base')
    const reading = (of: number): Case => ({
      ...tilted,
      points: [
        [0, 0],
        [4, of],
      ],
    })
    expect([codes(reading(0.1)).includes('coarse'), codes(reading(-0.101)).includes('coarse')]).toEqual([
      false,
      true,
    ])
    expect(codes({ ...tilted, stylusAngle: 60 })).not.toContain('steep-stylus')
    // 1 / cos 70 = 2.92.
    expect(says({ ...tilted, stylusAngle: 70 }, 'steep-stylus')?.says).toContain('shows 2.9 times')
    const flat = square({
      ...tilted,
      points: [
        [0, 0],
        [4, 0.0002],
      ],
      allowed: 0.01,
    })
    expect([flat.within, flat.findings]).toEqual([true, []])
    expect(square(tilted).within).toBe(false)
    expect(says(tilted, 'not-square')?.fix).toContain('Tap to the target')
    expect(says({ ...tilted, bolts: 'tight' }, 'not-square')?.fix).toContain('Take one bolt out')
  })
  it('off the line only three readings and more can be', () => {
    expect(offTheLine(square(tilted))).toEqual([])
    // Through 0, .003, 0 the line lies at .001: .001 under both ends, .002 under the middle.
    const three = square({
      ...tilted,
      points: [
        [1, 0],
        [2, 0.003],
        [3, 0],
      ],
    })
    expect(offTheLine(three)).toEqual([
      { at: 1, off: near(-0.001) },
      { at: 2, off: near(0.002) },
      { at: 3, off: near(-0.001) },
    ])
  })
  it('a part as long as the jaw, where nothing was typed; steps, parts and tolerances of more than nothing', () => {
    const draft = { partLength: ' ' } as Parameters<typeof withPartLength>[0]
    expect(withPartLength(draft, 6, 'inch').partLength).toBe('6.0000')
    expect(withPartLength({ ...draft, partLength: '4' }, 6, 'inch').partLength).toBe('4')
    for (const field of ['dialStep', 'partLength', 'allowed'] as const)
      expect(sweepSchema.safeParse({ ...sweepOf(tilted), [field]: asTyped(0, 'inch') }).success).toBe(false)
    expect(sweepSchema.safeParse(sweepOf(tilted)).success).toBe(true)
    expect(sweepDraft.safeParse({}).success).toBe(false)
  })
})

describe('what the readings say of the jaw', () => {
  const jaw = (count: number, of: (at: number) => number): Case => ({
    points: Array.from({ length: count }, (_, n): [number, number] => [n + 1, Number(of(n + 1).toFixed(6))]),
    dialStep: 0.0005,
    partLength: 6,
    stylusAngle: 60,
  })
  it('a bow, by how much its middle stands off its ends', () => {
    // From 1 to 5, .01 in the middle; half of it is true movement.
    const bow = jaw(5, (at) => 0.001 * at + 0.01 * (1 - ((at - 3) / 2) ** 2))
    expect(says(bow, 'bowed')?.says).toBe(
      'The jaw is bowed: its middle stands 0.0050 in off the line of its ends.',
    )
    // With a hand that is off by turns it still is, as long as it explains four fifths of what the line leaves.
    const shaky = jaw(7, (at) => 0.01 * (1 - ((at - 4) / 3) ** 2) + (at % 2 ? 0.0008 : -0.0008))
    expect(codes(shaky)).toContain('bowed')
    const rough = jaw(7, (at) => 0.004 * (1 - ((at - 4) / 3) ** 2) + (at % 2 ? 0.002 : -0.002))
    expect(codes(rough)).toContain('rough')
    // A bow of .008 and the same hand: it explains 63 of 100, more than leaving one out does, and is no bow yet.
    const more = jaw(7, (at) => 0.008 * (1 - ((at - 4) / 3) ** 2) + (at % 2 ? 0.002 : -0.002))
    expect(codes(more)).toContain('rough')
  })
  it('one that stands out, and how the jaw is without it', () => {
    const chip = jaw(6, (at) => 0.001 * at + (at === 4 ? 0.01 : 0))
    expect(says(chip, 'one-stands-out')).toMatchObject({
      says: 'The reading at 4.0000 stands 0.0100 in off the line of the others.',
      // .001 x .5 x 6.
      why: expect.stringContaining('Without it the jaw is out by 0.0030 in over the part.'),
    })
    const four = jaw(4, (at) => 0.001 * at + (at === 4 ? 0.003 : 0))
    expect(says(four, 'bow-or-chip')?.why).toContain(
      'Without that one the jaw is out by 0.0030 in over the part.',
    )
  })
  it('lies on the jaw from its left end to its right one', () => {
    const off = (at: number) =>
      offTheJaw(
        plainSweep(
          sweepOf({
            points: [
              [1, 0],
              [at, 0],
            ],
          }),
          'inch',
        ),
        6,
      ).length
    expect([off(0), off(6), off(-0.001), off(6.001)]).toEqual([0, 0, 1, 1])
  })
})

describe('what became of a tap', () => {
  const swept = (reading: number, more: Partial<Case> = {}): Case => ({
    points: [
      [0, 0],
      [4, reading],
    ],
    ...more,
  })
  const after = (now: number, more: Partial<Case> = {}, before = 0.02) =>
    convergence(square(swept(before, more)), square(swept(now, more)))
  it('turned about another place: where the dial was brought to the target', () => {
    // The slope went by -.0005 where -.025 was wanted: 4 - 50.
    const hardly = after(0.018)
    expect(hardly).toMatchObject({ left: near(0.9), turnedAbout: near(-46) })
    expect(hardly?.findings[0]).toMatchObject({ code: 'hardly-moved', why: '90 % of the slope is left.' })
    const nearer = after(0.006)
    expect(nearer?.findings[0]).toMatchObject({
      code: 'not-there-yet',
      says: 'The jaw came nearer, but not as far as the target should have brought it.',
      // 4 - .025 / .0035 = -3.1429.
      why: 'If the dial was brought to -0.0050, the vise turned about -3.1429 in, not -1.0000.',
    })
    expect(after(-0.006)?.findings[0]).toMatchObject({ code: 'gone-past', says: 'The jaw went past square.' })
    expect(after(0.03)?.findings[0]).toMatchObject({ code: 'worse' })
    // Square enough needs no explanation.
    expect(after(0.0005)?.findings).toEqual([])
    expect(convergence(square(swept(0.02, { bolts: 'tight' })), square(swept(0.018)))).toBeUndefined()
  })
  it('a sign that was reversed leaves as much as it leaves: |1 - (target + from) / (m x lever)|', () => {
    // 1 - (-.005 + .02) / (.005 x 5) = .4.
    expect(after(0.008)?.findings[0]).toMatchObject({
      code: 'sign-reversed',
      why: 'A target of the wrong sign leaves 40 % of the slope, and 40 % is left.',
    })
    // Give or take .05 and three times the doubt over the slope: .000248 x 3 / .02 = .037.
    for (const stylusAngle of [0, 60]) {
      expect(after(0.0096, { stylusAngle })?.findings[0]?.code).toBe('sign-reversed')
      expect(after(0.0099, { stylusAngle })?.findings[0]?.code).toBe('not-there-yet')
    }
    // With the bolt where the reversed tap would leave next to nothing, it is not said.
    expect(after(0.006, { pivot: -20 })?.findings[0]?.code).toBe('not-there-yet')
  })
  it('before it there was a slope to speak of, as far as the dial can tell', () => {
    // .0015 over 4 is .00075 on a part of 4 at 60 degrees; three times its doubt is .00037.
    expect(after(0.004, { stylusAngle: 60 }, 0.0015)?.findings[0]?.code).toBe('worse')
    expect(after(0.004, { stylusAngle: 60 }, 0.0006)?.findings).toEqual([])
    expect(after(0.004, {}, 0.0015)?.findings[0]?.code).toBe('worse')
    // A longer part shows more of the same slope.
    expect(after(0.002, { partLength: 8 }, 0.002)?.findings[0]?.code).toBe('hardly-moved')
  })
})

describe('the fixed jaw', () => {
  const typed = (value: number) => asTyped(value, 'inch')
  const look = (
    more: { up?: number; lift?: number; dialStep?: number } & Partial<
      Pick<JawUpright, 'plusMeans' | 'stylusAngle'>
    >,
  ) =>
    uprightness(
      {
        height: typed(1.2),
        partHeight: typed(1.8),
        allowed: typed(0.001),
        plusMeans: more.plusMeans ?? 'towards',
        stylusAngle: more.stylusAngle ?? 0,
        up: typed(more.up ?? 0),
        lift: typed(more.lift ?? 0),
        dialStep: typed(more.dialStep ?? 0.0005),
      },
      'inch',
    )
  it('with the stylus at an angle, and a dial whose plus is away', () => {
    const { lean, lift, leans } = look({ up: -0.004, lift: 0.004, stylusAngle: 60, plusMeans: 'away' })
    // .004 / 1.2 x 1.8 x .5, and .004 x .5 downwards.
    expect([lean.value, lift.value, leans]).toEqual([near(0.003), near(-0.002), 'over'])
    expect([lean.working[0]?.arithmetic, lift.working[0]?.arithmetic]).toEqual([
      '|-0.0040| / 1.2000 x 1.8000 x 0.5000',
      '-0.0040 x 0.5000',
    ])
    expect([lean.working[0]?.means, lift.working[0]?.means]).toEqual([
      'reading / height run up x part height x cosine of the stylus angle',
      'reading, plus upwards, x cosine of the stylus angle',
    ])
    expect(look({ up: 0.004 }).lean.working[0]?.means).toBe('reading / height run up x part height')
    expect(look({ lift: 0.004 }).lift.working[0]?.means).toBe('reading, plus upwards')
  })
  it('each thing is said for what it is', () => {
    const said = (more: Parameters<typeof look>[0]) =>
      look(more).findings.map(({ code, says }) => `${code} ${says}`)
    expect(said({ up: 0.004 })[0]).toMatch(/^jaw-leans .* leans over the part by 0\.0060 in/)
    expect(said({ up: -0.004 })[0]).toMatch(/ leans back from the part by/)
    expect(said({ lift: 0.004 })[0]).toMatch(/^jaw-lifts .* rises by 0\.0040 in/)
    expect(said({ lift: -0.004 })[0]).toMatch(/ goes down by 0\.0040 in/)
    // A dial that reads in steps of .005 tells neither: .005 / root 12 x root 2 is .002.
    const coarse = look({ dialStep: 0.005 }).findings
    expect(coarse.map(({ code, where }) => [code, where])).toEqual(
      expect.arrayContaining([
        ['cannot-tell-lean', 'up'],
        ['cannot-tell-lift', 'lift'],
      ]),
    )
    expect(coarse.find(({ where }) => where === 'up')?.fix).toContain('Run up more')
    expect(coarse.find(({ where }) => where === 'lift')?.fix).toBe('Use a finer dial.')
  })
})
