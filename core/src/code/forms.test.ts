import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { USUAL_MATERIALS } from '../cutting/index.ts'
import { engraveFieldAsked, engraveForm, exampleEngraving, newEngraving } from '../cycles/engraving/index.ts'
import {
  type GrooveDraft,
  grooveFieldAsked,
  grooveForm,
  grooveSizes,
  grooveWorking,
} from '../cycles/grooving/index.ts'
import { type TapDraft, tapFieldAsked, tapForm, tapSizes, tapWorking } from '../cycles/tapping/index.ts'
import { exampleWrap, newWrap, wrapFieldAsked, wrapForm } from '../cycles/wrapping/index.ts'
import { ROW } from '../program/index.ts'
import {
  type CycleSheet,
  draftAgain,
  draftOfSheet,
  holesOf,
  type ItemDraft,
  newSheet,
  readSheet,
  type SheetDraft,
  toolsOf,
  withFields,
} from './sheet.ts'
import { caseOf, compact, machineOf, sheetOf } from './testing.ts'
import { writeSheet } from './write-sheet.ts'

/** Every switch and choice of a form at random; the lengths stay as in a new form. */
const tapChoices: fc.Arbitrary<Partial<TapDraft>> = fc.record({
  thread: fc.constantFrom('1/4-20 UNC', 'own'),
  tap: fc.constantFrom('cut', 'form'),
  lead: fc.constantFrom('plug', 'bottoming', 'taper'),
  holder: fc.constantFrom('rigid', 'floating'),
  hole: fc.constantFrom('blind', 'through'),
  chamfer: fc.boolean(),
  drill: fc.boolean(),
  drillWay: fc.constantFrom('peck', 'break', 'plain'),
  tapping: fc.boolean(),
  tapPeck: fc.boolean(),
  pattern: fc.constantFrom('list', 'row', 'grid', 'circle', 'arc'),
  list: fc.constant('0 0\n1 1'),
  multiple: fc.constantFrom('best', 'typed', 'left'),
  returns: fc.constantFrom('initial', 'r'),
})
const grooveChoices: fc.Arbitrary<Partial<GrooveDraft>> = fc.record({
  where: fc.constantFrom('outside', 'inside', 'face'),
  edge: fc.constantFrom('none', 'chamfer', 'round'),
  count: fc.constantFrom('1', '3'),
  programmed: fc.constantFrom('low', 'high'),
  pecking: fc.boolean(),
  finish: fc.boolean(),
  speed: fc.constantFrom('surface', 'turns'),
  surfaceSpeed: fc.constantFrom('', '300'),
})
const [draftOfTap, draftOfGroove] = [
  (tap: Partial<TapDraft>) => {
    const [item] = draftOfSheet(sheetOf({ tap })).items
    if (item?.cycle !== 'tap') throw new Error('no tapped holes')
    return item.params
  },
  (groove: Partial<GrooveDraft>) => {
    const [item] = draftOfSheet(sheetOf({ groove })).items
    if (item?.cycle !== 'groove') throw new Error('no groove')
    return item.params
  },
]
const GARBAGE = '7 apples'

