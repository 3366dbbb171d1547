import { describe, expect, it } from 'vitest'
import type { SheetCase } from '../../code/index.ts'
import { caseOf, compact, grooveSizesOf, plain, twoLine } from '../../code/testing.ts'
import { chipBreak, grooveMoves, type Move, planMoves, plungePlaces, printMoves } from './plan.ts'
import type { Section } from './section.ts'
import { onMachine } from './sizes.ts'

// Everything here was worked with a pencil from the drawing's numbers.

const lathe = (more: Partial<SheetCase> = {}) => caseOf('lathe', compact, more)
const near = (value: number) => expect.closeTo(value, 9)

describe('the moves of a groove, worked by hand', () => {
  const sizes = grooveSizesOf({
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

  it('round arcs that begin and end anywhere: which way, and the turns at a held surface speed', () => {
    const on = lathe()
    // About X .9 (a radius), Z-1, with a radius of .05; degrees count from Z to X, which is the way of G3.
    const at = (degrees: number) => ({
      u: -1 + 0.05 * Math.cos((degrees * Math.PI) / 180),
      v: 0.1 - 0.05 * Math.sin((degrees * Math.PI) / 180),
    })
    const centre = { u: -1, v: 0.1 }
    const held = { ...sizes, spindle: { surface: 300, clamp: null } }
    const k = (12 * 300) / (2 * Math.PI)
    const arc = (from: number, to: number) => {
      const start = onMachine(sizes, at(from))
      const [move] = printMoves(
        [{ to: at(to), centre, feed: 0.002, part: 'finish' }],
        sizes,
        on,
        start,
        () => false,
      )
      if (!move) throw new Error('no move')
      const [row] = planMoves([move], held, on, start)
      return { clockwise: move.clockwise, feed: row?.does === 'arc' ? row.feed : 0 }
    }
    /** What takes as long: the mean of the radius, .9 and .05 times the mean of the sine. */
    const meanFeed = (a: number, b: number) => {
      const [from, to] = [(a * Math.PI) / 180, (b * Math.PI) / 180]
      return (0.002 * k) / (0.9 + (0.05 * (Math.cos(from) - Math.cos(to))) / (to - from))
    }
    for (const [from, to] of [
      [30, 150],
      [-30, 40],
      [150, 210],
      [200, 320],
      [100, 170],
    ] as const) {
      expect(arc(from, to)).toEqual({ clockwise: false, feed: expect.closeTo(meanFeed(from, to), 2) })
      expect(arc(to, from)).toEqual({ clockwise: true, feed: expect.closeTo(meanFeed(from, to), 2) })
    }
  })
})
