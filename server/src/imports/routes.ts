import type { IncomingMessage } from 'node:http'
import type { FastifyPluginAsync } from 'fastify'
import { answers } from '../answer.ts'
import type { ChangeFeed } from '../changes/feed.ts'
import type { Database } from '../database/open.ts'
import { Problem } from '../problem.ts'
import type { Logbook } from '../threads/record-jobs.ts'
import type { Threads } from '../threads/threads.ts'
import { wholeBody } from './whole-body.ts'

/** A body as it came: its bytes, in memory of its own that can be handed to a thread. */
const isBytes = (body: unknown): body is Uint8Array<ArrayBuffer> =>
  body instanceof Uint8Array && body.buffer instanceof ArrayBuffer

const LARGEST_FILE = 64 * 1024 * 1024

/** Takes a setup in from its file. The file is read and its log is written in a thread of its own: it may be large. */
export const importRoutes: FastifyPluginAsync<{
  database: Database
  threads: Threads
  of: Logbook
  feed: ChangeFeed
  clock: () => number
}> = async (app, { database, threads, of, feed, clock }) => {
  // Not read here: that alone takes half a second for a large one.
  app.removeContentTypeParser('application/json')
  app.addContentTypeParser('application/json', (_request: unknown, payload: IncomingMessage) =>
    wholeBody(payload, LARGEST_FILE),
  )
  answers(app, 'importSetup', async ({ body }, { who }) => {
    if (!isBytes(body)) throw new Problem(415, 'not-json', 'Only JSON is read here.')
    const taken = await database.alone(() =>
      threads.record('importFile', { of, bytes: body, now: clock(), by: who.person?.initials }, [
        body.buffer,
      ]),
    )
    feed.allChanged()
    return taken
  })
}
