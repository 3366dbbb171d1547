import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { caseOf, compact, machineOf, plain, sheetOf, twoLine } from '../../code/testing.ts'
import { USUAL_MATERIALS } from '../../cutting/index.ts'
import type { Machine } from '../../machine/index.ts'
import { convertLength } from '../../quantity/index.ts'
import type { CycleCase } from '../cycle/index.ts'
import { DRILL_SIZES, drillName, nearestDrill } from '../drilling/index.ts'
import type { TapDraft, TapParams } from './params.ts'
import { retractLimits, tapSizes, threadOf } from './sizes.ts'
import { THREADS } from './threads.ts'
import { tapWorking } from './working.ts'

// Depths and speeds of tapped holes, worked with a pencil from the thread, the tap's lead and the material's page.

const steel = USUAL_MATERIALS[1] as (typeof USUAL_MATERIALS)[number]
const on = (more: Partial<CycleCase> = {}, profile = compact): CycleCase => caseOf('mill', profile, more)
const dynamicsWith = (more: Partial<NonNullable<Machine['dynamics']>>): Machine => {
  const machine = machineOf('mill')
  return { ...machine, dynamics: { ...(machine.dynamics as NonNullable<Machine['dynamics']>), ...more } }
}
const paramsOf = (tap: Partial<TapDraft>, unit: 'inch' | 'mm' = 'inch') =>
  sheetOf({ tap: { list: '0 0', ...tap } }, unit).items[0]?.params as TapParams
const sizesOf = (tap: Partial<TapDraft>, where = on()) => tapSizes(paramsOf(tap, where.unit), where, steel)
const near = (value: number, digits = 9) => expect.closeTo(value, digits)

