import { demoReference } from '@dogleg/core/demo'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { flush } from '../log/outbox.ts'
import { fakeServer, logOf, Round } from '../testing/shop.tsx'
import { RefusedList } from './refused-list.tsx'

afterEach(() => {
  vi.unstubAllGlobals()
})

describe('entries that the server refused', () => {
  it('are said with the reason, one that cannot be read too, and removed only by a person', async () => {
    fakeServer(
      Object.fromEntries(
        Object.entries(demoReference).map(([noun, rows]) => [`GET /api/${noun}`, { [noun]: rows, stamp: 1 }]),
      ),
    )
    const note = logOf(/serial number/).find(({ kind }) => kind === 'note')
    const broken = { ...note, id: '01KAS000000000000000000ZZ0', kind: 'pickup' }
    for (const entry of [note, broken])
      localStorage.setItem(
        `dogleg.outbox.${entry?.id}`,
        JSON.stringify({ entry, refused: { code: 'not-valid', says: 'Not like this.' } }),
      )
    // As when the page is opened: what lies on the tablet is read.
    await flush()
    render(
      <Round>
        <RefusedList setup={undefined} />
      </Round>,
    )
    await screen.findByText(/^Note/)
    await screen.findByText(/An entry of MK that this Dogleg cannot read \(pickup, /)
    expect(screen.getAllByText('Not like this.')).toHaveLength(2)
    for (const left of [1, 0]) {
      fireEvent.click(screen.getAllByRole('button', { name: 'Remove from this tablet' })[0] as HTMLElement)
      await waitFor(() =>
        expect(screen.queryAllByRole('button', { name: 'Remove from this tablet' })).toHaveLength(left),
      )
    }
    expect(Object.keys(localStorage).filter((key) => key.includes('outbox'))).toEqual([])
  })
})
