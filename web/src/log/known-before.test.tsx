import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

/** The databases of a made-up tablet: the answers, and when each was told. */
const databases = new Map<string, Map<string, unknown>>()
const stored = new Map<string, unknown>()
const told = new Map<string, unknown>()
databases.set('answers', stored)
databases.set('times', told)
vi.mock('idb-keyval', () => {
  const of = (name: string) => databases.get(name) ?? new Map<string, unknown>()
  return {
    createStore: (_database: string, name: string) => name,
    get: async (key: string, name: string) => of(name).get(key),
    set: async (key: string, value: unknown, name: string) => void of(name).set(key, value),
    delMany: async (keys: string[], name: string) => {
      for (const key of keys) of(name).delete(key)
    },
    clear: async (name: string) => of(name).clear(),
    entries: async (name: string) => {
      // A log may be long: only the times are looked through.
      expect(name).toBe('times')
      return [...of(name)]
    },
  }
})

beforeEach(() => {
  stored.clear()
  told.clear()
  vi.resetModules()
})
afterEach(() => vi.useRealTimers())

const open = async () => {
  const known = await import('./known-before.ts')
  const { Unreachable: Away } = await import('./api.ts')
  const ask = (key: string[], answer: () => Promise<unknown>, data?: unknown) =>
    known.knownBefore(answer as never, {} as never, { queryKey: key, state: { data } })
  const away = async () => {
    throw new Away()
  }
  return { ...known, ask, away }
}

describe('what the server told this tablet', () => {
  it('stands in for it while it is away, on a page that knows nothing yet', async () => {
    const before = await open()
    await before.ask(['log', 'one'], async () => ({ entries: [1] }))
    vi.resetModules()
    const { ask, away } = await open()
    expect(await ask(['log', 'one'], away)).toEqual({ entries: [1] })
    // Of another setup nothing is known, and what a page has is not put back to what was.
    await expect(ask(['log', 'two'], away)).rejects.toThrow('does not answer')
    await expect(ask(['log', 'one'], away, { entries: [1, 2] })).rejects.toThrow('does not answer')
  })

  it('does not hide what it refuses, and is not kept of what ages at once', async () => {
    const { ask, away } = await open()
    await ask(['log', 'one'], async () => ({ entries: [1] }))
    const refused = async () => {
      throw new Error('There is no such setup here.')
    }
    await expect(ask(['log', 'one'], refused)).rejects.toThrow('no such setup')
    await ask(['positions', 'mill'], async () => ({ X: 1 }))
    await expect(ask(['positions', 'mill'], away)).rejects.toThrow('does not answer')
    expect([...stored.keys()]).toEqual(['["log","one"]'])
  })

  it('is shown where the server takes long to answer, and is the server’s again once it has', async () => {
    const before = await open()
    await before.ask(['setups', 'KM'], async () => 'of before')
    vi.resetModules()
    vi.useFakeTimers()
    const { ask } = await open()
    let answer = (_: string) => {}
    const asked = ask(['setups', 'KM'], () => new Promise((resolve) => (answer = resolve)))
    await vi.advanceTimersByTimeAsync(5000)
    expect(await asked).toBe('of before')
    answer('of now')
    await vi.advanceTimersByTimeAsync(30_000)
    expect(stored.get('["setups","KM"]')).toMatchObject({ value: 'of now' })
  })

  it('is shown on no tablet that is locked, and forgotten where it is shut out', async () => {
    const { ask, away, forgetKnown } = await open()
    await ask(['log', 'one'], async () => 'told')
    const session = await import('./session.ts')
    session.noteSession({ signs: true, tablet: { id: 't', name: 'Mill', locksAfter: 15 } })
    const asked = ask(['log', 'one'], away)
    expect(await Promise.race([asked, new Promise((resolve) => setTimeout(resolve, 20, 'waits'))])).toBe(
      'waits',
    )
    session.noteSession({ signs: false })
    expect(await asked).toBe('told')
    await forgetKnown()
    expect(stored.size).toBe(0)
  })

  it('is kept of two hundred answers, those that were told last', async () => {
    const { tidyKnown } = await open()
    for (let n = 0; n < 230; n++) {
      stored.set(`k${n}`, { at: (n * 37) % 230, value: n })
      told.set(`k${n}`, (n * 37) % 230)
    }
    await tidyKnown()
    expect([stored.size, told.size]).toEqual([200, 200])
    expect(Math.min(...[...stored.values()].map((each) => (each as { at: number }).at))).toBe(30)
  })
})
