import { type AddressInfo, connect } from 'node:net'
import { join } from 'node:path'
import { problemBody } from '@dogleg/core/api'
import { describe, expect, it } from 'vitest'
import { buildApp } from './app.ts'
import { openDatabase } from './database/open.ts'
import { fillDemo } from './demo.ts'
import { endServer, type Limits, USUAL_LIMITS } from './limits.ts'
import { noteEntry, openedEntry } from './testing/entries.ts'
import { newFolder } from './testing/process.ts'
import { post, servers, stored } from './testing/shop.ts'

const { start, stop } = servers()

/** A server in this process with limits of its own. */
async function limited(limits: Partial<Limits>) {
  const database = await openDatabase(
    join(newFolder(), 'log.sqlite'),
    join(import.meta.dirname, '../migrations'),
  )
  await fillDemo(database, Date.now())
  const all = { ...USUAL_LIMITS, ...limits }
  const app = await buildApp({
    database,
    hosts: new Set(['127.0.0.1']),
    page: newFolder(),
    clock: Date.now,
    limits: all,
  })
  await app.listen({ port: 0, host: '127.0.0.1' })
  const { port } = app.server.address() as AddressInfo
  return {
    port,
    address: `http://127.0.0.1:${port}`,
    close: async () => {
      await endServer(app, all)
      await database.close()
    },
  }
}

/** A connection that says something and then waits; resolves with what it was told when it was closed. */
function halfAQuestion(port: number, says: string): Promise<string> {
  const socket = connect(port, '127.0.0.1')
  let told = ''
  socket.on('data', (data) => {
    told += data
  })
  socket.write(says)
  return new Promise((resolve) => socket.once('close', () => resolve(told)))
}

describe('a server that is told to end', () => {
  it('answers the questions that are under way, closes the file, and loses none of what it acknowledged', async () => {
    const file = join(newFolder(), 'log.sqlite')
    const server = await start(file)
    const opened = openedEntry()
    await post(server.address, [opened])
    const { port } = new URL(server.address)
    const notes = Array.from({ length: 7 }, () => noteEntry(opened.id, 'under way'))
    // Each has sent its head and half of its body when the end comes.
    const sockets = notes.map((note) => {
      const body = JSON.stringify({ entries: [note] })
      const head = `POST /api/entries HTTP/1.1\r\nhost: 127.0.0.1:${port}\r\ncontent-type: application/json\r\ncontent-length: ${body.length}\r\nconnection: close\r\n\r\n`
      const socket = connect(Number(port), '127.0.0.1')
      let told = ''
      socket.on('data', (data) => {
        told += data
      })
      socket.write(head + body.slice(0, 40))
      const closed = new Promise<string>((resolve) => socket.once('close', () => resolve(told)))
      return { finish: () => socket.write(body.slice(40)), closed }
    })
    await new Promise((resolve) => setTimeout(resolve, 200))
    const ended = stop(server)
    await new Promise((resolve) => setTimeout(resolve, 200))
    for (const { finish } of sockets) finish()
    const answers = await Promise.all(sockets.map(({ closed }) => closed))
    expect(answers.map((told) => told.slice(0, 12))).toEqual(Array(7).fill('HTTP/1.1 201'))
    expect(await ended).toBe(0)
    const again = await start(file)
    expect(await stored(again.address, opened.id)).toEqual(new Set([opened, ...notes].map(({ id }) => id)))
  }, 30_000)

  it('waits for nobody who never finishes', async () => {
    const { port, close } = await limited({ toEnd: 300 })
    const hangs = halfAQuestion(
      port,
      'POST /api/entries HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 90\r\n\r\n{',
    )
    await new Promise((resolve) => setTimeout(resolve, 50))
    await close()
    await hangs
  }, 10_000)
})

/** What stands behind the head of an answer, in the one shape of a refusal. */
const bodyOf = (told: string) => problemBody.parse(JSON.parse(told.slice(told.indexOf('\r\n\r\n'))))

describe('limits', () => {
  it('close a connection whose question does not come', async () => {
    const { port, close } = await limited({ head: 300, whole: 600 })
    const [head, body] = await Promise.all([
      halfAQuestion(port, 'GET /api/setups HTTP/1.1\r\nhost: 127.0.0.1\r\n'),
      halfAQuestion(
        port,
        'POST /api/entries HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-type: application/json\r\ncontent-length: 90\r\n\r\n{',
      ),
    ])
    expect(head).toMatch(/^HTTP\/1.1 408/)
    expect(body).toMatch(/^HTTP\/1.1 408/)
    expect([bodyOf(head).error, bodyOf(body).error].map(({ code }) => code)).toEqual(['too-long', 'too-long'])
    await close()
  }, 10_000)

  it('answer what is no question in a sentence too, and go on', async () => {
    const { address, port, close } = await limited({})
    for (const [sent, status, code] of [
      ['GARBAGE\r\n\r\n', 400, 'not-understood'],
      ['GET /api/setups HTTP/9.9\r\nhost: 127.0.0.1\r\n\r\n', 400, 'not-understood'],
      [
        'POST /api/entries HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 5\r\ntransfer-encoding: chunked\r\n\r\n0\r\n\r\n',
        400,
        'not-understood',
      ],
      [`GET /api/setups HTTP/1.1\r\nhost: 127.0.0.1\r\nx: ${'x'.repeat(20_000)}\r\n\r\n`, 431, 'too-large'],
    ] as const) {
      const told = await halfAQuestion(port, sent)
      expect(told.slice(0, 12)).toBe(`HTTP/1.1 ${status}`)
      expect(bodyOf(told).error).toMatchObject({ code, says: expect.stringMatching(/^[A-Z].*\.$/) })
    }
    expect((await fetch(`${address}/api/reference-stamp`)).status).toBe(200)
    await close()
  }, 10_000)

  it('refuse a flood with a sentence and the time to wait, and leave the page itself alone', async () => {
    const { address, close } = await limited({ aMinute: 60 })
    const answers = await Promise.all(
      Array.from({ length: 90 }, () => fetch(`${address}/api/reference-stamp`)),
    )
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(60)
    const refused = answers.find(({ status }) => status === 429)
    expect(await refused?.json()).toMatchObject({
      error: { code: 'too-often', says: expect.stringMatching(/Wait \d+ seconds/) },
    })
    expect(refused?.headers.get('retry-after')).toMatch(/^\d+$/)
    expect((await fetch(`${address}/icon.svg`)).status).not.toBe(429)
    await close()
  }, 10_000)

  it('take no more connections than there may be', async () => {
    const { port, close } = await limited({ connections: 5, toEnd: 200 })
    const open = Array.from({ length: 5 }, () => connect(port, '127.0.0.1'))
    await new Promise((resolve) => setTimeout(resolve, 100))
    expect(await halfAQuestion(port, 'GET /api/setups HTTP/1.1\r\nhost: 127.0.0.1\r\n\r\n')).toBe('')
    for (const socket of open) socket.destroy()
    await close()
  }, 10_000)
})
