import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import type { Profile } from '../control/index.ts'
import { read } from './read.ts'
import { compact, complaints, moves, onMill, plain, twoLine } from './testing.ts'

const pointed = (of: Profile): Profile => ({ ...of, reading: { ...of.reading, noPoint: 'whole' } })
const radii = new Map([[1, 0.1]])
/** One that mirrors about where its words say, and one that mirrors about part zero. */
const [TWO, COMPACT] = [pointed(twoLine), pointed(compact)].map((profile) => onMill({ profile, radii })) as [
  ReturnType<typeof onMill>,
  ReturnType<typeof onMill>,
]
const HEAD = 'G20 G90 G17 F10.\nG0 X0. Y0. Z0.\n'
const path = (text: string, options = TWO) => moves(`${HEAD}${text}\nM30`, options).slice(1)
const said = (text: string, options = TWO) => complaints(`${HEAD}${text}\nM30`, options)

/** Numbers of both lists of moves, compared: the same to a ten-millionth, and the same kinds. */
function expectSame(ours: readonly string[], theirs: readonly string[]): void {
  const kinds = (of: readonly string[]) => of.map((each) => each.split(' ')[0])
  expect(kinds(ours)).toEqual(kinds(theirs))
  ours.forEach((each, n) => {
    const [a, b] = [each, theirs[n] as string].map((of) => of.split(' ').slice(1).map(Number)) as [
      number[],
      number[],
    ]
    for (const [axis, value] of a.entries()) expect(value).toBeCloseTo(b[axis] as number, 7)
  })
}

describe('positions by radius and angle (common practice)', () => {
  it('holes on a circle: by angles one by one, and by one angle repeated from the last', () => {
    const around = [30, 90, 150, 210].map((degrees) => {
      const angle = (degrees * Math.PI) / 180
      return [2 * Math.cos(angle), 2 * Math.sin(angle)]
    })
    const theirs = path(
      `G81 X${around[0]?.[0]} Y${around[0]?.[1]} Z-.5 R.1\n${around
        .slice(1)
        .map(([x, y]) => `X${x?.toFixed(9)} Y${y?.toFixed(9)}`)
        .join('\n')}\nG80`,
    )
    expectSame(path('G16\nG81 X2. Y30. Z-.5 R.1\nY90.\nY150.\nY210.\nG80 G15'), theirs)
    expectSame(path('G16\nG81 X2. Y30. Z-.5 R.1\nG91 Y60. K3\nG90 G80 G15'), theirs)
  })

  it('a radius under G91 counts from where the tool stands; arcs end at polar positions too', () => {
    expectSame(path('G16 G0 X1. Y90.\nG91 G1 X2. Y-90.\nG90 G15 X0.'), [
      'rapid 0 1 0',
      'line 2 1 0',
      'line 0 1 0',
    ])
    expectSame(path('G0 X1.\nG16 G3 X1. Y90. R1.\nG15'), ['rapid 1 0 0', 'ccw 0 1 0'])
    // In G18 the radius is Z, the angle X.
    expectSame(path('G18 G16 G1 Z2. X90.\nG15'), ['line 2 0 0'])
  })

  it.each([
    ['an angle alone', 'G16 G0 Y30.'],
    ['a radius alone', 'G16 G0 X1.'],
    ['an angle from the last, where there was none', 'G16 G91 G0 X1. Y30.'],
  ])('stops where one of the two was never said: %s', (_, text) => {
    expect(said(`${text}\nG90 G15`)).toEqual(['polar-not-said 3'])
  })

  it('is not there on a control that has none, and left on it is seen', () => {
    expect(said('G16 G0 X1. Y30.\nG15', onMill({ profile: pointed(plain) }))).toEqual([
      'unknown-code 3',
      'unknown-code 4',
    ])
    expect(read(`${HEAD}G16 G0 X1. Y30.\nM30`, TWO).motion.states.at(-1)?.polar).toBe(true)
  })
})

