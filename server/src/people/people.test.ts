import { join } from 'node:path'
import type { Answer } from '@dogleg/core/api'
import type { Tablet } from '@dogleg/core/people'
import Sqlite from 'libsql'
import { ulid } from 'ulid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { buildApp } from '../app.ts'
import { openDatabase } from '../database/open.ts'
import { LogbookDamaged } from '../database/watch.ts'
import { note, type SigningApp, send, sessionOf, setupIn, signingApp } from '../testing/people.ts'
import { newFolder } from '../testing/process.ts'
import { saveSitting } from './store.ts'

let shop: SigningApp
beforeEach(async () => {
  shop = await signingApp()
})
afterEach(() => shop.close())

type Said = { error: { code: string; says: string; detail?: unknown } }
describe('a tablet', () => {
  it('is let in by a code that a lead made, once, and gets its key in a cookie that no script reads', async () => {
    const lead = await shop.tablet('RT')
    const { code, until } = (await lead.ask('POST', '/api/tablets/codes', {})).body as Answer<'newCode'>
    expect(code).toMatch(/^\d{6}$/)
    expect(Date.parse(until) - Date.now()).toBeGreaterThan(9 * 60_000)
    const tablet = shop.foreign()
    const typed = { code: `${code.slice(0, 3)} ${code.slice(3)}`, name: 'Mill 2' }
    const answer = await tablet.ask('POST', '/api/session/tablet', typed)
    expect([answer.status, answer.body]).toMatchObject([201, { signs: true, tablet: { name: 'Mill 2' } }])
    expect(answer.cookie).toMatch(/^dogleg=[\w-]{43}; Max-Age=34560000; Path=\/; HttpOnly; SameSite=Strict$/)
    expect(await sessionOf(tablet)).toMatchObject({ tablet: { name: 'Mill 2', locksAfter: 15 } })
    const again = await shop.foreign().ask('POST', '/api/session/tablet', typed)
    expect([again.status, (again.body as Said).error.code]).toEqual([401, 'wrong-code'])
  })

  it('is not let in by a code that is too old, and guesses are slowed down', async () => {
    const lead = await shop.tablet('RT')
    const { code } = (await lead.ask('POST', '/api/tablets/codes', {})).body as Answer<'newCode'>
    shop.pass(900)
    const late = await shop.foreign().ask('POST', '/api/session/tablet', { code, name: 'Late' })
    expect((late.body as Said).error.code).toBe('wrong-code')
    const answers: number[] = []
    for (let n = 0; n < 20; n++) {
      const guess = { code: String(n).padStart(6, '0'), name: 'Guess' }
      answers.push((await shop.foreign().ask('POST', '/api/session/tablet', guess)).status)
    }
    expect(answers.filter((status) => status === 429).length).toBeGreaterThan(16)
  })

  it('is shut out at once: nothing more is answered, and what it listens to ends', async () => {
    const lead = await shop.tablet('RT')
    const tablet = await shop.tablet('KM')
    const { tablet: own } = await sessionOf(tablet)
    const address = await shop.app.listen({ port: 0, host: 'localhost' })
    const { port } = new URL(address)
    const listening = await fetch(`http://localhost:${port}/api/changes`, {
      headers: { cookie: tablet.cookie(), accept: 'text/event-stream' },
    })
    expect(listening.status).toBe(200)
    const all = listening.text()
    const body = { name: own?.name, locksAfter: 15, out: true }
    const { tablets } = (await lead.ask('PUT', `/api/tablets/${own?.id}`, body)).body as { tablets: Tablet[] }
    expect(tablets.find(({ id }) => id === own?.id)).toMatchObject({ out: true })
    // It comes to an end: else this waits for ever.
    expect(await all).toContain('event: changed')
    expect((await tablet.ask('GET', '/api/setups')).status).toBe(401)
    expect(await sessionOf(tablet)).toEqual({ signs: true })
    // Let in again, it is another one, and nobody is at it.
    const { code } = (await lead.ask('POST', '/api/tablets/codes', {})).body as Answer<'newCode'>
    await tablet.ask('POST', '/api/session/tablet', { code, name: own?.name })
    const back = await sessionOf(tablet)
    expect(back.tablet?.id).not.toBe(own?.id)
    expect(back.person).toBeUndefined()
  })

  it('is named after its machine, and two that are let in are not called alike', async () => {
    const lead = await shop.tablet('RT')
    const [one, two] = [await shop.tablet('KM'), await shop.tablet()]
    const [first, second] = [(await sessionOf(one)).tablet, (await sessionOf(two)).tablet]
    const named = { name: 'Mill 1', machine: 'mill-1', locksAfter: 3, out: false }
    expect((await lead.ask('PUT', `/api/tablets/${first?.id}`, named)).status).toBe(200)
    expect(await sessionOf(one)).toMatchObject({
      tablet: { name: 'Mill 1', machine: 'mill-1', locksAfter: 3 },
      person: { initials: 'KM', may: 'operator' },
    })
    const twin = await lead.ask('PUT', `/api/tablets/${second?.id}`, { ...named, name: ' MILL 1' })
    expect((twin.body as Said).error.code).toBe('id-taken')
    const { tablets } = (await lead.ask('GET', '/api/tablets')).body as { tablets: Tablet[] }
    expect(tablets.map(({ name, person }) => [name, person])).toEqual([
      ['Mill 1', 'KM'],
      ['Tablet 1', 'RT'],
      ['Tablet 3', undefined],
    ])
    expect(tablets[0]?.heard).toMatch(/^\d{4}-/)
  })
})

