import { join } from 'node:path'
import type { Profile } from '@dogleg/core/control'
import { demoEntries, demoReference } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { asTyped } from '@dogleg/core/quantity'
import type { Entry } from '@dogleg/core/setup'
import type { ShopBoard } from '@dogleg/core/traveler'
import type { FastifyInstance } from 'fastify'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { buildApp } from './app.ts'
import { type Database, openDatabase } from './database/open.ts'
import { reference as referenceTable } from './database/schema.ts'
import { fillDemo, fillLibrary } from './demo.ts'
import { referenceStore } from './reference/store.ts'
import { anyEntry, logsIn, noteEntry, openedEntry, struckEntry } from './testing/entries.ts'
import { newFolder } from './testing/process.ts'

const migrations = join(import.meta.dirname, '../migrations')
let database: Database
let app: FastifyInstance

beforeAll(async () => {
  database = await openDatabase(join(newFolder(), 'log.sqlite'), migrations)
  await fillDemo(database, Date.now())
  app = await buildApp({ database, hosts: new Set(['localhost']), page: newFolder(), clock: Date.now })
})
afterAll(async () => {
  await app.close()
  await database.close()
})

type Method = 'GET' | 'POST' | 'PUT'
async function ask(method: Method, url: string, body?: unknown, headers: Record<string, string> = {}) {
  const payload = body === undefined ? {} : { payload: JSON.stringify(body) }
  const response = await app.inject({
    method,
    url,
    headers: {
      host: 'localhost:7080',
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...headers,
    },
    ...payload,
  })
  return { status: response.statusCode, body: response.json(), headers: response.headers }
}
const append = (...entries: unknown[]) => ask('POST', '/api/entries', { entries })
const refusal = async (asked: ReturnType<typeof ask>) => {
  const { status, body } = await asked
  return [status, body.error?.code]
}

