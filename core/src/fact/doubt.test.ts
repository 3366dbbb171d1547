import { rootMeanSquare } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { combineDoubt, middleDoubt, resolutionDoubt } from './doubt.ts'
import { type Finding, finding, verdictOf, worstFirst } from './finding.ts'

describe('doubt', () => {
  it('combines the parts of the end gauge example to 32 nm (JCGM 100:2008, H.1, from memory)', () => {
    const parts = [25, 9.7, 2.9, 16.6].map((value) => ({ from: 'part', value }))
    expect(Math.round(combineDoubt(parts).value)).toBe(32)
    expect(combineDoubt(parts).value).toBeCloseTo(rootMeanSquare([25, 9.7, 2.9, 16.6]) * 2, 9)
  })

  it('takes 0.29 of a display step (JCGM 100:2008, F.2.2.1) and 1/sqrt 2 of one reading for a middle', () => {
    expect(resolutionDoubt(1)).toBeCloseTo(0.29, 2)
    expect(middleDoubt(0.0001)).toBeCloseTo(0.0000707, 7)
  })
})

describe('a finding', () => {
  it('says how to mend it where there is something to be done', () => {
    expect(finding('look', 'a', 'b', 'c', 'd', 'e')).toEqual({
      severity: 'look',
      code: 'a',
      where: 'b',
      says: 'c',
      why: 'd',
      fix: 'e',
    })
    expect(finding('look', 'a', 'b', 'c', 'd')).not.toHaveProperty('fix')
  })
})

describe('findings', () => {
  const of = (severity: Finding['severity']): Finding => ({
    severity,
    code: severity,
    where: '',
    says: '',
    why: '',
  })
  it('give the verdict of the worst one, and are shown worst first', () => {
    expect(verdictOf([of('note')])).toBe('good')
    expect(verdictOf([of('note'), of('look')])).toBe('look')
    expect(worstFirst([of('note'), of('look'), of('stop')]).map(({ code }) => code)).toEqual([
      'stop',
      'look',
      'note',
    ])
  })
})
