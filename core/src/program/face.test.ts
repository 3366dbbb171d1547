import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import type { Driven } from '../control/index.ts'
import { CHORD } from './arc.ts'
import { Diagnoser } from './diagnose.ts'
import { ontoSpindle } from './face-rows.ts'
import { alongArc, endOf, isArc, type Motion, ROW } from './motion.ts'
import { read } from './read.ts'
import { complaints, DRIVEN, onLathe, onMill, rowsOf, withDriven } from './testing.ts'

const driving = (driven: Partial<Driven> = {}) =>
  onLathe({ profile: withDriven({ ...DRIVEN, ...driven }), radii: new Map([[5, 0.125]]) })

const HEAD = 'G20 G98 T0505\nM154\nM133 P3000\nG0 X3. Z.1 C0.\n'
const TAIL = '\nM135\nM155\nG28 U0.\nM30'
const program = (text: string) => HEAD + text + TAIL
const onFace = (text: string) => program(`G12.1\n${text}\nG13.1`)

/** Where a row of a lathe ends on the part: X and Y of its face from the radius and the angle. */
function onPart(motion: Motion, row: number): [number, number] {
  const [radius] = endOf(motion, row)
  const angle = ((motion.rotary?.[row] ?? 0) * Math.PI) / 180
  return [radius * Math.cos(angle), radius * Math.sin(angle)]
}

/** How far a point is from a straight piece. */
function off([x, y]: readonly number[], [ax, ay]: readonly number[], [bx, by]: readonly number[]): number {
  const [dx, dy] = [(bx as number) - (ax as number), (by as number) - (ay as number)]
  const square = dx * dx + dy * dy
  const [px, py] = [(x as number) - (ax as number), (y as number) - (ay as number)]
  const share = square === 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / square))
  return Math.hypot(px - share * dx, py - share * dy)
}

/** What a mill goes along by each line, as straight pieces, arcs finely. */
function milled(text: string, radius?: number): Map<number, number[][]> {
  const options = onMill(
    radius === undefined ? {} : { profile: withDriven(null), radii: new Map([[5, radius]]) },
  )
  const { motion } = read(text, options)
  const path = new Map<number, number[][]>()
  for (const row of rowsOf(motion)) {
    if (motion.kind[row] === ROW.EVENT) continue
    const line = motion.line[row] as number
    const points = path.get(line) ?? [endOf(motion, row - 1)]
    if (isArc(motion.kind[row] as number))
      for (let n = 1; n <= 400; n++) points.push(alongArc(motion, row, n / 400))
    else points.push(endOf(motion, row))
    path.set(line, points)
  }
  return path
}

/** Lines that stand before the first on the face, less those on the mill. */
const FURTHER = 4

/** How far the tool is from what a mill goes along by the same line, anywhere along the rows on the face. */
function farOff(motion: Motion, path: ReadonlyMap<number, readonly number[][]>): number {
  let most = 0
  for (const row of rowsOf(motion)) {
    if (motion.kind[row] !== ROW.LINE || !motion.states[motion.state[row] as number]?.face) continue
    const points = path.get((motion.line[row] as number) - FURTHER) ?? []
    const [r0] = endOf(motion, row - 1)
    const [r1] = endOf(motion, row)
    const [c0, c1] = [motion.rotary?.[row - 1] ?? 0, motion.rotary?.[row] ?? 0]
    for (const share of [0, 0.3, 0.6, 0.9]) {
      const [r, c] = [r0 + (r1 - r0) * share, ((c0 + (c1 - c0) * share) * Math.PI) / 180]
      const at = [r * Math.cos(c), r * Math.sin(c)]
      most = Math.max(most, Math.min(...points.slice(1).map((to, n) => off(at, points[n] as number[], to))))
    }
  }
  return most
}

