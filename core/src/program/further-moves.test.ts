import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import type { OwnCode, Profile } from '../control/index.ts'
import { endOf, isArc, ROW } from './motion.ts'
import { read } from './read.ts'
import { boxStandIn } from './read-options.ts'
import { compact, complaints, moves, onLathe, onMill, rowsOf, twoLine } from './testing.ts'

const HEAD = 'G20 G90 G17 F10.\nG0 X1. Y2. Z0.\n'
const radii = new Map([[3, 0.25]])
const after = (text: string, options = onMill({ radii })) => moves(`${HEAD}${text}\nM30`, options).slice(1)
const said = (text: string, options = onMill({ radii })) => complaints(`${HEAD}${text}\nM30`, options)
const positions = (more: Partial<Profile['reading']['positions']>, of = compact): Profile => ({
  ...of,
  reading: { ...of.reading, positions: { ...of.reading.positions, ...more } },
})

describe('round pockets (common practice)', () => {
  it('out by half a circle, round, and back to the middle, the tool inside; clockwise the other way', () => {
    expect(after('G13 I1. D3 Z-.1')).toEqual([
      'line 1 2 -0.1',
      'ccw 1.75 2 -0.1',
      'ccw 1.75 2 -0.1',
      'ccw 1 2 -0.1',
    ])
    expect(after('G12 I1. D3 Z-.1').slice(1)).toEqual(['cw 1.75 2 -0.1', 'cw 1.75 2 -0.1', 'cw 1 2 -0.1'])
  })

  it('is the same as written out by hand', () => {
    const byHand = 'G1 Z-.1\nG3 X1.75 I.375\nI-.75\nX1. I-.375'
    const [ours, theirs] = ['G13 I1. D3 Z-.1', byHand].map((text) => {
      const { motion } = read(`${HEAD}${text}\nM30`, onMill({ radii }))
      return [...motion.arcs].map((value) => value.toFixed(9))
    })
    expect(ours).toEqual(theirs)
  })

  it('further out each time as Q says, K at last; deeper each time under G91', () => {
    const wider = after('G13 I.5 K1. Q.3 D3 Z-.1')
    expect(wider.filter((each) => each.startsWith('line'))).toEqual([
      'line 1 2 -0.1',
      'line 1.55 2 -0.1',
      'line 1.75 2 -0.1',
    ])
    expect(wider.filter((each) => each.startsWith('ccw'))).toHaveLength(5)
    expect(
      after('G91\nG13 I1. D3 Z-.1 L3\nG90').flatMap((each) => (each.startsWith('line') ? [each] : [])),
    ).toEqual(['line 1 2 -0.1', 'line 1 2 -0.2', 'line 1 2 -0.3'])
  })

  it('never leaves the pocket, and reaches its wall: 300 of them', () => {
    const hundredths = (min: number, max: number) => fc.integer({ min, max }).map((n) => n / 100)
    fc.assert(
      fc.property(
        hundredths(30, 200),
        hundredths(0, 200),
        hundredths(2, 60),
        fc.boolean(),
        (first, more, step, way) => {
          const last = first + more
          const words = more > 0 ? `K${last.toFixed(2)} Q${step.toFixed(2)}` : ''
          const { motion, diagnostics } = read(
            `${HEAD}${way ? 'G12' : 'G13'} I${first.toFixed(2)} ${words} D3 Z-.1\nM30`,
            onMill({ radii }),
          )
          expect(diagnostics).toEqual([])
          let furthest = 0
          for (const row of rowsOf(motion)) {
            if (!isArc(motion.kind[row] as number)) continue
            const base = 6 * (motion.aux[row] as number)
            const [x = 0, y = 0, , , radius = 0] = motion.arcs.slice(base, base + 6)
            furthest = Math.max(furthest, Math.hypot(x - 1, y - 2) + radius + 0.25)
          }
          expect(furthest).toBeCloseTo(last, 9)
          expect(endOf(motion, motion.count - 1)).toEqual([1, 2, -0.1])
        },
      ),
      depth(300, 3_000),
    )
  })

  it.each([
    ['no radius', 'G13 D3 Z-.1', 'pocket-words'],
    ['a step without an end', 'G13 I.5 Q.1 D3 Z-.1', 'pocket-words'],
    ['an end without a step', 'G13 I.5 K1. D3 Z-.1', 'pocket-words'],
    ['an end before the start', 'G13 I.5 K.4 Q.1 D3 Z-.1', 'pocket-words'],
    ['a tool as large as the first circle', 'G13 I.25 D3 Z-.1', 'pocket-words'],
    ['round and round at one depth', 'G13 I1. D3 Z-.1 L2', 'pocket-words'],
    ['beside its middle', 'G13 X3. I1. D3 Z-.1', 'pocket-words'],
    ['in another plane', 'G18 G13 I1. D3 Z-.1', 'pocket-words'],
    ['a tool that nobody knows', 'G13 I1. D9 Z-.1', 'compensation-radius'],
    ['while it is wrapped', 'G107 A0. Y0. R1.\nG13 I1. D3 Z-.1\nG107', 'pocket-words'],
    ['while compensation is on', 'G1 G41 D3 X3.\nG13 I1. D3 Z-.1', 'pocket-words'],
    ['while it is scaled', 'G51 P2.\nG13 I1. D3 Z-.1\nG50', 'scaled-with'],
  ])('a slip that a control alarms on: %s', (_, text, code) => {
    expect(said(text).map((each) => each.split(' ')[0])).toContain(code)
  })

  it('a control that does not have them stops', () => {
    expect(said('G13 I1. D3 Z-.1', onMill({ radii, profile: positions({ pockets: false }) }))).toEqual([
      'unknown-code 3',
    ])
  })
})

