import { act, screen, waitFor } from '@testing-library/react'
import { useLocation } from 'react-router'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { logOf, renderInSetup } from '../testing/shop.tsx'
import { get, kept, set } from '../testing/tablet-store.ts'
import { QUIETLY } from '../traveler/address.ts'
import { useAskedProgram } from './use-asked-program.ts'
import type { OpenProgram } from './use-program.ts'

const log = logOf(/first side/)
const setup = log[0]?.setup ?? ''
const opened = vi.fn((_: OpenProgram) => undefined)
const told = vi.fn((_: string) => undefined)
let asked: ReturnType<typeof useAskedProgram>

function Asking({ standing }: { standing: OpenProgram | null }) {
  asked = useAskedProgram('Housing, tapped holes', standing, opened, told)
  return <p>{useLocation().search || 'nothing asked'}</p>
}
const show = (standing: OpenProgram | null = null) => renderInSetup(<Asking standing={standing} />, log)
const ask = (title: string) => act(async () => asked.open(title))

beforeEach(() => {
  kept.clear()
  opened.mockClear()
  told.mockClear()
})

describe('a program that the address asks for', () => {
  it('is opened as Code writes it, once, and the address forgets it', async () => {
    show()
    await ask('Housing, tapped holes')
    await waitFor(() => expect(opened).toHaveBeenCalledTimes(1))
    const [next] = opened.mock.calls[0] ?? []
    expect(next).toMatchObject({ title: 'Housing, tapped holes', text: expect.stringContaining('G98 G84') })
    expect(asked.text).toBe(next?.text)
    expect(screen.getByText('nothing asked')).toBeTruthy()
    // It can be written again: another may take its place unasked.
    expect(await get(`handed.${setup}`)).toBe(next?.text)
  })

  it('is the text that was proved where Code has none of that name', async () => {
    show()
    await ask('O5410 first side')
    await waitFor(() => expect(opened).toHaveBeenCalled())
    expect(opened.mock.calls[0]?.[0].text).toContain('O5410')
  })

  it('is the text that a pallet runs, where that is the one which no proof is of', async () => {
    const pallets = logOf(/both operations/).map((entry) =>
      entry.kind === 'palleted'
        ? {
            ...entry,
            verdict: 'look' as const,
            plan: {
              ...entry.plan,
              pallets: entry.plan.pallets.map(({ program, ...rest }) => ({
                ...rest,
                program: { ...program, text: program.text.replace('M30', 'M99') },
              })),
            },
          }
        : entry,
    )
    renderInSetup(<Asking standing={null} />, pallets)
    await ask('O5502 second operation')
    await waitFor(() => expect(opened).toHaveBeenCalled())
    const [next] = opened.mock.calls[0] ?? []
    expect(next?.text).toContain('O5502')
    expect(next?.text).toContain('M99')
  })

  it('takes the place of a text that is kept nowhere else only when somebody says so', async () => {
    const typed = { title: 'by hand', text: 'G0 X1.' }
    await set(`program.${setup}`, typed)
    show(typed as OpenProgram)
    await ask('Housing, tapped holes')
    await waitFor(() => expect(asked.replacing?.standing).toBe('by hand'))
    expect(opened).not.toHaveBeenCalled()
    act(() => asked.replace(false))
    expect(opened).not.toHaveBeenCalled()
    await ask('Housing, tapped holes')
    await waitFor(() => expect(asked.replacing).toBeDefined())
    act(() => asked.replace(true))
    expect(opened).toHaveBeenCalledTimes(1)
    expect(asked.replacing).toBeUndefined()
  })

  it('leaves such a text alone, without a question, where nobody asked for it by its name', async () => {
    const typed = { title: 'by hand', text: 'G0 X1.' }
    await set(`program.${setup}`, typed)
    renderInSetup(<Asking standing={typed as OpenProgram} />, log, {
      search: '?program=Housing, tapped holes',
      state: QUIETLY,
    })
    await waitFor(() => expect(screen.getByText('nothing asked')).toBeTruthy())
    await act(async () => undefined)
    expect([asked.replacing, opened.mock.calls]).toEqual([undefined, []])
  })

  it('that nobody knows is said, and leads nowhere', async () => {
    show()
    await ask('O9999')
    await waitFor(() => expect(told).toHaveBeenCalledWith('No text of O9999 is kept here: open its file.'))
    expect(opened).not.toHaveBeenCalled()
  })
})