describe('polar interpolation on the face of a turned part', () => {
  it('comes as near to the centre line as the flats of a hexagon are: half of its width across them', () => {
    // 1 across flats: corners at 1 / sqrt 3 (geometry of a regular hexagon).
    const corner = (n: number) => [
      (2 * Math.cos((n * Math.PI) / 3)) / Math.sqrt(3),
      Math.sin((n * Math.PI) / 3) / Math.sqrt(3),
    ]
    const lines = [0, 1, 2, 3, 4, 5, 6].map((n) => {
      const [x, c] = corner(n) as [number, number]
      return `G1 X${x.toFixed(9)} C${c.toFixed(9)} F10.`
    })
    const { motion, diagnostics } = read(onFace(lines.join('\n')), driving())
    expect(diagnostics).toEqual([])
    const rows = rowsOf(motion).filter(
      (row) => (motion.line[row] as number) > 6 && motion.kind[row] === ROW.LINE,
    )
    const radii = rows.map((row) => endOf(motion, row)[0])
    expect(Math.min(...radii)).toBeCloseTo(0.5, 4)
    expect(Math.max(...radii)).toBeCloseTo(1 / Math.sqrt(3), 9)
    // Once round.
    expect(motion.rotary?.[rows.at(-1) as number]).toBeCloseTo(360, 6)
  })

  it('takes the time of the way on the part, however the slide and the spindle share it', () => {
    const { motion } = read(onFace('G1 X1. C.5 F5.\nC-.5\nG2 X-1. C-.5 R.6'), driving())
    const of = (line: number) =>
      rowsOf(motion)
        .filter((row) => motion.line[row] === line)
        .reduce((sum, row) => sum + (motion.seconds?.[row] ?? 0), 0)
    expect(of(7)).toBeCloseTo((60 * 1) / 5, 4)
    // An arc of radius 0.6 over a chord of 1.
    expect(of(8)).toBeCloseTo((60 * 2 * 0.6 * Math.asin(0.5 / 0.6)) / 5, 4)
  })

  it('X counts as the profile says, and the length across it is C or Y', () => {
    const ends = (face: Driven['face'], text: string) => {
      const { motion } = read(program(`${face?.on}\n${text}\n${face?.off}`), driving({ face }))
      return onPart(motion, rowsOf(motion).findLast((row) => motion.kind[row] === ROW.LINE) as number)
    }
    const [x, y] = ends(DRIVEN.face, 'G1 X1. C.5 F5.')
    expect(x).toBeCloseTo(0.5, 9)
    expect(y).toBeCloseTo(0.5, 9)
    const other = { on: 'G112', off: 'G113', x: 'radius', across: 'Y' } as const
    const [p, q] = ends(other, 'G1 X1. Y.5 F5.\nU-.25')
    expect(p).toBeCloseTo(0.75, 9)
    expect(q).toBeCloseTo(0.5, 9)
  })

  const place = fc.integer({ min: -900, max: 900 }).map((n) => n / 1000)
  const move = fc.record({
    x: place,
    y: place,
    arc: fc.constantFrom(0, 2, 3),
    bulge: fc.integer({ min: 51, max: 300 }),
  })

  it('goes where a mill goes by the same words, within the chord of an arc, and each move ends there to the last digit', () => {
    fc.assert(
      fc.property(fc.array(move, { minLength: 1, maxLength: 6 }), (moves) => {
        let [px, py] = [1.5, 0]
        const words = moves.flatMap(({ x, y, arc, bulge }) => {
          const chord = Math.hypot(x - px, y - py)
          if (chord < 0.01) return []
          ;[px, py] = [x, y]
          return [
            {
              x,
              y,
              by: arc === 0 ? '' : ` R${((chord * bulge) / 100).toFixed(6)}`,
              code: arc === 0 ? 1 : arc,
            },
          ]
        })
        const say = (of: 'X' | 'C', by: number) =>
          words.map(
            ({ x, y, by: r, code }) =>
              `G${code} X${(x * by).toFixed(4)} ${of === 'C' ? 'C' : 'Y'}${y.toFixed(4)}${r} F10.`,
          )
        const { motion } = read(onFace(say('C', 2).join('\n')), driving())
        const path = milled(`G20 G90 G54 G0 X1.5 Y0. Z.1\n${say('X', 1).join('\n')}\nM30`)
        expect(farOff(motion, path)).toBeLessThan(1.01 * CHORD.inch + 1e-5)
        words.forEach(({ x, y }, n) => {
          const [ex, ey] = onPart(
            motion,
            rowsOf(motion).findLast((row) => motion.line[row] === n + 6) as number,
          )
          expect(Math.hypot(ex - Number(x.toFixed(4)), ey - Number(y.toFixed(4)))).toBeLessThan(1e-9)
        })
      }),
      depth(150, 2_000),
    )
  })

  it('leads a driven cutter beside the contour as a mill does, by the radius of its own page', () => {
    const lines = (across: string, by: number) =>
      [
        `G1 G42 X${by.toFixed(1)} ${across}0. F10.`,
        `${across}.6`,
        `G3 X${(0.6 * by).toFixed(1)} ${across}1. R.4`,
        `G1 X${(-by).toFixed(1)}`,
        `${across}-.5`,
        `G40 X${(-1.5 * by).toFixed(1)} ${across}-1.`,
      ].join('\n')
    const { motion, diagnostics, written } = read(onFace(lines('C', 2)), driving())
    expect(diagnostics).toEqual([])
    expect(written?.rotary?.some((turn) => turn !== 0)).toBe(true)
    const path = milled(`G20 G90 G54 G0 X1.5 Y0. Z.1\n${lines('Y', 1).replace('G42', 'G42 D5')}\nM30`, 0.125)
    expect(farOff(motion, path)).toBeLessThan(1.01 * CHORD.inch + 1e-5)
  })

  it('twice round leaves no turn behind: what comes after it stands where the face left it', () => {
    const { motion } = read(
      onFace('G1 X1. F10.\nG3 X1. C0. I-.5\nG3 X1. C0. I-.5').replace(TAIL, `\nG0 X4.${TAIL}`),
      driving(),
    )
    const turn = motion.rotary as Float64Array
    const last = rowsOf(motion).findLast((row) => motion.states[motion.state[row] as number]?.face) as number
    expect(turn[last]).toBeCloseTo(720, 6)
    expect(turn[last + 1]).toBeCloseTo(720, 6)
    expect(turn[motion.count - 1]).toBeCloseTo(720, 6)
  })

  it.each([
    ['a rapid', onFace('G0 X1. C.2'), 'face-other 6'],
    ['a cycle', onFace('G83 Z-.5 R.1 F5.'), 'face-other 6'],
    ['another tool', onFace('T0606'), 'face-other 6'],
    ['home', onFace('G28 U0.'), 'face-other 6'],
    ['another plane', onFace('G18'), 'face-other 6'],
    ['over the centre line', onFace('G1 X1. C.2 F5.\nX-1. C-.2'), 'face-centre 7'],
    ['begun at an angle', program('G0 C30.\nG12.1\nG13.1'), 'face-angle 6'],
    ['begun with a move', program('G12.1 X1.\nG13.1'), 'face-words 5'],
    ['left on', program('G12.1\nG1 X1. C.2 F5.'), 'face-left-on'],
    ['gone on under compensation', program('G42 G1 X2.9 F5.\nG12.1\nG40 X2.\nG13.1'), 'face-compensation 6'],
    ['gone off under compensation', onFace('G42 G1 X2. F5.\nC.5'), 'face-compensation 8'],
    [
      'a radius that nobody knows',
      onFace('G42 G1 X2. F5.\nC.5\nG40 X3. C.7').replace('T0505', 'T0707'),
      'compensation-radius',
    ],
  ])('is a stop at its line: %s', (_, text, expected) => {
    expect(complaints(text, driving()).some((each) => each.startsWith(expected))).toBe(true)
  })

  it.each([
    ['to the centre line and back', onFace('G1 X0. C0. F5.\nX1. C.3')],
    [
      'begun at whole turns, whatever they were added up from',
      program('C33.3\nH-66.6\nH33.3\nH-360.\nG12.1\nG1 X1. C.2 F5.\nG13.1'),
    ],
    ['past the centre', onFace('G1 X1. C.2 F5.\nX-1. C.2')],
  ])('is no stop: %s', (_, text) => {
    expect(complaints(text, driving())).toEqual([])
  })

  it('a program that turns more than anybody has time for is a stop, and comes to an end', () => {
    const lines = Array.from({ length: 200 }, (_, n) => `G1 X${n % 2 ? '-' : ''}1. C.01 F9.`)
    const { motion } = read(onFace(`G1 X1. C.01 F9.\n${lines.join('\n')}`), driving())
    const say = new Diagnoser()
    // Taken for a motion that is still as it is written: its rows on the face are pieces of others.
    const found = ontoSpindle(motion, CHORD.inch / 1000, say, 1_000)
    expect(say.all).toMatchObject([{ code: 'too-much', severity: 'stop' }])
    expect(found.motion.count).toBeLessThan(motion.count + 2_000)
  })

  it('is not seen where the profile does not have it', () => {
    expect(complaints(onFace('G1 X1. F5.'), onLathe({ profile: withDriven(null) }))).toContain(
      'unknown-code 5',
    )
  })
})
