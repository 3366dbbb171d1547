import { demoReference } from '@dogleg/core/demo'
import { deriveSetup, type Entry, isUnreadable } from '@dogleg/core/setup'
import type { ShopBoard } from '@dogleg/core/traveler'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  entries as entriesTable,
  practice as practiceTable,
  reference as referenceTable,
} from '../database/schema.ts'
import { type DemoApp, demoApp } from '../testing/app.ts'
import { anyEntry, noteEntry, openedEntry, struckEntry } from '../testing/entries.ts'
import { setupFileOf } from '../testing/files.ts'
import type { EntriesSince } from './store.ts'

let demo: DemoApp
beforeAll(async () => {
  demo = await demoApp()
})
afterAll(() => demo.close())

const MINUTE = 60_000
const iso = (ms: number) => new Date(ms).toISOString()

interface Answer {
  added: number
  time: string
  place: { logbook: string; seq: number }
  entries: Entry[]
  error: { code: string; says: string }
}
const send = async (entries: readonly unknown[], held?: readonly number[]) => {
  const { status, body } = await demo.ask('POST', '/api/entries', { entries, ...(held ? { held } : {}) })
  return { status, ...(body as Answer) }
}
const refusalOf = async (...entries: unknown[]) => {
  const { status, error } = await send(entries)
  return [status, error?.code]
}
const logOf = async (setup: string): Promise<Entry[]> =>
  ((await demo.ask('GET', `/api/setups/${setup}/entries`)).body as Answer).entries

describe('what the server writes to an entry', () => {
  it('is when it received it, and the latest moment at which it can have been made; no tablet can say it', async () => {
    const opened = openedEntry()
    const { time } = await send([opened])
    demo.pass(600)
    const note = { ...noteEntry(opened.id), received: iso(0), latest: iso(0) }
    const { time: later } = await send([note], [5 * MINUTE])
    const [first, second] = await logOf(opened.id)
    expect(Math.abs(Date.parse(first?.received ?? '') - Date.parse(time))).toBeLessThan(1000)
    expect(first?.latest).toBe(first?.received)
    expect(Math.abs(Date.parse(second?.received ?? '') - Date.parse(later))).toBeLessThan(1000)
    // Five minutes on the tablet, less what its steady clock may be off by.
    const lain = Date.parse(second?.received ?? '') - Date.parse(second?.latest ?? '')
    expect(lain).toBeGreaterThan(5 * MINUTE - 1000)
    expect(lain).toBeLessThanOrEqual(5 * MINUTE)
  })

  it('tells with every answer which logbook it is and how far it goes', async () => {
    const opened = openedEntry()
    const before = await send([opened])
    const after = await send([noteEntry(opened.id)])
    expect(after.place).toEqual({ logbook: before.place.logbook, seq: before.place.seq + 1 })
    for (const path of [
      '/api/setups',
      '/api/numbers?series=A-%23%23',
      `/api/setups/${opened.id}/earlier`,
      '/api/machines/mill-1/setups',
      '/api/machines/mill-1/programs',
      '/api/machines/mill-1/timed',
      `/api/setups/${opened.id}/entries`,
      '/api/machines/mill-1/entries',
    ])
      expect(((await demo.ask('GET', path)).body as Answer).place).toEqual(after.place)
  })
})

describe('a time that cannot be meant', () => {
  it('is refused with a sentence: to come, long ago, before the setup was opened, before the server was last heard', async () => {
    const opened = openedEntry()
    const { time } = await send([opened])
    const now = Date.parse(time)
    const at = (ms: number, more: object = {}) => ({ ...noteEntry(opened.id), at: iso(ms), ...more })
    const clock = (heard: number) => ({
      clock: { tablet: '01J00000000000000000000000', count: 1, heard: iso(heard), steady: 0 },
    })
    expect(await refusalOf(at(now + 10 * MINUTE))).toEqual([422, 'clock-ahead'])
    expect(await refusalOf(at(now + 2 * MINUTE))).toEqual([422, 'clock-ahead'])
    expect(await refusalOf(at(0))).toEqual([422, 'clock-behind'])
    expect(await refusalOf(at(Date.UTC(1, 0), { at: '0001-01-01T00:00:00.000Z' }))).toEqual([
      422,
      'clock-behind',
    ])
    expect(await refusalOf(at(now - 60 * MINUTE))).toEqual([422, 'before-opening'])
    expect(await refusalOf(at(now - 5 * MINUTE, clock(now)))).toEqual([422, 'clock-behind'])
    expect(await refusalOf({ ...openedEntry(), at: iso(0) })).toEqual([422, 'clock-behind'])
    const { error } = await send([at(0)])
    expect(error.says).toMatch(/is dated 1970.*Set the clock of this tablet, and enter it again/)
    // A clock that is off by what a question takes is none.
    expect((await send([at(now + 30_000), at(now - 30_000, clock(now))])).status).toBe(201)
  })
})

