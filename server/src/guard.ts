import { ASKED_IN_ANY, LANGUAGE, LANGUAGE_HEADER, ROUTES } from '@dogleg/core/api'
import type { FastifyInstance } from 'fastify'
import { Problem } from './problem.ts'

/** The name in a Host header, without its port; an IPv6 address keeps its brackets. */
export const nameIn = (host: string) => host.replace(/:\d+$/, '').toLowerCase()

/**
 * Refuses requests that a page from elsewhere could make: a Host header that is not one of ours
 * (DNS rebinding), and writes that come from another site or are not JSON.
 */
export function guard(app: FastifyInstance, hosts: ReadonlySet<string>) {
  app.addHook('onRequest', async (request) => {
    const host = request.headers.host ?? ''
    if (!hosts.has(nameIn(host)))
      throw new Problem(
        421,
        'foreign-host',
        `This Dogleg does not answer to the name "${nameIn(host)}". Start it with DOGLEG_HOSTS=${nameIn(host) || 'name'} if it should.`,
      )
    if (request.method === 'GET' || request.method === 'HEAD') return
    const { origin } = request.headers
    const site = request.headers['sec-fetch-site']
    const sameOrigin =
      origin === undefined || origin === `${request.protocol}://${host}` || origin === `https://${host}`
    if (!sameOrigin || (site !== undefined && site !== 'same-origin' && site !== 'none'))
      throw new Problem(
        403,
        'cross-site',
        'This came from another site and was refused. Open Dogleg itself and try again.',
      )
    if (!/^application\/json\b/.test(request.headers['content-type'] ?? ''))
      throw new Problem(415, 'not-json', 'Only JSON is read here.')
  })
}

const IN_ANY = new Set<string>(ASKED_IN_ANY.map((name) => ROUTES[name][1]))

/** Refuses a page that would take an answer for something else than it says: one of before, or of a Dogleg that is newer than this one. */
export function speakAlike(app: FastifyInstance) {
  app.addHook('onRequest', async ({ headers, routeOptions }) => {
    const spoken = headers[LANGUAGE_HEADER]
    if (spoken === undefined || spoken === String(LANGUAGE) || IN_ANY.has(routeOptions.url ?? '')) return
    throw new Problem(
      409,
      'other-language',
      'This page is of another version than the server: load it again. What was recorded here goes to the logbook all the same.',
    )
  })
}
