import { mkdirSync, writeFileSync } from 'node:fs'
import { type IncomingHttpHeaders, request } from 'node:http'
import { join } from 'node:path'
import { brotliCompressSync } from 'node:zlib'
import Fastify, { type FastifyInstance } from 'fastify'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { pages, tellPage } from './pages.ts'
import { newFolder } from './testing/process.ts'

const SECRET = 'what lies beside the page'
const SCRIPT = 'export const zero = 0\n'
let app: FastifyInstance
let port: number

beforeAll(async () => {
  const folder = newFolder()
  const page = join(folder, 'page')
  mkdirSync(join(page, 'assets'), { recursive: true })
  writeFileSync(join(folder, 'secret.txt'), SECRET)
  writeFileSync(join(page, 'index.html'), '<title>the page</title>')
  writeFileSync(join(page, 'assets/step.js'), SCRIPT)
  writeFileSync(join(page, 'assets/step.js.br'), brotliCompressSync(SCRIPT))
  app = Fastify()
  await pages(app, page)
  port = Number(new URL(await app.listen({ port: 0, host: '127.0.0.1' })).port)
})
afterAll(() => app.close())

interface Answer {
  status: number
  headers: IncomingHttpHeaders
  body: string
}

/** Asks for the address exactly as it is written: nothing on the way tidies it up. */
const ask = (path: string, { method = 'GET', accepts = '' } = {}) =>
  new Promise<Answer>((resolve, reject) => {
    const asked = request(
      { host: '127.0.0.1', port, path, method, headers: accepts ? { 'accept-encoding': accepts } : {} },
      (response) => {
        let body = ''
        response.setEncoding('utf8').on('data', (text) => {
          body += text
        })
        response.once('end', () =>
          resolve({ status: response.statusCode ?? 0, headers: response.headers, body }),
        )
      },
    )
    asked.once('error', reject).end()
  })

describe('the page that is served', () => {
  it.each([
    '/',
    '/?from=mail',
    '/machines',
    '/assets',
    '/assets/',
    '/setups/01KAS000000000000000000ZZ0/zero?axis=X',
  ])('is the answer to a view: %s', async (path) => {
    const { status, headers, body } = await ask(path)
    expect([status, body]).toEqual([200, '<title>the page</title>'])
    // It names the scripts of today: never one of yesterday from a cache.
    expect(headers['cache-control']).toBe('no-cache')
  })

  it('gives a file for ever, and packed to whom takes it so', async () => {
    const plain = await ask('/assets/step.js')
    expect([plain.status, plain.body]).toEqual([200, SCRIPT])
    expect(plain.headers['cache-control']).toBe('public, max-age=31536000, immutable')
    expect(plain.headers['content-type']).toMatch(/^(text|application)\/javascript/)
    const packed = await ask('/assets/step.js', { accepts: 'gzip, br' })
    expect(packed.headers['content-encoding']).toBe('br')
    expect(packed.headers['content-type']).toMatch(/^(text|application)\/javascript/)
    expect(packed.headers['cache-control']).toBe('public, max-age=31536000, immutable')
  })

  it.each(['/assets/of-yesterday.js', '/favicon.png', '/api', '/api/', '/api/none'])(
    'says that there is nothing, and is not the page instead: %s',
    async (path) => {
      const { status, body } = await ask(path)
      expect([status, JSON.parse(body)]).toEqual([
        404,
        { error: { code: 'not-found', says: 'There is nothing at this address.' } },
      ])
    },
  )

  it('is told with every answer by the script that it begins with, and with no file', async () => {
    const folder = newFolder()
    const script = '/assets/index-1a2b.js'
    writeFileSync(join(folder, 'index.html'), `<script type="module" crossorigin src="${script}"></script>`)
    const served = Fastify()
    tellPage(served, folder)
    await pages(served, folder)
    const headerOf = async (url: string) => (await served.inject({ url })).headers['dogleg-page']
    expect([await headerOf('/api/none'), await headerOf('/'), await headerOf('/shop')]).toEqual([
      script,
      undefined,
      undefined,
    ])
    await served.close()
    // One that was not built has no name.
    const unbuilt = Fastify()
    tellPage(unbuilt, newFolder())
    await pages(unbuilt, newFolder())
    expect((await unbuilt.inject({ url: '/api/none' })).headers['dogleg-page']).toBeUndefined()
    await unbuilt.close()
  })

  it('is only looked at', async () => {
    for (const method of ['POST', 'PUT', 'DELETE', 'PATCH'])
      expect((await ask('/machines', { method })).status).toBe(404)
  })

  it('never gives what lies beside it', async () => {
    const paths = [
      '/../secret.txt',
      '/assets/../../secret.txt',
      '/%2e%2e/secret.txt',
      '/..%2fsecret.txt',
      '/assets/..%2f..%2fsecret.txt',
      '/assets/%2e%2e/%2e%2e/secret.txt',
      '/..%5csecret.txt',
      '//../secret.txt',
      '/%252e%252e%252fsecret.txt',
      '/secret.txt%00.js',
      '/%',
      '/%ff',
      `/${'a/'.repeat(5000)}`,
      `/${'../'.repeat(2000)}etc/passwd`,
    ]
    for (const path of paths) {
      const { status, body } = await ask(path)
      expect(body).not.toContain(SECRET)
      expect(body).not.toContain('root:')
      // The page itself, or a refusal: nothing breaks.
      expect(status).toBeLessThan(500)
    }
  })
})
