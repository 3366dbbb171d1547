import type { Entry } from '@dogleg/core/setup'
import { fireEvent, screen, within } from '@testing-library/react'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, entry: object) => ({ id: 'NEW', ...entry })))
vi.mock('../log/record.ts', async (actual) => ({ ...(await actual<object>()), record: recorded }))

// Modules outlive a file of tests: those that were made with what stands in for recording end with this one.
vi.resetModules()
const { StockPanel } = await import('./stock-panel.tsx')
const { ProbePanel } = await import('./probe-panel.tsx')
const { BarStopPanel } = await import('./bar-stop-panel.tsx')
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
const inch = (value: number) => ({ text: String(value), value, unit: 'inch' as const })
const opened = log[0] as Entry
/** The setup with X and Y of G54 as the middles of a block of 4.2 by 2.1, and Z at its top. */
const blocked = (() => {
  const pickup = (id: string, reading: object): Entry =>
    ({
      id,
      setup: opened.setup,
      at: '2026-11-24T09:00:00.000Z',
      by: 'RT',
      kind: 'pickup',
      offset: 'G54',
      machine: { id: 'mill-1', version: 1 },
      reading,
    }) as Entry
  return [
    opened,
    pickup('01KAV00000000000000000000X', {
      method: 'probe-set',
      axis: 'X',
      shown: inch(-15),
      size: inch(4.2),
      drawingPosition: inch(0),
    }),
    pickup('01KAV00000000000000000000Y', {
      method: 'probe-set',
      axis: 'Y',
      shown: inch(-8),
      size: inch(2.1),
      drawingPosition: inch(0),
    }),
    pickup('01KAV00000000000000000000Z', {
      method: 'probe-set',
      axis: 'Z',
      shown: inch(-16.4),
      drawingPosition: inch(0),
    }),
  ]
})()

const offsetOf = (of: readonly Entry[]) => {
  const offset = openSetup(of).setup.offsets.find(({ name }) => name === 'G54')
  if (!offset) throw new Error('no G54')
  return offset
}
const show = (panel: React.ReactNode, of: readonly Entry[]) =>
  renderInSetup(<OperatorGate>{panel}</OperatorGate>, of)
const field = (label: string | RegExp) => screen.getByLabelText<HTMLInputElement>(label)
const type = (label: string | RegExp, value: string) => fireEvent.change(field(label), { target: { value } })
const kinds = () => recorded.mock.calls.map(([, entry]) => entry as { kind: string; [part: string]: unknown })

describe('a block against the part that is asked for', () => {
  const fill = () => {
    show(<StockPanel offset={offsetOf(blocked)} />, blocked)
    type('Finished, along X', '4')
    type('Finished, along Y', '2')
    type('Off the top', '.05')
  }
  const row = (name: RegExp) => within(screen.getByRole('row', { name }))

  it('begins with zero where it stands, and says what comes off each face', () => {
    fill()
    expect(field('X zero at').value).toBe('middle')
    expect(field('Z zero at').value).toBe('stock-top')
    expect(row(/^X/).getAllByText('0.1000')).toHaveLength(2)
    expect(row(/^Y/).getAllByText('0.0500')).toHaveLength(2)
    fireEvent.click(screen.getByRole('button', { name: 'Record the block of G54' }))
    expect(kinds().map(({ kind }) => kind)).toEqual(['stock'])
    expect(kinds()[0]?.rests).toHaveLength(3)
  })

  it('moves all axes in one press where another zero is chosen, and the block rests on what was recorded', () => {
    fill()
    fireEvent.change(field('X zero at'), { target: { value: 'low' } })
    fireEvent.change(field('Y zero at'), { target: { value: 'low' } })
    fireEvent.change(field('Z zero at'), { target: { value: 'finished-top' } })
    fireEvent.click(screen.getByRole('button', { name: 'Move zero of G54, and record' }))
    const [x, y, z, stock] = kinds() as { moved?: { value: number }; rests?: string[]; kind: string }[]
    // Half of the finished part along the table, the facing up and down.
    expect([x?.moved?.value, y?.moved?.value, z?.moved?.value]).toEqual([-2, -1, -0.05])
    expect([stock?.kind, stock?.rests]).toEqual(['stock', ['NEW', 'NEW', 'NEW']])
  })

  it('records nothing of a block that the part does not come out of, and asks for what was not taken', () => {
    fill()
    type('Finished, along X', '4.5')
    expect(screen.getByText(/too short along X/)).toBeTruthy()
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Record the block of G54' }).disabled).toBe(
      true,
    )
    expect(screen.getByText('Not recorded while the verdict is stop.')).toBeTruthy()
  })

  it('puts zero nowhere that the machine cannot stand', () => {
    const oneFace = blocked.map((entry) =>
      entry.kind === 'pickup' && entry.reading.axis === 'X'
        ? ({
            ...entry,
            reading: {
              method: 'edge-finder',
              axis: 'X',
              direction: '+',
              diameter: inch(0.2),
              machinePosition: inch(-15),
              drawingPosition: inch(0),
            },
          } as Entry)
        : entry,
    )
    show(<StockPanel offset={offsetOf(oneFace)} />, oneFace)
    type('Finished, along X', '4')
    type('Finished, along Y', '2')
    type('Off the top', '.05')
    type('Off the left', '5000')
    expect(screen.getByText('Not recorded while the verdict is stop.')).toBeTruthy()
    type('Off the left', '.03')
    expect(screen.getByText(/How long the block is was not measured/)).toBeTruthy()
    expect(
      screen.getByRole<HTMLButtonElement>('button', { name: 'Move zero of G54, and record' }).disabled,
    ).toBe(false)
  })

  it('asks for the length of the probe once a seat is typed, where its cycle set Z', () => {
    fill()
    expect(screen.queryByLabelText('Probe length')).toBeNull()
    type('Machine Z on its seat', '-11.8')
    expect(field('Probe length').value).toBe('')
    // -16.4 + 6 - (-11.8) = 1.4.
    type('Probe length', '6')
    expect(row(/^Z/).getByText('1.4000')).toBeTruthy()
  })
})

