import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { FakeWorker } from '../testing/shop.tsx'
import { useAsked } from './use-asked.ts'

interface Question {
  about: string
}

/** Questions on their way, each with what answers it. */
const under: { question: Question; tell: (share: number) => void; answer: (text: string) => void }[] = []
const ask = (_: unknown, question: Question, tell: (share: number) => void) =>
  new Promise<string>((answer) => under.push({ question, tell, answer }))
const make = () => new FakeWorker() as unknown as Worker

const asking = (first: Question | undefined) =>
  renderHook(({ question }) => useAsked<Question, unknown, string>(question, make, ask), {
    initialProps: { question: first },
  })

/** Lets the pause after a change pass. */
const wait = (ms = 300) => act(() => vi.advanceTimersByTimeAsync(ms))

beforeEach(() => {
  vi.useFakeTimers()
  FakeWorker.made = []
  under.length = 0
})
afterEach(() => {
  vi.useRealTimers()
})

const SPEED = { about: 'speed' }
const FEED = { about: 'feed' }

describe('what a worker is asked', () => {
  it('is answered after a pause, with how far it is meanwhile, and its worker ends', async () => {
    const { result } = asking(SPEED)
    await wait(299)
    expect(FakeWorker.made).toHaveLength(0)
    await wait(1)
    expect(result.current).toMatchObject({ answer: undefined, share: 0, failed: undefined, stopped: false })
    await act(async () => under[0]?.tell(0.4))
    expect(result.current.share).toBe(0.4)
    await act(async () => under[0]?.answer('fast enough'))
    expect(result.current).toMatchObject({ answer: 'fast enough', last: 'fast enough', share: undefined })
    expect(FakeWorker.made.map(({ terminated }) => terminated)).toEqual([true])
  })

  it('is nothing where there is no question', async () => {
    const { result } = asking(undefined)
    await wait(1000)
    expect(FakeWorker.made).toHaveLength(0)
    expect(result.current).toMatchObject({ answer: undefined, share: undefined, failed: undefined })
  })

  it('is asked once for what is typed in one go', async () => {
    const { rerender } = asking({ about: '1' })
    for (const about of ['1.', '1.5', '1.55']) {
      await wait(100)
      rerender({ question: { about } })
    }
    await wait()
    expect(under.map(({ question }) => question.about)).toEqual(['1.55'])
  })

  it('never has the answer of another question: the last one is shown as the last', async () => {
    const { result, rerender } = asking(SPEED)
    await wait()
    await act(async () => under[0]?.answer('of the speed'))
    rerender({ question: FEED })
    expect(result.current).toMatchObject({ answer: undefined, last: 'of the speed' })
    await wait()
    // A third question before the second was answered: what comes late counts for nothing.
    rerender({ question: SPEED })
    await act(async () => under[1]?.answer('of the feed, late'))
    expect(result.current).toMatchObject({ answer: 'of the speed', last: 'of the speed' })
    expect(FakeWorker.made[1]?.terminated).toBe(true)
  })

  it('stops at once, stays stopped until it is asked again, and is then answered', async () => {
    const { result, rerender } = asking(SPEED)
    await wait()
    act(() => result.current.stop())
    expect(result.current).toMatchObject({ stopped: true, share: undefined })
    expect(FakeWorker.made[0]?.terminated).toBe(true)
    rerender({ question: SPEED })
    await wait(1000)
    expect(FakeWorker.made).toHaveLength(1)
    act(() => result.current.again())
    await wait()
    await act(async () => under[1]?.answer('after all'))
    expect(result.current).toMatchObject({ stopped: false, answer: 'after all' })
  })

  it('says that it failed where the worker ends by itself, and is tried again when asked', async () => {
    const { result } = asking(SPEED)
    await wait()
    await act(async () => FakeWorker.made[0]?.end())
    expect(result.current).toMatchObject({ failed: 'broke', share: undefined, answer: undefined })
    expect(FakeWorker.made[0]?.terminated).toBe(true)
    act(() => result.current.again())
    await wait()
    expect(result.current.failed).toBeUndefined()
    await act(async () => under[1]?.answer('now'))
    expect(result.current).toMatchObject({ failed: undefined, answer: 'now' })
  })

  it('ends with the page that asked', async () => {
    const { unmount } = asking(SPEED)
    await wait()
    unmount()
    expect(FakeWorker.made.map(({ terminated }) => terminated)).toEqual([true])
  })
})
