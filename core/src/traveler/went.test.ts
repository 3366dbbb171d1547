import { differenceInSeconds } from 'date-fns'
import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { demoLogs } from '../demo/testing.ts'
import type { Entry } from '../setup/index.ts'
import { add, edge, happened, opened, pickup, start, strike } from '../setup/testing.ts'
import { setupOf } from './testing.ts'
import { wentOf, wentSchema } from './went.ts'

const MINUTE = 60_000
/** Entries at so many minutes after the opening. */
const at = (...entries: [minute: number, entry: Entry][]): Entry[] => [
  { ...opened, at: new Date(start).toISOString() },
  ...entries.map(([minute, entry]) => ({ ...entry, at: new Date(start + minute * MINUTE).toISOString() })),
]
const went = (log: readonly Entry[]) => {
  const told = wentOf(setupOf(log), demoReference)
  expect(wentSchema.parse(told)).toEqual(told)
  return told
}
const timed = (seconds: number) =>
  add('timed', {
    title: 'Housing',
    hash: 'a'.repeat(64),
    reckoned: { cutting: 60, rapid: 0, toolChange: 0, dwell: 0, spindle: 0, tappingOut: 0, probing: 0 },
    seconds,
    doubt: 1,
    cycles: 1,
    how: 'typed',
    machine: { id: 'mill-1', version: 1 },
    profile: { id: 'compact', version: 1 },
  })

describe('how a setup went', () => {
  it('took the time until parts were run, of which pauses over half an hour are no work', () => {
    const x = () => pickup(edge('X', -14))
    const setting: [number, Entry][] = [
      [10, x()],
      [40, x()],
      [160, x()],
    ]
    expect(went(at()).took).toEqual({ to: 'last', seconds: 0, atIt: 0 })
    expect(went(at(...setting)).took).toEqual({ to: 'last', seconds: 9600, atIt: 2400 })
    const run = went(at(...setting, [180, timed(84)], [400, timed(81.5)], [410, x()]))
    expect(run.took).toEqual({ to: 'running', seconds: 10_800, atIt: 3600 })
    expect(run.cycle).toBe(81.5)
    const slip = timed(90)
    const struck = went(at(...setting, [180, slip], [181, strike(slip.id)], [190, x()]))
    expect(struck.took).toEqual({ to: 'last', seconds: 11_400, atIt: 4200 })
    expect(struck.cycle).toBeUndefined()
  })

  it('says what was off and what was noted, in its own words, and nothing twice', () => {
    const slip = pickup(edge('X', -14))
    const strikeOfNote = add('note', { text: 'wrong' })
    const told = went(
      at(
        [1, slip],
        [2, { ...strike(slip.id), by: 'MK' }],
        [3, { ...add('happened', { what: 'alarm', note: 'way lube' }), by: 'JS' }],
        [4, add('note', { text: 'Burr on the stop.' })],
        [5, add('handed-over', { note: 'Second side next.', stale: [], open: [], left: [] })],
        [6, add('handed-over', { note: '', stale: [], open: [], left: [] })],
        [7, strikeOfNote],
        [8, strike(strikeOfNote.id)],
        [9, happened('set-up-again')],
      ),
    )
    expect(told.people).toEqual(['RT', 'MK', 'JS'])
    expect(told.off.lines).toMatchObject([
      { by: 'MK', says: expect.stringMatching(/^Struck out: .*G54/), detail: 'slip' },
      { by: 'JS', says: 'Alarm, cleared without homing', detail: 'way lube' },
      { by: 'RT', says: 'Struck out: Note', detail: 'slip' },
    ])
    expect(told.noted.lines).toMatchObject([
      { says: 'Burr on the stop.', detail: '' },
      { says: 'Handed over', detail: 'Second side next.' },
    ])
  })

  it('tells the last lines of many, and how many there were before', () => {
    const told = went(
      at(...Array.from({ length: 45 }, (_, n): [number, Entry] => [n, add('note', { text: `${n}` })])),
    )
    expect(told.noted.more).toBe(15)
    expect(told.noted.lines.map(({ says }) => says)).toEqual(
      Array.from({ length: 30 }, (_, n) => `${n + 15}`),
    )
  })

  it('says of each setup of the demo what its log says', () => {
    const { logs } = demoLogs(Date.UTC(2026, 10, 26, 9, 30))
    let [measured, off] = [0, 0]
    for (const log of logs.values()) {
      if (log[0]?.kind !== 'opened') continue
      const told = went(log)
      const last =
        log
          .map((entry) => entry.at)
          .sort()
          .at(-1) ?? ''
      if (told.took.to === 'last')
        expect(Math.floor(told.took.seconds)).toBe(differenceInSeconds(last, told.at))
      expect(told.took.atIt).toBeLessThanOrEqual(told.took.seconds)
      measured += told.parts?.measured ?? 0
      off += told.off.lines.length
      expect(told.noted.lines.length).toBe(
        log.filter((entry) => entry.kind === 'note' || (entry.kind === 'handed-over' && entry.note)).length,
      )
    }
    const all = [...logs.values()].flat()
    const parts = all.flatMap((entry) => (entry.kind === 'gauged' ? entry.parts : []))
    const notCounted = all.filter((entry) => entry.kind === 'settled' && entry.did === 'not-counted')
    expect(measured).toBe(parts.length - notCounted.length)
    expect(off).toBeGreaterThan(0)
  })
})
