import type { Machine, ToolShape } from '@dogleg/core/machine'
import { machine as machineSchema, toolShape } from '@dogleg/core/machine'
import { fireEvent, render, screen } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { setOperator } from '../log/operator.ts'
import { OperatorGate } from '../log/operator-gate.tsx'
import { fakeServer, Round } from '../testing/shop.tsx'
import { OwnShopPage } from './own-shop-page.tsx'

beforeEach(() => localStorage.clear())
afterEach(() => vi.unstubAllGlobals())

interface Sent {
  by?: string
  lead?: object
  machines: Machine[]
  tools: ToolShape[]
}

/** The pages, with a server that goes on with the own shop when it was asked for it `after` times. */
function open({ refuses = false, after = 2 } = {}) {
  const sent: Sent[] = []
  let left = after
  fakeServer({
    'POST /api/own-shop': (body: unknown) => {
      if (refuses)
        return Response.json({ error: { code: 'own-shop-there', says: 'It is there.' } }, { status: 409 })
      sent.push(body as Sent)
      return { file: 'own.sqlite' }
    },
    'GET /api/shop': () => ({ logbook: left-- > 0 ? 'demo-1' : 'one', warnings: [] }),
  })
  const assign = vi.fn()
  vi.stubGlobal('location', { ...window.location, assign })
  setOperator('RT')
  const router = createMemoryRouter([{ path: '/begin/own', element: <OwnShopPage /> }], {
    initialEntries: ['/begin/own'],
  })
  render(
    <Round>
      <OperatorGate>
        <RouterProvider router={router} />
      </OperatorGate>
    </Round>,
  )
  return {
    sent,
    assign,
    next: () => fireEvent.click(screen.getByRole('button', { name: /Next|Open the shop/ })),
  }
}
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } })

describe('an own shop on five pages', () => {
  it('with all that is usual is one press a page, and sends rows that the server takes', async () => {
    const { sent, assign, next } = open()
    for (let page = 0; page < 5; page++) next()
    await vi.waitFor(() => expect(assign).toHaveBeenCalledWith('/'))
    const [{ by, machines, tools }] = sent as [Sent]
    expect(by).toBe('RT')
    expect(machines).toHaveLength(1)
    expect(machines.map((each) => machineSchema.parse(each))).toEqual(machines)
    expect(tools.map((each) => toolShape.parse(each))).toEqual(tools)
    expect(machines[0]).toMatchObject({ name: 'Mill 1', kind: 'mill', unit: 'inch', profileId: 'compact' })
    expect(tools.every(({ machineId }) => machineId === machines[0]?.id)).toBe(true)
  })

  it('has what was said: kind, name, unit, travels, control, tools; another unit is asked about anew', async () => {
    const { sent, assign, next } = open()
    fireEvent.click(screen.getByRole('radio', { name: 'lathe' }))
    type('What it is called in the shop', 'Turn 4')
    next()
    expect(screen.queryByLabelText('Travel in Y')).toBeNull()
    type('Travel in Z', '20')
    fireEvent.click(screen.getByRole('radio', { name: 'mm' }))
    expect((screen.getByLabelText('Travel in Z') as HTMLInputElement).value).toBe('580')
    type('Travel in Z', '650')
    next()
    fireEvent.click(screen.getByRole('radio', { name: /Plain/ }))
    next()
    fireEvent.click(screen.getByRole('checkbox', { name: /T2/ }))
    next()
    next()
    await vi.waitFor(() => expect(assign).toHaveBeenCalled())
    const [{ machines, tools }] = sent as [Sent]
    expect(machines[0]).toMatchObject({
      name: 'Turn 4',
      kind: 'lathe',
      unit: 'mm',
      axes: { X: { least: -400, greatest: 0 }, Y: null, Z: { least: -650, greatest: 0 } },
      profileId: 'plain',
    })
    expect(tools.map(({ number, unit }) => [number, unit])).toEqual([
      [1, 'mm'],
      [3, 'mm'],
    ])
  })

  it('is not left while something cannot be, and says what', () => {
    const { next } = open()
    type('What it is called in the shop', '  ')
    screen.getByText('Give the machine a name.')
    next()
    screen.getByText('Your own shop, page 1 of 5')
    type('What it is called in the shop', 'Mill')
    next()
    for (const [typed, says] of [
      ['-3', 'A travel is more than zero.'],
      ['0', 'A travel is more than zero.'],
    ] as const) {
      type('Travel in X', typed)
      screen.getByText(says)
      next()
      screen.getByText('Your own shop, page 2 of 5')
    }
    type('Travel in X', 'far')
    expect((screen.getByRole('button', { name: 'Next' }) as HTMLButtonElement).disabled).toBe(true)
  })

  it('has a first lead where one is named, whose PIN is in no storage', async () => {
    const { sent, assign, next } = open()
    for (let page = 0; page < 4; page++) next()
    type('Initials', 'KM')
    screen.getByText(/belong together/)
    type('Name', 'K. M.')
    type('PIN, 4 to 8 digits', '1234')
    screen.getByText(/tried first/)
    next()
    expect(sent).toEqual([])
    type('PIN, 4 to 8 digits', '2580')
    expect(JSON.stringify({ ...localStorage })).toContain('K. M.')
    expect(JSON.stringify({ ...localStorage })).not.toContain('2580')
    next()
    await vi.waitFor(() => expect(assign).toHaveBeenCalledWith('/'))
    expect(sent[0]).toMatchObject({ by: 'KM', lead: { initials: 'KM', name: 'K. M.', pin: '2580' } })
  })

  it('that was set up at another tablet meanwhile says so, and what is typed stays', async () => {
    const { assign, next } = open({ refuses: true })
    for (let page = 0; page < 5; page++) next()
    expect((await screen.findByRole('alert')).textContent).toBe('It is there.')
    expect(assign).not.toHaveBeenCalled()
    screen.getByText('Your own shop, page 5 of 5')
  })
})
