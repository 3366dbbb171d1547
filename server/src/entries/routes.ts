import { entry, shopBoard } from '@dogleg/core/setup'
import type { FastifyInstance } from 'fastify'
import { z } from 'zod'
import type { Database } from '../database/open.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import type { ReferenceStore } from '../reference/store.ts'
import { appendEntries, type EntryStore } from './store.ts'

const MOST_ENTRIES = 500

const appending = z.object({
  entries: z
    .array(entry)
    .min(1, 'Nothing to add.')
    .max(MOST_ENTRIES, `At most ${MOST_ENTRIES} entries at a time.`),
})
const sinceQuery = z.object({ after: z.coerce.number().int().min(0).default(0) })

/** Routes of the log: add entries, read one setup's, and list the setups that they make. */
export function entryRoutes(
  app: FastifyInstance,
  { write, readOnly }: Database,
  store: EntryStore,
  reference: ReferenceStore,
  clock: () => number,
) {
  const time = () => new Date(clock()).toISOString()

  app.post('/api/entries', async (request, reply) => {
    const { entries } = parse(appending, request.body)
    const done = await write((tx) => appendEntries(tx, entries, clock()))
    return reply.code(201).send({ ...done, time: time() })
  })

  app.get<{ Params: { id: string } }>('/api/setups/:id/entries', async (request) => {
    const { after } = parse(sinceQuery, request.query)
    const found = await store.since(request.params.id, after)
    if (after === 0 && found.entries.length === 0)
      throw new Problem(404, 'not-found', 'There is no setup with this address. Go back to the shop.')
    return { ...found, time: time() }
  })

  app.get<{ Params: { id: string } }>('/api/machines/:id/entries', async (request) => {
    const { after } = parse(sinceQuery, request.query)
    return { ...(await store.ofMachine(request.params.id, after)), time: time() }
  })

  app.get('/api/numbers', async (request) => {
    const { after } = parse(sinceQuery, request.query)
    return { ...(await store.ofNumbers(after)), time: time() }
  })

  app.get('/api/setups', async () => ({
    board: shopBoard(await store.bySetup(), await reference.current(), clock()),
    time: time(),
    readOnly,
  }))
}