describe('an entry that names what is not here', () => {
  it('is refused: a machine that there is not, a strike of nothing, or of another setup', async () => {
    const [one, other] = [openedEntry(), openedEntry()]
    const note = noteEntry(other.id)
    await send([one, other, note])
    expect(await refusalOf({ ...openedEntry(), machine: { id: 'mill-9', version: 1 } })).toEqual([
      422,
      'machine-unknown',
    ])
    expect(await refusalOf(struckEntry(one.id, openedEntry().id))).toEqual([422, 'target-unknown'])
    expect(await refusalOf(struckEntry(one.id, note.id))).toEqual([422, 'target-unknown'])
    const own = noteEntry(one.id)
    expect((await send([own, struckEntry(one.id, own.id)])).added).toBe(2)
  })

  it('is refused where it claims what is not so: a proof with a stop in it', async () => {
    const one = openedEntry()
    await send([one])
    const proved = (verdict: 'look' | 'stop') =>
      anyEntry(one.id, {
        kind: 'proved',
        title: 'O5000',
        frame: 'G54',
        hash: 'a'.repeat(64),
        characters: 2,
        text: 'G0',
        verdict,
        counts: { stop: verdict === 'stop' ? 1 : 0, look: 1, note: 0 },
        worst: [],
        seconds: 1,
        rests: [],
        lengths: [],
        tools: [],
        profile: { id: 'compact', version: 1 },
        machine: { id: 'mill-1', version: 1 },
      })
    const refused = await send([proved('stop')])
    expect([refused.status, refused.error.code]).toEqual([422, 'proof-stopped'])
    expect(refused.error.says).toMatch(/A proof of O5000 with a stop in it is no proof\. Mend/)
    expect((await send([proved('look')])).added).toBe(1)
  })

  it('gives no serial number out twice, from whatever tablet and setup, and says the way out', async () => {
    const [one, other] = [openedEntry(), openedEntry()]
    await send([one, other])
    const numbered = (setup: string, first: number, last = first) =>
      anyEntry(setup, { kind: 'numbered', series: 'S-####', first, last, fate: 'engraved', note: '' })
    const first = numbered(one.id, 12)
    expect((await send([first])).added).toBe(1)
    const again = await send([numbered(other.id, 12)])
    expect([again.status, again.error.code]).toEqual([409, 'number-given'])
    expect(again.error.says).toMatch(/S-0012 was given out by RT on .* take the next one, S-0013/)
    expect(await refusalOf(numbered(other.id, 10, 15))).toEqual([409, 'number-given'])
    expect(await refusalOf(numbered(other.id, 20), numbered(one.id, 20))).toEqual([409, 'number-given'])
    // Struck out, it can be given out again; sent again it is the same.
    expect((await send([struckEntry(one.id, first.id), numbered(other.id, 12)])).added).toBe(2)
  })
})

describe('two tablets, one of them off the network with its clock set back', () => {
  const zero = (setup: string) =>
    anyEntry(setup, {
      kind: 'pickup',
      offset: 'G54',
      machine: { id: 'mill-1', version: 1 },
      reading: {
        method: 'edge-finder',
        axis: 'X',
        direction: '+',
        diameter: { text: '.2', value: 0.2, unit: 'inch' },
        machinePosition: { text: '-14.2', value: -14.2, unit: 'inch' },
        drawingPosition: { text: '0', value: 0, unit: 'inch' },
      },
    })
  const moved = (setup: string) => anyEntry(setup, { kind: 'happened', what: 'vise-moved', note: '' })

  it('the zero that was taken before the vise was moved is stale, though the move says that it was an hour before', async () => {
    const opened = openedEntry()
    demo.pass(7200)
    const { time } = await send([opened])
    const heard = Date.parse(time)
    const clock = (tablet: string, steady: number) => ({
      tablet: `01J000000000000000000000${tablet}`,
      count: 1,
      heard: iso(heard),
      steady,
    })
    // The zero after ten minutes; the move after forty, on the other tablet, told after an hour.
    demo.pass(600)
    const taken = { ...zero(opened.id), at: iso(heard + 10 * MINUTE), clock: clock('AA', 10 * MINUTE) }
    expect((await send([taken], [20])).status).toBe(201)
    demo.pass(3000)
    const move = { ...moved(opened.id), at: iso(heard), clock: clock('BB', 40 * MINUTE) }
    expect((await send([move], [20 * MINUTE])).status).toBe(201)
    const setup = deriveSetup(await logOf(opened.id), demoReference)
    if (isUnreadable(setup)) throw new Error(setup.unreadable)
    expect(setup.offsets[0]?.axes.X?.freshness).toMatchObject({
      state: 'stale',
      cause: { says: 'taken before the vise was moved' },
    })
  })
})

