import { describe, expect, it } from 'vitest'
import { demoLogs } from '../demo/testing.ts'
import type { Entry } from '../setup/index.ts'
import { FOUND_BY, searchWords } from './index.ts'

const { logs } = demoLogs(Date.UTC(2026, 10, 24, 9, 30))
const logOf = (title: RegExp) =>
  [...logs.values()].find(([opened]) => opened?.kind === 'opened' && title.test(opened.title)) ?? []

describe('the words that a setup is found by', () => {
  it('are those of its part, people, tools, offsets, programs, notes and days, each once', () => {
    const { words, rows } = searchWords(logOf(/first side/))
    expect(words.part).toEqual(['Focuser housing, first side'])
    expect(words.people).toEqual(expect.arrayContaining(['RT']))
    expect(words.tools).toEqual(expect.arrayContaining(['T5']))
    expect(words.offsets).toContain('G54')
    expect(words.programs).toEqual(expect.arrayContaining(['Housing, tapped holes']))
    expect(words.days.every((day) => /^2026-1[01]-\d\d$/.test(day))).toBe(true)
    expect(words.state).toContain('handed over')
    expect(rows).toContain('mill-1')
    for (const by of FOUND_BY) expect(new Set(words[by]).size).toBe(words[by].length)
  })

  it('of every log are short, none of them empty, and no program’s text is among them', () => {
    for (const log of logs.values()) {
      const { words } = searchWords(log)
      for (const word of Object.values(words).flat()) {
        expect(word.trim()).not.toBe('')
        expect(word.length).toBeLessThanOrEqual(1000)
        expect(word).not.toMatch(/\nG\d/)
      }
    }
  })

  it('of serial numbers are all of them, or the first and the last of many', () => {
    const [opened] = logOf(/first side/)
    const numbered = (first: number, last: number) =>
      searchWords([
        { ...opened, kind: 'numbered', series: 'SN-###', first, last, fate: 'engraved', note: '' } as Entry,
      ]).words.numbers
    expect(numbered(8, 8)).toEqual(['SN-008'])
    expect(numbered(8, 10)).toEqual(['SN-008', 'SN-009', 'SN-010'])
    expect(numbered(1, 20)).toHaveLength(20)
    expect(numbered(1, 900)).toEqual(['SN-001', 'SN-900'])
  })
})
