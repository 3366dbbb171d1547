import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import type { Profile } from '../control/index.ts'
import type { Nose } from '../machine/index.ts'
import { alongArc, endOf, isArc, ROW } from './motion.ts'
import { type Program, read } from './read.ts'
import { compact, moves, onLathe, onMill, rowsOf, twoLine } from './testing.ts'

/** A thirty-second of an inch. */
const R = 1 / 32
const tip = (x: number, z: number, radius = R): Nose => ({ radius, x, z })
/** 3 outside towards the chuck, 2 in a bore towards it, 4 outside away from it, 8 the middle of a round insert, 0 the nose's own middle. */
const TIPS = { 0: tip(0, 0), 2: tip(1, -1), 3: tip(-1, -1), 4: tip(-1, 1), 8: tip(-1, 0) }
type Rules = Profile['reading']['compensation']
const withRules = (rules: Partial<Rules>, of: Profile = twoLine): Profile => ({
  ...of,
  reading: { ...of.reading, noPoint: 'whole', compensation: { ...of.reading.compensation, ...rules } },
})
const turning = (nose: Nose = TIPS[3], rules: Partial<Rules> = {}, of?: Profile) =>
  onLathe({ profile: withRules(rules, of), noses: new Map([[1, nose]]) })

const HEAD = 'G20 T0101\nG97 S500 M3\nG98 F10.\n'
const path = (text: string, options = turning()) => moves(`${HEAD}${text}\nG28 U0.\nM30`, options)
const stops = ({ diagnostics }: Program) =>
  diagnostics.filter(({ severity }) => severity === 'stop').map(({ code, line }) => `${code} ${line}`)

