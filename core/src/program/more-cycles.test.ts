import { describe, expect, it } from 'vitest'
import { ROW } from './motion.ts'
import { read } from './read.ts'
import { boxStandIn } from './read-options.ts'
import { complaints, moves, onLathe, onMill, twoLine } from './testing.ts'

const HEAD = 'G20 G90 G0 X1. Y2. Z3.\nM3 S500\nF10.\n'
const after = (text: string, options = onMill()) => moves(`${HEAD}${text}`, options).slice(1)
const events = (text: string, options = onMill()) =>
  read(text, options).motion.events.map((event) =>
    event.does === 'spindle' ? `spindle ${event.turning}` : event.does,
  )

describe('boring and other cycles of a mill (common practice)', () => {
  it('G76 stops turned, moves off the wall by I J or Q, comes out there, and goes back over the hole', () => {
    expect(after('G76 X1. Y2. Z1. R2. Q.01')).toEqual([
      'rapid 1 2 2',
      'line 1 2 1',
      'line 1.01 2 1',
      'rapid 1.01 2 3',
      'rapid 1 2 3',
    ])
    expect(after('G76 X1. Y2. Z1. R2. I.02 J-.01')[2]).toBe('line 1.02 1.99 1')
  })

  it('G87 bores from beneath: through the hole off its middle, up at feed, and out the same way', () => {
    expect(after('G87 X1. Y2. Z-.2 R-1. Q.1')).toEqual([
      'rapid 1.1 2 3',
      'rapid 1.1 2 -1',
      'line 1 2 -1',
      'line 1 2 -0.2',
      'line 1.1 2 -0.2',
      'rapid 1.1 2 3',
      'rapid 1 2 3',
    ])
  })

  it('G88 waits to be brought out by hand; the spindle stands and turns again', () => {
    expect(events(`${HEAD}G88 X1. Y2. Z1. R2. P.5\nM30`)).toEqual([
      'spindle 3',
      'dwell',
      'spindle 0',
      'stop',
      'spindle 3',
      'end',
    ])
  })

  it('G74 taps left hand as G84 does right hand; pecks come all the way out between', () => {
    expect(after('G74 Z2. R2.5 F25.').map((each) => each.split(' ')[0])).toEqual([
      'rapid',
      'in-step',
      'tap-out',
      'rapid',
    ])
    expect(after('G84 Z2. R2.5 Q.25 F25.').filter((each) => each.startsWith('tap-out'))).toHaveLength(2)
  })

  it('in G18 and G19 the hole is along Y and X (RS274/NGC, 3.5.16)', () => {
    expect(after('G18 G81 X2. Z1. Y.5 R1.5')).toEqual([
      'rapid 2 2 1',
      'rapid 2 1.5 1',
      'line 2 0.5 1',
      'rapid 2 2 1',
    ])
    expect(after('G19 G81 Y1. Z1. X.2 R.5').at(-2)).toBe('line 0.2 1 1')
  })

  it('repeats by the word of the control: K on Two-line, L on Compact', () => {
    const holes = (text: string, options = onMill()) =>
      after(text, options).filter((each) => each.startsWith('line')).length
    expect(holes('G91 G81 X1. Z-1. R-.5 L3')).toBe(3)
    expect(holes('G91 G81 X1. Z-1. R-.5 K3', onMill({ profile: twoLine }))).toBe(3)
    expect(holes('G91 G81 X1. Z-1. R-.5 K3')).toBe(1)
    expect(holes('G81 X1. Z1. R2. L0')).toBe(0)
  })

  it('a bottom above the R plane is said', () => {
    expect(complaints(`${HEAD}G81 Z2. R1.`)).toEqual(['cycle-upwards 4'])
  })

  it('rigid tapping must be announced where the control wants it', () => {
    const rigid = (text: string) =>
      read(text, onMill({ profile: twoLine })).motion.inStep.map((step) => step.rigid)
    expect(rigid('G20 G0 Z1.\nS500 M3\nG84 Z0. R.5 F25.\nM30')).toEqual([false])
    expect(rigid('G20 G0 Z1.\nM29 S500\nG84 Z0. R.5 F25.\nM30')).toEqual([true])
  })
})

