import type { Entry } from '@dogleg/core/setup'
import { fireEvent, screen, within } from '@testing-library/react'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, entry: object) => ({ id: 'NEW', ...entry })))
vi.mock('../log/record.ts', async (actual) => ({ ...(await actual<object>()), record: recorded }))

vi.resetModules()
const { RotaryPanel } = await import('./rotary-panel.tsx')
const { OffsetsPanel } = await import('./offsets-panel.tsx')
const { setOperator } = await import('../log/operator.ts')
const { OperatorGate } = await import('../log/operator-gate.tsx')

beforeEach(() => {
  recorded.mockClear()
  localStorage.clear()
  setOperator('RT')
})
afterAll(() => vi.resetModules())

const log = logOf(/first side/)
const [opened] = log as [Entry]
const inch = (value: number) => ({ text: String(value), value, unit: 'inch' as const })
const made = (id: string, minute: number, body: object) =>
  ({
    id: `01KAV000000000000000000${id}`,
    setup: opened.setup,
    at: `2026-11-30T09:0${minute}:00.000Z`,
    by: 'RT',
    machine: { id: 'mill-1', version: 1 },
    ...body,
  }) as unknown as Entry
const CENTRE = made('0C1', 1, {
  kind: 'centre-line',
  reading: {
    device: 'probe',
    diameter: inch(0.2),
    round: true,
    across: inch(2),
    acrossWithin: inch(0.0005),
    height: { tool: 16, toolLength: inch(6), block: inch(0) },
    first: { turned: 0, front: inch(-9.097), back: inch(-6.897), top: inch(-7.004) },
    half: { turned: 180, front: inch(-9.103), back: inch(-6.903), top: inch(-6.996) },
  },
})
const FLAT = made('0F1', 2, {
  kind: 'flat',
  offset: 'G54',
  reading: {
    method: 'touches',
    device: 'probe',
    faces: 'up',
    turned: 10,
    first: { y: inch(-8.5), z: inch(-10) },
    second: { y: inch(-7.5), z: inch(-9.9825) },
    drawing: 0,
  },
})
const CLAMPED = made('0H1', 3, { kind: 'happened', what: 'part-reclamped', note: '' })

const show = (...more: Entry[]) => {
  const of = [...log, ...more]
  const offset = openSetup(of).setup.offsets.find(({ name }) => name === 'G54')
  if (!offset) throw new Error('no G54')
  renderInSetup(
    <OperatorGate>
      <RotaryPanel offset={offset} />
    </OperatorGate>,
    of,
  )
}
const fields = (label: string) => screen.getAllByLabelText<HTMLInputElement>(label)
const type = (label: string, value: string, n = 0) =>
  fireEvent.change(fields(label)[n] as HTMLInputElement, { target: { value } })
const record = (name: RegExp) => screen.getByRole<HTMLButtonElement>('button', { name })
const kinds = () => recorded.mock.calls.map(([, entry]) => entry as { kind: string; [part: string]: unknown })

describe('the centre line of the rotary', () => {
  const touches = [
    ['A shows', '0', '180'],
    ['Y at the front', '-9.097', '-9.103'],
    ['Y at the back', '-6.897', '-6.903'],
    ['Z on top', '-7.004', '-6.996'],
  ] as const
  const fill = () => {
    type('Tip, diameter', '.2')
    type('Part measures', '2')
    type('Top: tool', '16')
    type('Its length', '6')
    for (const [label, first, half] of touches) {
      type(label, first, 0)
      type(label, half, 1)
    }
  }

  it('comes from front, back and top by half a turn, with how far the part runs out', () => {
    show()
    fill()
    expect(screen.getByTestId('centre-Y').textContent).toBe('-8.0000')
    expect(screen.getByTestId('centre-Z').textContent).toBe('-14.0000')
    expect(screen.getByTestId('runs-out').textContent).toBe('0.0050 in')
    fireEvent.click(record(/Record the centre line/))
    expect(kinds()).toMatchObject([{ kind: 'centre-line', reading: { half: { turned: 180 } } }])
    // What was touched is gone, with what it was touched stays.
    expect([fields('Z on top')[0]?.value, fields('Part measures')[0]?.value]).toEqual(['', '2'])
  })

  it('is not recorded from sides that are swapped, and says so where they are typed', () => {
    show()
    fill()
    type('Y at the front', '-6.897', 0)
    type('Y at the back', '-9.097', 0)
    expect(screen.getByText(/Front and back are swapped/)).toBeDefined()
    expect(record(/Record the centre line/).disabled).toBe(true)
    type('Y at the front', 'left', 0)
    expect(screen.getAllByText(/is not a length|not a number/i).length).toBeGreaterThan(0)
  })

  it('puts Y and Z of the offset on it, Z at the centre or on top of the part', () => {
    show(CENTRE)
    // With a fresh centre line the flat is next: back to it.
    fireEvent.click(screen.getByRole('radio', { name: 'centre line' }))
    const form = within(screen.getByRole('form', { name: 'G54 on the centre line' }))
    fireEvent.click(form.getByRole('button', { name: 'Take zero on top of the part, -1.0000' }))
    fireEvent.click(form.getByRole('button', { name: 'Put Y and Z of G54 on it' }))
    expect(kinds()).toMatchObject([
      { kind: 'pickup', offset: 'G54', rests: [CENTRE.id], reading: { axis: 'Y', base: { value: -8 } } },
      { kind: 'pickup', reading: { axis: 'Z', base: { value: -14 }, drawingPosition: { value: -1 } } },
    ])
  })

  it('offers nothing of one that no longer holds', () => {
    show(CENTRE, made('0H2', 4, { kind: 'happened', what: 'rotary-moved', note: '' }))
    expect(screen.getByText(/before the rotary was moved/)).toBeDefined()
    expect(screen.queryByRole('form', { name: 'G54 on the centre line' })).toBeNull()
  })
})

