import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { useAfterPaint } from './use-after-paint.ts'

const frames: (() => void)[] = []
const paint = () => act(() => void frames.splice(0).forEach((draw) => void draw()))
beforeEach(() => {
  frames.length = 0
  vi.useFakeTimers()
  vi.stubGlobal('requestAnimationFrame', (draw: () => void) => frames.push(draw))
  vi.stubGlobal('cancelAnimationFrame', (id: number) => {
    frames[id - 1] = () => undefined
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

it('follows once the page was drawn, and only with what stands there then', () => {
  const { result, rerender, unmount } = renderHook(({ value }) => useAfterPaint(value), {
    initialProps: { value: 'a' },
  })
  expect(result.current).toBe('a')
  rerender({ value: 'b' })
  expect(result.current).toBe('a')
  rerender({ value: 'c' })
  paint()
  expect(result.current).toBe('a')
  act(() => void vi.advanceTimersByTime(1))
  expect(result.current).toBe('c')
  // What is no longer on the page follows nothing.
  rerender({ value: 'd' })
  unmount()
  paint()
  act(() => void vi.advanceTimersByTime(10))
  expect(result.current).toBe('c')
})
