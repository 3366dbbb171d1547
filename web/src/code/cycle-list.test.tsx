import { type ItemDraft, MOST_ITEMS, newItem, newSheet, sheetDraft } from '@dogleg/core/code'
import { act, fireEvent, render, renderHook, screen, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import { logOf, openSetup } from '../testing/shop.tsx'
import { CycleList } from './cycle-list.tsx'
import { useSheets } from './use-sheets.ts'

const many = (count: number): ItemDraft[] =>
  Array.from({ length: count }, (_, n) => newItem('tap', `cycle-${n}`, 'inch', false))

function show(items: ItemDraft[], chosen = items[0]?.id) {
  const told = {
    onChoose: vi.fn(),
    onAdd: vi.fn(),
    onMove: vi.fn(),
    onCopy: vi.fn(),
    onOff: vi.fn(),
    onRemove: vi.fn(),
  }
  render(
    <CycleList
      items={items}
      written={[]}
      incomplete={['cycle-1']}
      chosen={chosen}
      cycles={['tap', 'engrave']}
      {...told}
    />,
  )
  return told
}
const key = (name: string) => screen.getByRole<HTMLButtonElement>('button', { name })

describe('the cycles of a program', () => {
  it('are in the order in which they run; the one in hand is moved, copied, switched off and taken out', () => {
    const told = show(many(3), 'cycle-1')
    expect(within(screen.getByRole('list')).getAllByRole('button', { pressed: true })).toHaveLength(1)
    expect(screen.getByRole('button', { pressed: true }).textContent).toContain('not complete')
    fireEvent.click(key('Earlier'))
    fireEvent.click(key('Later'))
    fireEvent.click(key('Copy the cycle'))
    fireEvent.click(screen.getByLabelText('in the program'))
    fireEvent.click(key('Take the cycle out'))
    expect(told.onMove.mock.calls).toEqual([
      ['cycle-1', -1],
      ['cycle-1', 1],
    ])
    expect(told.onCopy.mock.calls).toEqual([['cycle-1']])
    expect(told.onOff.mock.calls).toEqual([['cycle-1', true]])
    expect(told.onRemove.mock.calls).toEqual([['cycle-1']])
  })

  it('have no earlier than the first and no later than the last', () => {
    show(many(1))
    expect([key('Earlier').disabled, key('Later').disabled, key('Copy the cycle').disabled]).toEqual([
      true,
      true,
      false,
    ])
  })

  it('are added to, until there are as many as a program holds: then that is said in the place of the keys', () => {
    const told = show(many(MOST_ITEMS - 1))
    fireEvent.click(key('Engraving'))
    expect(told.onAdd.mock.calls).toEqual([['engrave']])
    show(many(MOST_ITEMS), 'cycle-5')
    screen.getByText(`A program holds ${MOST_ITEMS} cycles at most. Begin another one for more.`)
    expect(
      screen.getAllByRole<HTMLButtonElement>('button', { name: 'Copy the cycle' }).at(-1)?.disabled,
    ).toBe(true)
  })
})

describe('the programs that are being built on a tablet', () => {
  const { setup } = openSetup(logOf(/second side/))
  const kept = () => renderHook(() => useSheets(setup, []))

  it('begin with a new one, named after the setup, and each new one has a number of its own', () => {
    const { result } = kept()
    expect(result.current.programs.sheets).toHaveLength(1)
    expect(result.current.programs.sheet.title).toBe(setup.opened.title)
    act(() => result.current.changes.add())
    act(() => result.current.changes.add())
    expect(new Set(result.current.programs.sheets.map(({ number }) => number)).size).toBe(3)
    expect(result.current.programs.at).toBe(2)
  })

  it('begin with those of the logbook where it has some', () => {
    const first = openSetup(logOf(/first side/)).setup
    const { result } = renderHook(() => useSheets(first, []))
    expect(result.current.programs.sheets.map(({ title }) => title)).toEqual(
      first.code.coded.map(({ entry }) => entry.sheet.title),
    )
  })

  it('are all there after a reload, however many they are and however much stands in them', () => {
    const first = kept()
    for (let n = 0; n < 35; n++) act(() => first.result.current.changes.add())
    act(() => first.result.current.changes.change((of) => ({ ...of, items: many(MOST_ITEMS + 1) })))
    expect(sheetDraft.safeParse(first.result.current.programs.sheet).success).toBe(true)
    first.unmount()
    const again = kept()
    expect(again.result.current.programs.sheets).toHaveLength(36)
    expect(again.result.current.programs.sheet.items).toHaveLength(MOST_ITEMS + 1)
  })

  it('are put away one by one, and never all: a new one stands in the place of the last', () => {
    const { result } = kept()
    act(() => result.current.changes.take({ ...newSheet('Taken', 77, 'aluminium') }))
    expect(result.current.programs.sheet.title).toBe('Taken')
    act(() => result.current.changes.remove())
    act(() => result.current.changes.remove())
    expect(result.current.programs.sheets).toHaveLength(1)
    expect(result.current.programs.sheet.items).toEqual([])
    const { changes } = result.current
    act(() => changes.choose(40))
    // What changes them is the same all the time: the page round a field is not drawn again for it.
    expect(result.current.changes).toBe(changes)
    expect(result.current.programs.at).toBe(0)
  })
})
