import { addressOf, problemBody } from '@dogleg/core/api'
import * as fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyRoute } from './description/describe.ts'
import { madeUp } from './testing/made-up.ts'
import { type SigningApp, signingApp, type TestTablet } from './testing/people.ts'

// Every route, asked what its own schema says, or nearly: whatever comes, it is answered or refused with a sentence, and nothing fails.

/** How many questions in all; `npm run test:thorough` asks ten times as many. */
const QUESTIONS = process.env.DOGLEG_THOROUGH ? 20_000 : 2000

let shop: SigningApp
let tablet: TestTablet
beforeAll(async () => {
  shop = await signingApp()
  tablet = await shop.tablet('RT')
})
afterAll(() => shop.close())

/** Ids of what is there, among those of what is not. */
const NAMES = fc.oneof(
  fc.constantFrom('mill-1', 'lathe-1', 'compact', 'none', 'sim-1', '..', '%00', "'", 'x'.repeat(300)),
  fc.string({ unit: 'binary', minLength: 1, maxLength: 30 }),
)
/** They would leave the tablet, end the server's work for others, or never end; what they do is tested where they stand. */
const LEFT_OUT = new Set([
  'changes',
  'signOut',
  'signIn',
  'saveTablet',
  'savePerson',
  'changePin',
  'setUpShop',
])

describe('every route', () => {
  const routes = [...everyRoute()].filter(({ name }) => !LEFT_OUT.has(name))
  it(`answers ${QUESTIONS} questions made from the schemas, and fails at none`, async () => {
    const statuses = new Map<number, number>()
    const runs = Math.ceil(QUESTIONS / routes.length)
    for (const { name, address, contract } of routes) {
      const [method, path] = address
      const query = contract.query ? madeUp(contract.query) : fc.constant({})
      const body = contract.body ? madeUp(contract.body) : fc.constant(undefined)
      await fc.assert(
        fc.asyncProperty(NAMES, query, body, async (named, asked, sent) => {
          const words = Object.entries((asked ?? {}) as object).flatMap(([key, value]) =>
            typeof value === 'object' ? [] : [[key.slice(0, 40), String(value)]],
          )
          const behind = new URLSearchParams(words as [string, string][]).toString()
          const id = named.toWellFormed()
          const at = addressOf(path, { id, hash: id, job: id })
          const answer = await tablet.ask(method, behind === '' ? at : `${at}?${behind}`, sent)
          statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1)
          const failed = `${name}: ${answer.text.slice(0, 300)}`
          expect(answer.status, failed).not.toBe(500)
          if (answer.status >= 400 && answer.type.includes('json'))
            expect(problemBody.parse(answer.body).error.says, failed).toMatch(/\S/)
        }),
        { numRuns: runs },
      )
    }
    // Some of it was answered, not all of it refused, and nothing for being asked too often.
    expect(statuses.get(429)).toBeUndefined()
    expect(statuses.get(200) ?? 0).toBeGreaterThan(QUESTIONS / 10)
    expect(statuses.get(201) ?? 0).toBeGreaterThan(0)
    expect([...statuses.values()].reduce((sum, count) => sum + count, 0)).toBeGreaterThanOrEqual(QUESTIONS)
  }, 600_000)
})
