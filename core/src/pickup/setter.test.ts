import fc from 'fast-check'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import { BUILT_IN_PROFILES, type Profile } from '../control/index.ts'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { REPEATABILITY } from './repeatability.ts'
import { readToolList, writeSetLengths } from './set-lengths.ts'
import {
  judgeSetter,
  readSetterDraft,
  type SetterReading,
  setterAge,
  setterHeight,
  startingSetter,
} from './setter.ts'
import { judgeToolLength, readToolLengthDraft, toolLength } from './tool-length.ts'

const mill = demoReference.machines[0] as Machine
const inch = (value: number) => ({ text: String(value), value, unit: 'inch' as const })
const settings = { unit: 'inch', leastStep: 0.0001 } as const
const master = (machinePosition: number, masterLength = 4): SetterReading => ({
  how: 'master',
  machinePosition: inch(machinePosition),
  masterLength: inch(masterLength),
  masterWithin: inch(0.0001),
})

describe('the height of a tool setter (common practice: machine Z at the trigger less the length)', () => {
  // By hand: a master of 4 in triggers at -11.2, so that nothing at all would trigger at -15.2; a tool that triggers at -9.7 is 5.5 long.
  it('measures every tool that touches it after', () => {
    const height = setterHeight(master(-11.2), settings)
    expect(height.value).toBeCloseTo(-15.2, 12)
    const read = readToolLengthDraft(
      { tool: '7', machinePosition: '-9.7', masterPosition: '', masterLength: '', on: 'setter' },
      'inch',
      { entry: '01J00000000000000000000000', height: height.value, doubt: height.doubt.value },
    )
    if (!read.ok) throw new Error('not read')
    const length = toolLength(read.reading, settings)
    expect(length.value).toBeCloseTo(5.5, 9)
    expect(length.working.at(-1)).toMatchObject({ arithmetic: '-9.7000 - (-15.2000)', gives: '5.5000' })
    expect(judgeToolLength(read.reading, length, { machine: mill, unit: 'inch', last: undefined })).toEqual(
      [],
    )
  })

  it('leads every hidden tool back from where it triggers, in either convention of lengths', () => {
    const number = (least: number, most: number) =>
      fc.integer({ min: least * 10_000, max: most * 10_000 }).map((n) => n / 10_000)
    fc.assert(
      fc.property(number(-18, -12), number(-1, 6), number(1, 9), (trigger, masterLength, tool) => {
        // The true trigger stands so high that a tool of no length would touch it at `trigger`.
        const height = setterHeight(master(trigger + masterLength, masterLength), settings)
        const read = readToolLengthDraft(
          {
            tool: '1',
            machinePosition: (trigger + tool).toFixed(6),
            masterPosition: '',
            masterLength: '',
            on: 'setter',
          },
          'inch',
          { entry: '01J00000000000000000000000', height: height.value, doubt: height.doubt.value },
        )
        expect(read.ok && toolLength(read.reading, settings).value).toBeCloseTo(tool, 3)
      }),
      { numRuns: times(200, 1000) },
    )
  })

  it('is known as its parts leave it: Monte Carlo over setter, master and display (JCGM 101:2008)', () => {
    let state = 12345
    // A linear congruential generator (Numerical Recipes, from memory): only its evenness counts here.
    const even = () => {
      state = (1664525 * state + 1013904223) >>> 0
      return state / 2 ** 32
    }
    const normal = () => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even())
    const each = REPEATABILITY.setter.inch
    const heights: number[] = []
    const lengths: number[] = []
    for (let n = 0; n < 20_000; n++) {
      const own = 4 + 0.0001 * normal()
      const shown = (z: number) => Math.round((z + each * normal()) / 0.0001) * 0.0001
      const height = shown(-15.2 + own) - 4
      heights.push(height)
      lengths.push(shown(-15.2 + 5.50003) - height)
    }
    const height = setterHeight(master(-11.2), settings)
    expect(mean(heights)).toBeCloseTo(-15.2, 5)
    expect(sampleStandardDeviation(heights) / height.doubt.value).toBeGreaterThan(0.97)
    expect(sampleStandardDeviation(heights) / height.doubt.value).toBeLessThan(1.03)
    const length = toolLength(
      {
        tool: 7,
        machinePosition: inch(-9.7),
        masterPosition: inch(height.value),
        masterLength: inch(0),
        setter: { entry: '01J00000000000000000000000', within: inch(height.doubt.value) },
      },
      settings,
    )
    expect(sampleStandardDeviation(lengths) / length.doubt.value).toBeGreaterThan(0.97)
    expect(sampleStandardDeviation(lengths) / length.doubt.value).toBeLessThan(1.03)
  })
})