describe('what a tapped hole comes to', () => {
  // 3/8-16: a pitch of .0625, a plug tap of four threads: .25; a drill of 5/16.
  const thread: Partial<TapDraft> = { thread: '3/8-16 UNC', threadDepth: '.6', top: '-.2' }

  it('at turns that its feed can be printed for, where that costs less than a fifth of them', () => {
    // Of 18 threads an inch a feed is exact at 18, 36 turns. The tap is 5/16: 12.22 turns for each foot a minute, down to fives.
    const turns = (tapping: number) =>
      tapSizes(paramsOf({ thread: '5/16-18 UNC' }), on(), { ...steel, tapping }).rpm.tap
    expect([3.3, 3.76, 2.95].map(turns)).toEqual([36, 45, 35])
  })

  it('in depth: the thread, the lead of its tap, room for chips, the point of the drill', () => {
    expect(sizesOf(thread)).toMatchObject({
      lead: near(0.25),
      tapDepth: near(0.85),
      // Two pitches of room.
      drillDepth: near(0.975),
      room: near(0.125),
      drillDiameter: near(0.3125),
      // .15625 / tan 59.
      pointLength: near(0.0938845, 6),
      drillPeck: near(0.3125),
      r: { tap: near(0.125), other: near(0.1) },
      // 6 % wider than the thread: .3975, 90 degrees: half of it deep.
      chamfer: { diameter: near(0.3975), depth: near(0.19875) },
      percent: near((100 * 0.0625) / (1.299038 * 0.0625), 4),
      top: -0.2,
      clearance: 1,
    })
    // A form tap makes no chips: one pitch. A bottoming tap has a thread and a half.
    expect(sizesOf({ ...thread, tap: 'form', lead: 'bottoming' })).toMatchObject({
      lead: near(0.09375),
      tapDepth: near(0.69375),
      drillDepth: near(0.69375 + 0.0625),
      // (D - d) / (.0068 P) of letter S, .348.
      drillDiameter: near(0.348),
      percent: near((0.375 - 0.348) / (0.0068 * 0.0625)),
    })
    expect(sizesOf({ ...thread, lead: 'taper' }).lead).toBeCloseTo(0.5, 9)
    // Drilled only: no room, no lead.
    expect(sizesOf({ ...thread, tapping: false }).drillDepth).toBeCloseTo(0.6, 9)
    expect(sizesOf({ ...thread, point: '180' }).pointLength).toBe(0)
    expect(sizesOf({ ...thread, point: '90' }).pointLength).toBeCloseTo(0.15625, 9)
    // What was typed stands.
    expect(
      sizesOf({
        ...thread,
        tapDepth: '.8',
        drillDepth: '.9',
        drillDiameter: '.32',
        drillPeck: '.2',
        rPlane: '.2',
        chamferDiameter: '.42',
        chamferAngle: '60',
      }),
    ).toMatchObject({
      tapDepth: 0.8,
      drillDepth: 0.9,
      room: near(0.1),
      drillDiameter: 0.32,
      drillPeck: 0.2,
      r: { tap: 0.2, other: 0.2 },
      chamfer: { diameter: 0.42, depth: near(0.21 / Math.tan(Math.PI / 6)) },
    })
  })

  it('through a plate: as deep as it is thick, the drill a little further', () => {
    const through = { ...thread, hole: 'through', thickness: '.7' } as const
    expect(sizesOf(through)).toMatchObject({
      threadDepth: 0.7,
      tapDepth: near(0.95),
      drillDepth: near(0.72),
    })
    const mm = on({ unit: 'mm', machine: machineOf('mill', 'mm') })
    expect(sizesOf({ thread: 'M6x1', hole: 'through', thickness: '20' }, mm)).toMatchObject({
      drillDepth: near(20.5),
      r: { tap: near(2.5), other: near(2.5) },
      drillDiameter: near(5),
    })
    // Two pitches of M10 are more than 2.5.
    expect(sizesOf({ thread: 'M10x1.5' }, mm).r).toEqual({ tap: near(3), other: near(2.5) })
  })

  it('in turns: surface speed over diameter, what divides evenly, no faster than spindle and tap', () => {
    // 35 ft a minute on .375: 12 x 35 / (3.1416 x .375) = 356.5, in tens 350: 21.875 is printed as it is.
    expect(sizesOf(thread).rpm).toEqual({
      tap: 350,
      // 85 ft a minute on .3125 is 1039, in fifties; on .3975 817, in tens.
      drill: 1000,
      chamfer: 810,
    })
    expect(sizesOf({ ...thread, tap: 'form' }).rpm.tap).toBe(400)
    // 13 an inch: 267 at 35 ft a minute, 260 divides by 13 already.
    expect(sizesOf({ ...thread, thread: '1/2-13 UNC' }).rpm.tap).toBe(260)
    // 11.5 an inch does not divide: as asked, 12 x 35 / (3.1416 x 1.315) = 101.7.
    expect(sizesOf({ ...thread, thread: '1-11.5 NPT' }).rpm.tap).toBe(100)
    // 18 an inch, 12 x 35 / (3.1416 x .3125) = 427.8: 420 does not print exactly, 414 = 23 x 18 does.
    expect(sizesOf({ ...thread, thread: '5/16-18 UNC' }).rpm.tap).toBe(414)
    expect(sizesOf(thread, on({ machine: dynamicsWith({ tapTop: 96 }) })).rpm.tap).toBe(95)
    expect(sizesOf(thread, on({ machine: dynamicsWith({ spindleTop: 300 }) })).rpm).toEqual({
      tap: 300,
      drill: 300,
      chamfer: 300,
    })
    expect(sizesOf({ ...thread, tapTurns: '321', drillTurns: '999', chamferTurns: '888' }).rpm).toEqual({
      tap: 321,
      drill: 999,
      chamfer: 888,
    })
    // Without a page of the spindle it taps up to 2000.
    expect(retractLimits(on({ machine: { ...machineOf('mill'), dynamics: null } }))).toEqual({
      most: 9,
      decimal: true,
      topSpeed: near(2000 / 60),
    })
    expect(retractLimits(on({}, twoLine))).toMatchObject({ most: 1, decimal: false, topSpeed: 50 })
  })

  it('in feed: 1.5 % of a drill a turn; the pitch a turn, or turns x pitch a minute, and the lead that it prints', () => {
    // .015 x .3125 = .0046875, to ten thousandths.
    expect(sizesOf(thread).feeds).toEqual({ chamfer: near(0.0047), drill: near(0.0047) })
    expect(sizesOf({ ...thread, drillFeed: '.006' }).feeds.drill).toBe(0.006)
    expect(sizesOf({ ...thread, drillDiameter: '.002' }).feeds.drill).toBe(0.0001)
    expect(sizesOf(thread).tapFeed).toEqual({ printed: near(21.875), lead: near(0.0625) })
    // 24 an inch a turn cannot be printed: .04166667 is .0417.
    const turn = sizesOf({ ...thread, thread: '5/16-24 UNF', feedMode: 'turn' })
    expect(turn.tapFeed.lead).toBe(turn.tapFeed.printed)
    expect(turn.tapFeed.printed).toBeCloseTo(1 / 24, 4)
    // A lathe's feed is a turn's whatever was said.
    const lathe = caseOf('lathe', compact)
    expect(sizesOf({ ...thread, feedMode: 'minute' }, lathe).tapFeed.printed).toBeCloseTo(0.0625, 9)
  })

  it('in strokes: from the R plane, one a peck, in pitches', () => {
    // From -.2 + .125 = -.075 to -.2 - .85 = -1.05: .975, 15.6 pitches.
    expect(sizesOf(thread).stroke).toEqual({ strokes: [near(15.6)], speed: near(350 / 60), acceleration: 40 })
    expect(sizesOf(thread).tapPecks).toEqual([near(-1.05)])
    // Four pitches a peck where nothing is said: .25, .5, .75 and the rest.
    const pecks = sizesOf({ ...thread, tapPeck: true })
    expect(pecks.tapPecks).toEqual([-0.325, -0.575, -0.825, -1.05].map((each) => near(each)))
    expect(pecks.stroke.strokes).toEqual([4, 8, 12, 15.6].map((each) => near(each)))
    expect(sizesOf({ ...thread, tapPeck: true, tapPeckDepth: '.5' }).tapPecks).toEqual([
      near(-0.575),
      near(-1.05),
    ])
    expect(
      sizesOf(thread, on({ machine: { ...machineOf('mill'), dynamics: null } })).stroke.acceleration,
    ).toBe(40)
    expect(
      sizesOf(thread, on({ machine: dynamicsWith({ spindleAcceleration: 55 }) })).stroke.acceleration,
    ).toBe(55)
  })

  it('coming out: by the knee, as typed, as the control has it, never faster in a floating holder', () => {
    // sqrt(15.6 x 40) / 5.8333 = 4.28: 4.3 on a spindle that was timed.
    expect(sizesOf(thread).multiple).toEqual({ value: near(4.3), written: true })
    expect(sizesOf(thread, on({ machine: dynamicsWith({ spindleTimed: false }) })).multiple.value).toBe(2)
    expect(sizesOf({ ...thread, multiple: 'typed', multipleTyped: '3' }).multiple).toEqual({
      value: 3,
      written: true,
    })
    expect(sizesOf({ ...thread, multiple: 'left' }).multiple).toEqual({ value: 1, written: false })
    expect(sizesOf({ ...thread, holder: 'floating' }).multiple).toEqual({ value: 1, written: true })
    expect(sizesOf(thread, on({}, twoLine)).multiple).toEqual({ value: 1, written: false })
    expect(plain.reading.tapRetract).toBeNull()
  })

  it('a thread of his own, in either unit, its drill the major less the pitch (ISO 2306)', () => {
    const own = { thread: 'own', ownMajor: '.5', ownPitch: '.0625' } as const
    expect(threadOf(paramsOf(own), on())).toMatchObject({ major: 0.5, pitch: 0.0625, drill: 0.4375 })
    expect(threadOf(paramsOf(own), on({ unit: 'mm' }))).toMatchObject({
      major: near(12.7),
      pitch: near(1.5875),
      drill: near(11.1125),
      series: 'M fine',
    })
    expect(threadOf(paramsOf({ thread: 'M6x1' }), on())).toMatchObject({
      unit: 'inch',
      major: near(6 / 25.4),
      pitch: near(1 / 25.4),
      drill: near(5 / 25.4),
    })
    expect(sizesOf({ thread: '1/8-27 NPT' }).percent).toBeNull()
  })
})