describe('further cycles of a lathe (common practice)', () => {
  const LATHE = 'G20 T0101\nG97 S500 M3\nG99 F.01\nG0 X2. Z.1\n'
  const turned = (text: string, options = onLathe()) => moves(`${LATHE}${text}`, options).slice(1)

  it('G90 in, along, out, back; again for each X that follows', () => {
    expect(turned('G90 X1.8 Z-1.\nX1.6')).toEqual([
      'rapid 0.9 0 0.1',
      'line 0.9 0 -1',
      'line 1 0 -1',
      'rapid 1 0 0.1',
      'rapid 0.8 0 0.1',
      'line 0.8 0 -1',
      'line 1 0 -1',
      'rapid 1 0 0.1',
    ])
  })

  it('G94 faces; G92 threads; G32 threads one pass from where it stands', () => {
    expect(turned('G94 X0. Z-.05')).toEqual([
      'rapid 1 0 -0.05',
      'line 0 0 -0.05',
      'line 0 0 0.1',
      'rapid 1 0 0.1',
    ])
    expect(turned('G92 X1.9 Z-1. F.05')[1]).toBe('in-step 0.95 0 -1')
    expect(turned('G0 X1.9\nG32 Z-1. F.05').at(-1)).toBe('in-step 0.95 0 -1')
    expect(complaints('G20 T0101\nG97 S500 M3\nG0 X1. Z.1\nG32 Z-1.', onLathe())).toEqual(['cycle-words 4'])
  })

  it('G72 roughs by facing passes, G73 nears the contour pass by pass', () => {
    const contour = 'N10 G0 Z-.2\nG1 X1.\nN20 Z0.\n'
    const faces = turned(`G72 P10 Q20 U0. W0. D.1 F.01\n${contour}`)
    expect(faces.filter((each) => each.startsWith('rapid')).length).toBeGreaterThan(3)
    const repeated = turned(`G73 P10 Q20 U0. W0. I.2 K.1 D3 F.01\n${contour}`)
    expect(repeated.filter((each) => each.startsWith('line')).length).toBe(6)
    expect(repeated).toContain('line 0.5 0 0')
  })

  it('G74 pecks along Z', () => {
    const pecks = turned('G0 X0.\nG74 Z-.4 K.1 F.005').filter((each) => each.startsWith('line'))
    expect(pecks).toEqual(['line 0 0 0', 'line 0 0 -0.1', 'line 0 0 -0.2', 'line 0 0 -0.3', 'line 0 0 -0.4'])
  })

  it('G83 and G84 on the centre line', () => {
    expect(turned('G0 X0.\nG83 Z-.4 R.05 Q.2 F.005').filter((each) => each.startsWith('line'))).toEqual([
      'line 0 0 -0.15',
      'line 0 0 -0.35',
      'line 0 0 -0.4',
    ])
    expect(turned('G0 X0.\nG84 Z-.5 R.1 F.05').map((each) => each.split(' ')[0])).toContain('tap-out')
  })

  it('threads in two lines as in one (P and Q in least increments)', () => {
    const one = turned('G76 X1.92 Z-1. K.04 D.02 F.05')
    const two = turned('G76 P010060 Q0 R0.\nG76 X1.92 Z-1. P400 Q200 F.05', onLathe({ profile: twoLine }))
    expect(two).toEqual(one)
  })

  it('a contour that is not there, and passes without end, are said', () => {
    expect(complaints(`${LATHE}G71 P10 Q20 D.1`, onLathe())).toEqual(['contour-missing 5'])
    expect(complaints(`${LATHE}G75 X0. Z-1. I.0000001 K.1`, onLathe())).toEqual(['cycle-passes 5'])
    expect(complaints('G20 T0101\nG96 S300 M3', onLathe())).toEqual(['no-clamp 2'])
  })
})