describe('the log', () => {
  it('tells the serial numbers of a series in the whole shop, and not those that were struck out', async () => {
    const [one, other] = [openedEntry(), openedEntry()]
    const numbered = (setup: string, first: number, series = 'A-##') => ({
      ...noteEntry(setup),
      kind: 'numbered',
      text: undefined,
      series,
      first,
      last: first,
      fate: 'engraved',
      note: '',
    })
    const [a, b, c] = [numbered(one.id, 1), numbered(other.id, 2), numbered(other.id, 1, 'B-##')]
    const numbers = async (series: string) =>
      (await ask('GET', `/api/numbers?series=${encodeURIComponent(series)}`)).body.entries.map(
        ({ first }: { first: number }) => first,
      )
    expect(await numbers('A-##')).toEqual([])
    await append(one, other, noteEntry(one.id), a, c)
    expect(await numbers('A-##')).toEqual([1])
    await append(b, { ...noteEntry(other.id), kind: 'struck', text: undefined, target: a.id, reason: 'slip' })
    // What is struck out must be in the log of its own setup: this one was refused with all of its sending.
    expect(await numbers('A-##')).toEqual([1])
    await append(b, { ...noteEntry(one.id), kind: 'struck', text: undefined, target: a.id, reason: 'slip' })
    expect(await numbers('A-##')).toEqual([2])
    expect(await numbers('B-##')).toEqual([1])
    expect((await ask('GET', '/api/numbers')).status).toBe(422)
  })
  it('adds an entry once, however often it is sent', async () => {
    const opened = openedEntry()
    const note = noteEntry(opened.id)
    expect((await append(opened, note)).body).toMatchObject({ added: 2, known: 0 })
    expect((await append(opened, note, noteEntry(opened.id))).body).toMatchObject({ added: 1, known: 2 })
    const { body } = await ask('GET', `/api/setups/${opened.id}/entries`)
    expect(body.entries).toHaveLength(3)
    const later = await ask('GET', `/api/setups/${opened.id}/entries?after=${body.seq - 1}`)
    expect(later.body.entries).toHaveLength(1)
  })

  it('adds all of a sending or none, and never takes one entry for another', async () => {
    const opened = openedEntry()
    const note = noteEntry(opened.id, 'first')
    await append(opened, note)
    expect(await refusal(append(noteEntry(opened.id), { ...note, text: 'second' }))).toEqual([
      409,
      'id-taken',
    ])
    const { body } = await ask('GET', `/api/setups/${opened.id}/entries`)
    expect(body.entries).toMatchObject([opened, note])
  })

  it('refuses with a sentence what cannot be right', async () => {
    const opened = openedEntry()
    await append(opened)
    expect(await refusal(append(noteEntry(openedEntry().id)))).toEqual([409, 'setup-unknown'])
    expect(await refusal(append(struckEntry(opened.id, opened.id)))).toEqual([422, 'opening-struck'])
    const ahead = { ...noteEntry(opened.id), at: new Date(Date.now() + 3_600_000).toISOString() }
    expect(await refusal(append(ahead))).toEqual([422, 'clock-ahead'])
    expect(await refusal(append())).toEqual([422, 'not-valid'])
    expect(await refusal(append({ kind: 'nonsense' }))).toEqual([422, 'not-valid'])
    const wrong = { ...openedEntry(), tolerance: { text: '.002', value: 0.02, unit: 'inch' } }
    expect((await append(wrong)).body.error.says).toMatch(/do not agree/)
    expect(await refusal(ask('GET', '/api/setups/nowhere/entries'))).toEqual([404, 'not-found'])
    expect(await refusal(ask('GET', '/api/nonsense'))).toEqual([404, 'not-found'])
  })

  it('takes the entries of Zero and Angle, and refuses those that have no answer, with the sentence of the form', async () => {
    const opened = openedEntry()
    const length = (value: number) => asTyped(value, 'inch')
    const point = (x: number, y: number) => ({ x: length(x), y: length(y) })
    const machine = { id: 'mill-1', version: 1 }
    const circle = (points: unknown) =>
      anyEntry(opened.id, {
        kind: 'pickup',
        offset: 'G154 P3',
        machine,
        reading: {
          method: 'circle',
          axis: 'X',
          device: 'probe',
          side: 'bore',
          diameter: length(0.2),
          points,
          drawingX: length(0),
          drawingY: length(0),
        },
      })
    const angled = (points: unknown) =>
      anyEntry(opened.id, {
        kind: 'angled',
        offset: 'G54',
        machine,
        reading: { method: 'edge', device: 'probe', points, nominal: 0 },
        reach: length(4),
        allowed: length(0.002),
        needsSquare: false,
      })
    const good = [
      circle([point(-10, -5), point(-9, -4), point(-8, -5)]),
      angled([point(0, 0), point(4, 0.1)]),
      anyEntry(opened.id, {
        kind: 'tool-length',
        tool: 9,
        machine,
        machinePosition: { ...length(-9), repeats: [length(-9.0002)] },
        masterPosition: length(-10),
        masterLength: length(4),
      }),
    ]
    expect((await append(opened, ...good)).body).toMatchObject({ added: 4 })
    const says = async (entry: unknown) => (await append(entry)).body.error?.says
    expect(await says(circle([point(-10, -5), point(-9, -5), point(-8, -5)]))).toMatch(/they lie on one line/)
    expect(await says(circle([point(-10, -5)]))).toMatch(/Three touches or more/)
    expect(await says(angled([point(1, 1), point(1, 1)]))).toMatch(/all these touches are at one place/i)
    expect((await ask('GET', `/api/setups/${opened.id}/entries`)).body.entries).toMatchObject([
      opened,
      ...good,
    ])
  })

  it('lists every machine with its setups', async () => {
    const { board } = (await ask('GET', '/api/setups')).body as { board: ShopBoard }
    const [mill, lathe] = ['mill-1', 'lathe-1'].map((id) => board.machines.find((each) => each.id === id))
    const zeros = mill?.setups.flatMap(({ title, steps }) =>
      title.startsWith('Focuser') ? [steps.find(({ step }) => step === 'zero')?.state] : [],
    )
    expect(zeros?.sort()).toEqual(['done', 'open', 'open', 'stale'])
    expect(lathe?.setups.map(({ next }) => next?.step)).toEqual(['hold', 'zero', 'zero'])
  })

  it('says what is next for whoever asks: a walk-round that another made is due, a note of one’s own is read', async () => {
    const latheFor = async (by: string) => {
      const { board } = (await ask('GET', `/api/setups?by=${by}`)).body as { board: ShopBoard }
      return board.machines.find(({ id }) => id === 'lathe-1')
    }
    const [own, other] = [await latheFor('LB'), await latheFor('RT')]
    expect([own?.ready, other?.ready]).toEqual(['done', 'stale'])
    expect(other?.setups[0]?.next).toMatchObject({
      step: 'ready',
      why: expect.stringMatching(/was ticked by LB, not by you\.$/),
    })
    const { body } = await ask('GET', '/api/setups?by=everybody')
    expect(body.error.says).toMatch(/at most 8 characters/)
  })

  it("gives one machine's entries across its setups, and only those that are new", async () => {
    const of = async (machine: string, after = 0) =>
      (await ask('GET', `/api/machines/${machine}/entries?after=${after}`)).body as {
        entries: Entry[]
        seq: number
      }
    const mill = await of('mill-1')
    expect(mill.entries.filter(({ kind }) => kind === 'opened').length).toBeGreaterThanOrEqual(3)
    expect(new Set((await of('lathe-1')).entries.map(({ setup }) => setup)).size).toBe(3)
    const setup = mill.entries[0]?.setup ?? ''
    await append(noteEntry(setup, 'for the next shift'))
    expect((await of('mill-1', mill.seq)).entries).toMatchObject([
      { kind: 'note', text: 'for the next shift' },
    ])
    expect((await of('nowhere')).entries).toEqual([])
  })

  it('fills an empty logbook only', async () => {
    expect(await fillDemo(database, Date.now())).toBe(false)
  })

  it('of a shop that was made when the server was built is the same as one that is made now, moved to now', async () => {
    const now = Date.now()
    const made = { now: now - 3 * 86_400_000, entries: demoEntries(now - 3 * 86_400_000, () => 0.25) }
    const logs = []
    for (const demo of [made, { now, entries: demoEntries(now, () => 0.25) }]) {
      const file = await openDatabase(join(newFolder(), 'log.sqlite'), migrations)
      expect(await fillDemo(file, now, demo)).toBe(true)
      logs.push([...(await logsIn(file.db)).values()].flat())
      await file.close()
    }
    // Two installations have two demos: no id of one is in the other. All else is the same.
    const [one = [], other = []] = logs
    expect(one).toHaveLength(made.entries.length)
    const ids = new Set(other.map(({ id }) => id))
    expect(one.some(({ id }) => ids.has(id))).toBe(false)
    const withoutIds = (entries: readonly object[]) =>
      JSON.stringify(entries).replaceAll(/\b[0-7][0-9A-HJKMNP-TV-Z]{25}\b/g, (id) => id.slice(0, 10))
    expect(withoutIds(one)).toBe(withoutIds(other))
  })

  it('takes what five tablets send at once: each entry once, each sending whole', async () => {
    const opened = openedEntry()
    await append(opened)
    const sendings = Array.from({ length: 5 }, (_, n) =>
      Array.from({ length: 20 }, (_, m) => noteEntry(opened.id, `${n} ${m}`)),
    )
    // Every sending twice, as a tablet does whose answer got lost.
    const answers = await Promise.all([...sendings, ...sendings].map((each) => append(...each)))
    expect(answers.map(({ status }) => status)).toEqual(Array(10).fill(201))
    expect(answers.reduce((sum, { body }) => sum + body.added, 0)).toBe(100)
    const { body } = await ask('GET', `/api/setups/${opened.id}/entries`)
    const texts = (body.entries as Entry[]).flatMap((entry) => (entry.kind === 'note' ? entry.text : []))
    expect(texts.toSorted()).toEqual(
      sendings
        .flat()
        .map((entry) => (entry.kind === 'note' ? entry.text : ''))
        .toSorted(),
    )
    // One sending is not cut in two by another.
    for (let at = 0; at < 100; at += 20)
      expect(new Set(texts.slice(at, at + 20).map((text) => text.split(' ')[0])).size).toBe(1)
  })
})

