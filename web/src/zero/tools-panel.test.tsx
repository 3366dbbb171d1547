import type { Entry } from '@dogleg/core/setup'
import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { useState } from 'react'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { logOf, openSetup, Round, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, __: unknown) => ({ id: 'new' })))
vi.mock('../log/record.ts', async (actual) => ({ ...(await actual<object>()), record: recorded }))

// Modules outlive a file of tests: those that were made with what stands in for recording end with this one.
vi.resetModules()
const { ToolsPanel } = await import('./tools-panel.tsx')
const { setOperator } = await import('../log/operator.ts')
const { OperatorGate } = await import('../log/operator-gate.tsx')

beforeEach(() => {
  recorded.mockClear()
  localStorage.clear()
  setOperator('RT')
})
afterAll(() => vi.resetModules())

const log = logOf(/first side/)
/** The setup before anybody measured a tool with Dogleg. */
const unmeasured = log.filter(({ kind }) => kind !== 'tool-length')
/** The same once T3 was measured. */
const measured = log.filter((entry) => entry.kind !== 'tool-length' || entry.tool === 3)

/** The page of a setup, whose log another tablet adds a length to. */
function Shop() {
  const [entries, setEntries] = useState(unmeasured)
  return (
    <>
      <button type="button" onClick={() => setEntries(measured)}>
        another tablet
      </button>
      <Outlet context={openSetup(entries)} />
    </>
  )
}

const show = (entries: readonly Entry[]) =>
  renderInSetup(
    <OperatorGate>
      <ToolsPanel />
    </OperatorGate>,
    entries,
  )
const reads = (label: string | RegExp) => screen.getByLabelText<HTMLInputElement>(label).value
const type = (label: string | RegExp, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const takeMaster = () => screen.queryByRole('button', { name: /^Take the length of the last master/ })

describe('the length of a tool', () => {
  it('is asked for with the tool that a program needs first, and what somebody empties stays empty', async () => {
    show(unmeasured)
    await waitFor(() => expect(reads('Tool')).toBe('3'))
    // It says nothing that nobody read.
    expect(reads(/this tool on the block/)).toBe('')
    expect(screen.queryByRole('button', { name: /^Record the length of/ })).toBeNull()
    type('Tool', '')
    expect(reads('Tool')).toBe('')
    type('Tool', '9')
    expect(reads('Tool')).toBe('9')
  })

  it('keeps the master where it is for the next tool, and no reading of the last', async () => {
    show(unmeasured)
    await waitFor(() => expect(reads('Tool')).toBe('3'))
    type('Machine Z, this tool on the block', '-9.2')
    type('Machine Z, master on the same block', '-10.346')
    type('Length of the master', '4')
    fireEvent.click(screen.getByRole('button', { name: 'Record the length of T3' }))
    expect(recorded).toHaveBeenCalledWith(
      unmeasured[0]?.setup,
      expect.objectContaining({ kind: 'tool-length', tool: 3 }),
    )
    // The next that is asked for, and nothing of what was read.
    expect(reads('Tool')).toBe('5')
    expect(reads('Machine Z, this tool on the block')).toBe('')
    expect(reads('Machine Z, master on the same block')).toBe('-10.346')
    expect(reads('Length of the master')).toBe('4')
  })

  it('does not change under the hand that touches it off, though another tablet measures it meanwhile', () => {
    const panel = (
      <OperatorGate>
        <ToolsPanel />
      </OperatorGate>
    )
    const router = createMemoryRouter([{ element: <Shop />, children: [{ path: '*', element: panel }] }])
    render(
      <Round>
        <RouterProvider router={router} />
      </Round>,
    )
    expect(reads('Tool')).toBe('3')
    fireEvent.click(screen.getByRole('button', { name: 'another tablet' }))
    expect(screen.getByRole('rowheader', { name: 'T3' })).toBeTruthy()
    expect(reads('Tool')).toBe('3')
  })

  it('stays empty where no program asks for one', () => {
    show(log)
    expect(reads('Tool')).toBe('')
  })

  it('has the length of the last master a press away, and not once one stands there', () => {
    show(log)
    expect(reads('Length of the master')).toBe('')
    fireEvent.click(takeMaster() as HTMLElement)
    expect(reads('Length of the master')).toBe('4.0000')
    expect(takeMaster()).toBeNull()
  })

  it('offers no master where no tool was measured', () => {
    show(unmeasured)
    expect(takeMaster()).toBeNull()
  })
})
