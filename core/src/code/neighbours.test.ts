import { describe, expect, it } from 'vitest'
import { USUAL_MATERIALS } from '../cutting/index.ts'
import type { newEngraving } from '../cycles/engraving/index.ts'
import { neighbourFindings } from './neighbours.ts'
import { caseOf, compact, sheetOf } from './testing.ts'
import { writeSheet } from './write-sheet.ts'

const text = (id: string, more: Partial<ReturnType<typeof newEngraving>>) => ({
  ...sheetOf({ engrave: { sits: 'start', height: '.2', way: 'moves', ...more } }).items[0],
  id,
})
const hole = (list: string) => ({ ...sheetOf({ tap: { list } }).items[0], id: 'hole' })
const on = caseOf('mill', compact)
const said = (...items: unknown[]) => {
  const sheet = { ...sheetOf({ engrave: {} }), items: items as ReturnType<typeof sheetOf>['items'] }
  const found = neighbourFindings(sheet, on, USUAL_MATERIALS[0] as (typeof USUAL_MATERIALS)[number])
  return Object.fromEntries([...found].map(([id, findings]) => [id, findings.map(({ code }) => code)]))
}

describe('what one text of a program has to do with the rest', () => {
  it('runs into a hole by its line, not by the box round it', () => {
    // The letter L is one stroke down and one along: its upper right is empty.
    expect(said(text('a', { text: 'L', height: '1' }), hole('.5 .7'))).toEqual({})
    expect(said(text('a', { text: 'L', height: '1' }), hole('.3 0'))).toEqual({ a: ['text-over-hole'] })
    expect(said(text('a', { text: 'L', height: '1' }), { ...hole('.3 0'), off: true })).toEqual({})
  })
  it('runs into another, and is told so on both', () => {
    const far = text('b', { text: 'B', x: '1' })
    expect(said(text('a', { text: 'A' }), far)).toEqual({})
    const near = text('b', { text: 'B', x: '.1' })
    expect(said(text('a', { text: 'A' }), near)).toEqual({ a: ['text-over-text'], b: ['text-over-text'] })
  })
  it('carries the one serial number of the part: a second one stops the program', () => {
    const [first, second] = [text('a', { text: '##' }), text('b', { text: 'N ##', y: '1' })]
    expect(said(first, second)).toEqual({ b: ['serial-again'] })
    const sheet = {
      ...sheetOf({ engrave: {} }),
      items: [first, second] as ReturnType<typeof sheetOf>['items'],
    }
    expect(writeSheet(sheet, on).code).toBeUndefined()
  })
})
