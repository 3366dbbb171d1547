import { X509Certificate } from 'node:crypto'
import { mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { request } from 'node:https'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { checkServerIdentity as checkIdentity, connect, createServer, type PeerCertificate } from 'node:tls'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { readConfig } from '../config.ts'
import { newFolder, refusedStart } from '../testing/process.ts'
import { servers } from '../testing/shop.ts'
import { certify, covers, newAuthority } from './authority.ts'
import { certificateOf } from './certificate.ts'
import { shopCertificate } from './shop-certificate.ts'

const { start } = servers()
const NOW = Date.UTC(2026, 11, 1)
const DAY = 24 * 3_600_000
const LONG = 60_000

/** What the TLS library of Node (OpenSSL) says of a server that shows a certificate, to whoever trusts the authority. */
function judged(ca: string, server: { cert: string; key: string }, servername: string): Promise<string> {
  return new Promise((resolve) => {
    const listening = createServer(server).listen(0, '127.0.0.1', () => {
      const { port } = listening.address() as AddressInfo
      const done = (says: string) => {
        client.destroy()
        listening.close()
        resolve(says)
      }
      const host = /^[\d.]+$/.test(servername) ? { host: servername } : { servername }
      const client = connect({ ...host, port, ca, ...(host.host ? {} : { host: '127.0.0.1' }) })
      client.once('secureConnect', () => done('trusted'))
      client.once('error', (error: NodeJS.ErrnoException) =>
        done(error.code === 'UNSPECIFIED' ? error.message : `${error.code}`),
      )
    })
  })
}

describe('the shop’s own authority', () => {
  it('certifies the server for its names and addresses, as OpenSSL sees it', async () => {
    const names = ['shop-pc', 'mill.lan', '127.0.0.1', '::1']
    const authority = await newAuthority(names, Date.now())
    const server = await certify(authority, names, Date.now())
    for (const name of ['shop-pc', 'mill.lan', '127.0.0.1'])
      expect([name, await judged(authority.cert, server, name)]).toEqual([name, 'trusted'])
    expect(await judged(authority.cert, server, 'other.lan')).toBe('ERR_TLS_CERT_ALTNAME_INVALID')
    const other = await newAuthority(names, Date.now())
    expect(await judged(other.cert, server, 'shop-pc')).not.toBe('trusted')
    const is = new X509Certificate(server.cert)
    expect(is.ca).toBe(false)
    expect(new X509Certificate(authority.cert).ca).toBe(true)
    // At most 398 days, by the CA/Browser Forum's Baseline Requirements, and the names of RFC 5280, 4.2.1.6.
    expect(Date.parse(is.validTo) - Date.parse(is.validFrom)).toBeLessThanOrEqual(398 * DAY)
    expect(is.subjectAltName).toBe(
      'DNS:shop-pc, DNS:mill.lan, IP Address:127.0.0.1, IP Address:0:0:0:0:0:0:0:1',
    )
  })

  it('is trusted for this shop only: a page of the internet that it certified all the same is refused', async () => {
    const authority = await newAuthority(['shop-pc', '127.0.0.1'], Date.now())
    for (const name of ['example.com', 'shop-pc.example', '192.0.2.7']) {
      const forged = await certify(authority, [name, '127.0.0.1'], Date.now())
      // OpenSSL holds the whole certificate against what RFC 5280, 4.2.1.10 permits.
      expect([name, await judged(authority.cert, forged, '127.0.0.1')]).toEqual([
        name,
        'permitted subtree violation',
      ])
      expect(covers(['shop-pc', '127.0.0.1'], name)).toBe(false)
    }
    for (const name of ['shop-pc', 'a.shop-pc', 'new.local', '10.1.2.3', '192.168.4.5', 'fd00::7']) {
      expect(covers(['shop-pc'], name)).toBe(true)
      const later = await certify(authority, [name, '127.0.0.1'], Date.now())
      expect([name, await judged(authority.cert, later, '127.0.0.1')]).toEqual([name, 'trusted'])
    }
  })
})

describe('the certificates of a shop', () => {
  it('are made once and kept, their keys for nobody else to read; the server’s is made anew in time, and for a new name', async () => {
    const folder = join(newFolder(), 'https')
    const first = await shopCertificate(folder, ['shop-pc'], NOW)
    expect(readdirSync(folder).sort()).toEqual([
      'authority-names.json',
      'authority.crt',
      'authority.key',
      'server.crt',
      'server.key',
    ])
    expect(statSync(folder).mode & 0o777).toBe(0o700)
    for (const name of ['authority.key', 'server.key'])
      expect(statSync(join(folder, name)).mode & 0o777).toBe(0o600)
    expect(await shopCertificate(folder, ['shop-pc'], NOW + 300 * DAY)).toEqual(first)
    const renewed = await shopCertificate(folder, ['shop-pc'], NOW + 350 * DAY)
    expect(renewed.server.cert).not.toBe(first.server.cert)
    expect(renewed).toMatchObject({ authority: first.authority, fingerprint: first.fingerprint })
    const named = await shopCertificate(folder, ['shop-pc', 'tools.lan'], NOW + 350 * DAY)
    expect(named.server.cert).not.toBe(renewed.server.cert)
    expect(named.authority).toBe(first.authority)
    expect(new X509Certificate(named.server.cert).checkHost('tools.lan')).toBe('tools.lan')
    expect(first.fingerprint).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/)
  })

  it('that cannot be read, or that would not be trusted for a name, are said with what to do', async () => {
    const folder = join(newFolder(), 'https')
    await shopCertificate(folder, ['shop-pc'], NOW)
    await expect(shopCertificate(folder, ['dogleg.example'], NOW)).rejects.toThrow(
      /would not trust dogleg\.example.*every tablet has to trust it anew/,
    )
    writeFileSync(join(folder, 'server.crt'), 'spoilt')
    await expect(shopCertificate(folder, ['shop-pc'], NOW)).rejects.toThrow(/server\.crt.*cannot be read/)
  })

  it('are looked at now and then while the server runs, and a newer one is handed over', async () => {
    const folder = newFolder()
    const file = join(folder, 'data', 'log.sqlite')
    mkdirSync(join(folder, 'data'))
    const config = readConfig({ DOGLEG_HTTPS: 'shop', DOGLEG_DATA: file, DOGLEG_HOSTS: 'shop-pc' }, NOW)
    let now = NOW
    const certificate = await certificateOf(config, () => now)
    const before = certificate?.now().cert
    vi.useFakeTimers()
    const taken: string[] = []
    const log = { error: vi.fn() }
    const timer = certificate?.keepUp(({ cert }) => taken.push(cert), log as never)
    await vi.advanceTimersByTimeAsync(DAY)
    vi.useRealTimers()
    expect(taken).toEqual([])
    now = NOW + 380 * DAY
    vi.useFakeTimers()
    clearInterval(timer)
    const again = certificate?.keepUp(({ cert }) => taken.push(cert), log as never)
    await vi.advanceTimersByTimeAsync(DAY / 2)
    vi.useRealTimers()
    await vi.waitFor(() => expect(taken).toHaveLength(1))
    expect(taken[0]).not.toBe(before)
    expect(certificate?.now().cert).toBe(taken[0])
    clearInterval(again)
    expect(log.error).not.toHaveBeenCalled()
  })
})
afterEach(() => vi.useRealTimers())

