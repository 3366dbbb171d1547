import { demoReference } from '@dogleg/core/demo'
import type { Went } from '@dogleg/core/traveler'
import { fireEvent, render, screen, within } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { setOperator } from '../log/operator.ts'
import { OperatorGate } from '../log/operator-gate.tsx'
import { fakeServer, logOf, Round } from '../testing/shop.tsx'
import { JobPage } from './job-page.tsx'

afterEach(() => vi.unstubAllGlobals())

const none = { lines: [], more: 0 }
const went = (id: string, of: Partial<Went> = {}): Went => ({
  id,
  title: 'Housing, first side',
  machine: 'Mill 1',
  at: '2025-11-24T09:00:00.000Z',
  by: 'RT',
  lastAt: '2025-11-24T15:00:00.000Z',
  people: ['RT', 'MK'],
  took: { to: 'running', seconds: 12_000, atIt: 6300 },
  off: none,
  noted: none,
  ...of,
})

function open(pages: Record<string, object>, more: Record<string, unknown> = {}) {
  const asked = fakeServer({
    ...Object.fromEntries(
      Object.entries(demoReference).map(([noun, rows]) => [
        `GET /api/${noun}`,
        { [noun]: rows, damaged: [], retired: [], stamp: 1 },
      ]),
    ),
    'GET /api/jobs/housing%2C%20first%20side': (_body: unknown, path: string) =>
      pages[new URL(path, 'http://shop').searchParams.get('before') ?? ''],
    ...more,
  })
  setOperator('MK')
  const router = createMemoryRouter(
    [
      { path: '/jobs/:job', element: <JobPage /> },
      { path: '/setups/:id', element: <p>a setup</p> },
    ],
    { initialEntries: ['/jobs/housing%2C%20first%20side'] },
  )
  render(
    <Round>
      <OperatorGate>
        <RouterProvider router={router} />
      </OperatorGate>
    </Round>,
  )
  return { asked, router }
}

describe('the setups of a job', () => {
  it('say how each went, the last first, and older ones come when they are asked for', async () => {
    open({
      '': {
        setups: [
          went('b', {
            cycle: 84,
            parts: { measured: 12, out: 1 },
            off: {
              lines: [
                { at: '2025-11-24T10:00:00.000Z', by: 'MK', says: 'Vise moved', detail: 'chips under it' },
              ],
              more: 3,
            },
            noted: {
              lines: [{ at: '2025-11-24T11:00:00.000Z', by: 'RT', says: 'Deburr first.', detail: '' }],
              more: 0,
            },
          }),
        ],
        unreadable: [{ id: 'x', says: 'It cannot be read.' }],
        next: 7,
      },
      '7': {
        setups: [went('a', { took: { to: 'last', seconds: 300_000, atIt: 60 }, away: true })],
        unreadable: [],
      },
    })
    const first = within(await screen.findByRole('region', { name: /^Opened/ }))
    first.getByText(
      '3 h 20 min from opening until parts were run; 1 h 45 min of it at work, pauses of more than half an hour left out.',
    )
    first.getByText('A cycle took 1 min 24.0 s.')
    first.getByText('12 parts measured, 1 out of tolerance.')
    first.getByText('3 older ones are in its logbook.')
    first.getByText('chips under it')
    first.getByText('Deburr first.')
    screen.getByText('It cannot be read.')
    fireEvent.click(screen.getByRole('button', { name: 'Show older ones' }))
    await screen.findByText(/^3 days from opening until its last entry; 1 min 0\.0 s of it at work/)
    screen.getByText('These are all 2.')
    screen.getByText(/put away/)
    expect(screen.getAllByText('Nothing was off.')).toHaveLength(1)
  })

  it('are set up again, each as it was, and lead to the new one', async () => {
    const log = logOf(/second side/)
    const { asked, router } = open(
      { '': { setups: [went(log[0]?.setup ?? '')], unreadable: [] } },
      { [`GET /api/setups/${log[0]?.setup}/entries`]: { entries: log, seq: log.length } },
    )
    const again = await screen.findByRole('button', { name: /^Set up again as opened/ })
    await vi.waitFor(() => expect((again as HTMLButtonElement).disabled).toBe(false))
    fireEvent.click(again)
    await screen.findByText('a setup')
    expect(router.state.location.pathname).toMatch(/^\/setups\/[0-9A-Z]{26}$/)
    expect(router.state.location.pathname).not.toContain(log[0]?.setup)
    expect(asked).toContain(`GET /api/setups/${log[0]?.setup}/entries?after=0&texts=named`)
  })

  it('on a machine that is retired are not set up again: it says what to do', async () => {
    const log = logOf(/second side/)
    open(
      { '': { setups: [went(log[0]?.setup ?? '')], unreadable: [] } },
      {
        [`GET /api/setups/${log[0]?.setup}/entries`]: { entries: log, seq: log.length },
        'GET /api/machines': {
          machines: demoReference.machines,
          damaged: [],
          retired: [{ id: 'mill-1', at: '2026-11-24T09:00:00.000Z' }],
          stamp: 1,
        },
      },
    )
    const again = await screen.findByRole('button', { name: /^Set up again/ })
    await vi.waitFor(() => expect((again as HTMLButtonElement).disabled).toBe(false))
    fireEvent.click(again)
    expect((await screen.findByRole('alert')).textContent).toBe(
      'Mill 1 is retired: nothing is set up on it. Bring it back on its page first.',
    )
  })

  it('that cannot be read are not set up again: it says why', async () => {
    open(
      { '': { setups: [went('gone')], unreadable: [] } },
      { 'GET /api/setups/gone/entries': { entries: [], seq: 0 } },
    )
    const again = await screen.findByRole('button', { name: /^Set up again/ })
    await vi.waitFor(() => expect((again as HTMLButtonElement).disabled).toBe(false))
    fireEvent.click(again)
    expect((await screen.findByRole('alert')).textContent).toMatch(/not in the log/)
  })

  it('of a title that nothing has are none', async () => {
    open({ '': { setups: [], unreadable: [] } })
    await screen.findByText('No setup has this title.')
    screen.getByRole('heading', { name: 'housing, first side: how each setup went' })
  })
})