describe('holes of a canned cycle on a line (common practice)', () => {
  it('are those at the places that trigonometry gives', () => {
    const spot = 'G81 Z-.2 R.1 L0\n'
    const across = Math.cos(Math.PI / 6)
    const byHand = [0, 1, 2].map((n) => `X${(1 + n * across).toFixed(9)} Y${2 + n / 2}`).join('\n')
    const bottoms = (text: string) => after(text).filter((each) => each.startsWith('line'))
    expect(bottoms(`${spot}G72 I1. J30. L3`).length).toBe(3)
    expect(bottoms(`${spot}G72 I1. J30. L3`)).toEqual(bottoms(`G81 Z-.2 R.1 ${byHand}`))
  })

  it('a direction, a distance and a count are needed', () => {
    for (const words of ['I1. J30.', 'J30. L3', 'I1. L3', 'I-1. J30. L3', 'I1. J30. L0'])
      expect(said(`G81 Z-.2 R.1 L0\nG72 ${words}`)).toEqual(['pattern-words 4'])
  })

  it('in a grid: a program of the profile does it, as a code of its own', () => {
    const grid: OwnCode = {
      code: 'G177',
      on: 'mill',
      says: 'Holes in a grid: I J apart, K by T of them.',
      by: 'MK',
      does: 'call',
      modal: false,
      text: '#30=#5001\n#31=#5002\n#32=0\nWHILE [#32 LT #20] DO1\n#33=0\nWHILE [#33 LT #6] DO2\nG81 X[#30+#33*#4] Y[#31+#32*#5] Z#26 R#18\n#33=#33+1\nEND2\n#32=#32+1\nEND1\nG80\nM99',
    }
    const profile = { ...compact, ownCodes: [grid] }
    const holes = after('G177 I1. J.5 K3. T2. Z-.2 R.1', onMill({ profile })).filter((each) =>
      each.startsWith('line'),
    )
    expect(holes).toEqual([2, 2.5].flatMap((y) => [1, 2, 3].map((x) => `line ${x} ${y} -0.2`)))
  })
})

describe('from one side (common practice)', () => {
  const options = onMill({ profile: positions({ oneSide: { X: 2.54, Y: -2.54, Z: 0 } }) })
  it('goes past where it is to be and back, on the axes that are named', () => {
    expect(after('G60 X3. Y3.', options)).toEqual(['rapid 3.1 2.9 0', 'rapid 3 3 0'])
    expect(after('G60 X3.', options)).toEqual(['rapid 3.1 2 0', 'rapid 3 2 0'])
    expect(after('G60 Z3.', options)).toEqual(['rapid 1 2 3'])
    expect(after('G91 G60 X1.\nG90', options)).toEqual(['rapid 2.1 2 0', 'rapid 2 2 0'])
  })

  it('where nobody said how far past, it is a stop', () => {
    expect(said('G60 X3.')).toEqual(['unknown-code 3'])
  })
})

