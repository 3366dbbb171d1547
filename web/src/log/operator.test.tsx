import { act, renderHook } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { operator, setOperator, useOperator } from './operator.ts'

const KEY = 'dogleg.operator'

describe('who is at the tablet', () => {
  it('is nobody until told, and is known on every part of the page at once', () => {
    const [one, other] = [renderHook(useOperator), renderHook(useOperator)]
    expect([one.result.current, operator()]).toEqual(['', ''])
    act(() => setOperator('RT'))
    expect([one.result.current, other.result.current, operator()]).toEqual(['RT', 'RT', 'RT'])
  })

  it('is taken over from another page on the same tablet, and from one that forgot it', () => {
    const { result } = renderHook(useOperator)
    const elsewhere = (change: () => void, key: string | null) =>
      act(() => {
        change()
        window.dispatchEvent(new StorageEvent('storage', { key }))
      })
    elsewhere(() => localStorage.setItem(KEY, 'MK'), KEY)
    expect(result.current).toBe('MK')
    elsewhere(() => localStorage.setItem('dogleg.draft.x', '1'), 'dogleg.draft.x')
    expect(result.current).toBe('MK')
    elsewhere(() => localStorage.clear(), null)
    expect(result.current).toBe('')
  })
})