describe('signing in', () => {
  it('says the same of a wrong PIN, of somebody who left, and of initials that nobody has; and is slowed down', async () => {
    const lead = await shop.tablet('RT')
    const gone = { name: 'Person WALL', may: 'looker', gone: true }
    await lead.ask('PUT', `/api/people/${shop.idOf('WALL')}`, gone)
    const said: unknown[] = []
    for (const [by, pin] of [
      ['KM', '0000'],
      ['ZZ', '1973'],
      ['WALL', '60708'],
    ]) {
      const { status, body } = await (await shop.tablet()).ask('POST', '/api/session/person', { by, pin })
      said.push([status, body])
    }
    expect(said[0]).toMatchObject([401, { error: { code: 'wrong-pin' } }])
    expect(said[1]).toEqual(said[0])
    expect(said[2]).toEqual(said[0])
  })

  it.each(['KM', 'ZZ'])(
    'with the PIN of %s wrong ten times: each try waits longer, on every tablet',
    async (by) => {
      const [one, two] = [await shop.tablet(), await shop.tablet()]
      const waits: number[] = []
      for (let n = 0; n < 10; n++) {
        const body = { by, pin: '0000' }
        let answer = await one.ask('POST', '/api/session/person', body)
        if (answer.status === 429) {
          const { seconds } = (answer.body as Said).error.detail as { seconds: number }
          waits.push(seconds)
          // Neither elsewhere nor in small letters.
          const small = { by: by.toLowerCase(), pin: '1973' }
          expect((await two.ask('POST', '/api/session/person', small)).status).toBe(429)
          shop.pass(seconds)
          answer = await one.ask('POST', '/api/session/person', body)
        }
        expect([answer.status, (answer.body as Said).error.code]).toEqual([401, 'wrong-pin'])
      }
      expect(waits).toEqual([5, 10, 20, 40, 80, 160, 320])
      shop.pass(10_000)
      expect((await one.ask('POST', '/api/session/person', { by: 'KM', pin: '1973' })).status).toBe(201)
    },
  )

  it('is slowed down as well where many try at once', async () => {
    const tablet = await shop.tablet()
    const answers = await Promise.all(
      Array.from({ length: 30 }, (_, n) =>
        tablet.ask('POST', '/api/session/person', { by: 'KM', pin: String(1000 + n) }),
      ),
    )
    expect(answers.filter(({ status }) => status === 401)).toHaveLength(3)
    expect(answers.filter(({ status }) => status === 429)).toHaveLength(27)
  })

  it('ends the stay of whoever was there before; a stay ends by itself after a day’s work, a screen on the wall stays', async () => {
    const [tablet, wall] = [await shop.tablet('KM'), await shop.tablet('WALL')]
    await tablet.signIn('RT')
    expect(await sessionOf(tablet)).toMatchObject({ person: { initials: 'RT' } })
    shop.pass(17 * 3600)
    expect((await sessionOf(tablet)).person).toBeUndefined()
    expect((await sessionOf(wall)).person).toMatchObject({ initials: 'WALL' })
    await tablet.signIn('KM')
    const { sitting } = await sessionOf(tablet)
    await tablet.ask('POST', '/api/session/end', { sitting: 'another' })
    expect((await sessionOf(tablet)).sitting).toBe(sitting)
    await tablet.ask('POST', '/api/session/end', { sitting })
    expect((await sessionOf(tablet)).person).toBeUndefined()
    expect((await tablet.ask('GET', '/api/setups')).status).toBe(401)
  })

  it('goes by a new PIN once it was changed, by whoever knows the old one', async () => {
    const tablet = await shop.tablet('KM')
    const change = async (pin: string, next: string) =>
      (await tablet.ask('PUT', '/api/session/pin', { pin, next })).status
    expect(await change('0000', '8264')).toBe(401)
    expect(await change('1973', '1234')).toBe(422)
    expect(await change('1973', '8264')).toBe(200)
    const enter = async (pin: string) =>
      (await tablet.ask('POST', '/api/session/person', { by: 'KM', pin })).status
    expect([await enter('1973'), await enter('8264')]).toEqual([401, 201])
    // Whoever was at another tablet under the old one is there no more.
    const other = await shop.tablet()
    await other.ask('POST', '/api/session/person', { by: 'KM', pin: '8264' })
    expect(await change('8264', '5139')).toBe(200)
    expect((await sessionOf(tablet)).person).toMatchObject({ initials: 'KM' })
    expect((await sessionOf(other)).person).toBeUndefined()
  })
})

