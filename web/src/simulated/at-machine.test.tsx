import { demoReference } from '@dogleg/core/demo'
import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { Refused, Unreachable } from '../log/api.ts'
import { FakeWorker } from '../testing/shop.tsx'
import { atMachine, useIsOwn } from './at-machine.ts'

const machine = demoReference.machines.find(({ id }) => id === 'mill-1')
const rows = (id: string) => (machine?.id === id ? { machine, profile: undefined, tools: [] } : undefined)
const away = () => vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')))

beforeEach(() => {
  vi.useFakeTimers()
  FakeWorker.made.length = 0
  vi.stubGlobal('Worker', FakeWorker)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('is the server’s where that refuses, and where this tablet knows no such machine', async () => {
  vi.stubGlobal('fetch', async () =>
    Response.json({ error: { code: 'all-taken', says: 'All are on.' } }, { status: 503 }),
  )
  await expect(atMachine.switchOn('mill-1', { machine: 'mill-1' }, rows)).rejects.toBeInstanceOf(Refused)
  away()
  await expect(atMachine.switchOn('mill-9', { machine: 'mill-9' }, rows)).rejects.toBeInstanceOf(Unreachable)
  // An exercise is judged by the server: it is not begun without it.
  const exercise = { exercise: 'corner-edge-finder', unit: 'inch' } as const
  await expect(atMachine.switchOn('p-1', exercise, rows)).rejects.toBeInstanceOf(Unreachable)
  expect(FakeWorker.made).toEqual([])
})

it('that works too long is ended, and says why', async () => {
  away()
  const { result } = renderHook(() => useIsOwn('mill-1'))
  const on = atMachine.switchOn('mill-1', { machine: 'mill-1', seed: 7 }, rows)
  const failed = expect(on).rejects.toThrow(/takes more than 20 seconds to work out/)
  await act(() => vi.advanceTimersByTimeAsync(20_001))
  await failed
  expect(FakeWorker.made.map(({ terminated }) => terminated)).toEqual([true])
  expect(result.current).toBe(false)
})

it('that breaks off tells all who wait for it, and the next is begun anew', async () => {
  away()
  const on = () => atMachine.switchOn('mill-1', { machine: 'mill-1', seed: 7 }, rows)
  const waiting = [on(), on()].map((each) => expect(each).rejects.toThrow(/broke off/))
  await act(() => vi.advanceTimersByTimeAsync(10))
  FakeWorker.made[0]?.end()
  await Promise.all(waiting)
  const next = expect(on()).rejects.toThrow(/takes more than/)
  await act(() => vi.advanceTimersByTimeAsync(20_001))
  await next
  expect(FakeWorker.made.map(({ terminated }) => terminated)).toEqual([true, true])
})

it('that is not on this tablet, and cannot be fetched, says that and not that it broke', async () => {
  away()
  const on = expect(atMachine.switchOn('mill-1', { machine: 'mill-1', seed: 7 }, rows)).rejects.toThrow(
    /not on this tablet yet, and the server did not give it/,
  )
  await act(() => vi.advanceTimersByTimeAsync(10))
  FakeWorker.made[0]?.end('not-here')
  await on
})
