import { offsetOf } from '@dogleg/core/setup'
import { act, fireEvent, screen } from '@testing-library/react'
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, __: unknown) => ({ id: 'new' })))
vi.mock('../log/record.ts', () => ({ record: recorded, problemsOf: () => ({}) }))

// Modules outlive a file of tests: those that were made with what stands in for recording end with this one.
vi.resetModules()
const { CheckPanel } = await import('./check-panel.tsx')
const { setOperator } = await import('../log/operator.ts')
const { OperatorGate } = await import('../log/operator-gate.tsx')
const { noteRecorded, SETTLE_MS } = await import('../log/settled.ts')

const whole = logOf(/first side/)
const before = (kind: string) =>
  whole.slice(
    0,
    whole.findIndex((entry) => entry.kind === kind),
  )
const show = (log: typeof whole) => {
  const { setup } = openSetup(log)
  renderInSetup(
    <OperatorGate>
      <CheckPanel setup={setup} offset={offsetOf(setup, 'G54')} />
    </OperatorGate>,
    log,
  )
}
const key = () => screen.queryByRole('button', { name: 'It stands over part zero' })
const wait = (ms: number) => act(() => vi.advanceTimersByTime(ms))

beforeEach(() => {
  vi.useFakeTimers()
  recorded.mockClear()
  setOperator('RT')
})
afterEach(() => vi.useRealTimers())
afterAll(() => vi.resetModules())

describe('the key that says that it stands over part zero', () => {
  it('is not there before the program that goes there was taken, unless somebody went by hand', () => {
    show(before('program'))
    expect(key()).toBeNull()
    expect(screen.getByText('G54 has not been loaded yet.')).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Take the program that goes there' }).getAttribute('href')).toBe(
      '/program?offset=G54',
    )
    fireEvent.click(screen.getByRole('button', { name: 'It is keyed in, I went there by hand' }))
    // A hand that tapped that key twice has seen nothing.
    expect(key()).toHaveProperty('disabled', true)
    wait(SETTLE_MS + 1)
    fireEvent.click(key() as HTMLElement)
    expect(recorded).toHaveBeenCalledWith(
      whole[0]?.setup,
      expect.objectContaining({ kind: 'checked', result: 'agrees', byHand: true }),
    )
  })

  it('counts from when the program was taken, and not within a second of another entry', () => {
    show(before('checked'))
    wait(SETTLE_MS + 1)
    expect(key()).toHaveProperty('disabled', false)
    act(() => noteRecorded())
    expect(key()).toHaveProperty('disabled', true)
    wait(SETTLE_MS - 10)
    fireEvent.click(key() as HTMLElement)
    expect(recorded).not.toHaveBeenCalled()
    wait(20)
    fireEvent.click(key() as HTMLElement)
    const [, entry] = recorded.mock.calls[0] ?? []
    expect(entry).toMatchObject({ kind: 'checked', offset: 'G54', result: 'agrees' })
    expect(entry).not.toHaveProperty('byHand')
  })

  it('is not there before X and Y were taken', () => {
    show(before('pickup'))
    expect(screen.getByText('X and Y of G54 must be taken first.')).toBeTruthy()
    expect(key()).toBeNull()
    expect(screen.queryByRole('button', { name: /by hand/ })).toBeNull()
  })
})

describe('the length of the pointed tool', () => {
  it('is offered of the tools that were measured, and says where to stop with it', () => {
    show(before('checked'))
    const offered = screen.getAllByRole('button', { name: /^The tool is T/ })
    expect(offered.length).toBeGreaterThan(0)
    expect(screen.getByTestId('stop-at').textContent).toBe('Type the length to know where to stop Z.')
    const [first] = offered
    fireEvent.click(first as HTMLElement)
    const said = /, ([\d.]+) long$/.exec(first?.getAttribute('aria-label') ?? '')?.[1]
    expect(screen.getByLabelText<HTMLInputElement>('Length of the tool').value).toBe(said)
    expect(screen.getByTestId('stop-at').textContent).toMatch(/^Stop at machine Z -/)
    expect(screen.queryByRole('button', { name: /^The tool is T/ })).toBeNull()
  })

  it('is not offered where it is stale', () => {
    const log = before('checked')
    const tools = new Set(log.flatMap((entry) => (entry.kind === 'tool-length' ? [entry.tool] : [])))
    const last = log.at(-1) as (typeof log)[number]
    const again = [...tools].map((tool, n) => ({
      id: `01KZ${String(n).padStart(22, '0')}`,
      setup: last.setup,
      at: '2026-11-24T09:29:00.000Z',
      by: 'RT',
      kind: 'happened' as const,
      what: 'tool-measured-again' as const,
      tool,
      note: '',
    }))
    show([...log, ...again])
    expect(screen.queryByRole('button', { name: /^The tool is T/ })).toBeNull()
  })
})
