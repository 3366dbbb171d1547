import { monotonicFactory } from 'ulid'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { signingServer } from '../testing/signing.ts'

const ulid = monotonicFactory()
const START = Date.UTC(2026, 10, 24, 8)

let server: ReturnType<typeof signingServer>
beforeEach(() => {
  vi.useFakeTimers({ now: START })
  server = signingServer()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** A page that was just opened on the tablet: it knows what the storage has, and nothing else. */
async function openPage() {
  vi.resetModules()
  const [sign, session, outbox, { api }, { operator }] = await Promise.all([
    import('./sign.ts'),
    import('../log/session.ts'),
    import('../log/outbox.ts'),
    import('../log/api.ts'),
    import('../log/operator.ts'),
  ])
  outbox.startOutbox(() => undefined)
  const record = (text: string) => {
    const id = ulid()
    const at = new Date().toISOString()
    outbox.post({ id, setup: id, at, by: operator(), kind: 'note', text } as never)
  }
  return { ...sign, ...session, ...outbox, api, operator, record }
}
const settle = () => vi.advanceTimersByTimeAsync(10)
const minutes = (n: number) => vi.advanceTimersByTimeAsync(n * 60_000)
const waiting = () =>
  Object.keys({ ...localStorage }).filter((key) => key.startsWith('dogleg.outbox.')).length

describe('signing in', () => {
  it('signs what is recorded from then on, by the stay that the server gave', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('KM', '1973')
    expect(page.sessionNow()).toMatchObject({ person: { initials: 'KM', may: 'operator' }, sitting: 's0' })
    page.record('one')
    await settle()
    await page.signIn('RT', '2580')
    page.record('two')
    await settle()
    expect(server.taken).toEqual([
      { by: 'KM', text: 'one', sitting: 's0' },
      { by: 'RT', text: 'two', sitting: 's1' },
    ])
    expect(waiting()).toBe(0)
  })

  it('with a wrong PIN says so, and whoever was here is still here', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('KM', '1973')
    await expect(page.signIn('RT', '0000')).rejects.toThrow('wrong-pin')
    expect(page.sessionNow().person?.initials).toBe('KM')
  })

  it('keeps no PIN in the storage, whether the server is there or away', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('KM', '1973')
    server.away = true
    await page.signIn('RT', '2580')
    const all = JSON.stringify({ ...localStorage })
    expect(all).toContain('KM')
    for (const pin of ['1973', '2580']) expect(all).not.toContain(pin)
  })
})

describe('two people at one tablet with the server away', () => {
  it('each sign their own when it is back, from when they came', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('RT', '2580')
    server.away = true
    page.record('by the first, who was known')
    await minutes(10)
    await page.signIn('KM', '1973')
    expect(page.sessionNow()).toMatchObject({ person: { initials: 'KM' }, unproved: true })
    page.record('by the second')
    await minutes(10)
    await page.signIn('RT', '2580')
    page.record('by the first again')
    await settle()
    expect([server.taken, waiting()]).toEqual([[], 3])
    server.away = false
    await page.askSession()
    await settle()
    expect(server.taken.toSorted((a, b) => (a.text < b.text ? -1 : 1))).toEqual([
      { by: 'RT', text: 'by the first again', sitting: 's2' },
      { by: 'RT', text: 'by the first, who was known', sitting: 's0' },
      { by: 'KM', text: 'by the second', sitting: 's1' },
    ])
    expect(server.sittings).toEqual([
      { by: 'RT', since: undefined, over: false },
      { by: 'KM', since: new Date(START + 10 * 60_000).toISOString(), over: true },
      { by: 'RT', since: new Date(START + 20 * 60_000).toISOString(), over: false },
    ])
    expect(page.sessionNow()).toMatchObject({ person: { initials: 'RT', may: 'lead' }, sitting: 's2' })
    expect(page.sessionNow().unproved).toBeUndefined()
    expect(waiting()).toBe(0)
  })

  it('what was recorded under a PIN that was wrong goes out under nobody, and waits for its own', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('RT', '2580')
    server.away = true
    await page.signIn('KM', '9999')
    page.record('by whoever that was')
    server.away = false
    await page.askSession()
    await settle()
    expect(page.sessionNow().person).toBeUndefined()
    expect(page.wronglySignedIn()).toBe('KM')
    await page.signIn('RT', '2580')
    await settle()
    expect([server.taken, waiting()]).toEqual([[], 1])
    await page.signIn('KM', '1973')
    await settle()
    expect(server.taken).toEqual([{ by: 'KM', text: 'by whoever that was', sitting: 's2' }])
    expect(page.wronglySignedIn()).toBeUndefined()
  })

  it('a page that was opened anew meanwhile has no PIN: what waits goes out once its person signs in', async () => {
    let page = await openPage()
    await page.askSession()
    await page.signIn('RT', '2580')
    server.away = true
    await page.signIn('KM', '1973')
    const made = new Date().toISOString()
    page.record('before the page was closed')
    page = await openPage()
    expect(page.sessionNow()).toMatchObject({ person: { initials: 'KM' }, unproved: true })
    server.away = false
    await page.askSession()
    // Another page on this tablet might have proved it.
    await minutes(1)
    expect(page.sessionNow().person).toBeUndefined()
    expect(server.taken).toEqual([])
    await minutes(60)
    await page.signIn('KM', '1973')
    await settle()
    expect(server.taken).toMatchObject([{ by: 'KM', text: 'before the page was closed' }])
    expect(server.sittings.at(-1)).toEqual({ by: 'KM', since: made, over: false })
  })
})

