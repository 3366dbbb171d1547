import {
  areaPaths,
  difference,
  EndType,
  FillRule,
  inflatePaths,
  isPositive,
  JoinType,
  type Path64,
  type Paths64,
  reversePath,
} from 'clipper2-ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import type { Profile } from '../control/index.ts'
import { arc, crosses, type Piece, straight } from '../geometry/index.ts'
import { endOf, isArc, type Motion, ROW } from './motion.ts'
import { read } from './read.ts'
import {
  compensationAlarms as alarms,
  compact,
  onCompensated as cut,
  COMPENSATED_HEAD as HEAD,
  moves,
  onMill,
  rowsOf,
  twoLine,
  withCompensation as withRules,
} from './testing.ts'

const R = 0.25
type Rules = Profile['reading']['compensation']
const path = (text: string, rules: Partial<Rules> = {}) => moves(`${HEAD}${text}\nM30`, cut(rules)).slice(1)

describe('what a control does beside a path (common practice; each number by hand)', () => {
  // Along the bottom of a square from (1, 1), cutter to its right, radius 0.25.
  it.each([['square to the next move', 'next', ['line 1.25 1 0', 'line 1.25 2 0', 'line 0 0 0']]] as const)(
    'comes on and goes off %s',
    (_, comingOn, expected) => {
      expect(path('G1 G42 D1 X1. Y1.\nY2.\nG40 X0. Y0.', { comingOn }).slice(0, 3)).toEqual(expected)
    },
  )

  it('comes on beside its own end where the control is of that kind, and rounds the corner from there', () => {
    // Along X to (1, 0), then up along Y on the right of it, which is outside: beside (1, 0) first, then round it.
    expect(path('G1 G42 D1 X1.\nY1.\nG40 Y2.', { comingOn: 'own' })).toEqual([
      'line 1 -0.25 0',
      'ccw 1.25 0 0',
      'line 1.25 1 0',
      'line 1 2 0',
    ])
    // On its inside both kinds are square to the next move.
    expect(path('G1 G41 D1 X1.\nY1.\nG40 Y2.', { comingOn: 'own' })[0]).toBe('line 0.75 0 0')
  })

  it.each([
    ['arc', ['line 1 -0.25 0', 'ccw 1.25 0 0', 'line 1.25 1 0']],
    ['lines', ['line 1.25 -0.25 0', 'line 1.25 1 0']],
  ] as const)('outside of a square corner: %s', (outside, expected) => {
    const found = path('G1 G42 D1 X.3\nX1.\nY1.\nG40 X2.', { outside })
    expect(found.slice(1, 1 + expected.length)).toEqual(expected)
  })

  it('at rapid no control goes round by an arc: the moves are lengthened', () => {
    expect(path('G1 G42 D1 X.3\nX1.\nG0 Y1.\nG40 X2.', { outside: 'arc' }).slice(1, 3)).toEqual([
      'line 1.25 -0.25 0',
      'rapid 1.25 1 0',
    ])
  })

  it('a corner so sharp that the lines would run far out is cut off at one radius', () => {
    const found = path('G1 G42 D1 X.3\nX1.\nX.3 Y.1\nG40 X2. Y3.', { outside: 'lines' })
    expect(found.slice(1, 3)).toEqual(['line 1.25 -0.25 0', expect.stringMatching(/^line 1\.2/)])
    for (const row of found) expect(Math.abs(Number(row.split(' ')[1]))).toBeLessThan(2.01)
  })

  it('inside of a corner it turns where both sides cross', () => {
    expect(path('G1 G41 D1 X.3\nX1.\nY1.\nG40 X2.').slice(1, 3)).toEqual([
      'line 0.75 0.25 0',
      'line 0.75 1 0',
    ])
  })

  it('an arc has its own centre, a radius more or less; a full circle and a helix stay what they are', () => {
    expect(path('G1 G41 D1 X1. Y1.\nG3 X1. Y1. I1. J0. Z-.5\nG40 G1 X0. Y1.').slice(1, 2)).toEqual([
      'ccw 1.25 1 -0.5',
    ])
    expect(path('G1 G42 D1 X1. Y1.\nG3 X3. Y1. R1.\nG40 G1 X4. Y1.').slice(0, 2)).toEqual([
      'line 0.75 1 0',
      'ccw 3.25 1 0',
    ])
  })

  it('moves along Z between are made where the tool stands, and cost no more than the blocks that are read ahead', () => {
    const text = 'G1 G42 D1 X1.\nY1.\nZ-1.\nZ-2.\nX2.\nG40 Y2.'
    expect(path(text, { lookAhead: 2 }).slice(1, 5)).toEqual([
      'line 1.25 0.75 0',
      'line 1.25 0.75 -1',
      'line 1.25 0.75 -2',
      'line 2 0.75 -2',
    ])
    expect(alarms(text, { lookAhead: 2 })).toEqual([])
    expect(alarms(text, { lookAhead: 1 })).toEqual(['compensation-no-move 7 stop'])
  })

  it('in G18 and G19 it is left and right as seen from the end of the axis that stands on the plane', () => {
    // Along +Z in the plane of Z and X, seen from +Y: left is +X.
    const to = (text: string) => moves(`G20 G90 F10.\nG0 X0. Y0. Z0.\n${text}\nM30`, cut()).slice(1)
    expect(to('G18 G1 G41 D1 Z-1.\nZ1.\nG40 Z2.')[1]).toBe('line 0.25 0 1')
    expect(to('G19 G1 G41 D1 Y-1.\nY1.\nG40 Y2.')[1]).toBe('line 0 1 0.25')
  })

  it('the other side, and another radius, are taken over while it is on', () => {
    const options = onMill({
      profile: withRules(),
      radii: new Map([
        [1, R],
        [2, 0.5],
      ]),
    })
    const found = moves(`${HEAD}G1 G41 D1 X1.\nX2.\nG42 X3.\nX4.\nD2 X5.\nX6.\nG40 X7.\nM30`, options).slice(
      1,
    )
    expect(found).toEqual([
      'line 1 0.25 0',
      'line 2 0.25 0',
      'line 2 -0.25 0',
      'line 3 -0.25 0',
      'line 4 -0.25 0',
      'line 4 -0.5 0',
      'line 5 -0.5 0',
      'line 6 -0.5 0',
      'line 7 0 0',
    ])
  })

  it('wear is added or taken away as the profile says, as a diameter or a radius; the table may hold wear only', () => {
    const side = (rules: Partial<Rules>, of: Profile, wear = '.02') => {
      const first = of.macros?.diameterWear ?? 0
      const options = onMill({ profile: withRules(rules, of), radii: new Map([[1, R]]) })
      return moves(`${HEAD}#${first}=${wear}\nG1 G42 D1 X1.\nY1.\nG40 Y2.\nM30`, options)[1]
    }
    expect(side({}, twoLine)).toBe('line 1.27 0 0')
    expect(side({}, compact)).toBe('line 1.26 0 0')
    expect(side({ wear: 'taken' }, compact)).toBe('line 1.24 0 0')
    expect(side({ holds: 'wear' }, compact)).toBe('line 1.01 0 0')
  })

  it('D0 is no radius, and one that nobody entered is an alarm', () => {
    expect(moves(`${HEAD}G1 G42 D0 X1.\nY1.\nG40 Y2.\nM30`, cut())[1]).toBe('line 1 0 0')
    expect(read(`${HEAD}G1 G42 D9 X1.\nY1.\nG40 Y2.\nM30`, cut()).diagnostics[0]).toMatchObject({
      code: 'compensation-radius',
      severity: 'stop',
      line: 3,
    })
  })

  it('the written path is kept beside it, and each block has the rows that came of it', () => {
    const text = `${HEAD}G1 G42 D1 X1.\nY1.\nX2.\nZ.5\nG40 Y2.\nM30`
    const { motion, written } = read(text, cut())
    expect(written && moves(text.replace('G42 D1', ''), cut())).toEqual(
      written &&
        rowsOf(written)
          .filter((row) => written.kind[row] !== ROW.EVENT)
          .map((row) => `${row < 1 ? 'rapid' : 'line'} ${endOf(written, row).join(' ')}`),
    )
    for (let block = 0; block < motion.blocks; block++) {
      const [from, to] = [motion.blockRow[block] as number, motion.blockRow[block + 1] ?? motion.count]
      for (let row = from; row < to; row++) expect(motion.line[row]).toBe(motion.blockLine[block])
    }
    expect(read(`${HEAD}G1 X1.\nM30`, cut()).written).toBeUndefined()
  })
})

