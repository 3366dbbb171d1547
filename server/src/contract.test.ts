import { firstMachine, firstTools } from '@dogleg/core/begin'
import { demoReference } from '@dogleg/core/demo'
import { type Entry, NOUNS, type Noun } from '@dogleg/core/setup'
import { exerciseOf, goodHandAt } from '@dogleg/core/simulated'
import { Validator } from '@seriousme/openapi-schema-validator'
import { ulid } from 'ulid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyRoute } from './description/describe.ts'
import { keepTexts, textName } from './entries/texts.ts'
import { type DemoApp, demoApp } from './testing/app.ts'
import { routeOf } from './testing/contract.ts'
import { setupFileOf } from './testing/files.ts'
import { PINS, signingApp } from './testing/people.ts'

// `ask` of the demo's server holds every answer against the contract, here and in the other tests of the server.

let demo: DemoApp
const asked = new Set<string>()
beforeAll(async () => {
  demo = await demoApp()
})
afterAll(() => demo.close())

const ask = async <Body = Record<string, unknown>>(
  method: 'GET' | 'POST' | 'PUT',
  url: string,
  body?: unknown,
): Promise<{ status: number; body: Body }> => {
  const route = routeOf(method, url)
  const answer = await demo.ask(method, url, body)
  if (answer.status < 400) asked.add(route?.name ?? 'none')
  return answer
}
/** The routes of a server, from the tree of them that it prints: one branch a line, four characters in for each level. */
function servedBy(app: DemoApp['app']): string[] {
  const above: string[] = []
  return app
    .printRoutes({ commonPrefix: false })
    .split('\n')
    .flatMap((line) => {
      const [, indent = '', branch, methods = ''] = /^(.*?── )(\S+)(?: \((.*)\))?$/.exec(line) ?? []
      if (branch === undefined) return []
      above.splice(indent.length / 4 - 1, above.length, branch)
      return methods
        .split(', ')
        .flatMap((method) => (/^(GET|POST|PUT)$/.test(method) ? [`${method} ${above.join('')}`] : []))
    })
}
const address = ({ address: [method, path] }: { address: readonly [string, string] }) => `${method} ${path}`

/** What a good hand answers to an exercise that was begun on the server. */
async function answersByGoodHand() {
  await ask('PUT', '/api/simulated/practised', { exercise: 'corner-probe', unit: 'inch', seed: 5 })
  const exercise = exerciseOf('corner-probe')
  return exercise ? goodHandAt(exercise, 5, 'inch').answers : {}
}

/** Asks all that there is to ask where people sign in. */
async function answersWherePeopleSignIn() {
  const shop = await signingApp()
  const lead = await shop.tablet('RT')
  const askThere = async <Body>(
    method: 'GET' | 'POST' | 'PUT',
    url: string,
    body?: unknown,
  ): Promise<Body> => {
    const answer = await lead.ask(method, url, body)
    if (answer.status < 400) asked.add(routeOf(method, url)?.name ?? 'none')
    return answer.body
  }
  await askThere('GET', '/api/session')
  await askThere('PUT', '/api/session/pin', { pin: PINS.RT, next: '7294' })
  await askThere('POST', '/api/session/person', { by: 'RT', pin: '7294' })
  const person = { initials: 'AB', name: 'Person AB', may: 'operator', pin: '9317' }
  await askThere('GET', '/api/people')
  await askThere('POST', '/api/people', { id: ulid(), ...person })
  await askThere('PUT', `/api/people/${shop.idOf('KM')}`, { name: 'Other', may: 'looker', gone: false })
  const { code } = await askThere<{ code: string }>('POST', '/api/tablets/codes', {})
  const { tablets } = await askThere<{ tablets: [{ id: string }] }>('GET', '/api/tablets')
  const { id } = tablets[0]
  await askThere('PUT', `/api/tablets/${id}`, { name: 'Mill', machine: 'mill-1', locksAfter: 0, out: false })
  await askThere('POST', '/api/session/end', {})
  await askThere('POST', '/api/session/tablet', { code, name: 'Another' })
  await shop.close()
}

