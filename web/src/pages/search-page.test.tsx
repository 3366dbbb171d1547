import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, Round } from '../testing/shop.tsx'
import { SearchPage } from './search-page.tsx'

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const setup = (n: number) => ({
  id: `s${n}`,
  title: `Part ${n}`,
  machine: 'Mill 1',
  openedAt: '2026-11-24T07:00:00.000Z',
  by: 'RT',
  lastAt: '2026-11-24T09:00:00.000Z',
  why: [{ by: 'notes', says: [{ text: 'the ' }, { text: 'parallel', hit: true }, { text: ' is short' }] }],
})

function show(address = '/search') {
  const router = createMemoryRouter([{ path: '/search', element: <SearchPage /> }], {
    initialEntries: [address],
  })
  render(
    <Round>
      <RouterProvider router={router} />
    </Round>,
  )
  return router
}

describe('the search of the whole shop', () => {
  it('asks once nobody types, says why each was found, goes on to older ones, and stands in the address', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true })
    const asked = fakeServer({
      'GET /api/search': (_body: unknown, path: string) =>
        path.includes('before=7') ? { found: [setup(2)] } : { found: [setup(1)], next: 7 },
    })
    const router = show()
    await screen.findByText('The last 1 setup of the shop')
    const field = screen.getByRole('searchbox')
    for (const text of ['p', 'pa', 'par']) fireEvent.change(field, { target: { value: text } })
    await act(() => vi.advanceTimersByTimeAsync(200))
    await screen.findByText('The last 1 setup with par')
    expect(asked).toEqual(['GET /api/search?text=', 'GET /api/search?text=par'])
    expect(router.state.location.search).toBe('?for=par')
    const row = screen.getByRole('link', { name: /Part 1/ })
    expect(row.textContent).toContain('Note: the parallel is short')
    expect(row.querySelector('mark')?.textContent).toBe('parallel')
    fireEvent.click(screen.getByRole('button', { name: 'Show older ones' }))
    await screen.findByText('2 setups with par')
    expect(screen.queryByRole('button', { name: 'Show older ones' })).toBeNull()
  })

  it('begins with what stands in the address, and says that nothing was found, or why nothing can be', async () => {
    let told: object | undefined = { found: [] }
    fakeServer({ 'GET /api/search': () => told })
    show('/search?for=O1042')
    expect(screen.getByRole<HTMLInputElement>('searchbox').value).toBe('O1042')
    await screen.findByText('No setup has O1042 in its log.')
    told = undefined
    fireEvent.change(screen.getByRole('searchbox'), { target: { value: 'other' } })
    await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('There is nothing here.'))
  })

  it('says while older setups are not all known', async () => {
    fakeServer({ 'GET /api/search': { found: [setup(1)], reads: 34 } })
    show()
    await screen.findByText(/reads the logbook through once: 34 of 100/)
  })
})
