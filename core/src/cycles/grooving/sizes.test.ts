import { describe, expect, it } from 'vitest'
import { type SheetCase, writeSheet } from '../../code/index.ts'
import { caseOf, compact, plain, sheetOf, twoLine } from '../../code/testing.ts'
import { USUAL_MATERIALS } from '../../cutting/index.ts'
import { demoReference } from '../../demo/index.ts'
import type { ToolShape } from '../../machine/index.ts'
import type { GrooveDraft } from './params.ts'
import { chipBreak, cutsOf, grooveMoves, type Move, planMoves, plungePlaces, printMoves } from './plan.ts'
import { type Insert, leftStanding, lowEnd, type Section, wantedDepth } from './section.ts'
import { grooveSizes, heldSpeed, inSection, onMachine, turnsAt } from './sizes.ts'
import { grooveWorking } from './working.ts'

// Everything here was worked with a pencil from the drawing's numbers.

const steel = USUAL_MATERIALS[1] as (typeof USUAL_MATERIALS)[number]
const lathe = (more: Partial<SheetCase> = {}): SheetCase => caseOf('lathe', compact, more)
function sizesOf(groove: Partial<GrooveDraft>, on = lathe()) {
  const [item] = sheetOf({ groove }).items
  if (item?.cycle !== 'groove') throw new Error('no groove')
  return grooveSizes(item.params, on, steel)
}
const near = (value: number) => expect.closeTo(value, 9)

