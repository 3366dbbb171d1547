import { act, renderHook } from '@testing-library/react'
import { type ReactNode, useLayoutEffect } from 'react'
import { MemoryRouter, useLocation } from 'react-router'
import { describe, expect, it } from 'vitest'
import { usePlace } from './use-place.ts'

const PLACES = ['X', 'Y', 'Z', 'check'] as const
type Place = (typeof PLACES)[number]

const at = (address: string, next: Place) =>
  renderHook(
    ({ next }: { next: Place }) => ({
      place: usePlace('axis', PLACES, next),
      search: useLocation().search,
    }),
    {
      initialProps: { next },
      wrapper: ({ children }: { children: ReactNode }) => (
        <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter>
      ),
    },
  )

describe('the part of a step that is shown', () => {
  it('is the one that the address names', () => {
    expect(at('/zero?axis=Z', 'X').result.current.place[0]).toBe('Z')
  })

  it.each(['/zero', '/zero?axis=', '/zero?axis=W', '/zero?axis=x', '/zero?other=Z'])(
    'is the next thing to do where the address names none: %s',
    (address) => {
      expect(at(address, 'Y').result.current.place[0]).toBe('Y')
    },
  )

  it('stays while somebody works at it, whatever another tablet records meanwhile', () => {
    const { result, rerender } = at('/zero', 'X')
    rerender({ next: 'Y' })
    rerender({ next: 'check' })
    expect(result.current.place[0]).toBe('X')
    expect(result.current.search).toBe('')
  })

  it('is gone to, stands in the address with what else does, and gives way to the next thing when asked', () => {
    const { result, rerender } = at('/zero?offset=G55', 'X')
    act(() => result.current.place[1]('Z'))
    expect([result.current.place[0], result.current.search]).toEqual(['Z', '?offset=G55&axis=Z'])
    rerender({ next: 'check' })
    expect(result.current.place[0]).toBe('Z')
    act(() => result.current.place[1](undefined))
    expect([result.current.place[0], result.current.search]).toEqual(['check', '?offset=G55'])
  })

  it('goes from one place to the other by way of no third, however far the address is behind', () => {
    const shown: Place[] = []
    const { result, rerender } = renderHook(
      ({ next }: { next: Place }) => {
        const place = usePlace('axis', PLACES, next)
        useLayoutEffect(() => void shown.push(place[0]), [place[0]])
        return place
      },
      {
        initialProps: { next: 'X' },
        wrapper: ({ children }: { children: ReactNode }) => <MemoryRouter>{children}</MemoryRouter>,
      },
    )
    // What is next is another thing meanwhile: nothing turned to it, and pressing a third does not either.
    rerender({ next: 'check' })
    act(() => result.current[1]('Y'))
    act(() => result.current[1]('Z'))
    act(() => result.current[1]('check'))
    expect(shown).toEqual(['X', 'Y', 'Z', 'check'])
  })
})
