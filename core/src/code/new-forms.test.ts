import { describe, expect, it } from 'vitest'
import { unanswered, undrawn } from '../cycles/cycle/index.ts'
import { engraveForm, exampleEngraving, newEngraving } from '../cycles/engraving/index.ts'
import { exampleGroove, grooveForm, newGroove } from '../cycles/grooving/index.ts'
import { exampleTap, newTap, tapForm } from '../cycles/tapping/index.ts'
import { exampleWrap, newWrap, wrapForm } from '../cycles/wrapping/index.ts'
import type { FieldProblems } from '../quantity/index.ts'
import { newSheet, readSheet } from './sheet.ts'

type Unit = 'inch' | 'mm'
type Read = { ok: boolean; problems?: FieldProblems }
type Draft = Record<string, string | boolean>

const TAP_WAYS = (['list', 'row', 'grid', 'circle', 'arc'] as const).flatMap((pattern) =>
  (['blind', 'through'] as const).map((hole) => ({ pattern, hole })),
)

/** Each cycle with its ways of asking for different things, and what is no part of a drawing and has to be said all the same. */
const CYCLES: {
  of: string
  make: (unit: Unit) => Draft
  example: (unit: Unit) => Record<string, string>
  read: (draft: never, unit: Unit) => Read
  lenient: (draft: never, unit: Unit, example: never) => unknown
  ways: Draft[]
  besides: Draft
}[] = [
  {
    of: 'tapped holes',
    make: (unit) => newTap(unit, false),
    example: exampleTap,
    read: tapForm.read,
    lenient: tapForm.lenient,
    ways: TAP_WAYS,
    besides: { chamferTool: '1', drillTool: '2', tapTool: '3', list: '1 2' },
  },
  {
    of: 'a thread of one’s own',
    make: (unit) => ({ ...newTap(unit, false), thread: 'own' }),
    example: (unit) => ({ ...exampleTap(unit), thread: 'own' }),
    read: tapForm.read,
    lenient: tapForm.lenient,
    ways: TAP_WAYS,
    besides: { chamferTool: '1', drillTool: '2', tapTool: '3', list: '1 2' },
  },
  {
    of: 'a groove',
    make: newGroove,
    example: exampleGroove,
    read: grooveForm.read,
    lenient: grooveForm.lenient,
    ways: [{}, { where: 'inside' }, { where: 'face' }, { edge: 'round' }, { count: '3' }],
    besides: { tool: '4' },
  },
  {
    of: 'a text',
    make: newEngraving,
    example: exampleEngraving,
    read: engraveForm.read,
    lenient: engraveForm.lenient,
    ways: [{}, { sits: 'line' }, { sits: 'start' }, { sits: 'arc' }, { surface: 'along' }, { text: 'A-##' }],
    besides: { tool: '5', text: 'A-##' },
  },
  {
    of: 'a layout on a cylinder',
    make: newWrap,
    example: exampleWrap,
    read: wrapForm.read,
    lenient: wrapForm.lenient,
    ways: [
      {},
      { covers: 'part' },
      // How long the lines are is asked once there are such.
      { middleEvery: '5', longEvery: '10', numeralEvery: '10' },
      { what: 'text' },
      { what: 'slots' },
      { what: 'slots', slotsRun: 'round' },
      { what: 'holes', rows: '2' },
      { what: 'program' },
    ],
    besides: { tool: '6', text: 'A', program: 'G1 X1' },
  },
]
const UNITS: Unit[] = ['inch', 'mm']

describe('nothing made up counts as an answer: a new form of', () => {
  it.each(CYCLES)('$of has none of what a drawing says, and asks for all of it', (cycle) => {
    for (const unit of UNITS) {
      const fresh = cycle.make(unit)
      const example = cycle.example(unit)
      for (const field of Object.keys(example).filter((each) => fresh[each] !== 'own'))
        expect([field, fresh[field]]).toEqual([field, ''])
      const asked = new Set<string>()
      for (const way of cycle.ways) {
        const whole = { ...fresh, ...cycle.besides, ...way } as never
        const empty = cycle.read(whole, unit)
        const missing = undrawn(empty.problems ?? {}, example)
        for (const field of missing) asked.add(field)
        // What stands in the way is what the drawing says, and nothing else; with it the form is whole.
        expect(Object.keys(empty.problems ?? {}).sort()).toEqual([...missing].sort())
        expect(empty.ok).toBe(missing.length === 0)
        expect(cycle.read({ ...(whole as Draft), ...example } as never, unit).ok).toBe(true)
        // Its picture is that of the example until then.
        expect(cycle.lenient(whole, unit, example as never)).toEqual(
          cycle.lenient({ ...(whole as Draft), ...example } as never, unit, example as never),
        )
      }
      const never = Object.keys(example).filter((field) => !asked.has(field) && fresh[field] === '')
      expect(
        never.filter((field) => cycle.make('inch').thread === 'own' || !field.startsWith('own')),
      ).toEqual([])
    }
  })

  it('a program has no material before somebody chose it', () => {
    const read = readSheet(newSheet('Plate', 5400, ''), 'inch')
    expect(read).toMatchObject({ ok: false, says: 'Choose the material.' })
    expect(readSheet(newSheet('Plate', 5400, 'brass'), 'inch').ok).toBe(true)
  })

  it('what is empty is an answer to nothing', () => {
    expect(unanswered({ a: '1', b: 'x' })).toEqual({ a: '', b: '' })
    const problems = {
      a: { says: '', empty: true },
      b: { says: 'no', empty: false },
      c: { says: '', empty: true },
    }
    expect(undrawn(problems, { a: '1', b: '2' })).toEqual(['a'])
  })
})
