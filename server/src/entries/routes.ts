import { initials } from '@dogleg/core/log'
import { type Entry, readEntry } from '@dogleg/core/setup'
import type { FastifyPluginAsync, FastifyReply } from 'fastify'
import { z } from 'zod'
import type { Database } from '../database/open.ts'
import { parse } from '../parse.ts'
import { Problem } from '../problem.ts'
import type { Logbook } from '../threads/record-jobs.ts'
import type { Threads } from '../threads/threads.ts'
import { appendEntries } from './append.ts'
import type { EntryStore } from './store.ts'

const MOST_ENTRIES = 500

const appending = z
  .object({
    entries: z
      .array(z.unknown())
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
/** Entries that a tablet sends, through the one door. What cannot be read stays on the tablet: it is told why. */
const readSent = (sent: readonly unknown[]): Entry[] =>
  sent.map((data, n) => {
    const entry = readEntry(data)
    if (entry.kind !== 'unread') return entry
    if (entry.why === 'newer')
      throw new Problem(
        422,
        'written-by-newer',
        `This was written by a newer Dogleg than the server is, and stays on this tablet. Bring the server up to date, and send it again. ${entry.says}`,
        entry.id,
      )
    throw new Problem(422, 'not-valid', entry.says, [{ path: `entries.${n}`, says: entry.says }])
  })

const boardQuery = z.object({
  by: initials.optional().describe('whoever asks: what waits is what waits for that person'),
})
const sinceQuery = z.object({ after: z.coerce.number().int().min(0).default(0) })

/**
 * Routes of the log: add entries, read one setup's, and list the setups that they make. What is read is read in a thread of its own,
 * so that a long log holds up nobody who enters something.
 */
export const entryRoutes: FastifyPluginAsync<{
  database: Database
  store: EntryStore
  threads: Threads
  of: Logbook
  clock: () => number
}> = async (app, { database: { write, logbook, alarm }, store, threads, of, clock }) => {
  /** With every answer: which logbook this is, and the time. */
  const told = () => ({ logbook, time: new Date(clock()).toISOString() })
  const send = (reply: FastifyReply, text: Buffer) => reply.type('application/json; charset=utf-8').send(text)

  app.post('/api/entries', async (request, reply) => {
    const { entries: sent, held } = parse(appending, request.body)
    const entries = readSent(sent)
    const lain = new Map(entries.map(({ id }, n) => [id, held?.[n] ?? 0]))
    const done = await write((tx) => appendEntries(tx, entries, { by: 'tablet', now: clock(), held: lain }))
    const { time } = told()
    return reply.code(201).send({ ...done, place: { logbook, ...(await store.last()) }, time })
  })

  app.get<{ Params: { id: string } }>('/api/setups/:id/entries', async (request, reply) => {
    const { after } = parse(sinceQuery, request.query)
    const setup = request.params.id
    return send(reply, await threads.record('setupLog', { of, told: told(), setup, after }))
  })

  app.get<{ Params: { id: string } }>('/api/machines/:id/entries', async (request, reply) => {
    const { after } = parse(sinceQuery, request.query)
    const machine = request.params.id
    return send(reply, await threads.record('machineLog', { of, told: told(), machine, after }))
  })

  app.get('/api/numbers', async (request, reply) => {
    const { after } = parse(sinceQuery, request.query)
    return send(reply, await threads.record('numbersLog', { of, told: told(), after }))
  })

  app.get('/api/setups', async (request, reply) => {
    const { by } = parse(boardQuery, request.query)
    return send(reply, await threads.record('board', { of, told: told(), alarm: await alarm(), by }))
  })
}
