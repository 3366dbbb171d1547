import { act, fireEvent, screen } from '@testing-library/react'
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fakeServer, logOf, renderInSetup } from '../testing/shop.tsx'

const recorded = vi.hoisted(() => vi.fn((_: string, __: unknown) => ({ id: 'new' })))
vi.mock('../log/record.ts', async (original) => ({
  ...(await original<typeof import('../log/record.ts')>()),
  record: recorded,
}))
const given = vi.hoisted(() => vi.fn())
vi.mock('../ui/save-file.ts', () => ({ saveFile: given }))
vi.mock('../ui/clipboard.ts', async (original) => ({
  ...(await original<typeof import('../ui/clipboard.ts')>()),
  copyText: given,
}))
vi.mock('../prove/use-program.ts', async (original) => ({
  ...(await original<typeof import('../prove/use-program.ts')>()),
  keepProgram: given,
}))
// Modules outlive a file of tests: those that were made with what stands in for recording end with this one.
vi.resetModules()
const { CodeStep } = await import('./code-step.tsx')
const { setOperator } = await import('../log/operator.ts')
const { OperatorGate } = await import('../log/operator-gate.tsx')

/** The page draws only when it is told to. */
const frames = new Map<number, FrameRequestCallback>()
let asked = 0
const paint = () =>
  act(async () => {
    const now = [...frames.values()]
    frames.clear()
    for (const draw of now) draw(0)
    await new Promise((resolve) => setTimeout(resolve, 5))
  })

beforeEach(() => {
  frames.clear()
  recorded.mockClear()
  given.mockClear()
  setOperator('RT')
  fakeServer({})
  vi.stubGlobal('requestAnimationFrame', (draw: FrameRequestCallback) => {
    frames.set(++asked, draw)
    return asked
  })
  vi.stubGlobal('cancelAnimationFrame', (id: number) => frames.delete(id))
  Element.prototype.scrollIntoView ??= () => undefined
})
afterEach(() => vi.unstubAllGlobals())
afterAll(() => vi.resetModules())

const show = async () => {
  renderInSetup(
    <OperatorGate>
      <CodeStep />
    </OperatorGate>,
    logOf(/first side/),
  )
  fireEvent.click(screen.getByLabelText('whole program'))
  await paint()
}
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label)
const code = () => screen.getByRole('region', { name: 'Program text' }).textContent
const type = (label: string, value: string) => fireEvent.change(field(label), { target: { value } })
const list = () => screen.getByRole('region', { name: 'Cycles of the program' })

describe('the Code step', () => {
  it('answers a key in its field, and follows it once that has been drawn', async () => {
    await show()
    const before = code()
    const cycles = list().innerHTML
    type('Tap drill', '.3125')
    expect(field('Tap drill').value).toBe('.3125')
    expect(code()).toBe(before)
    type('Tap drill', '')
    type('Name', 'Other holes')
    expect(field('Name').value).toBe('Other holes')
    expect(list().innerHTML).toBe(cycles)
    await paint()
    expect(code()).not.toBe(before)
    expect(code()).toContain('OTHER HOLES')
  })

  it('loses nothing of two fields that are typed into before it follows', async () => {
    await show()
    type('Tap drill', '.2723')
    type('O', '4711')
    type('Name', 'Both')
    await paint()
    expect([field('Tap drill').value, field('O').value, field('Name').value]).toEqual([
      '.2723',
      '4711',
      'Both',
    ])
    expect(code()).toContain('BOTH')
  })

  it('records what was typed, however short a time ago, and never what stood there before', async () => {
    await show()
    type('Name', 'Renamed')
    const key = () => screen.getByRole('button', { name: 'Record the program' })
    fireEvent.pointerDown(key())
    fireEvent.click(key())
    expect(recorded).toHaveBeenCalledOnce()
    expect(recorded.mock.calls[0]?.[1]).toMatchObject({ kind: 'coded', sheet: { title: 'Renamed' } })
  })

  it.each(['Record the program', 'Prove it', 'Copy', /Download/])(
    'takes nothing of what stood there before by a press on %s that nothing came before',
    async (name) => {
      await show()
      type('Name', 'Renamed')
      fireEvent.click(screen.getByRole('button', { name }))
      await act(async () => undefined)
      expect(recorded).not.toHaveBeenCalled()
      expect(given).not.toHaveBeenCalled()
    },
  )

  it('has a field that a key asks for at once: Enter finds it', async () => {
    await show()
    fireEvent.click(screen.getByRole('button', { name: 'Wrapped' }))
    await paint()
    const lengths = () => screen.queryAllByLabelText('that long')
    expect(lengths()).toHaveLength(0)
    type('A longer one every', '5')
    expect(lengths()).toHaveLength(1)
    type('The longest every', '10')
    expect(lengths()).toHaveLength(2)
    field('The longest every').focus()
    fireEvent.keyDown(field('The longest every'), { key: 'Enter' })
    expect(document.activeElement).toBe(lengths()[1])
  })

  it('has a cycle that is added, copied or moved at once, with what was typed before', async () => {
    await show()
    type('Tap drill', '.2723')
    fireEvent.click(screen.getByRole('button', { name: 'Copy the cycle' }))
    expect(list().querySelectorAll('li')).toHaveLength(2)
    expect(field('Tap drill').value).toBe('.2723')
    const pressed = () =>
      [...list().querySelectorAll('li button')].map((each) => each.getAttribute('aria-pressed'))
    expect(pressed()).toEqual(['false', 'true'])
    fireEvent.click(screen.getByRole('button', { name: 'Earlier' }))
    expect(pressed()).toEqual(['true', 'false'])
    fireEvent.click(screen.getByRole('button', { name: 'Take the cycle out' }))
    expect(list().querySelectorAll('li')).toHaveLength(1)
    fireEvent.click(screen.getByRole('button', { name: 'Engraving' }))
    expect(pressed()).toEqual(['false', 'true'])
    expect(field('The text').value).toBe('')
  })
})
