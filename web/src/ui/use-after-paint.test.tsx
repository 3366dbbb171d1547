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
  expect(result.current[0]).toBe('a')
  rerender({ value: 'b' })
  expect(result.current[0]).toBe('a')
  rerender({ value: 'c' })
  paint()
  expect(result.current[0]).toBe('a')
  act(() => void vi.advanceTimersByTime(1))
  expect(result.current[0]).toBe('c')
  // What is no longer on the page follows nothing.
  rerender({ value: 'd' })
  unmount()
  paint()
  act(() => void vi.advanceTimersByTime(10))
  expect(result.current[0]).toBe('c')
})

it('follows at once where somebody is about to press a key', () => {
  const { result, rerender } = renderHook(({ value }) => useAfterPaint(value), {
    initialProps: { value: 'a' },
  })
  const [, follow] = result.current
  rerender({ value: 'b' })
  // The same way for every value: what is given it is not drawn again for it.
  expect(result.current[1]).toBe(follow)
  act(() => follow())
  expect(result.current[0]).toBe('b')
  paint()
  act(() => void vi.advanceTimersByTime(10))
  expect(result.current[0]).toBe('b')
})