describe('whoever signed in while the server was away, once it is back', () => {
  it('stays, whatever is asked before it has heard of them', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('RT', '2580')
    server.away = true
    await page.leave()
    await page.signIn('KM', '1973')
    server.away = false
    // Somebody left, and nobody else came, as far as the server knows.
    server.here = undefined
    let told: unknown
    void page.api.referenceStamp().then((answer) => {
      told = answer
    })
    await settle()
    expect(page.sessionNow().person?.initials).toBe('KM')
    const asked = server.asked.length
    await minutes(1)
    expect(server.asked.length - asked).toBeLessThan(3)
    await page.askSession()
    await settle()
    expect(page.sessionNow()).toMatchObject({ person: { initials: 'KM' }, sitting: 's1' })
    expect([page.sessionNow().unproved, told]).toEqual([undefined, { stamp: 7 }])
  })

  it('is not said to have typed a wrong PIN by a server in trouble, which hears it again', async () => {
    const page = await openPage()
    await page.askSession()
    server.away = true
    await page.signIn('KM', '1973')
    page.record('by the second')
    server.away = false
    server.trouble = true
    await page.askSession()
    await settle()
    expect(page.sessionNow()).toMatchObject({ person: { initials: 'KM' }, unproved: true })
    expect([page.wronglySignedIn(), waiting()]).toEqual([undefined, 1])
    server.trouble = false
    await minutes(1)
    expect(page.sessionNow()).toMatchObject({ person: { initials: 'KM' }, sitting: 's0' })
    expect(waiting()).toBe(0)
  })
})

describe('leaving', () => {
  it('locks at once, ends the stay at the server, and what was signed still goes out', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('KM', '1973')
    server.away = true
    page.record('signed before')
    await page.leave()
    expect(page.sessionNow()).toMatchObject({ signs: true, tablet: { name: 'Mill 1' } })
    expect(page.sessionNow().person).toBeUndefined()
    server.away = false
    // The server has not heard of it: that it thinks KM is here brings nobody back.
    await page.askSession()
    expect(page.sessionNow().person).toBeUndefined()
    expect(server.here).toBeUndefined()
    await page.flush()
    expect(server.taken).toEqual([{ by: 'KM', text: 'signed before', sitting: 's0' }])
  })
})

describe('with nobody at the tablet', () => {
  it('what is asked waits, and is answered once somebody is; also where the server alone knew that nobody was', async () => {
    const page = await openPage()
    await page.askSession()
    let told: unknown
    void page.api.referenceStamp().then((answer) => {
      told = answer
    })
    await settle()
    expect(server.asked).not.toContain('GET /api/reference-stamp')
    await page.signIn('KM', '1973')
    await settle()
    expect(told).toEqual({ stamp: 7 })
    // The server ended the stay by itself.
    server.here = undefined
    told = undefined
    void page.api.referenceStamp().then((answer) => {
      told = answer
    })
    await settle()
    expect([page.sessionNow().person, told]).toEqual([undefined, undefined])
    await page.signIn('KM', '1973')
    await settle()
    expect(told).toEqual({ stamp: 7 })
  })

  it('a tablet whose storage was cleared learns that people sign in from the first refusal', async () => {
    const page = await openPage()
    expect(page.sessionNow()).toEqual({ signs: false })
    let told: unknown
    void page.api.referenceStamp().then((answer) => {
      told = answer
    })
    await settle()
    expect(page.sessionNow().signs).toBe(true)
    await page.askSession()
    expect(page.sessionNow()).toMatchObject({ signs: true, tablet: { name: 'Mill 1' } })
    await page.signIn('KM', '1973')
    await settle()
    expect(told).toEqual({ stamp: 7 })
  })

  it('a tablet that was shut out keeps what waits, and sends it once it is let in and its person has signed', async () => {
    const page = await openPage()
    await page.askSession()
    await page.signIn('KM', '1973')
    server.letIn = false
    page.record('too late')
    await settle()
    expect(page.sessionNow()).toEqual({ signs: true })
    expect(waiting()).toBe(1)
    await minutes(5)
    expect(waiting()).toBe(1)
    // Another tablet now, for the server: what was signed at the first is signed anew.
    server.letIn = true
    server.here = undefined
    server.sittings = [{ by: 'RT', over: true }]
    await page.askSession()
    await page.flush()
    expect([server.taken, waiting()]).toEqual([[], 1])
    await page.signIn('KM', '1973')
    await settle()
    expect(server.taken).toMatchObject([{ by: 'KM', text: 'too late' }])
  })
})

describe('another page on this tablet', () => {
  it('is told who is here, and who has left', async () => {
    const page = await openPage()
    await page.askSession()
    const told = (session: object) => {
      localStorage.setItem('dogleg.session', JSON.stringify(session))
      window.dispatchEvent(new StorageEvent('storage', { key: 'dogleg.session' }))
    }
    const here = { signs: true, tablet: { id: 't1', name: 'Mill 1', locksAfter: 15 } }
    told({ ...here, person: { initials: 'KM', name: 'K. M.', may: 'operator' }, sitting: 's7' })
    expect([page.sessionNow().sitting, page.operator()]).toEqual(['s7', 'KM'])
    told(here)
    expect(page.sessionNow().person).toBeUndefined()
    // What cannot be read is no session of anybody.
    localStorage.setItem('dogleg.session', '{"signs":')
    window.dispatchEvent(new StorageEvent('storage', { key: 'dogleg.session' }))
    expect(page.sessionNow()).toEqual({ signs: false })
  })
})
