import { demoReference } from '@dogleg/core/demo'
import { type PlacedDraft, SAMPLE_VISES, type Vise } from '@dogleg/core/hold'
import { fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { logOf, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, __: unknown) => ({ id: 'new' })))
vi.mock('../log/record.ts', async (actual) => ({ ...(await actual<object>()), record: recorded }))

// Modules outlive a file of tests: those that were made with what stands in for recording end with this one.
vi.resetModules()
const { ClearPanel } = await import('./clear-panel.tsx')
const { SquarePanel } = await import('./square-panel.tsx')
const { setOperator } = await import('../log/operator.ts')
const { OperatorGate } = await import('../log/operator-gate.tsx')

const [opened] = logOf(/first side/)
const log = opened ? [opened] : []
const vise = demoReference.vises.find(({ id }) => id === 'vise-6') as Vise

const type = (label: RegExp | string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const key = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name })

beforeEach(() => {
  recorded.mockClear()
  localStorage.clear()
  setOperator('RT')
})
afterAll(() => vi.resetModules())

describe('the sweep of a jaw', () => {
  const show = (of: Vise | undefined) =>
    renderInSetup(
      <OperatorGate>
        <SquarePanel vise={of} onVise={() => undefined} />
      </OperatorGate>,
      log,
    )
  const sweep = (far: string) => {
    type('Bolt, from left end', '-1')
    type('Swept from', '.25')
    type('to', far)
    fireEvent.change(screen.getAllByLabelText('Dial reads')[1] as HTMLElement, { target: { value: '.0005' } })
  }

  it('is recorded with the vise whose jaw it is', () => {
    show(vise)
    sweep('5.75')
    fireEvent.click(key('Record the sweep'))
    expect(recorded).toHaveBeenCalledWith(
      opened?.setup,
      expect.objectContaining({ kind: 'swept', vise: { id: 'vise-6', version: 1 } }),
    )
  })

  it('is not recorded with a place off the jaw of that vise, and says so', () => {
    show(vise)
    sweep('57.5')
    expect(screen.getByText('The place 57.5000 lies off the jaw, which is 6.0000 in long.')).toBeTruthy()
    expect(key('Record the sweep').disabled).toBe(true)
    sweep('5.75')
    expect(key('Record the sweep').disabled).toBe(false)
  })

  it('is of no known length where the library has no vise', () => {
    show(undefined)
    sweep('11')
    expect(key('Record the sweep').disabled).toBe(false)
  })
})

function Clear({ of }: { of: Vise | undefined }) {
  const [draft, change] = useState<PlacedDraft>({
    vise: of?.id ?? '',
    jawAt: '',
    wanted: '1/4',
    lowestZ: '-12',
  })
  return <ClearPanel vise={of} draft={draft} change={change} />
}
describe('whether a vise clears', () => {
  const show = (of: Vise | undefined) =>
    renderInSetup(
      <OperatorGate>
        <Clear of={of} />
      </OperatorGate>,
      log,
    )
  const long: Vise = {
    ...vise,
    parts: vise.parts.map((part) =>
      part.name === 'handle'
        ? { ...part, open: { front: -25, back: -10 }, closed: { front: -25, back: -10 } }
        : part,
    ),
  }

  it('says that there is no place for it before anybody measures where it stands, and which others fit', () => {
    show(long)
    expect(screen.getByText(/^No safe position: the vise is .* too long\.$/)).toBeTruthy()
    expect(screen.getByRole('heading', { name: 'Vises of the library here' })).toBeTruthy()
    expect(key('Record the clearance').disabled).toBe(true)
  })

  it('says where the jaw may stand before it is typed, with the gap that is wanted', () => {
    show(vise)
    const says = () => screen.getByTestId('interval').textContent
    const before = says()
    expect(before).toMatch(/The fixed jaw may stand from .* to /)
    type('Must stay free at both ends', '1/2')
    expect(says()).not.toBe(before)
    type('Must stay free at both ends', 'x')
    expect(screen.queryByTestId('interval')).toBeNull()
  })

  it('is as the sample says for one that nobody measured, and not good', () => {
    show(SAMPLE_VISES[0] as Vise)
    expect(screen.getByText('As the sample says: nobody measured 6 in vise.')).toBeTruthy()
    type(/^Fixed jaw/, '10.5')
    expect(screen.getByText('As the sample says: nobody measured 6 in vise.')).toBeTruthy()
    expect(screen.queryByText('Good')).toBeNull()
    expect(screen.getAllByText('Check this').length).toBeGreaterThan(0)
  })

  it('is said of no vise before one is chosen, and nothing is recorded', () => {
    show(undefined)
    expect(screen.getByText(/^Choose the vise: where it may stand is told from its shape/)).toBeTruthy()
    expect(screen.getByRole('img', { name: 'An example: the vise is still to be chosen' })).toBeTruthy()
    expect(screen.queryByText(/^No safe position/)).toBeNull()
    expect(screen.queryByTestId('interval')).toBeNull()
    type(/^Fixed jaw/, '10.5')
    expect(key('Record the clearance').disabled).toBe(true)
    expect(screen.getByText('1 answer is still missing.')).toBeTruthy()
  })
})
