import { describe, expect, it } from 'vitest'
import { compact, machineOf, mildSteel, onRotary, wrapParamsOf, wrapSizesOf } from '../../code/testing.ts'
import { layText } from '../../lettering/index.ts'
import type { Machine } from '../../machine/index.ts'
import type { WrapDraft } from './params.ts'
import { degreesRound, shareOfFeed, wrapSizes } from './sizes.ts'
import { wrapWorking } from './working.ts'

// A cylinder of 2 across: a radian round it is 1 long, once round is 2 pi. Worked with a pencil.

const strokesOf = (draft: Partial<WrapDraft>, where = onRotary()) => wrapSizesOf(draft, where).layout.strokes
/** Feed moves below the surface. */
const cutsOf = (draft: Partial<WrapDraft>, where = onRotary()) =>
  wrapSizesOf(draft, where).moves.filter(({ does, z }) => does !== 'rapid' && z < 0)

const TURN = 2 * Math.PI
const near = (value: number, digits = 9) => expect.closeTo(value, digits)

describe('a layout on a cylinder', () => {
  it('a scale: every line from the whole, long, middle and short', () => {
    const lines = strokesOf({
      divisions: '20',
      shortLine: '.06',
      middleLine: '.09',
      longLine: '.12',
      middleEvery: '5',
      longEvery: '10',
    })
    expect(lines).toHaveLength(20)
    const ten = [0.12, 0.06, 0.06, 0.06, 0.06, 0.09, 0.06, 0.06, 0.06, 0.06]
    expect(lines.map(([, end]) => end?.[0])).toEqual([...ten, ...ten])
    lines.forEach((line, n) => {
      expect(line.map(([, y]) => y)).toEqual([near((TURN * n) / 20), near((TURN * n) / 20)])
    })
    // Over a part of the turn there is a line at both ends: a quarter is pi / 2 long.
    const part = strokesOf({ divisions: '4', covers: 'part', span: '90', longEvery: '0', middleEvery: '0' })
    expect(part.map(([start]) => start?.[1])).toEqual(
      [0, 1, 2, 3, 4].map((n) => near((Math.PI / 2) * (n / 4))),
    )
    expect(part.every(([, end]) => end?.[0] === 0.06)).toBe(true)
  })

  it('numerals: which ones, how far off their line, in the middle of it, read round or along', () => {
    const numerals = {
      divisions: '4',
      numeralEvery: '2',
      numeralFirst: '7',
      numeralStep: '-6',
      numeralHeight: '.21',
      numeralGap: '.03',
      shortLine: '.1',
      longEvery: '0',
      middleEvery: '0',
    } as const
    // A 7 is cut in strokes beside the line at zero, a 1 beside the one half round.
    const bounds = (draft: Partial<WrapDraft>, from: number, to: number) => {
      const points = strokesOf(draft)
        .filter((stroke) => stroke.some(([x]) => x > 0.1))
        .flat()
        .filter(([, y]) => y > from && y < to)
      const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)]
      return [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)].map((each) =>
        Number(each.toFixed(6)),
      )
    }
    const seven = layText('7').width * 0.21
    // Round: its feet .03 off the line's end plus its height, its middle on the line.
    expect(bounds({ ...numerals, numeralsRun: 'round' }, -1, 1)).toEqual(
      [0.13, 0.34, -seven / 2, seven / 2].map((each) => near(each, 6)),
    )
    expect(bounds({ ...numerals, numeralsRun: 'along' }, -1, 1)).toEqual(
      [0.13, 0.13 + seven, -0.105, 0.105].map((each) => near(each, 6)),
    )
    const one = layText('1').width * 0.21
    expect(bounds({ ...numerals, numeralsRun: 'along' }, 2, 4)).toEqual(
      [0.13, 0.13 + one, Math.PI - 0.105, Math.PI + 0.105].map((each) => near(each, 6)),
    )
    expect(bounds({ ...numerals, numeralsRun: 'along' }, 1, 2)).toEqual([
      Infinity,
      -Infinity,
      Infinity,
      -Infinity,
    ])
  })

  it('slots along and round, holes in rows to and fro, text along and round', () => {
    expect(strokesOf({ what: 'slots', slots: '4', slotLength: '.7' })).toEqual(
      [0, 1, 2, 3].map((n) => [
        [0, near((TURN * n) / 4)],
        [0.7, near((TURN * n) / 4)],
      ]),
    )
    expect(
      strokesOf({ what: 'slots', slotsRun: 'round', slots: '2', slotPitch: '.3', slotSpan: '90' }),
    ).toEqual([
      [
        [0, 0],
        [0, near(Math.PI / 2)],
      ],
      [
        [near(0.3), 0],
        [near(0.3), near(Math.PI / 2)],
      ],
    ])
    expect(wrapSizesOf({ what: 'holes', holes: '2', rows: '3', rowSpacing: '.5' }).layout.holes).toEqual([
      [0, 0],
      [0.5, 0],
      [1, 0],
      [1, near(Math.PI)],
      [0.5, near(Math.PI)],
      [0, near(Math.PI)],
    ])
    expect(
      wrapSizesOf({ what: 'holes', holes: '3', rows: '2', rowSpacing: '.5' }).layout.holes.at(-2)?.[0],
    ).toBe(0)
    const bounds = (runs: 'along' | 'round') => {
      const points = strokesOf({ what: 'text', text: 'HI', runs, textHeight: '.21' }).flat()
      return [
        Math.min(...points.map(([x]) => x)),
        Math.max(...points.map(([x]) => x)),
        Math.min(...points.map(([, y]) => y)),
        Math.max(...points.map(([, y]) => y)),
      ]
    }
    // HI is .22 long at a height of .21.
    expect(bounds('along')).toEqual([near(0), near(0.22), near(-0.105), near(0.105)])
    expect(bounds('round')).toEqual([near(0), near(0.21), near(-0.11), near(0.11)])
  })

  it('is where it was put: along X, and by degrees round, which is where the seam lies', () => {
    const sizes = wrapSizesOf({ what: 'slots', slots: '2', slotLength: '.7', x: '-.4', turn: '90' })
    expect(sizes.seam).toBeCloseTo(Math.PI / 2, 9)
    expect(sizes.extent).toEqual({
      x: [near(-0.4), near(0.3)],
      y: [near(Math.PI / 2), near(Math.PI / 2 + Math.PI)],
    })
    // Half the way round is taken: half is left.
    expect(sizes.gap).toBeCloseTo(Math.PI, 9)
    expect([sizes.turnsFrom, sizes.turnsTo]).toEqual([near(0), near(270)])
    const back = wrapSizesOf(
      { what: 'slots', slots: '2', slotLength: '.7', turn: '90' },
      onRotary(compact, { top: 'back' }),
    )
    expect([back.sense, back.turnsFrom, back.turnsTo]).toEqual([-1, near(-270), near(0)])
    const down = wrapSizesOf({ what: 'slots', slots: '2', slotLength: '.7', turn: '-270' })
    expect([down.turnsFrom, down.turnsTo]).toEqual([near(-270), near(0)])
    const downBack = wrapSizesOf(
      { what: 'slots', slots: '2', slotLength: '.7', turn: '-270' },
      onRotary(compact, { top: 'back' }),
    )
    expect([downBack.turnsFrom, downBack.turnsTo]).toEqual([near(0), near(270)])
  })

  it('an arc is put there with its centre, and reaches as far as its circle', () => {
    const program = 'G20 G90\nG0 X2. Y3. Z.1\nG1 Z-.01 F6.\nG3 X3. Y4. I0. J1.'
    const sizes = wrapSizesOf({ what: 'program', program, x: '.5', turn: '90' })
    const seam = Math.PI / 2
    expect(sizes.moves.at(-1)).toMatchObject({
      x: near(3.5),
      y: near(4 + seam),
      cx: near(2.5),
      cy: near(4 + seam),
    })
    // Round (2, 4) with 1.
    expect(sizes.extent).toEqual({ x: [near(1.5), near(3.5)], y: [near(3 + seam), near(5 + seam)] })
    // From its left to its top it reaches to its right and its bottom as well: the whole circle is kept free.
    const quarter = 'G20 G90\nG0 X1. Y4. Z.1\nG1 Z-.01 F6.\nG2 X2. Y5. I1. J0.'
    expect(wrapSizesOf({ what: 'program', program: quarter }).extent).toEqual({
      x: [near(1), near(3)],
      y: [near(3), near(5)],
    })
    // What is no deeper than the surface cuts nothing.
    const above = 'G20 G90\nG0 X0. Y0. Z.1\nG1 Z0. F6.\nG1 X5.\nG1 Z-.1\nG1 X6.'
    expect(wrapSizesOf({ what: 'program', program: above }).extent).toEqual({ x: [5, 6], y: [0, 0] })
  })

  it('goes up where a stroke ends, however many points it has', () => {
    const { moves } = wrapSizesOf({ what: 'text', text: 'O', textHeight: '.21' })
    const [last, before] = [moves.at(-1), moves.at(-2)]
    expect(last).toMatchObject({ does: 'rapid', x: before?.x, y: before?.y, z: 0.05 })
    expect(moves.length).toBeGreaterThan(10)
  })

  it('over each line, down at half the feed, along, up; in steps where they are asked for', () => {
    const { moves } = wrapSizesOf({
      what: 'slots',
      slots: '1',
      slotLength: '.7',
      depth: '.05',
      stepDown: '.02',
      feed: '8',
      x: '.1',
    })
    const pass = (z: number) => [
      { does: 'rapid', x: near(0.1), y: 0, z: 0.05 },
      { does: 'feed', x: near(0.1), y: 0, z: near(z), feed: 4 },
      { does: 'feed', x: near(0.8), y: 0, z: near(z), feed: 8 },
      { does: 'rapid', x: near(0.8), y: 0, z: 0.05 },
    ]
    expect(moves).toEqual([...pass(-0.02), ...pass(-0.04), ...pass(-0.05)])
    expect(cutsOf({ what: 'slots', slots: '1', depth: '.06', stepDown: '.02' })).toHaveLength(6)
    expect(cutsOf({ what: 'slots', slots: '1', depth: '.06' })).toHaveLength(2)
    expect(
      wrapSizesOf({ what: 'holes', holes: '1', depth: '.05', stepDown: '.03', plungeFeed: '3' }).moves,
    ).toEqual([
      { does: 'rapid', x: 0, y: 0, z: 0.05 },
      { does: 'feed', x: 0, y: 0, z: near(-0.03), feed: 3 },
      { does: 'rapid', x: 0, y: 0, z: 0.05 },
      { does: 'feed', x: 0, y: 0, z: near(-0.05), feed: 3 },
      { does: 'rapid', x: 0, y: 0, z: 0.05 },
    ])
  })

  it('true at the surface or at the bottom, Z from the top or the centre; never on no radius at all', () => {
    expect(wrapSizesOf({ depth: '.1' })).toMatchObject({ radius: 1, mapped: 1, about: near(TURN), zShift: 0 })
    expect(wrapSizesOf({ depth: '.1', trueAt: 'bottom', zZero: 'centre' })).toMatchObject({
      mapped: near(0.9),
      about: near(1.8 * Math.PI),
      zShift: 1,
    })
    expect(wrapSizesOf({ depth: '1.2', trueAt: 'bottom' }).mapped).toBe(0.001)
    const mm = {
      ...onRotary(),
      unit: 'mm',
      machine: { ...machineOf('mill', 'mm'), rotary: { word: 'A', top: 'front', turns: null } },
    } as ReturnType<typeof onRotary>
    // Two inches are 50.8 mm.
    expect(wrapSizesOf({}, mm)).toMatchObject({ radius: near(25.4), r: 1, chord: 0.01 })
    expect(wrapSizesOf({ depth: '1.2', trueAt: 'bottom' }, mm).mapped).toBe(0.01)
    expect(wrapSizesOf({ rPlane: '.07', chord: '.002', clearance: '.6' })).toMatchObject({
      r: 0.07,
      chord: 0.002,
      clearance: 0.6,
    })
    expect(wrapSizesOf({})).toMatchObject({ r: 0.05, chord: 0.0005 })
  })

  it('turns for the cutter of the table, or a usual one, up to what the spindle turns', () => {
    // Mild mildSteel 85 ft a minute on .125: 12 x 85 / (3.1416 x .125) = 2597, in fifties.
    expect(wrapSizesOf({}).rpm).toBe(2550)
    expect(wrapSizesOf({ turns: '1234' }).rpm).toBe(1234)
    const slow = machineOf('mill')
    const dynamics = { ...(slow.dynamics as NonNullable<Machine['dynamics']>), spindleTop: 2000 }
    expect(wrapSizesOf({}, onRotary(compact, {}, { dynamics })).rpm).toBe(2000)
    expect(wrapSizesOf({}, onRotary(compact, {}, { dynamics: null }))).toMatchObject({
      rpm: 2550,
      rotaryTop: 3000,
    })
    expect(
      wrapSizesOf(
        {},
        onRotary(compact, {}, { dynamics: { ...dynamics, rotary: { top: 900, acceleration: 360 } } }),
      ).rotaryTop,
    ).toBe(900)
  })

  it('is held up by the rotary where it would have to turn faster than it can', () => {
    // A radian in a minute at a feed of 1: 57.3 degrees a minute; at a top of half of that, half the feed.
    expect(degreesRound(1, 1)).toBeCloseTo(57.29577951, 7)
    expect(shareOfFeed(0, 1, 0, 1, 1, 57.29577951 / 2)).toBeCloseTo(0.5, 8)
    expect(shareOfFeed(0, -1, 0, 1, 1, 57.29577951 / 2)).toBeCloseTo(0.5, 8)
    // Slantwise by 3-4-5 it turns four fifths as fast.
    expect(shareOfFeed(3, 4, 0, 1, 1, 57.29577951 / 2)).toBeCloseTo(0.625, 8)
    expect(shareOfFeed(0, 4, 3, 1, 1, 57.29577951 / 2)).toBeCloseTo(0.625, 8)
    expect(shareOfFeed(0, 1, 0, 1, 1, 999)).toBe(1)
    expect(shareOfFeed(1, 0, 0, 1, 1, 1)).toBe(1)
    expect(shareOfFeed(0, 0, 0, 1, 1, 1)).toBe(1)
    const slow = onRotary(
      compact,
      {},
      {
        dynamics: {
          ...(machineOf('mill').dynamics as NonNullable<Machine['dynamics']>),
          rotary: { top: 240, acceleration: 360 },
        },
      },
    )
    // 8 in a minute round are 458.37 degrees a minute: 240 of them.
    const round = { what: 'slots', slotsRun: 'round', slots: '1', slotSpan: '90', feed: '8' } as const
    expect(wrapSizesOf(round, slow).slowest).toBeCloseTo(240 / 458.3662, 5)
    expect(wrapSizesOf({ ...round, slotsRun: 'along' }, slow).slowest).toBe(1)
    // From line to line it rapids: that holds up no feed.
    expect(wrapSizesOf({ ...round, slotsRun: 'along', slots: '3' }, slow).slowest).toBe(1)
    // Down a slope, an inch round on .75 down: 4 / 5 of the feed turn.
    const slope = 'G20 G90\nG0 X0. Y0. Z.05\nG1 Z0. F8.\nG1 Y1. Z-.75\nG0 Z.05'
    expect(wrapSizesOf({ what: 'program', program: slope }, slow).slowest).toBeCloseTo(
      (240 / 458.3662) * 1.25,
      5,
    )
    const aslant = 'G20 G90\nG0 X0. Y0. Z.05\nG1 Z-.1 F8.\nG1 X.75 Y1.\nG0 Z.05'
    expect(wrapSizesOf({ what: 'program', program: aslant }, slow).slowest).toBeCloseTo(
      (240 / 458.3662) * 1.25,
      5,
    )
    const further = aslant.replace('G0 X0.', 'G0 X2.').replace('X.75', 'X2.75')
    expect(wrapSizesOf({ what: 'program', program: further }, slow).slowest).toBeCloseTo(
      (240 / 458.3662) * 1.25,
      5,
    )
    // An arc goes straight round somewhere.
    const arc = 'G20 G90\nG0 X0. Y0. Z.05\nG1 Z-.1 F8.\nG2 X1. Y0. I.5 J0.\nG0 Z.05'
    expect(wrapSizesOf({ what: 'program', program: arc }, slow).slowest).toBeGreaterThan(
      240 / 458.3662 - 1e-6,
    )
    expect(wrapSizesOf({ what: 'program', program: arc }, slow).slowest).toBeLessThan(240 / 458.3662 + 1e-6)
  })
})

