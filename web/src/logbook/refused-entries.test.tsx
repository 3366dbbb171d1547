import { act, render, screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { startOutbox } from '../log/outbox.ts'
import { NoList } from './refused-entries.tsx'

beforeEach(() => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')))
  localStorage.clear()
  startOutbox(() => undefined)
  return () => {
    vi.unstubAllGlobals()
    localStorage.clear()
    window.dispatchEvent(new StorageEvent('storage'))
  }
})

const entry = { id: 'e1', setup: 's1', at: '2026-12-02T08:00:00Z', by: 'KM', kind: 'note', text: 'one' }

/** What stands in the place of the list on a tablet that has this of one entry. */
function saidOf(kept: string) {
  localStorage.setItem('dogleg.outbox.e1', kept)
  act(() => void window.dispatchEvent(new StorageEvent('storage')))
  render(<NoList />)
  return screen.queryByText(/are not in the logbook/)?.textContent ?? ''
}

describe('where the list of refused entries is not on this tablet', () => {
  it('an entry that only waits for the server is not called refused', () => {
    expect(saidOf(JSON.stringify({ entry }))).toBe('')
  })

  it('a refused one is said, and what to do', () => {
    const refused = { code: 'not-valid', says: 'No.' }
    expect(saidOf(JSON.stringify({ entry, refused }))).toContain('load the page again')
  })

  it('one that cannot be read is said too', () => {
    expect(saidOf('{"entry":')).toContain('load the page again')
  })
})
