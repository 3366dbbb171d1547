import { demoEntries } from '@dogleg/core/demo'
import type { Entry } from '@dogleg/core/setup'
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { acceptLoss, notePlace } from '../log/place.ts'
import { keepSent } from '../log/sent.ts'
import { fakeServer, Round } from '../testing/shop.tsx'
import { LossAlarm } from './loss-alarm.tsx'

const [first, second] = demoEntries(Date.UTC(2026, 10, 24), () => 0.5) as [Entry, Entry]
const later = () => performance.now() + 1

afterEach(() => {
  act(acceptLoss)
  vi.unstubAllGlobals()
})

describe('a server that has less than this tablet has seen', () => {
  const lose = () => {
    keepSent([first, second])
    render(
      <Round>
        <LossAlarm />
      </Round>,
    )
    act(() => {
      notePlace({ logbook: 'A', seq: 20 }, later())
      // Whatever another test of this browser saw before: this is its logbook.
      acceptLoss()
      notePlace({ logbook: 'A', seq: 3 }, later())
    })
  }

  it('is told at once, with what this tablet still holds', () => {
    lose()
    expect(screen.getByRole('alert').textContent).toMatch(
      /logbook ends at 3, this tablet has seen it up to 20.*still holds 2 entries/s,
    )
  })

  it('is given back what is held, and says what was missing and what was refused', async () => {
    const sent: string[][] = []
    fakeServer({
      'POST /api/entries': (body: unknown) => {
        const { entries } = body as { entries: Entry[] }
        sent.push(entries.map(({ id }) => id))
        return { added: 1, known: 1, place: { logbook: 'A', seq: 4 } }
      },
    })
    lose()
    fireEvent.click(screen.getByRole('button', { name: 'Give back what this tablet holds' }))
    await waitFor(() =>
      expect(screen.getByRole('alert').textContent).toMatch(
        /1 entry that the server did not have; 1 were there/,
      ),
    )
    expect(sent).toEqual([[first.id, second.id]])
  })

  it('is said where it does not answer, and can be tried again', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')))
    lose()
    fireEvent.click(screen.getByRole('button', { name: 'Give back what this tablet holds' }))
    await waitFor(() => expect(screen.getByRole('alert').textContent).toMatch(/does not answer/))
    expect(screen.getByRole('button', { name: 'Give back what this tablet holds' })).toHaveProperty(
      'disabled',
      false,
    )
  })

  it('is left alone once somebody says that it is right so', () => {
    lose()
    fireEvent.click(screen.getByRole('button', { name: 'It is right as the server has it' }))
    expect(screen.queryByRole('alert')).toBeNull()
  })
})
