import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { buildApp } from './app.ts'
import { openDatabase } from './database/open.ts'
import { entries as table } from './database/schema.ts'
import type { LogLevel } from './server-log.ts'
import { noteEntry, openedEntry } from './testing/entries.ts'
import { newFolder } from './testing/process.ts'

/** A server that says what it logs, with routes that fail. */
async function logging(level: LogLevel) {
  const lines: string[] = []
  const database = await openDatabase(
    join(newFolder(), 'log.sqlite'),
    join(import.meta.dirname, '../migrations'),
  )
  const app = await buildApp({
    database,
    hosts: new Set(['localhost']),
    page: newFolder(),
    clock: Date.now,
    log: { level, to: (line) => lines.push(line) },
  })
  app.get('/api/fails', () => {
    throw new Error('it said: vise moved by RT')
  })
  app.get('/api/lacks', () => (undefined as unknown as { part: string }).part)
  app.get('/api/doubles', async () => {
    const { id } = openedEntry()
    for (const body of ['"vise moved"', '"vise moved"'])
      await database.write((tx) => tx.insert(table).values({ id, setup: id, body }))
  })
  const ask = async (method: 'GET' | 'POST', url: string, payload?: object) =>
    app.inject({ method, url, headers: { host: 'localhost' }, ...(payload ? { payload } : {}) })
  const close = async () => {
    await app.close()
    await database.close()
  }
  return { ask, lines, close, said: () => lines.map((line) => JSON.parse(line)) }
}

describe('the log of the server', () => {
  it('has one line a request: the route, the outcome and how long it took', async () => {
    const { ask, said, close } = await logging('info')
    const opened = openedEntry()
    expect((await ask('POST', '/api/entries', { entries: [opened] })).statusCode).toBe(422)
    await ask('GET', '/api/setups?by=RT')
    await ask('GET', `/api/setups/${opened.id}/entries`)
    await ask('GET', '/nothing/here')
    const requests = said().filter(({ route }) => route !== undefined)
    expect(requests).toMatchObject([
      { method: 'POST', route: '/api/entries', status: 422, refusal: 'machine-unknown' },
      { method: 'GET', route: '/api/setups', status: 200 },
      { method: 'GET', route: '/api/setups/:id/entries', status: 404, refusal: 'not-found' },
      { method: 'GET', status: 404 },
    ])
    for (const { ms, time } of requests)
      expect([typeof ms, time]).toEqual(['number', expect.stringMatching(/Z$/)])
    await close()
  })

  it('has a failure under a number that the page says, with its place in the code', async () => {
    const { ask, said, close } = await logging('warn')
    for (const [path, failure] of [
      ['/api/fails', { type: 'Error' }],
      ['/api/lacks', { type: 'TypeError', says: expect.stringMatching(/reading 'part'/) }],
      ['/api/doubles', { code: expect.stringMatching(/^SQLITE_CONSTRAINT/) }],
    ] as const) {
      const answer = await ask('GET', path)
      const number = /under (\w{6})\.$/.exec(answer.json().error.says)?.[1]
      expect([answer.statusCode, number]).toEqual([500, expect.any(String)])
      const line = said().find((each) => each.number === number)
      expect(line).toMatchObject({ msg: 'failed', failure })
      expect(line.failure.at.length).toBeGreaterThan(1)
    }
    // Requests that went well are not told at this level.
    await ask('GET', '/api/setups')
    expect(said().filter(({ msg }) => msg !== 'failed' && msg !== 'slow')).toEqual([])
    await close()
  })

  it('has no word of what was sent: no note, no program, no initials', async () => {
    const { ask, lines, close } = await logging('debug')
    const note = noteEntry(openedEntry().id, 'the vise moved')
    await ask('POST', '/api/entries', { entries: [note] })
    await ask('POST', '/api/entries', { entries: [{ ...note, text: 5, more: 'O1234 G0 X1.' }] })
    await ask('GET', '/api/setups?by=RT')
    await ask('GET', '/api/fails')
    await ask('GET', '/api/doubles')
    expect(lines.length).toBeGreaterThan(4)
    // The number of a failure is drawn: it may have any of these letters.
    const said = lines.join('').replaceAll(/"number":"\w+"/g, '')
    expect(said).not.toMatch(/vise|moved|G0|RT\b/)
    await close()
  })
})
