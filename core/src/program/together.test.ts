import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { read } from './read.ts'
import { complaints, moves, onMill } from './testing.ts'
import { together } from './together.ts'

const main = {
  name: 'SIDE1.NC',
  text: '%\nO100 (FIRST SIDE)\nG20 G90\nG0 X1.\nM98 P200\nG65 P300 A2.\nM30\n%\n',
}
const sub = { name: 'sub.nc', text: '%\r\nO200\r\nG0 X2.\r\nM99\r\n%' }
const macro = { name: 'O300.TXT', text: 'G0 X[#1+1.]\nM99' }
const textOf = (...files: (typeof main)[]) => {
  const found = together(files)
  if (!found.ok) throw new Error(found.says)
  return found
}
const saysOf = (...files: (typeof main)[]) => {
  const found = together(files)
  return found.ok ? 'together' : found.says
}

describe('programs that were opened together', () => {
  it('are one text that is read as the control runs them, whatever their order', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([main, sub, macro], { minLength: 3 }), (files) => {
        const { text, name } = textOf(...files)
        expect(name).toBe('SIDE1.NC')
        expect(moves(text)).toEqual(['rapid 1 8 10', 'rapid 2 8 10', 'rapid 3 8 10'])
        expect(complaints(text)).toEqual([])
      }),
    )
  })

  it('alone the main program is stopped at what it calls', () => {
    expect(complaints(main.text)).toEqual(['subprogram-missing 5', 'subprogram-missing 6'])
    expect(complaints(textOf(main, sub).text)).toEqual(['subprogram-missing 5'])
  })

  it('a number with how often before it names its program; a call in a comment calls nothing', () => {
    const often = { name: 'A', text: 'O1\nG20 G90\nM98 P30200\nM30' }
    expect(textOf(sub, often).name).toBe('A')
    const silent = { name: 'B', text: 'O2\n(M98 P200)\nM30' }
    expect(saysOf(silent, sub)).toBe(
      'Which of these is the main program? None of the files calls B, sub.nc. Open the main program with those that it calls.',
    )
  })

  it('which is the main one must be plain, and no number may stand twice', () => {
    const ring = [
      { name: 'A', text: 'O1\nM98 P2\nM99' },
      { name: 'B', text: 'O2\nM98 P1\nM99' },
    ] as const
    expect(saysOf(...ring)).toBe('Which of these is the main program? Each is called by another: A, B.')
    expect(saysOf(main, sub, { ...sub, name: 'other.nc' })).toBe(
      'O200 stands in two of these files: open one of them only.',
    )
  })

  it('are called by the names of their files, in small letters or capitals, with or without a number of their own', () => {
    const byName = { name: 'MAIN.NC', text: 'G20 G90\nM98 <sub>\nG65 <Face Bolt> A2.\nM30' }
    const own = { name: 'sub.nc', text: '%\nO200\nG0 X2.\nM99\n%' }
    const bolt = { name: 'FACE BOLT.TXT', text: 'G0 X[#1+1.]\nM99' }
    fc.assert(
      fc.property(fc.shuffledSubarray([byName, own, bolt], { minLength: 3 }), (files) => {
        const { text, name } = textOf(...files)
        expect(name).toBe('MAIN.NC')
        expect(moves(text)).toEqual(['rapid 2 8 10', 'rapid 3 8 10'])
        expect(complaints(text)).toEqual([])
      }),
    )
    const both = { name: 'C', text: 'M98 <SUB>\nM98 P200\nM30' }
    expect(saysOf(both, own)).toMatch(/^sub.nc is called by its number and by its name/)
    expect(saysOf(byName, own, { ...own, name: 'SUB.TXT' }, bolt)).toMatch(/^O<SUB> stands in two/)
  })

  it('a program of another file is called by its number alone too (M198)', () => {
    expect(moves(textOf({ name: 'A', text: 'O1\nG20 G90\nM198 P200\nM30' }, sub).text)).toEqual([
      'rapid 2 8 10',
    ])
  })

  it('a line of a million brackets that never close keeps nobody waiting, and calls nothing', () => {
    const hostile = { name: 'A', text: `O1\nM98 ${'<'.repeat(1_000_000)}\nM30` }
    expect(saysOf(hostile, sub)).toMatch(/^Which of these is the main program/)
  })

  it('any texts are joined or refused, and what is joined reads', () => {
    const pieces = fc.constantFrom(
      'O1',
      'O2',
      'M98 P1',
      'G65P2',
      '%',
      '(',
      'M30',
      'M99',
      'G0 X1.',
      '\r\n',
      '\n',
      ' ',
    )
    const file = fc.record({
      name: fc.string({ maxLength: 6 }),
      text: fc.array(pieces).map((all) => all.join('')),
    })
    fc.assert(
      fc.property(fc.array(file, { minLength: 1, maxLength: 4 }), (files) => {
        const found = together(files)
        if (found.ok) expect(read(found.text, onMill({ mostBlocks: 500 })).lines).toBeGreaterThan(0)
        else expect(found.says.length).toBeGreaterThan(20)
      }),
    )
  })
})
