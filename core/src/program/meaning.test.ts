import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { explainWord } from './explain.ts'
import { alongArc, endOf, isArc, ROW } from './motion.ts'
import { read } from './read.ts'
import { compact, complaints, moves, onLathe, onMill, plain, rowsOf, testMill, twoLine } from './testing.ts'

const tenths = fc.integer({ min: 1, max: 40 }).map((value) => value / 10)

describe('arcs that the motion cannot keep as arcs are chords within 0.0005 in of them', () => {
  /** Points of the straight moves after the first. */
  const pointsOf = (text: string, options = onMill()) => {
    const { motion } = read(text, options)
    return [...motion.kind].flatMap((kind, row) => (kind === ROW.LINE ? [endOf(motion, row)] : []))
  }

  it('wrapped round the rotary axis: the flat circle, Y as an angle', () => {
    fc.assert(
      fc.property(tenths, tenths, (radius, cylinder) => {
        const text = `G20 G90 G0 X0. Y0. Z0.\nF10.\nG107 A0. Y0. R${cylinder}\nG3 X${2 * radius} Y0. I${radius} J0.\nG107\nM30`
        const { motion } = read(text, onMill())
        const rows = [...motion.kind].flatMap((kind, row) => (kind === ROW.LINE ? [row] : []))
        expect(rows.length).toBeGreaterThan(2)
        let before = [0, 0]
        for (const row of rows) {
          const flat = [endOf(motion, row)[0], ((motion.rotary?.[row] as number) * Math.PI * cylinder) / 180]
          // On the circle about (R, 0), and the chord's middle no farther inside than it may be.
          expect(Math.hypot((flat[0] as number) - radius, flat[1] as number)).toBeCloseTo(radius, 9)
          const middle = [
            ((flat[0] as number) + (before[0] as number)) / 2,
            ((flat[1] as number) + (before[1] as number)) / 2,
          ]
          expect(radius - Math.hypot((middle[0] as number) - radius, middle[1] as number)).toBeLessThan(
            0.0005,
          )
          before = flat as number[]
        }
        // Counter-clockwise from the left end: through the lower half.
        const [first] = rows
        expect(motion.rotary?.[first as number]).toBeLessThan(0)
        expect(before[0]).toBeCloseTo(2 * radius, 9)
      }),
      depth(40, 400),
    )
  })

  it('in another plane while the program is turned: on the sphere that the turned circle lies on', () => {
    const text = 'G20 G90 G0 X0. Y0. Z0.\nF10.\nG68 X0. Y0. R30.\nG18 G2 X2. Z0. I1. K0.\nG69\nM30'
    const points = pointsOf(text)
    const [cos, sin] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)]
    for (const [x, y, z] of points) {
      expect(Math.hypot(x - cos, y - sin, z)).toBeCloseTo(1, 9)
      // In the plane that the turning makes of Z X.
      expect(x * sin - y * cos).toBeCloseTo(0, 9)
    }
    // Clockwise seen from the positive end of Y, where Z counts before X: downwards first (RS274/NGC, 3.5.3).
    expect(Math.min(...points.map(([, , z]) => z))).toBeCloseTo(-1, 3)
  })

  it('in the contour of a turning cycle: the finish runs on the radius', () => {
    const text =
      'G20 T0101\nG97 S500 M3\nG99 F.01\nG0 X2.2 Z.1\nG70 P10 Q20\nN10 G0 X1.\nG1 Z-.5\nG2 X2. Z-1. R.5\nN20 G1 Z-1.5\nM30'
    // G2 with Z to the right and X up: the centre stands outside, at X 2 (radius 1), Z -0.5. It stays an arc.
    const { motion } = read(text, onLathe())
    const round = rowsOf(motion).filter((row) => isArc(motion.kind[row] as number))
    expect(round.map((row) => motion.line[row])).toEqual([8])
    for (const share of [0.25, 0.5, 0.75]) {
      const [x, , z] = alongArc(motion, round[0] as number, share)
      expect(Math.hypot(x - 1, z + 0.5)).toBeCloseTo(0.5, 9)
      expect([z < -0.5, z > -1]).toEqual([true, true])
    }
  })
})

