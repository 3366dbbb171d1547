import { BUILT_IN_PROFILES, type Profile } from '@dogleg/core/control'
import { demoReference } from '@dogleg/core/demo'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { operator, setOperator } from '../log/operator.ts'
import { OperatorGate } from '../log/operator-gate.tsx'
import { fakeServer, Round } from '../testing/shop.tsx'
import { ProfilesPage } from './profiles-page.tsx'

let before = ''
beforeEach(() => {
  before = operator()
  setOperator('RT')
})
afterEach(() => {
  setOperator(before)
  vi.unstubAllGlobals()
})

/** The page of a profile, as Prove opens it to ask what a code is; with a server that keeps what is saved. */
function open(state?: object) {
  const sent: Profile[] = []
  fakeServer({
    'GET /api/profiles': { profiles: BUILT_IN_PROFILES, damaged: [], retired: [], stamp: 1 },
    'GET /api/machines': { machines: demoReference.machines, damaged: [], retired: [], stamp: 1 },
    'PUT /api/profiles/plain': (row: unknown) => {
      sent.push(row as Profile)
      return { ...(row as Profile), version: 2 }
    },
  })
  const router = createMemoryRouter([{ path: 'profiles/:id?', element: <ProfilesPage /> }], {
    initialEntries: [{ pathname: '/profiles/plain', state }],
  })
  render(
    <Round>
      <OperatorGate>
        <RouterProvider router={router} />
      </OperatorGate>
    </Round>,
  )
  return sent
}
/** The last of a label: the section of own codes has a Code too. */
const field = (label: string) => screen.getAllByLabelText<HTMLInputElement>(label).at(-1) as HTMLInputElement
const type = (label: string, value: string) => fireEvent.change(field(label), { target: { value } })
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))

describe('the machine’s own codes', () => {
  it('a code that Prove asked about is begun, said, and kept with whose word it is', async () => {
    const sent = open({ own: 'M51' })
    await screen.findByDisplayValue('M51')
    expect(screen.getByText('On the word of RT.')).toBeTruthy()
    // It can be kept as it was begun.
    await waitFor(() =>
      expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(false),
    )
    type('Seconds', '2.5')
    type('What it does', 'Opens the door.')
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.ownCodes).toEqual([
      { code: 'M51', on: 'both', says: 'Opens the door.', by: 'RT', does: 'harmless', seconds: 2.5 },
    ])
  })

  it('one that runs a program needs its text, one that is no code is refused, and each can be taken out', async () => {
    const sent = open()
    await screen.findByRole('button', { name: 'Another code' })
    press('Another code')
    type('Code', 'x1')
    type('What it is', 'call')
    press('Save')
    await screen.findByText('Put in the text of the program that it calls.')
    expect(screen.getByText('Write G123, M51 or O9901.')).toBeTruthy()
    expect(sent).toEqual([])
    type('Code', 'o09901')
    type('The text of the program that it runs; its line’s words are its arguments', 'G0 Z1.\nM99')
    press('Another code')
    press('Take it out')
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.ownCodes).toEqual([
      { code: 'O9901', on: 'both', says: '', by: 'RT', does: 'call', text: 'G0 Z1.\nM99' },
    ])
  })

  it('what is only usual for the kind of control is said to be that', async () => {
    open()
    await screen.findByRole('button', { name: 'Another code' })
    expect(screen.queryByText(/Usual for this kind/)).toBeNull()
    fireEvent.click(screen.getByRole('link', { name: /Compact/ }))
    expect((await screen.findAllByText(/^Usual for this kind of control/)).length).toBe(6)
  })
})
