import { describe, expect, it } from 'vitest'
import type { Profile } from '../control/index.ts'
import { read } from './read.ts'
import type { ReadOptions } from './read-options.ts'
import { compact, onLathe, onMill, twoLine } from './testing.ts'

// Forty slips that a control stops at with an alarm, each with a look-alike that is right. What a control alarms on is common practice;
// where RS274/NGC says it (NISTIR 6556, from memory), its section stands in the title. The slip is in the first line, or in the one that
// begins with >.

const pointed = (of: Profile): Profile => ({ ...of, reading: { ...of.reading, noPoint: 'whole' } })
const radii = new Map([[1, 0.25]])
const noses = new Map([[1, { radius: 0.03, x: -1, z: -1 }]])
const mill = onMill({ profile: pointed(compact), radii })
const two = onMill({ profile: pointed(twoLine), radii })
const lathe = onLathe({ profile: pointed(compact), noses })
const HEADS = new Map<ReadOptions, string>([
  [mill, 'G20 G90 G17 F10.\nM3 S900\nG0 X0. Y0. Z1.'],
  [two, 'G20 G90 G17 F10.\nM3 S900\nG0 X0. Y0. Z1.'],
  [lathe, 'G20 T0101 F.01\nG97 M3 S900\nG0 X2. Z.1'],
])

