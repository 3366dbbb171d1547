import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type GripDraft,
  type LengthsDraft,
  type PlacedDraft,
  readGripDraft,
  readLengthsDraft,
  readPlacedDraft,
} from './index.ts'

const grip: GripDraft = {
  collet: '16c',
  stop: 'draw-tube',
  operation: 'first',
  seated: '',
  known: 'tolerance',
  diameter: '1-1/4',
  spread: '.004',
  diameters: '',
  allowed: '20thou',
}
const place: PlacedDraft = { vise: 'vise-6', jawAt: '10.9', wanted: '1/4', lowestZ: '-12' }
const lengths: LengthsDraft = {
  collet: '16c',
  stop: 'draw-tube',
  what: 'face',
  pairs: '1 .1\n1.001 .103\n1.002 .106',
}

/** Where a form is wrong, and what is said there. */
const problems = (read: { ok: boolean; problems?: Record<string, { says: string }> }) =>
  Object.entries(read.problems ?? {}).map(([path, { says }]) => `${path}: ${says}`)

describe('the forms of Hold', () => {
  it('are read as a machinist writes', () => {
    expect(readGripDraft(grip, 'inch')).toMatchObject({
      ok: true,
      value: { bars: { diameter: { value: 1.25 }, spread: { value: 0.004 } }, allowed: { value: 0.02 } },
    })
    expect(readGripDraft({ ...grip, known: 'measured', diameters: '31.7mm 31.75mm' }, 'inch')).toMatchObject({
      ok: true,
      value: { bars: { known: 'measured', diameters: [{}, { value: 1.25 }] } },
    })
    expect(readPlacedDraft(place, 'inch')).toMatchObject({ ok: true, value: { wanted: { value: 0.25 } } })
    expect(readLengthsDraft(lengths, 'inch')).toMatchObject({ ok: true, value: { pairs: [{}, {}, {}] } })
  })

  it.each<[string, { ok: boolean }]>([
    [
      'bars.spread: Bars that differ by more than their size',
      readGripDraft({ ...grip, spread: '4' }, 'inch'),
    ],
    [
      'bars.spread: Largest less smallest cannot be negative',
      readGripDraft({ ...grip, spread: '-.004' }, 'inch'),
    ],
    ['bars.diameter: A bar has a diameter above zero', readGripDraft({ ...grip, diameter: '0' }, 'inch')],
    ['allowed: Type a length above zero', readGripDraft({ ...grip, allowed: '0' }, 'inch')],
    [
      'bars.diameters: Measure two bars at least',
      readGripDraft({ ...grip, known: 'measured', diameters: '1.25' }, 'inch'),
    ],
    ['bars.diameters: Line 1', readGripDraft({ ...grip, known: 'measured', diameters: '1.25 abc' }, 'inch')],
    ['wanted: A gap that is wanted cannot be negative', readPlacedDraft({ ...place, wanted: '-1' }, 'inch')],
    ['jawAt: Type a number', readPlacedDraft({ ...place, jawAt: '' }, 'inch')],
    [
      'pairs: All bars have one diameter',
      readLengthsDraft({ ...lengths, pairs: '1 .1\n1 .2\n25.4mm .3' }, 'inch'),
    ],
    ['pairs: Three bars at least', readLengthsDraft({ ...lengths, pairs: '1 .1' }, 'inch')],
    ['pairs: Line 2: write two numbers', readLengthsDraft({ ...lengths, pairs: '1 .1\n1.2' }, 'inch')],
  ])('%s', (says, read) => {
    const told = problems(read)
    expect(told).toHaveLength(1)
    expect(told[0]).toContain(says)
  })

  it('never throw and never come to nothing, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string(), fc.string(), (a, b) => {
        for (const read of [
          readGripDraft({ ...grip, known: 'measured', diameters: a, allowed: b }, 'mm'),
          readPlacedDraft({ ...place, jawAt: a, wanted: b }, 'mm'),
          readLengthsDraft({ ...lengths, pairs: `${a}\n${b}` }, 'mm'),
        ])
          expect(read.ok || problems(read).every((each) => /: \S/.test(each))).toBe(true)
      }),
    )
  })
})
