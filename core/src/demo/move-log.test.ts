import { describe, expect, it } from 'vitest'
import { demoEntries, moveLog } from './index.ts'

/** Minutes. */
const DAY = 24 * 60
const NOON = Date.UTC(2026, 10, 20, 12)
/** The same numbers each time (Park and Miller's minimal standard). */
const numbers = () => {
  let state = 7
  return () => {
    state = (state * 16_807) % 2_147_483_647
    return state / 2_147_483_647
  }
}

describe('a log that is moved in time', () => {
  it('is the one that would have been made then, to the last id', () => {
    const made = demoEntries(NOON, numbers())
    // Over the end of winter time and of a leap year's February, and backwards.
    for (const by of [0, 1, DAY * 100 + 17, DAY * 460, -DAY * 40])
      expect(moveLog(made, by)).toEqual(demoEntries(NOON + by * 60_000, numbers()))
  })

  it('leaves what only looks like a time or an id', () => {
    const [first] = demoEntries(NOON, numbers())
    if (!first) throw new Error('the demo is empty')
    const text = 'Seen 2026-11-20, at 12:00; G154 P3; 01ABCDEFG; X-15.0000Z'
    const [moved] = moveLog([{ ...first, kind: 'note', text }], 90)
    expect(moved).toMatchObject({ text })
  })
})
