import { act, renderHook } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'

/** A page that was just opened on the tablet. */
async function openPage() {
  vi.resetModules()
  const place = await import('./place.ts')
  const { result } = renderHook(() => place.useLoss())
  return {
    ...place,
    loss: () => result.current,
    tell: (logbook: string, seq: number, asked = performance.now()) =>
      act(() => place.notePlace({ logbook, seq }, asked)),
  }
}
beforeEach(() => localStorage.clear())

describe('how far the logbook of the server goes', () => {
  it('is no loss while it grows', async () => {
    const { tell, loss } = await openPage()
    for (const seq of [0, 3, 3, 12]) tell('A', seq)
    expect(loss()).toBeUndefined()
  })

  it('is a loss when it goes less far than this tablet has seen, over a reload as well, until it has caught up', async () => {
    const first = await openPage()
    first.tell('A', 12)
    first.tell('A', 9)
    expect(first.loss()).toEqual({ seen: { logbook: 'A', seq: 12 }, has: { logbook: 'A', seq: 9 } })
    const { tell, loss } = await openPage()
    expect(loss()).toBeUndefined()
    tell('A', 10)
    expect(loss()?.has.seq).toBe(10)
    tell('A', 12)
    expect(loss()).toBeUndefined()
  })

  it('is a loss when it is another logbook, until somebody says that it is right so', async () => {
    const { tell, loss, acceptLoss } = await openPage()
    tell('A', 12)
    tell('B', 40)
    expect(loss()?.has).toEqual({ logbook: 'B', seq: 40 })
    act(acceptLoss)
    expect(loss()).toBeUndefined()
    tell('B', 40)
    expect(loss()).toBeUndefined()
  })

  it('is none when a shop of one’s own comes after the demo; the demo in the place of a shop is one', async () => {
    const first = await openPage()
    const { result } = renderHook(() => first.useIsDemo())
    expect(result.current).toBe(false)
    first.tell('demo-A', 40)
    expect(result.current).toBe(true)
    first.tell('B', 2)
    expect(first.loss()).toBeUndefined()
    expect(result.current).toBe(false)
    const { tell, loss } = await openPage()
    tell('demo-A', 40)
    expect(loss()).toEqual({ seen: { logbook: 'B', seq: 2 }, has: { logbook: 'demo-A', seq: 40 } })
    // Of two demos as of any two: somebody may have removed the file.
    localStorage.clear()
    const demos = await openPage()
    demos.tell('demo-A', 40)
    demos.tell('demo-C', 50)
    expect(demos.loss()?.has.logbook).toBe('demo-C')
  })

  it('is none by an answer that another has overtaken', async () => {
    const { tell, loss } = await openPage()
    const asked = performance.now() - 50
    tell('A', 12)
    tell('A', 11, asked)
    expect(loss()).toBeUndefined()
  })

  it.each([
    undefined,
    null,
    'A',
    {},
    { logbook: 'A' },
    { logbook: '', seq: 1 },
    { logbook: 'A', seq: -1 },
    { logbook: 'A', seq: 1.5 },
  ])('is nothing that an answer without it says: %j', async (told) => {
    const { tell, loss, notePlace } = await openPage()
    tell('A', 5)
    act(() => notePlace(told, performance.now()))
    expect(loss()).toBeUndefined()
  })
})
