import { monotonicFactory } from 'ulid'
import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { type Machine, readyListOf } from '../machine/index.ts'
import { asTyped } from '../quantity/index.ts'
import { judgeHome, overrideAdvice, RUNS } from '../ready/index.ts'
import { deriveReady, type Entry } from './index.ts'

const [mill, lathe] = demoReference.machines as [Machine, Machine]
const nextId = monotonicFactory(() => 0.5)
const HOUR = 3_600_000
const start = Date.UTC(2026, 10, 23, 6)

/** A log of a machine, with the hour at which each thing happened. */
function logOf(
  ...lines: [hour: number, by: string, body: Record<string, unknown> & { kind: Entry['kind'] }][]
) {
  const setup = nextId(start)
  return lines.map(([hour, by, body]) => {
    const at = start + hour * HOUR
    return { id: nextId(at), setup, at: new Date(at).toISOString(), by, ...body } as Entry
  })
}
const list = readyListOf(mill)
type Line = Parameters<typeof logOf>[number]
const all = (hour: number, by: string) =>
  list.map(({ id: item, says }): Line => [hour, by, { kind: 'ticked', list: 'ready', item, says }])
const home = (hour: number, X = 0): Line => [
  hour,
  'RT',
  { kind: 'homed', shown: { X: asTyped(X, 'inch'), Y: asTyped(0, 'inch'), Z: asTyped(0, 'inch') } },
]
const at = (hour: number, operator: string | undefined, entries: readonly Entry[], machine = mill) =>
  deriveReady({ machine, entries, now: start + hour * HOUR, ...(operator ? { operator } : {}) })
const due = (hour: number, operator: string | undefined, entries: readonly Entry[]) =>
  Object.fromEntries(
    at(hour, operator, entries).lines.flatMap(({ item, due }) => (due ? [[item.id, due]] : [])),
  )

describe('the walk-round (common practice)', () => {
  it('is due again after a weekend, not after a night', () => {
    const log = logOf(...all(0, 'RT'), home(0.1))
    expect(due(15, 'RT', log)).toEqual({})
    expect(due(62, 'RT', log)).toMatchObject({
      loose: 'ticked before the machine stood for 62 hours',
      'warm-up': 'ticked before the machine stood for 62 hours',
    })
    expect(at(62, 'RT', log).home?.freshness).toMatchObject({ state: 'stale' })
    // The pause counts even if somebody has been busy since.
    const later = [...log, ...logOf([62, 'RT', { kind: 'happened', what: 'part-reclamped', note: '' }])]
    expect(Object.keys(due(63, 'RT', later))).toHaveLength(list.length)
  })

  it('is due again for another person, and after another person was at the machine; powering up is not', () => {
    const log = logOf(...all(0, 'RT'))
    expect(due(1, 'MK', log)).toEqual(
      Object.fromEntries(
        list.filter(({ part }) => part === 'walk-round').map(({ id }) => [id, 'ticked by RT, not by you']),
      ),
    )
    const ran = [...log, ...logOf([1, 'MK', { kind: 'happened', what: 'part-reclamped', note: '' }])]
    expect(due(2, 'RT', ran).loose).toBe('ticked by RT before MK was at the machine')
    expect(due(2, 'RT', ran)['warm-up']).toBeUndefined()
    const wrote = [...log, ...logOf([1, 'MK', { kind: 'note', text: 'Ordered inserts.' }])]
    expect(due(2, 'RT', wrote)).toEqual({})
  })

  it('is due again after an alarm and after homing again, for all lines', () => {
    for (const what of ['alarm', 'homed-again'])
      expect(
        Object.keys(due(2, 'RT', logOf(...all(0, 'RT'), [1, 'RT', { kind: 'happened', what, note: '' }]))),
      ).toHaveLength(list.length)
  })

  it('a struck tick counts for nothing, and a line that was changed is due', () => {
    const log = logOf(...all(0, 'RT'))
    const strike = logOf([1, 'RT', { kind: 'struck', target: log[0]?.id, reason: 'wrong machine' }])
    expect(at(2, 'RT', [...log, ...strike]).lines[0]?.state).toBe('open')
    const readyList = list.map((item) =>
      item.id === 'loose' ? { ...item, says: 'Nothing loose, chip tray too' } : item,
    )
    const changed = at(1, 'RT', log, { ...mill, readyList })
    expect(changed.lines[0]).toMatchObject({
      state: 'stale',
      due: 'the line was changed since it was ticked',
    })
  })
})

describe('the note of the last shift', () => {
  const note = logOf([0, 'MK', { kind: 'note', text: 'T3 is dull.' }])
  const read = (by: string) => logOf([1, by, { kind: 'acknowledged', note: note[0]?.id }])
  it('waits for everybody but its writer until somebody else has acknowledged it', () => {
    const waits = (operator: string | undefined, entries: readonly Entry[]) =>
      at(2, operator, entries).notes[0]?.waits
    expect(waits('RT', note)).toBe(true)
    expect(waits(undefined, note)).toBe(true)
    expect(waits('MK', note)).toBe(false)
    expect(waits('RT', [...note, ...read('RT')])).toBe(false)
    expect(waits('RT', [...note, ...read('MK')])).toBe(true)
  })
})

describe('home positions', () => {
  const codes = (shown: Parameters<typeof judgeHome>[0], machine = mill) =>
    judgeHome(shown, machine, 'inch').map(({ code }) => code)
  const inch = (value: number) => asTyped(value, 'inch')
  it('may differ by two steps of the display, in any unit', () => {
    expect(codes({ X: inch(0.0002), Y: asTyped(0.005, 'mm'), Z: inch(0) })).toEqual([])
    expect(codes({ X: inch(-0.2), Y: inch(0), Z: inch(0) })).toEqual(['home-differs'])
    expect(codes({ X: inch(0.2), Y: inch(0), Z: inch(0) })).toEqual(['home-outside'])
    expect(codes({ X: inch(0), Z: inch(0) })).toEqual(['home-missing'])
    expect(codes({ X: inch(0), Z: inch(0) }, lathe)).toEqual([])
  })
})

describe('overrides (common practice: 25 % setting up, 5 % and single block on a first run)', () => {
  it('say what they mean on this machine', () => {
    expect(RUNS.map((run) => overrideAdvice(run, mill, 'inch').rapid)).toEqual([25, 5, 100])
    const first = overrideAdvice('first-run', mill, 'inch')
    // 1000 in/min at 5 % is 50 in/min: 50 / 60 in a second
    expect(first).toMatchObject({ singleBlock: true, inOneSecond: { axis: 'X' } })
    expect(first.inOneSecond?.length).toBeCloseTo(0.8333, 4)
    expect(overrideAdvice('first-run', { ...mill, rapids: null }, 'inch').inOneSecond).toBeUndefined()
  })
})
