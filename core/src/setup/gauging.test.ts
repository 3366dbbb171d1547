import { describe, expect, it } from 'vitest'
import { demoReference, measuredHousings } from '../demo/index.ts'
import { featureOf, planOf } from '../gauge/testing.ts'
import { partLabel, reportedParts, seriesDrift, toMiddle, valueSeries } from './gauging.ts'
import type { Entry, EntryOf } from './kinds.ts'
import { add, derive, edge, happened, inch, pickup, strike } from './testing.ts'
import { faultOf } from './testing-read.ts'
import { whatIf } from './what-if.ts'

const bore = (more: object = {}) =>
  planOf([
    featureOf('bore', 'BORE', {
      nominal: '1',
      tolerance: '.001',
      x: '1',
      y: '1',
      tool: '7',
      react: 'wear',
      ...more,
    }),
  ])
const rows = { profile: { id: 'compact', version: 1 }, machine: { id: 'mill-1', version: 1 } }
const gauging = (rests: string[], plan = bore()) => add('gauging', { offset: 'G54', plan, rests, ...rows })
const gauged = (revision: string, values: readonly number[], more: Partial<EntryOf<'gauged'>> = {}) =>
  add('gauged', {
    plan: 'Test',
    rests: [revision],
    unit: 'inch',
    came: 'pasted',
    parts: values.map((value, index) => ({ label: String(index + 1), values: { BORE: value } })),
    ...more,
  })
const settled = (of: Entry, part: number, did: EntryOf<'settled'>['did'] = 'scrapped') =>
  add('settled', { gauged: of.id, part, label: String(part + 1), did, note: 'seen' })
const x = pickup(edge('X', -10))
const plan = gauging([x.id])
const gauge = (...entries: Entry[]) => derive([x, plan, ...entries], demoReference).gauge

describe('measured parts', () => {
  it('wait for a word when they are out of tolerance, and not for longer', () => {
    const parts = gauged(plan.id, [1.0002, 1.0015, 0.999])
    const open = gauge(parts)
    expect(open.series[0]?.parts.map(({ out, open: waits }) => [out.length, waits])).toEqual([
      [0, false],
      [1, true],
      [0, false],
    ])
    const done = gauge(parts, settled(parts, 1))
    expect(done.series[0] && reportedParts(done.series[0])[1]).toMatchObject({
      out: ['BORE'],
      done: 'scrapped',
      note: 'seen',
    })
    expect(gauge(parts, settled(parts, 1), strike(parts.id)).series[0]?.parts).toEqual([])
  })

  it('are judged by the revision of the plan that they were measured by', () => {
    const later = gauging([x.id], bore({ tolerance: '.0001' }))
    const state = gauge(gauged(plan.id, [1.0005]), later, gauged(later.id, [1.0005]))
    expect(state.series[0]?.parts.map(({ out }) => out)).toEqual([[], ['BORE']])
    expect(state.plans).toHaveLength(1)
  })

  it('stay when what the plan rests on goes stale, and are turned into the unit of the setup', () => {
    const parts = gauged(plan.id, [25.4], { unit: 'mm' })
    const state = gauge(parts, happened('vise-moved'))
    expect(state.plans[0]?.freshness).toMatchObject({ cause: { says: 'composed before the vise was moved' } })
    expect(state.series[0]?.parts[0]?.values).toEqual({ BORE: 1 })
    expect(whatIf([...derivedFrom(), parts], happened('vise-moved'), demoReference)).toContain(
      'The gauging of Test goes stale.',
    )
  })

  it('are charted without those that do not count, from the last correction on', () => {
    const { profile } = derive([], demoReference)
    const parts = gauged(plan.id, [1, 1.0001, 1.01, 1.0002, 1.0003])
    const corrected = add('corrected', {
      plan: 'Test',
      key: 'BORE',
      gauged: parts.id,
      part: 1,
      label: '2',
      tool: 7,
      amount: inch(-0.0002),
      note: '',
    })
    const [series] = gauge(parts, settled(parts, 2, 'not-counted'), corrected).series
    const value = series && valueSeries(series, 'BORE', 'G54', { profile })
    expect(value?.values).toEqual([1, 1.0001, 1.0002, 1.0003])
    expect(value?.corrections).toEqual([2])
    expect(value?.since).toBe(2)
    if (!value) return
    expect([0, 3, 4, 10].map((index) => partLabel(value, index))).toEqual(['1', '5', '6', '12'])
    expect(toMiddle(value)).toBeCloseTo(-0.0003, 9)
    // Two parts since it was corrected by hand: too few for a drift.
    expect(seriesDrift(value)).toBeUndefined()
  })

  it('show the tool’s own wear where the program corrects it (the demo’s cutter closes by 0.000012 a part)', () => {
    const { profile } = derive([], demoReference)
    const parts = measuredHousings().map(({ label, values, corrected }) => ({
      label,
      values: { BORE: values.BORE ?? 0 },
      ...(corrected ? { corrected } : {}),
    }))
    const [series] = gauge(gauged(plan.id, [], { parts })).series
    const value = series && valueSeries(series, 'BORE', 'G54', { profile })
    expect(value?.corrections.length).toBeGreaterThan(20)
    const drift = value && seriesDrift(value)
    // The part with the chip counts here: it is one of 200.
    expect(drift?.slope).toBeCloseTo(-0.000_012, 5)
  })
})

const derivedFrom = () => {
  const setup = derive([x, plan], demoReference)
  return setup.log.map(({ entry }) => entry)
}

describe('what can be kept', () => {
  it.each<[string, object, boolean]>([
    ['a part without a value', { parts: [{ label: '1', values: {} }] }, false],
    ['no part', { parts: [] }, false],
    ['a part without a name', { parts: [{ label: ' ', values: { BORE: 1 } }] }, false],
    ['a value that is no number', { parts: [{ label: '1', values: { BORE: Number.NaN } }] }, false],
    [
      'two thousand and one parts',
      { parts: Array.from({ length: 2001 }, () => ({ label: '1', values: { BORE: 1 } })) },
      false,
    ],
    ['a part', { parts: [{ label: '1', values: { BORE: 1 } }] }, true],
  ])('%s', (_, more, ok) => expect(faultOf({ ...gauged(plan.id, [1]), ...more }) === undefined).toBe(ok))
  it('nothing is let through, or left out of the chart, without a reason', () => {
    const parts = gauged(plan.id, [1.01])
    const without = { ...settled(parts, 0, 'let-through'), note: '' }
    expect(faultOf(without)).toBeDefined()
    expect(faultOf({ ...without, did: 'scrapped' })).toBeUndefined()
  })
})
