import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { isUnread, NO_TIME } from '../log/index.ts'
import { handOverState, type Logged } from './index.ts'
import { add, derive, edge, happened, pickup, strike, zeros } from './testing.ts'

const away = (entries: readonly Logged[]) => derive(entries, demoReference).away?.id
const put = () => add('put-away', { away: true })
const back = () => add('put-away', { away: false })
const note = () => add('note', { text: 'chips' })

describe('a setup that is put away', () => {
  it('is put away until it is brought back, whichever of the two is struck out', () => {
    const log = Object.values(zeros())
    const [first, second, third] = [put(), back(), put()]
    expect(away(log)).toBeUndefined()
    expect(away([...log, first])).toBe(first.id)
    expect(away([...log, first, second])).toBeUndefined()
    expect(away([...log, first, second, third])).toBe(third.id)
    expect(away([...log, first, second, strike(second.id)])).toBe(first.id)
    expect(away([...log, first, strike(first.id)])).toBeUndefined()
  })

  it('comes back by itself once it is worked on, and not by what is no work', () => {
    const log = [...Object.values(zeros()), put()]
    const last = log.at(-1)?.id
    for (const said of [note(), add('handed-over', { note: '', stale: [], open: [], left: [] })])
      expect(away([...log, said])).toBe(last)
    for (const work of [pickup(edge('X', -13)), happened('alarm'), zeros().c])
      expect(away([...log, work])).toBeUndefined()
    const work = pickup(edge('X', -13))
    expect(away([...log, work])).toBeUndefined()
    expect(away([...log, work, strike(work.id)])).toBe(last)
  })

  it('is not, where it may have been worked on since: by another tablet, or by what cannot be read', () => {
    const log = Object.values(zeros())
    const heard = put()
    const day = (n: number) => new Date(Date.parse(heard.at) + n * 86_400_000).toISOString()
    const of = (tablet: string, n: number, latest: number) => ({
      clock: { tablet: tablet.padEnd(26, '0'), count: 1, heard: day(n), steady: 0 },
      received: day(latest),
      latest: day(latest),
    })
    const last = { ...heard, ...of('A', 4, 4) }
    const surely = { ...pickup(edge('X', -13)), ...of('B', 2, 3) }
    const maybe = { ...pickup(edge('Y', -13)), ...of('B', 2, 5) }
    expect(away([...log, last, surely])).toBe(heard.id)
    expect(away([...log, last, maybe])).toBeUndefined()
    const unread: Logged = {
      id: 'x',
      setup: heard.setup,
      at: NO_TIME,
      by: '',
      kind: 'unread',
      why: 'damaged',
      says: 'It cannot be read.',
      raw: '{',
    }
    expect(isUnread(unread)).toBe(true)
    expect(away([...log, heard, unread])).toBeUndefined()
  })

  it('stays handed over', () => {
    const log = [...Object.values(zeros()), add('handed-over', { note: '', stale: [], open: [], left: [] })]
    expect(handOverState(derive([...log, put()], demoReference))).toBe('done')
    expect(handOverState(derive([...log, put(), back()], demoReference))).toBe('done')
  })
})
