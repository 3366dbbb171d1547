import { sampleStandardDeviation } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { judgeWorkShift, readWorkShift, type WorkShiftReading, workShift } from './work-shift.ts'

const lathe = demoReference.machines.find(({ kind }) => kind === 'lathe') as Machine
const settings = { unit: 'inch', leastStep: 0.0001 } as const
const reading = (machinePosition: string, geometry = -11, doubt = 0.0005): WorkShiftReading => {
  const read = readWorkShift(
    { tool: 'T4', machinePosition, drawingPosition: '0' },
    { value: geometry, doubt },
    'inch',
  )
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}
const codes = (of: WorkShiftReading, last?: { value: number; fresh: boolean }) =>
  judgeWorkShift(of, workShift(of, settings), { machine: lathe, unit: 'inch', last }).map(({ code }) => code)

describe('what can be wrong with a work shift', () => {
  it.each([
    ['-10.75', []],
    ['10.75', ['outside-travel', 'far-shift']],
    // Another tool at the face, or another chuck.
    ['-4', ['far-shift']],
    // -273.05 mm, typed into inches; and the other way round.
    ['-273.05', ['outside-travel', 'unit-mixed']],
    ['-.4232', ['unit-mixed']],
  ])('Z %s: %o', (at, expected) => {
    expect(codes(reading(at))).toEqual(expected)
  })

  it('one that is what it was, to the last digit, is noted where that no longer held', () => {
    const same = reading('-10.75')
    const { value } = workShift(same, settings)
    expect(codes(same, { value, fresh: false })).toEqual(['unchanged'])
    expect(codes(same, { value, fresh: true })).toEqual([])
  })
})

describe('the doubt of a work shift', () => {
  it('is what a Monte Carlo of the touch and of the geometry scatters (JCGM 101:2008)', () => {
    let state = 99
    // A linear congruential generator (Numerical Recipes, from memory): only its evenness counts here.
    const even = () => {
      state = (1664525 * state + 1013904223) >>> 0
      return state / 2 ** 32
    }
    const normal = () => Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even())
    const values = Array.from({ length: 5000 }, () => {
      const shown = Math.round((-10.75 + 0.0005 * normal()) / 0.0001) * 0.0001
      return workShift(reading(shown.toFixed(4), -11 + 0.0007 * normal()), settings).value
    })
    const { doubt } = workShift(reading('-10.75', -11, 0.0007), settings)
    expect(doubt.value / sampleStandardDeviation(values)).toBeGreaterThan(0.9)
    expect(doubt.value / sampleStandardDeviation(values)).toBeLessThan(1.1)
  })
})
