import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import { type Machine, type ToolOnLathe, type ToolShape, toolShape } from '../machine/index.ts'
import { read } from '../program/index.ts'
import { speedsOf } from '../timing/index.ts'
import type { Body, Triple } from './body.ts'
import { findHits } from './hits.ts'
import { placeAt } from './sweep.ts'
import { type FlatPart, toolParts } from './tool-parts.ts'
import { TurnedStock } from './turned-stock.ts'

const [compact] = BUILT_IN_PROFILES as [Profile]
const lathe = demoReference.machines.find(({ kind }) => kind === 'lathe') as Machine
const insert = demoReference.tools.find(({ kind }) => kind === 'grooving') as ToolShape

const toolFor = (onLathe: ToolOnLathe): ToolShape =>
  toolShape.parse({
    ...insert,
    number: 1,
    diameter: 0.125,
    flute: 0.2,
    stickOut: 2,
    holderDiameter: 1,
    holderLength: 1,
    onLathe,
  })
const OUTSIDE = { side: 'outside', corner: 'low', point: 'corner', bar: null } as const
const BAR = { side: 'inside', corner: 'low', point: 'corner', bar: 0.5 } as const
const FACE = { side: 'face', corner: 'high', point: 'corner', bar: null } as const

describe('a tool on a lathe', () => {
  const rects = (of: ToolShape) =>
    Object.fromEntries(
      (toolParts(of, true) as FlatPart[]).map(({ name, x, z }) => [
        name,
        [...x, ...z].map((value) => Number(value.toFixed(9))),
      ]),
    )
  // Facts of the trade: an outside insert reaches out from the corner that is programmed, a boring bar lies along Z.
  it('outside reaches away from the centre line, to the side of its programmed corner', () => {
    expect(rects(toolFor(OUTSIDE)).cutter).toEqual([0, 0.2, 0, 0.125])
    expect(rects(toolFor({ ...OUTSIDE, corner: 'high' }))).toEqual({
      cutter: [0, 0.2, -0.125, 0],
      shank: [0.2, 2, -0.125, 0],
      holder: [2, 3, -0.125, 0.875],
    })
  })
  it('programmed at the edge of its nose or in the middle of it, it lies round that point', () => {
    // A round insert of 0.125: its middle is half of that off its corner.
    const round = (point: ToolOnLathe['point']) =>
      rects({ ...toolFor(OUTSIDE), nose: 0.0625, onLathe: { ...OUTSIDE, point } }).cutter
    expect(round('edge')).toEqual([0, 0.2, -0.0625, 0.0625])
    expect(round('nose')).toEqual([-0.0625, 0.1375, -0.0625, 0.0625])
  })
  it('inside is a bar under its insert; in a face it reaches away from the chuck; a drill stands on its middle', () => {
    expect(rects(toolFor(BAR))).toEqual({
      cutter: [-0.2, 0, 0, 0.125],
      shank: [-0.7, -0.2, 0, 2],
      holder: [-0.95, 0.05, 2, 3],
    })
    expect(rects(toolFor(FACE)).shank).toEqual([-0.125, 0, 0.2, 2])
    const drill = { ...insert, kind: 'drill' as const, diameter: 0.5, flute: 2 }
    expect(rects(drill).cutter).toEqual([-0.25, 0.25, 0, 2])
  })
  it('needs a bar inside, and has none elsewhere', () => {
    for (const wrong of [
      { ...BAR, bar: null },
      { ...OUTSIDE, bar: 0.5 },
    ])
      expect(toolShape.safeParse({ ...insert, onLathe: wrong }).success).toBe(false)
    expect(toolShape.safeParse({ ...insert, kind: 'drill', onLathe: BAR }).success).toBe(false)
  })
})

const hundredths = (least: number, greatest: number) =>
  fc.integer({ min: least, max: greatest }).map((value) => value / 100)
const span = (least: number, greatest: number) =>
  fc.tuple(hundredths(least, greatest), hundredths(5, 60)).map(([low, wide]) => [low, low + wide] as const)
