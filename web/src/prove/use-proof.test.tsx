import { act, renderHook } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { OperatorGate } from '../log/operator-gate.tsx'
import { FakeWorker, logOf, openSetup, Round } from '../testing/shop.tsx'
import { useProof } from './use-proof.ts'
import type { Drawing } from './view/drawing.ts'

const open = openSetup(logOf(/first side/))
const drawing = { show: () => Promise.resolve() } as unknown as Drawing
const begun = () => FakeWorker.made.length

beforeEach(() => {
  FakeWorker.made = []
  vi.useFakeTimers()
  vi.stubGlobal('Worker', FakeWorker)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const layout = { unit: 'inch' as const, bodies: [] }
const wrapper = ({ children }: { children: ReactNode }) => (
  <Round>
    <OperatorGate>{children}</OperatorGate>
  </Round>
)
const show = () =>
  renderHook(
    ({ text }: { text: string }) =>
      useProof({
        open,
        program: { title: 'Slot', text },
        frame: 'G54',
        layout,
        areaChanged: false,
        skipOptional: false,
        further: 1,
        drawing,
      }),
    { wrapper, initialProps: { text: 'G0 X1.' } },
  )
const pass = (ms: number) => act(async () => void (await vi.advanceTimersByTimeAsync(ms)))

describe('a program that is being proved', () => {
  it('is proved at once, and after a pause when it is changed', async () => {
    const { rerender } = show()
    await pass(1)
    expect(begun()).toBe(1)
    rerender({ text: 'G0 X2.' })
    await pass(100)
    expect(begun()).toBe(1)
    await pass(1000)
    expect(begun()).toBe(2)
  })

  it('stays stopped: what was about to be proved after the pause is not', async () => {
    const { result, rerender } = show()
    await pass(1)
    rerender({ text: 'G0 X2.' })
    await pass(100)
    act(() => result.current.stop())
    await pass(2000)
    expect([begun(), result.current.now.state]).toEqual([1, 'stopped'])
    // Until somebody asks for it.
    act(() => result.current.proveAgain())
    await pass(1)
    expect(begun()).toBe(2)
  })
})