describe('system variables, as they are commonly numbered (common practice)', () => {
  const known = onMill({
    offsets: new Map([
      ['G54', { X: -10, Y: -5, Z: -15 }],
      ['G55', { X: -12, Y: -6, Z: -14 }],
    ]),
    lengths: new Map([[5, 3.25]]),
  })
  const valueAfter = (variable: string, modes: string, options = known) => {
    const text = `G20 G90 G54\nT5 M6\nG0 X1.5 Y1. Z2.\n${modes}\n#1=${variable}\nG90 G0 X#1\nM30`
    const ends = moves(text, options)
    return Number(ends.at(-1)?.split(' ')[1])
  }
  it.each([
    ['#4001', 'G1 F10.', 1],
    ['#4002', 'G18', 18],
    ['#4003', 'G91', 91],
    ['#4006', '', 20],
    ['#4010', 'G99', 99],
    ['#4014', '', 54],
    ['#4107', 'D7', 7],
    ['#4109', 'F12.5', 12.5],
    ['#4111', 'G43 H5', 5],
    ['#4119', 'S800', 800],
    ['#4120', '', 5],
    ['#5001', '', 1.5],
    ['#5042', '', 1],
    ['#5021', '', -8.5],
    ['#5241', '', -12],
    ['#2005', '', 3.25],
    ['#2006', '', 0],
  ])('%s after %s is %d', (variable, modes, value) => {
    expect(valueAfter(variable, modes)).toBeCloseTo(value, 9)
  })

  it('in the unit of the program, whatever the setup counts in', () => {
    const { motion } = read('G21 G90 G54\nG0 X25.4\n#1=#5041\n#2=#5241\nG0 X#1 Y#2\nM30', known)
    const [x, y] = endOf(motion, motion.count - 2)
    expect(x).toBeCloseTo(1, 12)
    expect(y).toBeCloseTo(-12, 12)
  })

  it('that hold offsets or lengths may be set, and it is said', () => {
    expect(complaints('G20\n#5221=-10.5\nM30', known)).toEqual(['loads-offset 2'])
    expect(complaints('G20\n#2203=.01\nM30', known)).toEqual(['loads-offset 2'])
    // The length itself: what comes after goes by it. An offset that nobody knows: where things then are is not followed.
    expect(complaints('G20\n#2003=4.\nM30')).toEqual(['loads-length 2'])
    expect(complaints('G20\n#5221=-10.5\nM30')).toEqual(['offset-not-followed 2'])
    expect(complaints('G20\n#100=4.\n#500=1.\nM30')).toEqual([])
  })
})

describe('home', () => {
  it('by way of the point that is named; the second one is said to be unknown, once', () => {
    const at = onMill({ offsets: new Map([['G54', { X: -10, Y: -5, Z: -15 }]]) })
    const text = 'G20 G90 G54 G0 X1. Y1. Z1.\nG91 G28 Z0.5\nG28 X0. Y0.\nM30'
    expect(moves(text, at).slice(1)).toEqual(['rapid 1 1 1.5', 'rapid 1 1 15', 'rapid 10 5 15'])
    expect(complaints(text, at)).toEqual([])
    const second = text.replaceAll('G28', 'G30')
    expect(moves(second, at)).toEqual(moves(text, at))
    expect(complaints(second, at)).toEqual(['second-home 2'])
  })
})

describe('wrapping by the rotary word', () => {
  const HEAD = 'G20 G90 G0 X0. Y0. Z1.\nF10.\n'
  const turns = (text: string) => {
    const { motion } = read(`${HEAD}${text}\nM30`, onMill({ profile: twoLine }))
    return [...motion.kind].flatMap((kind, row) => (kind === ROW.LINE ? [motion.rotary?.[row] ?? 0] : []))
  }
  it('turns the degrees that are written, at the feed over the face', () => {
    const text = `${HEAD}G7.1 A1.\nG1 A57.2958 X1.\nG7.1 A0.\nM30`
    const { motion } = read(text, onMill({ profile: twoLine }))
    const row = motion.kind.indexOf(ROW.LINE)
    expect(motion.rotary?.[row]).toBeCloseTo(57.2958, 9)
    // One radius round and one along: the root of 2, at 10 a minute.
    expect(motion.seconds?.[row]).toBeCloseTo((60 * Math.SQRT2) / 10, 4)
  })
  it('makes an arc of degrees a circle of the flat', () => {
    const angles = turns('G7.1 A1.\nG3 X1. A57.2958 R1.')
    expect(angles.at(-1)).toBeCloseTo(57.2958, 9)
    expect(angles.length).toBeGreaterThan(3)
  })
  it('says that Y moves the table across', () => {
    expect(complaints(`${HEAD}G7.1 A1.\nG1 Y1.\nG7.1 A0.`, onMill({ profile: twoLine }))).toContain(
      'mapping-y 4',
    )
    expect(complaints(`${HEAD}G107 A0. Y0. R1.\nG1 Y1.\nG107`)).toEqual([])
  })
  it('and plain moves carry the angle that the rotary was left at', () => {
    const { motion } = read(`${HEAD}G0 A90.\nG1 Z.5\nX1.\nG0 A0.\nG1 X0.\nM30`, onMill())
    const at = [...motion.kind].flatMap((kind, row) => (kind === ROW.LINE ? [motion.rotary?.[row]] : []))
    expect(at).toEqual([90, 90, 0])
  })
})

