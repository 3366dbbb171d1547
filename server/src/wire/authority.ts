// The library asks for it before anything else.
import 'reflect-metadata'
import { type webcrypto as Crypto, webcrypto } from 'node:crypto'
import { BlockList, isIP } from 'node:net'
import { AsnConvert } from '@peculiar/asn1-schema'
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  id_ce_nameConstraints,
  NameConstraints,
} from '@peculiar/asn1-x509'
import * as x509 from '@peculiar/x509'
import { bare } from './names.ts'

x509.cryptoProvider.set(webcrypto as never)

/** ECDSA on P-256 with SHA-256: every browser of the last ten years knows it. */
const KEYS = { name: 'ECDSA', namedCurve: 'P-256' }
const SIGNED = { name: 'ECDSA', hash: 'SHA-256' }

const DAY_MS = 24 * 3_600_000
/** A tablet's clock may be behind by so long. */
const BEFORE_MS = DAY_MS
/** The authority is trusted by hand on every tablet: seldom. */
const AUTHORITY_LASTS_MS = 20 * 365 * DAY_MS
/** At most what browsers take of a server's: 398 days, by the CA/Browser Forum's Baseline Requirements 6.3.2 (from memory). */
const SERVER_LASTS_MS = 397 * DAY_MS

/** Names and ranges that are nobody's on the internet: RFC 1918, 3927, 4193, 4291, 6598, 6761, 6762, 8375 and .internal (from memory). */
const OWN_NAMES = ['localhost', 'local', 'lan', 'internal', 'home.arpa']
const OWN_RANGES = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '127.0.0.0/8',
  '169.254.0.0/16',
  '100.64.0.0/10',
]
const OWN_RANGES_6 = ['::1/128', 'fc00::/7', 'fe80::/10']

/** A certificate and its private key, both as PEM. */
export interface Certified {
  cert: string
  key: string
}

const pemOf = async (key: Crypto.CryptoKey): Promise<string> =>
  x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY')

const keyFrom = (pem: string): Promise<Crypto.CryptoKey> =>
  webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decodeFirst(pem), KEYS, true, ['sign'])

const newKeys = () => webcrypto.subtle.generateKey(KEYS, true, ['sign', 'verify'])

/** What an authority may certify: the names of this shop and what is nobody's on the internet, and nothing else. */
function constraintsFor(names: readonly string[]): x509.Extension {
  const [ips, dns] = [names.map(bare).filter((name) => isIP(name)), names.filter((name) => !isIP(bare(name)))]
  const all = [
    ...[...OWN_NAMES, ...dns].map((dNSName) => new GeneralName({ dNSName })),
    ...[...OWN_RANGES, ...OWN_RANGES_6, ...ips.map((ip) => `${ip}/${isIP(ip) === 4 ? 32 : 128}`)].map(
      (iPAddress) => new GeneralName({ iPAddress }),
    ),
  ]
  const constraints = new NameConstraints({
    permittedSubtrees: new GeneralSubtrees(all.map((base) => new GeneralSubtree({ base }))),
  })
  return new x509.Extension(id_ce_nameConstraints, true, AsnConvert.serialize(constraints))
}

/** Whether an authority that was made for some names certifies another one too. */
export function covers(made: readonly string[], name: string): boolean {
  const is = bare(name)
  const version = isIP(is)
  if (version === 0) return [...OWN_NAMES, ...made].some((own) => is === own || is.endsWith(`.${own}`))
  if (made.map(bare).includes(is)) return true
  const ranges = new BlockList()
  for (const range of version === 4 ? OWN_RANGES : OWN_RANGES_6) {
    const [address = '', bits] = range.split('/')
    ranges.addSubnet(address, Number(bits), version === 4 ? 'ipv4' : 'ipv6')
  }
  return ranges.check(is, version === 4 ? 'ipv4' : 'ipv6')
}

/** Makes the shop's own certificate authority; whoever trusts it trusts it for the names of this shop only. */
export async function newAuthority(names: readonly string[], now: number): Promise<Certified> {
  const keys = await newKeys()
  const made = new Date(now).toISOString().slice(0, 10)
  const cert = await x509.X509CertificateGenerator.createSelfSigned({
    name: `CN=Dogleg in this shop ${made}`,
    keys,
    signingAlgorithm: SIGNED,
    notBefore: new Date(now - BEFORE_MS),
    notAfter: new Date(now + AUTHORITY_LASTS_MS),
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
      constraintsFor(names),
    ],
  })
  return { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) }
}

/** A certificate of the server for its names and addresses. */
export async function certify(
  authority: Certified,
  names: readonly string[],
  now: number,
): Promise<Certified> {
  const issuer = new x509.X509Certificate(authority.cert)
  const keys = await newKeys()
  const cert = await x509.X509CertificateGenerator.create({
    subject: 'CN=Dogleg',
    issuer: issuer.subject,
    publicKey: keys.publicKey,
    signingKey: await keyFrom(authority.key),
    signingAlgorithm: SIGNED,
    notBefore: new Date(Math.max(now - BEFORE_MS, issuer.notBefore.getTime())),
    notAfter: new Date(Math.min(now + SERVER_LASTS_MS, issuer.notAfter.getTime())),
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map(bare).map((value) => ({ type: isIP(value) ? ('ip' as const) : ('dns' as const), value })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  })
  return { cert: cert.toString('pem'), key: await pemOf(keys.privateKey) }
}
