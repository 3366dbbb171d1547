import { act, renderHook } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { z } from 'zod'
import { useKept } from './kept.ts'

const draft = z.object({ reading: z.string(), method: z.enum(['probe', 'edge-finder']) })
type Draft = z.infer<typeof draft>
const START: Draft = { reading: '', method: 'probe' }
const KEY = 'dogleg.draft.zero'

const keep = () => renderHook(() => useKept<Draft>('zero', draft, () => START))

afterEach(() => {
  vi.restoreAllMocks()
})

describe('what is typed', () => {
  it('is there after a reload, and gone once it was recorded', () => {
    const first = keep()
    expect(first.result.current[0]).toEqual(START)
    act(() => first.result.current[1]({ reading: '-9.2205', method: 'edge-finder' }))
    first.unmount()
    const again = keep()
    expect(again.result.current[0]).toEqual({ reading: '-9.2205', method: 'edge-finder' })
    act(() => again.result.current[2]())
    expect(again.result.current[0]).toEqual(START)
    expect(localStorage.getItem(KEY)).toBeNull()
  })

  it('goes on, once it was recorded, with what the next one begins with', () => {
    const { result } = keep()
    act(() => result.current[1]({ reading: '1', method: 'edge-finder' }))
    act(() => result.current[2]({ reading: '', method: 'edge-finder' }))
    expect(result.current[0]).toEqual({ reading: '', method: 'edge-finder' })
    // What begins anew is not typed: another tablet's way may be the better one after a reload.
    expect(localStorage.getItem(KEY)).toBeNull()
  })

  it.each(['', 'null', '{', '[]', '{"reading":5}', '{"reading":"1","method":"by ear"}'])(
    'of an older page, or damaged, is let go: %j',
    (stored) => {
      localStorage.setItem(KEY, stored)
      expect(keep().result.current[0]).toEqual(START)
    },
  )

  it('stands on the page where the tablet is full, and a reload does not bring back what it was before', () => {
    const { result, unmount } = keep()
    act(() => result.current[1]({ reading: '1.5', method: 'probe' }))
    const setItem = vi.spyOn(localStorage, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    act(() => result.current[1]({ reading: '1.55', method: 'probe' }))
    expect(result.current[0].reading).toBe('1.55')
    expect(setItem).toHaveBeenCalled()
    setItem.mockRestore()
    unmount()
    // The page still has it, for as long as it is open; the tablet has no earlier state that a reload would show.
    expect(keep().result.current[0].reading).toBe('1.55')
    expect(Object.keys(localStorage)).toEqual([])
  })
})