describe('a move until a signal', () => {
  const part = boxStandIn([2, 0, -1], [4, 4, 1])
  it('ends at the part, less half of the ball, and says where in #5061', () => {
    const text = 'G31 X3. F5.\n#100=#5061\nG1 X[#100-.5]'
    expect(after(text, onMill({ standIn: part }))).toEqual(['probe 2 2 0', 'line 1.5 2 0'])
    const machine = {
      ...onMill().machine,
      probe: { tool: 9, stylus: 0.25, reach: 2, head: { diameter: 2, length: 2 } },
    } as never
    const [first] = after(text, onMill({ standIn: part, machine }))
    expect(first).toBe('probe 1.875 2 0')
  })

  it('goes to its end where it meets nothing; G38.2 says that this is an alarm (NISTIR 6556, 3.5.9, from memory)', () => {
    const away = boxStandIn([7, 7, 7], [8, 8, 8])
    expect(after('G31 X3. F5.', onMill({ standIn: away }))).toEqual(['probe 3 2 0'])
    expect(said('G38.2 X3. F5.', onMill({ standIn: away }))).toEqual(['probe-misses 3', 'signal-move 3'])
    expect(said('G31 X3. F5.', onMill({ standIn: away }))).toEqual(['signal-move 3'])
  })

  it('is looked at again where the tool is no probe, or turns: without the signal it goes on', () => {
    const probe = { tool: 9, stylus: 0.25, reach: 2, head: { diameter: 2, length: 2 } }
    const severity = (text: string, machine: object) =>
      read(`${HEAD}${text}\nG31 X3. F5.\nM30`, onMill({ standIn: part, machine: machine as never }))
        .diagnostics.filter(({ code }) => code === 'signal-move')
        .map((each) => each.severity)
    const { machine } = onMill()
    expect(severity('T9 M6', { ...machine, probe })).toEqual(['note'])
    expect(severity('T9 M6\nM3 S100', { ...machine, probe })).toEqual(['look'])
    expect(severity('T7 M6', { ...machine, probe })).toEqual(['look'])
    expect(severity('T9 M6', machine)).toEqual(['look'])
  })

  it('that leads nowhere is an alarm; where none was, nobody knows #5061', () => {
    expect(said('G31 F5.')).toEqual(['signal-no-way 3'])
    expect(said('#100=#5061')).toEqual(['variable-not-seen 3'])
  })

  it('on a lathe: along X as a diameter', () => {
    const { motion, variables } = read(
      'G20 G0 X2. Z1.\nG98 F5.\nG31 X1.\n#100=#5061\nM30',
      onLathe({ standIn: boxStandIn([-0.75, -0.75, 0], [0.75, 0.75, 2]) }),
    )
    const probes = rowsOf(motion).filter((row) => motion.kind[row] === ROW.PROBE)
    expect(endOf(motion, probes[0] as number)).toEqual([expect.closeTo(0.75, 9), 0, 1])
    expect(variables.get(100)).toBeCloseTo(1.5, 9)
  })
})

describe('back from home by G29 (common practice)', () => {
  it('by the point of the last G28, and from there to its own', () => {
    expect(after('G28 X3. Y4.\nG29 X5. Y6.').slice(-2)).toEqual(['rapid 3 4 0', 'rapid 5 6 0'])
  })
  it('without one before it is an alarm', () => {
    expect(said('G29 X1.')).toEqual(['no-home-before 3'])
  })
})

describe('a rotary word beside a move that does not turn here', () => {
  it.each(['G28', 'G53', 'G31', 'G29'])('%s A90. is a stop, and sends no other axis home', (code) => {
    const before = code === 'G29' ? 'G28 Z0.\n' : ''
    expect(said(`${before}${code} A90. F5.`)).toContain(`word-not-seen ${before ? 4 : 3}`)
    if (code === 'G28') expect(after('G28 A90.')).toEqual(['rapid 1 2 0'])
  })
})

