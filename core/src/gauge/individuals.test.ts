import { mean } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { individuals } from './individuals.ts'

describe('limits of single values', () => {
  it('are those of the flow rate example of NIST/SEMATECH e-Handbook 6.3.2.2 (values from memory)', () => {
    const flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1]
    const limits = individuals(flow)
    expect(limits?.mean).toBeCloseTo(mean(flow), 10)
    expect(limits?.movingRange).toBeCloseTo(1.8778, 4)
    expect(limits?.lower).toBeCloseTo(45.8159, 2)
    expect(limits?.upper).toBeCloseTo(55.8041, 2)
  })

  it('are not given for three values, and do not move for an order turned round', () => {
    expect(individuals([1, 2, 3])).toBeUndefined()
    expect(individuals([4, 1, 3, 2])).toEqual(individuals([2, 3, 1, 4]))
  })
})
