import { lookup as resolve } from 'node:dns'
import { BlockList, isIP, isIPv6, type LookupFunction } from 'node:net'

/** Networks that a shop's machines stand in: the private ones (RFC 1918, RFC 4193). Everything else is refused. */
const PRIVATE = new BlockList()
PRIVATE.addSubnet('10.0.0.0', 8)
PRIVATE.addSubnet('172.16.0.0', 12)
PRIVATE.addSubnet('192.168.0.0', 16)
PRIVATE.addSubnet('fc00::', 7, 'ipv6')

/** An IPv4 address that is written as an IPv6 one is what it stands for. */
function plainOf(address: string): string {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)
  return mapped?.[1] ?? address
}

/** Whether a numeric address is one in the shop's own network; not this computer, not the link, not the world. */
export function isPrivate(address: string): boolean {
  const plain = plainOf(address)
  return isIP(plain) !== 0 && PRIVATE.check(plain, isIPv6(plain) ? 'ipv6' : 'ipv4')
}

/** An address that the server does not call. */
export class NotCalled extends Error {}

/** Why a URL is not called, or undefined. What it resolves to is looked at again by `guardedLookup`, at the moment of connecting. */
export function whyNotCalled(url: URL, allowed: ReadonlySet<string>): string | undefined {
  if (url.protocol !== 'http:' && url.protocol !== 'https:') return 'Only http and https are called.'
  if (url.username || url.password) return 'An address with a name and password in it is not called.'
  if (allowed.has(url.host)) return undefined
  const host = url.hostname.replace(/^\[|\]$/g, '')
  if (isIP(host) !== 0 && !isPrivate(host))
    return `${url.host} is not in the shop's own network (10.x, 172.16 to 172.31.x, 192.168.x or fd..). To let the server call it all the same, start it with DOGLEG_AGENTS=${url.host}.`
  return undefined
}

/** Resolves a name and refuses it where any of its addresses is not private: so that a name cannot be turned round later. */
export const guardedLookup: LookupFunction = (hostname, options, done) => {
  resolve(hostname, { ...options, all: true }, (error, addresses) => {
    if (error) return done(error, '')
    const wrong = addresses.find(({ address }) => !isPrivate(address))
    if (wrong || addresses.length === 0)
      return done(
        new NotCalled(
          `"${hostname}" is at ${wrong?.address ?? 'no address'}, which is not in the shop's own network.`,
        ),
        '',
      )
    if (options.all) return done(null, addresses as never)
    return done(null, addresses[0]?.address ?? '', addresses[0]?.family)
  })
}
