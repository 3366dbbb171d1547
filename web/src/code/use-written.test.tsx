import { newSheet, readSheet } from '@dogleg/core/code'
import { exampleTap, newTap } from '@dogleg/core/cycles/tapping'
import { demoReference } from '@dogleg/core/demo'
import { act, renderHook } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { FakeWorker, logOf, openSetup } from '../testing/shop.tsx'
import { useWritten } from './use-written.ts'

/** So many holes are written off the page. */
function plate(columns: number) {
  const params = {
    ...newTap('inch', false),
    ...exampleTap('inch'),
    pattern: 'grid' as const,
    count: String(columns),
    rows: '20',
    spacing: '.1',
    rowSpacing: '.1',
    chamferTool: '5',
    drillTool: '3',
    tapTool: '12',
  }
  const read = readSheet(
    { ...newSheet('Plate', 5400, 'aluminium'), items: [{ cycle: 'tap', id: 'a', off: false, params }] },
    'inch',
  )
  if (!read.ok) throw new Error(read.says)
  return read.sheet
}

const { setup } = openSetup(logOf(/first side/))
const write = (columns: number) =>
  renderHook(({ sheet }) => useWritten(setup, sheet, 'G54', demoReference), {
    initialProps: { sheet: plate(columns) },
  })

describe('a program that is written off the page', () => {
  beforeEach(() => {
    FakeWorker.made = []
    vi.stubGlobal('Worker', FakeWorker)
  })

  it('says so when its worker breaks, instead of writing for ever, and is written again when asked', async () => {
    const { result } = write(20)
    expect(result.current).toMatchObject({ busy: true, failed: undefined, written: undefined })
    await act(async () => FakeWorker.made[0]?.end())
    expect(result.current).toMatchObject({ busy: true, failed: 'broke' })
    expect(FakeWorker.made[0]?.terminated).toBe(true)
    await act(async () => result.current.again())
    expect(result.current).toMatchObject({ busy: true, failed: undefined })
    expect(FakeWorker.made).toHaveLength(2)
  })

  it('begins anew with a change, and what broke before is forgotten', async () => {
    const { result, rerender } = write(20)
    await act(async () => FakeWorker.made[0]?.end())
    rerender({ sheet: plate(21) })
    expect(result.current.failed).toBeUndefined()
    expect(FakeWorker.made).toHaveLength(2)
  })

  it('is written on the page where it is short', () => {
    const { result } = write(2)
    expect(FakeWorker.made).toHaveLength(0)
    expect(result.current).toMatchObject({ busy: false, failed: undefined })
    expect(result.current.written).toBeDefined()
  })
})