describe('what can be wrong with a setter', () => {
  const last = { value: -15.2, doubt: 0.0002 }
  const found = (from: SetterReading, more: { last?: typeof last; machine?: Machine } = {}) =>
    judgeSetter(from, setterHeight(from, settings), {
      machine: mill,
      unit: 'inch',
      last: undefined,
      ...more,
    }).map(({ severity, code }) => `${severity} ${code}`)
  const typed = (height: number): SetterReading => ({
    how: 'typed',
    height: inch(height),
    heightWithin: inch(0.001),
  })
  it.each([
    ['as it should be', master(-11.2), {}, []],
    ['as it was before', master(-11.2), { last }, []],
    ['knocked down by two thousandths', master(-11.202), { last }, ['look setter-moved']],
    ['a position with the wrong sign', master(11.2), {}, ['stop out-of-reach', 'stop outside-travel']],
    [
      'a master of no length, where lengths count from the gauge line',
      master(-11.2, 0),
      {},
      ['stop master-length'],
    ],
    ['its height in mm on an inch page', typed(-15.2 * 25.4), {}, ['stop unit-mixed']],
    ['its height in mm, where it is known', typed(-15.2 * 25.4), { last }, ['stop unit-mixed']],
    ['a height with the wrong sign', typed(15.2), {}, ['stop out-of-reach']],
    ['a height that is known', typed(-15.2), {}, []],
  ] as [string, SetterReading, object, string[]][])('%s', (_, from, more, expected) =>
    expect(found(from, more).sort()).toEqual(expected),
  )

  it('is old after a week (by judgement)', () => {
    const day = 86_400_000
    expect(setterAge(0, 7 * day + 1)).toEqual([])
    expect(setterAge(0, 9 * day)[0]?.says).toBe('The setter was calibrated 9 days ago.')
  })

  it('is asked for before a length is measured with it; its macro shows the length itself', () => {
    const form = {
      tool: '7',
      machinePosition: '5.5',
      masterPosition: '',
      masterLength: '',
      on: 'setter' as const,
    }
    expect(readToolLengthDraft(form, 'inch')).toMatchObject({
      problems: { setter: { says: 'Calibrate the setter first.' } },
    })
    const shown = readToolLengthDraft({ ...form, on: 'shown' }, 'inch')
    if (!shown.ok) throw new Error('not read')
    const length = toolLength(shown.reading, settings)
    expect(length.value).toBe(5.5)
    expect(length.doubt.value).toBeCloseTo(Math.hypot(0.0001, 0.0001, 0.0001 / Math.sqrt(12)), 9)
    // A length above home is no position that the spindle could not have stood at.
    expect(judgeToolLength(shown.reading, length, { machine: mill, unit: 'inch', last: undefined })).toEqual(
      [],
    )
  })

  it('its form says what it lacks', () => {
    expect(readSetterDraft(startingSetter('inch'), 'inch')).toMatchObject({
      problems: { machinePosition: { empty: true }, masterLength: { empty: true } },
    })
    const draft = {
      ...startingSetter('inch'),
      machinePosition: '-11.2; -11.2001',
      masterLength: '4',
      masterWithin: '0',
    }
    expect(readSetterDraft(draft, 'inch')).toMatchObject({ problems: { masterWithin: { empty: false } } })
    const read = readSetterDraft({ ...draft, masterWithin: '.0001' }, 'inch')
    expect(read.ok && setterHeight(read.value, settings).value).toBeCloseTo(-15.20005, 9)
  })
})

describe('the program that measures tools by the macro of the control', () => {
  const [compact, twoLine, plain] = BUILT_IN_PROFILES as [Profile, Profile, Profile]
  const text = (profile: Profile, tools = [3, 7]) => {
    const written = writeSetLengths(tools, { machine: mill, unit: 'inch', profile }, [])
    return written.ok ? written.text : written.findings[0]?.code
  }
  it('takes each tool in and calls the macro for it, spindle standing, up between', () => {
    const words = (text(compact) ?? '')
      .split('\n')
      .map((line) => line.replace(/ ?\(.*/, ''))
      .filter((line) => line !== '' && line !== '%' && !line.startsWith('O'))
    expect(words.slice(1)).toEqual([
      'G53 G0 Z0.',
      'M5',
      'T3 M6',
      'G65 P9851 T3',
      'G53 G0 Z0.',
      'T7 M6',
      'G65 P9851 T7',
      'G53 G0 Z0.',
      'M0',
      'M30',
    ])
  })
  it.each([compact, twoLine])('$name: reads back, whatever the tools', (profile) => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 9999 }), { minLength: 1, maxLength: 20 }),
        (tools) => {
          expect(writeSetLengths(tools, { machine: mill, unit: 'inch', profile }, []).ok).toBe(true)
        },
      ),
      { numRuns: times(30, 300) },
    )
  })
  it('is refused where the control has no such macro, and where no tool is named', () => {
    expect(text(plain)).toBe('no-setting-macro')
    expect(text(compact, [])).toBe('no-tools')
    const other: Profile = { ...compact, setting: { length: 9832, word: 'T', seconds: 20, note: '' } }
    expect(text(other)).toBe('not-read-back')
  })
  it.each([
    ['3 5, T7 t3', { ok: true, tools: [3, 5, 7] }],
    ['', { ok: false, empty: true }],
    ['3 x', { ok: false, says: '"x" is not a tool number.' }],
    ['0', { ok: false, empty: false }],
  ])('%s is read as it is typed', (typed, expected) => expect(readToolList(typed)).toMatchObject(expected))
})
