import papaparse from 'papaparse'
import { monotonicFactory } from 'ulid'
import { describe, expect, it } from 'vitest'
import { BRACKET_HASHES, demoReference } from '../demo/index.ts'
import { demoLogs, withGoodPallets } from '../demo/testing.ts'
import { programsOf } from '../prepare/index.ts'
import {
  acknowledgementOf,
  behindOnPallets,
  cyclesAShift,
  deriveReady,
  deriveSetup,
  describeEntry,
  type Entry,
  type EntryOf,
  handOverState,
  isUnreadable,
  KINDS,
  LOG_GROUPS,
  type Logged,
  lastHandedOver,
  logCsv,
  logMatches,
  machineCalibration,
  namesIn,
  palletsStand,
  repeatJob,
  type Setup,
  savedSoFar,
  textOnPallet,
  unprovedPallets,
} from './index.ts'
import { faultOf } from './testing-read.ts'

const now = Date.UTC(2026, 10, 26, 9, 30)
const { titled } = demoLogs(now)
const derive = (log: readonly Entry[]): Setup => {
  const setup = deriveSetup(log, demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}
const nextId = monotonicFactory(() => 0.5)
let minutes = 0
const after = (log: readonly Entry[], body: object, by = 'RT'): Entry => {
  minutes++
  const at = now + minutes * 60_000
  return { id: nextId(at), setup: log[0]?.setup, at: new Date(at).toISOString(), by, ...body } as Entry
}
const pallets = titled('both operations')
const housing = titled('first side')

const savedIn = (title: string, hash: string, text = 'G0') =>
  after(pallets, {
    kind: 'saved',
    title,
    code: 'x',
    line: 1,
    says: 'x',
    before: { hash, seconds: 9 },
    after: { hash: 'f'.repeat(64), seconds: 8 },
    verdict: 'good',
    text,
  })

describe('pallets, timing and savings in the log', () => {
  const planned = pallets.find(
    (each): each is EntryOf<'palleted'> => each.kind === 'palleted',
  ) as EntryOf<'palleted'>
  const start = (log: readonly Entry[], of: Partial<EntryOf<'start-checked'>> = {}) =>
    after(log, {
      kind: 'start-checked',
      inside: 1,
      loaded: 5501,
      interlock: true,
      rests: [planned.id],
      ...of,
    })

  it('the hashes of the demo are those of its texts', async () => {
    const { createHash } = await import('node:crypto')
    const texts = pallets.flatMap((each) => (each.kind === 'proved' ? [each] : []))
    expect(texts).toHaveLength(3)
    for (const { text = '', hash } of texts)
      expect(createHash('sha256').update(text).digest('hex')).toBe(hash)
    expect(Object.values(BRACKET_HASHES)).toEqual(expect.arrayContaining(texts.map(({ hash }) => hash)))
  })

  it('are planned, answered before the start, and go stale with what they rest on', () => {
    const { good, log } = withGoodPallets(pallets)
    const answered = [...log, start(log)]
    expect(derive(answered).run.start?.judgement.happens).toBe('runs')
    expect(derive([...log, start(log, { loaded: 5502 })]).run.start?.judgement.happens).not.toBe('runs')
    const state = (body: object) => {
      const { run } = derive([...answered, after(log, body)])
      return [run.pallets?.freshness.state, run.start?.freshness.state]
    }
    // An alarm leaves the zeros as they are; which pallet is inside must be looked at again (common practice).
    expect(state({ kind: 'happened', what: 'alarm', note: '' })).toEqual(['fresh', 'stale'])
    expect(state({ kind: 'happened', what: 'vise-moved', note: '' })).toEqual(['stale', 'stale'])
    expect(state({ kind: 'note', text: 'x' })).toEqual(['fresh', 'fresh'])
    expect(state({ ...good, id: undefined, ...{ kind: 'palleted' } })).toEqual(['fresh', 'stale'])
  })

  it('a saving makes the proof of its program stale, and no other', () => {
    const states = (title: string, hash: string) => {
      const saved = savedIn(title, hash)
      return derive([...pallets, saved]).prove.proofs.map(({ freshness }) => freshness.state)
    }
    expect(states('O5501 first operation', BRACKET_HASHES.firstSaved).sort()).toEqual(['fresh', 'stale'])
    // The pallet runs the text before it.
    const onPallet = savedIn('O5501 first operation', 'e'.repeat(64))
    expect(derive([...pallets, onPallet]).run.pallets?.freshness).toMatchObject({
      cause: { says: 'planned before time was saved in O5501 first operation' },
    })
    expect(states('Another', BRACKET_HASHES.first)).toEqual(['fresh', 'fresh'])
  })

  it('a pallet that is not proved to the letter is said', () => {
    const setup = derive(pallets)
    const { plan } = withGoodPallets(pallets).good
    expect(unprovedPallets(setup, plan)).toEqual([])
    // A call of the other program was not there when it was proved.
    expect(unprovedPallets(setup, planned.plan)).toHaveLength(2)
    const other = structuredClone(plan)
    if (other.pallets[1]) other.pallets[1].program.text += 'M99\n'
    expect(unprovedPallets(setup, other).map(({ where }) => where)).toEqual(['pallet 2'])
    const moved = derive([...pallets, after(pallets, { kind: 'happened', what: 'vise-moved', note: '' })])
    expect(unprovedPallets(moved, plan)).toHaveLength(2)
  })

  it('the text that a pallet runs is known by its name, until another stands under it or the plan does not hold', () => {
    const { log: good, good: recorded } = withGoodPallets(pallets)
    const title = 'O5502 second operation'
    const text = recorded.plan.pallets[1]?.program.text ?? ''
    const on = (...more: Entry[]) => textOnPallet(derive([...good, ...more]), title)
    expect(on()).toBe(text)
    expect(textOnPallet(derive(good), 'Another')).toBeUndefined()
    expect(textOnPallet(derive(pallets), title)).toBe(planned.verdict === 'stop' ? undefined : text)
    expect(on(after(good, { kind: 'happened', what: 'vise-moved', note: '' }))).toBeUndefined()
    const proof = good.find((entry) => entry.kind === 'proved' && entry.title === title) as EntryOf<'proved'>
    const { id: _, at: __, ...same } = proof
    const other = after(good, { ...same, text: 'G0 X1', rests: [] })
    expect(on(other)).toBeUndefined()
    expect(behindOnPallets(derive([...good, other]))).toEqual([title])
  })

  it('recorded pallets stand after a proof of what they run, and not where less is good or another runs', () => {
    const before = { ...planned, rests: [], verdict: 'look' as const }
    expect(palletsStand(before, { ...planned, rests: ['01PROOF'], verdict: 'good' })).toBe(true)
    expect(palletsStand(planned, planned)).toBe(true)
    expect(palletsStand({ ...planned, verdict: 'good' }, { ...planned, verdict: 'look' })).toBe(false)
    expect(palletsStand({ ...before, rests: ['01GONE'] }, { ...planned, rests: ['01PROOF'] })).toBe(false)
    const other = structuredClone(planned.plan)
    if (other.pallets[1]) other.pallets[1].program.text += 'M99\n'
    expect(palletsStand(before, { ...planned, plan: other })).toBe(false)
    expect(palletsStand(before, { ...before, machine: { ...before.machine, version: 2 } })).toBe(false)
  })

  it('every program whose text is in the log is there once, with its newest text', () => {
    const programs = programsOf(derive(pallets))
    expect(programs.map(({ title }) => title)).toEqual(['O5501 first operation', 'O5502 second operation'])
    expect(programs[0]?.text).toContain('J5.5')
    expect(programs.map(({ frame }) => frame)).toEqual(['G54', 'G55'])
    const newer = savedIn('O5502 second operation', 'e'.repeat(64), 'G0 X0')
    expect(programsOf(derive([...pallets, newer]))[1]).toMatchObject({ text: 'G0 X0', frame: 'G55' })
    const struck = after([...pallets, newer], { kind: 'struck', target: newer.id, reason: 'slip' })
    expect(programsOf(derive([...pallets, newer, struck]))[1]?.text).not.toBe('G0 X0')
    expect(programsOf(derive(housing)).map(({ title }) => title)).toEqual(['O5410 first side'])
  })

  it('savings taken one after the other come to what is between the first and the last', () => {
    const once = savedIn('X', 'e'.repeat(64))
    const taken = [
      once,
      {
        ...once,
        before: { hash: 'f'.repeat(64), seconds: 8 },
        after: { hash: 'd'.repeat(64), seconds: 6.5 },
      },
    ]
    expect(savedSoFar(taken.filter((each) => each.kind === 'saved'))).toBe(2.5)
    expect(savedSoFar([])).toBe(0)
  })

  it('cycles a shift come from the pallets, else from the program that was built', () => {
    // Rounds of 325 s and a first that is shorter, in eight hours: 88 or 89.
    expect(cyclesAShift(derive(pallets))).toBe(89)
    expect(cyclesAShift(derive(housing))).toBe(60)
    expect(cyclesAShift(derive(titled('second side')))).toBeUndefined()
  })

  it('timed cycles count for the machine as it was timed', () => {
    const setup = derive(pallets)
    const { calibration, counted, outdated } = machineCalibration(pallets, setup)
    expect([counted.length, outdated]).toEqual([2, 0])
    // Both took longer than computed.
    expect(calibration.factors.cutting).toBeGreaterThan(1)
    const edited = { ...setup, machine: { ...setup.machine, version: 2 } }
    expect(machineCalibration(pallets, edited)).toMatchObject({ outdated: 2, calibration: { runs: 0 } })
  })
})

describe('handing over', () => {
  const handed = (log: readonly Entry[]) =>
    after(log, {
      kind: 'handed-over',
      note: 'Tap is dull.',
      stale: [],
      open: [],
      left: [],
    }) as EntryOf<'handed-over'>

  it('is done until somebody works on it again, and waits for the next person', () => {
    const open = titled('second side')
    expect(handOverState(derive(open))).toBe('open')
    const note = handed(open)
    const log = [...open, note]
    expect(handOverState(derive(log))).toBe('done')
    expect(lastHandedOver(derive(log))?.id).toBe(note.id)
    const read = after(log, { kind: 'acknowledged', note: note.id }, 'MK')
    expect(handOverState(derive([...log, read]))).toBe('done')
    expect(acknowledgementOf(note, [...log, read])?.by).toBe('MK')
    expect(acknowledgementOf(note, [...log, { ...read, by: 'RT' }])).toBeUndefined()
    const setup = derive(log)
    const waits = (operator: string, more: Entry[] = []) =>
      deriveReady({ machine: setup.machine, entries: [...log, ...more], now, operator }).notes.find(
        (each) => each.entry.id === note.id,
      )?.waits
    expect([waits('RT'), waits('MK'), waits('MK', [read])]).toEqual([false, true, false])
    expect(handOverState(derive([...log, after(log, { kind: 'happened', what: 'alarm', note: '' })]))).toBe(
      'open',
    )
  })
})

describe('a job that is set up again', () => {
  const again = (log: readonly Entry[]) => {
    let n = 0
    const repeated = repeatJob(derive(log), {
      by: 'LB',
      at: new Date(now).toISOString(),
      nextId: () => nextId(now + ++n),
    })
    return { repeated, setup: derive(repeated) }
  }

  it('begins with everything that was measured stale, and the last values to be held against', () => {
    for (const log of [housing, pallets, titled('O-ring')]) {
      const { repeated, setup } = again(log)
      for (const each of repeated) expect(faultOf(each)).toBeUndefined()
      const before = derive(log)
      for (const offset of setup.offsets)
        for (const [axis, fact] of Object.entries(offset.axes)) {
          const last = before.offsets.find(({ name }) => name === offset.name)?.axes[axis as 'X']
          expect(fact.value).toBe(last?.value)
          expect(fact.freshness).toMatchObject({
            state: 'stale',
            cause: { says: 'taken before the job was set up again' },
          })
          expect(fact.entry.carried).toMatchObject({ by: last?.entry.by, at: last?.entry.at })
        }
      // What rests on it too; nobody has checked anything yet.
      expect(setup.prove.proofs.every(({ freshness }) => freshness.state === 'stale')).toBe(true)
      expect(setup.gauge.plans.every(({ freshness }) => freshness.state === 'stale')).toBe(true)
      expect(setup.offsets.every(({ check }) => check === undefined)).toBe(true)
      expect(setup.code.coded.map(({ entry: of }) => of.sheet)).toEqual(
        before.code.coded.map(({ entry: of }) => of.sheet),
      )
      expect(setup.opened.again).toBe(before.id)
      expect(setup.gauge.series.every(({ parts }) => parts.length === 0)).toBe(true)
    }
  })

  it('once more is told from the first maker, and what cannot be read gives nothing', () => {
    const { repeated } = again(housing)
    const twice = again(repeated)
    const first = twice.repeated.find((each) => each.kind === 'pickup')
    expect(first?.carried?.by).toBe('RT')
    expect(repeatJob({ unreadable: 'x', log: [] }, { by: 'LB', at: '', nextId: () => '' })).toEqual([])
  })
})

describe('the logbook', () => {
  const setup = derive(housing)
  const settings = { unit: 'inch' as const, leastStep: 0.0001 }
  const describe_ = (of: Logged) => describeEntry(of, settings, () => 'it', namesIn(demoReference))

  it('every kind of entry is in one group of the search', () => {
    for (const { kind, group } of KINDS) expect([kind, LOG_GROUPS.includes(group)]).toEqual([kind, true])
    // And no group is empty.
    expect(new Set(KINDS.map(({ group }) => group))).toEqual(new Set(LOG_GROUPS))
  })

  it('is searched by words, person, part and standing', () => {
    const found = (search: Parameters<typeof logMatches>[2]) =>
      setup.log
        .filter((line) => logMatches(line, describe_(line.entry), search))
        .map(({ entry: of }) => of.kind)
    expect(found({})).toHaveLength(setup.log.length)
    expect(found({ text: 'finder EDGE', group: 'zero' })).toEqual(['pickup', 'pickup', 'pickup'])
    expect(found({ standing: 'struck' })).toEqual(['pickup'])
    expect(found({ by: 'MK' })).toEqual([])
    expect(new Set(found({ group: 'hold' }))).toEqual(new Set(['swept', 'upright', 'cleared']))
  })

  it('leaves as a table that a spreadsheet reads, and runs nothing', () => {
    const note = after(housing, { kind: 'note', text: '=1+1, "quoted"\nnext line' })
    const lines = derive([...housing, note]).log
    const { data } = papaparse.parse<string[]>(logCsv(lines, describe_))
    expect(data).toHaveLength(lines.length + 1)
    expect(data.at(-1)?.[4]).toBe('\'=1+1, "quoted"\nnext line')
    expect(data.filter((row) => row[5] === 'struck out')).toHaveLength(1)
  })
})
