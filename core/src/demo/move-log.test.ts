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

  it('has other ids with another mark, in the same order, and each entry still names the same others', () => {
    const made = demoEntries(NOON, numbers())
    const marked = moveLog(made, 0, '0MARK999')
    const names = new Map(made.map(({ id }, index) => [id, marked[index]?.id]))
    expect(new Set(names.values()).size).toBe(made.length)
    expect(marked.some(({ id }) => names.has(id))).toBe(false)
    const order = (entries: readonly { id: string }[]) =>
      entries.map(({ id }, index) => ({ id, index })).sort((a, b) => (a.id < b.id ? -1 : 1))
    expect(order(marked).map(({ index }) => index)).toEqual(order(made).map(({ index }) => index))
    const renamed = JSON.stringify(made).replaceAll(
      /\b[0-7][0-9A-HJKMNP-TV-Z]{25}\b/g,
      (id) => names.get(id) ?? id,
    )
    expect(JSON.stringify(marked)).toBe(renamed)
  })
})