describe('what a groove comes to', () => {
  const outside: Partial<GrooveDraft> = {
    surface: '1.375',
    near: '-.42',
    far: '-.607',
    bottom: '1.155',
    insertWidth: '.118',
    wallStock: '.006',
    floorStock: '.004',
  }

  it('outside: half of diameters deep, its width and what is left inside the wall', () => {
    expect(sizesOf(outside)).toMatchObject({
      surface: near(0.6875),
      section: { low: near(-0.607), high: near(-0.42), depth: near(0.11) },
      start: near(-0.42 - 0.006 - 0.118),
      last: near(-0.607 + 0.006),
      plungeDepth: near(0.106),
      // On the radius half of a clearance on the diameter.
      level: near(-0.05),
      // The bottom is a diameter: within .002 of it is within .001 of the radius.
      tolerance: { wall: near(0.003), bottom: near(0.001) },
      // 0.8 and 0.4 of the width, as printed.
      stepover: near(0.0944),
      peck: near(0.0472),
      peckRetreat: near(0.01),
      feed: near(0.004),
      finishFeed: near(0.003),
      shifts: [near(0)],
      front: near(0.1),
    })
    expect(sizesOf({ ...outside, programmed: 'high' })).toMatchObject({
      start: near(-0.42 - 0.006),
      last: near(-0.607 + 0.006 + 0.118),
      front: near(0.1 + 0.118),
    })
    // Typed whichever way round, they are the same walls.
    expect(sizesOf({ ...outside, near: '-.607', far: '-.42' })).toMatchObject({
      section: { low: near(-0.607), high: near(-0.42) },
    })
    expect(sizesOf({ ...outside, pecking: false, finish: false })).toMatchObject({
      peck: 0,
      plungeDepth: near(0.11),
      start: near(-0.42 - 0.118),
      last: near(-0.607),
    })
    expect(sizesOf({ ...outside, peck: '.03', stepover: '.07', start: '-.53', last: '-.6' })).toMatchObject({
      peck: near(0.03),
      stepover: near(0.07),
      start: near(-0.53),
      last: near(-0.6),
    })
  })

  it('inside: the bottom is the larger diameter; the same in mm', () => {
    const inside: Partial<GrooveDraft> = {
      ...outside,
      where: 'inside',
      surface: '.82',
      bottom: '.99',
    }
    expect(sizesOf(inside)).toMatchObject({ surface: near(0.41), section: { depth: near(0.085) } })
    // The same groove typed in inches, on a case in mm: every length 25.4 times as long.
    const inch = sizesOf(inside)
    const mm = sizesOf(inside, lathe({ unit: 'mm' }))
    expect([mm.surface, mm.section.depth, mm.level, mm.start, mm.last, mm.front]).toEqual(
      [inch.surface, inch.section.depth, inch.level, inch.start, inch.last, inch.front].map((each) =>
        near(25.4 * each),
      ),
    )
    expect(mm.peckRetreat).toBe(0.25)
  })

  it('in a face: walls are diameters, the depth is along Z, and so is the clearance', () => {
    expect(
      sizesOf({
        where: 'face',
        surface: '-.1',
        near: '1.2',
        far: '.8',
        bottom: '-.25',
        insertWidth: '.118',
        wallStock: '.006',
        floorStock: '.004',
        count: '3',
        pitch: '.5',
      }),
    ).toMatchObject({
      surface: near(-0.1),
      section: { low: near(0.4), high: near(0.6), depth: near(0.15) },
      start: near(0.6 - 0.006 - 0.118),
      last: near(0.4 + 0.006),
      plungeDepth: near(0.146),
      level: near(-0.1),
      // Walls are diameters here and the bottom is a Z: half of one tolerance, all of the other.
      tolerance: { wall: near(0.0015), bottom: near(0.002) },
      shifts: [near(0), near(-0.25), near(-0.5)],
    })
  })

  it('an insert that nearly fills it plunges in the middle, an edge without one has no size', () => {
    // .187 between the walls, .181 of insert: .003 to each side, less than what was to be left.
    expect(sizesOf({ ...outside, insertWidth: '.181' })).toMatchObject({
      start: near(-0.42 - 0.003 - 0.181),
      last: near(-0.607 + 0.003),
    })
    expect(sizesOf({ ...outside, edge: 'chamfer', edgeSize: '.02' }).section.edge).toEqual({
      kind: 'chamfer',
      size: 0.02,
    })
    expect(sizesOf({ ...outside, edge: 'none', edgeSize: '.02' }).section.edge.size).toBe(0)
  })

  it('what was not typed of the tool stands in the table: its width, how deep, the bore that its bar enters', () => {
    const bar = demoReference.tools.find(({ onLathe }) => onLathe?.bar) as ToolShape
    const tool: ToolShape = {
      ...bar,
      machineId: 'm',
      number: 4,
      unit: 'inch',
      diameter: 0.1,
      flute: 0.15,
      onLathe: { ...(bar.onLathe as NonNullable<ToolShape['onLathe']>), bar: 0.5 },
    }
    const on = lathe({ tools: [tool] })
    expect(sizesOf({ ...outside, insertWidth: '', reach: '', tool: '4', where: 'inside' }, on)).toMatchObject(
      {
        insert: { width: near(0.1) },
        reach: near(0.15),
        minBore: near(0.65),
      },
    )
    expect(sizesOf({ ...outside, minBore: '.9', reach: '.2', tool: '4' }, on)).toMatchObject({
      minBore: near(0.9),
      reach: near(0.2),
    })
    expect(sizesOf({ ...outside, insertWidth: '', reach: '', tool: '5' }, on)).toMatchObject({
      insert: { width: near(0.125) },
      minBore: null,
      reach: Number.POSITIVE_INFINITY,
    })
  })

  it('a place in the section is one on the machine, and back, wherever the groove is', () => {
    for (const [where, surface, section, machine] of [
      ['outside', 0.7, { u: -0.5, v: 0.1 }, { x: 0.6, z: -0.5 }],
      ['inside', 0.4, { u: -0.5, v: 0.1 }, { x: 0.5, z: -0.5 }],
      ['face', -0.2, { u: 0.5, v: 0.1 }, { x: 0.5, z: -0.3 }],
    ] as const) {
      const found = onMachine({ where, surface }, section)
      expect(found).toEqual({ x: near(machine.x), z: near(machine.z) })
      expect(inSection({ where, surface }, machine)).toEqual({ u: near(section.u), v: near(section.v) })
    }
  })

  it('turns for a surface speed, up to the clamp and the machine (12 V / pi D)', () => {
    const on = lathe()
    const held = (clamp: number | null) => heldSpeed({ spindle: { surface: 300, clamp } }, on)
    // 12 x 300 / (3.1416 x 2) = 572.96 on a diameter of 2, which is a radius of 1.
    expect(held(2500)).toEqual({ perRadius: expect.closeTo(572.958, 3), top: 2500 })
    expect(held(null)?.top).toBe(8000)
    expect(turnsAt({ spindle: { surface: 300, clamp: 2500 } }, 0.5, on)).toBeCloseTo(1145.916, 3)
    expect(turnsAt({ spindle: { surface: 300, clamp: 900 } }, 0.5, on)).toBe(900)
    expect(turnsAt({ spindle: { turns: 640 } }, 0.5, on)).toBe(640)
    expect(heldSpeed({ spindle: { turns: 640 } }, on)).toBeUndefined()
  })
})

