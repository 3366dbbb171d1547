import { describe, expect, it } from 'vitest'
import { howStale } from './fact.ts'

describe('why something is stale', () => {
  it.each([
    ['taken before the vise was moved', 'was taken before the vise was moved'],
    ['perhaps taken before the alarm', 'was perhaps taken before the alarm'],
    ['rests on X as it was before', 'rests on X as it was before'],
  ])('follows its name: %s', (says, follows) => {
    expect(howStale({ says })).toBe(follows)
  })
})