/** A row as a piece of its plane, X and Y. */
function pieceOf(motion: Motion, row: number): Piece {
  const [from, to] = [endOf(motion, row - 1), endOf(motion, row)].map(([x, y]) => ({ x, y })) as [
    Place,
    Place,
  ]
  if (!isArc(motion.kind[row] as number)) return straight(from, to)
  const [x, y, , sweep] = motion.arcs.subarray(6 * (motion.aux[row] as number)) as unknown as number[]
  return arc(from, to, { x: x as number, y: y as number }, sweep as number)
}

/** Points along a piece, its start and end among them. */
const along = ({ from, to, sweep, centre, radii }: Piece, pieces: number): Place[] =>
  Array.from({ length: pieces + 1 }, (_, n) => {
    const share = n / pieces
    if (sweep === 0) return { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share }
    const at = Math.atan2(from.y - centre.y, from.x - centre.x) + sweep * share
    const radius = radii[0] + (radii[1] - radii[0]) * share
    return { x: centre.x + radius * Math.cos(at), y: centre.y + radius * Math.sin(at) }
  })

/** The distance of a point from a piece. */
function distanceTo({ from, to, sweep, centre, radii }: Piece, { x, y }: Place): number {
  if (sweep === 0) {
    const [dx, dy] = [to.x - from.x, to.y - from.y]
    const share = Math.max(0, Math.min(1, ((x - from.x) * dx + (y - from.y) * dy) / (dx * dx + dy * dy)))
    return Math.hypot(x - from.x - share * dx, y - from.y - share * dy)
  }
  const turn = 2 * Math.PI
  const from0 = Math.atan2(from.y - centre.y, from.x - centre.x)
  const swept = Math.sign(sweep) * (Math.atan2(y - centre.y, x - centre.x) - from0)
  if (((swept % turn) + turn) % turn <= Math.abs(sweep))
    return Math.abs(Math.hypot(x - centre.x, y - centre.y) - radii[0])
  return Math.min(Math.hypot(x - from.x, y - from.y), Math.hypot(x - to.x, y - to.y))
}

