import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type OwnCode, type Profile, profile as profileSchema } from '../control/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { read } from './read.ts'
import { compact, complaints, moves, onLathe, onMill, testMill, twoLine } from './testing.ts'

const says = (code: string, rest: Partial<OwnCode> & Pick<OwnCode, 'does'>): OwnCode =>
  ({ code, on: 'both', says: '', by: 'MK', seconds: 0, ...rest }) as OwnCode
const withCodes = (...ownCodes: OwnCode[]): Profile => ({ ...compact, ownCodes })
const on = (...codes: OwnCode[]) => onMill({ profile: withCodes(...codes) })
const severities = (text: string, options = onMill()) =>
  read(text, options).diagnostics.map(({ code, severity }) => `${code} ${severity}`)

const HEAD = 'G20 G90\n'
const END = '\nM30'

describe('a code that the reader does not follow', () => {
  it.each([
    ['M77', 'unknown-code stop', 'M77'],
    ['G123 X1.', 'unknown-code stop', 'G123'],
    ['G5 X0. Y0. P2.', 'not-seen stop', 'G5'],
    ['G150 X1.', 'not-seen stop', 'G150'],
    ['M98 P8001', 'subprogram-missing stop', 'O8001'],
    ['G65 P8001 A1.', 'subprogram-missing stop', 'O8001'],
  ])('%s stops the proof, and names what the profile could say of it', (line, said, own) => {
    const { diagnostics } = read(`${HEAD}${line}${END}`, onMill())
    expect(diagnostics.map(({ code, severity }) => `${code} ${severity}`)).toEqual([said])
    expect(diagnostics[0]).toMatchObject({ line: 2, own })
  })

  it('is one only on the kind of machine that lacks it', () => {
    expect(severities('G20 G96 S300\nG50 S2000\nM30', onLathe())).not.toContain('unknown-code stop')
    expect(severities('G20 G96 S300\nM30')).toEqual(['unknown-code stop'])
    expect(severities('G20 G68 X0. Y0. R5.\nM30', onLathe())).toEqual(['unknown-code stop'])
  })
})

describe('what a profile says of a code', () => {
  it('harmless: the program goes on, and takes the time', () => {
    const text = `${HEAD}G0 X1. Y1. Z1.\nM77\nX2.${END}`
    const slow = on(says('M77', { does: 'harmless', seconds: 7.5 }))
    const quick = on(says('M77', { does: 'harmless' }))
    expect(complaints(text, slow)).toEqual([])
    expect(moves(text, slow)).toEqual(moves(text.replace('M77\n', ''), slow))
    const seconds = (options: typeof slow) =>
      cycleTime(read(text, options).motion, speedsOf(testMill, compact, 'inch')).total
    expect(seconds(slow) - seconds(quick)).toBeCloseTo(7.5, 9)
  })

  it('its own words are still read: an M code beside a move', () => {
    const options = on(says('M77', { does: 'harmless' }))
    expect(moves(`${HEAD}G0 X3. M77${END}`, options)).toEqual(moves(`${HEAD}G0 X3.${END}`, options))
  })

  it('a G code that moves nothing does not stand with axis words: nobody knows what they then do', () => {
    const options = on(says('G123', { does: 'harmless' }))
    expect(severities(`${HEAD}G123 P1.${END}`, options)).toEqual([])
    expect(severities(`${HEAD}G123 X1.${END}`, options)).toEqual(['own-code-axes stop'])
    expect(severities(`${HEAD}G123 A90.${END}`, options)).toEqual(['own-code-axes stop'])
  })

  it('a stop is a stop of the program, with its words', () => {
    const options = on(says('M77', { does: 'stop', says: 'Turn the part over.' }))
    expect(read(`${HEAD}M77${END}`, options).motion.events[0]).toEqual({
      does: 'stop',
      optional: false,
      says: 'Turn the part over.',
    })
  })

  it('not allowed: it stops the proof, once, and says why', () => {
    const options = on(says('M77', { does: 'not-allowed', says: 'opens the chuck' }))
    const { diagnostics } = read(`${HEAD}M77\nM77${END}`, options)
    expect(diagnostics).toHaveLength(1)
    expect(diagnostics[0]).toMatchObject({ code: 'not-allowed', severity: 'stop', line: 2, times: 2 })
    expect(diagnostics[0]?.says).toContain('opens the chuck')
  })

  it('on the kind of machine that it is said for only', () => {
    const profile = withCodes(says('M10', { does: 'harmless', on: 'mill' }))
    expect(severities(`G20\nM10${END}`, onMill({ profile }))).toEqual([])
    expect(severities(`G20\nM10${END}`, onLathe({ profile }))).toEqual(['unknown-code stop'])
  })

  it('a code that is read exactly stays what it is', () => {
    const options = on(says('M3', { does: 'harmless' }), says('G1', { does: 'harmless' }))
    const text = `${HEAD}S500 M3\nG1 X2. F5.${END}`
    expect(moves(text, options)).toEqual(moves(text))
    expect(read(text, options).taken).toEqual([])
  })

  it('is kept with the program: which codes, what they were taken for, and on whose word', () => {
    const options = on(says('M77', { does: 'harmless' }), says('O8001', { does: 'stop', by: '' }))
    expect(read(`${HEAD}M77\nM98 P8001\nM77${END}`, options).taken).toEqual([
      { code: 'M77', how: 'harmless', by: 'MK', line: 2, times: 2 },
      { code: 'O8001', how: 'stop', by: '', line: 3, times: 1 },
    ])
    expect(read(`${HEAD}G0 X1.${END}`, options).taken).toEqual([])
    expect(read(`${HEAD}G65 P9832${END}`, onMill()).taken).toMatchObject([{ code: 'O9832', how: 'macro' }])
    expect(read(`${HEAD}F9. G47 P0 (AB) X1. J.2 R.1 Z-.01${END}`, onMill()).taken).toMatchObject([
      { code: 'G47', how: 'letters' },
    ])
  })
})