describe('the text cycle', () => {
  const HEAD = 'G20 G90 G0 X0. Y0. Z1.\nF10.\n'
  // The letter I of the published set is one stroke down, 21 tall, and moves on by 8.
  it('cuts letter by letter, down from the R plane and up to it, and ends over the lower right of the last', () => {
    expect(moves(`${HEAD}G47 P0 (II) X1. Y2. I90. J.21 R.1 Z-.01 E5.`).slice(1)).toEqual([
      'rapid 0.79 2 1',
      'rapid 0.79 2 0.1',
      'line 0.79 2 -0.01',
      'line 1 2 -0.01',
      'rapid 1 2 0.1',
      'rapid 0.79 2.08 0.1',
      'line 0.79 2.08 -0.01',
      'line 1 2.08 -0.01',
      'rapid 1 2.08 0.1',
    ])
    const { motion } = read(`${HEAD}G47 P0 (I) X1. Y2. J.25 R.1 Z-.01 E5.\nM30`, onMill())
    expect([...motion.feed].slice(3, 5)).toEqual([5, 10])
  })
  it('counts serial numbers on, each with its digits', () => {
    const serial = (text: string, from: number) =>
      moves(`${HEAD}${text}`, onMill({ serial: from })).filter((move) => move.startsWith('line'))
    const call = (mode: string, said: string) => `G47 ${mode} (${said}) X1. Y2. J.21 R.1 Z-.01\n`
    expect(serial(call('P1', '###').repeat(2), 9)).toEqual([
      ...serial(call('P0', '009'), 0),
      ...serial(call('P0', '010'), 0),
    ])
  })
  it('as wide as was measured on the control', () => {
    const wide = { ...compact.reading, lettering: { ...compact.reading.lettering, widthFactor: 1.5 } }
    const second = (profile: typeof compact) =>
      moves(`${HEAD}G47 P0 (II) X1. Y2. J.21 R.1 Z-.01`, onMill({ profile })).at(-1)
    expect(second(compact)).toBe('rapid 1.08 2 0.1')
    expect(second({ ...compact, reading: wide })).toBe('rapid 1.12 2 0.1')
  })
  it('without its words says so, and is none on a control that has none', () => {
    expect(complaints(`${HEAD}G47 P0 (AB) X1. Y2. R.1 Z-.01`)).toEqual(['cycle-words 3'])
    expect(complaints(`${HEAD}G47 P0 (Aß) X1. J.25 R.1 Z-.01`)).toContain('text-character 3')
    expect(complaints(`${HEAD}G47 P0 (AB) X1. J.25 R.1 Z-.01`, onMill({ profile: plain }))[0]).toMatch(
      /^unknown-code/,
    )
  })
})

describe('what a word does', () => {
  it.each([
    ['G', 43, compact, /length/i],
    ['G', 68, compact, /turns the program/i],
    ['G', 154, compact, /P1 to P99/],
    ['G', 54.1, twoLine, /P1 to P48/],
    ['G', 107, compact, /wraps Y/i],
    ['G', 7.1, twoLine, /wraps the rotary word/i],
    ['G', 187, compact, /corners/],
    ['M', 3, compact, /clockwise/i],
    ['M', 62, compact, /pallet 2/],
    ['M', 29, twoLine, /rigid tapping/i],
    ['J', 2, compact, /how many times faster/],
  ] as const)('%s%d', (letter, value, profile, says) => {
    expect(explainWord(letter, value, 'mill', profile)).toMatch(says)
  })
  it('on a lathe as a lathe means it, and nothing where nothing is known', () => {
    expect(explainWord('G', 96, 'lathe', compact)).toMatch(/surface speed/i)
    expect(explainWord('G', 98, 'lathe', compact)).not.toBe(explainWord('G', 98, 'mill', compact))
    expect(explainWord('G', 47, 'mill', plain)).toBeUndefined()
    expect(explainWord('G', 999, 'mill', compact)).toBeUndefined()
  })
})

describe('home of a lathe', () => {
  it('is where the first tool has it, also from before any tool was called', () => {
    const offsets = new Map([
      ['T1', { X: -10, Z: -12 }],
      ['T2', { X: -8, Z: -11 }],
    ])
    const text = 'G20 G53 G0 X0.\nG53 G0 Z0.\nT0101\nG0 X2.\nG53 G0 X0.\nT0202\nG0 X2.\nM30'
    const { motion } = read(text, onLathe({ offsets }))
    // The turret stands at machine X0 and Z0: 12 from where T1 has its face, 11 from where T2 has it.
    const places = [...motion.kind].flatMap((kind, row) => (kind === ROW.RAPID ? [endOf(motion, row)] : []))
    expect(places.slice(-3)).toEqual([
      [1, 0, 12],
      [5, 0, 12],
      [1, 0, 11],
    ])
  })
})

