import { demoReference } from '@dogleg/core/demo'
import type { Entry } from '@dogleg/core/setup'
import { act, renderHook, waitFor } from '@testing-library/react'
import { useEffect } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, logOf, Round } from '../testing/shop.tsx'

const reference = Object.fromEntries(
  Object.entries(demoReference).map(([noun, rows]) => [`GET /api/${noun}`, { [noun]: rows, stamp: 1 }]),
)
const opening = logOf(/second side/)[0] as Entry

afterEach(() => {
  vi.unstubAllGlobals()
  vi.resetModules()
})

describe('a setup that was opened on this tablet', () => {
  it('is on screen at once, and the server is not asked for it before it has it', async () => {
    let taken = false
    const asked = fakeServer({
      ...reference,
      'POST /api/entries': () => {
        if (!taken) throw new TypeError('Failed to fetch')
        return { added: 1, known: 0 }
      },
      [`GET /api/setups/${opening.id}/entries`]: () => ({ entries: [opening], seq: 9 }),
    })
    const { post, flush, startOutbox } = await import('./outbox.ts')
    const { useSetup } = await import('./use-setup.ts')
    const { noteDelivered } = await import('./log-cache.ts')
    const { useQueryClient } = await import('@tanstack/react-query')
    post(opening)
    const { result } = renderHook(
      () => {
        const client = useQueryClient()
        useEffect(() => startOutbox((entries) => noteDelivered(client, entries)), [client])
        return useSetup(opening.id)
      },
      { wrapper: Round },
    )
    await waitFor(() => expect(result.current.setup).toMatchObject({ id: opening.id }))
    const ofLog = () => asked.filter((each) => each.includes('/entries?'))
    expect(ofLog()).toEqual([])
    taken = true
    await act(() => flush())
    await waitFor(() => expect(ofLog().length).toBeGreaterThan(0))
    expect(result.current.setup).toMatchObject({ id: opening.id })
    expect(result.current.entries).toHaveLength(1)
  })
})
