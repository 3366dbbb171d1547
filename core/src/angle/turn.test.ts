import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import { type PlanePoint, turned } from '../geometry/index.ts'
import type { Machine } from '../machine/index.ts'
import { fixedDigits } from '../quantity/index.ts'
import { type Rotation, writeRotation } from './rotation.ts'
import { turnProgram } from './turn-program.ts'

const [mill] = demoReference.machines as [Machine]
const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
const length = (most: number) =>
  fc.integer({ min: -most * 10_000, max: most * 10_000 }).map((n) => n / 10_000)
const point = fc.record({ x: length(4), y: length(3) })

const rotation = (more: Partial<Rotation> = {}): Rotation => ({
  offset: 'G54',
  unit: 'inch',
  by: 1.321,
  about: { x: 0, y: 0 },
  look: { x: 4, y: 2 },
  zero: { x: -15, y: -8 },
  aboutIt: [],
  ...more,
})

describe('turning written for a profile', () => {
  it('is G68 X0 Y0 R and G69 (common practice), and reads back, for any angle, point and control that can', () => {
    expect(writeRotation(rotation(), compact, mill)).toMatchObject({
      ok: true,
      on: 'G68 X0. Y0. R1.321',
      off: 'G69',
    })
    expect(writeRotation(rotation({ by: { variable: 189 } }), compact, mill)).toMatchObject({
      on: 'G68 X0. Y0. R#189',
    })
    fc.assert(
      fc.property(
        fc.constantFrom(compact, twoLine),
        evenly(-90, 90),
        point,
        point,
        (profile, by, about, look) => {
          const written = writeRotation(rotation({ by, about, look, zero: undefined }), profile, mill)
          expect(written.findings).toEqual([])
          expect(written.ok).toBe(true)
        },
      ),
    )
  })

  it('is refused where the control has no code, has no variable, or the far corner leaves the travel', () => {
    const codes = (of: Rotation, on: Profile) => writeRotation(of, on, mill).findings.map(({ code }) => code)
    expect(codes(rotation(), plain)).toEqual(['no-rotation'])
    expect(writeRotation(rotation({ zero: { x: -3, y: -8 } }), compact, mill)).toMatchObject({ ok: false })
    expect(codes(rotation({ by: { variable: 189 } }), { ...compact, probing: null })).toEqual(['no-variable'])
    expect(codes(rotation({ zero: { x: -3, y: -8 } }), compact)).toEqual(['turned-outside-travel'])
    // The far corner at Y 2 and more: an inch under the end of the travel it is out, and so is X, not taken for Y.
    expect(codes(rotation({ zero: { x: -15, y: -1 } }), compact)).toEqual(['turned-outside-travel'])
    expect(codes(rotation({ zero: { x: -15, y: -3 } }), compact)).toEqual([])
    expect(codes(rotation({ zero: { x: -15, y: -15 }, look: { x: 4, y: -2 } }), compact)).toEqual([
      'turned-outside-travel',
    ])
    const odd = { ...compact, rotation: { on: 'G1', off: 'G269', note: '' } }
    expect(codes(rotation(), odd)).toEqual(['not-read-back'])
  })
})

type Piece = { to: PlanePoint; centre?: PlanePoint }

/** A plain reader of the test's own, for lines of G0 G1 G2 G81 with X Y I J, absolute or not (RS274/NGC, 3.5, from memory). */
function pathOf(text: string): Piece[] {
  let at = { x: 0, y: 0 }
  let relative = false
  return text.split('\n').flatMap((line): Piece[] => {
    if (/G91\b/.test(line)) relative = true
    if (/G90\b/.test(line)) relative = false
    const word = (letter: string) => {
      const found = new RegExp(`${letter}(-?[\\d.]+)`).exec(line)?.[1]
      return found === undefined ? undefined : Number(found)
    }
    const [x, y, i, j] = ['X', 'Y', 'I', 'J'].map(word)
    if (x === undefined && y === undefined) return []
    const from = at
    at = relative ? { x: at.x + (x ?? 0), y: at.y + (y ?? 0) } : { x: x ?? at.x, y: y ?? at.y }
    return [
      i === undefined && j === undefined
        ? { to: at }
        : { to: at, centre: { x: from.x + (i ?? 0), y: from.y + (j ?? 0) } },
    ]
  })
}

