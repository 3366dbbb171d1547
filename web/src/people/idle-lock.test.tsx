import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { noteSession, sessionNow } from '../log/session.ts'
import { signingServer } from '../testing/signing.ts'
import { lockWhenIdle } from './idle-lock.ts'

const here = (locksAfter: number) => ({
  signs: true,
  tablet: { id: 't1', name: 'Mill 1', locksAfter },
  person: { initials: 'KM', name: 'K. M.', may: 'operator' as const },
  sitting: 's0',
})
const isLocked = () => sessionNow().person === undefined
const minutes = (n: number) => vi.advanceTimersByTimeAsync(n * 60_000)

let end = () => {}
beforeEach(() => {
  vi.useFakeTimers()
  signingServer()
})
afterEach(() => {
  end()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a tablet that nobody touches', () => {
  it('locks after as long as was set, counted from the last touch', async () => {
    noteSession(here(15))
    end = lockWhenIdle()
    await minutes(14)
    window.dispatchEvent(new Event('pointerdown'))
    await minutes(14)
    expect(isLocked()).toBe(false)
    await minutes(2)
    expect(isLocked()).toBe(true)
  })

  it('is not locked by one page while another on it is used', async () => {
    noteSession(here(15))
    end = lockWhenIdle()
    await minutes(14)
    localStorage.setItem('dogleg.touched', String(Date.now()))
    await minutes(14)
    expect(isLocked()).toBe(false)
  })

  it('is locked when it is opened much later, before anybody reads it', () => {
    noteSession(here(15))
    localStorage.setItem('dogleg.touched', String(Date.now() - 3_600_000))
    end = lockWhenIdle()
    expect(isLocked()).toBe(true)
  })

  it('stays open where it is to, and where its clock is set back', async () => {
    noteSession(here(0))
    end = lockWhenIdle()
    await minutes(1000)
    expect(isLocked()).toBe(false)
    noteSession(here(15))
    localStorage.setItem('dogleg.touched', String(Date.now() + 3_600_000))
    await minutes(2)
    expect(isLocked()).toBe(false)
  })
})
