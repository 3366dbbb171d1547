import type { Entry } from '@dogleg/core/setup'
import { QueryClient } from '@tanstack/react-query'
import { monotonicFactory } from 'ulid'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

/** A tablet: its storage, which outlives a page, and the server that it talks to. */
class Storage {
  [key: string]: unknown
  private full = false
  fill() {
    this.full = true
  }
  getItem = (key: string) => (this[key] as string | undefined) ?? null
  setItem = (key: string, value: string) => {
    if (this.full) throw new Error('QuotaExceededError')
    this[key] = value
  }
  removeItem = (key: string) => {
    delete this[key]
  }
}

const ulid = monotonicFactory()
const note = (text: string): Entry => {
  const id = ulid()
  return {
    id,
    setup: '01J00000000000000000000000',
    at: '2026-11-24T08:00:00.000Z',
    by: 'RT',
    kind: 'note',
    text,
  }
}

let storage: Storage
const kept = () => Object.keys(storage).filter((key) => key.startsWith('dogleg.outbox.')).length

/** A page that was just opened on the tablet. */
async function openPage() {
  vi.resetModules()
  return import('./outbox.ts')
}

type Answer = { status: number; body: unknown } | 'away'
const sent: string[][] = []
function server(answer: (texts: string[]) => Answer) {
  vi.stubGlobal('fetch', async (_path: string, { body }: { body: string }) => {
    const texts = (JSON.parse(body).entries as { text: string }[]).map(({ text }) => text)
    const said = answer(texts)
    if (said === 'away') throw new TypeError('Failed to fetch')
    sent.push(texts)
    return new Response(JSON.stringify(said.body), { status: said.status })
  })
}
const takes: Answer = { status: 201, body: { added: 1, known: 0 } }
const refuses: Answer = { status: 422, body: { error: { code: 'not-valid', says: 'Not like this.' } } }

beforeEach(() => {
  vi.useFakeTimers()
  storage = new Storage()
  sent.length = 0
  vi.stubGlobal('localStorage', storage)
  vi.stubGlobal('window', new EventTarget())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the outbox', () => {
  it('keeps an entry until the server has acknowledged it', async () => {
    server(() => takes)
    const { post } = await openPage()
    post(note('one'))
    expect(kept()).toBe(1)
    await vi.waitFor(() => expect(kept()).toBe(0))
    expect(sent).toEqual([['one']])
  })

  it('keeps entries over a reload while the server is away, and sends them in order when it is back', async () => {
    server(() => 'away')
    const page = await openPage()
    page.post(note('one'))
    page.post(note('two'))
    await vi.advanceTimersByTimeAsync(10_000)
    expect(kept()).toBe(2)
    server(() => takes)
    const reloaded = await openPage()
    await reloaded.flush()
    expect(sent.flat()).toEqual(['one', 'two'])
    expect(kept()).toBe(0)
  })

  it('tries again by itself', async () => {
    server(() => 'away')
    const { post } = await openPage()
    post(note('one'))
    await vi.advanceTimersByTimeAsync(100)
    server(() => takes)
    await vi.advanceTimersByTimeAsync(5_000)
    expect(kept()).toBe(0)
  })

  it('waits when the server cannot write, rather than giving the entry up', async () => {
    server(() => ({ status: 503, body: { error: { code: 'logbook-unwritable', says: 'Not now.' } } }))
    const { post } = await openPage()
    post(note('one'))
    await vi.advanceTimersByTimeAsync(100)
    server(() => takes)
    await vi.advanceTimersByTimeAsync(5_000)
    expect(sent.at(-1)).toEqual(['one'])
    expect(kept()).toBe(0)
  })

  it('one refused entry does not hold up the others, and stays until a person decides', async () => {
    server(() => 'away')
    const page = await openPage()
    for (const text of ['one', 'bad', 'three']) page.post(note(text))
    await vi.advanceTimersByTimeAsync(100)
    server((texts) => (texts.includes('bad') ? refuses : takes))
    await vi.advanceTimersByTimeAsync(5_000)
    expect(sent.filter((texts) => !texts.includes('bad')).flat()).toEqual(['one', 'three'])
    expect(kept()).toBe(1)
    const stored = JSON.parse(
      storage.getItem(Object.keys(storage).find((key) => key.includes('outbox')) ?? '') ?? '',
    )
    expect(stored.refused).toEqual({ code: 'not-valid', says: 'Not like this.' })
    server(() => takes)
    page.tryAgain(stored)
    await vi.advanceTimersByTimeAsync(100)
    expect(kept()).toBe(0)
  })

  it('still sends when the storage of the tablet is full', async () => {
    storage.fill()
    server(() => takes)
    const { post } = await openPage()
    post(note('one'))
    await vi.advanceTimersByTimeAsync(100)
    expect(sent).toEqual([['one']])
  })

  it('asks once, and not for ever, when the storage is too full to note a refusal', async () => {
    server(() => 'away')
    const { post } = await openPage()
    post(note('one'))
    await vi.advanceTimersByTimeAsync(100)
    storage.fill()
    server(() => refuses)
    await vi.advanceTimersByTimeAsync(30_000)
    expect(sent).toEqual([['one']])
    expect(kept()).toBe(1)
  })
})

describe('the log on screen', () => {
  it('keeps an entry that is delivered while the server is being asked what is new', async () => {
    const { askLog, noteDelivered } = await import('./log-cache.ts')
    const client = new QueryClient()
    let answer: (response: Response) => void = () => {}
    vi.stubGlobal('fetch', () => new Promise<Response>((resolve) => (answer = resolve)))
    const [first, second] = [note('one'), note('two')]
    noteDelivered(client, [first])
    const asked = askLog(client, first.setup)
    noteDelivered(client, [second])
    answer(new Response(JSON.stringify({ entries: [], seq: 0 })))
    expect((await asked).entries).toEqual([first, second])
    client.clear()
  })
})

describe('the clock', () => {
  it('stamps by the time of the server, over a reload and while it is away', async () => {
    vi.setSystemTime('2026-11-24T08:05:00Z')
    const { noteServerTime, reading } = await import('./clock.ts')
    noteServerTime('2026-11-24T08:00:00.000Z', reading())
    await openPage()
    const { now } = await import('./clock.ts')
    expect(new Date(now()).toISOString()).toBe('2026-11-24T08:00:00.000Z')
  })
})
