import { describe, expect, it } from 'vitest'
import { THREADS, threadIn } from './threads.ts'
import { drillFor, tapFor } from './tools.ts'

// A tool is known by the name of its thread: ISO 261 for the pitch, ISO 2306 for the drill, Unified by threads an inch (ASME B1.1).

const thread = (id: string, unit: 'inch' | 'mm') => {
  const found = THREADS.find((each) => each.id === id)
  if (!found) throw new Error(`no thread ${id}`)
  return threadIn(found, unit)
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
})
