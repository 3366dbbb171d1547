import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { useLasts } from './use-lasts.ts'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

const pass = (ms: number) => act(() => void vi.advanceTimersByTime(ms))

it('says what has been so for long enough, and at once that it is over', () => {
  const { result, rerender } = renderHook(({ is }) => useLasts(is, 2000), { initialProps: { is: true } })
  pass(1999)
  expect(result.current).toBe(false)
  pass(1)
  expect(result.current).toBe(true)
  rerender({ is: false })
  expect(result.current).toBe(false)
})

it('says nothing of what comes and goes, however often', () => {
  const { result, rerender } = renderHook(({ is }) => useLasts(is, 2000), { initialProps: { is: false } })
  for (let n = 0; n < 5; n++) {
    rerender({ is: true })
    pass(1500)
    expect(result.current).toBe(false)
    rerender({ is: false })
    pass(100)
  }
  // Each time counts from its own beginning.
  rerender({ is: true })
  pass(1999)
  expect(result.current).toBe(false)
  pass(1)
  expect(result.current).toBe(true)
})
