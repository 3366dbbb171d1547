import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import type { Profile } from '../control/index.ts'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { extents } from './motion.ts'
import { read } from './read.ts'
import { Scanner } from './scan.ts'
import { compact, complaints, onLathe, onMill, plain, testMill, twoLine } from './testing.ts'
import { readBlocks } from './words.ts'

const NOSES = new Map([[1, { radius: 0.03, x: -1, z: -1 }]])
const RADII = new Map([[1, 0.25]])
/** A profile with codes of its own, one of which calls a text that calls it again. */
const withOwn = (profile: Profile): Profile => ({
  ...profile,
  reading: {
    ...profile.reading,
    threads: { leads: 1, starts: true },
    driven: {
      turns: { clockwise: 133, counter: 134, off: 135, speed: 'P' },
      axis: null,
      face: { on: 'G12.1', off: 'G13.1', x: 'diameter', across: 'C' },
    },
    positions: { ...profile.reading.positions, oneSide: { X: 1, Y: -1, Z: 2 } },
  },
  ownCodes: [
    { code: 'M77', on: 'both', says: '', by: '', does: 'call', modal: false, text: 'G1 X#24 F9.\nM77\nM99' },
    { code: 'M78', on: 'both', says: '', by: '', does: 'harmless', seconds: 2 },
    {
      code: 'O9',
      on: 'mill',
      says: '',
      by: '',
      does: 'call',
      modal: false,
      text: 'O9\nG41 D1 G3 X1. R1.\nM99',
    },
    { code: 'G123', on: 'both', says: '', by: '', does: 'stop' },
    {
      code: 'G177',
      on: 'both',
      says: '',
      by: '',
      does: 'call',
      modal: true,
      text: 'G1 Z#26 F9.\nG177\nM99',
    },
  ],
})

/** Reads, times and measures; gives how many blocks ran. */
function digest(text: string, which: number): number {
  const profile = [compact, twoLine, plain][which % 3] ?? compact
  const of = {
    profile: which % 4 < 2 ? profile : withOwn(profile),
    mostBlocks: 3000,
    radii: RADII,
    noses: NOSES,
  }
  const options = which % 2 ? onLathe(of) : onMill(of)
  const { motion } = read(text, options)
  const { total } = cycleTime(motion, speedsOf(testMill, compact, 'inch'))
  if (!(total >= 0)) throw new Error(`a time of ${total}: ${which} ${JSON.stringify(text)}`)
  extents(motion)
  return motion.blocks
}

/** Repeatable numbers (xorshift, Marsaglia 2003). */
function dice(seed: number) {
  let state = seed | 1
  return (below: number) => {
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    return (state >>> 0) % below
  }
}

const PIECES = [
  'G0',
  'G1',
  'G2',
  'G3',
  'G4',
  'G10',
  'G17',
  'G18',
  'G19',
  'G20',
  'G21',
  'G28',
  'G32',
  'G40',
  'G41',
  'G42',
  'G9',
  'G51',
  'G16',
  'G15',
  'G51.1',
  'G50.1',
  'G101',
  'G100',
  'G12',
  'G12.1',
  'G13.1',
  'M133',
  'C30.',
  'H-40.',
  'M98 <SUB>',
  'O<SUB>',
  '<SUB>',
  'G13',
  'G29',
  'G31',
  'G34',
  'G38.2',
  'G60',
  'G150',
  'G177',
  'M23',
  'M24',
  '/3',
  '#100=#5061',
  ',C.1',
  ',R.2',
  ',A135.',
  'L10',
  'L12',
  '#2001=4.',
  'G123',
  'M77',
  'M78',
  'P9',
  'G43',
  'G49',
  'G50',
  'G52',
  'G53',
  'G54',
  'G65',
  'G66',
  'G67',
  'G68',
  'G69',
  'G70',
  'G71',
  'G72',
  'G73',
  'G74',
  'G75',
  'G76',
  'G80',
  'G81',
  'G83',
  'G84',
  'G87',
  'G88',
  'G90',
  'G91',
  'G92',
  'G93',
  'G94',
  'G95',
  'G96',
  'G98',
  'G99',
  'G103',
  'G107',
  'G154',
  'G187',
  'M0',
  'M3',
  'M5',
  'M6',
  'M29',
  'M30',
  'M97',
  'M98',
  'M99',
  'P9811',
  'P9812',
  'P9815',
  'P9843',
  'P1',
  'P2',
  'Q2',
  'T0101',
  'X1.',
  'X-2',
  'Y.5',
  'Z-1.',
  'U-.1',
  'W.2',
  'A90.',
  'I1.',
  'J-.5',
  'K.2',
  'R.5',
  'R-1.',
  'Q.1',
  'F10.',
  'S500',
  'H1',
  'D1',
  'L3',
  'L1000000',
  'N1',
  'N2',
  'O1',
  'O2',
  '#1=#1+1',
  '#[#1]=[1/#2]',
  'IF[#1 LT 5]GOTO1',
  'WHILE[#1 LT 9]DO1',
  'END1',
  'GOTO2',
  'IF[#0 EQ #1]THEN #2=1',
  '#3000=1',
  '(',
  ')',
  ';',
  '%',
  '/',
  '[',
  ']',
  'X#1',
  'Y[#1*2',
  'Z-#5',
  '\r',
  '\n',
  '\n',
  '\n',
  '\u0000',
  'é',
  '1',
  '.',
  '-',
]

