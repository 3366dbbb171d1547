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
      { code: 'O9901', on: 'both', says: '', by: 'RT', does: 'call', text: 'G0 Z1.\nM99', modal: false },
    ])
  })

  it('a G code that runs one can do so after every move; another code is asked nothing of the kind', async () => {
    const sent = open()
    await screen.findByRole('button', { name: 'Another code' })
    const each = 'After every move from there on, until G67'
    press('Another code')
    type('Code', 'M81')
    type('What it is', 'call')
    expect(screen.queryByLabelText(each)).toBeNull()
    type('Code', 'g181')
    type('The text of the program that it runs; its line’s words are its arguments', 'G1 Z#26\nM99')
    fireEvent.click(await screen.findByLabelText(each))
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.ownCodes).toMatchObject([{ code: 'G181', does: 'call', modal: true }])
  })

  it('what is only usual for the kind of control is said to be that', async () => {
    open()
    await screen.findByRole('button', { name: 'Another code' })
    expect(screen.queryByText(/Usual for this kind/)).toBeNull()
    fireEvent.click(screen.getByRole('link', { name: /Compact/ }))
    expect((await screen.findAllByText(/^Usual for this kind of control/)).length).toBe(6)
  })
})

describe('what the control has of further moves', () => {
  it('is ticked, with how far and over how many leads where that is asked; ticked off, it is gone', async () => {
    const sent = open()
    fireEvent.click(await screen.findByLabelText('Round pockets: G12'))
    fireEvent.click(screen.getByLabelText('Hole patterns: G70'))
    fireEvent.click(screen.getByLabelText('From one side: G60'))
    type('X past its end, mm', '0.5')
    type('Z past its end, mm', '-0.2')
    fireEvent.click(screen.getByLabelText('Threads can run out at 45°: M23, M24'))
    type('Over, in leads', '9')
    press('Save')
    expect((await screen.findAllByText('From 0.1 to 5 leads.')).length).toBeGreaterThan(0)
    expect(sent).toEqual([])
    type('Over, in leads', '1.5')
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.reading).toMatchObject({
      threads: { leads: 1.5, starts: false },
      positions: { pockets: true, patterns: true, oneSide: { X: 0.5, Y: 0, Z: -0.2 } },
    })
    fireEvent.click(screen.getByLabelText('From one side: G60'))
    fireEvent.click(screen.getByLabelText('Threads can run out at 45°: M23, M24'))
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(2))
    expect(sent[1]?.reading).toMatchObject({ threads: null, positions: { oneSide: null } })
  })

  it('driven tools: codes of the builder are asked for, and not saved as long as they are not said', async () => {
    const sent = open()
    fireEvent.click(await screen.findByLabelText('The spindle turns by C and H'))
    fireEvent.click(screen.getByLabelText('It is made an axis by M codes'))
    fireEvent.click(screen.getByLabelText('Tools are driven by M codes'))
    fireEvent.click(screen.getByLabelText('Polar interpolation on the face'))
    type('An axis by M', '154')
    press('Save')
    expect((await screen.findAllByText('Write a whole number.')).length).toBeGreaterThan(0)
    expect(sent).toEqual([])
    type('Not any more by M', '155')
    type('Clockwise by M', '133')
    type('Other way by M', '134')
    type('Off by M', '135')
    type('Speed in', 'P')
    type('X is then a', 'radius')
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.reading.driven).toEqual({
      turns: { clockwise: 133, counter: 134, off: 135, speed: 'P' },
      axis: { on: 154, off: 155 },
      face: { on: 'G12.1', off: 'G13.1', x: 'radius', across: 'C' },
    })
    fireEvent.click(screen.getByLabelText('The spindle turns by C and H'))
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(2))
    expect(sent[1]?.reading.driven).toBeNull()
  })
})
