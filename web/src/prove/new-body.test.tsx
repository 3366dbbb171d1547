import type { Body, BodyRole } from '@dogleg/core/prove'
import { offsetOf } from '@dogleg/core/setup'
import { fireEvent, screen } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'
import { NewBody } from './new-body.tsx'

const log = logOf(/first side/)
const [opened] = log
const onPlace = vi.fn((_: Body[]) => undefined)
const onCancel = vi.fn()
const part: Body = {
  id: 'part',
  name: 'part',
  role: 'part',
  shape: 'box',
  at: { x: 0, y: -3.4, z: -1.1 },
  size: { x: 4.8, y: 3.4, z: 1.1 },
}

const show = (role: BodyRole, bodies: Body[] = [], of = log) => {
  onPlace.mockClear()
  const { setup } = openSetup(of)
  return renderInSetup(
    <NewBody
      role={role}
      name={role}
      offset={offsetOf(setup, 'G54')}
      bodies={bodies}
      onPlace={onPlace}
      onCancel={onCancel}
    />,
    of,
  )
}
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label)
const type = (label: string, value: string) => fireEvent.change(field(label), { target: { value } })
const key = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name })

describe('a part that is to be placed', () => {
  it('has no size that nobody typed, and its corner where zero was taken', () => {
    show('part')
    expect(key('Place it').disabled).toBe(true)
    for (const size of ['X long', 'Y long', 'Z high'])
      expect([field(size).value, field(size).placeholder]).toEqual(['', ''])
    type('X long', '4.8')
    type('Y long', '3.4')
    type('Z high', '1.1')
    expect(field('Y from').placeholder).not.toBe('')
    expect(screen.getByText(/^X of G54 was taken at its .* face; Y of G54/)).toBeTruthy()
    fireEvent.click(key('Place it'))
    const [[placed]] = onPlace.mock.calls[0] as [Body[]]
    expect(placed).toMatchObject({ role: 'part', shape: 'box', size: { x: 4.8, y: 3.4, z: 1.1 } })
    expect(placed?.at.z).toBeCloseTo(-1.1, 9)
  })

  it('lies where somebody types it before it lies where it is calculated', () => {
    show('part')
    for (const [label, value] of [
      ['X long', '4'],
      ['Y long', '3'],
      ['Z high', '1'],
      ['X from', '-2'],
      ['Y from', '1'],
      ['Z from', '-9'],
    ] as const)
      type(label, value)
    fireEvent.click(key('Place it'))
    expect(onPlace.mock.calls[0]?.[0]).toMatchObject([{ at: { x: -2, y: 1, z: -9 } }])
  })

  it('is not placed with a size of nothing, or one that is not understood', () => {
    show('part')
    for (const [label, value] of [
      ['X long', '0'],
      ['Y long', '3'],
      ['Z high', 'high'],
    ] as const)
      type(label, value)
    expect(screen.getByText('More than zero.')).toBeTruthy()
    expect(key('Place it').disabled).toBe(true)
  })

  it('knows nothing of where it lies in a setup whose zeros nobody took', () => {
    show('part', [], opened ? [opened] : [])
    for (const [label, value] of [
      ['X long', '4'],
      ['Y long', '3'],
      ['Z high', '1'],
    ] as const)
      type(label, value)
    expect(key('Place it').disabled).toBe(true)
    fireEvent.click(key('Not now'))
    expect(onCancel).toHaveBeenCalled()
  })
})

describe('the jaws of the vise', () => {
  it('are those of Hold, round the part, from two numbers', () => {
    show('vise', [part])
    expect(screen.getByText(/^The jaws of 160 mm vise, as in Hold/)).toBeTruthy()
    expect(key('Place the jaws').disabled).toBe(true)
    type('Part above the jaws', '.3')
    type('Left jaw end to part', '.75')
    fireEvent.click(key('Place the jaws'))
    const [jaws] = onPlace.mock.calls[0] as [Body[]]
    expect(jaws.map(({ name, role }) => `${role} ${name}`)).toEqual(['vise fixed jaw', 'vise moving jaw'])
    expect(new Set(jaws.map(({ id }) => id)).size).toBe(2)
    expect(jaws[0]?.at).toMatchObject({ x: -0.75, y: 0 })
  })

  it('are not placed round a part that the vise does not open to', () => {
    show('vise', [{ ...part, size: { x: 4, y: 12, z: 1 } } as Body])
    type('Part above the jaws', '.3')
    type('Left jaw end to part', '0')
    expect(screen.getByRole('alert').textContent).toContain('has no two jaws that open so far')
    expect(key('Place the jaws').disabled).toBe(true)
  })

  it('can be typed as a body, and are where no part is placed', () => {
    show('vise', [part])
    fireEvent.click(key('Type a body instead'))
    expect(key('Place it').disabled).toBe(true)
    expect(field('X long').placeholder).toBe('')
  })
})