describe('an entry of a newer Dogleg', () => {
  it('stays on the tablet that has it, and is taken from a file as it was written, once', async () => {
    const opened = openedEntry()
    await send([opened])
    const newer = anyEntry(opened.id, { kind: 'note', shape: 2, text: { said: 'aloud' } })
    expect(await refusalOf(newer)).toEqual([422, 'written-by-newer'])
    expect(await logOf(opened.id)).toHaveLength(1)

    const file = (...entries: unknown[]) => setupFileOf([opened, ...entries])
    const take = (of: object) => demo.ask('POST', '/api/setup-files', of)
    expect((await take(file(newer))).body).toMatchObject({ added: 1, known: 1 })
    expect((await take(file(newer))).body).toMatchObject({ added: 0, known: 2 })
    const [, kept] = await logOf(opened.id)
    expect(kept).toMatchObject({ kind: 'unread', why: 'newer', said: 'note', raw: JSON.stringify(newer) })
    // Another under its id is not taken for it; and it is struck out like any other.
    expect((await take(file({ ...newer, text: {} }))).status).toBe(409)
    expect((await send([struckEntry(opened.id, newer.id)])).status).toBe(201)
    // One that is damaged is a file that was damaged: there is another copy.
    expect((await take(file({ ...newer, shape: 1 }))).status).toBe(422)
  })

  it('that was sent in an older shape of its kind is the same when it is sent again', async () => {
    const opened = openedEntry()
    const note = { ...noteEntry(opened.id), text: ' chips ' }
    expect(await send([opened, note])).toMatchObject({ added: 2 })
    expect(await send([opened, note])).toMatchObject({ added: 0, known: 2 })
    // As it was stored before its schema had something more to say of it: under other keys, in another order.
    const old = { ...noteEntry(opened.id), more: 'dropped' }
    await demo.database.write((tx) =>
      tx.insert(entriesTable).values({ id: old.id, setup: opened.id, body: JSON.stringify(old) }),
    )
    expect(await send([old])).toMatchObject({ added: 0, known: 1 })
  })
})

describe('rows that cannot be read', () => {
  const stampless = { id: '01M8JSHE3K9HABF3T635A5XCKS', kind: 'pickup' }
  const stamped = { ...noteEntry('01M8JSHE3K9HABF3T635A5XCKS'), kind: 'moved' }
  const bodies = ['{"id":', JSON.stringify(stampless), JSON.stringify(stamped), '']

  it('take nothing with them: not the shop, not a machine, not a list', async () => {
    const other = openedEntry()
    await send([other])
    const spoilt = bodies.map((body) => ({ opened: openedEntry(), body }))
    await send(spoilt.map(({ opened }) => opened))
    await demo.database.write(async (tx) => {
      for (const [n, { opened, body }] of spoilt.entries()) {
        await tx.insert(entriesTable).values({ id: `bad-${n}`, setup: opened.id, body })
        await tx.insert(practiceTable).values({ id: `bad-${n}`, by: 'RT', body })
        await tx.insert(referenceTable).values({ noun: 'vises', id: `bad-${n}`, version: 1, body })
      }
    })
    const { board } = (await demo.ask('GET', '/api/setups')).body as { board: ShopBoard }
    // Every setup is on the board: those with something that cannot be read say so.
    const shown = new Map(board.machines.flatMap(({ setups }) => setups.map((each) => [each.id, each])))
    expect(board.unreadable).toEqual([])
    expect(shown.get(other.id)?.unread).toBe(0)
    for (const { opened } of spoilt) expect(shown.get(opened.id)?.unread).toBe(1)
    for (const { opened, body } of spoilt) {
      const log = (await demo.ask('GET', `/api/setups/${opened.id}/entries`)).body as EntriesSince
      const why = body.includes('moved') ? 'newer' : 'damaged'
      expect(log.entries).toMatchObject([
        { id: opened.id, kind: 'opened' },
        { kind: 'unread', why, raw: body, says: expect.any(String) },
      ])
    }
    for (const path of ['/api/machines/mill-1/entries', '/api/numbers?series=A', '/api/practice'])
      expect((await demo.ask('GET', path)).status).toBe(200)
    const vises = (await demo.ask('GET', '/api/vises')).body as {
      vises: unknown[]
      damaged: { id: string }[]
    }
    expect(vises.vises).toHaveLength(3)
    expect(vises.damaged.map(({ id }) => id)).toEqual(['bad-0', 'bad-1', 'bad-2', 'bad-3'])
    // The machine is not ready: what the damaged entries said is not known.
    expect(board.machines.find(({ id }) => id === 'mill-1')?.ready).not.toBe('done')
  })
})
