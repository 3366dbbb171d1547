import { readEntry } from '@dogleg/core/setup'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { parse } from './parse.ts'
import { Problem } from './problem.ts'
import { anyEntry, noteEntry, openedEntry } from './testing/entries.ts'

const refusalOf = (schema: z.ZodType, data: unknown): string => {
  try {
    parse(schema, data)
  } catch (error) {
    if (error instanceof Problem) return error.message
    throw error
  }
  throw new Error('it was taken')
}
const faultOf = (data: unknown) => {
  const entry = readEntry(data)
  return entry.kind === 'unread' ? entry.says : ''
}
const { id } = openedEntry()

describe('a refusal', () => {
  it.each([
    ['an entry of a kind that there is not', anyEntry(id, { kind: 'vise-move' })],
    ['an entry without what it says', anyEntry(id, { kind: 'pickup' })],
    ['an entry whose words are a number', anyEntry(id, { kind: 'note', text: 5 })],
    ['an entry with another time', { ...noteEntry(id), at: 'yesterday' }],
    ['no entry at all', null],
    ['a list', [1, 2]],
  ])('is in plain words, without those of a schema: %s', (_what, data) => {
    expect(faultOf(data)).not.toMatch(/expected|received|invalid|undefined|discriminator|object|string/i)
    expect(faultOf(data)).toMatch(/^[A-Z][^|]*\. \([\w.]+\)$/)
  })

  it('is in the words of the form where it has its own', () => {
    expect(faultOf(noteEntry(id, ''))).toBe('Write the note first. (text)')
    expect(refusalOf(z.object({ n: z.int().max(3, 'At most three.') }), { n: 4 })).toBe('At most three. (n)')
  })
})
