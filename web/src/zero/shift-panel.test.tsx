import type { Entry } from '@dogleg/core/setup'
import { fireEvent, screen, within } from '@testing-library/react'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, entry: object) => ({ id: 'NEW', ...entry })))
vi.mock('../log/record.ts', async (actual) => ({ ...(await actual<object>()), record: recorded }))

vi.resetModules()
const { ShiftPanel } = await import('./shift-panel.tsx')
const { OffsetsPanel } = await import('./offsets-panel.tsx')
const { PickupPanel } = await import('./pickup-panel.tsx')
const { setOperator } = await import('../log/operator.ts')
const { OperatorGate } = await import('../log/operator-gate.tsx')

beforeEach(() => {
  recorded.mockClear()
  localStorage.clear()
  setOperator('LB')
})
afterAll(() => vi.resetModules())

const log = logOf(/O-ring grooves/)
const [opened] = log as [Entry]
const inch = (value: number) => ({ text: String(value), value, unit: 'inch' as const })
const made = (id: string, minute: number, body: object) =>
  ({
    id: `01KAV000000000000000000${id}`,
    setup: opened.setup,
    at: `2027-01-30T09:0${minute}:00.000Z`,
    by: 'LB',
    machine: { id: 'lathe-1', version: 1 },
    ...body,
  }) as unknown as Entry
const TOUCHED = made('0T4', 1, {
  kind: 'pickup',
  offset: 'T4',
  reading: { method: 'faced', axis: 'Z', machinePosition: inch(-11), drawingPosition: inch(0) },
})
const MOVED = made('0H1', 2, { kind: 'happened', what: 'part-reclamped', note: '' })
const SHIFT = made('0S1', 3, {
  kind: 'work-shift',
  offset: 'T4',
  rests: [TOUCHED.id],
  reading: {
    machinePosition: inch(-10.75),
    drawingPosition: inch(0),
    geometry: inch(-11),
    geometryWithin: inch(0.0005),
  },
})

const offsetIn = (of: readonly Entry[]) => {
  const offset = openSetup(of).setup.offsets.find(({ name }) => name === 'T4')
  if (!offset) throw new Error('no T4')
  return offset
}
const show = (...more: Entry[]) => {
  const of = [...log, ...more]
  renderInSetup(
    <OperatorGate>
      <ShiftPanel offset={offsetIn(of)} />
    </OperatorGate>,
    of,
  )
}
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const record = (name: RegExp) => screen.getByRole<HTMLButtonElement>('button', { name })

describe('the work shift of a lathe', () => {
  it('is taken with a tool whose Z held before the part was moved', () => {
    show(TOUCHED, MOVED)
    expect(screen.getByText('One tool for all of them')).toBeDefined()
    expect(record(/Record the work shift/).disabled).toBe(true)
    type('Machine Z at the face', '-10.75')
    expect(screen.getByTestId('answer').textContent).toContain('0.2500')
    expect(screen.getByRole('img', { name: /0.2500 further from the chuck/ })).toBeDefined()
    fireEvent.click(record(/Record the work shift/))
    expect(recorded.mock.calls.map(([, entry]) => entry)).toMatchObject([
      { kind: 'work-shift', offset: 'T4', rests: [TOUCHED.id], reading: { geometry: { value: -11 } } },
    ])
  })

  it('is not recorded from where the machine cannot have stood', () => {
    show(TOUCHED, MOVED)
    type('Machine Z at the face', '10.75')
    expect(screen.getByText(/cannot have stood at Z 10.7500/)).toBeDefined()
    expect(record(/Record the work shift/).disabled).toBe(true)
  })

  it('says what is keyed in and where, and stands over the table of the tools', () => {
    show(TOUCHED, MOVED, SHIFT)
    expect(screen.getByText(/Key in Z of G54/).textContent).toContain('0.2500')
    renderInSetup(<OffsetsPanel onOpen={() => undefined} />, [...log, TOUCHED, MOVED, SHIFT])
    const line = screen.getByText('Work shift, Z').parentElement
    expect(within(line as HTMLElement).getByText('0.2500')).toBeDefined()
    expect(within(line as HTMLElement).getByText(/by T4, LB/)).toBeDefined()
  })

  it('is in the geometry of a tool that is touched while the control has it', () => {
    const of = [...log, TOUCHED, MOVED, SHIFT]
    const { setup } = openSetup(of)
    renderInSetup(
      <OperatorGate>
        <PickupPanel
          setup={setup}
          offset={offsetIn(of)}
          axis="Z"
          takeFocus={false}
          onRecorded={() => undefined}
        />
      </OperatorGate>,
      of,
    )
    type('Machine Z at the face', '-10.75')
    expect(screen.getByTestId('answer').textContent).toContain('-11.0000')
    fireEvent.click(record(/^Record Z of T4/))
    expect(recorded.mock.calls.map(([, entry]) => entry)).toMatchObject([
      { kind: 'pickup', reading: { method: 'faced', shift: { value: 0.25 } } },
    ])
  })
})
