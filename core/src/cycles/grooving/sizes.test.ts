import { describe, expect, it } from 'vitest'
import { type SheetCase, writeSheet } from '../../code/index.ts'
import { caseOf, compact, grooveSizesOf, plain, sheetOf, twoLine } from '../../code/testing.ts'
import { demoReference } from '../../demo/index.ts'
import type { ToolShape } from '../../machine/index.ts'
import type { GrooveDraft } from './params.ts'
import { heldSpeed, inSection, onMachine, rpmAt } from './sizes.ts'
import { grooveWorking } from './working.ts'

// Everything here was worked with a pencil from the drawing's numbers.

const lathe = (more: Partial<SheetCase> = {}) => caseOf('lathe', compact, more)
/** .187 wide and .11 deep. */
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
const near = (value: number) => expect.closeTo(value, 9)

describe('what a groove comes to', () => {
  it('outside: half of diameters deep, its width and what is left inside the wall', () => {
    expect(grooveSizesOf(outside)).toMatchObject({
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
    expect(grooveSizesOf({ ...outside, programmed: 'high' })).toMatchObject({
      start: near(-0.42 - 0.006),
      last: near(-0.607 + 0.006 + 0.118),
      front: near(0.1 + 0.118),
    })
    // Typed whichever way round, they are the same walls.
    expect(grooveSizesOf({ ...outside, near: '-.607', far: '-.42' })).toMatchObject({
      section: { low: near(-0.607), high: near(-0.42) },
    })
    expect(grooveSizesOf({ ...outside, pecking: false, finish: false })).toMatchObject({
      peck: 0,
      plungeDepth: near(0.11),
      start: near(-0.42 - 0.118),
      last: near(-0.607),
    })
    expect(
      grooveSizesOf({ ...outside, peck: '.03', stepover: '.07', start: '-.53', last: '-.6' }),
    ).toMatchObject({
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
    expect(grooveSizesOf(inside)).toMatchObject({ surface: near(0.41), section: { depth: near(0.085) } })
    // The same groove typed in inches, on a case in mm: every length 25.4 times as long.
    const inch = grooveSizesOf(inside)
    const mm = grooveSizesOf(inside, lathe({ unit: 'mm' }))
    expect([mm.surface, mm.section.depth, mm.level, mm.start, mm.last, mm.front]).toEqual(
      [inch.surface, inch.section.depth, inch.level, inch.start, inch.last, inch.front].map((each) =>
        near(25.4 * each),
      ),
    )
    expect(mm.peckRetreat).toBe(0.25)
  })

  it('in a face: walls are diameters, the depth is along Z, and so is the clearance', () => {
    expect(
      grooveSizesOf({
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

  it('in a face a start and an end of his own are diameters too', () => {
    expect(
      grooveSizesOf({
        where: 'face',
        near: '1.2',
        far: '.8',
        surface: '0',
        bottom: '-.1',
        start: '1.1',
        last: '.9',
      }),
    ).toMatchObject({
      start: near(0.55),
      last: near(0.45),
    })
  })

  it('an insert that nearly fills it plunges in the middle, an edge without one has no size', () => {
    // .187 between the walls, .181 of insert: .003 to each side, less than what was to be left.
    expect(grooveSizesOf({ ...outside, insertWidth: '.181' })).toMatchObject({
      start: near(-0.42 - 0.003 - 0.181),
      last: near(-0.607 + 0.003),
    })
    expect(grooveSizesOf({ ...outside, edge: 'chamfer', edgeSize: '.02' }).section.edge).toEqual({
      kind: 'chamfer',
      size: 0.02,
    })
    expect(grooveSizesOf({ ...outside, edge: 'none', edgeSize: '.02' }).section.edge.size).toBe(0)
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
    expect(
      grooveSizesOf({ ...outside, insertWidth: '', reach: '', tool: '4', where: 'inside' }, on),
    ).toMatchObject({
      insert: { width: near(0.1) },
      reach: near(0.15),
      minBore: near(0.65),
    })
    expect(grooveSizesOf({ ...outside, minBore: '.9', reach: '.2', tool: '4' }, on)).toMatchObject({
      minBore: near(0.9),
      reach: near(0.2),
    })
    expect(grooveSizesOf({ ...outside, insertWidth: '', reach: '', tool: '5' }, on)).toMatchObject({
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
    expect(rpmAt({ spindle: { surface: 300, clamp: 2500 } }, 0.5, on)).toBeCloseTo(1145.916, 3)
    expect(rpmAt({ spindle: { surface: 300, clamp: 900 } }, 0.5, on)).toBe(900)
    expect(rpmAt({ spindle: { turns: 640 } }, 0.5, on)).toBe(640)
    expect(heldSpeed({ spindle: { turns: 640 } }, on)).toBeUndefined()
  })
})

describe('the arithmetic of a groove', () => {
  const lines = (groove: Partial<GrooveDraft>, on = lathe()) =>
    grooveWorking(grooveSizesOf(groove, on), on).map(
      ({ finds, arithmetic, gives }) => `${finds}: ${arithmetic} = ${gives}`,
    )
  it('outside, either corner programmed, with what is left for finishing', () => {
    expect(lines(outside)).toEqual([
      'start: -0.4200 - 0.1180 - 0.0060 = -0.5440',
      'plunges: 0.0570 / 0.0944, rounded up, + 1 = 2',
      'bottom of the plunges: depth 0.1100 - 0.0040 = 0.1060',
      'spindle speed at the start: 12 x 300 / (3.1416 x 1.3750) = 833 rpm',
    ])
    const means = (clamp: string) =>
      grooveWorking(grooveSizesOf({ ...outside, clamp }), lathe()).at(-1)?.means
    expect([means('2500'), means('')]).toEqual(['held at 2500 at most', 'without a clamp'])
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
      'spindle speed at the start: 12 x 300 / (3.1416 x 1.2000) = 955 rpm',
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
