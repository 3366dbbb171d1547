import { QueryClient } from '@tanstack/react-query'
import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fakeServer } from '../testing/shop.tsx'
import { listenToChanges, useAskEvery, useLive } from './changes.ts'
import { notePlace } from './place.ts'

/** A connection to the server, as far as a page sees of it. */
class FakeSource extends EventTarget {
  static readonly CLOSED = 2
  static all: FakeSource[] = []
  readonly url: string
  readyState = 0
  constructor(url: string) {
    super()
    this.url = url
    FakeSource.all.push(this)
  }
  close() {
    this.readyState = FakeSource.CLOSED
  }
  tell(data: unknown, lastEventId = 'log.7') {
    const text = typeof data === 'string' ? data : JSON.stringify(data)
    act(() => void this.dispatchEvent(new MessageEvent('changed', { data: text, lastEventId })))
  }
  fail(readyState: number) {
    this.readyState = readyState
    act(() => void this.dispatchEvent(new Event('error')))
  }
}
/** From the first answer that the page got, which may have been in another test. */
const FROM_A_PLACE = /^\/api\/changes\?after=\w+\.\d+$/
const urls = () => FakeSource.all.map(({ url }) => url)
const connection = () => {
  const last = FakeSource.all.at(-1)
  if (!last) throw new Error('Nobody listens.')
  return last
}

const change = (more: object = {}) => ({
  setups: [],
  stamp: 3,
  place: { logbook: 'log', seq: 7 },
  time: '2026-11-24T09:00:00.000Z',
  ...more,
})

let client: QueryClient
let end = () => {}
/** What is asked for anew, by its key. */
let again: string[]
let visibility: DocumentVisibilityState = 'visible'
const look = (now: DocumentVisibilityState) => {
  visibility = now
  act(() => void document.dispatchEvent(new Event('visibilitychange')))
}

beforeEach(() => {
  vi.useFakeTimers()
  FakeSource.all = []
  vi.stubGlobal('EventSource', FakeSource)
  vi.spyOn(document, 'visibilityState', 'get').mockImplementation(() => visibility)
  fakeServer({})
  again = []
  client = new QueryClient()
  client.setQueryData(['reference-stamp'], { stamp: 3 })
  client.invalidateQueries = async ({ queryKey } = {}) => {
    again.push((queryKey ?? []).join(' '))
  }
  end = listenToChanges(client)
  // The first answer that the page gets.
  notePlace({ logbook: 'log', seq: 5 }, 0)
  vi.advanceTimersByTime(100)
})
afterEach(() => {
  act(() => end())
  visibility = 'visible'
  vi.useRealTimers()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

describe('changes that the server tells of', () => {
  it('are asked for as they come: the setup, its machine, and not what they do not touch', () => {
    connection().tell(change({ setups: [{ id: 'one', machine: 'mill-1', kinds: ['pickup'] }] }))
    expect(again).toEqual([
      'log one',
      'machine-log mill-1',
      'machine-programs mill-1',
      'machine-times mill-1',
      'earlier mill-1',
    ])
    again = []
    connection().tell(change({ setups: [{ id: 'one', machine: 'mill-1', kinds: ['numbered'] }] }))
    expect(again).toContain('numbers')
    again = []
    // Of which machine it is, and what it was, was not looked up.
    connection().tell(change({ setups: [{ id: 'one' }] }))
    expect(again).toEqual([
      'log one',
      'machine-log',
      'machine-programs',
      'machine-times',
      'earlier',
      'numbers',
    ])
    again = []
    connection().tell(change({ all: true }))
    expect(again).toEqual(['log', 'machine-log', 'machine-programs', 'machine-times', 'earlier', 'numbers'])
    again = []
    connection().tell(change())
    expect(again).toEqual([])
  })

  it('bring the board once a second, however much is entered', () => {
    for (let n = 0; n < 30; n++) connection().tell(change({ setups: [{ id: `s${n}`, machine: 'mill-1' }] }))
    expect(again).not.toContain('setups')
    act(() => vi.advanceTimersByTime(1000))
    expect(again.filter((each) => each === 'setups')).toHaveLength(1)
    again = []
    connection().tell(change({ stamp: 4 }))
    expect(client.getQueryData(['reference-stamp'])).toEqual({ stamp: 4 })
    act(() => vi.advanceTimersByTime(1000))
    expect(again).toEqual(['setups'])
  })

  it('take the place of asking, as long as they come', () => {
    const answered = { state: { error: null } }
    const { result } = renderHook(() => {
      const every = useAskEvery(4000)
      // What could not be answered is asked for again soon, whatever is told.
      expect(every({ state: { error: new Error() } })).toBe(4000)
      return [useLive(), every(answered)]
    })
    expect(result.current).toEqual([false, 4000])
    connection().tell(change())
    expect(result.current).toEqual([true, 300_000])
    // The browser tries again by itself; meanwhile the page asks.
    connection().fail(0)
    expect(result.current).toEqual([false, 4000])
    expect(FakeSource.all).toHaveLength(1)
    connection().tell(change())
    expect(result.current[0]).toBe(true)
    // It was refused: the page tries again itself, from where it left off.
    connection().fail(FakeSource.CLOSED)
    expect(result.current[0]).toBe(false)
    act(() => vi.advanceTimersByTime(10_000))
    expect(urls()).toEqual([expect.stringMatching(FROM_A_PLACE), '/api/changes?after=log.7'])
  })

  it('that stay away, the beat too, are listened for anew', () => {
    const { result } = renderHook(useLive)
    connection().tell(change())
    for (let n = 0; n < 6; n++) {
      act(() => vi.advanceTimersByTime(15_000))
      connection().tell(change())
    }
    expect(FakeSource.all).toHaveLength(1)
    act(() => vi.advanceTimersByTime(46_000))
    expect(FakeSource.all).toHaveLength(2)
    expect(FakeSource.all[0]?.readyState).toBe(FakeSource.CLOSED)
    expect(result.current).toBe(false)
  })

  it('are listened for while the page is looked at, and from where it left off when it is again', () => {
    connection().tell(change(), 'log.9')
    look('hidden')
    expect(FakeSource.all.every(({ readyState }) => readyState === FakeSource.CLOSED)).toBe(true)
    look('visible')
    expect(urls()).toEqual([expect.stringMatching(FROM_A_PLACE), '/api/changes?after=log.9'])
  })

  it('that are none are passed over', () => {
    const { result } = renderHook(useLive)
    for (const odd of ['', 'x', '[]', '{"setups":1}', 'null', '{"setups":[]}']) connection().tell(odd)
    expect(result.current).toBe(false)
    expect(again).toEqual([])
  })
})
