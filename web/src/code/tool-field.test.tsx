import { demoReference } from '@dogleg/core/demo'
import type { ToolShape } from '@dogleg/core/machine'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { type ComponentProps, useState } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, logOf, renderInSetup } from '../testing/shop.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { CycleFormProvider } from './cycle-field.tsx'
import { ToolField } from './tool-field.tsx'

afterEach(() => vi.unstubAllGlobals())

function Form({ begun }: { begun?: ComponentProps<typeof ToolField>['begun'] }) {
  const [draft, setDraft] = useState<Record<string, string | boolean>>({ tapTool: '' })
  return (
    <form onKeyDown={nextFieldOnEnter}>
      <CycleFormProvider
        value={{
          draft,
          change: (field, value) => setDraft({ ...draft, [field]: value }),
          changeAll: setDraft,
          problems: {},
          missing: [],
          drawn: [],
          unit: 'inch',
          lit: undefined,
          onLit: () => undefined,
        }}
      >
        <ToolField field="tapTool" label="Tap is T" kind="tap" begun={begun} />
      </CycleFormProvider>
    </form>
  )
}
const field = () => screen.getByLabelText<HTMLInputElement>('Tap is T')
const openList = () => {
  fireEvent.click(screen.getByRole('button', { name: 'List of tools: Tap' }))
  return within(screen.getByRole('dialog'))
}

describe('the tool of an operation', () => {
  it('says what it is as it is typed, and where the list has none', () => {
    renderInSetup(<Form />, logOf(/first side/))
    fireEvent.change(field(), { target: { value: '12' } })
    expect(screen.getByText(/5\/16-24 spiral flute tap/)).toBeTruthy()
    fireEvent.change(field(), { target: { value: '19' } })
    expect(screen.getByText('not in the list')).toBeTruthy()
  })

  it('is chosen from the tools of this machine, those that do the work first', () => {
    renderInSetup(<Form />, logOf(/first side/))
    const list = openList()
    const rows = list.getAllByRole('listitem').map(({ textContent }) => textContent)
    expect(rows[0]).toContain('T12')
    expect(rows).toHaveLength(demoReference.tools.filter(({ machineId }) => machineId === 'mill-1').length)
    fireEvent.click(list.getByRole('button', { name: /1\/2 end mill/ }))
    expect(field().value).toBe('7')
    expect(screen.queryByRole('dialog')).toBeNull()
  })

  it('is made new there, and then is the one', async () => {
    const sent: ToolShape[] = []
    fakeServer({
      'GET /api/tools': { tools: demoReference.tools, damaged: [], retired: [], stamp: 1 },
      'POST /api/tools': (row: unknown) => {
        sent.push(row as ToolShape)
        return row
      },
    })
    renderInSetup(<Form />, logOf(/first side/))
    fireEvent.click(openList().getByRole('button', { name: 'New tool' }))
    const dialog = within(screen.getByRole('dialog'))
    // The next number of the machine, a tap, and nothing else.
    expect(dialog.getByLabelText<HTMLInputElement>('Tool number').value).toBe('17')
    expect(dialog.getByLabelText<HTMLSelectElement>('Kind').value).toBe('tap')
    for (const [label, value] of [
      ['Name', '1/4-20 tap'],
      ['Diameter, in', '.25'],
      ['Cuts up to, in', '.8'],
      ['Out of the holder, in', '2'],
      ['Pitch, in a turn', '.05'],
      ['Holder diameter, in', '1.6'],
      ['Holder length, in', '1.7'],
    ] as const)
      fireEvent.change(dialog.getByLabelText(label), { target: { value } })
    // Enter in the dialog is not of the form under it.
    expect(fireEvent.keyDown(dialog.getByLabelText('Name'), { key: 'Enter' })).toBe(true)
    fireEvent.click(dialog.getByRole('button', { name: 'Save' }))
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]).toMatchObject({ number: 17, kind: 'tap', pitch: 0.05, machineId: 'mill-1' })
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
    expect(field().value).toBe('17')
  })

  it('is begun as what the cycle needs, and nothing of it is measured yet', () => {
    const begun = { name: 'M8x1.25 tap', unit: 'mm', diameter: 8, pitch: 1.25 } as const
    renderInSetup(<Form begun={begun} />, logOf(/first side/))
    fireEvent.click(openList().getByRole('button', { name: 'New tool' }))
    const dialog = within(screen.getByRole('dialog'))
    const reads = (label: string) => dialog.getByLabelText<HTMLInputElement>(label).value
    expect(reads('Name')).toBe('M8x1.25 tap')
    expect(reads('Diameter, mm')).toBe('8')
    expect(reads('Pitch, mm a turn')).toBe('1.25')
    for (const label of ['Cuts up to, mm', 'Out of the holder, mm', 'Holder diameter, mm'])
      expect(reads(label)).toBe('')
  })
})
