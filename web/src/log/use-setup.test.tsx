import { demoReference } from '@dogleg/core/demo'
import type { Entry } from '@dogleg/core/setup'
import { act, renderHook, waitFor } from '@testing-library/react'
import { useEffect } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, logOf, Round } from '../testing/shop.tsx'

const reference = Object.fromEntries(
  Object.entries(demoReference).map(([noun, rows]) => [
    `GET /api/${noun}`,
    { [noun]: rows, damaged: [], retired: [], stamp: 1 },
  ]),
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

  it('an entry on the tablet that cannot be read harms nothing else, and goes to the server all the same', async () => {
    const log = logOf(/second side/)
    const broken = { ...opening, id: '01KAS000000000000000000ZZ0', kind: 'pickup', offset: 'G54' }
    localStorage.setItem(`dogleg.outbox.${broken.id}`, JSON.stringify({ entry: broken }))
    const sent: unknown[] = []
    fakeServer({
      ...reference,
      [`GET /api/setups/${opening.id}/entries`]: () => ({ entries: log, seq: 9 }),
      'POST /api/entries': (body: unknown) => {
        sent.push(body)
        throw new TypeError('Failed to fetch')
      },
    })
    const { flush } = await import('./outbox.ts')
    const { useSetup } = await import('./use-setup.ts')
    const { result } = renderHook(() => useSetup(opening.id), { wrapper: Round })
    await waitFor(() => expect(result.current.setup).toMatchObject({ id: opening.id }))
    const { entries } = result.current
    expect(entries.filter(({ kind }) => kind !== 'unread')).toHaveLength(log.length)
    // It is shown as what it is: what was recorded before it may have been about it.
    expect(entries.filter(({ kind }) => kind === 'unread')).toMatchObject([{ id: broken.id, said: 'pickup' }])
    await act(() => flush())
    expect(JSON.stringify(sent)).toContain(broken.id)
  })
})