/** Whole programs with what is hardest to follow, as they are written. */
const WHOLE = [
  'G20 G90 G17\nT1 M6\nG43 H1 G0 X0. Y0. Z1.\nM3 S900\nG1 Z-.1 F9.\nG41 D1 X1. Y1. F9.\nX2. ,R.2\nY2. ,C.1\nG3 X1. Y1. R1.\n#2401=.01\nG42 X0. Y0.\nG40 X-1.\nG0 Z1.\nM30',
  'G20 G90\nT1 M6\nG43 H1 G0 Z1.\nG16\nG81 X2. Y30. Z-.5 R.1 F9.\nG91 Y60. K3\nG90 G80 G15\nG51 X0. Y0. Z0. P2.\nG1 X1. F9.\nG2 X2. Y1. R2.\nG50\nG51.1 X0.\nG1 G41 D1 X3.\nY2.\nX-1.\nG40 X4.\nG50.1\nM30',
  'G20 T0101\nG50 S2000\nG96 S300 M3\nG99 G0 X3. Z.1\nG71 U.1 R.05\nG71 P10 Q20 U.02 W.005 F.01\nN10 G42 G0 X1.\nG1 Z-.5 ,R.1 F.005\nX2. ,A135.\nG2 X2.5 Z-1.5 R.25\nN20 G40 G1 X3.\nG70 P10 Q20\nG28 U0.\nM30',
  'G20 T0101\nG97 S500 M3\nG98 G0 X2. Z.1\nG42 G1 X1. Z0. F9.\nZ-.5 I.05\nA135.\nX4. Z-2. A90.\nG73 P10 Q20 I.2 K.1 U.02 W.01 D3\nN10 G0 X1.\nG3 X2. Z-.5 R.5\nN20 G1 Z-1.\nG40 G0 X4.\nM30',
  'G20 T0101\nG98 M133 P900\nG0 X3. Z.1 C0.\nG83 Z-.5 R.1 Q.2 F9.\nC90.\nH90.\nG80\nG0 C360.\nG12.1\nG42 G1 X2. C0. F9.\nC.5\nG3 X1. C1. R.5\nX-1. ,C.1\nG1 C-.5\nG40 X-3.\nG13.1\nM98 <SUB>\nM30\nO<SUB>\nG1 C-40. X4.\nM99',
]

/** A word of a program, taken apart so that nothing of its text is lost. */
const WORDS = /[^\s]*\n?\s?/g

/** A program with a few of its words lost, doubled, swapped, changed, or others put in. */
function mutated(text: string, roll: (below: number) => number): string {
  const words = text.match(WORDS)?.filter(Boolean) ?? []
  for (let n = 1 + roll(6); n > 0; n--) {
    const at = roll(words.length)
    const other = roll(words.length)
    const word = words[at] ?? ''
    const kind = roll(6)
    if (kind === 0) words.splice(at, 1)
    else if (kind === 1) words.splice(at, 0, word)
    else if (kind === 2) [words[at], words[other]] = [words[other] ?? '', word]
    else if (kind === 3) words[at] = word.replace(/-?[\d.]+/, String((roll(4001) - 2000) / 10 ** roll(4)))
    else if (kind === 4) words[at] = word.replace(/[.\d-]/, '')
    else words.splice(at, 0, `${PIECES[roll(PIECES.length)]}${roll(2) === 0 ? '\n' : ' '}`)
  }
  return words.join('')
}

