import { describe, expect, it } from 'vitest'
import { searchTerms, TERMS, termsIn } from './index.ts'

const names = (terms: readonly { term: string }[]) => terms.map(({ term }) => term)

describe('the words of the trade', () => {
  it('stand in the order of the alphabet, each form once, and are said in one or two short sentences', () => {
    expect(names(TERMS)).toEqual(
      [...names(TERMS)].sort((a, b) => (a.toLowerCase() < b.toLowerCase() ? -1 : 1)),
    )
    const forms = TERMS.flatMap(({ term, also = [] }) => [term, ...also]).map((form) => form.toLowerCase())
    expect(new Set(forms).size).toBe(forms.length)
    for (const { term, says } of TERMS) {
      expect([term, says.length > 20 && says.length <= 130]).toEqual([term, true])
      expect(says).toMatch(/^[A-Z1].*[.]$/)
    }
  })

  it('are found in a text as whole words, the longer before the shorter, each once', () => {
    expect(names(termsIn('Tap drill'))).toEqual(['tap drill'])
    expect(names(termsIn('The tap and the tap drill; taps.'))).toEqual(['tap', 'tap drill'])
    expect(names(termsIn('Record the sweep of the fixed jaw'))).toEqual(['sweep', 'fixed jaw'])
    expect(names(termsIn('tape, tapering, a webbing'))).toEqual([])
    expect(names(termsIn('STALE'))).toEqual(['stale'])
    expect(termsIn('')).toEqual([])
  })

  it('are searched by how they begin, then by what is in them, then by their meaning', () => {
    expect(names(searchTerms('pe')).slice(0, 1)).toEqual(['peck'])
    expect(names(searchTerms('drill'))[0]).toBe('tap drill')
    expect(names(searchTerms('rubber'))).toEqual(['groove'])
    expect(searchTerms('  ')).toHaveLength(TERMS.length)
    expect(searchTerms('zebra')).toEqual([])
  })
})
