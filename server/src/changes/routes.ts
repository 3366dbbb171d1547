import { CONTRACT, RIGHTS, ROUTES } from '@dogleg/core/api'
import sse from '@fastify/sse'
import type { FastifyPluginAsync } from 'fastify'
import type { EntryStore } from '../entries/store.ts'
import { parse } from '../parse.ts'
import type { Leaving } from '../people/leaving.ts'
import type { ChangeFeed, Told } from './feed.ts'

/** Setups that are named one by one; of more it is said that anything may have changed. */
const MOST_NAMED = 200
/** What a tablet may leave unread, in bytes: one that reads nothing is cut off, and asks again when it is back. */
const MOST_UNREAD = 256 * 1024

/** Where a tablet goes on from: which logbook, and the place up to which it was told. */
const markOf = ({ changed: { place }, upTo }: Told) => `${place.logbook}.${upTo}`

/** What has changed since a tablet left off. */
async function changedSince(mark: string | undefined, stands: Told, store: EntryStore): Promise<Told> {
  const { changed, upTo } = stands
  const all: Told = { changed: { ...changed, all: true }, upTo }
  const [, logbook, place] = /^([\w-]+)\.(\d+)$/.exec(mark ?? '') ?? []
  const seq = Number(place)
  if (logbook !== changed.place.logbook || seq > changed.place.seq) return all
  if (seq === changed.place.seq) return stands
  const { setups, seq: last } = await store.touchedSince(seq, MOST_NAMED)
  if (last < changed.place.seq) return all
  return { changed: { ...changed, setups: setups.map((id) => ({ id })) }, upTo }
}

/**
 * Tells of changes as they are made, by server-sent events: one connection a tablet, with a beat while nothing changes. A tablet that
 * was cut off says where it left off, and is told what it has missed.
 */
export const changeRoutes: FastifyPluginAsync<{
  feed: ChangeFeed
  store: EntryStore
  leaving: Leaving
}> = async (app, { feed, store, leaving }) => {
  await app.register(sse, { heartbeatInterval: 0 })
  app.addHook('preClose', async () => feed.end())
  const [, url] = ROUTES.changes
  app.get(url, { sse: 'only', config: { lasts: true, least: RIGHTS.changes } }, async (request, reply) => {
    const { after } = parse(CONTRACT.changes.query, request.query)
    const { sse: stream } = reply
    stream.keepAlive()
    const send = (told: Told) => {
      if (reply.raw.writableLength > MOST_UNREAD) return reply.raw.destroy()
      return void stream
        .send({ id: markOf(told), event: 'changed', data: told.changed })
        .catch(() => undefined)
    }
    // Heard first, asked then: nothing that is written in between is missed.
    const { off, stands } = await feed.listen({ tell: send, close: () => stream.close() })
    // Whoever left the tablet is told nothing more.
    const { tablet } = request.who
    const stays = tablet && leaving.on(tablet.id, () => stream.close())
    stream.onClose(() => {
      off()
      stays?.()
    })
    send(await changedSince(stream.lastEventId ?? after, stands, store))
  })
}

declare module 'fastify' {
  interface FastifyContextConfig {
    /** The answer goes on for as long as whoever asked listens. */
    lasts?: boolean
  }
}
