import { X509Certificate } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { join } from 'node:path'
import { StartProblem } from '../problem.ts'
import type { Certified } from './authority.ts'
import { bare } from './names.ts'

/** So long before it ends a certificate of the server is made anew, in ms. */
const RENEW_MS = 60 * 24 * 3_600_000
/** Names by which this PC calls itself. */
const OWN = ['localhost', '127.0.0.1', '::1']

function read(folder: string, name: string): Certified | undefined {
  const [cert, key] = [join(folder, `${name}.crt`), join(folder, `${name}.key`)]
  if (!existsSync(cert) && !existsSync(key)) return undefined
  try {
    const found = { cert: readFileSync(cert, 'utf8'), key: readFileSync(key, 'utf8') }
    new X509Certificate(found.cert)
    return found
  } catch (error) {
    throw new StartProblem(
      `The certificate ${cert} and its key cannot be read: ${(error as Error).message}. Put both back from a copy of ${folder}; or move the folder away: then a new one is made, and every tablet has to trust it anew.`,
    )
  }
}

function write(folder: string, name: string, { cert, key }: Certified) {
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  for (const [end, text] of [
    ['key', key],
    ['crt', cert],
  ] as const) {
    const file = join(folder, `${name}.${end}`)
    writeFileSync(`${file}.part`, text, { mode: end === 'key' ? 0o600 : 0o644 })
    renameSync(`${file}.part`, file)
  }
  chmodSync(folder, 0o700)
}

/** Whether a certificate of the server is for all of these names, of this authority, and good for some time yet. */
function stillServes({ cert }: Certified, authority: Certified, names: readonly string[], now: number) {
  const is = new X509Certificate(cert)
  return (
    Date.parse(is.validTo) - now > RENEW_MS &&
    Date.parse(is.validFrom) <= now &&
    is.verify(new X509Certificate(authority.cert).publicKey) &&
    names.every((name) => (isIP(bare(name)) ? is.checkIP(bare(name)) : is.checkHost(name)) !== undefined)
  )
}

export interface ShopCertificate {
  /** Of the server, as it is to be used now. */
  server: Certified
  /** Of the shop's authority, as PEM: tablets come to trust it. */
  authority: string
  /** SHA-256 of that, to be compared by eye. */
  fingerprint: string
}

/**
 * The shop's own certificates, kept in a folder beside the logbook: made where there are none, and the server's made anew in time or
 * where it has another name.
 * @throws StartProblem where they cannot be read
 */
export async function shopCertificate(
  folder: string,
  others: readonly string[],
  now: number,
): Promise<ShopCertificate> {
  // Loaded only here: making certificates takes a library that nothing else needs.
  const { certify, covers, newAuthority } = await import('./authority.ts')
  const names = [...new Set([...others, ...OWN].map(bare))]
  let authority = read(folder, 'authority')
  const madeFor = join(folder, 'authority-names.json')
  if (!authority) {
    authority = await newAuthority(names, now)
    write(folder, 'authority', authority)
    writeFileSync(madeFor, JSON.stringify(names))
  }
  const made = JSON.parse(readFileSync(madeFor, 'utf8')) as string[]
  const outside = names.find((name) => !covers(made, name))
  if (outside !== undefined)
    throw new StartProblem(
      `The shop's own certificate authority was made for ${made.join(', ')}, and certifies no other: tablets would not trust ${outside}. Take one of those names, or one that ends in .local or .lan; or move ${folder} away: then a new authority is made, and every tablet has to trust it anew.`,
    )
  let server = read(folder, 'server')
  if (!server || !stillServes(server, authority, names, now)) {
    server = await certify(authority, names, now)
    write(folder, 'server', server)
  }
  return {
    server,
    authority: authority.cert,
    fingerprint: new X509Certificate(authority.cert).fingerprint256,
  }
}

/** A certificate of one's own, from two files. */
export function ownCertificate(cert: string, key: string): Certified {
  try {
    return { cert: readFileSync(cert, 'utf8'), key: readFileSync(key, 'utf8') }
  } catch (error) {
    throw new StartProblem(
      `The certificate of DOGLEG_CERT and DOGLEG_KEY cannot be read: ${(error as Error).message}.`,
    )
  }
}
