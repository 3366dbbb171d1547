import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { kept, room } from '../testing/tablet-store.ts'
import { isKept, keepProgram, useProgram } from './use-program.ts'

beforeEach(() => {
  kept.clear()
  room.full = false
  vi.useFakeTimers()
})
afterEach(() => vi.useRealTimers())

const open = async (setup = 'S1', start?: { title: string; text: string }) => {
  const hook = renderHook(() => useProgram(setup, start))
  await act(async () => undefined)
  return hook
}
const textOf = (setup = 'S1') => (kept.get(`program.${setup}`) as { text: string } | undefined)?.text

describe('the program that is open', () => {
  it('is kept a moment after the last key', async () => {
    const { result } = await open()
    expect(result.current.program).toBeNull()
    await act(async () => result.current.change({ title: 'A', text: 'G0 X1.' }))
    expect(textOf()).toBeUndefined()
    await act(async () => result.current.change({ title: 'A', text: 'G0 X12.' }))
    await act(() => vi.advanceTimersByTimeAsync(500))
    expect(textOf()).toBe('G0 X12.')
  })

  it('is kept at once where the step is left before typing pauses', async () => {
    const { result, unmount } = await open()
    await act(async () => result.current.change({ title: 'A', text: 'G0 X1.' }))
    unmount()
    expect(textOf()).toBe('G0 X1.')
    const { result: again } = await open()
    expect(again.current.program).toEqual({ title: 'A', text: 'G0 X1.' })
  })

  it.each([
    ['the page is left', () => window.dispatchEvent(new Event('pagehide'))],
    [
      'the tab is hidden',
      () => {
        vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden')
        document.dispatchEvent(new Event('visibilitychange'))
      },
    ],
  ])('and where %s', async (_, leave) => {
    const { result } = await open()
    await act(async () => result.current.change({ title: 'A', text: 'G0 X1.' }))
    await act(async () => {
      leave()
    })
    expect(textOf()).toBe('G0 X1.')
    vi.restoreAllMocks()
  })

  it('goes to the setup that it was typed in', async () => {
    const hook = renderHook(({ setup }) => useProgram(setup, undefined), { initialProps: { setup: 'S1' } })
    await act(async () => undefined)
    await act(async () => hook.result.current.change({ title: 'A', text: 'of the first' }))
    hook.rerender({ setup: 'S2' })
    await act(async () => undefined)
    expect([textOf('S1'), textOf('S2')]).toEqual(['of the first', undefined])
  })

  it('says that the tablet has no room, and no more once it has', async () => {
    const { result } = await open()
    room.full = true
    await act(async () => result.current.change({ title: 'A', text: 'G0 X1.' }))
    await act(() => vi.advanceTimersByTimeAsync(500))
    expect(result.current.unkept).toBe(true)
    room.full = false
    await act(async () => result.current.change({ title: 'A', text: 'G0 X2.' }))
    await act(() => vi.advanceTimersByTimeAsync(500))
    expect(result.current.unkept).toBe(false)
  })

  it('begins with that of the log where nothing is kept; what is kept and is no program does no harm', async () => {
    const start = { title: 'Proved', text: 'M30' }
    expect((await open('S1', start)).result.current.program).toEqual(start)
    kept.set('program.S3', 'garbage')
    expect((await open('S3', start)).result.current.program).toEqual(start)
  })

  it('is asked for before another is put in its place, unless it came from Dogleg itself', async () => {
    expect(await isKept('S1', [])).toBeUndefined()
    await keepProgram('S1', { title: 'Handed', text: 'M0' })
    expect(await isKept('S1', [])).toBeUndefined()
    kept.set('program.S1', { title: 'Typed', text: 'G0 X1.' })
    expect(await isKept('S1', [])).toBe('Typed')
    expect(await isKept('S1', ['G0 X1.'])).toBeUndefined()
  })
})