interface Corner {
  at: number
  far: number
  bulge: number
}
type Point = [number, number]
type Place = Piece['from']

/** A closed contour of lines and arcs round the origin, counter-clockwise, as a program that comes on and goes off in the middle of a side. */
function contour(rolls: readonly Corner[], inside: boolean) {
  const count = rolls.length
  const points = rolls.map(({ at, far }, n): Point => {
    const angle = (2 * Math.PI * (n + (0.6 * at) / 1000)) / count
    const reach = 1 + far / 500
    return [Number((reach * Math.cos(angle)).toFixed(5)), Number((reach * Math.sin(angle)).toFixed(5))]
  })
  const word = ([x, y]: Point) => `X${x.toFixed(5)} Y${y.toFixed(5)}`
  const corner = (n: number) => points[n % count] as Point
  const sides = rolls.map(({ bulge }, n) => {
    const [from, to] = [corner(n), corner(n + 1)]
    if (n === 0 || Math.abs(bulge) < 400) return `G1 ${word(to)}`
    const half = Math.hypot(to[0] - from[0], to[1] - from[1]) / 2
    return `${bulge > 0 ? 'G3' : 'G2'} ${word(to)} R${(half * (1.1 + 3 * (1 - Math.abs(bulge) / 1000))).toFixed(5)}`
  })
  const middle: Point = [(corner(0)[0] + corner(1)[0]) / 2, (corner(0)[1] + corner(1)[1]) / 2]
  const away = middle.map((value) => value * (inside ? 0.1 : 3)) as Point
  const lines = [...sides, `G1 ${word(middle)}`]
  return [
    ...['G20 G90 G17 F10.', `G0 ${word(away)}`, `G1 ${inside ? 'G41' : 'G42'} D1 ${word(middle)}`],
    ...lines,
    ...[`G40 G1 ${word(away)}`, 'M30'],
  ].join('\n')
}