describe('the people of the shop', () => {
  const person = (initials: string, more: object = {}) => ({
    id: ulid(),
    initials,
    name: `Person ${initials}`,
    may: 'operator',
    pin: '9317',
    ...more,
  })

  it('have initials of their own for ever, and a PIN that is not the first to be tried', async () => {
    const lead = await shop.tablet('RT')
    const add = async (body: object) => {
      const answer = await lead.ask('POST', '/api/people', body)
      return [answer.status, (answer.body as Partial<Said>).error?.code]
    }
    const made = person('AB')
    expect(await add(made)).toEqual([201, undefined])
    expect(await add(made)).toEqual([201, undefined])
    expect(await add(person('ab'))).toEqual([409, 'person-there'])
    for (const pin of ['123', '1111', '4321', '123456789', '12a4'])
      expect(await add(person('CD', { pin }))).toEqual([422, 'not-valid'])
    const { people } = (await lead.ask('GET', '/api/people')).body as Answer<'people'>
    expect(people.map(({ initials, may, pin }) => [initials, may, pin])).toEqual([
      ['AB', 'operator', true],
      ['KM', 'operator', true],
      ['RT', 'lead', true],
      ['WALL', 'looker', true],
    ])
    const tablet = await shop.tablet()
    expect((await tablet.ask('POST', '/api/session/person', { by: 'ab', pin: '9317' })).body).toMatchObject({
      person: { initials: 'AB' },
    })
  })

  it('leave: whoever has left is at no tablet from then on, and what they had recorded still goes out', async () => {
    const [lead, tablet] = [await shop.tablet('RT'), await shop.tablet()]
    const sitting = await tablet.signIn('KM')
    const setup = await setupIn(tablet)
    const gone = { name: 'Person KM', may: 'operator', gone: true }
    await lead.ask('PUT', `/api/people/${shop.idOf('KM')}`, gone)
    expect((await tablet.ask('GET', '/api/setups')).status).toBe(401)
    expect(await send(tablet, sitting, note(setup, 'KM'))).toEqual([201, undefined])
  })

  it('change in what they may: at once, wherever they are', async () => {
    const [lead, tablet] = [await shop.tablet('RT'), await shop.tablet('KM')]
    expect((await tablet.ask('GET', '/api/tablets')).status).toBe(403)
    await lead.ask('PUT', `/api/people/${shop.idOf('KM')}`, { name: 'Person KM', may: 'lead', gone: false })
    expect((await tablet.ask('GET', '/api/tablets')).status).toBe(200)
    // With less than before nothing more is recorded under what they might do then.
    const sitting = (await sessionOf(tablet)).sitting ?? ''
    const setup = await setupIn(tablet)
    await lead.ask('PUT', `/api/people/${shop.idOf('KM')}`, { name: 'Person KM', may: 'looker', gone: false })
    shop.pass(600)
    expect(await send(tablet, sitting, note(setup, 'KM', Date.now() + 600_000))).toEqual([401, 'not-signed'])
    await tablet.signIn('KM')
    expect((await tablet.ask('GET', '/api/setups')).status).toBe(200)
    expect((await tablet.ask('GET', '/api/tablets')).status).toBe(403)
  })

  it('are never without a lead who can sign in', async () => {
    const lead = await shop.tablet('RT')
    const save = async (body: object) => {
      const answer = await lead.ask('PUT', `/api/people/${shop.idOf('RT')}`, { name: 'Person RT', ...body })
      return [answer.status, (answer.body as Partial<Said>).error?.code]
    }
    expect(await save({ may: 'operator', gone: false })).toEqual([409, 'last-lead'])
    expect(await save({ may: 'lead', gone: true })).toEqual([409, 'last-lead'])
    expect(await save({ may: 'lead', gone: false })).toEqual([200, undefined])
    await lead.ask('POST', '/api/people', person('AB', { may: 'lead' }))
    expect(await save({ may: 'operator', gone: false })).toEqual([200, undefined])
    // With less that they may, also whoever did it is there no more as a lead.
    expect((await sessionOf(lead)).person).toBeUndefined()
  })

  it('cost no more to be signed in however often that was done: only open stays are looked through', async () => {
    const stays = 50
    await shop.database.write(async (tx) => {
      for (let n = 0; n < stays; n++)
        await saveSitting(tx, {
          id: `old-${n}`,
          tablet: 'gone',
          person: 'gone',
          initials: 'XX',
          may: 'operator',
          began: n,
          ended: n + 1,
        })
    })
    const file = new Sqlite(shop.database.file, { readonly: true })
    const ways = file.prepare('explain query plan select * from sittings where ended is null').all() as {
      detail: string
    }[]
    file.close()
    expect(ways.map(({ detail }) => detail)).toEqual([expect.stringMatching(/USING INDEX sittings_open/)])
  })

  it('leave every other tablet when their PIN is set anew', async () => {
    const [lead, tablet] = [await shop.tablet('RT'), await shop.tablet('KM')]
    const set = { name: 'Person KM', may: 'operator', gone: false, pin: '8264' }
    await lead.ask('PUT', `/api/people/${shop.idOf('KM')}`, set)
    expect((await sessionOf(tablet)).person).toBeUndefined()
  })
})

