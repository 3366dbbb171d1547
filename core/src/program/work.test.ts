import { describe, expect, it } from 'vitest'
import { cycleTime, speedsOf } from '../timing/index.ts'
import { extents } from './motion.ts'
import { read } from './read.ts'
import { compact, complaints, onLathe, onMill, testMill } from './testing.ts'
import { MOST_WORK } from './work.ts'

/** The work that a simulated machine of the server allows. */
const LITTLE = 2_500_000

/** Programs that a control would run for hours or for ever; each is legal, or nearly. */
const ENDLESS: Record<string, string> = {
  'a loop round a long value': `G20\nWHILE[1EQ1]DO1\n#1=[${'1+'.repeat(5000)}1]\nEND1\nM30`,
  'a loop with a long condition': `G20\nWHILE[${'1+'.repeat(5000)}1]DO1\nEND1\nM30`,
  'pecks of a thousandth': `G20 G90 G54\nS1000 M3\n${Array.from({ length: 200 }, (_, n) => `G83 X${n}. Y0. Z-9.9 R.05 Q.001 F5.`).join('\n')}\nG80\nM30`,
  'a loop whose counter is never counted': `G20\n#1=0\nWHILE[#1LT1]DO1\n${'G1 X1. F10.\n'.repeat(20_000)}END1\nM30`,
  'a jump among lines of one number': `G20\n${'N1 X1.\n'.repeat(20_000)}GOTO1\n`,
  'a subprogram a million times': `O1\nG20\nM98 P2 L999999\nM30\nO2\n${'X1.\nX2.\n'.repeat(100)}M99`,
  'lines of a log file without end': `DO1\nDPRNT[${'A'.repeat(10_000)}]\nEND1`,
}

describe('the work of reading a program', () => {
  it.each(Object.keys(ENDLESS))('is limited, and said: %s', (name) => {
    const program = read(ENDLESS[name] ?? '', onMill({ mostWork: LITTLE }))
    expect(program.diagnostics.map(({ code, severity }) => [code, severity])).toContainEqual([
      'too-much',
      'stop',
    ])
    const said = program.diagnostics.find(({ code }) => code === 'too-much')
    expect(said?.says).toMatch(/more work than was allowed \(3 million steps\).*was not read/)
    // Rows of 60 bytes: what is put out is limited with it.
    expect(program.motion.count).toBeLessThan(400_000)
    expect(program.printed.length).toBeLessThan(1000)
  })

  it('is counted and not timed: the same program stops at the same block, and further where more is allowed', () => {
    const text = ENDLESS['pecks of a thousandth'] ?? ''
    const rows = [LITTLE, LITTLE, 2 * LITTLE].map((mostWork) => read(text, onMill({ mostWork })).motion.count)
    expect(rows[1]).toBe(rows[0])
    expect((rows[2] ?? 0) / (rows[0] ?? 1)).toBeGreaterThan(1.9)
  })

  it('allows more blocks of a loop where it allows more work', () => {
    const text = 'G20\n#1=0\nWHILE[#1LT300000]DO1\n#1=#1+1\nEND1\nM30'
    const codes = (mostWork: number) => read(text, onMill({ mostWork })).diagnostics.map(({ code }) => code)
    expect(codes(MOST_WORK)).toEqual(expect.arrayContaining([expect.stringMatching(/^(no-end|too-much)$/)]))
    expect(codes(10 * MOST_WORK)).toEqual([])
  })

  it('is never too much for a program that runs straight through, however long it is', () => {
    const lines = 60_000
    for (const line of ['X1.\n', 'G2 X1. Y1. I.5\n', '#1=#1+1\n', '/X1\n', '(a)\n', 'G1 X[1+1]\n', 'M8\n']) {
      const text = `G20 G1 F10.\n#1=0\n${line.repeat(lines)}M30`
      const { diagnostics } = read(text, onMill({ mostWork: 0 }))
      expect([line, diagnostics.map(({ code }) => code)]).toEqual([
        line,
        expect.not.arrayContaining(['too-much']),
      ])
    }
  })

  it('leaves alone what ends by itself: a hundred thousand holes, and a macro over a surface', () => {
    expect(complaints('G20 G90 S100 M3\nG91 G81 X.1 Z-.5 R.1 F10. L3000\nG80 M30', onMill())).toEqual([])
    const surface =
      'G20 G90 G1 F10.\n#1=0\nWHILE[#1LT40000]DO1\n#2=SIN[#1]*.5\nX[#1/1000.] Z#2\n#1=#1+1\nEND1\nM30'
    const { motion, diagnostics } = read(surface, onMill())
    expect(diagnostics.map(({ code }) => code)).not.toContain('too-much')
    expect(motion.count).toBeGreaterThan(40_000)
  })
})