describe('a program that the profile has the text of', () => {
  const body = 'G1 X[#24*2] F20.\nY#25'
  const inside = `${HEAD}G65 P8001 X1. Y3.\nG0 Z1.${END}\nO8001\n${body}\nM99\n`
  const outside = `${HEAD}G65 P8001 X1. Y3.\nG0 Z1.${END}`

  it.each([
    ['as it stands', `${body}\nM99`],
    ['with its own O number and percent signs', `%\nO8001 (POCKET)\n${body}\nM99\n%`],
    ['with line ends of another system', `O8001\r\n${body.replaceAll('\n', '\r\n')}\r\nM99\r\n`],
  ])('%s runs as if it stood in the program', (_, text) => {
    const options = on(says('O8001', { does: 'call', text }))
    expect(complaints(outside, options)).toEqual([])
    expect(moves(outside, options)).toEqual(moves(inside))
  })

  it('is called by a code of its own, with the words of its line', () => {
    for (const code of ['M77', 'G123']) {
      const options = on(says(code, { does: 'call', text: `${body}\nM99` }))
      const text = outside.replace('G65 P8001', code)
      expect(complaints(text, options)).toEqual([])
      expect(moves(text, options)).toEqual(moves(inside))
    }
  })

  it('makes its moves and findings on the line that calls it', () => {
    const options = on(says('O8001', { does: 'call', text: `${body}\nG5 P2.\nM99` }))
    const { motion, diagnostics, lines } = read(outside, options)
    const at = [...motion.line]
    expect(at.slice(0, 2)).toEqual([2, 2])
    expect(at.at(-1)).toBe(4)
    expect(Math.max(...motion.blockLine)).toBe(4)
    expect(lines).toBe(4)
    expect(diagnostics).toMatchObject([{ code: 'not-seen', line: 2 }])
    expect(diagnostics[0]?.says).toMatch(/^In O8001, line 3 of it: G5/)
  })

  it('one that has no M99 runs into nothing: that is said', () => {
    const options = on(says('O8001', { does: 'call', text: body }))
    expect(complaints(outside, options)).toEqual(['runs-into-next 2'])
  })

  it('that is also in the program itself is the one in the program', () => {
    const options = on(says('O8001', { does: 'call', text: 'G1 X9. F1.\nM99' }))
    expect(moves(inside, options)).toEqual(moves(inside))
    expect(read(inside, options).taken).toEqual([])
  })

  it('calls another of the profile, and is not run into by the program', () => {
    const options = on(
      says('O8001', { does: 'call', text: 'M98 P8002\nM99' }),
      says('O8002', { does: 'call', text: 'G0 X7.\nM99' }),
    )
    const text = `${HEAD}M98 P8001${END}`
    expect(moves(text, options)[0]).toMatch(/^rapid 7 /)
    expect(read(text, options).taken.map(({ code, line }) => `${code} ${line}`)).toEqual([
      'O8001 2',
      'O8002 2',
    ])
    expect(complaints(`${HEAD}G0 X1.`, options)).toEqual([])
    expect(moves(`${HEAD}G0 X1.`, options)).toHaveLength(1)
  })

  it('whatever text it has: nothing throws, nothing hangs, and the lines are those of the program', () => {
    const piece = fc.constantFrom(
      'O1',
      'O8001',
      'M99',
      'G0 X1.',
      'GOTO1',
      'N1',
      '%',
      'M98 P8001',
      'M77',
      '(',
      '#1=1',
      '\n',
    )
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
        const text = pieces.join('\n')
        const options = {
          ...on(says('O8001', { does: 'call', text }), says('M77', { does: 'call', text })),
          mostBlocks: 2000,
        }
        const { motion, lines, diagnostics } = read(`${HEAD}M98 P8001\nM77\nG0 X2.${END}`, options)
        expect(lines).toBe(5)
        for (const line of [...motion.line, ...motion.blockLine, ...diagnostics.map((each) => each.line)])
          expect(line).toBeLessThanOrEqual(5)
      }),
    )
  })
})

