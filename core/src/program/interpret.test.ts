import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type PlannedStep, readProgram, readsAs } from './interpret.ts'
import { readBlocks } from './words.ts'

const steps = (text: string) => readProgram(text).steps.map(({ line: _, ...step }) => step)
const complaints = (text: string) => readProgram(text).diagnostics.map(({ line, says }) => `${line}: ${says}`)

describe('the words of a line (ISO 6983-1)', () => {
  it('stand where they stand: each can be cut out of its line again', () => {
    const word = fc
      .tuple(
        fc.constantFrom('G', 'X', 'y', 'Z', 'F'),
        fc.integer({ min: -999, max: 999 }),
        fc.constantFrom('', ' ', '\t'),
      )
      .map(([letter, n, space]) => ({ letter, value: n / 10, text: `${space}${letter}${n / 10}` }))
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), (words) => {
        const line = words.map(({ text }) => text).join('')
        const [block] = readBlocks(line).blocks
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

  it('may be macro variables, comments, a slash in front; what is none is kept as it stands', () => {
    const [first, second, third] = readBlocks('/G1 X#101 (along) Y2.\n#101 = 3\nG0 X1. ; end').blocks
    expect(first).toMatchObject({ optional: true, comments: ['along'] })
    expect(first?.words.map(({ letter, variable }) => [letter, variable])).toEqual([
      ['G', undefined],
      ['X', 101],
      ['Y', undefined],
    ])
    expect(second).toMatchObject({ unclear: '#101 = 3', words: [] })
    expect(third).toMatchObject({ optional: false, comments: ['end'] })
  })

  it('can be anything: nothing throws, and every line that is not understood is said', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 200 }), (text) => {
        const { blocks, diagnostics } = readBlocks(text)
        for (const { line, unclear } of blocks)
          if (unclear !== undefined) expect(diagnostics.some((each) => each.line === line)).toBe(true)
        readProgram(text)
      }),
    )
  })
})

describe('what a program does (RS274/NGC, NISTIR 6556, chapter 3, from memory)', () => {
  it('turns about a point, by a value or by a variable, until it is told not to', () => {
    expect(steps('G90 G54\nG68 X1. Y-2. R1.5\nG0 X3. Y0.\nG69\nG69')).toEqual([
      { does: 'rotate', about: { X: 1, Y: -2 }, by: 1.5 },
      { does: 'rapid', frame: 'G54', axes: { X: 3, Y: 0 } },
      { does: 'rotate-off' },
    ])
    expect(steps('G68 X0 Y0 R#189')).toEqual([
      { does: 'rotate', about: { X: 0, Y: 0 }, by: { variable: 189 } },
    ])
  })

  it('puts a tool in, takes its length, calls macros with their words in the offset that holds', () => {
    expect(steps('T20 M6\nG90 G154 P7\nG43 H20\nG65 P9811 X0. Q.125 S154.07\nM0\nM30')).toEqual([
      { does: 'tool', tool: 20 },
      { does: 'length', h: 20, axes: {}, frame: 'G154 P7' },
      { does: 'call', program: 9811, words: { X: 0, Q: 0.125, S: 154.07 }, frame: 'G154 P7' },
      { does: 'stop' },
      { does: 'end' },
    ])
  })

  it.each([
    ['G68 X0 Y0', '1: G68 without X, Y and R.'],
    ['G68 X0 Y0 Z1. R5.', '1: G68 without X, Y and R.'],
    ['G0 X#5', '1: A variable where a number is expected.'],
    ['G91 G10 L2 P1 X1.', '1: G10 under G91 adds to the offset.'],
    ['G90 G1 X1.', '1: G1 is not known.'],
    ['G90\nG91 G0 X1.', '2: A move that is not an absolute rapid.'],
    ['M98 P5', '1: M98 is not known.'],
  ])('%s is not read as something else', (text, says) => expect(complaints(text)).toContain(says))
})

describe('whether a text does what was planned', () => {
  const text = 'G20 G90 G54\nG53 G0 Z0.\nG68 X0. Y0. R1.321\nG0 X4. Y2.\nM0\nG69\nM30\n'
  const planned: PlannedStep[] = [
    { does: 'rapid', frame: 'machine', axes: { Z: 0 } },
    { does: 'rotate', about: { X: 0, Y: 0 }, by: 1.321 },
    { does: 'rapid', frame: 'G54', axes: { Y: 2, X: 4 } },
    { does: 'stop' },
    { does: 'rotate-off' },
    { does: 'end' },
  ]
  it('says yes for the text, whatever the order in which the plan names its axes', () => {
    expect(readsAs(text, 'inch', planned)).toBe(true)
  })
  it('says no for any other number, code, order, unit or line', () => {
    for (const [from, to] of [
      ['R1.321', 'R1.322'],
      ['R1.321', 'R-1.321'],
      ['X4.', 'X-4.'],
      ['G54', 'G55'],
      ['G69\n', ''],
      ['M0\n', ''],
      ['G20', 'G21'],
      ['M30', 'M0\nM30'],
      ['G68', 'G51'],
    ] as const)
      expect(readsAs(text.replace(from, to), 'inch', planned)).toBe(false)
    expect(readsAs(text, 'mm', planned)).toBe(false)
    expect(readsAs(text, 'inch', planned.slice(1))).toBe(false)
  })
})