describe('a program that is nothing but large', () => {
  it.each([
    ['carriage returns', '\r'.repeat(4_000_000)],
    ['line breaks', '\n'.repeat(4_000_000)],
    ['one comment', `G20\n(${'x'.repeat(4_000_000)})\nM30`],
    ['brackets', `#1=${'['.repeat(200_000)}1${']'.repeat(200_000)}`],
    ['signs', `#1=${'-'.repeat(200_000)}1`],
    ['blanks', `#1=1${' '.repeat(2_000_000)}2`],
    ['open comments', '('.repeat(1_000_000)],
    ['variables of variables', `${'#'.repeat(200_000)}1=2`],
  ])('comes to an end: %s', (_name, text) => {
    const { motion } = read(text, onMill({ mostWork: LITTLE }))
    expect(motion.count).toBeLessThan(10)
  })

  it('a text cycle of forty thousand letters is drawn to the limit, and said', () => {
    const text = `G20 G90\nG47 P0 X0 Y0 I0 J.1 R.1 Z-.01 F10. E5. (${'AB8'.repeat(13_333)})\nM30`
    expect(complaints(text, onMill({ mostWork: LITTLE })).some((said) => said.startsWith('too-much'))).toBe(
      true,
    )
  })
})

describe('the time of a program with numbers that no control takes', () => {
  const HUGE = '9'.repeat(400)
  it.each([
    `G20 G1 X${HUGE} F10.`,
    `G20 G1 X1. F${HUGE}`,
    `G20 G1 X1. F.${'0'.repeat(350)}1`,
    `G20 G1 X${'9'.repeat(300)} F10.\nX-${'9'.repeat(300)}`,
    `G20 G4 P${HUGE}`,
    `G20 G4 X${HUGE}`,
    `G20 S${HUGE} M3\nG95 G1 X1. F${HUGE}`,
    `G20 G2 X1. Y1. I${HUGE} F10.`,
    `G20 G2 X1. Y1. R${HUGE} F10.`,
    `G20 G93 G1 X1. F${HUGE}`,
    'G20 G93 G1 X1. F0',
    `G20 #1=${'9'.repeat(300)}*${'9'.repeat(300)}\nG1 X#1 F10.`,
    `G20 S${HUGE} M3\nG84 X0 Y0 Z-1. R.1 F${HUGE}`,
    `G20 G83 Z-${HUGE} R${HUGE} Q${HUGE} F10.`,
    `G20 G68 X0 Y0 R${HUGE}\nG1 X1. F10.`,
    `G20 G52 X${HUGE}\nG1 X1. F10.\nG52 X0\nX2.`,
    `G20 G1 A${HUGE} F10.`,
    `G20 G96 S${HUGE} M3\nG1 X0 F.01`,
  ])('is a number: %s', (text) => {
    for (const options of [onMill({ mostWork: LITTLE }), onLathe({ mostWork: LITTLE })]) {
      const { motion } = read(text, options)
      const time = cycleTime(motion, speedsOf(testMill, compact, 'inch'))
      expect(Number.isFinite(time.total)).toBe(true)
      expect(time.rows.every(Number.isFinite)).toBe(true)
      const box = extents(motion)
      expect(box === null || [...box.least, ...box.greatest].every(Number.isFinite)).toBe(true)
    }
  })
})