describe('a feed', () => {
  it.each(['G31 X3.', 'G13 I1. D3 Z-.1'])('is needed by %s', (line) => {
    expect(complaints(`G20 G90 G17\nG0 X1. Y2. Z0.\n${line}\nM30`, onMill({ radii }))).toContain('no-feed 3')
  })
})

describe('threads', () => {
  const TURN = 'G20 G97 S600 M3\nT0101\nG0 X2. Z.1\nG99\n'
  const turned = (text: string, options = onLathe()) => moves(`${TURN}${text}\nM30`, options).slice(1)
  const out = (leads: number, starts = false) =>
    onLathe({ profile: { ...compact, reading: { ...compact.reading, threads: { leads, starts } } } })

  it('run out at 45 degrees over so many leads while M23 holds, and square after M24', () => {
    const square = ['rapid 0.9 0 0.1', 'in-step 0.9 0 -1', 'rapid 1 0 -1', 'rapid 1 0 0.1']
    const angled = [
      'rapid 0.9 0 0.1',
      'in-step 0.9 0 -0.9',
      'in-step 1 0 -1',
      'rapid 1 0 -1',
      'rapid 1 0 0.1',
    ]
    expect(turned('G92 X1.8 Z-1. F.1', out(1))).toEqual(square)
    expect(turned('M23\nG92 X1.8 Z-1. F.1', out(1))).toEqual(angled)
    expect(turned('G92 X1.8 Z-1. F.1', out(1, true))).toEqual(angled)
    expect(turned('M24\nG92 X1.8 Z-1. F.1', out(1, true))).toEqual(square)
    expect(turned('M23\nG92 X1.8 Z-1. F.1', out(0.5))[1]).toBe('in-step 0.9 0 -0.95')
  })

  it('two lines: the third and fourth digit of P are tenths of a lead', () => {
    const two = (p: string) =>
      turned(`G76 P${p} Q0 R0.\nG76 X1.8 Z-1. P1000 Q1000 F.1`, onLathe({ profile: twoLine }))
    expect(two('010060')).toContain('in-step 0.9 0 -1')
    expect(two('011060')).toEqual(expect.arrayContaining(['in-step 0.9 0 -0.9', 'in-step 1 0 -1']))
    expect(two('010560')).toEqual(expect.arrayContaining(['in-step 0.9 0 -0.95', 'in-step 0.95 0 -1']))
  })

  it('M23 is no code of a control whose threads run out square, nor of a mill', () => {
    expect(complaints('G20\nM23\nM30', onLathe({ profile: twoLine }))).toEqual(['unknown-code 2'])
    expect(complaints('G20\nM23\nM30')).toEqual(['unknown-code 2'])
  })

  it('a lead that changes: n turns take n minutes over the speed, and come to the sum of the leads', () => {
    // Ten turns from a lead of 0.1 that grows by 0.01 each: 10 x 0.1 + 0.01 x 10^2 / 2 = 1.5 (sum of an arithmetic series).
    const { motion, diagnostics } = read(`${TURN}G34 Z-1.4 F.1 K.01\nM30`, onLathe())
    expect(diagnostics.filter(({ severity }) => severity === 'stop')).toEqual([])
    const row = rowsOf(motion).find((each) => motion.kind[each] === ROW.IN_STEP) as number
    expect(1.5 / (motion.feed[row] as number)).toBeCloseTo(10 / 600, 7)
  })

  it('one that comes to nothing before the end is an alarm, and so is none', () => {
    const codes = (text: string) => complaints(`${TURN}${text}\nM30`, onLathe())
    expect(codes('G34 Z-1.4 F.1 K-.01')).toEqual(['thread-lead 5'])
    expect(codes('G34 Z-.3 F.1 K-.01')).toEqual([])
    expect(codes('G34 Z-1.4 K.01')).toEqual(['cycle-words 5'])
  })

  it('on a taper the lead counts along the longer axis (common practice)', () => {
    const { motion } = read(`${TURN}G32 X2.6 Z-.3 F.1\nM30`, onLathe())
    const row = rowsOf(motion).find((each) => motion.kind[each] === ROW.IN_STEP) as number
    // 0.4 along Z in four turns: 0.5 of way.
    expect(motion.feed[row]).toBeCloseTo((0.5 / 4) * 600, 4)
  })

  it('a start angle (Q) moves nothing: both starts of a thread go the same way', () => {
    expect(turned('G92 X1.8 Z-1. F.2 Q0')).toEqual(turned('G92 X1.8 Z-1. F.2 Q180000'))
  })
})