/** Any rectangle in any place about its tip: every way in which a tool can stand. */
const anyPart = fc
  .record({ x: span(-60, 10), z: span(-60, 10) })
  .map(({ x, z }): FlatPart => ({ form: 'flat', name: 'cutter', x, z }))
const place = fc.tuple(hundredths(-50, 150), hundredths(-350, 60)).map(([x, z]): Triple => [x, 0, z])
const move = fc.record({ part: anyPart, from: place, to: place })

describe('what is left of a turned part', () => {
  // A tube of 2 by 3 long, bored 0.6.
  const BOX = { least: [-1, -1, -3] as Triple, greatest: [1, 1, 0] as Triple }
  const BORE = 0.6
  type Move = { part: FlatPart; from: Triple; to: Triple }
  /** Whether a rectangle, set down at many places of its way, ever covers a point or its mirror, grown by so much. */
  const covers = ({ part, from, to }: Move, x: number, z: number, grown: number) =>
    Array.from({ length: 121 }, (_, n) => n / 120).some((t) => {
      const [px, pz] = [from[0] + (to[0] - from[0]) * t, from[2] + (to[2] - from[2]) * t]
      return [x, -x].some(
        (at) =>
          at > px + part.x[0] - grown &&
          at < px + part.x[1] + grown &&
          z > pz + part.z[0] - grown &&
          z < pz + part.z[1] + grown,
      )
    })
  it('is met where some of the tool comes over material that no cut has taken, and only there', () => {
    fc.assert(
      fc.property(fc.array(move, { maxLength: 4 }), move, (cuts, last) => {
        const stock = new TurnedStock(BOX, BORE)
        for (const { from, to, part } of cuts) stock.cut(from, to, part)
        const met = stock.meets(placeAt(last.from), placeAt(last.to), last.part) <= 1
        /** Points of the half section, 0.05 apart. */
        const points = Array.from({ length: 14 * 59 }, (_, n) => [
          BORE / 2 + 0.025 + 0.05 * (n % 14),
          -2.95 + 0.05 * Math.floor(n / 14),
        ]) as [number, number][]
        // A slanting cut takes a ring whole, so up to its slope further; two steps of the way are 4/120 apart.
        const margin = 0.04
        const stands = (grown: number) =>
          points.some(([x, z]) => covers(last, x, z, grown) && !cuts.some((cut) => covers(cut, x, z, -grown)))
        if (stands(-margin)) expect(met).toBe(true)
        // No point of the grid is farther than this from any material that is there.
        if (met) expect(stands(margin + 0.05)).toBe(true)
      }),
      depth(100, 1000),
    )
  })
  it('has exact radii: a bore cut to 0.4 is clear at 0.4, and met a thousandth farther out', () => {
    const stock = new TurnedStock(BOX, BORE)
    const bar: FlatPart = { form: 'flat', name: 'cutter', x: [-0.1, 0], z: [0, 0.1] }
    stock.cut([0.4, 0, 0.1], [0.4, 0, -1], bar)
    expect(stock.meets(placeAt([0.4, 0, 0.1]), placeAt([0.4, 0, -1]), bar)).toBe(Number.POSITIVE_INFINITY)
    const share = stock.meets(placeAt([0.3, 0, -0.5]), placeAt([0.5, 0, -0.5]), bar)
    // From 0.3 to 0.5 it meets the wall half way.
    expect(share).toBeCloseTo(0.5, 4)
    expect(stock.meets(placeAt([0.401, 0, 0.1]), placeAt([0.401, 0, -1]), bar)).toBeLessThan(0.2)
  })
})