describe('the form of a cycle', () => {
  /** Every field that holds text, one after the other, with garbage in it. */
  const spoiled = <D extends object>(draft: D) =>
    Object.entries(draft).flatMap(([field, value]) =>
      typeof value === 'string' && /^[\d.\s-]*$/.test(value)
        ? [{ field: field as keyof D & string, draft: { ...draft, [field]: GARBAGE } as D }]
        : [],
    )
  /** With garbage in a field, the form names it where it asks for it; else not a word of the code is another. */
  function wantsJustItsFields<D extends object>(
    draft: D,
    asked: (draft: D, field: keyof D) => boolean,
    textOf: (draft: D) => string | string[] | undefined,
  ) {
    const good = textOf(draft)
    for (const { field, draft: bad } of spoiled(draft))
      expect(textOf(bad), field).toEqual(asked(draft, field) ? [field] : good)
  }
  type Read<P> = { ok: true; value: P } | { ok: false; problems: object }
  /** The code of a program of this one cycle, or the fields that its form complains of. */
  const codeOf = <P>(
    read: Read<P>,
    kind: 'mill' | 'lathe',
    item: (params: P) => CycleSheet['items'][number],
  ) => {
    if (!read.ok) return Object.keys(read.problems)
    const sheet = { ...sheetOf({ groove: {} }), items: [item(read.value)] }
    const rotary = { word: 'A' as const, top: 'front' as const, turns: null }
    const machine = { ...machineOf(kind), ...(kind === 'mill' ? { rotary } : {}) }
    return writeSheet(sheet, caseOf(kind, compact, { machine })).code?.text
  }
  const one = { id: 'a', off: false }

  it('of tapped holes wants just the fields that it asks for, and names the one that is wrong', () => {
    fc.assert(
      fc.property(tapChoices, (choices) =>
        wantsJustItsFields(draftOfTap(choices), tapFieldAsked, (of) =>
          codeOf(tapForm.read(of, 'inch'), 'mill', (params) => ({ ...one, cycle: 'tap', params })),
        ),
      ),
      depth(20, 400),
    )
  })
  it('of a groove does the same', () => {
    fc.assert(
      fc.property(grooveChoices, (choices) =>
        wantsJustItsFields(draftOfGroove(choices), grooveFieldAsked, (of) =>
          codeOf(grooveForm.read(of, 'inch'), 'lathe', (params) => ({ ...one, cycle: 'groove', params })),
        ),
      ),
      depth(20, 400),
    )
  })
  it('of a text does the same', () => {
    const choices = fc.record({
      text: fc.constantFrom('ABC', 'SN ##'),
      sits: fc.constantFrom('box' as const, 'line' as const, 'start' as const, 'arc' as const),
      by: fc.constantFrom('width' as const, 'depth' as const),
      surface: fc.constantFrom('flat' as const, 'along' as const),
      sharp: fc.boolean(),
    })
    fc.assert(
      fc.property(choices, (more) =>
        wantsJustItsFields(
          { ...newEngraving('inch'), ...exampleEngraving('inch'), tool: '5', ...more },
          engraveFieldAsked,
          (of) =>
            codeOf(engraveForm.read(of, 'inch'), 'mill', (params) => ({ ...one, cycle: 'engrave', params })),
        ),
      ),
      depth(20, 400),
    )
  })
  it('of what is wrapped does the same', () => {
    const choices = fc.record({
      what: fc.constantFrom(
        'scale' as const,
        'text' as const,
        'slots' as const,
        'holes' as const,
        'program' as const,
      ),
      covers: fc.constantFrom('turn' as const, 'part' as const),
      middleEvery: fc.constantFrom('0', '5'),
      longEvery: fc.constantFrom('0', '10'),
      numeralEvery: fc.constantFrom('0', '25'),
      slotsRun: fc.constantFrom('along' as const, 'round' as const),
      slots: fc.constantFrom('1', '4'),
      rows: fc.constantFrom('1', '3'),
      text: fc.constant('AB'),
      program: fc.constant('G0 X0 Y0\nG1 Z-.1 F4.\nX1. Y1.'),
    })
    fc.assert(
      fc.property(choices, (more) =>
        wantsJustItsFields(
          { ...newWrap('inch'), ...exampleWrap('inch'), tool: '6', ...more },
          wrapFieldAsked,
          (of) => codeOf(wrapForm.read(of, 'inch'), 'mill', (params) => ({ ...one, cycle: 'wrap', params })),
        ),
      ),
      depth(25, 600),
    )
  })
})

describe('the working', () => {
  /** What somebody with a pocket calculator gets: `x` is times, tan takes degrees. */
  const compute = (arithmetic: string): number => {
    const script = arithmetic
      .replace(/^depth /, '')
      .replace(/^(.*), at least 1$/, 'Math.max(1, $1)')
      .replaceAll('root of', 'Math.sqrt')
      .replace(/tan ([\d.]+)/g, 'Math.tan($1 * Math.PI / 180)')
      .replaceAll(' x ', ' * ')
    if (!/^[\d\s.,+*/()-]*$/.test(script.replace(/Math\.(sqrt|tan|PI|max)/g, ''))) throw new Error(arithmetic)
    return Number(new Function(`return ${script}`)())
  }
  const agrees = (lines: readonly { finds: string; arithmetic: string; gives: string }[]) => {
    for (const { finds, arithmetic, gives } of lines) {
      if (/rounded up|as typed/.test(arithmetic)) continue
      const given = Number.parseFloat(gives)
      // Half of the last digit that is printed; what it is computed from is printed to four digits or fewer.
      const last = 10 ** -(/\.(\d+)/.exec(gives)?.[1]?.length ?? 0)
      const off = Math.abs(compute(arithmetic) - given)
      expect(off, `${finds}: ${arithmetic} = ${gives}`).toBeLessThanOrEqual(
        0.51 * last + 2e-3 * Math.abs(given),
      )
    }
  }
  it('of tapped holes and of grooves comes out with a pocket calculator', () => {
    const lengths = fc.integer({ min: 200, max: 900 }).map((n) => `${n / 1000}`)
    fc.assert(
      fc.property(tapChoices, lengths, (choices, threadDepth) => {
        const sheet = sheetOf({ tap: { ...choices, threadDepth, thickness: threadDepth } })
        const [item] = sheet.items
        if (item?.cycle !== 'tap') throw new Error('no tapped holes')
        const material = USUAL_MATERIALS[0] as (typeof USUAL_MATERIALS)[number]
        const lines = tapWorking(
          item.params,
          tapSizes(item.params, caseOf('mill', compact), material),
          'inch',
        )
        agrees(lines)
        // What is not done is not computed: no tap, no room under it.
        const { tapping, drill } = item.params
        expect(lines.length).toBe((tapping ? 4 : 0) + (drill ? 1 : 0) + (tapping && drill ? 1 : 0))
      }),
    )
    fc.assert(
      fc.property(grooveChoices, (choices) => {
        const [item] = sheetOf({ groove: choices }).items
        if (item?.cycle !== 'groove') throw new Error('no groove')
        const on = caseOf('lathe', compact)
        const material = USUAL_MATERIALS[0] as (typeof USUAL_MATERIALS)[number]
        const sizes = grooveSizes(item.params, on, material)
        agrees(grooveWorking(sizes, on).filter(({ finds }) => finds !== 'spindle speed at the start'))
      }),
    )
  })
})

