import { entry, shopBoard } from '@dogleg/core/setup'
import type { FastifyInstance } from 'fastify'
import { z } from 'zod'
import type { Database } from '../database/open.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import type { ReferenceStore } from '../reference/store.ts'
import { appendEntries } from './append.ts'
import type { EntryStore } from './store.ts'

const MOST_ENTRIES = 500

const appending = z
  .object({
    entries: z
      .array(entry)
      .min(1, 'Nothing to add.')
      .max(MOST_ENTRIES, `At most ${MOST_ENTRIES} entries at a time.`),
    held: z
      .array(z.number().min(0).max(1e12))
      .optional()
      .describe('for how many ms each has lain on the tablet, by a clock that nobody can set'),
  })
  .refine(({ entries, held }) => held === undefined || held.length === entries.length, {
    error: 'As many as there are entries.',
    path: ['held'],
  })
const sinceQuery = z.object({ after: z.coerce.number().int().min(0).default(0) })

/** Routes of the log: add entries, read one setup's, and list the setups that they make. */
export function entryRoutes(
  app: FastifyInstance,
  { write, logbook, alarm }: Database,
  store: EntryStore,
  reference: ReferenceStore,
  clock: () => number,
) {
  /** With every answer: the time, which logbook this is, and how far it goes. */
  const told = async () => {
    const { seq } = await store.last()
    return { place: { logbook, seq }, time: new Date(clock()).toISOString() }
  }

  app.post('/api/entries', async (request, reply) => {
    const { entries, held } = parse(appending, request.body)
    const lain = new Map(entries.map(({ id }, n) => [id, held?.[n] ?? 0]))
    const done = await write((tx) => appendEntries(tx, entries, { by: 'tablet', now: clock(), held: lain }))
    return reply.code(201).send({ ...done, ...(await told()) })
  })

  app.get<{ Params: { id: string } }>('/api/setups/:id/entries', async (request) => {
    const { after } = parse(sinceQuery, request.query)
    const found = await store.since(request.params.id, after)
    if (after === 0 && found.entries.length === 0 && found.damaged.length === 0)
      throw new Problem(404, 'not-found', 'There is no setup with this address. Go back to the shop.')
    return { ...found, ...(await told()) }
  })

  app.get<{ Params: { id: string } }>('/api/machines/:id/entries', async (request) => {
    const { after } = parse(sinceQuery, request.query)
    return { ...(await store.ofMachine(request.params.id, after)), ...(await told()) }
  })

  app.get('/api/numbers', async (request) => {
    const { after } = parse(sinceQuery, request.query)
    return { ...(await store.ofNumbers(after)), ...(await told()) }
  })

  app.get('/api/setups', async () => {
    const says = await alarm()
    const { logs, damaged } = await store.bySetup()
    return {
      board: shopBoard(logs, await reference.current(), clock(), damaged),
      ...(says === undefined ? {} : { alarm: says }),
      ...(await told()),
    }
  })
}
