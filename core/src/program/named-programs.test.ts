import { describe, expect, it } from 'vitest'
import { complaints, moves } from './testing.ts'

const called = (line: string, name = 'O<DEEP HOLE>') => `G20 G90\n${line}\nM30\n${name}\nG0 X[#1+2.]\nM99\n`

describe('a program that is called by its name', () => {
  it.each([
    ['a subprogram', 'M98 <DEEP HOLE>', ['rapid 3 8 10']],
    ['one that is repeated', 'M98 <deep hole> L2', ['rapid 3 8 10', 'rapid 3 8 10']],
    ['a macro with its words', 'G65 <Deep Hole> A2.', ['rapid 4 8 10']],
    ['a macro after every move', 'G66 <DEEP HOLE> A1.\nG0 Y1.\nG67', ['rapid 15 1 10', 'rapid 3 1 10']],
  ])('%s', (_, line, found) => {
    const text = line.startsWith('M98') ? called(`#1=1.\n${line}`) : called(line)
    expect(moves(text)).toEqual(found)
    expect(complaints(text)).toEqual([])
  })

  it.each([
    ['that is not in the text, with what to do', 'M98 <OTHER>', 'subprogram-missing 2'],
    ['in a line that calls nothing', 'G0 X1. <DEEP HOLE>', 'name-idle 2'],
    ['beside a number', 'M98 <DEEP HOLE> P7', 'name-idle 2'],
    ['that is not closed', 'M98 <DEEP HOLE', 'not-a-word 2'],
    ['that opens twice', 'M98 <<DEEP HOLE>', 'not-a-word 2'],
    ['that is longer than any', `M98 <${'A'.repeat(121)}>`, 'not-a-word 2'],
    ['of nothing', 'M98 <>', 'not-a-word 2'],
    ['twice', 'M98 <DEEP HOLE> <OTHER>', 'not-a-word 2'],
    ['without its line number', 'M97 <DEEP HOLE>', 'call-no-p 2'],
  ])('is a stop: %s', (_, line, expected) => {
    expect(complaints(called(line))).toContain(expected)
  })

  it('a word with a comma among the arguments of a macro is not passed over', () => {
    for (const code of ['G65', 'G66'])
      expect(complaints(called(`${code} <DEEP HOLE> A1. ,R.1`))).toContain('word-not-seen 2')
  })

  it('ends before the next one', () => {
    expect(complaints('G20 G90\nG0 X1.\nO<NEXT>\nG0 X2.\nM99')).toEqual(['runs-into-next 3'])
  })
})