describe('machines and profiles', () => {
  const mill = demoReference.machines[0] as Machine
  const newest = async () =>
    (await ask('GET', '/api/machines')).body.machines.find(({ id }: Machine) => id === mill.id)

  it('an edit becomes the next version; the same edit twice is one; a late one is refused with what stands', async () => {
    const standing = await newest()
    const edit = { ...standing, note: 'edited' }
    expect((await ask('PUT', '/api/machines/mill-1', edit)).body.version).toBe(standing.version + 1)
    expect((await ask('PUT', '/api/machines/mill-1', edit)).body.version).toBe(standing.version + 1)
    const late = await ask('PUT', '/api/machines/mill-1', { ...standing, note: 'late' })
    expect(late).toMatchObject({
      status: 409,
      body: { error: { code: 'edited-meanwhile', detail: { note: 'edited' } } },
    })
    expect((await newest()).note).toBe('edited')
  })

  it('one number tells whether any row has changed since its list was read', async () => {
    const stampOf = async (url: string) => (await ask('GET', url)).body.stamp as number
    const before = await stampOf('/api/machines')
    expect(await stampOf('/api/reference-stamp')).toBe(before)
    await append(openedEntry())
    expect(await stampOf('/api/reference-stamp')).toBe(before)
    const [profile] = (await ask('GET', '/api/profiles')).body.profiles
    await ask('PUT', `/api/profiles/${profile.id}`, { ...profile, name: 'As the manual says' })
    expect(await stampOf('/api/reference-stamp')).toBeGreaterThan(before)
    expect(await stampOf('/api/machines')).toBe(await stampOf('/api/reference-stamp'))
  })

  it('two edits of one row at the same moment: one becomes the next version, the other is refused', async () => {
    const standing = await newest()
    const edits = ['from one', 'from the other'].map((note) =>
      ask('PUT', '/api/machines/mill-1', { ...standing, note }),
    )
    const statuses = (await Promise.all(edits)).map(({ status }) => status)
    expect(statuses.toSorted()).toEqual([200, 409])
    expect((await newest()).version).toBe(standing.version + 1)
  })

  it('adds a machine, and refuses what cannot be one', async () => {
    const two = { ...mill, id: 'mill-9', name: 'Mill 9' }
    expect((await ask('POST', '/api/machines', two)).status).toBe(201)
    expect(await refusal(ask('POST', '/api/machines', { ...two, name: 'Other' }))).toEqual([409, 'id-taken'])
    expect(await refusal(ask('PUT', '/api/machines/mill-x', { ...mill, id: 'mill-x' }))).toEqual([
      404,
      'not-found',
    ])
    expect(await refusal(ask('PUT', '/api/machines/mill-9', { ...two, profileId: 'none' }))).toEqual([
      422,
      'profile-unknown',
    ])
    const upsideDown = { ...two, axes: { ...two.axes, X: { least: 0, greatest: -30 } } }
    expect((await ask('PUT', '/api/machines/mill-9', upsideDown)).body.error.says).toMatch(
      /below the highest/,
    )
  })
})