describe('a code of the profile that is called after every move', () => {
  const cycle = (modal: boolean): OwnCode => ({
    code: 'G181',
    on: 'mill',
    says: 'Spots a hole.',
    by: 'MK',
    does: 'call',
    modal,
    text: 'G1 Z#26 F20.\nG0 Z#18\nM99',
  })
  const options = (modal: boolean) => onMill({ profile: { ...compact, ownCodes: [cycle(modal)] } })
  const text = 'G181 Z-.1 R.5\nX3.\nX4.\nG67\nX5.'

  it('from its own line on, which does not move, until G67', () => {
    expect(after(text, options(true))).toEqual([
      'rapid 3 2 0',
      'line 3 2 -0.1',
      'rapid 3 2 0.5',
      'rapid 4 2 0.5',
      'line 4 2 -0.1',
      'rapid 4 2 0.5',
      'rapid 5 2 0.5',
    ])
    expect(said(text, options(true))).toEqual([])
  })

  it('or once, where its line stands', () => {
    expect(after(text, options(false)).slice(0, 3)).toEqual([
      'line 1 2 -0.1',
      'rapid 1 2 0.5',
      'rapid 3 2 0.5',
    ])
  })

  it('the proof keeps whose word it was', () => {
    expect(read(`${HEAD}${text}\nM30`, options(true)).taken).toMatchObject([{ code: 'G181', by: 'MK' }])
  })
})

describe('block delete by numbers', () => {
  it('all switches are taken to stand alike, and that is said once for each', () => {
    const text = '/X3.\n/2 X4.\n/2 X5.\n/9X6.'
    expect(after(text)).toHaveLength(4)
    expect(said(text)).toEqual(['block-delete-level 4', 'block-delete-level 6'])
    expect(after(text, onMill({ skipOptional: true }))).toEqual([])
    expect(said(text, onMill({ skipOptional: true }))).toEqual([
      'block-delete-level 4',
      'block-delete-level 6',
    ])
    expect(said('/1 X3.')).toEqual([])
    expect(said('/0 X3.')).toEqual(['block-delete-level 3'])
  })
})

describe('a mode and a code of another kind in one block', () => {
  it.each([
    ['G91 G28 Z0.', 'X1.'],
    ['G91 G4 P1', 'X1.'],
    ['G28 Z0. G91', 'X1.'],
    ['G91 G9', 'X1.'],
    ['G19 G4 P1', 'G2 Y3. Z0. R.5'],
    ['G95 S500 G4 P1', 'G1 X3. F.01'],
    ['G61 G4 P1', 'G1 X3.'],
    ['G2 G4 P1', 'X2. R.5'],
    ['G1 G65 P9 A1.', 'X2.'],
  ])('%s holds for the next line as it does where each stands alone', (together, next) => {
    const [first = '', second = ''] = together.split(/ (?=G)/)
    const sub = '\nM30\nO9\nM99'
    const rows = (text: string) => {
      const { motion } = read(`${HEAD}${text}\n${next}${sub}`, onMill())
      const { tool: _, ...state } = motion.states[motion.state[motion.count - 1] as number] ?? { tool: 0 }
      return { moves: moves(`${HEAD}${text}\n${next}${sub}`), feed: motion.feed.at(-2), state }
    }
    expect(rows(together)).toEqual(rows(`${first}\n${second}`))
  })

  it('distances after G91 G28 are distances', () => {
    expect(after('G91 G28 Z0.\nX1.')).toEqual(['rapid 1 2 10', 'rapid 2 2 10'])
  })
})
