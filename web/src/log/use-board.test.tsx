import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, Round } from '../testing/shop.tsx'
import { askBoardAhead, useBoard } from './use-board.ts'

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the board on a page that stands open', () => {
  it('is asked for ahead of the page, which waits for the same answer and does not ask again', async () => {
    const asked = fakeServer({ 'GET /api/setups': { board: { machines: [], unreadable: [] }, mark: 'a' } })
    const client = new QueryClient()
    const ahead = askBoardAhead(client, 'RT')
    const { result } = renderHook(() => useBoard('RT').data, {
      wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
    })
    await act(() => ahead)
    await waitFor(() => expect(result.current?.board.machines).toEqual([]))
    expect(asked.filter((each) => each.startsWith('GET /api/setups'))).toEqual(['GET /api/setups?by=RT'])
  })

  it('is asked for by its mark, and stands where nothing has changed; what everybody must know comes and goes', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true })
    const board = (name: string) => ({
      machines: [{ id: 'm', name, setups: [], more: 0, notes: [], ready: 'open' }],
      unreadable: [],
    })
    let told: object = { board: board('Mill'), mark: 'a' }
    const asked = fakeServer({ 'GET /api/setups': () => told })
    const { result } = renderHook(() => useBoard('RT').data, { wrapper: Round })
    await waitFor(() => expect(result.current?.board.machines[0]?.name).toBe('Mill'))
    told = { mark: 'a', alarm: 'The disk.' }
    await act(() => vi.advanceTimersByTimeAsync(6000))
    await waitFor(() => expect(result.current?.alarm).toBe('The disk.'))
    expect(result.current?.board).toEqual(board('Mill'))
    told = { board: board('Lathe'), mark: 'b' }
    await act(() => vi.advanceTimersByTimeAsync(6000))
    await waitFor(() => expect(result.current?.board.machines[0]?.name).toBe('Lathe'))
    expect(result.current?.alarm).toBeUndefined()
    // A machine on which nothing has changed stands as it was.
    told = {
      board: {
        machines: [{ id: 'm', same: true }, ...board('n').machines.map((each) => ({ ...each, id: 'n' }))],
        unreadable: [],
      },
      mark: 'c',
    }
    await act(() => vi.advanceTimersByTimeAsync(6000))
    await waitFor(() =>
      expect(result.current?.board.machines.map(({ name }) => name)).toEqual(['Lathe', 'n']),
    )
    const boards = asked.filter((each) => each.startsWith('GET /api/setups'))
    expect(boards.slice(0, 2)).toEqual(['GET /api/setups?by=RT', 'GET /api/setups?by=RT&mark=a'])
    expect(new Set(boards).size).toBeLessThanOrEqual(4)
  })
})