describe('probe macros, inside and outside (control.md)', () => {
  const standIn = boxStandIn([0, 0, -1], [4, 2, 0])
  const found = (call: string, at: string, result: number) =>
    moves(`G20 G90 G0 ${at}\n${call}\nG0 X#${result} Y0. Z5.\nM30`, onMill({ standIn })).at(-1)

  it('a boss has its middle between its faces, and a web its width', () => {
    expect(found('G65 P9814 D4.2 Z-.5 R.2', 'X2. Y1. Z1.', 185)).toBe('rapid 2 0 5')
    expect(found('G65 P9812 X4.1 Z-.5 R.2', 'X2. Y1. Z1.', 188)).toBe('rapid 4 0 5')
  })
  it('a pocket is where it is said to be: the stand-in part has none', () => {
    expect(found('G65 P9812 X1.', 'X2. Y1. Z-.5', 185)).toBe('rapid 2 0 5')
  })
  it('an outside corner is touched on both faces; an angle over a straight face is none', () => {
    expect(found('G65 P9816 X.1 Y.1', 'X-.5 Y-.5 Z-.5', 185)).toBe('rapid 0 0 5')
    expect(found('G65 P9843 X.1 D1.', 'X-.5 Y.5 Z-.5', 189)).toBe('rapid 0 0 5')
  })
  it.each([
    'G65 P9811',
    'G65 P9811 X1. Y1.',
    'G65 P9814 Z-1.',
    'G65 P9816 X1.',
    'G65 P9843 X1.',
    'G65 P9812',
  ])('%s lacks a word', (call) =>
    expect(complaints(`G20 G0 X-1. Y1. Z1.\n${call}`)).toEqual(['probe-words 2']),
  )
  it('a probe that meets nothing is said', () => {
    expect(complaints('G20 G90 G0 X-5. Y9. Z1.\nG65 P9811 X0.', onMill({ standIn }))).toEqual([
      'probe-misses 2',
    ])
  })
})

describe('calls', () => {
  it('G66 calls after every move, until G67', () => {
    const text = 'G20 G90 G66 P900 A.1\nG0 X1.\nX2.\nG67\nX3.\nM30\nO900\nG91 G0 Y#1\nG90\nM99'
    const all = moves(text).map((each) => each.split(' ').slice(1, 3).map(Number))
    expect(all.map(([x]) => x)).toEqual([1, 1, 2, 2, 3])
    expect((all[3]?.[1] ?? 0) - (all[0]?.[1] ?? 0)).toBeCloseTo(0.2, 9)
  })
  it('M99 P goes back to a line of its own; eight digits say how often', () => {
    const back = 'G20 G90\nM98 P5\nG0 X9.\nN7 G0 X1.\nM30\nO5\nG0 X2.\nM99 P7'
    expect(moves(back).map((each) => each.split(' ')[1])).toEqual(['2', '1'])
    const often = 'G20 G91\nM98 P30005\nM30\nO5\nG0 X1.\nM99'
    expect(moves(often, onMill({ profile: twoLine }))).toHaveLength(3)
  })
  it('a slash is skipped with the switch on, and read with it off', () => {
    const text = 'G20 G90\n/G0 X1.\nG0 X2.\nM30'
    expect(moves(text)).toHaveLength(2)
    expect(moves(text, onMill({ skipOptional: true }))).toHaveLength(1)
  })
  it('system variables: where it stands, which tool, which length', () => {
    const known = onMill({
      lengths: new Map([[5, 3.25]]),
      offsets: new Map([['G54', { X: -10, Y: -5, Z: -15 }]]),
    })
    const text =
      'G20 G90 G54\nT5 M6\nG0 X1.5 Y1.\n#1=#5041\n#2=#4120\n#3=#2005\n#4=#5221\nX[#1+1] Y#3\nX#2\nX#4\nM30'
    expect(
      moves(text, known)
        .slice(-3)
        .map((each) => each.split(' ').slice(1, 3).join(' ')),
    ).toEqual(['2.5 3.25', '5 3.25', '-10 3.25'])
  })
  it('an alarm of the program ends it, with its words', () => {
    const { diagnostics, motion } = read('G20\n#3000=12 (PART TOO LONG)\nG0 X1.\nM30', onMill())
    expect(diagnostics[0]?.says).toContain('PART TOO LONG')
    expect([...motion.kind].includes(ROW.RAPID)).toBe(false)
  })
  it('inverse time: a move takes 1/F minutes, whatever its length', () => {
    const { motion } = read('G20 G90 G0 X0. Y0. Z0.\nG93 G1 X3. F2.\nX4. F2.\nM30', onMill())
    expect([...motion.feed].slice(1, 3)).toEqual([6, 2])
  })
})