describe('a program of several cycles', () => {
  const items = fc.array(
    fc.oneof(
      tapChoices.map((tap) => ({
        cycle: 'tap' as const,
        params: draftOfTap({ ...tap, thread: '1/4-20 UNC' }),
      })),
      tapChoices.map(() => ({ cycle: 'tap' as const, params: { ...draftOfTap({ list: '0 0' }), list: '' } })),
    ),
    { minLength: 1, maxLength: 4 },
  )
  const draftWith = (
    all: readonly { cycle: 'tap'; params: TapDraft }[],
    off: readonly boolean[],
  ): SheetDraft => ({
    ...newSheet('Several', 12, 'mild-steel'),
    items: all.map(({ cycle, params }, n) => ({ cycle, params, id: `i${n}`, off: off[n] ?? false })),
  })
  it('reads back as it was typed, without what is off and incomplete; what is on and incomplete is named', () => {
    fc.assert(
      fc.property(items, fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }), (all, off) => {
        const draft = draftWith(all, off)
        const read = readSheet(draft, 'inch')
        const complete = ({ params }: (typeof draft.items)[number]) =>
          tapForm.read(params as TapDraft, 'inch').ok
        const missing = draft.items.filter((item) => !item.off && !complete(item)).map(({ id }) => id)
        expect(read.ok).toBe(missing.length === 0)
        if (!read.ok) expect(read.items).toEqual(missing)
        else {
          expect(draftOfSheet(read.sheet)).toEqual({ ...draft, items: draft.items.filter(complete) })
          expect(readSheet(draftOfSheet(read.sheet), 'inch')).toEqual(read)
        }
      }),
      depth(25, 600),
    )
  })
  it('takes the tools, and makes the holes, that it says (counted in what the reader reads)', () => {
    fc.assert(
      fc.property(items, (all) => {
        const read = readSheet(draftWith(all, []), 'inch')
        fc.pre(read.ok)
        if (!read.ok) return
        const { code } = writeSheet(read.sheet, caseOf('mill', compact))
        fc.pre(code !== undefined)
        if (!code) return
        const { motion } = code.program
        const taken = new Set(motion.events.flatMap((event) => (event.does === 'tool' ? [event.tool] : [])))
        expect([...taken].sort()).toEqual([...new Set(read.sheet.items.flatMap(toolsOf))].sort())
        const { items: cycles } = read.sheet
        fc.pre(cycles.every(({ cycle, params }) => cycle === 'tap' && params.tapping && !params.tapPeck))
        expect(motion.kind.filter((kind) => kind === ROW.IN_STEP)).toHaveLength(holesOf(read.sheet))
      }),
      depth(25, 600),
    )
  })
})

describe('the counter of a control that counts serial numbers', () => {
  const item = (more: object) =>
    ({
      cycle: 'engrave',
      id: 'a',
      off: false,
      params: { ...newEngraving('inch'), text: 'A-##', serial: '7', counter: '7', ...more },
    }) as ItemDraft
  const counterOf = (of: ItemDraft) => (of.cycle === 'engrave' ? [of.params.serial, of.params.counter] : [])
  it('is read anew for another number, and stays read while anything else is typed', () => {
    expect(counterOf(withFields(item({}), { serial: '8' }))).toEqual(['8', ''])
    expect(counterOf(withFields(item({}), { serial: '7' }))).toEqual(['7', '7'])
    expect(counterOf(withFields(item({}), { text: 'B-##' }))).toEqual(['7', '7'])
    expect(counterOf(withFields(item({}), { counter: '9' }))).toEqual(['7', '9'])
    expect(counterOf(withFields(item({}), { serial: '8', counter: '8' }))).toEqual(['8', '8'])
  })
  it('is read anew when the job is set up again', () => {
    const read = readSheet(
      {
        ...newSheet('Texts', 12, 'brass'),
        items: [item({ ...exampleEngraving('inch'), serial: '7', tool: '5' })],
      },
      'inch',
    )
    if (!read.ok) throw new Error(read.says)
    expect(draftOfSheet(read.sheet).items.map(counterOf)).toEqual([['7', '7']])
    expect(draftAgain(read.sheet).items.map(counterOf)).toEqual([['7', '']])
  })
})
