import { demoReference } from '@dogleg/core/demo'
import { deriveSetup, isUnreadable } from '@dogleg/core/setup'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, expect, it, vi } from 'vitest'
import { CodeStep } from '../code/code-step.tsx'
import { fakeServer, logOf, Round } from '../testing/shop.tsx'
import { SetupPage } from './setup-page.tsx'

afterEach(() => vi.unstubAllGlobals())

it('keeps what is typed in one setup out of another, though both are known and one is gone to from the other', async () => {
  const logs = [logOf(/first side/), logOf(/second side/)]
  const [first, second] = logs.map((log) => {
    const setup = deriveSetup(log, demoReference)
    if (isUnreadable(setup)) throw new Error(setup.unreadable)
    return setup
  })
  if (!first || !second) throw new Error('the demo has two')
  fakeServer({
    ...Object.fromEntries(
      Object.entries(demoReference).map(([noun, rows]) => [
        `GET /api/${noun}`,
        { [noun]: rows, damaged: [], retired: [], stamp: 1 },
      ]),
    ),
    ...Object.fromEntries(
      logs.map((entries) => [`GET /api/setups/${entries[0]?.setup}/entries`, { entries, seq: 9 }]),
    ),
    [`GET /api/machines/${first.machine.id}/entries`]: { entries: logs[0], seq: 9 },
    [`GET /api/machines/${second.machine.id}/entries`]: { entries: logs[1], seq: 9 },
  })
  const router = createMemoryRouter(
    [{ path: 'setups/:id', element: <SetupPage />, children: [{ path: 'code', element: <CodeStep /> }] }],
    { initialEntries: [`/setups/${first.id}/code`] },
  )
  render(
    <Round>
      <RouterProvider router={router} />
    </Round>,
  )
  const name = () => screen.getByLabelText<HTMLInputElement>('Name')
  const go = async (id: string) => {
    await act(() => router.navigate(`/setups/${id}/code`))
    await waitFor(() => name())
  }
  await waitFor(() => name())
  fireEvent.change(name(), { target: { value: 'Of the first' } })
  await go(second.id)
  expect(name().value).toBe(second.opened.title)
  await go(first.id)
  expect(name().value).toBe('Of the first')
  await go(second.id)
  expect(name().value).toBe(second.opened.title)
  fireEvent.change(name(), { target: { value: 'Of the second' } })
  await go(first.id)
  expect(name().value).toBe('Of the first')
})