describe('the arithmetic of a tapped hole', () => {
  const lines = (tap: Partial<TapDraft>, where = on()) => {
    const params = paramsOf(tap, where.unit)
    return tapWorking(params, tapSizes(params, where, steel), where.unit).map(
      ({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`,
    )
  }
  it('with the numbers put in', () => {
    expect(lines({ thread: '3/8-16 UNC', threadDepth: '.6' })).toEqual([
      'feed of the tap: 350 x 0.06250 = 21.8750',
      'percent of thread: 100 x (0.3750 - 0.3125) / (1.29904 x 0.06250) = 77 %',
      'tip of the tap: 0.6000 + 4 x 0.06250 = 0.8500',
      'room under the tap: 0.9750 - 0.8500 = 0.1250',
      'tip of the drill: 0.9750 + 0.1563 / tan 59 = 1.0689',
      'knee of the way out: root of (15.60 x 40) / 5.83 = 4.28',
    ])
    // A short thread on a slow spindle: sqrt(1.6 x 5) = 2.8 turns a second are less than 5.83 going in.
    expect(
      lines(
        { thread: '3/8-16 UNC', threadDepth: '.1', tapDepth: '.1', rPlane: '.0125', drill: false },
        on({ machine: dynamicsWith({ spindleAcceleration: 5 }) }),
      ),
    ).toEqual([
      'feed of the tap: 350 x 0.06250 = 21.8750',
      'percent of thread: 100 x (0.3750 - 0.3125) / (1.29904 x 0.06250) = 77 %',
      'tip of the tap: 0.1000 as typed = 0.1000',
      'knee of the way out: root of (1.80 x 5) / 5.83, at least 1 = 1.00',
    ])
    expect(lines({ thread: '3/8-16 UNC', tap: 'form', threadDepth: '.6' })[1]).toBe(
      'percent of thread: (0.3750 - 0.3480) / (0.0068 x 0.06250) = 64 %',
    )
    expect(lines({ thread: '1/8-27 NPT', threadDepth: '.3' }).join()).not.toContain('percent')
    expect(lines({ thread: '3/8-16 UNC', threadDepth: '.6', tapping: false })).toEqual([
      'tip of the drill: 0.6000 + 0.1563 / tan 59 = 0.6939',
    ])
    const mm = on({ unit: 'mm', machine: machineOf('mill', 'mm') })
    expect(lines({ thread: 'M6x1', threadDepth: '12' }, mm)[2]).toBe(
      'tip of the tap: 12.000 + 4 x 1.0000 = 16.000',
    )
  })
})

describe('drills and threads by their names', () => {
  it('drills rise in size, and every one is nearest to itself', () => {
    const inMm = ({ diameter, unit }: (typeof DRILL_SIZES)[number]) =>
      unit === 'mm' ? diameter : diameter * 25.4
    DRILL_SIZES.slice(1).forEach((each, n) => {
      expect(inMm(each)).toBeGreaterThanOrEqual(inMm(DRILL_SIZES[n] as (typeof DRILL_SIZES)[number]))
    })
    for (const each of DRILL_SIZES)
      expect(nearestDrill(each.diameter, each.unit).diameter).toBe(each.diameter)
  })

  it('the nearest drill is that than which none is nearer, in either unit, and of two the one of its own', () => {
    const micrometres = fc.integer({ min: 100, max: 45_000 })
    fc.assert(
      fc.property(micrometres, fc.constantFrom('inch' as const, 'mm' as const), (size, unit) => {
        const wanted = unit === 'mm' ? size / 1000 : size / 25_000
        const off = ({ diameter, unit: own }: (typeof DRILL_SIZES)[number]) =>
          Math.abs(convertLength(diameter, own, 'mm') - convertLength(wanted, unit, 'mm'))
        const least = Math.min(...DRILL_SIZES.map(off))
        const nearest = nearestDrill(wanted, unit)
        expect(off(nearest)).toBe(least)
        const asNear = DRILL_SIZES.filter((drill) => off(drill) === least)
        if (asNear.some((drill) => drill.unit === unit)) expect(nearest.unit).toBe(unit)
        expect(drillName(wanted, unit)).toBe(least < 0.01 ? nearest.name : undefined)
      }),
      { numRuns: 200 },
    )
  })
  // Drill tables of handbooks, from memory.
  it.each([
    [0.25, 'inch', '1/4'],
    [1.5, 'inch', '1-1/2'],
    [1 + 5 / 32, 'inch', '1-5/32'],
    [1, 'inch', '1'],
    [1 / 64, 'inch', '1/64'],
    [0.201, 'inch', 'No. 7'],
    [0.228, 'inch', 'No. 1'],
    [0.0135, 'inch', 'No. 80'],
    [0.234, 'inch', 'A'],
    [0.413, 'inch', 'Z'],
    [0.55, 'mm', '0.55 mm'],
    // No. 31 is .120 in.
    [3.05, 'mm', 'No. 31'],
    [6.8, 'mm', '6.80 mm'],
    [14.25, 'mm', '14.25 mm'],
    [14, 'mm', '14.00 mm'],
    [32, 'mm', '32.00 mm'],
    [3, 'mm', '3.00 mm'],
    [3.1, 'mm', '3.10 mm'],
    [5.2, 'mm', '5.20 mm'],
    [6.809, 'mm', '6.80 mm'],
    [6.82, 'mm', undefined],
  ] as const)('%d %s is %s', (diameter, unit, name) => expect(drillName(diameter, unit)).toBe(name))

  // ASME B1.1: number sizes are .060 and .013 more for each number.
  it.each([
    ['0-80 UNF', 0.06],
    ['4-40 UNC', 0.112],
    ['10-24 UNC', 0.19],
    ['12-28 UNF', 0.216],
  ])('%s is %d across', (id, major) => {
    expect(THREADS.find((each) => each.id === id)?.major).toBeCloseTo(major, 12)
  })
  // ISO 228-1, from memory: outside diameters in mm.
  it.each([
    ['G 1/8', 9.728, 8.8],
    ['G 1/4', 13.157, 11.8],
    ['G 3/8', 16.662, 15.25],
    ['G 1/2', 20.955, 19],
    ['G 3/4', 26.441, 24.5],
    ['G 1', 33.249, 30.75],
  ])('%s is %d mm across and drilled %d', (id, major, drill) => {
    const thread = THREADS.find((each) => each.id === id)
    expect((thread?.major as number) * 25.4).toBeCloseTo(major, 9)
    expect((thread?.drill as number) * 25.4).toBeCloseTo(drill, 9)
    expect(thread?.angle).toBe(55)
  })
  it('pipe threads have their threads an inch', () => {
    expect(THREADS.find((each) => each.id === '1/4-18 NPT')).toMatchObject({
      pitch: near(1 / 18),
      angle: 60,
      taper: true,
    })
  })
})