describe('a nose that is led beside a contour (handbook formulas of turning with a round nose, common practice)', () => {
  it('leaves diameters and faces as they are written: the imaginary tip touches them', () => {
    // Along a diameter of 1, then out along the face at Z-0.5.
    const found = path('G0 X1.4 Z.2\nG42 G1 X1. Z.1\nZ-.5\nX2.\nG40 X2.4')
    // Inside of the corner the tip stands where it is written: X as a radius. It comes on and goes off with the nose square to both ends.
    expect(found.slice(1, 4)).toEqual(['line 0.5 0 0.06875', 'line 0.5 0 -0.5', 'line 0.96875 0 -0.5'])
  })

  it.each([5, 15, 30, 45, 60, 75])(
    'goes over from a diameter to a taper of %i deg R (1 - tan a/2) before the corner along Z',
    (degrees) => {
      const angle = (degrees * Math.PI) / 180
      const [z, x] = [-0.5 - 0.5 * Math.cos(angle), 1 + 2 * 0.5 * Math.sin(angle)]
      const found = path(`G0 X1.4 Z.2\nG42 G1 X1. Z.1\nZ-.5\nX${x.toFixed(9)} Z${z.toFixed(9)}\nG40 X2.4`)
      const at = found[2]?.split(' ').map(Number) as number[]
      expect(at[1]).toBeCloseTo(0.5, 9)
      // The tip is ahead of the middle of the nose by R, and the middle of the corner by R tan(a/2).
      expect(at[3]).toBeCloseTo(-0.5 - R * (1 - Math.tan(angle / 2)), 8)
    },
  )

  it.each([5, 15, 30, 45, 60, 75])(
    'goes over from a face to a chamfer of %i deg R (1 - tan a/2) before the corner in radius',
    (degrees) => {
      // Out along the face at Z0 to the corner, and down the chamfer towards the chuck: outside of the corner.
      const angle = (degrees * Math.PI) / 180
      const [z, x] = [-0.2 * Math.sin(angle), 1 + 0.4 * Math.cos(angle)]
      const lines = turning(TIPS[3], { outside: 'lines' })
      const found = path(
        `G0 X-.4 Z.2\nG42 G1 X0. Z0.\nX1.\nX${x.toFixed(9)} Z${z.toFixed(9)}\nG40 X2.4`,
        lines,
      )
      const at = found[2]?.split(' ').map(Number) as number[]
      expect(at[3]).toBeCloseTo(0, 9)
      expect(at[1]).toBeCloseTo(0.5 - R * (1 - Math.tan(angle / 2)), 8)
    },
  )

  it('a ridge is gone round at its radius and R, a fillet at its radius less R (common practice)', () => {
    // From the face at Z0 round a corner of 0.25, along a diameter of 2, into a fillet of 0.125 and out along the next face.
    const text =
      'G0 X1. Z.3\nG42 G1 Z0.\nX1.5\nG3 X2. Z-.25 R.25\nG1 Z-1.\nG2 X2.25 Z-1.125 R.125\nG1 X3.\nG40 X3.4'
    const { motion, written } = read(`${HEAD}${text}\nM30`, turning())
    const radii = (of: typeof motion) =>
      rowsOf(of)
        .filter((row) => isArc(of.kind[row] as number))
        .map((row) => Number((of.arcs[6 * (of.aux[row] as number) + 4] as number).toFixed(9)))
    expect(written && radii(written)).toEqual([0.25, 0.125])
    expect(radii(motion)).toEqual([0.25 + R, 0.125 - R])
    // The tip touches the face before it, and the diameter after it.
    expect(path(text).slice(2, 4)).toEqual(['line 0.71875 0 0', 'ccw 1 0 -0.28125'])
  })

  it('in a bore it is led on the left towards the chuck, and its tip touches the bore', () => {
    const found = path('G0 X.6 Z.2\nG41 G1 X1. Z.1\nZ-.5\nX.5\nG40 X.3', turning(TIPS[2]))
    expect(found.slice(1, 4)).toEqual(['line 0.5 0 0.06875', 'line 0.5 0 -0.5', 'line 0.28125 0 -0.5'])
  })

  it('with the middle of the nose as the programmed point the path is that of the middle', () => {
    expect(path('G0 X1.4 Z.2\nG42 G1 X1. Z.1\nZ-.5\nX2.\nG40 X2.4', turning(TIPS[0])).slice(1, 3)).toEqual([
      'line 0.53125 0 0.1',
      'line 0.53125 0 -0.46875',
    ])
  })

  it('stops where nobody entered the nose, or where no geometry is called', () => {
    const text = 'G0 X1.4 Z.2\nG42 G1 X1. Z.1\nZ-.5\nG40 X2.\n'
    const { diagnostics } = read(`${HEAD}${text}M30`, turning(tip(-1, -1, Number.NaN)))
    expect(diagnostics[0]).toMatchObject({
      code: 'compensation-radius',
      severity: 'stop',
      line: 5,
      says: 'The nose radius of T1 is not known.',
    })
    expect(stops(read(`G20 T0100\nG98 F10.\n${text}M30`, turning()))).toEqual(['compensation-radius 4'])
  })

  it.each([
    [
      'a drill on the centre line',
      'G42 G1 X1. Z.1\nZ-.5\nG83 X0. Z-1. R.1\nG80 G40 X2.',
      'compensation-other 7',
    ],
    ['a box cycle', 'G42 G1 X1. Z.1\nZ-.5\nG90 X.9 Z-.4\nG40 X2.', 'compensation-other 7'],
    ['a thread', 'G42 G1 X1. Z.1\nZ-.5\nG32 Z-1. F.05\nG40 X2.', 'compensation-other 7'],
    ['another station', 'G42 G1 X1. Z.1\nZ-.5\nT0202\nG40 X2.', 'compensation-tool 7'],
    ['home', 'G42 G1 X1. Z.1\nZ-.5\nG28 U0.\nG40 X2.', 'compensation-home 7'],
    [
      'a fillet smaller than the nose',
      'G42 G1 X1. Z.1\nZ-.48\nG2 X1.04 Z-.5 R.02\nG1 X2.\nG40 X2.4',
      'compensation-arc-small 7',
    ],
    [
      'a groove narrower than the nose',
      'G42 G1 X1. Z.1\nZ-.5\nX.8\nZ-.54\nX1.\nZ-.8\nG40 X2.4',
      'compensation-backwards 8',
    ],
  ])('alarms: %s', (_, text, said) => {
    expect(stops(read(`${HEAD}G0 X1.4 Z.2\n${text}\nM30`, turning()))).toContain(said)
  })
})

/** A turned outline towards the chuck: steps along Z, and out along X, straight or round. */
const outline = fc
  .array(
    fc.record({
      back: fc.integer({ min: 60, max: 400 }),
      out: fc.integer({ min: 0, max: 300 }),
      round: fc.constantFrom('', 'G2', 'G3'),
    }),
    { minLength: 2, maxLength: 8 },
  )
  .map((steps) => {
    let [x, z] = [0.5, 0]
    return steps.map(({ back, out, round }) => {
      ;[x, z] = [x + out / 1000, z - back / 1000]
      // A radius in which a quarter has room.
      const radius = (Math.hypot(out, back) / 1000).toFixed(4)
      const word = round === '' ? 'G1' : round
      return { word, x, z, radius: round === '' ? '' : ` R${radius}` }
    })
  })
type Outline = typeof outline extends fc.Arbitrary<infer Value> ? Value : never
const asTurned = (steps: Outline) =>
  steps.map(({ word, x, z, radius }) => `${word} X${(2 * x).toFixed(4)} Z${z.toFixed(4)}${radius}`)

