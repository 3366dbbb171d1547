import { fireEvent, render, screen, within } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { noteSession } from '../log/session.ts'
import { fakeServer, Round } from '../testing/shop.tsx'
import { PeoplePage } from './people-page.tsx'

afterEach(() => vi.unstubAllGlobals())

const person = (initials: string, may: string, more: object = {}) => ({
  id: `p-${initials}`,
  initials,
  name: `Person ${initials}`,
  may,
  pin: true,
  ...more,
})
const tablet = { id: 't1', name: 'Mill 1', locksAfter: 15, person: 'RT', heard: '2026-11-24T09:00:00.000Z' }

function open(answers: Record<string, unknown> = {}, may: 'lead' | 'operator' = 'lead', signs = true) {
  const sent: unknown[] = []
  const note = (answer: unknown) => (body: unknown, path: string) => {
    sent.push([path, body])
    return answer
  }
  const people = [person('KM', 'operator'), person('RT', 'lead'), person('XY', 'operator', { gone: true })]
  fakeServer({
    'GET /api/people': { people },
    'POST /api/people': note({ people: [...people, person('LV', 'operator')] }),
    'PUT /api/people/p-KM': note({ people }),
    'GET /api/tablets': { tablets: [tablet, { ...tablet, id: 't2', name: 'Old', out: true }] },
    'PUT /api/tablets/t1': note({ tablets: [] }),
    'POST /api/tablets/codes': note({
      code: '048215',
      until: '2026-11-24T09:10:00.000Z',
      addresses: ['http://shop-pc:7080', 'http://192.0.2.10:7080'],
    }),
    ...answers,
  })
  noteSession(
    signs
      ? {
          signs,
          tablet: { id: 't1', name: 'Mill 1', locksAfter: 15 },
          person: { initials: 'RT', name: 'R. T.', may },
          sitting: 's0',
        }
      : { signs },
  )
  const router = createMemoryRouter([{ path: '/people', element: <PeoplePage /> }], {
    initialEntries: ['/people'],
  })
  render(
    <Round>
      <RouterProvider router={router} />
    </Round>,
  )
  return sent
}
const type = (label: string | RegExp, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } })
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))

describe('the people of the shop', () => {
  it('are added with what they may do, and whoever has left stands apart', async () => {
    const sent = open()
    await screen.findByText('Person KM')
    expect(screen.getByText('1 has left')).toBeTruthy()
    press('Add somebody')
    type('Initials', 'LV')
    type('Name', 'L. V.')
    fireEvent.click(screen.getByRole('radio', { name: /looker/ }))
    type('PIN, 4 to 8 digits', '7294')
    press('Add')
    await screen.findByText('Person LV')
    expect(sent).toMatchObject([
      ['/api/people', { initials: 'LV', name: 'L. V.', may: 'looker', pin: '7294', id: expect.any(String) }],
    ])
    expect(screen.queryByRole('dialog')).toBeNull()
  })

  it('are changed: a PIN that is not typed stays, and what the server refuses is said in the dialog', async () => {
    const sent = open({
      'PUT /api/people/p-RT': Response.json(
        { error: { code: 'last-lead', says: 'Nobody else leads this shop.' } },
        { status: 409 },
      ),
    })
    await screen.findByText('Person KM')
    press('Change KM')
    press('KM has left')
    await vi.waitFor(() =>
      expect(sent).toEqual([['/api/people/p-KM', { name: 'Person KM', may: 'operator', gone: true }]]),
    )
    press('Change RT')
    press('RT has left')
    expect((await screen.findByRole('alert')).textContent).toBe('Nobody else leads this shop.')
  })

  it('are looked after by a lead only', () => {
    open({}, 'operator')
    expect(screen.getByText(/A lead of the shop looks after/)).toBeTruthy()
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('are named at one PC as well, where it is said what lets tablets in', async () => {
    open({ 'GET /api/people': { people: [] } }, 'lead', false)
    expect(await screen.findByText('Nobody yet. The first one leads the shop.')).toBeTruthy()
    expect(screen.getByText(/listens to this PC only/)).toBeTruthy()
    press('Add somebody')
    expect((screen.getByRole('radio', { name: /^lead/ }) as HTMLInputElement).checked).toBe(true)
  })
})

describe('the tablets', () => {
  it('are let in by a code, as digits and as a QR code of the address that others know', async () => {
    open()
    press('Let a tablet in')
    const dialog = await screen.findByRole('dialog')
    expect(within(dialog).getByText('048 215')).toBeTruthy()
    expect(within(dialog).getByTitle('http://shop-pc:7080/let-in#048215')).toBeTruthy()
    fireEvent.change(within(dialog).getByRole('combobox'), { target: { value: 'http://192.0.2.10:7080' } })
    expect(within(dialog).getByTitle('http://192.0.2.10:7080/let-in#048215')).toBeTruthy()
  })

  it('are named, and shut out', async () => {
    const sent = open()
    await screen.findByText('Mill 1')
    expect(screen.queryByText('Old')).toBeNull()
    press('Change Mill 1')
    type('What it is called', 'Mill 7')
    fireEvent.change(screen.getByLabelText(/locks where nobody/), { target: { value: '0' } })
    press('Save')
    await vi.waitFor(() =>
      expect(sent).toEqual([['/api/tablets/t1', { name: 'Mill 7', locksAfter: 0, out: false }]]),
    )
  })
})
