import type { Answer } from '@dogleg/core/api'
import { asTyped } from '@dogleg/core/quantity'
import type { Entry } from '@dogleg/core/setup'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type DemoApp, demoApp } from '../testing/app.ts'
import { anyEntry, noteEntry, openedEntry, struckEntry } from '../testing/entries.ts'
import { rowWord, termsOf } from './search.ts'

let demo: DemoApp
beforeAll(async () => {
  demo = await demoApp()
})
afterAll(() => demo.close())

type Found = Answer<'search'>
const search = async (text: string, before?: number) =>
  (
    await demo.ask(
      'GET',
      `/api/search?text=${encodeURIComponent(text)}${before === undefined ? '' : `&before=${before}`}`,
    )
  ).body as Found
const titles = async (text: string) => (await search(text)).found.map(({ title }) => title)
const send = async (...entries: unknown[]) => {
  const { status, body } = await demo.ask('POST', '/api/entries', { entries })
  expect([status, body]).toEqual([201, expect.anything()])
}

describe('a search of the whole shop', () => {
  it('finds setups by part, person, tool, program, offset, note, number, day and machine, and says why', async () => {
    const opened: Entry = { ...openedEntry(), title: 'Zwölfkant spindle', by: 'QX' }
    const at = opened.at.slice(0, 10)
    await send(
      opened,
      noteEntry(opened.id, 'The collar sings at 4100; slow it down before the second groove.'),
      anyEntry(opened.id, {
        kind: 'happened',
        what: 'tool-measured-again',
        tool: 77,
        note: 'chipped corner',
      }),
      anyEntry(opened.id, {
        kind: 'tool-length',
        tool: 78,
        machinePosition: asTyped(-7, 'inch'),
        masterPosition: asTyped(-8, 'inch'),
        masterLength: asTyped(4, 'inch'),
        machine: { id: 'mill-1', version: 1 },
      }),
      anyEntry(opened.id, {
        kind: 'numbered',
        series: 'ZK-###',
        first: 8,
        last: 12,
        fate: 'engraved',
        note: '',
      }),
    )
    const whyOf = async (text: string) => {
      const { found } = await search(text)
      const own = found.find(({ id }) => id === opened.id)
      return own?.why.map(({ by, says }) => [
        by,
        says.flatMap((part) => (part.hit ? part.text : [])).join(' '),
      ])
    }
    expect(await whyOf('zwolf')).toEqual([['part', 'Zwölfkant']])
    expect(await whyOf('QX')).toEqual([['people', 'QX']])
    expect(await whyOf('t77')).toEqual([['tools', 'T77']])
    expect(await whyOf('T78')).toEqual([['tools', 'T78']])
    expect(await whyOf('sings')).toEqual([['notes', 'sings']])
    expect(await whyOf('"second groove"')).toEqual([['notes', 'second groove']])
    expect(await whyOf('chipped')).toEqual([['notes', 'chipped']])
    expect(await whyOf('ZK-010')).toEqual([['numbers', 'ZK-010']])
    expect(await whyOf(at)).toEqual([['days', at]])
    // Words that stand in different entries of one log; a machine by its name.
    expect(await whyOf('spindle sings qx')).toEqual([
      ['part', 'spindle'],
      ['people', 'QX'],
      ['notes', 'sings'],
    ])
    expect(await whyOf('mill sings')).toEqual([
      ['notes', 'sings'],
      ['named', 'Mill 1'],
    ])
    expect(await titles('lathe sings')).toEqual([])
    expect(await titles('nobody-wrote-this')).toEqual([])
    // The demo's own: by offset, and by the number of a program.
    expect((await titles('G55')).length).toBeGreaterThan(0)
    expect((await titles('drawtube')).every((title) => title.startsWith('Drawtube'))).toBe(true)
  })

  it('does not find by what was struck out, and finds by it again when that is', async () => {
    const opened = openedEntry()
    const note = noteEntry(opened.id, 'quinquereme')
    await send(opened, note)
    expect(await titles('quinquereme')).toHaveLength(1)
    const strike = struckEntry(opened.id, note.id)
    await send(strike)
    expect(await titles('quinquereme')).toHaveLength(0)
    await send(struckEntry(opened.id, strike.id))
    expect(await titles('quinquereme')).toHaveLength(1)
  })

  it('comes a page at a time, the last worked on first, each setup once', async () => {
    const opened = Array.from({ length: 45 }, (_, n): Entry => ({ ...openedEntry(), title: `Galley ${n}` }))
    await send(...opened)
    const seen: string[] = []
    for (let before: number | undefined; ; ) {
      const { found, next } = await search('galley', before)
      seen.push(...found.map(({ title }) => title))
      if (next === undefined) break
      before = next
    }
    expect(seen).toEqual(opened.map((entry) => (entry.kind === 'opened' ? entry.title : '')).reverse())
    // Nothing typed: every setup, and this page begins with the same.
    const all = await search('')
    expect(all.found.map(({ title }) => title)).toEqual(seen.slice(0, 20))
    expect(all.found[0]?.why).toEqual([])
  })

  it('takes whatever is typed for words', async () => {
    for (const text of [
      '"',
      '""',
      'a"b',
      'AND OR NOT',
      'NEAR(a b)',
      'title:x',
      '*',
      "'; drop table words; --",
      '{}()^-+',
      'a '.repeat(90),
      '\u0000',
      '😀',
      '%',
      'x'.repeat(200),
    ]) {
      const { status } = await demo.ask('GET', `/api/search?text=${encodeURIComponent(text)}`)
      expect([status, text]).toEqual([200, text])
    }
    expect((await demo.ask('GET', `/api/search?text=${'x'.repeat(201)}`)).status).toBe(422)
    expect(termsOf('one "two three" "" four"')).toEqual(['one', 'two three', 'four'])
    // The word of a row is part of no other's.
    const ids = ['mill-1', 'mill-12', 'mill1', 'mill_1', 'MILL-1x', '1', '11']
    const words = ids.map(rowWord)
    for (const [n, word] of words.entries())
      expect(words.filter((each) => each.includes(word))).toEqual([words[n]])
  })
})
