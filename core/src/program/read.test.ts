import { describe, expect, it } from 'vitest'
import { arcLength, endOf, extents, ROW } from './motion.ts'
import { read } from './read.ts'
import { boxStandIn } from './read-options.ts'
import { compact, complaints, moves, onLathe, onMill, plain, twoLine } from './testing.ts'

const AT_123 = 'G20 G90 G0 X1. Y2. Z3.\nF10.\n'

describe('canned cycles of a mill (RS274/NGC, NISTIR 6556, 3.5.16, its examples from memory)', () => {
  it('example 1: G81 absolute, back to the old Z', () => {
    expect(moves(`${AT_123}G90 G81 G98 X4. Y5. Z1.5 R2.8`).slice(1)).toEqual([
      'rapid 4 5 3',
      'rapid 4 5 2.8',
      'line 4 5 1.5',
      'rapid 4 5 3',
    ])
  })

  it('example 2: G81 incremental with repeats, and an R above where it stands', () => {
    expect(moves(`${AT_123}G91 G81 G98 X4. Y5. Z-0.6 R1.8 L3`).slice(1)).toEqual([
      'rapid 1 2 4.8',
      'rapid 5 7 4.8',
      'line 5 7 4.2',
      'rapid 5 7 4.8',
      'rapid 9 12 4.8',
      'line 9 12 4.2',
      'rapid 9 12 4.8',
      'rapid 13 17 4.8',
      'line 13 17 4.2',
      'rapid 13 17 4.8',
    ])
  })

  it('keeps its words for the holes that follow, and G99 stays at R', () => {
    expect(moves(`${AT_123}G99 G81 X4. Y5. Z1.5 R2.8\nX6.\nG80\nG0 Z3.`).slice(4)).toEqual([
      'rapid 4 5 2.8',
      'rapid 6 5 2.8',
      'line 6 5 1.5',
      'rapid 6 5 2.8',
      'rapid 6 5 3',
    ])
  })

  it.each([
    // Pecks of 0.5 from R 2.8 to 1.5; all the way out (G83), or a little (G73) by the profile's retreat of 0.1.
    ['G83 X1. Y2. Z1.5 R2.8 Q.5', ['2.8', '2.3', '2.8', '2.4', '1.8', '2.8', '1.9', '1.5', '3']],
    ['G73 X1. Y2. Z1.5 R2.8 Q.5', ['2.8', '2.3', '2.4', '1.8', '1.9', '1.5', '3']],
    ['G85 X1. Y2. Z1.5 R2.8', ['2.8', '1.5', '2.8', '3']],
    ['G86 X1. Y2. Z1.5 R2.8', ['2.8', '1.5', '3']],
    ['G89 X1. Y2. Z1.5 R2.8 P.5', ['2.8', '1.5', '2.8', '3']],
  ])('%s', (block, heights) => {
    expect(
      moves(`${AT_123}M3 S500\n${block}`)
        .slice(1)
        .map((each) => each.split(' ')[3]),
    ).toEqual(heights)
  })

  it('taps in step with the spindle, and out at the multiple of its line (trade.md 7)', () => {
    const { motion } = read('G20 G90 G0 X0. Y0. Z1.\nS600 M3\nG84 Z-.5 R.1 F30. J4\nM30', onMill())
    const rows = [...motion.kind].flatMap((kind, row) =>
      kind === ROW.IN_STEP || kind === ROW.TAP_OUT ? [row] : [],
    )
    // 1/4-20 at 600: 30 in/min, a lead of 0.05; out at 120.
    expect(rows.map((row) => motion.feed[row])).toEqual([30, 120])
    expect(motion.inStep[motion.aux[rows[0] as number] as number]).toMatchObject({
      rpm: 600,
      lead: 0.05,
      multiple: 4,
    })
  })
})

