import { describe, expect, it } from 'vitest'
import type { SheetCase } from '../../code/index.ts'
import { caseOf, compact, sheetOf } from '../../code/testing.ts'
import { toolIn } from '../../machine/index.ts'
import { checkTap } from './check.ts'
import { tapSizes } from './sizes.ts'
import { THREADS, threadIn } from './threads.ts'
import { drillFor, tapFor } from './tools.ts'

// A tool is known by the name of its thread: ISO 261 for the pitch, ISO 2306 for the drill, Unified by threads an inch (ASME B1.1).

const thread = (id: string, unit: 'inch' | 'mm') => {
  const found = THREADS.find((each) => each.id === id)
  if (!found) throw new Error(`no thread ${id}`)
  return threadIn(found, unit)
}

/** What the check of a tool asks for beside what the thread says. */
const LONG = {
  shape: 2 as const,
  id: 't',
  version: 1,
  machineId: 'm',
  flute: 400,
  stickOut: 500,
  holderDiameter: 1.5,
  holderLength: 2,
  note: '',
}

describe('what a new tool of tapped holes is known by', () => {
  it.each(['inch', 'mm'] as const)(
    'is the metric tap and drill in mm, and the inch one in inch, where the setup is in %s',
    (unit) => {
      expect(tapFor(thread('M8x1.25', unit), unit)).toEqual({
        name: 'M8x1.25 tap',
        unit: 'mm',
        diameter: 8,
        pitch: 1.25,
      })
      const m8 = thread('M8x1.25', unit)
      expect(drillFor(m8.drill, m8, unit)).toEqual({
        name: '6.80 mm drill',
        unit: 'mm',
        diameter: 6.8,
        pitch: null,
      })
      expect(tapFor(thread('1/4-20 UNC', unit), unit)).toEqual({
        name: '1/4-20 UNC tap',
        unit: 'inch',
        diameter: 0.25,
        pitch: 0.05,
      })
      const quarter = thread('1/4-20 UNC', unit)
      expect(drillFor(quarter.drill, quarter, unit)).toMatchObject({
        name: 'No. 7 drill',
        unit: 'inch',
        diameter: 0.201,
      })
    },
  )

  it('is in the unit of the form for a thread that is in no table, and a drill of no set has no name', () => {
    const own = { id: 'own', major: 0.333, pitch: 0.041 }
    expect(tapFor(own, 'inch')).toEqual({ name: 'tap', unit: 'inch', diameter: 0.333, pitch: 0.041 })
    expect(drillFor(20.333, own, 'mm')).toEqual({ name: 'drill', unit: 'mm', diameter: 20.333, pitch: null })
  })

  it('is what the check of the holes wants, of every thread, cut or formed, in both units', () => {
    for (const unit of ['inch', 'mm'] as const)
      for (const form of ['cut', 'form'] as const)
        for (const { id } of THREADS) {
          const [item] = sheetOf(
            { tap: { list: '0 0', thread: id, tap: form, threadDepth: '.5' } },
            unit,
          ).items
          if (item?.cycle !== 'tap') throw new Error('no tap')
          const on = caseOf('mill', compact, { unit })
          const sizes = tapSizes(item.params, on, on.materials[0] as SheetCase['materials'][number])
          const [tap, drill] = [tapFor(sizes.thread, unit), drillFor(sizes.drillDiameter, sizes.thread, unit)]
          const made = [
            { ...LONG, ...drill, number: 2, kind: 'drill' as const },
            { ...LONG, ...tap, number: 3, kind: 'tap' as const },
          ].map((each) => toolIn(each, unit))
          const codes = checkTap(item.params, sizes, { ...on, tools: made }).map(({ code }) => code)
          expect([
            id,
            ...codes.filter((code) => /^(drill-differs|tap-no-tap|tap-pitch|tap-size)$/.test(code)),
          ]).toEqual([id])
        }
  })
})
