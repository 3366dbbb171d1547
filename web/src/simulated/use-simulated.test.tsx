import { demoReference } from '@dogleg/core/demo'
import { act, renderHook, waitFor } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { fakeServer, Round } from '../testing/shop.tsx'
import { useSimulated } from './use-simulated.ts'

afterEach(() => vi.unstubAllGlobals())

const refuses = (code: string, says: string, status: number) =>
  new Response(JSON.stringify({ error: { code, says } }), { status })

it('says why it could not be switched on, though it is off, and no more once it is on', async () => {
  let looked: () => unknown = () => refuses('switched-off', 'It is switched off.', 404)
  fakeServer({
    'GET /api/machines': { rows: demoReference.machines, damaged: [], retired: [], stamp: 1 },
    'GET /api/simulated/mill-1': () => looked(),
    'PUT /api/simulated/mill-1': () => refuses('all-taken', 'All are on.', 503),
  })
  const { result } = renderHook(() => useSimulated('mill-1'), { wrapper: Round })
  await waitFor(() => expect(result.current.off).toBe(true))
  expect(result.current.error).toBeUndefined()
  act(() => result.current.switchOn({ machine: 'mill-1' }))
  await waitFor(() => expect(result.current.error).toBe('All are on.'))
  expect(result.current.off).toBe(true)
  looked = () => ({ id: 'mill-1', seed: 7, startedAt: '', view: { run: null } })
  await waitFor(() => expect(result.current.machine?.seed).toBe(7), { timeout: 4000 })
  expect(result.current.error).toBeUndefined()
})
