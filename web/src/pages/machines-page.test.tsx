import { demoReference } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fakeServer } from '../testing/shop.tsx'
import { MachinesPage } from './machines-page.tsx'

afterEach(() => vi.unstubAllGlobals())

const [first, ...others] = demoReference.machines as [Machine, ...Machine[]]
/** Without what stands round the table: the made-up browser does not keep the second choice of a list that is registered. */
const mill: Machine = { ...first, around: null }

/** The page of the machines at one of them, with a server that a second tablet writes to as well. */
function openMachines(at = mill.id, profilesAnswer?: Promise<unknown>) {
  let standing: Machine = mill
  fakeServer({
    'GET /api/machines': () => ({
      machines: [standing, ...others],
      damaged: [],
      retired: [],
      stamp: standing.version,
    }),
    'GET /api/profiles': () => ({ profiles: demoReference.profiles, damaged: [], retired: [], stamp: 1 }),
    [`PUT /api/machines/${mill.id}`]: (row: unknown) => {
      standing = { ...(row as Machine), version: standing.version + 1 }
      return standing
    },
  })
  const answers = fetch
  if (profilesAnswer)
    vi.stubGlobal('fetch', async (path: string, options: RequestInit) => {
      if (path === '/api/profiles') await profilesAnswer
      return answers(path, options)
    })
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, networkMode: 'always' } } })
  const router = createMemoryRouter([{ path: 'machines/:id?', element: <MachinesPage /> }], {
    initialEntries: [`/machines/${at}`],
  })
  render(
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
    </QueryClientProvider>,
  )
  return {
    standing: () => standing,
    savedElsewhere: async (note: string) => {
      standing = { ...standing, note, version: standing.version + 1 }
      await act(() => client.invalidateQueries({ queryKey: ['machines'] }))
    },
  }
}

const note = () =>
  screen.findByLabelText('What the next person should know about it') as Promise<HTMLInputElement>
const type = async (text: string) => fireEvent.change(await note(), { target: { value: text } })

describe('a row that somebody else saves while it is open here', () => {
  it('is shown as it stands now where nothing is typed', async () => {
    const { savedElsewhere } = openMachines()
    expect((await note()).value).toBe(mill.note)
    await savedElsewhere('from the other tablet')
    await waitFor(async () => expect((await note()).value).toBe('from the other tablet'))
    expect(screen.queryByText(/Somebody else saved/)).toBeNull()
  })

  it('leaves what is typed as it is, says so, and lets it go only when asked', async () => {
    const { savedElsewhere } = openMachines()
    await type('typed here')
    await savedElsewhere('from the other tablet')
    await screen.findByText(/Somebody else saved this machine meanwhile \(version 2\)/)
    expect((await note()).value).toBe('typed here')
    fireEvent.click(screen.getByRole('button', { name: 'Show theirs' }))
    await waitFor(async () => expect((await note()).value).toBe('from the other tablet'))
  })

  it('is not what is said after a save of one’s own', async () => {
    const { standing } = openMachines()
    await type('typed here')
    fireEvent.click(screen.getByRole('button', { name: 'Save' }))
    await screen.findByText(/Version 2\./)
    expect((await note()).value).toBe('typed here')
    expect(screen.queryByText(/Somebody else saved/)).toBeNull()
    expect((screen.getByRole('button', { name: 'Save' }) as HTMLButtonElement).disabled).toBe(true)
    // What nobody touched is saved as it was: nothing known round the table stays nothing.
    expect(standing()).toEqual({ ...mill, note: 'typed here', version: 2 })
  })
})

describe('a list that comes later than the form', () => {
  it('shows the profile that the machine has, not the first of the list', async () => {
    const other = others.find(({ profileId }) => profileId !== demoReference.profiles[0]?.id)
    const machine = other ?? mill
    let come: (value: unknown) => void = () => undefined
    openMachines(
      machine.id,
      new Promise((resolve) => {
        come = resolve
      }),
    )
    await note()
    await act(async () => come(undefined))
    const field = (await screen.findByLabelText('The control speaks')) as HTMLSelectElement
    await waitFor(() => expect(field.options.length).toBeGreaterThan(1))
    expect(field.value).toBe(machine.profileId)
  })
})

describe('the second home', () => {
  it('is asked for where it is said to be known, and kept in machine positions', async () => {
    const { standing } = openMachines()
    await note()
    fireEvent.click(screen.getByLabelText('Second home known: where G30 goes'))
    for (const [axis, at] of [
      ['X', '-1.5'],
      ['Y', '-2'],
      ['Z', '0'],
    ] as const)
      fireEvent.change(screen.getByLabelText(`${axis} at the second home, in`), { target: { value: at } })
    fireEvent.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => expect(standing().secondHome).toEqual({ X: -1.5, Y: -2, Z: 0 }))
  })
})
