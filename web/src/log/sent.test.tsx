import type { Entry } from '@dogleg/core/setup'
import { beforeEach, describe, expect, it, vi } from 'vitest'

/** A page that was just opened on the tablet. */
async function openPage() {
  vi.resetModules()
  return import('./sent.ts')
}
const note = (n: number, text: string) =>
  ({ id: `01J${String(n).padStart(23, '0')}`, setup: 's', at: '', by: 'RT', kind: 'note', text }) as Entry

beforeEach(() => localStorage.clear())

describe('what a tablet keeps of what was acknowledged', () => {
  it('is there after a reload, the oldest first', async () => {
    const { keepSent } = await openPage()
    keepSent([note(2, 'two'), note(1, 'one')])
    expect((await openPage()).sentEntries()).toEqual([note(1, 'one'), note(2, 'two')])
  })

  it('never takes more than its share of the storage: the oldest goes first, one that is very long is not kept', async () => {
    const { keepSent, sentEntries } = await openPage()
    for (let n = 0; n < 40; n++) keepSent([note(n, 'x'.repeat(50_000))])
    keepSent([note(99, 'x'.repeat(200_000))])
    const kept = sentEntries()
    expect(kept.at(-1)?.id).toBe(note(39, '').id)
    expect(kept.length).toBeGreaterThan(15)
    expect(JSON.stringify(kept).length).toBeLessThan(1_000_000)
  })

  it('is let go for what is not acknowledged yet, and what cannot be read is passed over', async () => {
    const { keepSent, sentEntries, letGoOfSent } = await openPage()
    keepSent([note(1, 'one')])
    localStorage.setItem('dogleg.sent.bad', '{')
    expect(sentEntries()).toHaveLength(1)
    letGoOfSent()
    expect(sentEntries()).toEqual([])
  })
})
