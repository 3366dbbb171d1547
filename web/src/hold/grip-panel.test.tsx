import type { GripDraft } from '@dogleg/core/hold'
import { startingGrip } from '@dogleg/core/prepare'
import { fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { OperatorGate } from '../log/operator-gate.tsx'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'
import { GripPanel } from './grip-panel.tsx'

const [opened] = logOf(/O-ring/)
const log = opened ? [opened] : []

function Grip({ collet }: { collet?: string }) {
  const [draft, change] = useState<GripDraft>({
    ...startingGrip(openSetup(log).setup),
    ...(collet ? { collet, stop: 'collet' } : {}),
  })
  return (
    <OperatorGate>
      <GripPanel draft={draft} change={change} />
    </OperatorGate>
  )
}
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
/** A bar of 1.25 in, and what is left to face. */
const typePart = () => {
  type('Diameter', '1.25')
  type('Bar diameter varies by, in all', '0')
  type('Stock left to face', '.05')
}
const key = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Record collet and stop' })

describe('collet and stop', () => {
  it('say that a bar does not go into the collet as soon as its diameter is typed, and are not recorded with it', () => {
    renderInSetup(<Grip collet="5c" />, log)
    const says = 'A bar of 1.2500 in does not go into 5C.'
    type('Diameter', '1.25')
    expect(screen.getByText(says)).toBeTruthy()
    type('Bar diameter varies by, in all', '0')
    type('Stock left to face', '.05')
    expect(screen.getByText(says)).toBeTruthy()
    expect(key().disabled).toBe(true)
    fireEvent.change(screen.getByLabelText('Collet or jaws'), { target: { value: '16c' } })
    expect(screen.queryByText(says)).toBeNull()
    expect(key().disabled).toBe(false)
  })

  it('are nobody’s choice before somebody chose: what is drawn is an example, and nothing is recorded', () => {
    renderInSetup(<Grip />, log)
    const example = () =>
      screen.queryByRole('img', { name: 'An example: collet and stop are still to be chosen' })
    expect(example()).not.toBeNull()
    expect(screen.queryByText('exact, from the cone')).toBeNull()
    typePart()
    expect(screen.getByText('2 answers are still missing.')).toBeTruthy()
    expect(key().disabled).toBe(true)
    fireEvent.change(screen.getByLabelText('Collet or jaws'), { target: { value: '16c' } })
    expect(screen.getByText('exact, from the cone')).toBeTruthy()
    expect(key().disabled).toBe(true)
    fireEvent.change(screen.getByLabelText('Stop'), { target: { value: 'draw-tube' } })
    expect(key().disabled).toBe(false)
    expect(example()).toBeNull()
  })

  it('are chosen again where the collet that was is in the library no more', () => {
    renderInSetup(<Grip collet="gone" />, log)
    typePart()
    expect(screen.getByText('1 answer is still missing.')).toBeTruthy()
    expect(key().disabled).toBe(true)
  })

  it('say where nobody entered which bars it takes', () => {
    renderInSetup(<Grip collet="three-jaw" />, log)
    typePart()
    expect(screen.getByText('Which bars Three-jaw chuck takes was not looked at.')).toBeTruthy()
    expect(key().disabled).toBe(true)
  })
})