/** What is cut along the contour: not on the way to it and away from it. */
const onContour = (motion: Motion, sides: number): Piece[] =>
  rowsOf(motion).flatMap((row) => {
    const line = motion.line[row] as number
    return line > 3 && line <= 4 + sides && motion.kind[row] !== ROW.EVENT ? [pieceOf(motion, row)] : []
  })

const roll = fc.record({
  at: fc.nat(1000),
  far: fc.nat(1000),
  bulge: fc.integer({ min: -1000, max: 1000 }),
})
const shape = fc.record({
  rolls: fc.array(roll, { minLength: 3, maxLength: 12 }),
  radius: fc.integer({ min: 10, max: 250 }),
  inside: fc.boolean(),
  outside: fc.constantFrom('arc' as const, 'lines' as const),
})

/** A line that comes down, and an arc that goes up again over it, by hardly anything: found by the property, shrunk by it. */
const CLOSED_POINT = {
  rolls: [
    ...Array.from({ length: 5 }, () => ({ at: 0, far: 0, bulge: 0 })),
    { at: 0, far: 64, bulge: 0 },
    { at: 9, far: 959, bulge: -879 },
    { at: 674, far: 59, bulge: 0 },
  ],
  radius: 11,
  inside: true,
  outside: 'arc' as const,
}

describe('2,000 contours of lines and arcs', () => {
  it('the path keeps the radius from every element, and is exactly that beside each; or the control stops with an alarm', {
    timeout: 600_000,
  }, () => {
    let [passed, stopped] = [0, 0]
    const runs = times(2_000, 20_000)
    fc.assert(
      fc.property(shape, ({ rolls, radius, inside, outside }) => {
        const r = radius / 1000
        const program = read(contour(rolls, inside), cut({ outside, lookAhead: 100 }, r))
        const { motion, written } = program
        if (!written || program.diagnostics.some(({ severity }) => severity === 'stop')) {
          stopped++
          return
        }
        const elements = onContour(written, rolls.length)
        // One that crosses itself as it is written has no inside.
        fc.pre(!crossesItself(elements))
        passed++
        for (const piece of onContour(motion, rolls.length))
          for (const point of along(piece, 8)) {
            const nearest = Math.min(...elements.map((element) => distanceTo(element, point)))
            expect(nearest).toBeGreaterThan(r - 1e-7)
            // A corner that leads out less than half the machine's least step has no arc of its own, and an arc inside that leaves a
            // radius of no more than that step is a straight move; lengthened lines leave a corner by up to the radius times the root of two.
            expect(nearest).toBeLessThan(outside === 'arc' ? r + 0.0001 + 1e-7 : 1.5 * r)
          }
      }),
      { numRuns: runs, examples: [[CLOSED_POINT]] },
    )
    expect(passed).toBeGreaterThan(runs / 2)
    expect(stopped).toBeGreaterThan(0)
  })
})

/** Units of clipper2's whole numbers in an inch, and chords of an arc. */
const UNIT = 1e6
const CHORDS = 180

