import { bracketAlone } from '@dogleg/core/demo'
import type { Entry } from '@dogleg/core/setup'
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { afterAll, beforeEach, expect, it, vi } from 'vitest'
import { logOf, renderInSetup } from '../../testing/shop.tsx'

vi.mock('../../ui/save-file.ts', () => ({ saveFile: vi.fn() }))
vi.mock('../../log/record.ts', async (real) => ({ ...(await real<object>()), record: vi.fn() }))
// Modules outlive a file of tests: with those of another file this would download for good, and the page would go there.
vi.resetModules()
const { AtControl } = await import('./at-control.tsx')
const { setOperator } = await import('../../log/operator.ts')
const { OperatorGate } = await import('../../log/operator-gate.tsx')
const { record } = await import('../../log/record.ts')
afterAll(() => vi.resetModules())

const TITLE = 'O5501 first operation'
/** The pallets run what was proved: each program by itself. */
const planned = logOf(/both operations/).map((entry): Entry => {
  if (entry.kind !== 'palleted') return entry
  const pallets = entry.plan.pallets.map((each) => ({
    ...each,
    program: { ...each.program, text: bracketAlone(each.program.text) },
  }))
  return { ...entry, verdict: 'look', plan: { ...entry.plan, pallets } }
})
const pallets = planned.find((entry) => entry.kind === 'palleted')
const runs = pallets?.plan.pallets.find(({ program }) => program.title === TITLE)?.program.text ?? ''
const takenAs = (text: string): Entry[] => {
  if (!pallets) throw new Error('the demo has no pallets')
  const { id, setup, at, by, machine, profile } = pallets
  const of = { kind: 'program', what: 'coded', offset: 'G54', title: TITLE, how: 'copied' } as const
  return [...planned, { id: `${id}Z`, setup, at, by, machine, profile, ...of, rests: [], text }]
}

beforeEach(() => {
  setOperator('RT')
  vi.mocked(record).mockClear()
})

it('says nothing where nothing was taken, or what was taken is what the pallets run', () => {
  for (const log of [planned, takenAs(runs)]) {
    const { unmount } = renderInSetup(<AtControl />, log)
    expect(screen.queryByText(/is another text than pallet/)).toBeNull()
    unmount()
  }
})

it('another text at the control is named, and the one that the pallets run can be taken there', async () => {
  renderInSetup(
    <OperatorGate>
      <AtControl />
    </OperatorGate>,
    takenAs(`${runs}\n(ANOTHER)`),
  )
  expect(screen.getByText(/is another text than pallet 1 runs/).textContent).toContain(TITLE)
  fireEvent.click(screen.getByRole('button', { name: 'Download .nc' }))
  await waitFor(() => expect(record).toHaveBeenCalledTimes(1))
  expect(vi.mocked(record).mock.calls[0]?.[1]).toMatchObject({ kind: 'program', title: TITLE, text: runs })
})
