import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import { inForce, namesIn, referenceFrom } from './index.ts'

const [vise] = demoReference.vises
const [tool] = demoReference.tools
const gone = [
  { noun: 'vises' as const, id: vise?.id ?? '' },
  { noun: 'tools' as const, id: tool?.id ?? '' },
]

describe('rows that are retired', () => {
  it('stay where they are looked up by name, and are offered no more unless one is chosen', () => {
    const reference = referenceFrom(demoReference, gone)
    expect(reference.vises).toEqual(demoReference.vises)
    expect(inForce(reference, 'vises')).toEqual(demoReference.vises.slice(1))
    expect(inForce(reference, 'vises', vise?.id)).toEqual(demoReference.vises)
    expect(inForce(reference, 'collets')).toEqual(demoReference.collets)
    expect(inForce(demoReference, 'vises')).toEqual(demoReference.vises)
  })

  it('are no tool of a number, though they are named', () => {
    const reference = referenceFrom(demoReference, gone)
    expect(reference.tools).toEqual(demoReference.tools.slice(1))
    expect(namesIn(reference)(tool?.id ?? '')).toBe(tool?.name)
    // What is retired and not in the lists is nothing.
    expect(referenceFrom(demoReference, [{ noun: 'vises', id: 'none' }])).toEqual(demoReference)
  })
})
