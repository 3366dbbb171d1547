import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { createMemoryRouter, Link, Outlet, RouterProvider } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { routes } from './router.tsx'
import { view } from './view.tsx'

let broken = false
/** A step with a field, which fails when it is told to. */
function Step() {
  const [text, change] = useKept('failing-step', z.string(), () => '')
  const [, again] = useState(0)
  if (broken) throw new Error('a number that is none')
  return (
    <>
      <input aria-label="Reading" value={text} onChange={({ target }) => change(target.value)} />
      <button type="button" onClick={() => again(1)}>
        Compute
      </button>
    </>
  )
}
const Frame = () => (
  <>
    <nav>
      <Link to="/other">Other step</Link>
      <Link to="/step">Step</Link>
    </nav>
    <Outlet />
  </>
)

/** React says every error that a boundary takes; here they are meant. */
beforeEach(() => {
  broken = false
  vi.spyOn(console, 'error').mockImplementation(() => undefined)
})
afterEach(() => vi.restoreAllMocks())

const open = (load: () => Promise<typeof Step> = async () => Step) => {
  const router = createMemoryRouter(
    [
      {
        element: <Frame />,
        children: [view('step', load), view('other', async () => () => <p>The other step</p>)],
      },
    ],
    { initialEntries: ['/other'] },
  )
  render(<RouterProvider router={router} />)
  return screen.findByText('Step').then(fireEvent.click)
}

describe('a step that fails', () => {
  it('fails by itself: the other steps go on, and opened again it has what was typed', async () => {
    await open()
    fireEvent.change(await screen.findByLabelText('Reading'), { target: { value: '-9.2205' } })
    broken = true
    fireEvent.click(screen.getByText('Compute'))
    await screen.findByText('This part failed')
    expect(screen.getByText(/It says: a number that is none/)).toBeTruthy()
    fireEvent.click(screen.getByText('Other step'))
    await screen.findByText('The other step')
    fireEvent.click(screen.getByText('Step'))
    await screen.findByText('This part failed')
    broken = false
    fireEvent.click(screen.getByRole('button', { name: 'Open it again' }))
    expect(((await screen.findByLabelText('Reading')) as HTMLInputElement).value).toBe('-9.2205')
  })

  it('that could not be loaded says so, and is loaded when it is opened again', async () => {
    let away = true
    await open(async () => {
      if (away) throw new TypeError('Failed to fetch dynamically imported module: /assets/step.js')
      return Step
    })
    await screen.findByText('This part did not load')
    // The frame stands, and leads elsewhere and back.
    fireEvent.click(screen.getByText('Other step'))
    await screen.findByText('The other step')
    fireEvent.click(screen.getByText('Step'))
    await screen.findByText('This part did not load')
    expect(screen.queryByText(/It says/)).toBeNull()
    away = false
    fireEvent.click(screen.getByRole('button', { name: 'Open it again' }))
    await screen.findByLabelText('Reading')
  })

  it('has an error page of its own at every address', () => {
    const walk = (all: typeof routes): string[] =>
      all.flatMap(({ path, errorElement, children = [] }) => [
        ...(errorElement === undefined && path !== '*' ? [path ?? 'index'] : []),
        ...walk(children),
      ])
    expect(walk(routes)).toEqual([])
  })
})