describe('the angle of an offset from a flat', () => {
  const toFlat = () => fireEvent.click(screen.getByRole('radio', { name: 'A from a flat' }))

  it('from two touches: the way that it counts, its doubt, and that nobody homed it since the alarm', () => {
    show(made('0A1', 4, { kind: 'happened', what: 'alarm', note: '' }))
    toFlat()
    type('A shows', '10')
    type('Y of touch 1', '-8.5')
    type('Z of touch 1', '-10')
    type('Y of touch 2', '-7.5')
    type('Z of touch 2', '-9.9825')
    expect(screen.getByTestId('answer').textContent).toContain('8.997')
    expect(screen.getByText(/Nobody has said that the rotary/)).toBeDefined()
    expect(screen.getByRole('img', { name: /turned by 1.003 deg, drawn larger/ })).toBeDefined()
    fireEvent.click(record(/Record A of G54/))
    expect(kinds()).toMatchObject([
      { kind: 'flat', offset: 'G54', reading: { method: 'touches', turned: 10 } },
    ])
  })

  it('from an indicator that reads the same at both ends', () => {
    show()
    toFlat()
    fireEvent.click(screen.getByRole('radio', { name: 'indicator swept' }))
    type('A shows', '33.5')
    expect(record(/Record A of G54/).disabled).toBe(true)
    type('Y was moved by', '1.5')
    expect(screen.getByTestId('answer').textContent).toContain('33.500')
    fireEvent.click(record(/Record A of G54/))
    expect(kinds()).toMatchObject([{ reading: { method: 'level', turned: 33.5 } }])
  })

  it('is not taken with an edge finder from above, nor from two sides of the axis', () => {
    show(CENTRE)
    expect(within(screen.getByLabelText('Touched with')).queryByText('edge finder')).toBeNull()
    fireEvent.change(screen.getByLabelText('The flat faces'), { target: { value: 'front' } })
    expect(within(screen.getByLabelText('Touched with')).getByText('edge finder')).toBeDefined()
    type('A shows', '0')
    type('Y of touch 1', '-8.9')
    type('Z of touch 1', '-14.4')
    type('Y of touch 2', '-7.1')
    type('Z of touch 2', '-10')
    expect(screen.getByText(/on two sides of the axis/)).toBeDefined()
    expect(record(/Record A of G54/).disabled).toBe(true)
  })

  it('stands as recorded, hatched once the part was clamped again, and in the table of the offsets', () => {
    show(FLAT, CLAMPED)
    toFlat()
    expect(screen.getByText('A of G54, as recorded')).toBeDefined()
    expect(screen.getByText(/before the part was clamped again/)).toBeDefined()
  })

  it('has its column in the table, with how it was found', () => {
    renderInSetup(<OffsetsPanel onOpen={() => undefined} />, [...log, FLAT])
    expect(screen.getByRole('columnheader', { name: 'A, degrees' })).toBeDefined()
    const row = within(screen.getByRole('row', { name: /^G54/ }))
    expect(row.getByText('8.997')).toBeDefined()
    expect(row.getByText(/two touches across a flat, RT/)).toBeDefined()
  })
})
