import { CONTRACT, ROUTES } from '@dogleg/core/api'
import sse from '@fastify/sse'
import type { FastifyPluginAsync } from 'fastify'
import type { EntryStore } from '../entries/store.ts'
import { parse } from '../parse.ts'
import type { Changed, ChangeFeed } from './feed.ts'

/** Setups that are named one by one; of more it is said that anything may have changed. */
const MOST_NAMED = 200
/** What a tablet may leave unread, in bytes: one that reads nothing is cut off, and asks again when it is back. */
const MOST_UNREAD = 256 * 1024

/** Where a tablet left off: which logbook, and the place of its last entry. */
const markOf = ({ place: { logbook, seq } }: Pick<Changed, 'place'>) => `${logbook}.${seq}`

/** What has changed since a tablet left off. */
async function changedSince(mark: string | undefined, now: Changed, store: EntryStore): Promise<Changed> {
  const [, logbook, place] = /^(\w+)\.(\d+)$/.exec(mark ?? '') ?? []
  const seq = Number(place)
  if (logbook !== now.place.logbook || seq > now.place.seq) return { ...now, all: true }
  if (seq === now.place.seq) return now
  const { setups, seq: last } = await store.touchedSince(seq, MOST_NAMED)
  if (last < now.place.seq) return { ...now, all: true }
  return { ...now, setups: setups.map((id) => ({ id })) }
}

/**
 * Tells of changes as they are made, by server-sent events: one connection a tablet, with a beat while nothing changes. A tablet that
 * was cut off says where it left off, and is told what it has missed.
 */
export const changeRoutes: FastifyPluginAsync<{ feed: ChangeFeed; store: EntryStore }> = async (
  app,
  { feed, store },
) => {
  await app.register(sse, { heartbeatInterval: 0 })
  app.addHook('preClose', async () => feed.end())
  const [, url] = ROUTES.changes
  app.get(url, { sse: 'only', config: { lasts: true } }, async (request, reply) => {
    const { after } = parse(CONTRACT.changes.query, request.query)
    const { sse: stream } = reply
    stream.keepAlive()
    const send = (changed: Changed) => {
      if (reply.raw.writableLength > MOST_UNREAD) return reply.raw.destroy()
      return void stream.send({ id: markOf(changed), event: 'changed', data: changed }).catch(() => undefined)
    }
    // Heard first, asked then: nothing that is written in between is missed.
    const off = feed.listen({ tell: send, close: () => stream.close() })
    stream.onClose(off)
    send(await changedSince(stream.lastEventId ?? after, { ...(await feed.now()), setups: [] }, store))
  })
}

declare module 'fastify' {
  interface FastifyContextConfig {
    /** The answer goes on for as long as whoever asked listens. */
    lasts?: boolean
  }
}