/** Asks over https, trusting an authority and nothing else. */
function askSecurely(ca: string, url: string, { method = 'GET', headers = {}, body = '' } = {}) {
  return new Promise<{ status: number; headers: NodeJS.Dict<string | string[]>; body: string }>(
    (resolve, reject) => {
      // The certificate is held against the address, whatever the Host header says.
      const servername = new URL(url).hostname
      const checkServerIdentity = (_host: string, cert: PeerCertificate) => checkIdentity(servername, cert)
      const asked = request(url, { method, ca, headers, checkServerIdentity }, (response) => {
        let text = ''
        response.on('data', (part) => {
          text += part
        })
        response.on('end', () =>
          resolve({ status: response.statusCode ?? 0, headers: response.headers, body: text }),
        )
      })
      asked.on('error', reject)
      asked.end(body)
    },
  )
}

describe('a server over https', () => {
  it(
    'shows on plain http how a tablet comes to trust it and nothing else, and the shop over https only',
    async () => {
      const file = join(newFolder(), 'log.sqlite')
      const settings = { DOGLEG_HTTPS: 'shop', DOGLEG_HTTPS_PORT: '0' }
      const { address, output } = await start(file, { settings })
      expect(address).toMatch(/^https:\/\/127\.0\.0\.1:\d+$/)
      const plain = /trust this shop's certificate: (\S+)/.exec(output())?.[1] ?? ''
      const fingerprint = /SHA-256 (\S+)/.exec(output())?.[1] ?? ''

      const page = await fetch(plain)
      const text = await page.text()
      expect(text).toContain(fingerprint)
      expect(text).toContain(address)
      expect(text).not.toMatch(/<script|javascript:/)
      expect(page.headers.get('content-security-policy')).toMatch(/default-src 'none'/)
      const authority = await fetch(`${plain}/dogleg-authority.crt`)
      expect(authority.headers.get('content-type')).toBe('application/x-x509-ca-cert')
      const ca = new X509Certificate(Buffer.from(await authority.arrayBuffer()))
      expect(ca.fingerprint256).toBe(fingerprint)
      expect((await fetch(`${plain}/trust.css`)).status).toBe(200)

      const elsewhere = await fetch(`${plain}/setups/x?step=1`, { redirect: 'manual' })
      expect([elsewhere.status, elsewhere.headers.get('location')]).toEqual([
        308,
        `${address}/setups/x?step=1`,
      ])
      const api = await fetch(`${plain}/api/setups`, { redirect: 'manual' })
      expect(api.status).toBe(308)
      const json = { 'content-type': 'application/json' }
      const sent = await fetch(`${plain}/api/entries`, {
        method: 'POST',
        headers: json,
        body: '{"entries":[]}',
      })
      expect([sent.status, await sent.json()]).toMatchObject([403, { error: { code: 'https-only' } }])

      const shop = await askSecurely(ca.toString(), `${address}/api/setups`)
      expect([shop.status, shop.headers['cache-control']]).toEqual([200, 'no-store'])
      expect(shop.headers['permissions-policy']).toMatch(/camera=\(self\).*geolocation=\(\)/)
      expect(shop.headers['x-content-type-options']).toBe('nosniff')
      // The guard of Hosts and origins holds in both.
      const foreign = { host: 'evil.example' }
      expect((await askSecurely(ca.toString(), `${address}/api/setups`, { headers: foreign })).status).toBe(
        421,
      )
      const cross = { ...json, origin: address.replace('https', 'http') }
      const post = { method: 'POST', body: '{}' }
      const url = `${address}/api/backups/stop`
      expect((await askSecurely(ca.toString(), url, { ...post, headers: cross })).status).toBe(403)
      const own = { ...json, origin: address }
      expect((await askSecurely(ca.toString(), url, { ...post, headers: own })).status).toBe(200)
      // Nobody who does not trust the authority gets there, and no older TLS is spoken.
      await expect(fetch(`${address}/api/setups`)).rejects.toThrow()
    },
    LONG,
  )

  it(
    'takes a certificate of one’s own from two files, and sends plain http there',
    async () => {
      const folder = newFolder()
      const authority = await newAuthority(['127.0.0.1'], Date.now())
      const { cert, key } = await certify(authority, ['127.0.0.1'], Date.now())
      const [certFile, keyFile] = [join(folder, 'own.crt'), join(folder, 'own.key')]
      writeFileSync(certFile, cert)
      writeFileSync(keyFile, key)
      const settings = { DOGLEG_CERT: certFile, DOGLEG_KEY: keyFile, DOGLEG_HTTPS_PORT: '0' }
      const { address, output } = await start(join(folder, 'log.sqlite'), { settings })
      expect(output()).not.toMatch(/trust/)
      expect((await askSecurely(authority.cert, `${address}/api/session`)).body).toBe('{"signs":false}')
      expect(readFileSync(certFile, 'utf8')).toBe(cert)
    },
    LONG,
  )

  it.each([
    [{ DOGLEG_HTTPS: 'on' }, /DOGLEG_HTTPS is shop/],
    [{ DOGLEG_CERT: 'a.crt' }, /belong together/],
    [{ DOGLEG_KEY: 'a.key' }, /belong together/],
    [{ DOGLEG_HTTPS: 'shop', DOGLEG_CERT: 'a', DOGLEG_KEY: 'b' }, /not both/],
    [{ DOGLEG_CERT: '/nowhere/a.crt', DOGLEG_KEY: '/nowhere/a.key' }, /cannot be read/],
    [{ DOGLEG_HTTPS: 'shop', DOGLEG_HTTPS_PORT: 'x' }, /is a number/],
  ])(
    'says in a sentence what is wrong with its settings: %o',
    async (settings, says) => {
      const { code, says: told } = await refusedStart(join(newFolder(), 'log.sqlite'), { settings })
      expect([code, told]).toEqual([2, expect.stringMatching(says)])
    },
    LONG,
  )
})
