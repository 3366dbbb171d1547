import type { IncomingMessage } from 'node:http'
import type { FastifyPluginAsync } from 'fastify'
import type { Database } from '../database/open.ts'
import type { Logbook } from '../threads/record-jobs.ts'
import type { Threads } from '../threads/threads.ts'
import { wholeBody } from './whole-body.ts'

const LARGEST_FILE = 64 * 1024 * 1024

/** Takes a setup in from its file. The file is read and its log is written in a thread of its own: it may be large. */
export const importRoutes: FastifyPluginAsync<{
  database: Database
  threads: Threads
  of: Logbook
  clock: () => number
}> = async (app, { database, threads, of, clock }) => {
  // Not read here: that alone takes half a second for a large one.
  app.removeContentTypeParser('application/json')
  app.addContentTypeParser('application/json', (_request: unknown, payload: IncomingMessage) =>
    wholeBody(payload, LARGEST_FILE),
  )
  app.post<{ Body: Uint8Array<ArrayBuffer> }>('/api/setup-files', async (request, reply) => {
    const bytes = request.body
    const taken = await database.alone(() =>
      threads.record('importFile', { of, bytes, now: clock() }, [bytes.buffer]),
    )
    return reply.code(201).type('application/json; charset=utf-8').send(taken)
  })
}
