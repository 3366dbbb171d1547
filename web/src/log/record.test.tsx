import type { Entry } from '@dogleg/core/setup'
import { afterAll, afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

const posted = vi.hoisted(() => [] as Entry[])
vi.mock('./outbox.ts', () => ({ post: (entry: Entry) => posted.push(entry) }))

// Modules outlive a file of tests: those that were made with what stands in for the outbox end with this one.
vi.resetModules()
const { asIfRecorded, record } = await import('./record.ts')
const { setOperator } = await import('./operator.ts')
const { SETTLE_MS } = await import('./settled.ts')

const setup = '01J00000000000000000000000'
const note = (text: string) => ({ kind: 'note', text }) as const

beforeEach(() => {
  vi.useFakeTimers()
  posted.length = 0
  setOperator('RT')
})
afterEach(() => vi.useRealTimers())
afterAll(() => vi.resetModules())

describe('a key that is tapped twice', () => {
  it('records once; a second later it is meant', () => {
    const first = record(setup, note('T3 is dull.'))
    vi.advanceTimersByTime(SETTLE_MS - 1)
    expect(record(setup, note('T3 is dull.'))).toBe(first)
    expect(posted).toHaveLength(1)
    vi.advanceTimersByTime(1)
    expect(record(setup, note('T3 is dull.')).id).not.toBe(first.id)
    expect(posted).toHaveLength(2)
  })

  it('is another key where it says something else, for another setup, or by another person', () => {
    record(setup, note('Ordered inserts.'))
    record(setup, note('T4 is dull.'))
    record('01J00000000000000000000001', note('T4 is dull.'))
    setOperator('MK')
    record('01J00000000000000000000001', note('T4 is dull.'))
    expect(posted.map(({ by }) => by)).toEqual(['RT', 'RT', 'RT', 'MK'])
  })
})

describe('an entry as if it were recorded, for what it would change', () => {
  it('comes after what this tablet has recorded, one after the other, and counts nothing', () => {
    const first = record(setup, note('T3 is dull.'))
    const [a, b] = [asIfRecorded(setup, note('a')), asIfRecorded(setup, note('b'), 1)]
    expect([a.clock?.tablet, b.clock?.tablet]).toEqual([first.clock?.tablet, first.clock?.tablet])
    expect([a.clock?.count, b.clock?.count]).toEqual([
      (first.clock?.count ?? 0) + 1,
      (first.clock?.count ?? 0) + 2,
    ])
    vi.advanceTimersByTime(SETTLE_MS)
    expect(record(setup, note('T4 is dull.')).clock?.count).toBe((first.clock?.count ?? 0) + 1)
    expect(posted).toHaveLength(2)
  })
})