describe('a setup from another installation', () => {
  const log = (board: ShopBoard, title: string) =>
    board.machines.flatMap(({ setups }) => setups).find((setup) => setup.title === title)?.id

  it('comes in with its machine, to the last entry, once; rows that are here stay', async () => {
    const elsewhere = await openDatabase(join(newFolder(), 'elsewhere.sqlite'), migrations)
    await fillLibrary(elsewhere, Date.now())
    const other = await buildApp({
      database: elsewhere,
      hosts: new Set(['localhost']),
      page: newFolder(),
      clock: Date.now,
    })
    const post = async (body: unknown) => {
      const payload = JSON.stringify(body)
      const headers = { host: 'localhost:7080', 'content-type': 'application/json' }
      const answer = await other.inject({ method: 'POST', url: '/api/setup-files', headers, payload })
      return { status: answer.statusCode, body: answer.json() }
    }
    const { board } = (await ask('GET', '/api/setups')).body as { board: ShopBoard }
    const id = log(board, 'Counterweight bracket, both operations')
    const { entries } = (await ask('GET', `/api/setups/${id}/entries`)).body as { entries: Entry[] }
    const { machines, profiles, tools, vises } = demoReference
    const machine = machines.find((each) => each.id === 'mill-2')
    const file = {
      format: 'dogleg-setup',
      version: 1,
      made: '2026-11-26T08:00:00.000Z',
      by: 'RT',
      sheet: {},
      entries,
      reference: {
        machines: [machine],
        profiles: [profiles[0]],
        vises: [{ ...vises[0], name: 'Theirs' }],
        collets: [],
        tools: tools.filter(({ machineId }) => machineId === 'mill-2'),
        materials: [],
      },
    }
    expect(await post(file)).toMatchObject({
      status: 201,
      body: { setup: id, added: entries.length, known: 0 },
    })
    const again = await post(file)
    expect(again.body).toMatchObject({ added: 0, known: entries.length })
    expect(again.body.kept).toEqual([{ noun: 'vises', name: vises[0]?.name }])
    const there = await other.inject({
      url: `/api/setups/${id}/entries`,
      headers: { host: 'localhost:7080' },
    })
    expect(there.json().entries).toEqual(entries)
    // Nothing of a file that is wrong stays: not even its machine.
    const wrong = { ...file, reference: { ...file.reference, machines: [{ ...machine, id: 'mill-8' }] } }
    expect((await post(wrong)).body.error.code).toBe('machine-unknown')
    const half = { ...file, entries: [...entries, { ...entries[1], id: entries[0]?.id, note: 'x' }] }
    expect((await post(half)).status).toBeGreaterThanOrEqual(400)
    expect((await post({ ...file, format: 'other' })).body.error.says).toContain('no file of a setup')
    await other.close()
    await elsewhere.close()
  })
})

