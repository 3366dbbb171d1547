import { describe, expect, it } from 'vitest'
import { pickUp } from '../pickup/index.ts'
import { emptyFound, foundFields, judgeFound, readFound } from './found.ts'
import type { ProbeTask } from './task.ts'

const task: ProbeTask = {
  feature: 'block',
  axis: 'X',
  directionX: '+',
  directionY: '+',
  x: 0,
  y: 1,
  top: 0.05,
  depth: -0.25,
  size: 4,
  sizeY: 2,
  gap: 0.375,
  search: 0.5,
  within: 0.125,
  clearance: 0.375,
  // The offset then begins at X -15, Y -9, Z -10 - 6 - 0.05 - 0.375 = -16.425.
  start: { X: -15, Y: -8, Z: -10, length: 6 },
}
const typed = { X: '-15.0502', Y: '-8.9601', Z: '-16.4004', length: '4.0312', width: '2.0108' }
const readings = (more: Partial<typeof typed> = {}) => {
  const read = readFound({ ...typed, ...more }, task, 'inch')
  if (!read.ok) throw new Error(Object.values(read.problems)[0]?.says)
  return read.value
}
const before = { unit: 'inch' as const, offset: 'G54', leastStep: 0.0001, last: {} }
/** What stood in the offset, and whether it held. */
const stood = (X: number, Y: number, Z: number, fresh = { X: true, Y: true, Z: true }) => ({
  X: { value: X, fresh: fresh.X },
  Y: { value: Y, fresh: fresh.Y },
  Z: { value: Z, fresh: fresh.Z },
})
const judged = (of = readings(), last = {}) => judgeFound(of, task, { ...before, last })
const codes = (of = readings(), last = {}) => judged(of, last).map(({ code, where }) => `${code} ${where}`)

describe('what a program for a whole zero found', () => {
  it('is a reading an axis: the middles with their sizes, the places that the program had them at', () => {
    const found = readings().map((reading) => pickUp(reading, { unit: 'inch', leastStep: 0.0001 }))
    expect(found.map(({ axis, value, size }) => [axis, value, size?.value])).toEqual([
      ['X', -15.0502, 4.0312],
      ['Y', -8.9601, 2.0108],
      ['Z', -16.4004, undefined],
    ])
    expect(readings().map((each) => 'drawingPosition' in each && each.drawingPosition?.value)).toEqual([
      0, 1, 0.05,
    ])
  })

  // A middle of two touches of 0.0001 each: 0.0001 / sqrt 2, with a display of 0.0001 (0.0001 / sqrt 12) in root of squares.
  it('is known as two touches leave it (JCGM 100:2008, by hand)', () => {
    const [x, , z] = readings().map((reading) => pickUp(reading, { unit: 'inch', leastStep: 0.0001 }))
    expect(x?.doubt.value).toBeCloseTo(Math.hypot(0.0001 / Math.SQRT2, 0.0001 / Math.sqrt(12)), 9)
    expect(z?.doubt.value).toBeCloseTo(Math.hypot(0.0001, 0.0001 / Math.sqrt(12)), 9)
    expect(x?.size?.doubt).toBeCloseTo(Math.hypot(0.0001 * Math.SQRT2, 0.0001 / Math.sqrt(12)), 9)
  })

  it('asks for no sizes of a corner, and for nothing of what one call measures', () => {
    expect(foundFields({ feature: 'corner-top' })).toEqual(['X', 'Y', 'Z'])
    expect(foundFields({ feature: 'bore' })).toEqual([])
    const read = readFound(
      { ...emptyFound, X: '-15', Y: '-9', Z: '-16' },
      { ...task, feature: 'corner-top' },
      'inch',
    )
    expect(read.ok && read.value.map((each) => 'size' in each)).toEqual([false, false, false])
  })

  it('says what a field still needs', () => {
    expect(readFound(emptyFound, task, 'inch')).toMatchObject({
      problems: { X: { empty: true }, width: { empty: true } },
    })
    expect(readFound({ ...typed, length: '-4' }, task, 'inch')).toMatchObject({
      problems: { length: { says: 'A size must be more than zero.' } },
    })
  })
})

describe('the step that is forgotten: another program ran', () => {
  it('is silent about what this one can have found', () => {
    expect(codes()).toEqual([])
    // Two axes may come out the same by chance.
    expect(codes(readings(), stood(-15.0502, -8.9601, -16.4))).toEqual([])
  })
  it('three axes as they stood, to the last digit: worse where one of them did not hold any more', () => {
    const at = [-15.0502, -8.9601, -16.4004] as const
    const said = (fresh?: Parameters<typeof stood>[3]) =>
      judged(readings(), stood(...at, fresh)).map(({ severity, code }) => `${severity} ${code}`)
    expect(said()).toEqual(['note old-program-ran'])
    expect(said({ X: true, Y: true, Z: false })).toEqual(['look old-program-ran'])
  })
  it('an axis further from where it began than it searches', () => {
    expect(codes(readings({ X: '-15.1251', Z: '-16.5504' }))).toEqual(['not-from-this-program Z'])
    expect(codes(readings({ X: '-18.351', Y: '-5.7205' }))).toEqual([
      'not-from-this-program X',
      'not-from-this-program Y',
    ])
  })
})