describe('the initial level of G98', () => {
  /** Heights that the tool goes up to between the holes. */
  const levels = (text: string, profile = compact) => {
    const { motion, diagnostics } = read(text, onMill({ profile }))
    const ups = [...motion.kind].flatMap((kind, row) =>
      kind === ROW.RAPID && row > 0 && endOf(motion, row)[2] > endOf(motion, row - 1)[2]
        ? [endOf(motion, row)[2]]
        : [],
    )
    return { ups, said: diagnostics.filter(({ code }) => code === 'initial-level').length }
  }
  const each = { ...compact, reading: { ...compact.reading, initialLevel: 'each-code' as const } }
  const begin = 'G20 G90 G0 Z2.\nG0 X0. Y0.\nF10.\n'

  it('is that from before the first cycle until G80: a code that is repeated from R does not lower it (common practice)', () => {
    const text = `${begin}G99 G81 X1. Z-.5 R.1\nG98 G81 X2. Z-.5 R.1\nG81 X3. Z-.5 R.1\nG80\nM30`
    // It stands at R when the code is repeated; it was called the level, and a clamp between the holes was hit.
    expect(levels(text)).toEqual({ ups: [0.1, 2, 2], said: 1 })
    expect(levels(text, each)).toEqual({ ups: [0.1, 0.1, 0.1], said: 1 })
  })

  it('is taken anew after G80 and after any other move', () => {
    expect(levels(`${begin}G98 G81 X1. Z-.5 R.1\nG80\nG0 Z1.\nG98 G81 X2. Z-.5 R.1\nG80\nM30`).ups).toEqual([
      2, 1,
    ])
    expect(levels(`${begin}G98 G81 X1. Z-.5 R.1\nG0 Z1.\nG98 G82 X2. Z-.5 R.1 P0\nG80\nM30`)).toEqual({
      ups: [2, 1],
      said: 0,
    })
  })

  it('is not spoken of where nothing hangs on it', () => {
    expect(levels(`${begin}G98 G81 X1. Z-.5 R.1\nG81 X2. Z-.5 R.1\nG80\nM30`).said).toBe(0)
    expect(levels(`${begin}G99 G81 X1. Z-.5 R.1\nG81 X2. Z-.5 R.1\nG80\nM30`).said).toBe(0)
  })
})

describe('what a control of two lines wants (common practice)', () => {
  const said = (text: string, profile = twoLine) =>
    read(
      text,
      onMill({ profile, machine: { ...testMill, rotary: { word: 'A', top: 'front', turns: null } } }),
    )
      .diagnostics.filter(({ severity }) => severity !== 'note')
      .map(({ code }) => code)
  const tap = (between: string) =>
    `G20 G90\nT1 M6\nG0 X0. Y0.\nG43 H1 Z1.\nM29 S500\n${between}G84 X1. Z-.5 R.2 F25.\nX2.\nG80\nG0 X3.\nM30`

  it('names no axis between the announcing of rigid tapping and its cycle', () => {
    expect(said(tap(''))).toEqual([])
    expect(said(tap('X1.\n'))).toEqual(['axis-after-rigid'])
    expect(said(tap('G0 Z.5\n'))).toEqual(['axis-after-rigid'])
    expect(said(tap('M8\n'))).toEqual([])
  })

  it('calls the wrapping in a feed mode, and neither goes at rapid nor round an arc within it', () => {
    const wrap = (before: string, within: string) =>
      `G20 G90\nT1 M6\nS1000 M3\nG0 X0. Y0. A0.\nG43 H1 Z1.\n${before}\nG7.1 A1.\n${within}\nG7.1 A0.\nM30`
    expect(said(wrap('G1 F10.', 'G1 A10. F5.\nX1.'))).toEqual([])
    expect(said(wrap('G0 Z.5', 'G1 A10. F5.'))).toContain('mapping-under-rapid')
    expect(said(wrap('G1 F10.', 'G0 A10.'))).toContain('mapping-rapid')
    expect(said(wrap('G1 F10.', 'G2 X1. A20. R2.'))).toContain('mapping-arc')
    // Wrapped by an R word rapids and arcs are as they are everywhere.
    expect(
      said(
        'G20 G90\nT1 M6\nS1000 M3\nG0 X0. Y0. A0.\nG43 H1 Z1.\nG107 A0. Y0. R1.\nG0 X1.\nG107\nM30',
        compact,
      ),
    ).toEqual([])
  })
})
