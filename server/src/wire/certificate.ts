import type { FastifyBaseLogger } from 'fastify'
import type { Config } from '../config.ts'
import { failure } from '../server-log.ts'
import type { Certified } from './authority.ts'
import { ownCertificate, type ShopCertificate, shopCertificate } from './shop-certificate.ts'

/** How often it is looked whether there is a newer one, in ms. */
const LOOK_MS = 12 * 3_600_000

/** The certificate of a server, as it is and as it is renewed. */
export interface Certificate {
  now: () => Certified
  /** Of the shop's own authority; left out where the certificate is another. */
  trust?: { authority: () => string; fingerprint: () => string }
  /** Looks now and then, and hands over a newer one; returns the timer, to be ended. */
  keepUp: (take: (server: Certified) => void, log: FastifyBaseLogger) => NodeJS.Timeout
}

/**
 * The certificate that the settings ask for.
 * @throws StartProblem where it cannot be read
 */
export async function certificateOf(
  { https, names }: Config,
  clock = Date.now,
): Promise<Certificate | undefined> {
  if (!https) return undefined
  const read = async (): Promise<Pick<ShopCertificate, 'server'> & Partial<ShopCertificate>> =>
    'folder' in https
      ? await shopCertificate(https.folder, names, clock())
      : { server: ownCertificate(https.cert, https.key) }
  let is = await read()
  const renew = async (take: (server: Certified) => void, log: FastifyBaseLogger) => {
    try {
      const next = await read()
      if (next.server.cert !== is.server.cert) take(next.server)
      is = next
    } catch (error) {
      // The one that is in use serves on.
      log.error({ failure: failure(error) }, 'certificate not renewed')
    }
  }
  return {
    now: () => is.server,
    ...(is.authority === undefined
      ? {}
      : { trust: { authority: () => is.authority ?? '', fingerprint: () => is.fingerprint ?? '' } }),
    keepUp: (take, log) => setInterval(() => void renew(take, log), LOOK_MS).unref(),
  }
}
