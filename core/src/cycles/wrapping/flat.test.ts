import { describe, expect, it } from 'vitest'
import { onRotary, plain, twoLine, wrapSizesOf } from '../../code/testing.ts'
import { arcFrom, chordsOf } from './flat.ts'
import { outlineProgram } from './outline.ts'

// A cylinder of 2 across: a radian round it is 1 long, once round is 2 pi. Worked with a pencil.

const TURN = 2 * Math.PI
const near = (value: number, digits = 9) => expect.closeTo(value, digits)

describe('a flat program that is wrapped', () => {
  const flat = (lines: string, where = onRotary()) =>
    wrapSizesOf({ what: 'program', program: `G20 G90\n${lines}` }, where)

  it('keeps its moves, its arcs with their circles where the control keeps them, else as chords', () => {
    const program = 'G0 X0. Y0. Z.1\nG1 Z-.01 F6.\nG3 X1. Y1. I0. J1.\nG1 Y2. F8.\nG0 Z3.'
    expect(flat(program).moves).toEqual([
      { does: 'rapid', x: 0, y: 0, z: near(0.1) },
      { does: 'feed', x: 0, y: 0, z: near(-0.01), feed: 6 },
      { does: 'arc', x: 1, y: 1, z: near(-0.01), cx: near(0), cy: near(1), clockwise: false, feed: 6 },
      { does: 'feed', x: 1, y: 2, z: near(-0.01), feed: 8 },
      // No higher than the clearance.
      { does: 'rapid', x: 1, y: 2, z: 1 },
    ])
    // The circle reaches from -1 to 1 and from 0 to 2: what is cut is within that.
    expect(flat(program).extent).toEqual({ x: [near(-1), near(1)], y: [near(0), near(2)] })
    const chords = flat(program, onRotary(twoLine)).moves.slice(2, -2)
    // A quarter of a circle of 1 within .0005: 2 acos(1 - .0005) = .06325 each, 1.5708 / .06325 = 24.8.
    expect(chords).toHaveLength(25)
    for (const move of chords) {
      expect(Math.hypot(move.x, move.y - 1)).toBeCloseTo(1, 9)
      expect(move).toMatchObject({ does: 'feed', z: near(-0.01), feed: 6 })
    }
    expect(chords.at(-1)).toMatchObject({ x: 1, y: 1 })
    expect(flat(program, onRotary(plain)).moves.some(({ does }) => does === 'arc')).toBe(false)
    const clockwise = flat('G0 X0. Y0. Z.1\nG1 Z-.01 F6.\nG2 X1. Y-1. I0. J-1.').moves.at(-1)
    expect(clockwise).toMatchObject({ clockwise: true, cy: near(-1) })
  })

  it('takes helices and arcs of another plane in straight pieces, on their circle', () => {
    const helix = flat('G0 X1. Y0. Z.1\nG1 Z0. F6.\nG3 X-1. Y0. Z-.2 I-1. J0.').moves.filter(({ z }) => z < 0)
    // Half a circle of 1: 3.1416 / .06325 = 49.7.
    expect(helix).toHaveLength(50)
    helix.forEach((move, n) => {
      expect(move.does).toBe('feed')
      expect(Math.hypot(move.x, move.y)).toBeCloseTo(1, 9)
      expect(move.z).toBeCloseTo((-0.2 * (n + 1)) / 50, 9)
    })
    const upright = flat('G0 X0. Y0. Z1.\nG1 Z0. F6.\nG18 G2 X1. Z-1. I1. K0.').moves.filter(({ z }) => z < 0)
    expect(upright.length).toBeGreaterThan(20)
    for (const { x, y, z } of upright) expect([y, Math.hypot(x - 1, z)]).toEqual([0, near(1)])
  })

  it('says what of it is lost, each kind once, and which tools it calls', () => {
    const of = flat(
      'T3 M6\nG0 X0. Y0. Z1.\nG1 Z0. A30. F6.\nG1 A60.\nT3 M6\nT4 M6\nG84 X1. Z-.2 R.1 F6.\nG80',
    )
    expect(of.layout.tools).toEqual([3, 4])
    expect(of.layout.lost.filter(({ says }) => says.startsWith('It turns'))).toEqual([
      { line: 4, says: 'It turns the rotary axis already.' },
    ])
    // What comes after it stands where it is.
    const after = flat('G0 X0. Y0. Z1.\nG1 Z-.1 A30. F6.\nG1 X1.\nG1 A60.\nG1 X2.')
    expect(after.layout.moves.map(({ x }) => x)).toEqual([0, 1, 2])
  })
})