describe('holes on a circle and on an arc (common practice, from memory)', () => {
  const head = 'G0 X1. Y2. Z1.\nG81 Z-.5 R.1 F9. L0\n'
  const holes = (text: string) =>
    path(`${head}${text}\nG80`, COMPACT)
      .filter((each) => each.startsWith('line'))
      .map((each) =>
        each
          .split(' ')
          .slice(1, 3)
          .map((value) => Number(Number(value).toFixed(6)) + 0),
      )
  const at = (degrees: number) =>
    [1 + 2 * Math.cos((degrees * Math.PI) / 180), 2 + 2 * Math.sin((degrees * Math.PI) / 180)].map(
      (value) => Number(value.toFixed(6)) + 0,
    )

  it('lie round where the tool stands, which is not drilled itself', () => {
    expect(holes('G70 I2. J30. L4')).toEqual([at(30), at(120), at(210), at(300)])
    expect(holes('G71 I2. J30. K15. L3')).toEqual([at(30), at(45), at(60)])
    expect(holes('G91 G70 I2. J30. L4\nG90')).toEqual([at(30), at(120), at(210), at(300)])
  })

  it.each([
    ['no cycle', 'G0 X1.\nG70 I2. L4', 'pattern-no-cycle 4'],
    ['no radius', `${head}G70 L4`, 'pattern-words 5'],
    ['no count, no angle', `${head}G71 I2.`, 'pattern-words 5'],
    ['a radius of nothing', `${head}G70 I0. L4`, 'pattern-words 5'],
    ['no holes', `${head}G70 I2. L0`, 'pattern-words 5'],
    ['more holes than are followed', `${head}G70 I2. L99999`, 'pattern-words 5'],
  ])('stops: %s', (_, text, code) => {
    expect(said(text, COMPACT)).toContain(code)
  })

  it('are not known to a control without them', () => {
    expect(said(`${head}G70 I2. L4`)).toContain('unknown-code 5')
  })
})

describe('a program that is scaled (common practice)', () => {
  it('about a point, or where the tool stands; by one factor, or one for each axis', () => {
    expectSame(path('G51 X1. Y1. Z0. P2.\nG1 X2. Y3. Z-1.\nG50 X0.'), ['line 3 5 -2', 'line 0 5 -2'])
    expectSame(path('G0 X1.\nG51 P.5\nG1 X3. Y1.\nG50 X0.'), ['rapid 1 0 0', 'line 2 0.5 0', 'line 0 0.5 0'])
    expectSame(path('G51 X0. Y0. Z0. I2. J-1. K1.\nG1 X1. Y1. Z-1.\nG50'), ['line 2 -1 -1'])
  })

  it('a factor without a point is thousandths where least increments are counted, and distances are scaled too', () => {
    const least = onMill({ profile: twoLine })
    expectSame(moves(`${HEAD}G51 X0. Y0. Z0. P2000\nG91 G1 X1.\nX1.\nG50\nM30`, least).slice(1), [
      'line 2 0 0',
      'line 4 0 0',
    ])
  })

  it.each([
    ['without a factor', 'G51 X0. Y0.', 'scaling-no-factor'],
    ['by nothing', 'G51 X0. Y0. P0.', 'scaling-factor'],
    ['by less than nothing in one factor', 'G51 P-1.', 'scaling-factor'],
    ['an arc that is scaled more along X', 'G51 X0. Y0. Z0. I2. J1. K1.\nG3 X1. Y1. R1.', 'scaled-arc'],
    ['turned as well', 'G51 X0. Y0. P2.\nG68 X0. Y0. R30.', 'scaled-with'],
    ['scaled when it is turned', 'G68 X0. Y0. R30.\nG51 X0. Y0. P2.', 'scaled-with'],
    ['while compensation is on', 'G1 G41 D1 X1.\nG51 X0. Y0. P2.', 'scaled-with'],
    ['a cycle whose Z is scaled', 'G51 X0. Y0. Z0. P2.\nG81 X1. Z-1. R.1', 'scaled-with'],
    ['probing', 'G51.1 X0.\nG65 P9832\nG65 P9810 Z-.1 F9.', 'scaled-with'],
    ['another local zero', 'G51 X0. Y0. P2.\nG52 X1.', 'scaled-with'],
    ['another name of the place', 'G51 X0. Y0. P2.\nG92 X1.', 'scaled-with'],
  ])('stops: %s', (_, text, code) => {
    const { diagnostics } = read(`${HEAD}${text}\nM30`, TWO)
    expect(diagnostics.filter(({ severity }) => severity === 'stop').map((each) => each.code)).toContain(code)
  })
})

