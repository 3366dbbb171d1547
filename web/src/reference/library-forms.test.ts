import { material as materialSchema, USUAL_MATERIALS } from '@dogleg/core/cutting'
import { demoReference } from '@dogleg/core/demo'
import {
  type Collet,
  collet as colletSchema,
  SAMPLE_VISES,
  USUAL_COLLETS,
  type Vise,
  vise as viseSchema,
} from '@dogleg/core/hold'
import { type ToolShape, toolShape } from '@dogleg/core/machine'
import { describe, expect, it } from 'vitest'
import { COLLET_NUMBERS, MATERIAL_NUMBERS, TOOL_NUMBERS, VISE_NUMBERS } from './library-numbers.ts'
import { convertTyped, lengthsTyped, readTyped, toTyped } from './typed-form.ts'

const wrong = (read: { ok: boolean; wrong?: { path: string; says: string }[] }) =>
  (read.wrong ?? []).map(({ path, says }) => `${path}: ${says}`)

describe('the form of a vise', () => {
  const [six] = SAMPLE_VISES as [Vise]
  const typed = toTyped(six, VISE_NUMBERS)
  const read = (form: typeof typed) => readTyped(viseSchema, VISE_NUMBERS, form, form.unit)

  it('gives back the vise that it was opened from', () => {
    expect(read(typed)).toEqual({ ok: true, row: six })
  })

  it('reads every number as a machinist writes, and says in which part one is not understood', () => {
    const [body, ...others] = typed.parts
    if (!body) throw new Error('no body')
    const parts = [{ ...body, open: { front: '-10-1/2', back: '76.2mm' }, top: '2.9' }, ...others]
    expect(read({ ...typed, parts })).toMatchObject({
      row: { parts: [{ open: { front: -10.5, back: 3 } }, {}, {}, {}, {}] },
    })
    const bad = [{ ...body, bottom: 'low' }, ...others]
    expect(wrong(read({ ...typed, parts: bad }))).toEqual([
      expect.stringMatching(/^parts\.0\.bottom: "low" is not a length/),
    ])
  })

  it('refuses extents that overlap themselves, heights upside down, and a vise of nothing', () => {
    const [body, ...others] = typed.parts
    if (!body) throw new Error('no body')
    const of = (change: object) => wrong(read({ ...typed, parts: [{ ...body, ...change }, ...others] }))
    expect(of({ closed: { front: '3', back: '-10.5' } })).toEqual([
      'parts.0.closed.back: The front end must lie in front of the back end: a smaller number.',
    ])
    expect(of({ top: '0', bottom: '2' })).toEqual([
      'parts.0.top: The upper edge must lie above the lower one.',
    ])
    expect(wrong(read({ ...typed, parts: [] }))).toEqual(['parts: Enter at least the body.'])
    expect(wrong(read({ ...typed, jawLength: '0' }))).toEqual([
      'jawLength: The jaw must be longer than zero.',
    ])
  })
})

describe('the form of a collet', () => {
  const read = (collet: Collet, change: object) =>
    readTyped(colletSchema, COLLET_NUMBERS, { ...toTyped(collet, COLLET_NUMBERS), ...change }, 'inch')

  it('gives back every collet that it was opened from', () => {
    for (const collet of USUAL_COLLETS) expect(read(collet, {})).toEqual({ ok: true, row: collet })
  })

  it.each([
    [
      { ratio: { from: 'angle', degreesPerSide: '0' } },
      /^ratio\.degreesPerSide: A cone of 0 degrees never closes/,
    ],
    [
      { ratio: { from: 'angle', degreesPerSide: '90' } },
      /^ratio\.degreesPerSide: A cone of 90 degrees is a flat face/,
    ],
    [{ ratio: { from: 'angle', degreesPerSide: '' } }, /^ratio\.degreesPerSide: Type a number/],
    [{ ratio: { from: 'rule', ratio: '-1' } }, /^ratio\.ratio: A ratio cannot be negative/],
    [{ ratio: { from: 'measured', ratio: '3', doubt: 'x' } }, /^ratio\.doubt: "x" is not a number/],
    [{ ruleOfThumb: '50' }, /^ruleOfThumb: No collet moves that far/],
    [{ name: ' ' }, /^name: Give it a name/],
  ])('%j gets a sentence', (change, says) => {
    const [collet] = USUAL_COLLETS as [Collet]
    expect(wrong(read(collet, change))).toEqual([expect.stringMatching(says)])
  })
})

describe('the form of a material', () => {
  it('gives back what it was opened from, and reads a feed in the other unit', () => {
    for (const row of USUAL_MATERIALS) {
      const typed = toTyped(row, MATERIAL_NUMBERS)
      expect(readTyped(materialSchema, MATERIAL_NUMBERS, typed, typed.unit)).toEqual({ ok: true, row })
      const metric = { ...typed, grooveFeed: '.1mm' }
      const read = readTyped(materialSchema, MATERIAL_NUMBERS, metric, 'inch')
      expect(read.ok && read.row.grooveFeed).toBeCloseTo(0.1 / 25.4, 12)
      const slow = readTyped(materialSchema, MATERIAL_NUMBERS, { ...typed, tapping: '0' }, 'inch')
      expect(wrong(slow)).toEqual(['tapping: A speed must be more than zero.'])
    }
  })
})

describe('the form of an insert', () => {
  const insert = demoReference.tools.find(({ nose }) => nose) as ToolShape
  const typed = toTyped(insert, TOOL_NUMBERS)
  const read = (nose: string) => readTyped(toolShape, TOOL_NUMBERS, { ...typed, nose }, 'inch')

  it('has a nose that may stand empty, before and after', () => {
    expect(read('')).toEqual({ ok: true, row: { ...insert, nose: null } })
    expect(toTyped({ ...insert, nose: null }, TOOL_NUMBERS).nose).toBe('')
    expect(read('0.4mm')).toMatchObject({ row: { nose: expect.closeTo(0.4 / 25.4, 6) } })
    const { nose: _, ...old } = insert
    expect(readTyped(toolShape, TOOL_NUMBERS, toTyped(old, TOOL_NUMBERS), 'inch')).toEqual({
      ok: true,
      row: old,
    })
  })

  it('refuses one in the other unit, and goes with the rest where the unit is changed', () => {
    expect(wrong(read('0.4'))).toEqual([expect.stringMatching(/^nose: .*half of its insert/)])
    expect(wrong(read('sharp'))).toEqual([expect.stringMatching(/^nose: .*not a length/)])
    const units = { from: 'inch', to: 'mm' } as const
    expect(convertTyped(typed, TOOL_NUMBERS, units).nose).toBe('0.2032')
    expect(lengthsTyped(typed, TOOL_NUMBERS, units).map(({ typed: text }) => text)).toContain('0.008')
  })
})