describe('the contract', () => {
  it('has every route of the server, and the server every route of it', () => {
    const served = servedBy(demo.app).filter((route) => / \/api\//.test(route))
    expect(served.toSorted()).toEqual([...everyRoute()].map(address).toSorted())
    expect(served.length).toBeGreaterThan(30)
  })

  it('is kept by a real answer of every route', async () => {
    const { board } = (
      await ask<{ board: { machines: { setups: { id: string }[] }[] } }>('GET', '/api/setups')
    ).body
    await ask('GET', '/api/setups?by=RT')
    for (const { id } of board.machines.flatMap(({ setups }) => setups)) {
      const { entries } = (await ask<{ entries: Entry[] }>('GET', `/api/setups/${id}/entries`)).body
      expect(entries.length).toBeGreaterThan(0)
    }
    const [first] = board.machines[0]?.setups ?? []
    const { entries, seq } = (
      await ask<{ entries: Entry[]; seq: number }>('GET', `/api/setups/${first?.id}/entries?after=0`)
    ).body
    expect((await ask('GET', `/api/setups/${first?.id}/entries?after=${seq}`)).body).toMatchObject({
      entries: [],
    })
    for (const { id } of demoReference.machines)
      for (const list of ['entries', 'setups', 'programs', 'timed'])
        await ask('GET', `/api/machines/${id}/${list}`)
    await ask('GET', `/api/setups/${first?.id}/earlier`)
    await ask('GET', '/api/jobs/Housing')
    await ask('GET', '/api/numbers?series=A-%23%23')
    await ask('GET', '/api/search?text=housing%20mk')
    await ask('GET', '/api/reference-stamp')
    await ask('POST', '/api/backups', {})
    await ask('POST', '/api/backups/stop', {})
    await ask('GET', '/api/shop')
    await ask('GET', '/api/openapi.json')

    const [{ received: _, latest: __, clock: ___, ...standing }] = entries as [Entry]
    const note = {
      id: ulid(),
      setup: standing.id,
      at: standing.at,
      by: 'RT',
      kind: 'note',
      text: 'Burr.',
      marked: false,
    }
    expect((await ask('POST', '/api/entries', { entries: [note], held: [0] })).body).toMatchObject({
      added: 1,
    })

    await demo.database.write((tx) => keepTexts(tx, new Map([[textName('G90'), 'G90']])))
    expect((await ask('GET', `/api/texts/${textName('G90')}`)).body).toMatchObject({ text: 'G90' })

    for (const noun of NOUNS) {
      const { [noun]: rows } = (await ask<Record<Noun, { id: string }[]>>('GET', `/api/${noun}`)).body
      const [row] = rows as [{ id: string }]
      const more = noun === 'tools' ? { number: 77 } : {}
      const { body: made } = await ask<{ id: string }>('POST', `/api/${noun}`, {
        ...row,
        ...more,
        id: 'another',
      })
      expect((await ask('PUT', `/api/${noun}/another`, { ...made, name: 'Another' })).body).toMatchObject({
        name: 'Another',
        version: 2,
      })
      await ask('GET', `/api/${noun}/another/versions`)
      await ask('PUT', `/api/${noun}/another/retired?by=RT`, { retired: true })
    }

    const own = firstMachine('own', {
      name: 'Own',
      kind: 'lathe',
      unit: 'inch',
      travels: { X: 10, Y: null, Z: 20 },
      profileId: 'compact',
    })
    const shop = { machines: [own], tools: firstTools(own, String) }
    expect((await ask('POST', '/api/own-shop', shop)).status).toBe(201)

    for (const id of ['mill-1', 'lathe-1']) {
      await ask('PUT', `/api/simulated/${id}`, { machine: id, seed: 7 })
      await ask('GET', `/api/simulated/${id}`)
      await ask('POST', `/api/simulated/${id}/actions`, { actions: [{ do: 'load', text: 'G0 Z0.\nM30\n' }] })
      await ask('GET', `/api/simulated/${id}/program`)
      await ask('GET', `/api/simulated/${id}/hidden`)
      await ask('GET', `/api/simulated/${id}/positions`)
    }
    await ask('GET', '/api/machines/mill-1/positions')
    const practised = await ask('POST', '/api/practice', {
      id: ulid(),
      by: 'RT',
      exercise: 'corner-probe',
      unit: 'inch',
      seed: 5,
      machine: 'practised',
      answers: await answersByGoodHand(),
      hints: 0,
      seconds: 1,
    })
    expect(practised.body).toMatchObject({ kept: true })
    expect((await ask('GET', '/api/practice')).body).toMatchObject({
      results: [{ exercise: 'corner-probe' }],
    })

    await answersWherePeopleSignIn()

    const [opened] = entries.filter((entry) => entry.kind === 'opened')
    const file = setupFileOf(entries, opened?.machine.id)
    expect((await ask('POST', '/api/setup-files', file)).body).toMatchObject({ added: 0, kept: [] })
    // Events come one after the other: `changes.test.ts` holds them to the contract.
    const once = [...everyRoute()].filter(({ contract }) => !contract.stream)
    expect(once.map(({ name }) => name).filter((name) => !asked.has(name))).toEqual([])
  })

  it('is kept by every refusal: what nothing can be made of is refused in a sentence, and changes nothing', async () => {
    const before = (await demo.ask('GET', '/api/reference-stamp')).body
    for (const {
      address: [method, path],
    } of everyRoute())
      if (method !== 'GET' && !path.startsWith('/api/backups'))
        for (const body of [{}, [], 7, 'x', { entries: 'x' }, { id: 'x', version: 1 }, { actions: [{}] }]) {
          const url = path.replace(':id', 'mill-1')
          const { status, body: answer } = (await demo.ask(method, url, body)) as {
            status: number
            body: { error: { says: string } }
          }
          expect([400, 404, 409, 422], `${method} ${url} ${JSON.stringify(body)}`).toContain(status)
          expect(answer.error.says).toMatch(/^[A-Z"].*\S/)
        }
    expect((await demo.ask('GET', '/api/reference-stamp')).body).toEqual(before)
  })
})

describe('the description of the server', () => {
  it('is sound OpenAPI, and has every route', async () => {
    const { body } = await ask<{ paths: Record<string, Record<string, { operationId: string }>> }>(
      'GET',
      '/api/openapi.json',
    )
    // A validator of the format's own schema, from the registry.
    const validator = new Validator()
    const found = await validator.validate(structuredClone(body))
    expect(found.errors ?? []).toEqual([])
    expect(found.valid).toBe(true)
    expect(validator.version).toBe('3.1')
    const described = Object.entries(body.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method.toUpperCase()} ${path.replace(/\{(\w+)\}/g, ':$1')}`),
    )
    expect(described.toSorted()).toEqual([...everyRoute()].map(address).toSorted())
    const names = Object.values(body.paths).flatMap((methods) =>
      Object.values(methods).map(({ operationId }) => operationId),
    )
    expect(new Set(names).size).toBe(names.length)
    // Every reference in it leads somewhere: this throws where one does not.
    expect(() => validator.resolveRefs()).not.toThrow()
  })
})
