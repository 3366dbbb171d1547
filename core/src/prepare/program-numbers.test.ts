import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { BUILT_IN_PROFILES, ownNumber, type Profile } from '../control/index.ts'
import { demoEntries, demoReference } from '../demo/index.ts'
import { type Entry, type EntryOf, slimmed } from '../setup/index.ts'
import { add, opened, strike } from '../setup/testing.ts'
import { againstNumber, freeNumber, numbersAt, takesPlaceOf, whichProgram } from './program-numbers.ts'

const setup = opened.id
const taken = (more: Partial<EntryOf<'program'>>) =>
  add('program', {
    offset: 'G54',
    rests: [],
    how: 'copied',
    text: 'O5400 (LOAD)\nG0',
    profile: { id: 'compact', version: 1 },
    machine: { id: 'mill-1', version: 1 },
    ...more,
  })
const coded = (number: number, title: string, of = setup) =>
  ({ ...add('note', { text: 'x' }), kind: 'coded', setup: of, sheet: { number, title } }) as unknown as Entry
const told = (entries: readonly Entry[]) =>
  numbersAt(entries, setup).map(({ number, which }) => `O${number} ${which}`)

describe('the O numbers that stand at a machine', () => {
  it('are those of what was taken to the control, of any setup, and of what the setup in hand has written', () => {
    expect(
      told([
        taken({}),
        taken({ what: 'angle', text: '%\nO5401\nG0' }),
        taken({ what: 'coded', title: 'Holes', text: ': 5412 (HOLES)' }),
        coded(5413, 'Slots'),
        coded(5499, 'of another setup, never taken', 'another'),
        { ...taken({ what: 'gauge', title: 'Bores', text: 'O05420' }), setup: 'another' },
        taken({ what: 'probe', text: 'G65 P9811' }),
      ]),
    ).toEqual([
      'O5400 the one that loads G54',
      'O5401 the one that turns and looks at G54',
      'O5412 Holes',
      'O5413 Slots',
      'O5420 Bores',
    ])
  })

  it('are known of what is told of other setups without its text', () => {
    const log = [taken({}), taken({ what: 'angle', text: '%\n(ANGLE)\nO5401\nG0' }), taken({ text: 'G0' })]
    expect(told(log.map(slimmed))).toEqual(told(log))
    const [first] = log.map(slimmed)
    expect(first?.kind === 'program' && first.text).toBe('O5400')
    const demo = demoEntries(Date.UTC(2026, 10, 25, 9), () => 0.5)
    const ofOthers = demo.filter(({ kind }) => kind === 'program' || kind === 'palleted')
    expect(told(ofOthers).length).toBeGreaterThan(2)
    expect(told(ofOthers.map(slimmed))).toEqual(told(ofOthers))
  })

  it('are without what was struck out, and a program once, however often it was taken', () => {
    const [first, again] = [taken({}), taken({})]
    expect(numbersAt([first, again], setup).map(({ entry }) => entry.id)).toEqual([again.id])
    expect(told([first, strike(first.id)])).toEqual([])
  })

  it('of the demo are one program each', () => {
    const entries = demoEntries(Date.UTC(2026, 10, 25, 9), () => 0.5)
    for (const machine of demoReference.machines) {
      const setups = new Set(
        entries.flatMap((each) =>
          each.kind === 'opened' && each.machine.id === machine.id ? [each.setup] : [],
        ),
      )
      const known = [...setups].flatMap((id) =>
        numbersAt(
          entries.filter((each) => setups.has(each.setup)),
          id,
        ),
      )
      for (const { number, which } of known.filter((each) => !/^the one that/.test(each.which)))
        expect(againstNumber(number, which, known, machine.name)).toEqual([])
    }
  })
})

describe('two programs of one number', () => {
  const load = taken({})
  const known = numbersAt([load, coded(5412, 'Holes')], setup)

  it('are said, with who took the other and when, and a number that is free', () => {
    expect(againstNumber(5400, 'Holes', known, 'Mill 1')).toMatchObject([
      {
        severity: 'look',
        code: 'number-in-use',
        says: 'O5400 is at Mill 1 already: the one that loads G54.',
        fix: 'Take another number, such as O5401, unless that one was deleted.',
      },
    ])
    expect(againstNumber(5400, 'Holes', known, 'Mill 1')[0]?.why).toContain(
      `RT entered it on ${load.at.slice(0, 10)}.`,
    )
    expect(againstNumber(5412, 'Holes', known, 'Mill 1')).toEqual([])
    expect(againstNumber(Number.NaN, 'Holes', known, 'Mill 1')).toEqual([])
  })

  it('take the place of each other at the control', () => {
    const which = (offset: string) => whichProgram({ what: 'load', offset })
    expect(takesPlaceOf('O5400\nG0', which('G54'), known)).toBeUndefined()
    expect(takesPlaceOf('O5400\nG0', which('G55'), known)?.entry.id).toBe(load.id)
    expect(takesPlaceOf('G0', which('G55'), known)).toBeUndefined()
    expect(whichProgram({ offset: 'G54' })).toBe(which('G54'))
    expect(whichProgram({ what: 'coded', offset: 'G54', title: 'Holes' })).toBe('Holes')
  })

  it('never come of a number that is looked for', () => {
    const numbers = fc.array(fc.integer({ min: 5395, max: 5420 }), { maxLength: 30 })
    fc.assert(
      fc.property(fc.integer({ min: 5395, max: 5415 }), numbers, numbers, (first, at, own) => {
        const free = freeNumber(
          first,
          at.map((number) => ({ number })),
          own,
        )
        expect(free).toBeGreaterThanOrEqual(first)
        expect([...at, ...own]).not.toContain(free)
        for (let each = first; each < free; each++) expect([...at, ...own]).toContain(each)
      }),
    )
  })

  it('are not of two kinds that begin in one place, and have the digits of the control', () => {
    const kinds = ['load', 'angle', 'probe', 'coded', 'gauge', 'pallets'] as const
    for (const profile of BUILT_IN_PROFILES)
      for (const number of [profile.program.number, 10 ** profile.program.digits - 1]) {
        const of: Profile = { ...profile, program: { ...profile.program, number } }
        const from = kinds.map((kind) => ownNumber(of, kind))
        expect(new Set(from).size).toBe(kinds.length)
        expect(from[0]).toBe(number)
        for (const each of from) expect(String(each).length).toBeLessThanOrEqual(profile.program.digits)
      }
  })
})