const number = (value: number) => fixedDigits(value, 4)
const block = fc.oneof(
  point.map(({ x, y }) => `G1 X${number(x)} Y${number(y)} F12. (cut)`),
  length(4).map((x) => `X${number(x)}`),
  length(3).map((y) => `Y${number(y)} Z-.1`),
  point.map(({ x, y }) => `G2 X${number(x)} Y${number(y)} I.5 J-.25`),
  fc.tuple(point, length(2)).map(([{ x }, i]) => `G3 X${number(x)} I${number(i)}`),
  point.map(({ x, y }) => `G0 X${number(x)} Y${number(y)}`),
  fc.constantFrom('G91', 'G90 G0 X1. Y1.', 'G4 X2.', 'M8', 'G81 G98 Z-.5 R.1 F10. X1. Y2.', 'S3000 M3', ''),
)

describe("a program's moves, turned", () => {
  it('are the moves turned about the point, lines, arcs and drilling positions alike', () => {
    fc.assert(
      fc.property(
        fc.array(block, { minLength: 1, maxLength: 25 }),
        evenly(-180, 180),
        point,
        (blocks, by, about) => {
          const text = ['G20 G90 G17 G54', 'G0 X0. Y0.', ...blocks.filter((line) => line !== 'G4 X2.')].join(
            '\n',
          )
          const made = turnProgram(text, { offset: 'G54', unit: 'inch', by, about }, plain)
          if (!made.ok) throw new Error(JSON.stringify(made.refused))
          const [meant, got] = [pathOf(text), pathOf(made.text)]
          expect(got).toHaveLength(meant.length)
          got.forEach((piece, index) => {
            const wanted = meant[index] as Piece
            const off = (a: PlanePoint, b: PlanePoint) => Math.hypot(a.x - b.x, a.y - b.y)
            // Each incremental block adds at most half a digit in X and in Y.
            const within = 0.00015 * (index + 1)
            expect(off(piece.to, turned(wanted.to, by, about))).toBeLessThan(within)
            if (wanted.centre && piece.centre)
              expect(off(piece.centre, turned(wanted.centre, by, about))).toBeLessThan(within)
          })
        },
      ),
    )
  })

  it('a quarter turn of a known path is the known path, everything else on the lines kept', () => {
    const made = turnProgram(
      '%\nO1000 (SLOT)\nN10 G20 G90 G54 G0 X1. Y2. S3000 M3\n/N20 G1 X3. F10. ; along\nN30 X3. Y2.5\nG53 G0 Z0.\nG91 G28 X0. Y0.\nM30\n%',
      { offset: 'G54', unit: 'inch', by: 90, about: { x: 0, y: 0 } },
      plain,
    )
    const near = (value: number) => expect.closeTo(value, 9)
    expect(made).toMatchObject({
      ok: true,
      changed: 3,
      extent: { least: { x: near(-2.5), y: near(1) }, greatest: { x: near(-2), y: near(3) } },
    })
    expect(made.ok && made.text).toBe(
      '%\nO1000 (SLOT)\nN10 G20 G90 G54 G0 X-2.0000 Y1.0000 S3000 M3 ; MOVES TURNED 90.000 DEG\n/N20 G1 X-2.0000 Y3.0000 F10. ; along\nN30 X-2.5000 Y3.0000\nG53 G0 Z0.\nG91 G28 X0. Y0.\nM30\n%',
    )
  })

  it('goes on from where incremental moves led, counts them, and does not where that is not known', () => {
    const turn = (text: string, by = 90) =>
      turnProgram(text, { offset: 'G54', unit: 'inch', by, about: { x: 0, y: 0 } }, plain)
    const made = turn('G90 G54 G0 X1. Y2.\nG91 X3. Y.5\nX-1.\nG90 X7.')
    expect(made.ok && made.text).toBe(
      'G90 G54 G0 X-2.0000 Y1.0000 ; MOVES TURNED 90.000 DEG\nG91 X-0.5000 Y3.0000\nX0.0000 Y-1.0000\nG90 X-2.5000 Y7.0000',
    )
    expect(made.ok && made.notes).toEqual([expect.stringMatching(/^2 moves are incremental/)])
    // X stays where the increments led: 1 + 3 - 1.
    const back = turn('G90 G54 G0 X1. Y2.\nG91 X3. Y.5\nX-1.\nG90 Y7.')
    expect(back.ok && back.text).toContain('\nG90 X-7.0000 Y3.0000')
    // Nothing moves before a motion code, at the beginning and after G80.
    expect(turn('G90 G54 X1. Y2.')).toMatchObject({
      refused: [{ line: 1, says: 'X or Y without a motion code before it.' }],
    })
    expect(turn('G90 G54 G81 X1. Y2. Z-1. R.1 F9.\nG80\nX3. Y1.')).toMatchObject({
      refused: [{ line: 3, says: 'X or Y without a motion code before it.' }],
    })
    expect(turn('G90 G54 G0 X1. Y2.')).toMatchObject({ notes: [] })
    expect(turn('G54 G91 G0 X3. Y.5\nG90 X7.')).toMatchObject({ ok: false, refused: [{ line: 2 }] })
    // An arc that says only where its centre lies up the page is an arc.
    const arc = turn('G90 G54 G0 X1. Y0.\nG3 X0. Y1. J.5 F9.')
    expect(arc.ok && arc.text).toContain('G3 X-1.0000 Y0.0000 I-0.5000 J0.0000 F9.')
  })

  it('does not turn a text that it turned before', () => {
    const turn = (text: string, by: number) =>
      turnProgram(text, { offset: 'G54', unit: 'inch', by, about: { x: 0, y: 0 } }, plain)
    const once = turn('%\nO1000 (SLOT)\nG90 G54 G0 X1. Y2.\nX3.', -0.997)
    if (!once.ok) throw new Error('refused')
    expect(once.text).toContain('; MOVES TURNED -0.997 DEG')
    expect(turn(once.text, -0.997)).toMatchObject({
      ok: false,
      refused: [{ line: 3, says: expect.stringContaining('turned already') }],
    })
  })

  it('names every line that it cannot turn, the first twenty of them, and says how far it is', () => {
    const of = (count: number) =>
      turnProgram(
        `G90 G54 G0 X0. Y0.\n${'G65 P1\n'.repeat(count)}`,
        { offset: 'G54', unit: 'inch', by: 5, about: { x: 0, y: 0 } },
        plain,
      )
    const many = of(27)
    expect(!many.ok && [many.refused.length, many.more]).toEqual([20, 7])
    expect(of(3)).toMatchObject({ more: 0 })
    const shares: number[] = []
    const text = `G90 G54 G0 X0. Y0.\n${Array.from({ length: 7999 }, (_, n) => `X${n % 9}. Y1.`).join('\n')}`
    turnProgram(
      text,
      { offset: 'G54', unit: 'inch', by: 5, about: { x: 0, y: 0 } },
      plain,
      (share) => void shares.push(share),
    )
    expect(shares).toEqual([0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875])
    // G59.9 is a work offset too, and another one.
    expect(
      turnProgram(
        'G90 G59.9 G0 X0. Y0.',
        { offset: 'G54', unit: 'inch', by: 5, about: { x: 0, y: 0 } },
        plain,
      ),
    ).toMatchObject({ refused: [{ says: expect.stringContaining('another work offset') }] })
  })

  it.each([
    ['G18 G2 X1. Z1. I.5', /another plane/],
    ['G68 X0. Y0. R3.', /turned there already/],
    ['G65 P9811 X1.', /a macro/],
    ['M98 P100', /subprogram/],
    ['G0 X#101 Y0.', /macro variable/],
    ['#101 = 3', /"#101 = 3" is not understood/],
    ['G1 X1. A30.', /rotary/],
    ['G55 G0 X1. Y1.', /G55 is another work offset/],
    ['G76 X1. Y1. Z-1. R.1 I.01', /backs off/],
    ['G12 I.5 F10.', /circular pocket/],
    ['G92 X0. Y0.', /shift/],
  ])('%s is refused by its line', (line, says) => {
    const made = turnProgram(
      `G90 G54 G0 X0. Y0.\n${line}`,
      { offset: 'G54', unit: 'inch', by: 5, about: { x: 0, y: 0 } },
      plain,
    )
    expect(made.ok).toBe(false)
    if (!made.ok) {
      expect(made.refused[0]?.line).toBe(2)
      expect(made.refused[0]?.says).toMatch(says)
    }
  })

  it('says where a coordinate is not known, and holds up against garbage', () => {
    const turning = { offset: 'G54', unit: 'inch', by: 5, about: { x: 0, y: 0 } } as const
    expect(turnProgram('G90 G54 G0 X1.', turning, plain)).toMatchObject({
      ok: false,
      refused: [{ line: 1, says: 'Y is not known here: write X and Y on this line.' }],
    })
    expect(turnProgram('G90 G0 X0 Y0\n/G0 X1. Y1.\nX2.', turning, plain)).toMatchObject({
      ok: false,
      refused: [{ line: 3 }],
    })
    fc.assert(fc.property(fc.string(), (text) => void turnProgram(text, turning, plain)))
    expect(turnProgram('', turning, plain)).toMatchObject({ ok: false })
  })
})