describe('words that are passed over', () => {
  it.each([
    ['G1 X1. U2. F5.', 'word-not-seen stop'],
    ['G0 W-1.', 'word-not-seen stop'],
    ['G0 A90. B45.', 'word-not-seen stop'],
    ['G1 X1. R.2 F5.', 'word-not-seen stop'],
    ['G1 X1. I.2 F5.', 'word-idle look'],
    ['G0 X1. Q.2', 'word-idle look'],
    ['G2 X1. Y1. R1. Q5. F5.', 'word-idle look'],
  ])('on a mill: %s', (line, said) =>
    expect(severities(`${HEAD}G0 X0. Y0. Z1.\n${line}${END}`)).toEqual([said]),
  )

  it.each([
    ['G1 X1. C.1 F.01', 'word-not-seen stop'],
    ['G1 X1. ,R.1 F.01', 'word-not-seen stop'],
    ['G1 Z-1. ,A30. F.01', 'word-not-seen stop'],
    ['G1 Z-1. ,C.1 F.01', 'word-not-seen stop'],
    ['G0 Y1.', 'word-not-seen stop'],
    ['G0 C90.', 'word-not-seen stop'],
    ['G0 H90.', 'word-not-seen stop'],
    ['G50 X4. Z2.', 'not-seen stop'],
    ['G55', 'not-seen stop'],
    ['G154 P2', 'not-seen stop'],
    ['G60 X1.', 'not-seen stop'],
    ['G12.1', 'unknown-code stop'],
  ])('on a lathe: %s', (line, said) =>
    expect(severities(`G20 T0101 G97 S500 M3 G98\nG0 X1. Z1.\n${line}${END}`, onLathe())).toContain(said),
  )

  it.each([
    'G1 X1. Y1. Z1. A90. F5. S500 H1 D1 M8',
    'G2 X1. Y1. I.5 J0. F5.',
    'G3 X0. Y0. Z-1. I.5 F5.',
    'G4 U1.',
    'G83 X1. Z-1. R.1 Q.1 P100 F5.',
    'G68 X0. Y0. R5.\nG69',
    'G10 L2 P1 X-1. Y-1. Z-1.',
    'G187 P3 E.002',
    'G103 P1',
    'G107 A0. Y0. R1.\nG107',
  ])('not what has a meaning: %s', (line) => {
    const said = severities(`${HEAD}G0 X0. Y0. Z1.\n${line}${END}`)
    expect(said.filter((each) => /not-seen|idle|unknown/.test(each))).toEqual([])
  })

  it('words that are handed to a program are no modes: feed, speed, offsets and tool stay', () => {
    const text = `${HEAD}F10. S500 G43 H3\nG65 P8001 F99. S9 D4 H5 T6 U1.\nG1 X1.${END}\nO8001\nM99`
    const { motion } = read(text, onMill())
    expect(motion.feed[0]).toBe(10)
    expect(motion.states.at(-1)).toMatchObject({ length: { h: 3 }, d: 0, tool: 0 })
    expect(severities(text)).toEqual([])
  })

  it('a variable of the control that nobody knows stops the proof; one of the program does not', () => {
    expect(severities(`${HEAD}IF [#3011 GT 5] GOTO 7\nG0 X1.\nN7${END}`)).toEqual(['variable-not-seen stop'])
    expect(severities(`${HEAD}#1=#5021\nG0 X#100${END}`)).toEqual(['unset-variable look'])
    expect(severities(`${HEAD}#3011=1\nG0 X#3011${END}`)).toEqual([])
  })
})