describe('arcs', () => {
  const arc = (text: string) => {
    const { motion } = read(`G20 G90 G0 X0. Y0. Z0.\nF10.\n${text}\nM30`, onMill())
    const row = [...motion.kind].findIndex((kind) => kind === ROW.ARC_CW || kind === ROW.ARC_CCW)
    return { motion, row, length: arcLength(motion, row) }
  }
  it.each([
    // Closed forms: quarter, half by R, three quarters by a negative R, full circle, helix of one turn.
    ['G2 X1. Y1. I1. J0.', Math.PI / 2],
    ['G2 X2. Y0. R1.', Math.PI],
    ['G3 X1. Y1. R-1.', 1.5 * Math.PI],
    ['G3 I1. J0.', 2 * Math.PI],
    ['G2 I1. J0. Z-1.', Math.hypot(2 * Math.PI, 1)],
    ['G18 G2 X1. Z1. I1. K0.', (3 * Math.PI) / 2],
    ['G19 G3 Y1. Z1. J1. K0.', (3 * Math.PI) / 2],
  ])('%s is as long as it must be', (text, length) => {
    expect(arc(text).length).toBeCloseTo(length, 9)
  })

  it('bulge as far as they do', () => {
    // A clockwise half circle from X0 to X2 over the top of Y.
    expect(extents(arc('G2 X2. Y0. R1.').motion)?.greatest[1]).toBeCloseTo(1, 9)
    expect(extents(arc('G3 X2. Y0. R1.').motion)?.least[1]).toBeCloseTo(-1, 9)
  })

  it.each([
    ['G2 X1. Y1.', 'arc-no-centre 3'],
    ['G2 X3. Y0. R1.', 'arc-radius-too-small 3'],
    ['G2 X0. Y0. R1.', 'arc-full-by-radius 3'],
    ['G2 X1. Y1. I1.1 J0.', 'arc-radius 3'],
    ['G2 X1. Y1. I0. J0.', 'arc-no-radius 3'],
  ])('%s is said', (text, code) => {
    expect(complaints(`G20 G90 G0 X0. Y0. Z0.\nF10.\n${text}`)).toEqual([code])
  })
})

describe('where things are', () => {
  const offsets = new Map([
    ['G54', { X: -10, Y: -5, Z: -15 }],
    ['G55', { X: -12, Y: -5, Z: -15.5 }],
  ])
  const lengths = new Map([
    [1, 5],
    [2, 6],
  ])
  const known = onMill({ offsets, lengths })

  it('another offset, a local shift and G92 move part zero, not the tool', () => {
    expect(
      moves('G20 G90 G54 G0 X0. Y0.\nG55 X0.\nG52 X1.\nX0.\nG52 X0.\nG54 X3.\nG92 X0.\nX1.', known),
    ).toEqual(['rapid 0 0 15', 'rapid -2 0 15', 'rapid -1 0 15', 'rapid 3 0 15', 'rapid 4 0 15'])
  })

  it('home and machine positions are where the offset says', () => {
    expect(moves('G20 G90 G54 G0 X1. Y1.\nG53 X-4. Y0.\nG91 G28 X0. Y0.', known)).toEqual([
      'rapid 1 1 15',
      'rapid 6 5 15',
      'rapid 10 5 15',
    ])
  })

  it('a length offset puts the tip where the program says; none, or that of another tool, does not', () => {
    const at = (text: string) => moves(`G20 G90 G54\nT1 M6\n${text}`, known).at(-1)
    expect(at('G43 H1 G0 Z1.')).toBe('rapid 0 0 1'.replace('0 0', '10 5'))
    // Without it the tip is lower by the tool's length; with another's it is off by the difference.
    expect(at('G0 Z1.')).toBe('rapid 10 5 -4')
    expect(at('G43 H2 G0 Z1.')).toBe('rapid 10 5 2')
  })

  it('turning is about its point, counter-clockwise', () => {
    expect(moves('G20 G90 G0 X0. Y0. Z1.\nG68 X1. Y0. R90.\nX2. Y0.\nG91 Y1.\nG90 G69 X2.').slice(1)).toEqual(
      ['rapid 1 1 1', 'rapid 0 1 1', 'rapid 2 1 1'],
    )
  })

  it('Y is wrapped round the rotary axis: A = 360 Y / (2 pi R) (trade.md 7)', () => {
    const { motion } = read(
      'G20 G90 G0 X0. Y0. Z1.\nF10.\nG107 A0. Y0. R.75\nG1 X1. Y.75\nG107\nM30',
      onMill(),
    )
    const row = [...motion.kind].indexOf(ROW.LINE)
    expect(motion.rotary?.[row]).toBeCloseTo(180 / Math.PI, 9)
    expect(endOf(motion, row)).toEqual([1, 0, 1])
    // Along the surface: one inch and 0.75, at 10 in/min.
    expect(motion.seconds?.[row]).toBeCloseTo(6 * Math.hypot(1, 0.75), 4)
  })

  it('mm in an inch setup, exactly', () => {
    expect(moves('G21 G90 G0 X25.4 Y12.7 Z2.54')).toEqual(['rapid 1 0.5 0.1'])
  })
})