describe('any text at all', () => {
  it('programs that are right but for a few words: none throws, none hangs', { timeout: 240_000 }, () => {
    const programs = times(8_000, 100_000)
    const roll = dice(20261201)
    let blocks = 0
    for (let n = 0; n < programs; n++)
      blocks += digest(mutated(WHOLE[n % WHOLE.length] ?? '', roll), roll(12))
    expect(blocks).toBeGreaterThan(programs)
  })

  it('programs of hand-made pieces and of random characters: none throws, none hangs', {
    timeout: 120_000,
  }, () => {
    const programs = times(10_000, 100_000)
    const roll = dice(20261125)
    let blocks = 0
    for (let n = 0; n < programs; n++) {
      const length = 1 + roll(n % 10 === 0 ? 60 : 14)
      const text = Array.from({ length }, () =>
        n % 4 === 3 ? String.fromCharCode(roll(n % 8 === 7 ? 65536 : 128)) : PIECES[roll(PIECES.length)],
      ).join(roll(3) === 0 ? '\n' : ' ')
      blocks += digest(text, n)
    }
    expect(blocks).toBeGreaterThan(programs)
  })

  it('shrinks to the smallest that is wrong, should one be', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...PIECES), { maxLength: 40 }),
        fc.string({ unit: 'binary', maxLength: 60 }),
        fc.nat(5),
        (pieces, noise, which) => {
          digest(pieces.join(' '), which)
          digest(pieces.join('\n') + noise, which)
        },
      ),
    )
  })

  it.each([
    ['', 'not-a-program 1'],
    ['G\u0000\u0031\u0000', 'not-a-program 1'],
    ['N1 G20\nGOTO 1', 'no-end 2'],
    ['G20\nDO1\nEND1', 'no-end 2'],
    ['O1 G20\nM98 P1', 'recursion 2'],
    ['O1 G20\nG65 P1', 'recursion 2'],
    ['G20\nWHILE [1 EQ 1] DO1\nG0 X1.', undefined],
    ['G20\nWHILE [1 EQ 2] DO1\nG0 X1.', 'end-missing 2'],
  ])('%j', (text, code) => {
    const said = complaints(text, onMill({ mostBlocks: 20_000 }))
    if (code === undefined) expect(said).toEqual([])
    else expect(said.some((each) => each.split(' ')[0] === code.split(' ')[0])).toBe(true)
  })

  it('one line of 10 MB, and a million lines that are none', { timeout: 60_000 }, () => {
    const long = read(`G20 ${'X1. '.repeat(2_500_000)}`, onMill())
    expect(long.diagnostics.map(({ code }) => code)).toContain('word-twice')
    expect(read('?\n'.repeat(1_000_000), onMill())).toMatchObject({ lines: 1_000_000 })
  })

  it('stops when it is asked to, and says how far it is', () => {
    const shares: number[] = []
    const { cancelled, motion } = read(
      'X1.\n'.repeat(100_000),
      onMill({
        onProgress: (share) => {
          shares.push(share)
          return share < 0.5
        },
      }),
    )
    expect(cancelled).toBe(true)
    expect(shares).toEqual(shares.toSorted((a, b) => a - b))
    expect(motion.blocks).toBeLessThan(60_000)
  })
})

describe('the words of a line (ISO 6983-1)', () => {
  it('stand where they stand: each can be cut out of its line again', () => {
    const word = fc
      .tuple(
        fc.constantFrom('G', 'X', 'y', 'Z', 'F'),
        fc.integer({ min: -999_999_999, max: 999_999_999 }),
        fc.constantFrom('', ' ', '\t'),
      )
      .map(([letter, n, space]) => ({ letter, value: n / 10_000, text: `${space}${letter}${n / 10_000}` }))
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), (words) => {
        const line = words.map(({ text }) => text).join('')
        const [block] = readBlocks(line)
        expect(block?.words.map(({ letter, value }) => [letter, value])).toEqual(
          words.map(({ letter, value }) => [letter.toUpperCase(), value]),
        )
        for (const { from, to, letter, value } of block?.words ?? []) {
          const cut = line.slice(from, to)
          expect([cut[0]?.toUpperCase(), Number(cut.slice(1))]).toEqual([letter, value])
        }
      }),
    )
  })

  it.each([
    ['X1.5', 1.5],
    ['x +.5', 0.5],
    ['X - 1 0 . 2 5', -10.25],
    ['X123456789012.5', 123456789012.5],
    ['X-0', -0],
    ['X0.1', 0.1],
    ['X5.', 5],
  ])('%s', (text, value) => {
    const scan = new Scanner(text)
    scan.line(0)
    expect(scan.value('X')).toBe(value)
  })

  it('may be macro variables, comments, a slash in front; what is none is kept as it stands', () => {
    const [first, second, third] = readBlocks('/G1 X#101 (along) Y2.\n#101 = 3\nG0 X1. ; end')
    expect(first).toMatchObject({ optional: true, comments: ['along'] })
    expect(first?.words.map(({ letter, variable }) => [letter, variable])).toEqual([
      ['G', undefined],
      ['X', 101],
      ['Y', undefined],
    ])
    expect(second).toMatchObject({ unclear: '#101 = 3', words: [] })
    expect(third).toMatchObject({ optional: false, comments: ['end'] })
  })
})
