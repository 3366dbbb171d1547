import { demoReference } from '@dogleg/core/demo'
import { render, screen } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, expect, it, vi } from 'vitest'
import { fakeServer, Round } from '../testing/shop.tsx'
import { RowsPage } from './rows-page.tsx'

afterEach(() => vi.unstubAllGlobals())

it('a row that the server cannot read is said with what is wrong, and the others are shown', async () => {
  const { vises } = demoReference
  const says = 'What stands in its place cannot be read.'
  fakeServer({
    'GET /api/vises': { vises, stamp: 1, retired: [], damaged: [{ id: 'vise-9', version: 2, says }] },
  })
  const router = createMemoryRouter(
    [{ path: '/vises/:id', element: <RowsPage noun="vises" editor={(row) => <p>edits {row.name}</p>} /> }],
    { initialEntries: [`/vises/${vises[0]?.id}`] },
  )
  render(
    <Round>
      <RouterProvider router={router} />
    </Round>,
  )
  await screen.findByText(`edits ${vises[0]?.name}`)
  await screen.findByText(`vise-9, version 2: ${says}`)
  expect(screen.getByText(/One row of this list cannot be read and is missing here/)).toBeTruthy()
})