describe('the arithmetic of a layout', () => {
  const lines = (draft: Partial<WrapDraft>, unit: 'inch' | 'mm' = 'inch') => {
    const params = wrapParamsOf(draft)
    return wrapWorking(params, wrapSizes(params, onRotary(), mildSteel), unit).map(
      ({ finds, arithmetic, means, gives }) => [finds, arithmetic, gives, means],
    )
  }
  it('of a scale over part of the turn, true at the bottom', () => {
    expect(lines({ divisions: '4', covers: 'part', span: '90', depth: '.1', trueAt: 'bottom' })).toEqual([
      ['once round', '2 x 3.14159 x 0.9000', '5.6549', 'on the radius at depth'],
      ['turn of 0.1 round', '360 x 0.1 / (2 x 3.14159 x 0.9000)', '6.3662°', expect.any(String)],
      ['one division', '90 / 4', '22.5000°', expect.any(String)],
      ['lengths round at the bottom', '(1.0000 - 0.1000) / 0.9000', '1.0000', expect.any(String)],
      ['left at the seam', '5.6549 - 1.4137', '4.2412', undefined],
    ])
  })
  it('of one that overlaps, and of a program, which is always true on the surface', () => {
    const over = lines({ what: 'slots', slotsRun: 'round', slots: '1', slotSpan: '400', depth: '.1' })
    expect(over.at(-1)?.slice(0, 3)).toEqual(['overlap at the seam', '6.2832 - 6.9813', '-0.6981'])
    const whole = lines({ what: 'slots', slotsRun: 'round', slots: '1', slotSpan: '360' })
    expect(whole.at(-1)?.[0]).toBe('left at the seam')
    const program = lines({
      what: 'program',
      program: 'G20 G90\nG0 X0. Y0. Z1.\nG1 Z-.1 F6.\nG1 Y1.',
      trueAt: 'bottom',
    })
    expect(program[0]).toEqual([
      'once round',
      '2 x 3.14159 x 1.0000',
      '6.2832',
      'on the radius of the surface',
    ])
    expect(program.map(([finds]) => finds)).not.toContain('lengths round at the bottom')
    expect(lines({}, 'mm')[1]?.slice(0, 3)).toEqual([
      'turn of 1 mm round',
      '360 x 1 / (2 x 3.14159 x 1.000)',
      '57.2958°',
    ])
  })
})
