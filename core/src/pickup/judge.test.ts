import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { Machine } from '../machine/index.ts'
import { asTyped, type LengthUnit } from '../quantity/index.ts'
import type { Expectation } from './expectation.ts'
import { judgePickup } from './judge.ts'
import { pickUp } from './pick-up.ts'
import type { Reading } from './reading.ts'

const mill = demoReference.machines[0] as Machine
const settings = { unit: 'inch', leastStep: 0.0001 } as const

function codes(reading: Reading, more: Partial<Expectation> = {}): string[] {
  const expected: Expectation = { machine: mill, unit: 'inch', tolerance: 0.002, ...more }
  return judgePickup(reading, pickUp(reading, { ...settings, unit: expected.unit }), expected).map(
    ({ code }) => code,
  )
}

const edge = (
  machinePosition: number,
  more: { unit?: LengthUnit; drawing?: number; diameter?: number } = {},
): Reading => {
  const unit = more.unit ?? 'inch'
  return {
    method: 'edge-finder',
    axis: 'X',
    direction: '+',
    diameter: asTyped(more.diameter ?? 0.2, unit),
    machinePosition: asTyped(machinePosition, unit),
    drawingPosition: asTyped(more.drawing ?? 0, unit),
  }
}
const indicated = (minus: number, plus: number): Reading => ({
  method: 'indicator',
  axis: 'X',
  minusSide: asTyped(minus, 'inch'),
  plusSide: asTyped(plus, 'inch'),
  drawingPosition: asTyped(0, 'inch'),
})
const touched = (length: number, block: number): Reading => ({
  method: 'tool-on-block',
  axis: 'Z',
  tool: 1,
  toolLength: asTyped(length, 'inch'),
  blockHeight: asTyped(block, 'inch'),
  machinePosition: asTyped(-9, 'inch'),
  drawingPosition: asTyped(0, 'inch'),
})
/** A value taken before with the same finder, moving the same way. */
const was = (value: number, fresh = true) => ({ value, position: value - 0.1, doubt: 0.001, fresh })

