import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fillStorage } from '../testing/full-storage.ts'

const HOUR = 3_600_000
const SERVER = Date.UTC(2026, 10, 24, 8)
let wall = 0
let steady = 0

/** A page that was just opened on the tablet: its steady clock begins again. */
async function openPage() {
  vi.resetModules()
  steady = 0
  return import('./clock.ts')
}
const pass = (ms: number) => {
  wall += ms
  steady += ms
}

beforeEach(() => {
  localStorage.clear()
  wall = SERVER + 5 * HOUR
  steady = 1000
  vi.spyOn(Date, 'now').mockImplementation(() => wall)
  vi.spyOn(performance, 'now').mockImplementation(() => steady)
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

describe('the clock of a tablet', () => {
  it('goes by the server, whatever the tablet says, also when somebody sets it meanwhile', async () => {
    const { noteServerTime, reading, now, clockNow } = await openPage()
    noteServerTime(new Date(SERVER).toISOString(), reading())
    pass(60_000)
    expect(now()).toBe(SERVER + 60_000)
    wall -= 3 * HOUR
    expect(now()).toBe(SERVER + 60_000)
    expect(clockNow()).toMatchObject({ heard: new Date(SERVER).toISOString(), steady: 60_000 })
  })

  it('takes half of what the question took for the way back', async () => {
    const { noteServerTime, reading, now } = await openPage()
    const asked = reading()
    pass(3000)
    noteServerTime(new Date(SERVER).toISOString(), asked)
    expect(now()).toBe(SERVER + 1500)
  })

  it('counts a sleep by the wall clock, but is not sure of it', async () => {
    const { noteServerTime, reading, now, clockNow } = await openPage()
    noteServerTime(new Date(SERVER).toISOString(), reading())
    // Asleep, its steady clock stands.
    wall += 8 * HOUR
    expect(now()).toBe(SERVER + 8 * HOUR)
    expect(clockNow().steady).toBe(0)
  })

  it('after a reload knows when it last heard the server, and not how long ago', async () => {
    const first = await openPage()
    first.noteServerTime(new Date(SERVER).toISOString(), first.reading())
    pass(60_000)
    const { now, clockNow } = await openPage()
    expect(now()).toBe(SERVER + 60_000)
    const stamp = clockNow()
    expect([stamp.heard, stamp.steady]).toEqual([new Date(SERVER).toISOString(), undefined])
  })

  it('counts what this tablet enters, over reloads, under one name', async () => {
    const first = await openPage()
    const [one, two] = [first.clockNow(), first.clockNow()]
    const three = (await openPage()).clockNow()
    expect([one.count, two.count, three.count]).toEqual([1, 2, 3])
    expect(new Set([one.tablet, two.tablet, three.tablet]).size).toBe(1)
    expect(one.heard).toBeUndefined()
  })

  it('has another name where nothing can be kept, and goes on counting', async () => {
    const known = (await openPage()).clockNow()
    localStorage.clear()
    fillStorage()
    const { clockNow } = await openPage()
    const [one, two] = [clockNow(), clockNow()]
    expect([one.count, two.count]).toEqual([1, 2])
    expect(one.tablet).toBe(two.tablet)
    expect(one.tablet).not.toBe(known.tablet)
  })

  it('never counts twice under one name, when the storage filled up meanwhile', async () => {
    const made = [(await openPage()).clockNow()]
    fillStorage()
    const page = await openPage()
    made.push(page.clockNow(), page.clockNow())
    // Opened anew it finds the count of before.
    made.push((await openPage()).clockNow())
    vi.unstubAllGlobals()
    made.push((await openPage()).clockNow())
    const names = made.map(({ tablet, count }) => `${tablet} ${count}`)
    expect(new Set(names).size).toBe(5)
    // Under one name a later entry has the higher number.
    for (const [n, one] of made.entries())
      for (const later of made.slice(n + 1))
        if (later.tablet === one.tablet) expect(later.count).toBeGreaterThan(one.count)
  })
})