describe('a logbook that takes nothing more', () => {
  it('can be looked at by whoever signs in; what is recorded is refused, and whoever leaves has left', async () => {
    const { file } = shop.database
    const tablet = await shop.tablet()
    await shop.close()
    const database = await openDatabase(file, join(import.meta.dirname, '../../migrations'))
    const write = async () => {
      throw new LogbookDamaged('The logbook file is damaged.')
    }
    const app = await buildApp({
      database: { ...database, write },
      hosts: new Set(['localhost']),
      page: newFolder(),
      clock: Date.now,
      signing: { signs: true, secure: false, names: [] },
    })
    const ask = async (method: 'GET' | 'POST', url: string, body?: object) => {
      const { statusCode } = await app.inject({
        method,
        url,
        headers: { host: 'localhost', cookie: tablet.cookie(), 'content-type': 'application/json' },
        ...(body ? { payload: body } : {}),
      })
      return statusCode
    }
    expect(await ask('GET', '/api/setups')).toBe(401)
    expect(await ask('POST', '/api/session/person', { by: 'KM', pin: '0000' })).toBe(401)
    expect(await ask('POST', '/api/session/person', { by: 'KM', pin: '1973' })).toBe(201)
    expect(await ask('GET', '/api/setups')).toBe(200)
    expect(await ask('POST', '/api/entries', { entries: [note(ulid(), 'KM')], sittings: [''] })).toBe(401)
    await ask('POST', '/api/session/end', {})
    expect(await ask('GET', '/api/setups')).toBe(401)
    await app.close()
    await database.close()
    shop = await signingApp()
  })
})

describe('at one PC', () => {
  it('nobody signs in, and everybody may everything', async () => {
    const { demoApp } = await import('../testing/app.ts')
    const demo = await demoApp()
    expect((await demo.ask('GET', '/api/session')).body).toEqual({ signs: false })
    expect((await demo.ask('GET', '/api/people')).body).toEqual({ people: [] })
    for (const [url, body] of [
      ['/api/session/tablet', { code: '123456', name: 'Mill' }],
      ['/api/session/person', { by: 'RT', pin: '2580' }],
      ['/api/session/end', {}],
    ] as const)
      expect((await demo.ask('POST', url, body)).status).toBe(409)
    await demo.close()
  })
})
