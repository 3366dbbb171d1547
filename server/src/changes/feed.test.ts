import { afterEach, describe, expect, it, vi } from 'vitest'
import { changeFeed, type Told } from './feed.ts'

afterEach(() => vi.useRealTimers())

/** A feed on a logbook that may be further than has been told. */
function feedOn(start: number) {
  const log = { seq: start, stamp: 1 }
  const feed = changeFeed(
    async () => ({
      place: { logbook: 'log', seq: log.seq },
      stamp: log.stamp,
      time: '2026-11-24T09:00:00.000Z',
    }),
    start,
  )
  const heard: Told[] = []
  const listener = { tell: (told: Told) => void heard.push(told), close: vi.fn() }
  return { feed, log, heard, listener }
}
const settled = () => new Promise((resolve) => setTimeout(resolve))

describe('what a tablet goes on from', () => {
  it('is never past what it was told, however far the logbook is by then', async () => {
    const { feed, log, heard, listener } = feedOn(10)
    // Two are written before the first of them is told.
    log.seq = 12
    const { stands } = await feed.listen(listener)
    expect(stands).toMatchObject({ changed: { place: { seq: 12 } }, upTo: 10 })
    feed.changed([{ id: 'one' }], 11)
    await settled()
    feed.changed([{ id: 'two' }], 12)
    await settled()
    expect(heard.map(({ changed, upTo }) => [changed.setups[0]?.id, upTo])).toEqual([
      ['one', 11],
      ['two', 12],
    ])
    // A row is no entry; a file may be anything.
    log.stamp = 2
    feed.rowChanged()
    log.seq = 40
    feed.allChanged()
    await settled()
    expect(heard.slice(2).map(({ changed, upTo }) => [changed.stamp, changed.all, upTo])).toEqual([
      [2, undefined, 12],
      [2, true, 40],
    ])
    feed.end()
    expect(listener.close).toHaveBeenCalledOnce()
  })

  it('stays while nothing changes: a beat says that it still listens', async () => {
    vi.useFakeTimers()
    const { feed, log, heard, listener } = feedOn(5)
    const { off } = await feed.listen(listener)
    log.seq = 6
    await vi.advanceTimersByTimeAsync(15_000)
    expect(heard).toMatchObject([{ changed: { setups: [], place: { seq: 6 } }, upTo: 5 }])
    off()
    await vi.advanceTimersByTimeAsync(60_000)
    expect(heard).toHaveLength(1)
    feed.end()
  })
})