/** The closed outline of pieces, counter-clockwise, in whole numbers. */
function outline(pieces: readonly Piece[]): Paths64 {
  const path: Path64 = []
  for (const piece of pieces)
    for (const { x, y } of along(piece, piece.sweep === 0 ? 1 : CHORDS).slice(0, -1))
      path.push({ x: Math.round(x * UNIT), y: Math.round(y * UNIT) })
  return [isPositive(path) ? path : reversePath(path)]
}

/** The area of one outline without another. */
const areaWithout = (of: Paths64, without: Paths64) =>
  Math.abs(areaPaths(difference(of, without, FillRule.NonZero))) / UNIT ** 2

describe('compared with a general-purpose library (clipper2, offsetting with round joins at fine chords)', () => {
  it('the path goes round the same area', { timeout: 300_000 }, () => {
    let compared = 0
    const runs = times(300, 5_000)
    fc.assert(
      fc.property(shape, ({ rolls, radius, inside }) => {
        const r = radius / 1000
        const program = read(contour(rolls, inside), cut({ lookAhead: 100 }, r))
        const { motion, written } = program
        if (!written || program.diagnostics.some(({ severity }) => severity === 'stop')) return
        const elements = onContour(written, rolls.length)
        fc.pre(!crossesItself(elements))
        compared++
        const of = outline(elements)
        const theirs = inflatePaths(of, (inside ? -r : r) * UNIT, JoinType.Round, EndType.Polygon)
        const ours = outline(onContour(motion, rolls.length))
        // Chords of both, over a way of some tens of inches.
        expect(areaWithout(ours, theirs) + areaWithout(theirs, ours)).toBeLessThan(0.002)
      }),
      { numRuns: runs },
    )
    expect(compared).toBeGreaterThan(runs / 2)
  })
})

/** Whether a contour crosses itself as it is written, or nearly. */
const crossesItself = (pieces: readonly Piece[]): boolean =>
  pieces.some((piece, n) =>
    pieces.some((other, m) => {
      if (m <= n) return false
      if (crosses(piece, other, 1e-4)) return true
      const next = m - n === 1 || m - n === pieces.length - 1
      return !next && along(piece, 16).some((point) => distanceTo(other, point) < 0.02)
    }),
  )

describe('straight moves one after another', () => {
  it('go the quick way as they go one by one: the same rows, and the same alarms', () => {
    const place = fc.tuple(fc.integer({ min: -30, max: 30 }), fc.integer({ min: -30, max: 30 }))
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, fc.constantFrom('', ' Z-1.', ' F7.')), { minLength: 2, maxLength: 30 }),
        fc.constantFrom(0.0001, 0.1, 0.3),
        fc.constantFrom('arc' as const, 'lines' as const),
        fc.constantFrom('G41', 'G42'),
        (steps, radius, outside, side) => {
          const text = steps.map(([[x, y], more]) =>
            `X${x / 10} Y${y / 10}.${more}`.replace(/(\.\d*)\./g, '$1'),
          )
          // A rotary that was turned before, and back: with it every row is taken one by one.
          const [quick, slow] = ['', 'G0 A90.\nA0.\n'].map((before) =>
            read(
              `${before}${HEAD}G1 ${side} D1 X-9. Y-9.\n${text.join('\n')}\nG40 X9.\nM30`,
              cut({ outside }, radius),
            ),
          )
          if (!quick || !slow) throw new Error('not read')
          expect(quick.motion.rotary).toBeNull()
          expect(slow.motion.rotary).not.toBeNull()
          const turns = slow.motion.count - quick.motion.count
          expect(turns).toBe(2)
          for (const of of ['kind', 'x', 'y', 'z', 'feed', 'flags'] as const)
            expect([...slow.motion[of].slice(turns)]).toEqual([...quick.motion[of]])
          const said = ({ diagnostics }: typeof quick, lines: number) =>
            diagnostics.map(({ code, line, times: often }) => `${code} ${line - lines} ${often}`)
          expect(said(slow, 2)).toEqual(said(quick, 0))
        },
      ),
      { numRuns: times(300, 3_000) },
    )
  })
})