describe('a logbook from before there were vises, collets, lathes and probes', () => {
  it('reads its machines with defaults, and gets a library', async () => {
    const path = join(newFolder(), 'old.sqlite')
    await openDatabase(path, migrations).then((made) => made.close())
    const old = await openDatabase(path, migrations)
    const { kind, home, rapids, around, readyList, probe, ...before } = demoReference.machines[0] as Machine
    const older = (noun: 'machines' | 'profiles', row: { id: string }) =>
      old.write((tx) =>
        tx.insert(referenceTable).values({ noun, id: row.id, version: 1, body: JSON.stringify(row) }),
      )
    await older('machines', before)
    const { probing, ...plainer } = demoReference.profiles[0] as Profile
    await older('profiles', plainer)
    expect(await fillDemo(old, Date.now())).toBe(false)
    await fillLibrary(old, Date.now())
    await fillLibrary(old, Date.now())
    const { machines, profiles, vises, collets } = await referenceStore(old.db).current()
    expect(profiles[0]).toMatchObject({ probing: null })
    expect(machines[0]).toMatchObject({ kind: 'mill', probe: null, rapids: null, home: { X: 0, Y: 0, Z: 0 } })
    expect([vises.length, collets.length]).toEqual([3, 8])
    await old.close()
  })

  it('a vise and a collet are edited like a machine, and bad ones get a sentence', async () => {
    const [vise] = (await ask('GET', '/api/vises')).body.vises
    expect((await ask('PUT', `/api/vises/${vise.id}`, { ...vise, jawLength: 6.25 })).body.version).toBe(2)
    const [collet] = (await ask('GET', '/api/collets')).body.collets
    const flat = { ...collet, ratio: { from: 'angle', degreesPerSide: 90 } }
    expect((await ask('PUT', `/api/collets/${collet.id}`, flat)).body.error.says).toMatch(/flat face/)
  })
})

describe('other sites are kept out', () => {
  it('by name, by origin and by kind of content', async () => {
    const entries = { entries: [openedEntry()] }
    expect(await refusal(ask('GET', '/api/setups', undefined, { host: 'elsewhere.test' }))).toEqual([
      421,
      'foreign-host',
    ])
    const from = (headers: Record<string, string>) => refusal(ask('POST', '/api/entries', entries, headers))
    expect(await from({ origin: 'http://elsewhere.test' })).toEqual([403, 'cross-site'])
    expect(await from({ 'sec-fetch-site': 'cross-site' })).toEqual([403, 'cross-site'])
    expect(await from({ 'content-type': 'text/plain' })).toEqual([415, 'not-json'])
    expect((await ask('POST', '/api/entries', entries, { origin: 'http://localhost:7080' })).status).toBe(201)
  })

  it('by a strict content security policy', async () => {
    const policy = String((await ask('GET', '/api/setups')).headers['content-security-policy'])
    expect(policy).toMatch(/default-src 'none'/)
    expect(policy).not.toMatch(/unsafe|\*/)
  })
})