describe('a lathe', () => {
  it('reads diameters, U and W', () => {
    expect(moves('G20 T0101\nG0 X2. Z1.\nU-1. W-.5', onLathe())).toEqual(['rapid 1 0 1', 'rapid 0.5 0 0.5'])
  })

  it('grooves from inside the groove by plunges (trade.md 7: span 0.875 at 0.100 gives 10)', () => {
    const text = 'G20 T0101\nG97 S500 M3\nG99 G0 X1.1 Z-.625\nG75 X.8 Z-1.5 I.05 K.1 F.004\nM30'
    const bottoms = moves(text, onLathe()).filter((each) => each.startsWith('line 0.4 '))
    expect(bottoms).toHaveLength(10)
    expect(bottoms.at(-1)).toBe('line 0.4 0 -1.5')
    const two = 'G20 T0101\nG97 S500 M3\nG99 G0 X1.1 Z-.625\nG75 R.02\nG75 X.8 Z-1.5 P500 Q1000 F.004\nM30'
    expect(moves(two, onLathe({ profile: twoLine })).filter((each) => each.startsWith('line 0.4 '))).toEqual(
      bottoms,
    )
  })

  it('roughs down to a contour with stock left, then finishes along it', () => {
    const text =
      'G20 T0101\nG97 S500 M3\nG99 G0 X1.1 Z.1\nG71 P10 Q20 U.02 W.005 D.1 F.01\nN10 G0 X.5\nG1 Z-1.\nN20 X1.\nG70 P10 Q20\nM30'
    const all = moves(text, onLathe())
    const passes = all.filter((each) => /^line \S+ 0 -0.995$/.test(each))
    expect(passes).toEqual([
      'line 0.45 0 -0.995',
      'line 0.35 0 -0.995',
      'line 0.26 0 -0.995',
      'line 0.26 0 -0.995',
      'line 0.51 0 -0.995',
    ])
    expect(all.slice(-4)).toEqual(['rapid 0.25 0 0.1', 'line 0.25 0 -1', 'line 0.5 0 -1', 'rapid 0.55 0 0.1'])
  })

  it('threads in passes whose depth grows with the root of their number', () => {
    const text = 'G20 T0101\nG97 S500 M3\nG99 G0 X1.1 Z.2\nG76 X.92 Z-1. K.04 D.02 F.05\nM30'
    const depths = moves(text, onLathe())
      .filter((each) => each.startsWith('in-step'))
      .map((each) => 0.5 - Number(each.split(' ')[1]))
    expect(depths).toHaveLength(4)
    for (const [n, depth] of depths.entries())
      expect(depth).toBeCloseTo(Math.min(0.04, 0.02 * Math.sqrt(n + 1)), 9)
  })

  it('turns at constant surface speed up to the clamp (12 V / (pi D))', () => {
    const { motion } = read(
      'G20 T0101\nG50 S1500\nG96 S400 M3\nG99 G0 X2. Z0.\nG1 X1.9 F.01\nX.1\nM30',
      onLathe(),
    )
    const feeds = [...motion.feed].filter((feed) => feed > 0)
    // From 2 to 1.9 inch as at their middle.
    expect(feeds[0]).toBeCloseTo((0.01 * 12 * 400) / (Math.PI * 1.95), 4)
    // From 1.9 inch on: below 1.019 inch the clamp holds. Minutes of the two pieces, by hand.
    const k = (12 * 400) / (2 * Math.PI)
    const clamped = k / 1500
    const minutes = (0.95 ** 2 - clamped ** 2) / (2 * k) + (clamped - 0.05) / 1500
    expect(feeds[1]).toBeCloseTo((0.01 * 0.9) / minutes, 4)
  })
})