describe('exact stop of one block (G9, ISO 6983-1)', () => {
  it('holds for its own block, and G61 for all', () => {
    const text = `${HEAD}G1 X1. F50.\nG9 X2.\nX3.\nG61 X4.\nX5.\nG64 X6.${END}`
    const { motion } = read(text, onMill())
    const stops = [...motion.state].map((state) => motion.states[state]?.exactStop)
    expect(stops.slice(0, 6)).toEqual([false, true, false, true, true, false])
  })
})

describe('the second home', () => {
  const offsets = new Map([['G54', { X: -10, Y: -5, Z: -15 }]])
  it('is where the machine’s page says, by way of the point that is named', () => {
    const machine = { ...testMill, secondHome: { X: -1, Y: -2, Z: -3 } }
    const at = onMill({ offsets, machine })
    const text = 'G20 G90 G54 G0 X1. Y1. Z1.\nG91 G30 Z0.5\nG30 X0. Y0.\nM30'
    expect(moves(text, at).slice(1)).toEqual(['rapid 1 1 1.5', 'rapid 1 1 12', 'rapid 9 3 12'])
    expect(severities(text, at)).toEqual([])
    expect(severities(text.replace('G30 Z0.5', 'G30 P3 Z0.5'), at)).toEqual(['second-home stop'])
    expect(severities(text, onMill({ offsets }))).toEqual(['second-home stop'])
  })
})

describe('a local shift on a lathe', () => {
  it('is in diameters, as X is', () => {
    expect(moves('G20 T0101\nG0 X2. Z1.\nG52 X1. Z.5\nG0 X2. Z1.\nM30', onLathe())).toEqual(
      moves('G20 T0101\nG0 X2. Z1.\nG0 X3. Z1.5\nM30', onLathe()),
    )
  })
})

describe('the list of a profile', () => {
  const list = (...ownCodes: unknown[]) => profileSchema.safeParse({ ...compact, ownCodes })
  it('older profiles have none', () => {
    const { ownCodes: _, ...older } = compact
    expect(profileSchema.parse(older).ownCodes).toEqual([])
  })
  it.each([
    ['the same twice', [says('M77', { does: 'stop' }), says('M77', { does: 'harmless' })]],
    [
      'for both kinds and for one',
      [says('M77', { does: 'stop' }), says('M77', { does: 'stop', on: 'mill' })],
    ],
    ['no code', [says('X77', { does: 'stop' })]],
    ['with zeros in front', [says('M007', { does: 'stop' })]],
    ['a time below zero', [says('M77', { does: 'harmless', seconds: -1 })]],
    ['no time', [{ code: 'M77', on: 'both', says: '', by: '', does: 'harmless' }]],
    ['a call without a text', [says('M77', { does: 'call', text: ' \n' })]],
    ['a call with a text that is too long', [says('M77', { does: 'call', text: 'X'.repeat(20_001) })]],
  ])('refuses %s', (_, codes) => expect(list(...codes).success).toBe(false))
  it('takes one for each kind of machine', () => {
    const codes = (['mill', 'lathe'] as const).map((kind) => says('M77', { does: 'stop', on: kind }))
    expect(list(...codes).success).toBe(true)
  })
  it('the built-in ones say nothing of a code that is read anyway', () => {
    for (const profile of [compact, twoLine])
      for (const { code } of profile.ownCodes)
        expect(severities(`G20\n${code}${END}`, onMill({ profile: { ...profile, ownCodes: [] } }))).toEqual([
          'unknown-code stop',
        ])
  })
})
