import { act, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { monotonicFactory } from 'ulid'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { signingServer } from '../testing/signing.ts'

const ulid = monotonicFactory()
let server: ReturnType<typeof signingServer>
beforeEach(() => {
  vi.useFakeTimers({ now: Date.UTC(2026, 11, 2, 8) })
  server = signingServer()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function openPage() {
  vi.resetModules()
  const [sign, outbox, { operator }, { Delivery }] = await Promise.all([
    import('../people/sign.ts'),
    import('../log/outbox.ts'),
    import('../log/operator.ts'),
    import('./delivery.tsx'),
  ])
  outbox.startOutbox(() => undefined)
  render(<Delivery />, { wrapper: MemoryRouter })
  const record = (text: string) => {
    const id = ulid()
    const at = new Date().toISOString()
    act(() => outbox.post({ id, setup: id, at, by: operator(), kind: 'note', text } as never))
  }
  return { ...sign, record }
}
const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))
const told = () => screen.getByRole('status').textContent

describe('what waits on this tablet', () => {
  it('is silent of what is taken at once, and tells of what is not', async () => {
    const page = await openPage()
    await act(() => page.askSession())
    await act(() => page.signIn('KM', '1973'))
    page.record('one')
    await pass(10)
    expect(told()).toBe('')
    server.away = true
    page.record('two')
    await pass(10)
    expect(told()).toContain('1 entry is kept on this tablet until the server answers')
    server.away = false
    await pass(5000)
    expect(told()).toBe('')
  })

  it('is told while the server has not heard the PIN under which it was made, also in the first moment', async () => {
    const page = await openPage()
    await act(() => page.askSession())
    server.away = true
    await act(() => page.signIn('KM', '1973'))
    page.record('one')
    await pass(10)
    expect(told()).toContain('until the server answers')
    // It is back, and has other things to do first.
    server.away = false
    server.trouble = true
    await act(() => page.askSession())
    await pass(10)
    expect(told()).toContain('1 entry is kept on this tablet until the server takes it')
    server.trouble = false
    await pass(10_000)
    expect(told()).toBe('')
  })
})