describe('subprograms and macros', () => {
  it('empty lines before a program or a line number change nothing', () => {
    const text = 'O1 G20 G91\nM98 P2\nM97 P100\nM30\nN100 G0 Y1.\nM99\nO2\nG0 X1.\nM99\n'
    const spaced = text.replaceAll('\n', '\n\n')
    const done = (of: string) => {
      const { motion, diagnostics } = read(of, onMill())
      return [[...motion.x], [...motion.y], diagnostics.map(({ code }) => code)]
    }
    expect(done(spaced)).toEqual(done(text))
  })

  it('M98 as often as it says, M97 within the program, M99 back', () => {
    const sub = 'O1 G20 G91\nM98 P2 L2\nM97 P100\nM30\nN100 G0 Y1.\nM99\nO2\nG0 X1.\nM99'
    const all = moves(sub).map((each) => each.split(' ').slice(1, 3).join(' '))
    const start = read(sub, onMill()).motion.start
    expect(all.at(-1)).toBe(`${start[0] + 2} ${start[1] + 1}`)
    expect([...read(sub, onMill()).motion.blockDepth]).toContain(1)
  })

  it('variables, loops and branches', () => {
    const text =
      'G20 G90\n#1=1\nWHILE [#1 LE 3] DO1\nIF [#1 EQ 2] GOTO 5\nG0 X#1\nN5 #1=#1+1\nEND1\nIF [#1 GT 3] THEN #2=7\nY#2\nM30'
    expect(moves(text).map((each) => each.split(' ').slice(1, 3).join(' '))).toEqual(
      ['1 8', '3 8', '3 7'].map((each) => each.replace(' 8', ` ${read(text, onMill()).motion.start[1]}`)),
    )
  })

  it('G65 hands its words over as locals of its own; I J K come again (common practice)', () => {
    const text = 'G20 G90\n#1=9\nG65 P900 A1. I2. J3. I4.\nX#1\nM30\nO900\nG0 X#1 Y#4 Z#7\nM99'
    expect(moves(text).map((each) => each.split(' ').slice(1).join(' '))).toEqual(['1 2 4', '9 2 4'])
  })

  it('probe macros touch the stand-in part and leave what they found (control.md)', () => {
    const standIn = boxStandIn([0, 0, -1], [4, 2, 0])
    const text = 'G20 G90 G0 X-1. Y1. Z1.\nG65 P9810 Z-.5\nG65 P9811 X.05\nG0 Z1.\nX#185\nM30'
    expect(moves(text, onMill({ standIn }))).toEqual([
      'rapid -1 1 1',
      'probe -1 1 -0.5',
      'probe 0 1 -0.5',
      'probe -1 1 -0.5',
      'rapid -1 1 1',
      'rapid 0 1 1',
    ])
  })
})

describe('what is said', () => {
  it.each([
    ['G20 G90\nG1 X1.', ['no-feed 2']],
    ['G20 G123 X1.', ['unknown-code 1']],
    ['G20 M77', ['unknown-code 1']],
    ['G20 G0 G1 F1. X1.', ['two-of-a-group 1']],
    ['G20 G0 X1. X2.', ['word-twice 1']],
    ['G20 G0 X2', ['missing-point 1']],
    ['G20 G81 X1. F10.', ['cycle-words 1']],
    ['G20 G83 Z-1. R.1 F10.', ['peck-missing 1']],
    ['G20 M98 P77', ['subprogram-missing 1']],
    ['G20 G0 X#100', ['unset-variable 1']],
    ['G20 G0 X[1/0]', ['expression 1']],
    ['G20 G0 X[1+2', ['not-a-word 1']],
    ['G20 ??', ['not-a-word 1']],
    ['G20 (no end', ['comment-open 1']],
    ['G20 GOTO 7', ['goto-missing 1']],
    ['G20 G43 G0 Z1.', ['length-no-h 1']],
    ['G20 M6', ['tool-not-said 1']],
  ])('%s', (text, codes) => expect(complaints(text)).toEqual(codes))

  it('where and how to mend it: a missing point is read as the control reads it', () => {
    const [said] = read('G20 G90\nG0 X2 Y1.\nM30', onMill({ profile: twoLine })).diagnostics
    expect(said).toMatchObject({
      code: 'missing-point',
      severity: 'stop',
      line: 2,
      from: 3,
      to: 5,
      mend: { line: 2, from: 5, to: 5, insert: '.' },
    })
    expect(moves('G20 G90\nG0 X2 Y1.', onMill({ profile: twoLine }))[0]).toMatch(/^rapid 0.0002 1 /)
    expect(moves('G20 G90\nG0 X2 Y1.')[0]).toMatch(/^rapid 2 1 /)
  })

  it('each unknown code once, with how often it stands there', () => {
    const { diagnostics } = read('G20\nG123\nG123\nG124\nM30', onMill())
    expect(diagnostics.map(({ line, times }) => [line, times])).toEqual([
      [2, 2],
      [4, 1],
    ])
  })

  it('codes that this control does not have', () => {
    expect(complaints('G20 G68 X0. Y0. R5.', onMill({ profile: plain }))).toEqual(['unknown-code 1'])
    expect(complaints('G20 G154 P100', onMill({ profile: compact }))).toEqual(['offset-number 1'])
    expect(complaints('G20 T0101\nG75 R.02', onLathe())).toEqual(['cycle-form 2'])
  })
})
