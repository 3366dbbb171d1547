import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Round } from '../testing/shop.tsx'
import { PositionContext, type PositionSource, usePositions } from './use-positions.ts'

const MILL: PositionSource = { id: 'mill-1', of: 'machine', name: 'Mill 1', unit: 'inch', leastStep: 0.0001 }

/** What the server does with the next question; `silent` leaves it without an answer until its time is up. */
let give: () => Response | Promise<Response>
let asked: string[]
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status })
const at = (x: number) => json({ name: 'Mill 1', positions: { X: x }, since: '', notes: [] })
const silent = (signal: AbortSignal | null | undefined) =>
  new Promise<Response>((_, reject) => {
    signal?.addEventListener('abort', () => reject(signal.reason))
  })

const reading = (source: PositionSource | undefined) =>
  renderHook(usePositions, {
    wrapper: ({ children }: { children: ReactNode }) => (
      <Round>
        <PositionContext value={source}>{children}</PositionContext>
      </Round>
    ),
  })
const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))

beforeEach(() => {
  vi.useFakeTimers()
  asked = []
  give = () => at(1)
  // Node's own would wait for ten seconds of the clock on the wall.
  vi.spyOn(AbortSignal, 'timeout').mockImplementation((ms) => {
    const giveUp = new AbortController()
    setTimeout(() => giveUp.abort(new DOMException('late', 'TimeoutError')), ms)
    return giveUp.signal
  })
  vi.stubGlobal('fetch', (path: string, { signal }: RequestInit) => {
    asked.push(path)
    return give === hang ? silent(signal) : give()
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})
const hang = () => at(Number.NaN)

describe('the positions of the machine in hand', () => {
  it('are nothing, and nothing is asked, where they are typed only', async () => {
    const { result } = reading(undefined)
    await pass(5000)
    expect([result.current, asked]).toEqual([undefined, []])
  })

  it('are waited for, and then follow the machine every second', async () => {
    const { result } = reading(MILL)
    expect(result.current?.now).toEqual({ state: 'waiting' })
    await pass(10)
    expect(result.current?.now).toMatchObject({ state: 'live', positions: { X: 1 } })
    give = () => at(2)
    await pass(1000)
    expect(result.current?.now).toMatchObject({ state: 'live', positions: { X: 2 } })
    await pass(3000)
    expect(asked.length).toBeGreaterThanOrEqual(5)
    expect(new Set(asked)).toEqual(new Set(['/api/machines/mill-1/positions']))
  })

  it('are those of the simulated machine in an exercise', async () => {
    reading({ ...MILL, of: 'simulated', id: 'x1' })
    await pass(10)
    expect(asked).toEqual(['/api/simulated/x1/positions'])
  })

  it('are lost, with the reason, as soon as they are refused, and come back by themselves', async () => {
    const { result } = reading(MILL)
    await pass(10)
    give = () => json({ error: { code: 'switched-off', says: 'It is off. Switch it on.' } }, 409)
    await pass(1000)
    expect(result.current?.now).toEqual({ state: 'lost', says: 'It is off. Switch it on.', off: true })
    give = () => json({ error: { code: 'not-reached', says: 'The address does not answer.' } }, 502)
    await pass(5000)
    expect(result.current?.now).toMatchObject({ state: 'lost', off: false })
    give = () => at(3)
    await pass(5000)
    expect(result.current?.now).toMatchObject({ state: 'live', positions: { X: 3 } })
  })

  it('are never called live once they are older than four seconds, though no answer has come meanwhile', async () => {
    const { result } = reading(MILL)
    await pass(10)
    give = hang
    await pass(3500)
    expect(result.current?.now.state).toBe('live')
    await pass(1500)
    expect(result.current?.now).toMatchObject({
      state: 'lost',
      says: expect.stringMatching(/^No position from Mill 1 for [45] s\.$/),
    })
    await pass(3000)
    expect(result.current?.now).toMatchObject({ says: expect.stringMatching(/for [78] s\.$/) })
  })

  it('of half a minute ago are not live when they are shown again, until the machine has said them anew', async () => {
    const client = new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } })
    const shown = () =>
      renderHook(usePositions, {
        wrapper: ({ children }: { children: ReactNode }) => (
          <QueryClientProvider client={client}>
            <PositionContext value={MILL}>{children}</PositionContext>
          </QueryClientProvider>
        ),
      })
    const first = shown()
    await pass(10)
    expect(first.result.current?.now.state).toBe('live')
    first.unmount()
    await pass(30_000)
    give = hang
    const again = shown()
    expect(again.result.current?.now).toMatchObject({
      state: 'lost',
      says: 'No position from Mill 1 for 30 s.',
    })
    again.unmount()
  })

  it('are read anew when one is taken, and what is taken is what is shown', async () => {
    const { result } = reading(MILL)
    await pass(10)
    give = () => at(7)
    const taken = await act(() => result.current?.take())
    await pass(1)
    expect(taken?.positions).toEqual({ X: 7 })
    expect(result.current?.now).toMatchObject({ state: 'live', positions: { X: 7 } })
  })

  it('cannot be taken where the machine does not say them: nothing old is taken instead', async () => {
    const { result } = reading(MILL)
    await pass(10)
    give = () => json({ error: { code: 'not-reached', says: 'The address does not answer.' } }, 502)
    await act(() => expect(result.current?.take()).rejects.toThrow('The address does not answer.'))
  })
})
