import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fillStorage } from '../testing/full-storage.ts'

/** A page that was just opened on a tablet. */
async function openPage() {
  vi.resetModules()
  return (await import('./storage.ts')).storage
}

/** Where a browser lets no page keep anything, the very look at the storage throws. */
const blocked = () =>
  vi.stubGlobal(
    'localStorage',
    new Proxy({} as Storage, {
      get: () => {
        throw new DOMException('blocked', 'SecurityError')
      },
      ownKeys: () => {
        throw new DOMException('blocked', 'SecurityError')
      },
    }),
  )

beforeEach(() => localStorage.clear())
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

describe('the storage of a tablet', () => {
  it('keeps what it takes, over a reload', async () => {
    const storage = await openPage()
    expect(storage.set('dogleg.a', '1')).toBe(true)
    expect((await openPage()).get('dogleg.a')).toBe('1')
    expect(storage.isHeld('dogleg.a')).toBe(false)
  })

  it.each([
    ['full', fillStorage],
    ['blocked', blocked],
  ])('that is %s leaves it to the page, which says so', async (_how, happens) => {
    happens()
    const storage = await openPage()
    expect(storage.set('dogleg.a', '1')).toBe(false)
    expect(storage.replace('dogleg.b', '2')).toBe(false)
    expect([storage.get('dogleg.a'), storage.isHeld('dogleg.a')]).toEqual(['1', true])
    expect(storage.keys('dogleg.')).toEqual(['dogleg.a', 'dogleg.b'])
    storage.set('dogleg.a', '3')
    expect(storage.get('dogleg.a')).toBe('3')
    storage.remove('dogleg.a')
    expect(storage.keys('dogleg.')).toEqual(['dogleg.b'])
    vi.restoreAllMocks()
    vi.unstubAllGlobals()
    expect((await openPage()).get('dogleg.b')).toBeNull()
  })

  it('that is full keeps an earlier state of what may come back, and lets go of that of what may not', async () => {
    const storage = await openPage()
    storage.set('dogleg.entry', 'earlier')
    storage.set('dogleg.draft', 'earlier')
    fillStorage()
    storage.set('dogleg.entry', 'later')
    storage.replace('dogleg.draft', 'later')
    expect([storage.get('dogleg.entry'), storage.get('dogleg.draft')]).toEqual(['later', 'later'])
    vi.unstubAllGlobals()
    const reloaded = await openPage()
    expect([reloaded.get('dogleg.entry'), reloaded.get('dogleg.draft')]).toEqual(['earlier', null])
  })

  it('takes again what the page held, once there is room', async () => {
    const storage = await openPage()
    fillStorage()
    storage.set('dogleg.a', '1')
    vi.unstubAllGlobals()
    expect(storage.set('dogleg.a', '1')).toBe(true)
    expect(storage.isHeld('dogleg.a')).toBe(false)
  })
})