const PAIRS: [what: string, on: ReadOptions, wrong: string, code: string, right: string][] = [
  ['a centre that is the start (3.5.3.2)', mill, 'G2 X1. I0.', 'arc-no-radius', 'G2 X1. I.5'],
  ['ends at two radii (3.5.3)', mill, 'G2 X1. Y.1 I.5', 'arc-radius', 'G2 X.5 Y.5 I.5'],
  ['a radius that does not reach (3.5.3.1)', mill, 'G3 X2. R.9', 'arc-radius-too-small', 'G3 X2. R1.'],
  ['a whole circle by R (3.5.3.1)', mill, 'G3 X0. Y0. R1.', 'arc-full-by-radius', 'G3 X0. Y0. I1.'],
  ['an arc without a centre', mill, 'G2 X1. Y1.', 'arc-no-centre', 'G2 X1. Y1. R1.'],
  ['a centre of another plane', mill, 'G18 G2 X1. J.5', 'arc-no-centre', 'G18 G2 X1. I.5'],
  ['a feed below zero', mill, 'G1 X1. F-5.', 'feed-negative', 'G1 X1. F5.'],
  ['an axis twice', mill, 'G0 X1. X2.', 'word-twice', 'G0 X1. Y2.'],
  ['turned by nothing', mill, 'G68 X0. Y0.', 'rotation-no-r', 'G68 X0. Y0. R0.'],
  ['pecks without a depth (3.5.16.4)', mill, 'G83 X1. Z-1. R.1', 'peck-missing', 'G83 X1. Z-1. R.1 Q.2'],
  ['tapping with the spindle at no speed', mill, 'S0\n>G84 X1. Z-1. R.1', 'tap-no-speed', 'G84 X1. Z-1. R.1'],
  ['a tool change without a tool', mill, 'M6', 'tool-not-said', 'T1 M6'],
  ['a further offset that there is not', two, 'G54.1 P49', 'offset-number', 'G54.1 P48'],
  ['a length without its number', mill, 'G43 Z1.', 'length-no-h', 'G43 H1 Z1.'],
  ['a call of what is not there', mill, 'M98 P77', 'subprogram-missing', 'M97 P7\nM30\nN7 G0 X1.\nM99'],
  ['a call of nothing', mill, 'M98', 'call-no-p', 'M97 P7\nM30\nN7 M99'],
  ['a macro of no number', mill, 'G65 A1.', 'macro-no-p', 'G65 P9 A1.\nM30\nO9\nM99'],
  ['GOTO nowhere', mill, 'GOTO 7', 'goto-missing', 'GOTO 7\nN7'],
  ['END without DO', mill, 'END1', 'end-alone', 'WHILE [1 EQ 2] DO1\nEND1'],
  ['DO without END', mill, 'WHILE [1 EQ 2] DO1', 'end-missing', 'WHILE [1 EQ 2] DO1\nEND1'],
  ['divided by nothing', mill, '#100=1/0', 'expression', '#100=1/2'],
  ['a root of less than nothing', mill, '#100=SQRT[-1]', 'expression', '#100=SQRT[1]'],
  ['a bracket that is not closed', mill, '#100=[1+2', 'expression', '#100=[1+2]'],
  ['wrapped by a radius below zero', mill, 'G107 A0. Y0. R-1.', 'mapping-radius', 'G107 A0. Y0. R1.\nG107'],
  ['scaled by nothing', two, 'G51 X0. Y0. P0.', 'scaling-factor', 'G51 X0. Y0. P.5\nG50'],
  ['an angle before any radius', two, 'G16 G0 Y30.', 'polar-not-said', 'G16 G0 X1. Y30.\nG15'],
  ['mirrored along no axis', mill, 'G101', 'mirror-no-axis', 'G101 X0.\nG100 X0.'],
  ['a chamfer longer than its side', two, 'G1 X1. ,C2.\nY3.', 'corner', 'G1 X1. ,C.5\nY3.'],
  ['a rounding before nothing', two, 'G1 X1. ,R.2', 'corner', 'G1 X1. ,R.2\nY1.'],
  [
    'holes round a circle without a cycle',
    mill,
    'G70 I1. J0 L4',
    'pattern-no-cycle',
    'G81 Z-1. R.1 L0\nG70 I1. J0 L4\nG80',
  ],
  [
    'holes on an arc, no angle between',
    mill,
    'G81 Z-1. R.1 L0\n>G71 I1. J0 L4',
    'pattern-words',
    'G81 Z-1. R.1 L0\nG71 I1. J0 K30. L4\nG80',
  ],
  ['a pocket as small as its tool', mill, 'G13 I.25 D1 Z-.1', 'pocket-words', 'G13 I.26 D1 Z-.1'],
  [
    'a pocket deeper each time by nothing',
    mill,
    'G13 I1. D1 Z-.1 L2',
    'pocket-words',
    'G91 G13 I1. D1 Z-.1 L2\nG90',
  ],
  [
    'coming on over less than the radius',
    mill,
    'G1 G41 D1 X.2\nX1.\nG40 Y1.',
    'compensation-short',
    'G1 G41 D1 X.3\nX1.\nG40 Y1.',
  ],
  [
    'the radius of a tool that nobody knows',
    mill,
    'G1 G41 D7 X1.\nX2.\nG40 Y1.',
    'compensation-radius',
    'G1 G41 D1 X1.\nX2.\nG40 Y1.',
  ],
  ['from home that it never went to', mill, 'G29 X1.', 'no-home-before', 'G28 Z2.\nG29 X1.'],
  ['a signal on the way to nowhere', mill, 'G31 X0. F5.', 'signal-no-way', 'G31 X1. F5.'],
  ['a thread without a lead', lathe, 'G99 F0\n>G34 Z-1.', 'cycle-words', 'G99\nG34 Z-1. F.1'],
  ['a lead that comes to nothing', lathe, 'G34 Z-1. F.1 K-.01', 'thread-lead', 'G34 Z-.3 F.1 K-.01'],
  [
    'a contour that is not there',
    lathe,
    'G70 P1 Q2',
    'contour-missing',
    'G70 P1 Q2\nN1 G0 X1.\nG1 Z-1.\nN2 X2.',
  ],
]

/** What stops it, as code and line of the part after the head. */
const stops = (text: string, on: ReadOptions) =>
  read(`${HEADS.get(on)}\n${text}\nM30`, on)
    .diagnostics.filter(({ severity }) => severity === 'stop')
    .map(({ code, line }) => `${code} ${line - 3}`)

describe('forty slips and forty look-alikes', () => {
  it('are forty, and no two are the same', () => {
    expect(PAIRS).toHaveLength(40)
    expect(new Set(PAIRS.map(([, , wrong]) => wrong)).size).toBe(40)
  })

  it.each(PAIRS)('%s', (_, on, wrong, code, right) => {
    const lines = wrong.split('\n')
    const at = Math.max(
      0,
      lines.findIndex((line) => line.startsWith('>')),
    )
    expect(stops(wrong.replace('>', ''), on)).toContain(`${code} ${at + 1}`)
    expect(stops(right, on)).toEqual([])
  })
})
