import type { Entry } from '@dogleg/core/setup'
import { fireEvent, screen } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { setOperator } from '../log/operator.ts'
import { OperatorGate } from '../log/operator-gate.tsx'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, __: unknown) => ({ id: 'new' })))
vi.mock('../log/record.ts', () => ({ record: recorded }))

const { UprightPart } = await import('./upright-part.tsx')

const log = logOf(/first side/)
const fact = openSetup(log).setup.hold.upright
const show = (asked: boolean, of: readonly Entry[] = log) =>
  renderInSetup(
    <OperatorGate>
      <UprightPart asked={asked} fact={asked ? undefined : fact} />
    </OperatorGate>,
    of,
  )
const type = (label: RegExp | string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } })
const record = () => screen.getByRole('button', { name: 'Record the two readings' })

beforeEach(() => {
  recorded.mockClear()
  setOperator('RT')
})

describe('the two readings on a fixed jaw', () => {
  it('are asked for, worked out as they are typed, and recorded as they were typed', () => {
    show(true)
    expect(screen.getByText(/Once a day: does the fixed jaw stand upright/)).toBeTruthy()
    expect(record()).toHaveProperty('disabled', true)
    type('Up the face by', '1.2')
    type('Dial at the top', '.0004')
    type('Part, how high', '1.8')
    type('On top, clamped', '-.0002')
    // The angle of the stylus is that of the last sweep: 10 degrees.
    expect(screen.getByTestId('lean').textContent).toContain('0.0006')
    expect(screen.getByTestId('lift').textContent).toContain('-0.0002')
    expect(screen.getByText('|0.0004| / 1.2000 x 1.8000 x 0.9848')).toBeTruthy()
    fireEvent.click(record())
    expect(recorded).toHaveBeenCalledWith(
      log[0]?.setup,
      expect.objectContaining({
        kind: 'upright',
        up: { text: '.0004', value: 0.0004, unit: 'inch' },
        stylusAngle: 10,
        machine: expect.objectContaining({ id: 'mill-1' }),
      }),
    )
    // The form is that of the next.
    expect(screen.getByLabelText('Dial at the top')).toHaveProperty('value', '')
  })

  it('have the height of the part that is placed a press away, while nothing stands there', () => {
    // The demo's part is 1.1 high; how high it was read last stands in the form else.
    show(
      true,
      log.filter(({ kind }) => kind !== 'upright'),
    )
    const take = () => screen.queryByRole('button', { name: /^Take the height of the part/ })
    expect(screen.getByLabelText('Part, how high')).toHaveProperty('value', '')
    fireEvent.click(take() as HTMLElement)
    expect(screen.getByLabelText('Part, how high')).toHaveProperty('value', '1.1000')
    expect(take()).toBeNull()
  })

  it('say what is the matter, and what to do', () => {
    show(true)
    type('Up the face by', '1')
    type('Dial at the top', '.002')
    type('Part, how high', '1')
    type('On top, clamped', '.003')
    expect(screen.getByText(/leans over the part by 0\.0020 in/)).toBeTruthy()
    expect(screen.getByText(/rises by 0\.0030 in as the part is clamped/)).toBeTruthy()
    type('Up the face by', '0')
    expect(screen.getAllByText(/must be more than zero/).length).toBeGreaterThan(0)
    expect(record()).toHaveProperty('disabled', true)
  })

  it('stand there with who read them, folded away, once they were taken', () => {
    show(false)
    expect(screen.queryByText(/Once a day/)).toBeNull()
    expect(screen.getByText('yes')).toBeTruthy()
    expect(screen.getAllByRole('group')[0]).toHaveProperty('open', false)
    expect(screen.getByTestId('lean').textContent).toContain('0.0002')
    expect(screen.getByText(/RT/)).toBeTruthy()
  })

  it('are no yes once the vise was moved', () => {
    const first = log[0]
    if (!first) throw new Error('the demo has no log')
    const { id, setup } = first
    const at = new Date(Date.parse(log.at(-1)?.at ?? first.at) + 60_000).toISOString()
    const moved: Entry[] = [
      ...log,
      { id: `${id.slice(0, -1)}Z`, setup, at, by: 'RT', kind: 'happened', what: 'vise-moved', note: '' },
    ]
    const now = openSetup(moved).setup.hold.upright
    renderInSetup(<UprightPart asked={false} fact={now} />, moved)
    expect(screen.queryByText('yes')).toBeNull()
    expect(screen.getAllByText(/read before the vise was moved/).length).toBeGreaterThan(0)
  })
})

it('the readings stand open where they no longer hold: they are what is next', () => {
  const last = log.at(-1) as Entry
  const moved: Entry = {
    id: '01KZ0000000000000000000000',
    setup: last.setup,
    at: '2026-11-24T09:29:00.000Z',
    by: 'RT',
    kind: 'happened',
    what: 'vise-moved',
    note: '',
  }
  const shown = (of: readonly Entry[]) => {
    const { hold } = openSetup(of).setup
    const { container, unmount } = renderInSetup(
      <OperatorGate>
        <UprightPart asked={false} fact={hold.upright} />
      </OperatorGate>,
      of,
    )
    const open = container.querySelector('details')?.open
    unmount()
    return open
  }
  expect([shown(log), shown([...log, moved])]).toEqual([false, true])
})