describe('a program that is mirrored, in both usual forms (common practice)', () => {
  it('about where its words say, one axis or two, and off for those that are named', () => {
    expectSame(path('G51.1 X1.\nG1 X3. Y1.\nG50.1 X0.\nX3.'), ['line -1 1 0', 'line 3 1 0'])
    expectSame(path('G51.1 X0. Y0.\nG1 X3. Y1.\nG50.1 Y0.\nY2.\nG50.1\nX1.'), [
      'line -3 -1 0',
      'line -3 2 0',
      'line 1 2 0',
    ])
  })

  it('about part zero', () => {
    expectSame(path('G101 X0.\nG1 X3. Y1.\nG100 X0.\nX1.', COMPACT), ['line -3 1 0', 'line 1 1 0'])
    expect(said('G101 X1.\nG100', COMPACT)).toEqual(['mirror-place 3'])
    expect(said('G101\nG100', COMPACT)).toEqual(['mirror-no-axis 3'])
  })

  it('codes of the one form are not known to a control of the other', () => {
    expect(said('G101 X0.\nG100 X0.')).toEqual(['unknown-code 3', 'unknown-code 4'])
    expect(said('G51.1 X0.\nG50.1 X0.', COMPACT)).toEqual(['unknown-code 3', 'unknown-code 4'])
  })

  it('with what is scaled: mirrored first', () => {
    expectSame(path('G51.1 X1.\nG51 X0. Y0. Z0. P2.\nG1 X3. Y1.\nG50\nG50.1'), ['line -2 2 0'])
  })
})

interface Step {
  x: number
  y: number
  arc: '' | 'G2' | 'G3'
}
/** A way round, in thousandths, each step far enough from the last for a compensated one of 0.1. */
const way = fc
  .array(
    fc.record({
      far: fc.integer({ min: 1500, max: 4000 }),
      arc: fc.constantFrom('' as const, 'G2' as const, 'G3' as const),
    }),
    { minLength: 3, maxLength: 8 },
  )
  .map((steps): Step[] =>
    steps.map(({ far, arc }, n) => {
      const angle = (2 * Math.PI * n) / steps.length
      return { x: Math.round(far * Math.cos(angle)) / 1000, y: Math.round(far * Math.sin(angle)) / 1000, arc }
    }),
  )

/** The same way as its numbers come out under a map of the plane. */
function written(
  steps: readonly Step[],
  map: (x: number, y: number) => [number, number],
  flips: boolean,
  size: number,
  on = '',
) {
  let [px, py] = [6, 0]
  const word = (x: number, y: number) =>
    map(x, y)
      .map((value, n) => `${'XY'[n]}${value.toFixed(8)}`)
      .join(' ')
  const lines = steps.map(({ x, y, arc }) => {
    const half = Math.hypot(x - px, y - py) / 2
    ;[px, py] = [x, y]
    const g = arc === '' ? 'G1' : flips ? (arc === 'G2' ? 'G3' : 'G2') : arc
    return `${g} ${word(x, y)}${arc === '' ? '' : ` R${(size * half * 1.5).toFixed(8)}`}`
  })
  return [`G1 ${on} ${word(6, 0)}`, ...lines, `G40 G1 ${word(9, 9)}`].join('\n')
}

describe('two ways to say one thing', () => {
  const plainly = (x: number, y: number): [number, number] => [x, y]
  it('scaled by one factor, or with its numbers multiplied', () => {
    fc.assert(
      fc.property(way, fc.integer({ min: 200, max: 3000 }), (steps, thousandths) => {
        const f = thousandths / 1000
        const ours = path(`G51 X1. Y2. Z0. P${f}\n${written(steps, plainly, false, 1)}\nG50`)
        expectSame(ours, path(written(steps, (x, y) => [1 + f * (x - 1), 2 + f * (y - 2)], false, f)))
      }),
      { numRuns: times(200, 3_000) },
    )
  })

  it('mirrored, also under compensation, or with its numbers turned over, its arcs and its side the other way', () => {
    fc.assert(
      fc.property(
        way,
        fc.constantFrom('X', 'Y', 'XY'),
        fc.constantFrom('', 'G41 D1', 'G42 D1'),
        (steps, axes, on) => {
          const [mx, my] = [axes.includes('X'), axes.includes('Y')]
          const flips = mx !== my
          const words = [mx ? 'X1.' : '', my ? 'Y2.' : ''].join(' ')
          const ours = path(`G51.1 ${words}\n${written(steps, plainly, false, 1, on)}\nG50.1`)
          const other = flips ? on.replace(/4[12]/, (code) => (code === '41' ? '42' : '41')) : on
          const map = (x: number, y: number): [number, number] => [mx ? 2 - x : x, my ? 4 - y : y]
          expectSame(ours, path(written(steps, map, flips, 1, other)))
        },
      ),
      { numRuns: times(300, 3_000) },
    )
  })

  it('by radius and angle, or along the axes', () => {
    fc.assert(
      fc.property(way, (steps) => {
        const polar = (x: number, y: number) =>
          [Math.hypot(x, y), (Math.atan2(y, x) * 180) / Math.PI] as [number, number]
        const ours = path(`G16\n${written(steps, polar, false, 1)}\nG15`)
        expectSame(ours, path(written(steps, plainly, false, 1)))
      }),
      { numRuns: times(200, 3_000) },
    )
  })
})
