import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rowChanges } from './changes.ts'

const stamp = { id: 'a', version: 1, name: 'Pins' }

describe('what a version of a row changed', () => {
  it('is told part by part, from the outside in, in words', () => {
    const before = {
      ...stamp,
      shape: 1,
      jawLength: 6,
      closed: false,
      axes: { X: { least: -30 } },
      note: '',
      parts: [{ top: 1 }],
    }
    const after = {
      ...stamp,
      version: 2,
      shape: 2,
      jawLength: 6.25,
      closed: true,
      axes: { X: { least: -32 } },
      note: 'Burr.',
      parts: [{ top: 1 }, { top: 2, name: 'handle' }],
      rotary: null,
    }
    expect(rowChanges(before, after)).toEqual([
      { of: 'jaw length', was: '6', is: '6.25' },
      { of: 'closed', was: 'no', is: 'yes' },
      { of: 'axes, X, least', was: '-30', is: '-32' },
      { of: 'note', was: '', is: 'Burr.' },
      { of: 'parts, 2', was: '', is: '2, handle' },
      { of: 'rotary', was: '', is: '' },
    ])
    expect(rowChanges(before, { ...before, version: 9 })).toEqual([])
    const [cut] = rowChanges(before, { ...before, note: 'x'.repeat(300) } as typeof before)
    expect(cut?.is).toBe(`${'x'.repeat(80)}…`)
  })

  it('is nothing where both are the same, and something where any part is another', () => {
    const body = fc.dictionary(fc.stringMatching(/^[a-z][a-zA-Z]{0,8}$/), fc.jsonValue({ maxDepth: 2 }), {
      maxKeys: 5,
    })
    fc.assert(
      fc.property(body, body, (one, other) => {
        const rows = [one, other].map((each) => ({ ...JSON.parse(JSON.stringify(each)), ...stamp }))
        const same = JSON.stringify(sorted(rows[0])) === JSON.stringify(sorted(rows[1]))
        expect(rowChanges(rows[0], rows[0])).toEqual([])
        if (!same) expect(rowChanges(rows[0], { ...rows[1], version: 2 }).length).toBeGreaterThan(0)
      }),
    )
  })
})

/** The same with the keys in order; what every version has of its own, and a zero's sign, say nothing. */
function sorted(value: unknown, outer = true): unknown {
  if (Array.isArray(value)) return value.map((each) => sorted(each, false))
  if (typeof value !== 'object' || value === null) return Object.is(value, -0) ? 0 : value
  return Object.fromEntries(
    Object.entries(value)
      .filter(([key]) => !outer || !['id', 'version', 'shape'].includes(key))
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, part]) => [key, sorted(part, false)]),
  )
}