describe('the arithmetic of a groove', () => {
  const lines = (groove: Partial<GrooveDraft>, on = lathe()) =>
    grooveWorking(sizesOf(groove, on), on).map(
      ({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`,
    )
  const outside: Partial<GrooveDraft> = {
    surface: '1.375',
    near: '-.42',
    far: '-.607',
    bottom: '1.155',
    insertWidth: '.118',
    wallStock: '.006',
    floorStock: '.004',
    surfaceSpeed: '300',
  }
  it('outside, either corner programmed, with what is left for finishing', () => {
    expect(lines(outside)).toEqual([
      'start: -0.4200 - 0.1180 - 0.0060 = -0.5440',
      'plunges: 0.0570 / 0.0944, rounded up, + 1 = 2',
      'bottom of the plunges: depth 0.1100 - 0.0040 = 0.1060',
      'turns at the start: 12 x 300 / (3.1416 x 1.3750) = 833 rpm',
    ])
    expect(lines({ ...outside, programmed: 'high' })[0]).toBe('start: -0.4200 - 0.0060 = -0.4260')
    // A start of his own that leaves nothing, and one over the wall.
    expect(lines({ ...outside, finish: false, programmed: 'high' })[0]).toBe('start: -0.4200 = -0.4200')
    expect(lines({ ...outside, finish: false, programmed: 'high', start: '-.415' })[0]).toBe(
      'start: -0.4200 + 0.0050 = -0.4150',
    )
  })
  it('inside from the high corner it says where the bar clears; in a face it speaks of diameters', () => {
    const inside = { ...outside, where: 'inside', surface: '.82', bottom: '.99', front: '.2' } as const
    expect(lines({ ...inside, programmed: 'high' })).toContain('clear in front: 0.2000 + 0.1180 = 0.3180')
    expect(lines(inside).join()).not.toContain('clear in front')
    expect(
      lines({ ...outside, where: 'face', surface: '-.1', near: '1.2', far: '.8', bottom: '-.25' }),
    ).toEqual([
      'start: 1.2000 - 0.2360 - 0.0120 = 0.9520',
      'plunges: 0.0700 / 0.0944, rounded up, + 1 = 2',
      'bottom of the plunges: depth 0.1500 - 0.0040 = 0.1460',
      'turns at the start: 12 x 300 / (3.1416 x 1.2000) = 955 rpm',
    ])
  })
})

describe('the moves of a groove, worked by hand', () => {
  const sizes = sizesOf({
    surface: '2',
    near: '-1',
    far: '-1.5',
    bottom: '1.6',
    insertWidth: '.2',
    insertCorner: '.02',
    corner: '.05',
    clearance: '.1',
    stepover: '.15',
    peck: '.125',
    wallStock: '.01',
    floorStock: '.01',
    feed: '.004',
    finishFeed: '.002',
  })
  const written = (moves: readonly Move[]) =>
    moves.map(({ part, to, feed, centre }) =>
      [
        part,
        ...[to.u, to.v, ...(centre ? [centre.u, centre.v] : [])].map((each) => Number(each.toFixed(6))),
        ...(feed ? [feed] : []),
      ].join(' '),
    )
  const plunge = (u: number) => [
    `plunge ${u} 0.075 0.004`,
    `peck ${u} 0.055`,
    `plunge ${u} 0.19 0.004`,
    `out ${u} -0.05`,
  ]
  it('plunges in pecks, aside at the clearance, both walls from the edge to the middle', () => {
    // Walls -1.5 and -1; programmed is the low end: starts at -1 - .01 - .2, ends at -1.49; .28 in steps of .15: three.
    expect(written(grooveMoves(sizes, 0.02, 0))).toEqual([
      ...plunge(-1.21),
      'aside -1.36 -0.05',
      ...plunge(-1.36),
      'aside -1.49 -0.05',
      ...plunge(-1.49),
      // The high wall with the high end: a width off the programmed one. Round a corner of .05 with a corner of .02: .03.
      'aside -1.2 -0.05',
      'finish -1.2 0.17 0.002',
      'finish -1.23 0.2 -1.23 0.17 0.002',
      'finish -1.35 0.2 0.002',
      'out -1.35 -0.05',
      'aside -1.5 -0.05',
      'finish -1.5 0.17 0.002',
      'finish -1.47 0.2 -1.47 0.17 0.002',
      'finish -1.35 0.2 0.002',
      'out -1.35 -0.05',
    ])
    // A second groove half an inch on is the same, shifted.
    const [first, second] = [0, -0.5].map((shift) => grooveMoves(sizes, 0.02, shift))
    expect(second?.map(({ to }) => [near(to.u + 0.5), to.v])).toEqual(first?.map(({ to }) => [to.u, to.v]))
    const shifted = second?.find(({ centre }) => centre)
    expect(shifted?.centre?.u).toBeCloseTo(-1.73, 9)
  })
  it('over a chamfer or a round edge, the high end programmed', () => {
    const wall = (edge: Section['edge']) =>
      written(
        grooveMoves(
          {
            ...sizes,
            section: { ...sizes.section, corner: 0.02, edge },
            insert: { ...sizes.insert, programmed: 'high' },
          },
          0.02,
          0,
        ).filter(({ part }, n, all) => part === 'finish' || all[n + 1]?.part === 'finish'),
      )
    // r (2 - sqrt 2) = .02 x .585786 = .011716; it begins .05 before it, on the chamfer's line.
    const sharp = (side: number, u: number) => Number((u + side * (0.03 + 0.011716 + 0.05)).toFixed(6))
    expect(wall({ kind: 'chamfer', size: 0.03 })).toEqual([
      `aside ${sharp(1, -1)} -0.05`.replace(
        '-0.908284',
        String(Number((-1 + 0.03 + 0.0117157 + 0.05).toFixed(6))),
      ),
      'finish -1 0.041716 0.002',
      'finish -1 0.2 0.002',
      'finish -1.15 0.2 0.002',
      expect.stringMatching(/^aside -1\.391716 -0\.05$/),
      'finish -1.3 0.041716 0.002',
      'finish -1.3 0.2 0.002',
      'finish -1.15 0.2 0.002',
    ])
    expect(wall({ kind: 'round', size: 0.03 })).toEqual([
      'aside -0.95 -0.05',
      'finish -0.95 0 0.002',
      'finish -1 0.05 -0.95 0.05 0.002',
      'finish -1 0.2 0.002',
      'finish -1.15 0.2 0.002',
      'aside -1.35 -0.05',
      'finish -1.35 0 0.002',
      'finish -1.3 0.05 -1.35 0.05 0.002',
      'finish -1.3 0.2 0.002',
      'finish -1.15 0.2 0.002',
    ])
  })
  it('an insert a little wider than the groove stands over both walls alike, and stays at the wall', () => {
    const wide = grooveMoves(
      { ...sizes, section: { ...sizes.section, low: -1.196, corner: 0.02 } },
      0.02,
      0,
    ).filter(({ part }) => part === 'finish')
    expect(written(wide)).toEqual(['finish -1.198 0.2 0.002', 'finish -1.198 0.2 0.002'])
  })
  it('how far a peck comes back: what is written, or the control itself, .02 in or .5 mm at most', () => {
    const of = (profile: SheetCase['profile'], unit: 'inch' | 'mm') =>
      chipBreak(sizes, lathe({ profile, unit }))
    const own = (retreat: number) => ({
      ...compact,
      reading: {
        ...compact.reading,
        turningCycles: 'one-line' as const,
        retreat: { inch: retreat, mm: 10 * retreat },
      },
    })
    expect([of(own(0.015), 'inch'), of(own(0.03), 'inch')]).toEqual([0.015, 0.02])
    expect([of(own(0.04), 'mm'), of(own(0.06), 'mm')]).toEqual([0.4, 0.5])
    expect(of(twoLine, 'inch')).toBe(sizes.peckRetreat)
    expect(plain.reading.turningCycles).not.toBe('one-line')
  })
  it('one plunge where start and end are one; spans are stepped over towards the end', () => {
    expect(plungePlaces(1, 1, 0.1)).toEqual([1])
    expect(plungePlaces(1, 1.25, 0.1)).toEqual([1, near(1.1), near(1.2), 1.25])
    expect(plungePlaces(1, 0.7, 0.1)).toEqual([1, near(0.9), near(0.8), 0.7])
    expect(plungePlaces(1, 0.699, 0.1)).toHaveLength(5)
  })
  it('printed: X a diameter, I and K from where the last move really ended, the way round, the turns along it', () => {
    const on = lathe()
    const moves: Move[] = [
      { to: { u: -1, v: 0 }, part: 'aside' },
      { to: { u: -1.05, v: 0.05 }, centre: { u: -1.05, v: 0 }, feed: 0.002, part: 'finish' },
      { to: { u: -1.1, v: 0 }, centre: { u: -1.05, v: 0 }, feed: 0.002, part: 'finish' },
      { to: { u: -1.1, v: -0.05 }, feed: 0.004, part: 'finish' },
    ]
    const printedMoves = printMoves(moves, sizes, on, { x: 1.05, z: -1 }, () => false)
    // Outside at a radius of 1: from Z-1 down into the bar and along to Z-1.05: centre a twentieth to the left.
    expect(printedMoves.map(({ said, toCentre, clockwise }) => ({ said, toCentre, clockwise }))).toEqual([
      { said: { x: 2, z: -1 } },
      { said: { x: 1.9, z: -1.05 }, toCentre: { i: near(0), k: near(-0.05) }, clockwise: true },
      { said: { x: 2, z: -1.1 }, toCentre: { i: near(0.05), k: near(0) }, clockwise: true },
      { said: { x: 2.1, z: -1.1 } },
    ])
    const turning = { ...sizes, spindle: { turns: 500 } }
    const plan = planMoves(printedMoves, turning, on, { x: 1.05, z: -1 })
    expect(plan).toEqual([
      { does: 'rapid', to: [1, null, -1] },
      {
        does: 'arc',
        to: [0.95, null, -1.05],
        centre: [near(1), near(-1.05)],
        clockwise: true,
        feed: near(1),
      },
      { does: 'arc', to: [1, null, -1.1], centre: [near(1), near(-1.05)], clockwise: true, feed: near(1) },
      { does: 'feed', to: [1.05, null, -1.1], feed: near(2) },
    ])
    // Held at a surface speed: turns k / r, over dr the mean that takes as long: along r from 1 to 1.05, k / 1.025.
    const held = { ...sizes, spindle: { surface: 300, clamp: null } }
    const k = (12 * 300) / (2 * Math.PI)
    const [, arc, , straight] = planMoves(printedMoves, held, on, { x: 1.05, z: -1 })
    expect(straight).toMatchObject({ feed: expect.closeTo((0.004 * k) / 1.025, 6) })
    // Round a quarter from the top: the mean of the radius is 1 - .05 x 2 / pi (a fact of the circle).
    expect(arc).toMatchObject({ feed: expect.closeTo((0.002 * k) / (1 - (0.05 * 2) / Math.PI), 3) })
    // The other way round, outwards over an edge.
    const back = printMoves(
      [
        { to: { u: -1.05, v: 0.05 }, part: 'aside' },
        { to: { u: -1, v: 0 }, centre: { u: -1.05, v: 0 }, feed: 0.002, part: 'finish' },
      ],
      sizes,
      on,
      { x: 1, z: -1.05 },
      () => false,
    )
    expect(back[1]).toMatchObject({ toCentre: { i: near(0.05), k: near(0) }, clockwise: false })
    // What the control makes by itself is not rounded.
    const [exact] = printMoves(
      [{ to: { u: -1.000_04, v: 0.000_02 }, part: 'plunge' }],
      sizes,
      on,
      { x: 1, z: -1 },
      () => true,
    )
    expect(exact).toMatchObject({ said: { x: near(1.99996), z: near(-1.00004) } })
  })
})

describe('a groove in section, worked by hand', () => {
  const plainSection: Section = {
    low: 0,
    high: 1,
    depth: 0.5,
    corner: 0.1,
    edge: { kind: 'none', size: 0 },
  }
  const insert: Insert = { width: 0.25, corner: 0, programmed: 'low' }
  it('is as deep as drawn: corners, chamfers, round edges, nothing beyond', () => {
    const of = (u: number, edge: Section['edge'] = plainSection.edge) =>
      wantedDepth({ ...plainSection, edge }, u)
    expect([of(-0.001), of(0.1), of(0.5), of(0.9), of(1.001)]).toEqual([0, 0.5, 0.5, 0.5, 0])
    // Three, four, five: .02 in, .08 from the middle of the corner: .06 up.
    expect(of(0.02)).toBeCloseTo(0.46, 12)
    expect(of(0.98)).toBeCloseTo(0.46, 12)
    expect(of(0)).toBeCloseTo(0.4, 12)
    const chamfer = { kind: 'chamfer', size: 0.1 } as const
    expect([of(-0.03, chamfer), of(1.03, chamfer), of(-0.1, chamfer), of(-0.11, chamfer)]).toEqual([
      near(0.07),
      near(0.07),
      near(0),
      0,
    ])
    const round = { kind: 'round', size: 0.1 } as const
    // .04 out of .1: .06 across, .08 up of its centre: .02 deep.
    expect([of(-0.04, round), of(1.04, round), of(-0.1, round)]).toEqual([near(0.02), near(0.02), near(0)])
  })
  it('an insert stands with its programmed end there', () => {
    expect(lowEnd(1, insert)).toBe(1)
    expect(lowEnd(1, { ...insert, programmed: 'high' })).toBe(0.75)
  })
  const down = (u: number, v: number) => ({ from: { u, v: -0.1 }, to: { u, v } })
  it('what single plunges leave: walls, floor, rings, areas', () => {
    const square: Section = { ...plainSection, corner: 0 }
    // From .05, .35 and .7, .25 wide: .05 stands at each wall and between the first two, .1 between the others.
    const plunges = (v: number) => [down(0.05, v), down(0.35, v), down(0.7, v)]
    const ringsOf = (section: Section, v: number) =>
      leftStanding(section, plunges(v), insert).rings.map(({ from, to, height }) =>
        [from, to, height].map((each) => Number(each.toFixed(2))),
      )
    // Away from the corners, of which .1 is wanted round; a floor that stands .02 too high is one ring from wall to wall.
    expect(ringsOf(plainSection, 0.5)).toEqual([
      [0.3, 0.35, 0.5],
      [0.6, 0.7, 0.5],
    ])
    expect(ringsOf(square, 0.48)).toEqual([[0, 1, 0.5]])
    const left = leftStanding(square, plunges(0.48), insert)
    expect(left.walls).toEqual({ low: expect.closeTo(0.05, 5), high: expect.closeTo(0.05, 5) })
    expect(left.floor).toBeCloseTo(0.5, 9)
    expect(left.standing).toBeCloseTo(0.25 * 0.5 + 0.75 * 0.02, 5)
    expect([left.overcut, left.gouge, left.cornerMade]).toEqual([near(0), near(0), 0])
  })
  it('what is cut too deep, too wide, and not at all', () => {
    const square: Section = { ...plainSection, corner: 0 }
    const deep = leftStanding(square, [{ from: { u: 0, v: 0.52 }, to: { u: 0.75, v: 0.52 } }], insert)
    expect([deep.gouge, deep.floor]).toEqual([near(0.02), near(0)])
    expect(deep.overcut).toBeCloseTo(0.02, 5)
    expect(deep.walls).toEqual({ low: expect.closeTo(0, 5), high: expect.closeTo(0, 5) })
    const wide = leftStanding(square, [{ from: { u: -0.03, v: 0.5 }, to: { u: 0.76, v: 0.5 } }], insert)
    expect(wide.walls).toEqual({ low: expect.closeTo(-0.03, 5), high: expect.closeTo(-0.01, 5) })
    expect(wide.gouge).toBeCloseTo(0.03, 5)
    expect(wide.overcut).toBeCloseTo(0.04 * 0.5, 4)
    const none = leftStanding(square, [], insert)
    expect(none.walls).toEqual({ low: 1, high: 1 })
    expect([none.standing, none.floor]).toEqual([expect.closeTo(0.5, 5), near(0.5)])
  })
  it('along an arc and down a slope, with a round corner', () => {
    const round: Insert = { width: 0.4, corner: 0.1, programmed: 'high' }
    const [cut] = cutsOf([{ to: { u: 0.6, v: 0.3 }, feed: 0.004, part: 'finish' }], { u: 0.4, v: 0.1 })
    const left = leftStanding({ ...plainSection, corner: 0 }, [cut as NonNullable<typeof cut>], round)
    const at = (u: number) => left.outline.reduce((a, b) => (Math.abs(b.u - u) < Math.abs(a.u - u) ? b : a)).v
    // At the end its flat reaches from .3 to .5, .3 deep; at the start from .1 to .3, .1 deep.
    expect(at(0.4)).toBeCloseTo(0.3, 6)
    expect(at(0.08)).toBeGreaterThan(0)
    // On the low side the corner's circle (centre .1 in, .1 up of the tip) goes down the slope: its envelope lies r over
    // sqrt 2 further in and deeper. Over u = .2 its centre would be at u + r / sqrt 2.
    const side = 0.1 / Math.SQRT2
    const centre = 0.2 + side
    // The centre of the low corner starts at (.1, 0) and goes to (.3, .2).
    expect(at(0.2)).toBeCloseTo(centre - 0.1 + side, 3)
  })
  it('joins the cuts of moves: rapids move the start and cut nothing', () => {
    const cuts = cutsOf(
      [
        { to: { u: 1, v: 0 }, part: 'aside' },
        { to: { u: 1, v: 0.2 }, feed: 0.004, part: 'plunge' },
        { to: { u: 1.1, v: 0.3 }, centre: { u: 1.1, v: 0.2 }, feed: 0.004, part: 'finish' },
      ],
      { u: 0, v: 0 },
    )
    expect(cuts).toEqual([
      { from: { u: 1, v: 0 }, to: { u: 1, v: 0.2 } },
      { from: { u: 1, v: 0.2 }, to: { u: 1.1, v: 0.3 }, centre: { u: 1.1, v: 0.2 } },
    ])
  })
})

describe('a groove that stands as it was made', () => {
  it('is written without a stop in every profile', () => {
    for (const profile of [compact, twoLine, plain]) {
      const made = writeSheet(sheetOf({ groove: {} }), lathe({ profile }))
      expect(
        made.items.flatMap(({ findings }) => findings.filter(({ severity }) => severity === 'stop')),
      ).toEqual([])
    }
  })
})
