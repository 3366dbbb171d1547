import { act, fireEvent, render, screen } from '@testing-library/react'
import { type ReactNode, useState } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Round } from '../testing/shop.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { PositionEntry, TakeAll, TouchListEntry, TurnedEntry } from './position-entry.tsx'
import { PositionContext, type PositionSource } from './use-positions.ts'

const MILL: PositionSource = { id: 'mill-1', of: 'machine', name: 'Mill 1', unit: 'inch', leastStep: 0.0001 }
const READ = {
  unit: 'inch',
  positions: { X: 1, Y: 2, Z: -3.25 },
  since: {},
  rotary: { degrees: 90, since: '' },
  name: 'Mill 1',
  readAt: '2026-11-30T08:00:00.000Z',
  notes: [],
}

/** Answers to the questions that are under way, when they come. */
let waiting: (() => void)[]
beforeEach(() => {
  waiting = []
  vi.stubGlobal(
    'fetch',
    () => new Promise<Response>((answer) => waiting.push(() => answer(Response.json(READ)))),
  )
})
afterEach(() => vi.unstubAllGlobals())
const answersCome = () =>
  act(async () => {
    for (const come of waiting.splice(0)) come()
    await new Promise((resolve) => setTimeout(resolve, 0))
  })

interface Draft {
  taken: string
  length: string
}

/** A form as the panels have them: one draft of several fields, each changed over it as it stands. */
function Form({ entry }: { entry: (draft: Draft, change: (draft: Draft) => void) => ReactNode }) {
  const [draft, change] = useState<Draft>({ taken: '', length: '' })
  const named = { hint: '', understood: undefined }
  return (
    <>
      {entry(draft, change)}
      <TextEntry
        {...named}
        label="Length"
        value={draft.length}
        onChange={(length) => change({ ...draft, length })}
      />
      <output>{JSON.stringify(draft)}</output>
    </>
  )
}
const drafted = () => JSON.parse(screen.getByRole('status').textContent ?? '') as Draft

describe('a position that is taken by a key', () => {
  it.each<[string, string, (draft: Draft, change: (draft: Draft) => void) => ReactNode]>([
    [
      'of one axis',
      '-3.2500',
      (draft, change) => (
        <PositionEntry
          axis="Z"
          unit="inch"
          label="Z"
          hint=""
          understood={undefined}
          value={draft.taken}
          onChange={(taken) => change({ ...draft, taken })}
        />
      ),
    ],
    [
      'of a rotary',
      '90',
      (draft, change) => (
        <TurnedEntry
          word="A"
          label="A"
          hint=""
          understood={undefined}
          value={draft.taken}
          onChange={(taken) => change({ ...draft, taken })}
        />
      ),
    ],
    [
      'of all axes',
      '1.0000',
      (draft, change) => <TakeAll unit="inch" onTake={({ X = '' }) => change({ ...draft, taken: X })} />,
    ],
    [
      'of a touch in a list',
      '1.0000 2.0000',
      (draft, change) => (
        <TouchListEntry
          unit="inch"
          label="Touches"
          rows={3}
          hint=""
          understood={undefined}
          value={draft.taken}
          onChange={(taken) => change({ ...draft, taken })}
        />
      ),
    ],
  ])('takes nothing away that is typed elsewhere until it is there: %s', async (_which, taken, entry) => {
    render(
      <Round>
        <PositionContext value={MILL}>
          <Form entry={entry} />
        </PositionContext>
      </Round>,
    )
    await answersCome()
    fireEvent.click(screen.getByRole('button', { name: /^Take position .* from Mill 1/ }))
    // The network is slow, and the hands are not.
    fireEvent.change(screen.getByLabelText('Length'), { target: { value: '4.1234' } })
    expect(drafted()).toEqual({ taken: '', length: '4.1234' })
    await answersCome()
    expect(drafted()).toEqual({ taken, length: '4.1234' })
  })
})