describe('arcs of the flat', () => {
  it('in chords that lie within a distance of them: sagitta R (1 - cos(half the step))', () => {
    // With half a step of 60 degrees the sagitta is half the radius: three steps go round.
    expect(chordsOf(TURN, 1, 0.5)).toBe(3)
    expect(chordsOf(TURN, 2, 1)).toBe(3)
    expect(chordsOf(Math.PI / 2, 1, 0.5)).toBe(1)
    expect(chordsOf(TURN, 1, 3)).toBe(2)
    expect(chordsOf(TURN, 0, 0.1)).toBe(1)
    expect(chordsOf(TURN, 1e9, 1e-9)).toBe(5000)
    expect(chordsOf(TURN, -1, 0.1)).toBe(1)
  })
  const arc = (x: number, y: number, cx: number, cy: number, clockwise: boolean) =>
    ({ does: 'arc', x, y, z: 0, cx, cy, clockwise, feed: 1 }) as const
  it('have a radius, a sweep with its sign and points on the way; a full circle ends where it begins', () => {
    // Round (1, 2), radius 5: from (4, 6) to (-2, 6) is 180 - 2 x 53.13 = 73.74 degrees over the top.
    const top = 2 * Math.atan2(3, 4)
    const over = arcFrom(arc(-2, 6, 1, 2, false), { x: 4, y: 6 })
    expect([over.size, over.sweep]).toEqual([near(5), near(top)])
    expect(over.ends(2)).toEqual([
      [near(1), near(7)],
      [-2, 6],
    ])
    const under = arcFrom(arc(-2, 6, 1, 2, true), { x: 4, y: 6 })
    expect(under.sweep).toBeCloseTo(top - TURN, 9)
    expect(under.ends(2)[0]).toEqual([near(1), near(-3)])
    for (const clockwise of [false, true])
      expect(arcFrom(arc(4, 6, 1, 2, clockwise), { x: 4, y: 6 }).sweep).toBe(clockwise ? -TURN : TURN)
    // Where it ends but for rounding is a full circle too: 2e-12 back along the tangent (-.8, .6).
    expect(arcFrom(arc(4, 6, 1, 2, false), { x: 4 + 1.6e-12, y: 6 - 1.2e-12 }).sweep).toBe(TURN)
    // Nearly where it begins, counter-clockwise past it: all round but a little.
    expect(arcFrom(arc(4, 6, 1, 2, false), { x: 4 - 4e-6, y: 6 + 3e-6 }).sweep).toBeCloseTo(TURN - 1e-6, 9)
    expect(arcFrom(arc(4, 6, 1, 2, true), { x: 4 - 4e-6, y: 6 + 3e-6 }).sweep).toBeCloseTo(-1e-6, 9)
  })
})

describe('an outline as a flat program', () => {
  const text = (bulge: number, closed: boolean, unit: 'inch' | 'mm' = 'inch') =>
    outlineProgram(
      [
        {
          closed,
          vertices: [
            { x: 1, y: 2, bulge },
            { x: 3, y: 2 },
            { x: 3, y: 4 },
          ],
        },
      ],
      { unit, depth: 0.02, r: 0.05, feed: 8 },
    )
  it('line by line: over it, down at half the feed, along, up', () => {
    expect(text(0, true).trim().split('\n')).toEqual([
      'G20',
      'G90',
      'G0 Z0.0500',
      'G0 X1.0000 Y2.0000',
      'G1 Z-0.0200 F4.0000',
      'G1 X3.0000 Y2.0000 F8.0000',
      'G1 X3.0000 Y4.0000',
      'G1 X1.0000 Y2.0000',
      'G0 Z0.0500',
    ])
    expect(text(0, false, 'mm').trim().split('\n').slice(0, 6)).toEqual([
      'G21',
      'G90',
      'G0 Z0.050',
      'G0 X1.000 Y2.000',
      'G1 Z-0.020 F4.000',
      'G1 X3.000 Y2.000 F8.000',
    ])
    const two = {
      closed: false,
      vertices: [
        { x: 1, y: 2 },
        { x: 3, y: 2 },
      ],
    }
    expect(outlineProgram([two], { unit: 'inch', depth: 0.02, r: 0.05, feed: 8 })).toContain(
      'G1 X3.0000 Y2.0000',
    )
    // A bulge of 1 is half a circle, counter-clockwise (DXF reference); a little under zero is clockwise.
    expect(text(1, false)).toContain('G3 X3.0000 Y2.0000 I1.0000 J0.0000 F8.0000')
    expect(text(-1, false)).toContain('G2 X3.0000 Y2.0000 I1.0000 J0.0000 F8.0000')
  })
})
