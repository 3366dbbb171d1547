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
        Object.entries(demoReference).map(([noun, rows]) => [
          `GET /api/${noun}`,
          { [noun]: rows, damaged: [], retired: [], stamp: 1 },
        ]),
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

describe('what lies on the tablet and cannot be read', () => {
  const older = [
    [
      'an entry of another shape',
      'dogleg.outbox.01KAS000000000000000000ZZ1',
      '{"entry":{"what":"zero","x":-14.2},"v":0}',
    ],
    [
      'an entry under another name',
      'dogleg.outbox.old-7',
      '{"entry":{"id":"7","setup":"s","at":"then","by":"RT","kind":"note","text":"vise moved"}}',
    ],
    ['no JSON at all', 'dogleg.outbox.01KAS000000000000000000ZZ2', 'X of G54 -14.2312'],
  ] as const

  it.each(older)('is shown word for word, kept, and saved as a file: %s', async (_what, key, raw) => {
    const asked = fakeServer({})
    const saved: string[] = []
    vi.spyOn(URL, 'createObjectURL').mockImplementation((of) => {
      void (of as Blob).text().then((text) => saved.push(text))
      return 'blob:made'
    })
    // A press on the link would lead this made-up browser away.
    vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(() => {})
    localStorage.setItem(key, raw)
    await flush()
    render(
      <Round>
        <RefusedList setup={undefined} />
      </Round>,
    )
    await screen.findByText(raw)
    expect(asked.filter((question) => question.startsWith('POST'))).toEqual([])
    fireEvent.click(screen.getByRole('button', { name: 'Save as a file' }))
    await waitFor(() => expect(saved).toEqual([raw]))
    expect(localStorage.getItem(key)).toBe(raw)
    fireEvent.click(screen.getByRole('button', { name: 'Remove from this tablet' }))
    expect(localStorage.getItem(key)).toBeNull()
    vi.restoreAllMocks()
  })

  it('waits in sight where it is an entry that the server may know better, and does not count meanwhile', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')))
    const entry = {
      id: '01KAS000000000000000000ZZ3',
      setup: 's',
      at: '2026-11-24T08:00:00.000Z',
      by: 'MK',
      kind: 'vise-move',
    }
    localStorage.setItem(`dogleg.outbox.${entry.id}`, JSON.stringify({ entry }))
    await flush()
    render(
      <Round>
        <RefusedList setup={undefined} />
      </Round>,
    )
    await screen.findByText(/An entry of MK that this Dogleg cannot read.*It is sent when the server answers/)
    expect(screen.getByText(/does not count in what is shown/)).toBeTruthy()
    localStorage.clear()
    await flush()
  })
})
