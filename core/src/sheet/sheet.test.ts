import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { demoLogs } from '../demo/testing.ts'
import { deriveSetup, type Entry, type EntryOf, readEntryText } from '../setup/index.ts'
import { setupOf, travel } from '../traveler/testing.ts'
import { makeSetupFile, readSetupFile, setupSheet } from './index.ts'

const now = Date.UTC(2026, 10, 26, 9, 30)
const { titled } = demoLogs(now)
const pallets = titled('both operations')
const housing = titled('first side')
const sheetOf = (log: readonly Entry[]) =>
  setupSheet(setupOf(log), log, demoReference, travel(log), new Date(now).toISOString())

describe('the setup sheet', () => {
  it('says what is stale, with the reason, and who let what stand', () => {
    const sheet = sheetOf(titled('serial number'))
    expect(sheet.offsets[0]?.axes.every(({ stale }) => stale === 'taken before the vise was moved')).toBe(
      true,
    )
    expect(sheet.hold.find(({ what }) => what === 'Square')?.stale).toContain('before the vise was moved')
    expect(sheet.tools.every(({ length }) => length !== '')).toBe(true)
    const said = { code: 'word-idle', line: 3, says: 'Q does nothing in this line.' }
    const looked = pallets.map((each) =>
      each.kind === 'proved' && each.title === 'O5502 second operation'
        ? { ...each, verdict: 'look' as const, counts: { stop: 0, look: 1, note: 0 }, worst: [said] }
        : each,
    )
    const of = looked.find((each) => each.kind === 'proved' && each.verdict === 'look') as EntryOf<'proved'>
    const stands: Entry = {
      ...{ id: '7ZZZZZZZZZZZZZZZZZZZZZZZZZ', setup: of.setup, at: of.at, by: 'LB', kind: 'let-stand' },
      ...{ title: of.title, hash: of.hash, ...said },
    }
    const bracket = sheetOf([...looked, stands])
    expect(bracket.accepted.map(({ by, what }) => `${by} ${what}`)).toEqual(['LB O5502 second operation'])
    expect(bracket.left.join()).toContain('Run: Mend the programs of the pallets.')
    expect(bracket.handedOver?.by).toBe('LB')
    expect(bracket.offsets.map(({ name, check }) => `${name} ${check?.says}`)).toEqual([
      'G54 stands over part zero',
      'G55 stands over part zero',
    ])
    const tube = sheetOf(titled('first operation'))
    expect(tube.hold.map(({ what }) => what)).toContain('Collet')
    expect(tube.cautions.join()).toContain('spindle turning')
  })

  it('says what stands in the log, in the same digits as the pages', () => {
    const sheet = sheetOf(housing)
    expect(sheet.offsets[0]?.axes.map(({ axis, value }) => `${axis} ${value}`)).toEqual([
      'X -18.3510',
      'Y -5.7205',
      'Z -15.3460',
    ])
    expect(
      sheet.offsets[0]?.axes.every(
        ({ doubt, method, by }) => Number(doubt) > 0 && method !== '' && by === 'RT',
      ),
    ).toBe(true)
    expect(sheet.tools.map(({ tool }) => tool)).toEqual([3, 5, 7, 12, 16])
    expect(sheet.gauging[0]?.values.length).toBeGreaterThan(2)
    expect(sheet.cautions.join()).toContain('5 % rapid')
    expect(sheetOf(pallets).pallets.lines.map(({ pallet, program }) => [pallet, program])).toEqual([
      [1, 5501],
      [2, 5502],
    ])
    expect(sheetOf(pallets).saved).toHaveLength(1)
  })
})

describe('the file of a setup', () => {
  it('read back gives the same setup, to the last fact, and is small', () => {
    for (const log of [housing, pallets, titled('serial number'), titled('O-ring')]) {
      const setup = setupOf(log)
      const text = JSON.stringify(makeSetupFile(setup, log, demoReference, sheetOf(log), 'RT'))
      const back = readSetupFile(text)
      if (!back.ok) throw new Error(back.says)
      expect(back.file.entries).toEqual(log)
      expect(deriveSetup(back.file.entries, back.file.reference)).toEqual(setup)
    }
  })

  it('has what could not be read here too: an earlier Dogleg refuses it, a later one may read it', () => {
    const stamp = { setup: housing[0]?.setup ?? '', at: '2026-11-24T09:40:00.000Z' }
    const [one, two] = ['01M8JSHE3K9HABF3T635A5XCK1', '01M8JSHE3K9HABF3T635A5XCK2']
    const raw = JSON.stringify({ id: one, ...stamp, by: 'LB', kind: 'scanned', cloud: [1] })
    const log = [...housing, readEntryText(raw), readEntryText('}{', { id: two, ...stamp })]
    const setup = setupOf(log)
    const file = makeSetupFile(setup, log, demoReference, sheetOf(housing), 'RT')
    expect([file.version, file.unread]).toEqual([
      2,
      [
        { id: one, at: stamp.at, raw },
        { id: two, at: stamp.at, raw: '}{' },
      ],
    ])
    const back = readSetupFile(JSON.stringify(file))
    if (!back.ok) throw new Error(back.says)
    expect(back.file.entries).toEqual(log)
    expect(deriveSetup(back.file.entries, back.file.reference)).toEqual(setup)
    // A newer Dogleg's own file has them among its entries.
    const among = { ...file, version: 1, unread: undefined, entries: [...housing, JSON.parse(raw)] }
    const newer = readSetupFile(JSON.stringify(among))
    expect(newer.ok && newer.file.entries.at(-1)).toMatchObject({ kind: 'unread', why: 'newer', raw })
    // The sheet says it too.
    const sheet = setupSheet(setup, log, demoReference, travel(housing), stamp.at)
    expect(sheet.accepted.filter(({ what }) => what === 'Logbook').map(({ says }) => says)).toEqual([
      'an entry cannot be read here. Written by a newer Dogleg.',
      'an entry cannot be read here. Damaged.',
    ])
  })

  it('what is no such file gets a sentence', () => {
    const says = (text: string) => {
      const read = readSetupFile(text)
      return read.ok ? '' : read.says
    }
    expect(says('')).toContain('JSON')
    expect(says('{}')).toContain('no file of a setup')
    const file = makeSetupFile(setupOf(housing), housing, demoReference, sheetOf(housing), 'RT')
    expect(says(JSON.stringify({ ...file, version: 3 }))).toContain('later version')
    expect(says(JSON.stringify({ ...file, entries: [...file.entries, ...pallets] }))).toContain('one setup')
    expect(says(JSON.stringify({ ...file, entries: [{ ...housing[0], by: '' }] }))).toContain('initials')
  })
})