// Mill 1 travels X -30 to 0, Y -16 to 0, Z -20 to 0 inch. Each slip below is one that is made in practice (common practice).
describe('a pickup is judged before it is recorded', () => {
  it('is good when nothing speaks against it', () => {
    expect(codes(edge(-14.2312))).toEqual([])
    expect(codes(edge(-14.2312), { last: was(-14.1312) })).toEqual([])
  })

  it('stops outside the travel and says which slip would bring it inside', () => {
    const expected: Expectation = { machine: mill, unit: 'inch', tolerance: 0.002 }
    const fixes = (position: number) =>
      judgePickup(edge(position), pickUp(edge(position), settings), expected)[0]?.fix
    expect(codes(edge(14.2312))).toContain('outside-travel')
    expect(fixes(14.2312)).toMatch(/other sign/)
    expect(fixes(-361.47)).toMatch(/millimetres/)
    expect(fixes(-95_000)).toMatch(/again/)
    expect(codes(edge(-30.00005))).toEqual([])
  })

  it('reads travels in the setup unit', () => {
    expect(codes(edge(-700, { unit: 'mm', diameter: 10 }), { unit: 'mm', tolerance: 0.05 })).toEqual([])
    expect(codes(edge(-763, { unit: 'mm', diameter: 10 }), { unit: 'mm', tolerance: 0.05 })).toEqual([
      'outside-travel',
    ])
  })

  it('looks again when part zero itself cannot be reached', () => {
    expect(codes(edge(-1, { drawing: -3 }))).toEqual(['zero-outside-travel'])
  })

  it('knows the usual slips against the last value', () => {
    expect(codes(edge(-14.2312), { last: was(14.3312) })).toEqual(['sign-flipped'])
    expect(codes(edge(-14.2312), { last: was(-8), lastOther: was(-14.13) })).toEqual(['axes-swapped'])
    expect(codes(edge(-14.2312), { last: was(-14.1352) })).toEqual([])
    expect(codes(edge(-14.2312), { last: was(-14.1362) })).toEqual(['far-from-last'])
    expect(codes(edge(-14.2312), { last: was(-14.6, false) })).toEqual([])
    expect(codes(edge(-14.2312), { last: was(-15.6, false) })).toEqual(['far-from-last'])
  })

  it('knows an inch position in a mm setup, whatever the finder and the drawing add to it', () => {
    const inMm = edge(-9.4, { unit: 'mm', diameter: 10, drawing: -76.2 })
    const last = { value: -9.4 * 25.4 + 5 + 76.2, position: -9.4 * 25.4, doubt: 0.025, fresh: true }
    expect(codes(inMm, { unit: 'mm', tolerance: 0.05, last })).toContain('unit-mixed')
  })

  it('guards the edge finder', () => {
    expect(codes(edge(-14, { diameter: 0 }))).toEqual(['finder-diameter'])
    expect(codes(edge(-14, { diameter: -0.2 }))).toEqual(['finder-diameter'])
    expect(codes(edge(-14, { diameter: 5 }))).toEqual(['finder-diameter'])
  })

  it('guards the indicator: the swing is its own radius, the same on X and Y', () => {
    expect(codes(indicated(-15, -13), { otherSwing: 1.0002 })).toEqual([])
    expect(codes(indicated(-15, -13), { otherSwing: 1.001 })).toEqual(['swings-disagree'])
    expect(codes(indicated(-14, -14))).toEqual(['no-swing'])
    expect(codes(indicated(-13, -15))).toEqual(['sides-turned-round'])
    expect(codes(indicated(-29, -1))).toEqual(['large-swing'])
  })

  it('guards the tool on a block, by the shop convention for lengths', () => {
    const master = { ...mill, toolLengths: 'master-tool' as const }
    expect(codes(touched(4.5, 1))).toEqual([])
    expect(codes(touched(-4.5, 1))).toEqual(['tool-length-sign'])
    expect(codes(touched(-4.5, 1), { machine: master })).toEqual([])
    expect(codes(touched(4.5, -1))).toEqual(['block-height'])
  })

  it('holds the doubt of the method against what the part allows', () => {
    expect(codes(edge(-14.2312), { tolerance: 0.001 })).toEqual([])
    expect(codes(edge(-14.2312), { tolerance: 0.0005 })).toEqual(['doubt-over-tolerance'])
    expect(codes(indicated(-15, -13), { tolerance: 0.0005 })).toEqual([])
  })
})

describe('a probe cycle that may not have run', () => {
  const shown = (value: number): Reading => ({
    method: 'probe-set',
    axis: 'X',
    shown: asTyped(value, 'inch'),
  })
  const stood = (fresh: boolean) => ({ last: { value: -15.0502, position: -15.0502, doubt: 0.0001, fresh } })
  it('is said where it leaves what stood before, to the last digit: worse where that was stale', () => {
    const found = (value: number, fresh: boolean) =>
      judgePickup(shown(value), pickUp(shown(value), settings), {
        machine: mill,
        unit: 'inch',
        tolerance: 0.002,
        ...stood(fresh),
      }).map(({ severity, code }) => `${severity} ${code}`)
    expect(found(-15.0502, true)).toEqual(['note unchanged-result'])
    expect(found(-15.0502, false)).toEqual(['look unchanged-result'])
    expect(found(-15.0503, true)).toEqual([])
  })
  it('is not said of another way of finding it, nor of a zero that was moved', () => {
    expect(codes(edge(-15.1502), stood(false))).not.toContain('unchanged-result')
    const moved: Reading = { ...shown(-15), shift: asTyped(-0.0502, 'inch') } as Reading
    expect(codes(moved, stood(true))).toEqual([])
  })
})
