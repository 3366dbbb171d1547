import { demoReference } from '@dogleg/core/demo'
import type { Vise } from '@dogleg/core/hold'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { setOperator } from '../log/operator.ts'
import { OperatorGate } from '../log/operator-gate.tsx'
import { fakeServer, Round } from '../testing/shop.tsx'
import { RowsPage } from './rows-page.tsx'

afterEach(() => vi.unstubAllGlobals())

/** The page of a list of two vises, one of which has three versions, with a server that does what it is told. */
function openVises({ refuses = false } = {}) {
  const [first] = demoReference.vises as [Vise]
  const at = '2026-11-24T10:00:00.000Z'
  let rows: Vise[] = [
    { ...first, id: 'a', name: 'Old one', jawLength: 6, version: 3 },
    { ...first, id: 'b', name: 'Other one' },
  ]
  let retired: { id: string; by: string; at: string }[] = []
  const asked: unknown[] = []
  const versions = () => [
    { version: rows[0]?.version, by: 'MK', at, row: rows[0] },
    { version: 2, unread: 'What stands in its place cannot be read.' },
    { version: 1, row: { ...rows[0], version: 1, jawLength: 5, name: 'First name' } },
  ]
  fakeServer({
    'GET /api/vises': () => ({ vises: rows, damaged: [], retired, stamp: 1 + asked.length }),
    'GET /api/vises/a/versions': () => ({ versions: versions() }),
    'PUT /api/vises/a/retired': (body: unknown, path: string) => {
      asked.push(body)
      expect(path).toMatch(/\?by=RT$/)
      if (refuses)
        return Response.json({ error: { code: 'number-taken', says: 'It is taken.' } }, { status: 409 })
      const is = (body as { retired: boolean }).retired
      retired = is ? [{ id: 'a', by: 'RT', at }] : []
      return { id: 'a', retired: is }
    },
    'PUT /api/vises/a': (body: unknown, path: string) => {
      asked.push(body)
      expect(path).toMatch(/\?by=RT$/)
      rows = rows.map((each) => (each.id === 'a' ? { ...(body as Vise), version: each.version + 1 } : each))
      return rows[0]
    },
  })
  setOperator('RT')
  const router = createMemoryRouter(
    [
      {
        path: '/vises/:id',
        element: (
          <RowsPage
            noun="vises"
            editor={(row) => (
              <p>
                edits {row.name}, {row.jawLength}
              </p>
            )}
          />
        ),
      },
    ],
    { initialEntries: ['/vises/a'] },
  )
  render(
    <Round>
      <OperatorGate>
        <RouterProvider router={router} />
      </OperatorGate>
    </Round>,
  )
  return asked
}

describe('a row of a list', () => {
  it('is retired: it stands apart from the others, says who did it, and is brought back', async () => {
    const asked = openVises()
    fireEvent.click(await screen.findByRole('button', { name: 'Retire this vise' }))
    await screen.findByText(/^Retired by RT, /)
    expect(asked).toEqual([{ retired: true }])
    const list = screen.getByRole('navigation', { name: 'vises' })
    expect(within(list).queryByText('Old one')).toBeNull()
    within(screen.getByRole('navigation', { name: 'retired vises' })).getByText('Old one')
    // What is typed of it stays on screen, and can still be looked at.
    screen.getByText('edits Old one, 6')
    fireEvent.click(screen.getByRole('button', { name: 'Bring this vise back' }))
    await within(list).findByText('Old one')
    expect(screen.queryByRole('navigation', { name: 'retired vises' })).toBeNull()
  })

  it('says why it cannot be', async () => {
    openVises({ refuses: true })
    fireEvent.click(await screen.findByRole('button', { name: 'Retire this vise' }))
    expect((await screen.findByRole('alert')).textContent).toBe('It is taken.')
    screen.getByRole('button', { name: 'Retire this vise' })
  })

  it('tells its versions with what each changed, and one is taken back as the next', async () => {
    const asked = openVises()
    const summary = await screen.findByText(/^All 3 versions/)
    const details = summary.closest('details') as HTMLDetailsElement
    details.open = true
    fireEvent(details, new Event('toggle'))
    const lines = await screen.findAllByRole('listitem')
    expect(lines.map((line) => line.querySelector('p')?.textContent)).toEqual([
      expect.stringMatching(/^Version 3, MK, /),
      'Version 2, from before that was kept',
      'Version 1, from before that was kept',
    ])
    screen.getByText('What it changed is not known: the one before cannot be read.')
    screen.getByText('It cannot be read: What stands in its place cannot be read.')
    expect(screen.getAllByRole('button', { name: /^Take version/ })).toHaveLength(1)
    fireEvent.click(screen.getByRole('button', { name: 'Take version 1 back' }))
    await screen.findByText('edits First name, 5')
    expect(asked).toMatchObject([{ id: 'a', version: 3, jawLength: 5, name: 'First name' }])
  })
})
