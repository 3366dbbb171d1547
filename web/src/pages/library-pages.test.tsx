import { demoReference } from '@dogleg/core/demo'
import type { Vise } from '@dogleg/core/hold'
import type { ToolShape } from '@dogleg/core/machine'
import { fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import type { ReactElement } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, Round } from '../testing/shop.tsx'
import { ToolsPage } from './tools-page.tsx'
import { VisesPage } from './vises-page.tsx'

afterEach(() => vi.unstubAllGlobals())

/** A page of the library with a server that keeps what is saved. */
function open(noun: 'tools' | 'vises', page: ReactElement, at: string) {
  const rows: { tools: ToolShape[]; vises: Vise[] } = {
    tools: [...demoReference.tools],
    vises: [...demoReference.vises],
  }
  const sent: unknown[] = []
  const create = (row: unknown) => {
    sent.push(row)
    rows[noun].push(row as never)
    return row
  }
  fakeServer({
    [`GET /api/${noun}`]: () => ({ [noun]: rows[noun], damaged: [], retired: [], stamp: 1 }),
    'GET /api/machines': { machines: demoReference.machines, damaged: [], retired: [], stamp: 1 },
    'GET /api/tools': () => ({ tools: rows.tools, damaged: [], retired: [], stamp: 1 }),
    [`POST /api/${noun}`]: create,
    [`PUT /api/${noun}/${at}`]: (row: unknown) => {
      sent.push(row)
      return { ...(row as Vise), version: 2 }
    },
  })
  const router = createMemoryRouter([{ path: `${noun}/:id?`, element: page }], {
    initialEntries: [`/${noun}/${at}`],
  })
  render(
    <Round>
      <RouterProvider router={router} />
    </Round>,
  )
  return { sent, router }
}
const field = (label: string | RegExp) => screen.getByLabelText<HTMLInputElement>(label)
const type = (label: string | RegExp, value: string) => fireEvent.change(field(label), { target: { value } })
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }))

describe('a new row', () => {
  it('is kept when it is saved, and not before; nothing of it is made up', async () => {
    const { sent, router } = open('tools', <ToolsPage />, 'mill-1-t7')
    await screen.findByDisplayValue('1/2 end mill')
    press('New tool')
    await screen.findByText('Not in the list yet: this tool is kept when you save it.')
    expect(router.state.location.pathname).toBe('/tools/new')
    for (const label of [
      'Name',
      'Diameter, in',
      'Cuts up to, in',
      'Out of the holder, in',
      'Holder diameter, in',
      'Holder length, in',
    ])
      expect([label, field(label).value]).toEqual([label, ''])
    press('Save')
    await waitFor(() => expect(field('Diameter, in').getAttribute('aria-invalid')).toBe('true'))
    expect(sent).toEqual([])
    for (const [label, value] of [
      ['Name', '3/8 ball'],
      ['Diameter, in', '3/8'],
      ['Cuts up to, in', '1'],
      ['Out of the holder, in', '1.5'],
      ['Holder diameter, in', '1.75'],
      ['Holder length, in', '2'],
    ] as const)
      type(label, value)
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(1))
    const [tool] = sent as [ToolShape]
    expect(tool).toMatchObject({ name: '3/8 ball', diameter: 0.375, version: 1, machineId: 'mill-1' })
    expect(tool.id).not.toBe('new')
    await waitFor(() => expect(router.state.location.pathname).toBe(`/tools/${tool.id}`))
    // It is in the list now, and can be copied in its turn.
    await screen.findByRole('link', { name: /3\/8 ball/ })
    await screen.findByRole('button', { name: 'Copy as a new tool' })
  })

  it('of a copy stands in the editor, and is gone when somebody goes away from it', async () => {
    const { sent, router } = open('vises', <VisesPage />, 'vise-6')
    await screen.findByDisplayValue('6 in vise')
    press('Copy as a new vise')
    await screen.findByDisplayValue('6 in vise copy')
    expect(screen.queryByRole('button', { name: 'Copy as a new vise' })).toBeNull()
    await router.navigate('/vises/vise-4')
    await screen.findByDisplayValue('4 in vise')
    expect(sent).toEqual([])
    expect(screen.queryByRole('link', { name: /copy/ })).toBeNull()
  })

  it('is nothing at an address that nobody came to with one', async () => {
    open('vises', <VisesPage />, 'new')
    await screen.findByText('Nothing new was begun here.')
  })
})

describe('a changed unit', () => {
  const unit = () => field('Measured in') as unknown as HTMLSelectElement
  const change = async () => {
    await screen.findByDisplayValue('6 in vise')
    fireEvent.change(unit(), { target: { value: 'mm' } })
    return within(await screen.findByRole('dialog'))
  }

  it('asks whether the lengths are converted or were in the wrong unit, and shows both', async () => {
    const { sent } = open('vises', <VisesPage />, 'vise-6')
    const asked = await change()
    expect(
      asked.getByText('Convert the lengths of this vise to mm, or were they in the wrong unit?'),
    ).toBeTruthy()
    const [, row] = asked.getAllByRole('row')
    expect(row?.textContent).toBe('6 in152.4 mm6 mm')
    fireEvent.click(asked.getByRole('button', { name: 'Convert them' }))
    expect([unit().value, field('Length of the jaw, mm').value]).toEqual(['mm', '152.4'])
    press('Save')
    await waitFor(() => expect(sent).toHaveLength(1))
    const [saved] = sent as [Vise]
    const six = demoReference.vises.find(({ id }) => id === 'vise-6') as Vise
    expect(saved.unit).toBe('mm')
    expect(saved.parts.map(({ top }) => top)).toEqual(
      six.parts.map(({ top }) => expect.closeTo(top * 25.4, 6)),
    )
  })

  it('leaves the numbers where they were in the wrong unit', async () => {
    open('vises', <VisesPage />, 'vise-6')
    fireEvent.click((await change()).getByRole('button', { name: 'They are mm as they stand' }))
    expect([unit().value, field('Length of the jaw, mm').value]).toEqual(['mm', '6'])
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(false)
  })

  it('is none where it was a slip', async () => {
    open('vises', <VisesPage />, 'vise-6')
    fireEvent.click((await change()).getByRole('button', { name: 'Leave it as it was' }))
    expect([unit().value, field('Length of the jaw, in').value]).toEqual(['inch', '6'])
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Save' }).disabled).toBe(true)
  })

  it('is asked about nothing where nothing is typed', async () => {
    open('tools', <ToolsPage />, 'mill-1-t7')
    await screen.findByDisplayValue('1/2 end mill')
    press('New tool')
    await screen.findByText(/Not in the list yet/)
    fireEvent.change(field('Lengths in'), { target: { value: 'mm' } })
    expect(screen.queryByRole('dialog')).toBeNull()
    expect(field('Diameter, mm').value).toBe('')
  })
})
