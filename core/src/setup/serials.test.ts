import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { compact, sheetOf, twoLine } from '../code/testing.ts'
import type { Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import { type Entry, type Logged, readEntry } from './kinds.ts'
import type { Reference } from './reference.ts'
import { againstSerials, serialList } from './serials.ts'
import { add, derive, strike } from './testing.ts'
import { faultOf } from './testing-read.ts'

const SERIES = 'HSG-####'
const numbered = (first: number, last = first, fate: 'engraved' | 'left-out' = 'engraved') =>
  add('numbered', { series: SERIES, first, last, fate, note: fate === 'left-out' ? 'scrapped' : '' })
const sheet = (serial: number, more: object = {}) =>
  sheetOf({ engrave: { text: SERIES, serial: String(serial), way: 'moves', ...more } })
const codes = (serial: number, entries: Logged[], more?: object) =>
  againstSerials(sheet(serial, more), entries).map(({ code, severity }) => `${severity} ${code}`)

describe('the list of serial numbers', () => {
  it('gives no number out twice, whatever order the entries come in and whatever was struck out', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 12 }),
        fc.array(fc.nat(11), { maxLength: 4 }),
        (numbers, struckAt) => {
          const given = numbers.map((number) => numbered(number))
          const struck = [...new Set(struckAt)].flatMap((at) => (given[at] ? [given[at]] : []))
          const entries = [...given, ...struck.map(({ id }) => strike(id))].reverse()
          const standing = new Set(
            numbers.filter((_, at) => !struck.includes(given[at] as Entry & { kind: 'numbered' })),
          )
          for (let number = 1; number <= 42; number++)
            expect(codes(number, entries).includes('stop serial-given')).toBe(standing.has(number))
          const { gaps, highest, twice } = serialList(entries, SERIES)
          expect(highest).toBe(standing.size > 0 ? Math.max(...standing) : undefined)
          expect(twice).toEqual([])
          // The gaps and the numbers given out are together all from the lowest to the highest, once each.
          const all = [
            ...standing,
            ...gaps.flatMap(({ first, last }) =>
              Array.from({ length: last - first + 1 }, (_, n) => first + n),
            ),
          ]
          if (standing.size > 0)
            expect(all.sort((a, b) => a - b)).toEqual(
              Array.from(
                { length: Math.max(...standing) - Math.min(...standing) + 1 },
                (_, n) => Math.min(...standing) + n,
              ),
            )
        },
      ),
      depth(150, 1500),
    )
  })
  it('names a gap, and takes it as explained once it is said why; steps are no gaps', () => {
    expect(codes(15, [numbered(12)])).toEqual(['look serial-gap'])
    expect(codes(15, [numbered(12), numbered(13, 14, 'left-out')])).toEqual([])
    expect(serialList([numbered(12), numbered(15)], SERIES).gaps).toEqual([{ first: 13, last: 14 }])
    expect(serialList([numbered(10), numbered(15)], SERIES, 5).gaps).toEqual([])
    expect(codes(15, [numbered(10)], { step: '5' })).toEqual([])
  })
  it('finds two parts with one number, and numbers of another series do not count', () => {
    expect(serialList([numbered(7), numbered(5, 8)], SERIES).twice).toEqual([{ first: 7, last: 7 }])
    expect(
      codes(7, [add('numbered', { series: 'TUBE-##', first: 7, last: 7, fate: 'engraved', note: '' })]),
    ).toEqual([])
  })
  it('says where it may lack a number: an entry that cannot be read, and was not struck out', () => {
    const lost = (kind: string, shape: unknown) => readEntry({ ...numbered(3), kind, shape })
    for (const unread of [
      lost('numbered', 2),
      lost('numbered', 'x'),
      lost('struck', 2),
      lost('scanned', 1),
    ]) {
      expect(codes(4, [numbered(3), unread])).toEqual(['look serials-unread'])
      expect(codes(3, [numbered(3), unread])).toEqual(['look serials-unread', 'stop serial-given'])
      expect(codes(4, [numbered(3), unread, strike(unread.id)])).toEqual([])
    }
    // What a newer version says of something else says nothing of numbers.
    expect(codes(4, [numbered(3), lost('pickup', 2)])).toEqual([])
  })
  it('takes no gap without a reason, and no range that runs backwards', () => {
    const good = numbered(1, 3, 'left-out')
    expect(faultOf(good)).toBeUndefined()
    expect(faultOf({ ...good, note: ' ' })).toBeDefined()
    expect(faultOf({ ...good, last: 0 })).toBeDefined()
  })
})

describe('a program with a number written into it', () => {
  const on = (profile: Profile): Reference => ({
    ...demoReference,
    profiles: [profile],
    machines: demoReference.machines.map((each) => ({ ...each, profileId: profile.id })),
  })
  const coded = (more: object) => {
    const machine = demoReference.machines.find(({ id }) => id === 'mill-1')
    const material = demoReference.materials.find(({ id }) => id === 'mild-steel')
    return (profile: Profile) =>
      add('coded', {
        offset: 'G54',
        sheet: sheet(17, more),
        rests: [],
        profile: { id: profile.id, version: profile.version },
        machine: { id: 'mill-1', version: machine?.version ?? 1 },
        material: { id: 'mild-steel', version: material?.version ?? 1 },
        tools: [{ id: 'mill-1-t5', version: 1 }],
      })
  }
  const state = (profile: Profile, more: object, then?: number) => {
    const { freshness } =
      derive([coded(more)(profile), ...(then === undefined ? [] : [numbered(then)])], on(profile)).code
        .coded[0] ?? {}
    return freshness?.state === 'stale' ? freshness.cause.says : freshness?.state
  }
  it('goes stale with its number; one that the control counts by itself does not', () => {
    expect(state(compact, {})).toBe('fresh')
    expect(state(compact, {}, 17)).toBe('built before its serial number was given out')
    expect(state(compact, {}, 16)).toBe('fresh')
    expect(state(compact, { way: 'cycle' }, 17)).toBe('fresh')
    expect(state(twoLine, { way: 'cycle' }, 17)).toBe('built before its serial number was given out')
  })
})
