import { demoReference } from '@dogleg/core/demo'
import { act, renderHook, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, Round } from '../testing/shop.tsx'
import { useReference, useReferenceWatch } from './rows.ts'

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('reference data on a page that stands open', () => {
  it('is read again when another tablet has changed it, and only then', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true })
    let stamp = 7
    let name = 'as it was'
    const [first, ...others] = demoReference.profiles
    const rowsOf = { ...demoReference, profiles: () => [{ ...first, name }, ...others] }
    const asked = fakeServer({
      'GET /api/reference-stamp': () => ({ stamp }),
      ...Object.fromEntries(
        Object.entries(rowsOf).map(([noun, rows]) => [
          `GET /api/${noun}`,
          () => ({ [noun]: typeof rows === 'function' ? rows() : rows, stamp }),
        ]),
      ),
    })
    const { result } = renderHook(
      () => {
        useReferenceWatch()
        return useReference().reference
      },
      { wrapper: Round },
    )
    await waitFor(() => expect(result.current?.profiles[0]?.name).toBe('as it was'))
    const lists = () => asked.filter((each) => each !== 'GET /api/reference-stamp').length
    const before = [result.current, lists()]
    await act(() => vi.advanceTimersByTimeAsync(11_000))
    // Asked twice more, by one number; nothing is read or derived anew.
    expect(asked.filter((each) => each === 'GET /api/reference-stamp').length).toBeGreaterThanOrEqual(3)
    expect([result.current, lists()]).toEqual(before)
    expect(result.current).toBe(before[0])
    stamp = 8
    name = 'edited on the other tablet'
    await act(() => vi.advanceTimersByTimeAsync(6000))
    await waitFor(() => expect(result.current?.profiles[0]?.name).toBe('edited on the other tablet'))
  })
})
