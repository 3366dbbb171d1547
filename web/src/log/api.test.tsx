import { LANGUAGE } from '@dogleg/core/api'
import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Refused, useReachable } from './api.ts'
import { now } from './clock.ts'

const AWAY = 'The server does not answer. What you enter is kept on this tablet and is sent when it is back.'

/** What the network gives to the next question. */
const answers = (give: (path: string, how: RequestInit) => Response | Promise<Response>) =>
  vi.stubGlobal('fetch', vi.fn(give))
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status })

beforeEach(() => {
  answers(() => json({ stamp: 1, time: new Date().toISOString() }))
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a question to the server', () => {
  it('goes out as JSON with a body, and without one where there is none', async () => {
    const asked: [string, RequestInit][] = []
    answers((path, how) => {
      asked.push([path, how])
      return json({ added: 1, known: 0 })
    })
    expect(await api.append([], [])).toEqual({ added: 1, known: 0 })
    await api.referenceStamp()
    expect(asked.map(([path, { method, body, headers }]) => [path, method, body, headers])).toEqual([
      [
        '/api/entries',
        'POST',
        '{"entries":[],"held":[]}',
        { 'content-type': 'application/json', 'dogleg-language': String(LANGUAGE) },
      ],
      ['/api/reference-stamp', 'GET', undefined, { 'dogleg-language': String(LANGUAGE) }],
    ])
  })

  it('puts the long texts of a log in their places, each asked for once by its name', async () => {
    const hash = (digit: string) => digit.repeat(64)
    const named = (digit: string) => ({ 'text-sha256': hash(digit) })
    const asked: string[] = []
    answers((path) => {
      asked.push(path)
      const [, of] = /^\/api\/texts\/(.)/.exec(path) ?? []
      return of === undefined
        ? json({
            entries: [
              { text: named('a') },
              { plan: [{ text: named('b') }, { text: named('a') }] },
              { text: 'short' },
            ],
            seq: 3,
          })
        : json({ hash: hash(of), text: `program ${of}` })
    })
    expect((await api.entriesSince('one', 0)).entries).toEqual([
      { text: 'program a' },
      { plan: [{ text: 'program b' }, { text: 'program a' }] },
      { text: 'short' },
    ])
    expect(asked.slice(1)).toEqual([`/api/texts/${hash('a')}`, `/api/texts/${hash('b')}`])
    // A log that lacks a text is no log: it is asked for again.
    answers((path) =>
      path.startsWith('/api/texts/')
        ? json({ error: { code: 'not-found', says: 'No.' } }, 404)
        : json({ entries: [{ text: named('a') }], seq: 1 }),
    )
    await expect(api.entriesSince('one', 0)).rejects.toThrow('could not be fetched')
  })

  it('about something by name goes to that address and to no other, whatever the name holds', async () => {
    const asked: string[] = []
    answers((path) => {
      asked.push(path)
      return json({ entries: [], seq: 0 })
    })
    await api.entriesSince('../../api/numbers?', 0)
    await api.machineEntriesSince('%2f', 3)
    expect(asked).toEqual([
      '/api/setups/..%2F..%2Fapi%2Fnumbers%3F/entries?after=0&texts=named',
      '/api/machines/%252f/entries?after=3',
    ])
  })

  it('that is refused says why, in the words of the server', async () => {
    answers(() =>
      json({ error: { code: 'edited-meanwhile', says: 'MK saved it.', detail: { version: 3 } } }, 409),
    )
    const error = await api.referenceStamp().catch((thrown: unknown) => thrown)
    expect(error).toBeInstanceOf(Refused)
    expect(error).toMatchObject({
      status: 409,
      code: 'edited-meanwhile',
      message: 'MK saved it.',
      detail: { version: 3 },
    })
  })

  it.each([{}, { error: null }, { error: {} }, { message: 'Bad gateway' }])(
    'that is refused without words gets a sentence all the same: %j',
    async (body) => {
      answers(() => json(body, 502))
      await expect(api.referenceStamp()).rejects.toMatchObject({
        status: 502,
        message: 'Something went wrong in the server.',
      })
    },
  )

  it.each([
    ['the network is gone', () => Promise.reject(new TypeError('Failed to fetch'))],
    ['a page is answered instead, as by the login of a network', () => new Response('<html>Log in</html>')],
    ['nothing is answered', () => new Response('')],
    ['the answer ends in the middle', () => new Response('{"stamp": 1, "ti')],
    ['it is JSON, but no answer of this server', () => json(null)],
    ['it is JSON, and refuses, but is no answer of this server', () => json('no', 500)],
  ])('says that the server is away where %s, and that it is back', async (_, give) => {
    const { result } = renderHook(useReachable)
    await act(() => api.referenceStamp())
    expect(result.current).toBe(true)
    answers(give)
    await act(() => expect(api.referenceStamp()).rejects.toThrow(AWAY))
    expect(result.current).toBe(false)
    answers(() => json({ stamp: 2 }))
    await act(() => api.referenceStamp())
    expect(result.current).toBe(true)
  })

  it('is given up when the server is silent', async () => {
    const signals: AbortSignal[] = []
    const patience = vi.spyOn(AbortSignal, 'timeout').mockImplementation(() => AbortSignal.abort())
    answers((_, { signal }) => {
      signals.push(signal as AbortSignal)
      return signal?.aborted ? Promise.reject(signal.reason) : json({})
    })
    await expect(api.referenceStamp()).rejects.toThrow(AWAY)
    expect(patience).toHaveBeenCalledWith(10_000)
    expect(signals).toHaveLength(1)
    patience.mockRestore()
  })
})

describe('the time of the server', () => {
  const HOUR = 3_600_000

  it('counts on a tablet whose clock is wrong, and is kept for when the server is away', async () => {
    answers(() => json({ stamp: 1, time: new Date(Date.now() - 5 * HOUR).toISOString() }))
    await api.referenceStamp()
    expect(Math.abs(now() - (Date.now() - 5 * HOUR))).toBeLessThan(1000)
    answers(() => Promise.reject(new TypeError('Failed to fetch')))
    await expect(api.referenceStamp()).rejects.toThrow(AWAY)
    expect(Math.abs(now() - (Date.now() - 5 * HOUR))).toBeLessThan(1000)
    const kept = JSON.parse(localStorage.getItem('dogleg.clock') ?? '')
    expect(Math.abs(kept.wall - kept.time - 5 * HOUR)).toBeLessThan(1000)
  })

  it.each(['yesterday', '', '2026-13-45T99:00:00Z'])('that is none changes nothing: %j', async (time) => {
    await api.referenceStamp()
    answers(() => json({ stamp: 1, time }))
    await api.referenceStamp()
    expect(Math.abs(now() - Date.now())).toBeLessThan(1000)
    const kept = JSON.parse(localStorage.getItem('dogleg.clock') ?? '')
    expect(Math.abs(kept.wall - kept.time)).toBeLessThan(1000)
  })
})