describe('a whole zero by one program', () => {
  const fill = () => {
    show(<ProbePanel offset={offsetOf(blocked)} onRecorded={() => {}} />, blocked)
    fireEvent.change(field('Set G54 from'), { target: { value: 'block' } })
    for (const [label, value] of [
      ['Length along X', '4.2'],
      ['Width along Y', '2.1'],
      ['X of the middle', '0'],
      ['Y of the middle', '0'],
      ['Probe length', '6'],
      ['Machine X', '-15.02'],
      ['Machine Y', '-8.03'],
      ['Machine Z', '-10'],
    ] as const)
      type(label, value)
  }
  const results = () => within(screen.getByRole('region', { name: 'What it found' }))
  const found = (label: string, value: string) =>
    fireEvent.change(results().getByLabelText(label, { exact: true }), { target: { value } })

  it('stands lower over a block than over what is known, and goes back', () => {
    show(<ProbePanel offset={offsetOf(blocked)} onRecorded={() => {}} />, blocked)
    expect(field('Clear above the top').value).toBe('1.000')
    fireEvent.change(field('Set G54 from'), { target: { value: 'block' } })
    expect(field('Stands above').value).toBe('.375')
    fireEvent.change(field('Set G54 from'), { target: { value: 'bore' } })
    expect(field('Clear above the top').value).toBe('1.000')
  })

  it('says what is done before cycle start, with the number of the program', () => {
    fill()
    expect(screen.getByText(/Select O05402 in memory mode/)).toBeTruthy()
    expect(screen.getByText(/First the spindle goes up/)).toBeTruthy()
  })

  it('records three axes at once, and says where another program ran', () => {
    fill()
    for (const [label, value] of [
      ['X', '-15'],
      ['Y', '-8'],
      ['Z', '-16.4'],
      ['Length', '4.2'],
      ['Width', '2.1'],
    ] as const)
      found(label, value)
    expect(results().getByText(/All three axes of G54 are what stood there before/)).toBeTruthy()
    expect(results().queryByText(/^X is -15/)).toBeNull()
    found('X', '-15.0103')
    found('Z', '-16.9')
    expect(results().queryByText(/All three axes/)).toBeNull()
    expect(results().getByText(/^Z of G54 shows -16.9000; this program began at -16.3750/)).toBeTruthy()
    found('Z', '-16.4002')
    fireEvent.click(results().getByRole('button', { name: 'Record X, Y and Z of G54' }))
    expect(kinds().map(({ kind, reading }) => [kind, (reading as { axis: string }).axis])).toEqual([
      ['pickup', 'X'],
      ['pickup', 'Y'],
      ['pickup', 'Z'],
    ])
  })
})

describe('a stop that the turret brings', () => {
  it('offers three diameters of the bar that is gripped, and writes nothing past what may stand out', () => {
    show(<BarStopPanel />, logOf(/Drawtube, first/))
    for (const [label, value] of [
      ['Stop in station', 'T9'],
      ['Stands out', '2.03'],
      ['Chuck from part zero', '-2'],
      ['To face off', '.03'],
    ] as const)
      type(label, value)
    expect(screen.getByText('1 answer is still missing.')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: /^Take 3 diameters of the bar/ }))
    expect(screen.getByRole('button', { name: 'Download .nc' })).toBeTruthy()
    type('May stand out', '2')
    expect(screen.queryByRole('button', { name: 'Download .nc' })).toBeNull()
    expect(screen.getByText('No program is written for this stop.')).toBeTruthy()
  })
})

describe('a tool setter', () => {
  it('is calibrated from the form of the tools, and the way back is a press', () => {
    show(<ToolsPanel />, log)
    fireEvent.click(screen.getByRole('radio', { name: 'a setter' }))
    fireEvent.click(screen.getByRole('button', { name: 'Calibrate it' }))
    type('Machine Z at the trigger', '-11.2')
    type('Length of the master', '4')
    fireEvent.click(screen.getByRole('button', { name: 'Record the setter' }))
    expect(kinds().map(({ kind }) => kind)).toEqual(['setter'])
    expect(screen.getByRole('button', { name: 'Calibrate it' })).toBeTruthy()
  })

  it('writes the program of the macro for the tools that are typed, and says which is none', () => {
    show(<ToolsPanel />, log)
    fireEvent.click(screen.getByRole('radio', { name: 'its macro' }))
    const tools = screen.getByRole<HTMLInputElement>('textbox', { name: 'Tools', hidden: true })
    fireEvent.change(tools, { target: { value: '3 x' } })
    expect(screen.getByText('"x" is not a tool number.')).toBeTruthy()
    fireEvent.change(tools, { target: { value: '3 7' } })
    expect(screen.getByText(/T3, T7/)).toBeTruthy()
    expect(screen.getByRole('button', { name: 'Download .nc', hidden: true })).toBeTruthy()
  })
})