describe('a program for a tube of 1 bored 0.75', () => {
  const tube: Body = {
    id: 'tube',
    name: 'tube',
    role: 'part',
    shape: 'cylinder',
    axis: 'Z',
    at: { x: 0, y: 0, z: -3 },
    diameter: 1.25,
    bore: 0.75,
    length: 3,
  }
  const hits = (text: string, of: ToolShape, body: Body = tube) => {
    const { motion } = read(`G20 G99 T0101\nG97 S500 M3\n${text}`, {
      profile: compact,
      machine: lathe,
      unit: 'inch',
    })
    const speeds = speedsOf(lathe, compact, 'inch')
    return findHits({ motion, bodies: [body], tools: new Map([[1, of]]), speeds, lathe: true }).map(
      ({ row, part, at }) => ({
        line: motion.line[row],
        part,
        x: Number((2 * at[0]).toFixed(3)),
        z: Number(at[2].toFixed(5)) + 0,
      }),
    )
  }
  const bar = toolFor(BAR)
  // X .7 is the tip inside the bore; the far side of the bar is then at radius .35 - .7 = -.35, inside of .375.
  it('the bar goes in, grooves and comes out; without a bore it does not even get in', () => {
    const inside = 'G0 X.7 Z.1\nZ-1.\nG1 X.9 F.002\nG0 X.7\nZ.1\nX2.\n'
    expect(hits(inside, bar)).toEqual([])
    const { bore: _, ...solid } = tube as Extract<Body, { shape: 'cylinder' }>
    expect(hits(inside, bar, solid)[0]).toMatchObject({ line: 4, part: 'cutter', z: 0 })
  })
  it('comes out of the groove before it goes along, does not plunge at rapid, and is not too thick', () => {
    expect(hits('G0 X.7 Z.1\nZ-1.\nG1 X.9 F.002\nG0 Z.1\n', bar)[0]).toMatchObject({
      line: 6,
      part: 'cutter',
    })
    expect(hits('G0 X.7 Z.1\nZ-1.\nG0 X.9\n', bar)).toEqual([{ line: 5, part: 'cutter', x: 0.75, z: -1 }])
    // A bar of .6 under an insert of .2 needs a bore of .8.
    expect(hits('G0 X.74 Z.1\nZ-1.\n', toolFor({ ...BAR, bar: 0.6 }))[0]).toMatchObject({ part: 'shank' })
    // Deeper than the insert stands out of the bar, the bar rubs in the bore.
    expect(hits('G0 X.7 Z.1\nZ-1.\nG1 X1.2 F.002\n', bar)).toMatchObject([
      { line: 5, part: 'shank', x: 1.15 },
    ])
  })
  it('a face groove is cut along Z, between the diameters of its insert', () => {
    const face = toolFor(FACE)
    expect(hits('G0 X1.1 Z.1\nG1 Z-.15 F.002\nG0 Z.1\n', face)).toEqual([])
    expect(hits('G0 X1.1 Z.1\nG0 Z-.15\n', face)).toEqual([{ line: 4, part: 'cutter', x: 1.1, z: 0 }])
    // Once it is cut it may be gone into again, but not wider.
    const again = (x: string) => hits(`G0 X1.1 Z.1\nG1 Z-.15 F.002\nG0 Z.1\nX${x}\nZ-.14\n`, face)
    expect(again('1.1')).toEqual([])
    expect(again('1.13')).toMatchObject([{ line: 7, part: 'cutter' }])
  })
  it('a hole on the centre line is drilled, and then a bar goes in as deep as it is', () => {
    const { bore: _, ...solid } = tube as Extract<Body, { shape: 'cylinder' }>
    const drill = { ...insert, number: 1, kind: 'drill' as const, diameter: 0.5, flute: 2, stickOut: 2.5 }
    expect(hits('G0 X0 Z.1\nG1 Z-1.5 F.004\nG0 Z.1\nZ-1.4\nZ.1\n', drill, solid)).toEqual([])
    expect(hits('G0 X0 Z.1\nG1 Z-1.5 F.004\nG0 Z.1\nZ-1.6\n', drill, solid)).toMatchObject([{ line: 6 }])
    expect(hits('G0 X.3 Z.1\nG1 Z-1. F.004\n', { ...drill, stickOut: 0.5, flute: 0.5 }, solid)).toMatchObject(
      [{ part: 'holder' }],
    )
  })
})
