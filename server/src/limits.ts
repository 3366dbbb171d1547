import type { Server } from 'node:http'
import rateLimit from '@fastify/rate-limit'
import type { FastifyHttpOptions, FastifyInstance } from 'fastify'
import { Problem } from './problem.ts'

/** What one tablet, and all of them together, may ask of the server: generous for people, tight for floods. Times in ms. */
export interface Limits {
  /** Questions from one address in a minute. A page that is open asks some 60 times a minute, and 300 with a machine that runs. */
  aMinute: number
  /** Connections that are open at once. */
  connections: number
  /** Until the head of a question is here. */
  head: number
  /** Until all of a question is here: 64 MB over a slow network. */
  whole: number
  /** For what is under way when the server is told to end. */
  toEnd: number
}

export const USUAL_LIMITS: Limits = {
  aMinute: 3000,
  connections: 500,
  head: 15_000,
  whole: 120_000,
  toEnd: 10_000,
}

/** How often the times are looked at. */
const lookEvery = ({ head }: Limits) => Math.min(5000, Math.ceil(head / 3))

/** What a certificate and its key are handed over in, as PEM. */
export interface Tls {
  cert: string
  key: string
}

/** The limits of connections; with a certificate over https. */
export function serverOptions(limits: Limits, tls?: Tls): FastifyHttpOptions<Server> {
  const connections = { connectionsCheckingInterval: lookEvery(limits), headersTimeout: limits.head }
  const options = {
    requestTimeout: limits.whole,
    keepAliveTimeout: 30_000,
    // Those that are idle end with the server; a question that is under way is answered first.
    forceCloseConnections: 'idle' as const,
  }
  return tls
    ? // The same server to whoever asks; the types of the two know nothing of each other.
      ({ ...options, https: { ...connections, ...tls, minVersion: 'TLSv1.2' } } as FastifyHttpOptions<Server>)
    : { ...options, http: connections }
}

/** Keeps the limits on a server. Files of the page are not counted: a page loads some fifty at once. */
export async function keepLimits(app: FastifyInstance, { aMinute, connections }: Limits) {
  app.server.maxConnections = connections
  await app.register(rateLimit, {
    max: aMinute,
    timeWindow: 60_000,
    allowList: ({ url }) => !/^\/(api|simulated)\//.test(url),
    errorResponseBuilder: (_request, { ttl }) =>
      new Problem(
        429,
        'too-often',
        `This address asks too often: more than ${aMinute} times a minute. Wait ${Math.ceil(ttl / 1000)} seconds. What you entered is kept on this tablet.`,
      ),
  })
}

/** Ends a server: what is under way is finished, within a limit. */
export async function endServer(app: FastifyInstance, { toEnd }: Limits) {
  const timer = setTimeout(() => app.server.closeAllConnections(), toEnd)
  await app.close()
  clearTimeout(timer)
}
