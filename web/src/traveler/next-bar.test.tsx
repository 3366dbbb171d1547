import { fireEvent, screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'
import { addressOf, keptBetween } from './address.ts'
import { NextBar } from './next-bar.tsx'

const stale = logOf(/serial number/)
const bar = () => screen.getByRole('status').textContent

describe('the foot of a page', () => {
  it('says what is next of all, where it is done, and what is next here after that', () => {
    renderInSetup(<NextBar step="zero" isHere={({ part }) => part === 'X'} />, stale)
    const { next } = openSetup(stale).traveler
    expect(next?.step).toBe('hold')
    expect(bar()).toBe(`Hold${next?.says}After that, here: Take X of G54 again.`)
    expect(screen.getByRole('link', { name: next?.says ?? '' }).getAttribute('href')).toBe('/hold?part=clear')
  })

  it('gives the reason where it is done here, and leads nowhere', () => {
    renderInSetup(<NextBar step="hold" isHere={({ part }) => part === 'clear'} />, stale)
    const { next } = openSetup(stale).traveler
    expect(bar()).toBe(`${next?.says}${next?.why}`)
    expect(screen.queryByRole('link')).toBeNull()
  })

  it('takes what is typed and not recorded for what it is', () => {
    const code = { title: 'Bracket', on: 1, incomplete: 1, verdict: 'stop', recorded: false } as const
    const way = vi.fn(() => () => {})
    renderInSetup(<NextBar step="code" isHere={() => false} way={way} inHand={{ code }} />, logOf(/O-ring/))
    expect(bar()).toContain('Fill in Bracket: a cycle lacks something.')
    fireEvent.click(screen.getByRole('button', { name: /Fill in Bracket/ }))
    expect(way).toHaveBeenCalled()
  })
})

describe('from one step to another', () => {
  it('the offset in hand is kept, and not the part of the step that is left', () => {
    expect(keptBetween('?offset=G55&part=turn&axis=Z&program=X')).toBe('?offset=G55&axis=Z')
    expect(keptBetween('?part=turn')).toBe('')
  })
})

describe('where a task is done', () => {
  const of = (task: Partial<Parameters<typeof addressOf>[0]>, search = '') =>
    addressOf({ step: 'zero', part: 'X', says: '', why: '', stale: false, ...task }, search)
  it('is its step and part, with its offset or its program, keeping what the address says besides', () => {
    expect(of({ about: 'G55' }, '?lit=1&axis=Z')).toBe('../zero?lit=1&offset=G55&axis=X')
    expect(of({ part: 'load', about: 'G54' })).toBe('../program?offset=G54')
    expect(of({ part: 'tools', about: 'T3' }, '?offset=G54')).toBe('../zero?offset=G54&axis=tools')
    expect(of({ step: 'ready', part: 'home' })).toBe('../ready')
    expect(of({ step: 'prove', part: 'whole', about: 'Housing, tapped holes' })).toBe(
      '../prove?program=Housing%2C+tapped+holes',
    )
    expect(of({ step: 'code', part: 'take', about: 'X' }, '?program=Y')).toBe('../code')
    expect(of({ step: 'hand-over', part: 'whole' })).toBe('../hand-over?part=hand-over')
  })
})
