import { X509Certificate } from 'node:crypto'
import helmet from '@fastify/helmet'
import Fastify, { type FastifyInstance } from 'fastify'
import { guard, nameIn } from '../guard.ts'
import { keepLimits, type Limits, serverOptions } from '../limits.ts'
import { Problem } from '../problem.ts'
import { AUTHORITY_FILE, TRUST_CSS, trustPage } from './trust-page.ts'

export interface PlainOptions {
  hosts: ReadonlySet<string>
  limits: Limits
  /** The port of https. */
  securePort: () => number
  /** The shop's own authority; left out where the certificate is another. */
  trust?: { authority: () => string; fingerprint: () => string }
}

const POLICY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'none'"],
    styleSrc: ["'self'"],
    imgSrc: ["'self'"],
    baseUri: ["'none'"],
    formAction: ["'none'"],
    frameAncestors: ["'none'"],
  },
}

/**
 * What stands on plain http where pages come over https: how a tablet comes to trust the shop's certificates, and for everything else the
 * way to https. Nothing of the shop is told, and nothing that is sent is taken.
 */
export async function plainServer({
  hosts,
  limits,
  securePort,
  trust,
}: PlainOptions): Promise<FastifyInstance> {
  const app = Fastify({ bodyLimit: 1024, ...serverOptions(limits), logger: false })
  app.setErrorHandler((error, _request, reply) => {
    const problem =
      error instanceof Problem ? error : new Problem(400, 'not-understood', 'Open this address in a browser.')
    return reply.code(problem.status).send(problem.body())
  })
  await app.register(helmet, {
    contentSecurityPolicy: POLICY,
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'no-referrer' },
  })
  guard(app, hosts)
  await keepLimits(app, limits)
  const secureAt = (host: string) => `https://${nameIn(host)}:${securePort()}`
  if (trust) {
    app.get('/', async ({ headers: { host = '' } }, reply) =>
      reply
        .type('text/html; charset=utf-8')
        .header('cache-control', 'no-store')
        .send(
          trustPage({ secure: secureAt(host), here: `http://${host}/`, fingerprint: trust.fingerprint() }),
        ),
    )
    app.get('/trust.css', async (_request, reply) => reply.type('text/css; charset=utf-8').send(TRUST_CSS))
    app.get(AUTHORITY_FILE, async (_request, reply) =>
      reply
        .type('application/x-x509-ca-cert')
        .header('content-disposition', 'attachment; filename="dogleg-authority.crt"')
        .send(new X509Certificate(trust.authority()).raw),
    )
  }
  app.setNotFoundHandler(async ({ method, url, headers: { host = '' } }, reply) => {
    if (method !== 'GET' && method !== 'HEAD')
      throw new Problem(403, 'https-only', `Dogleg is at ${secureAt(host)}. Nothing was taken here.`)
    return reply
      .code(308)
      .header('cache-control', 'no-store')
      .redirect(`${secureAt(host)}${url}`, 308)
  })
  return app
}