describe('two ways to say one thing', () => {
  it('turned outlines, with each tip: the tool goes as a cutter of a mill does in G18, less the way from the middle to the tip', () => {
    let compared = 0
    fc.assert(
      fc.property(outline, fc.constantFrom(...Object.values(TIPS)), (steps, nose) => {
        const lathe = read(
          [`${HEAD}G0 X1.4 Z.4`, 'G42 G1 X1. Z.2', ...asTurned(steps), 'G40 G1 X6.', 'M30'].join('\n'),
          turning(nose),
        )
        const mill = read(
          [
            'G20 G90 G18 F10.',
            // From where the middle of the nose stands.
            `G0 X${0.7 - nose.x * R} Z${0.4 - nose.z * R}`,
            'G42 G1 D1 X.5 Z.2',
            ...steps.map(({ word, x, z, radius }) => `${word} X${x.toFixed(5)} Z${z.toFixed(4)}${radius}`),
            'G40 G1 X3.',
            'M30',
          ].join('\n'),
          onMill({ profile: withRules({}), radii: new Map([[1, R]]) }),
        )
        // Its last move goes away: that of the mill goes elsewhere.
        const rows = (of: Program, from: number) =>
          rowsOf(of.motion)
            .filter((row) => of.motion.kind[row] !== ROW.EVENT && (of.motion.line[row] as number) >= from)
            .slice(0, -1)
        const [ours, theirs] = [rows(lathe, 5), rows(mill, 3)]
        expect(ours.map((row) => lathe.motion.kind[row])).toEqual(theirs.map((row) => mill.motion.kind[row]))
        ours.forEach((row, n) => {
          const other = theirs[n] as number
          for (const share of [0.5, 1]) {
            const at = (of: Program, which: number) =>
              isArc(of.motion.kind[which] as number)
                ? alongArc(of.motion, which, share)
                : endOf(of.motion, which)
            const [x, , z] = at(lathe, row)
            const [mx, , mz] = at(mill, other)
            expect(x).toBeCloseTo(mx + nose.x * R, 7)
            expect(z).toBeCloseTo(mz + nose.z * R, 7)
          }
        })
        expect(stops(lathe).map((each) => each.split(' ')[0])).toEqual(
          stops(mill).map((each) => each.split(' ')[0]),
        )
        compared++
      }),
      { numRuns: times(300, 5_000) },
    )
    expect(compared).toBeGreaterThan(200)
  })

  it('finished by G70 or written out: the nose goes the same way', () => {
    fc.assert(
      fc.property(outline, (steps) => {
        const lines = asTurned(steps)
        const [last, ...before] = [...lines].reverse()
        const cycle = [
          `${HEAD}G0 X3. Z.4`,
          'G70 P10 Q20',
          'N10 G42 G0 X1.',
          'G1 Z.2',
          ...before.reverse(),
          `N20 ${last}`,
          'G28 U0.\nM30',
        ].join('\n')
        const plainly = [
          `${HEAD}G0 X3. Z.4`,
          'G42 G0 X1.',
          'G1 Z.2',
          ...lines,
          'G40 G0 X3.',
          'Z.4',
          'G28 U0.\nM30',
        ].join('\n')
        const rows = (text: string) => {
          const found = moves(text, turning())
          // Back to the start both ways, by another way from the last point.
          return found.slice(0, found.lastIndexOf('rapid 1.5 0 0.4'))
        }
        const [ours, theirs] = [rows(cycle), rows(plainly)]
        expect(ours.slice(0, theirs.length - 1)).toEqual(theirs.slice(0, -1))
      }),
      { numRuns: times(200, 3_000) },
    )
  })

  it('roughing leads the nose beside the contour, or its tip along it, as the control does', () => {
    const text = `${HEAD}G0 X2.2 Z.2
G71 P10 Q20 D.2 F10.
N10 G42 G0 X1.
G1 Z-.5
X1.5 Z-.75
Z-1.
N20 X2.2
G70 P10 Q20
M30`
    const runs = (roughing: Rules['roughing']) => {
      const { motion } = read(text, turning(TIPS[3], { roughing }, compact))
      const along = (line: (n: number) => boolean) =>
        rowsOf(motion)
          .filter((row) => motion.kind[row] === ROW.LINE && line(motion.line[row] as number))
          .map((row) =>
            endOf(motion, row)
              .map((value) => value.toFixed(6))
              .join(' '),
          )
      // The last pass of roughing, and the finish; without the move in and that out.
      return { rough: along((n) => n === 5).slice(-4, -1), finish: along((n) => n > 5).slice(0, 3) }
    }
    const beside = runs('beside')
    expect(beside.rough).toEqual(beside.finish)
    const written = runs('written')
    expect(written.finish).toEqual(beside.finish)
    expect(written.rough).toEqual([
      '0.500000 0.000000 -0.500000',
      '0.750000 0.000000 -0.750000',
      '0.750000 0.000000 -1.000000',
    ])
    expect(stops(read(text, turning(TIPS[3], { roughing: 'beside' }, compact)))).toEqual([])
  })
})
