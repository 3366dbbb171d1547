import fc from 'fast-check'
import { mean, rootMeanSquare } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { asTyped } from '../quantity/index.ts'
import { readDraft } from './draft.ts'
import { pickUp } from './pick-up.ts'
import type { Reading } from './reading.ts'

const inch = { unit: 'inch', leastStep: 0.0001 } as const
const mm = { unit: 'mm', leastStep: 0.001 } as const
const at = (value: number) => asTyped(value, 'inch')

const edge = (direction: '+' | '-', machinePosition: number, diameter = 0.2, drawing = 0): Reading => ({
  method: 'edge-finder',
  axis: 'X',
  direction,
  diameter: at(diameter),
  machinePosition: at(machinePosition),
  drawingPosition: at(drawing),
})
const indicated = (minus: number, plus: number): Reading => ({
  method: 'indicator',
  axis: 'Y',
  minusSide: at(minus),
  plusSide: at(plus),
  drawingPosition: at(0),
})
const touched = (position: number, length: number, block: number, drawing = 0): Reading => ({
  method: 'tool-on-block',
  axis: 'Z',
  tool: 7,
  toolLength: at(length),
  blockHeight: at(block),
  machinePosition: at(position),
  drawingPosition: at(drawing),
})

describe('edge finder (common practice: half the tip lies between the spindle and the face)', () => {
  it('adds half the diameter moving +, takes it away moving -', () => {
    expect(pickUp(edge('+', -14.2312), inch).value).toBeCloseTo(-14.1312, 10)
    expect(pickUp(edge('-', -14.2312), inch).value).toBeCloseTo(-14.3312, 10)
    expect(pickUp(edge('+', -10, 0.5), inch).value).toBeCloseTo(-9.75, 10)
  })

  it('moves to part zero when the face is not part zero', () => {
    const pickup = pickUp(edge('+', -9.2205, 0.2, -3), inch)
    expect(pickup.value).toBeCloseTo(-6.1205, 10)
    expect(pickup.working.map(({ gives }) => gives)).toEqual(['-9.1205', '-6.1205'])
    expect(pickup.working[0]?.arithmetic).toBe('-9.2205 + 0.2000 / 2')
  })

  it('finds the middle of a block from its two faces, whatever the finder (an invariant of symmetry)', () => {
    const length = fc.integer({ min: -200_000, max: 200_000 }).map((n) => n / 10_000)
    const diameter = fc.integer({ min: 1, max: 10_000 }).map((n) => n / 10_000)
    fc.assert(
      fc.property(length, length, diameter, (face, width, d) => {
        const left = pickUp(edge('+', face - d / 2, d), inch).value
        const right = pickUp(edge('-', face + Math.abs(width) + d / 2, d), inch).value
        expect(left).toBeCloseTo(face, 9)
        expect(right).toBeCloseTo(face + Math.abs(width), 9)
      }),
    )
  })

  it('is good for about a thousandth (common practice), and says what the doubt is made of', () => {
    const { doubt } = pickUp(edge('+', -14.2312), inch)
    expect(doubt.value).toBeCloseTo(0.001, 5)
    expect(doubt.value).toBeCloseTo(rootMeanSquare(doubt.parts.map(({ value }) => value)) * Math.SQRT2, 12)
    expect(pickUp(edge('+', -14.2312), mm).doubt.value).toBeCloseTo(0.025, 4)
  })

  it('gives the same place in either unit', () => {
    const inInch = pickUp(edge('-', -3.5, 0.2, 1.25), inch).value
    expect(pickUp(edge('-', -3.5, 0.2, 1.25), mm).value).toBeCloseTo(inInch * 25.4, 9)
  })
})

describe('indicator on both sides of one plane (common practice)', () => {
  it('takes the middle, and half the distance for the swing', () => {
    fc.assert(
      fc.property(fc.integer({ min: -300_000, max: 0 }), fc.integer({ min: 1, max: 30_000 }), (m, s) => {
        const [minus, plus] = [(m - s) / 10_000, (m + s) / 10_000]
        const { value, swing } = pickUp(indicated(minus, plus), inch)
        expect(value).toBeCloseTo(mean([minus, plus]), 10)
        expect(swing).toBeCloseTo(s / 10_000, 10)
      }),
    )
  })

  it('leaves 1/sqrt 2 of a tenth', () => {
    expect(pickUp(indicated(-16.8021, -14.4987), inch).doubt.value).toBeCloseTo(0.0001 / Math.SQRT2, 5)
  })
})

describe('Z by a tool on a gauge block (common practice: position - length - block)', () => {
  it('takes away the tool and the block', () => {
    expect(pickUp(touched(-9.834, 4.512, 1), inch).value).toBeCloseTo(-15.346, 10)
    expect(pickUp(touched(-9.834, 4.512, 0, -0.25), inch).value).toBeCloseTo(-14.096, 10)
  })
  it('writes a negative length (master tool) so that a pencil can follow', () => {
    expect(pickUp(touched(-9.834, -0.512, 1), inch).working[0]?.arithmetic).toBe(
      '-9.8340 - (-0.5120) - 1.0000',
    )
  })
})

describe('a form that is not yet a reading', () => {
  it('says what each field needs', () => {
    const draft = readDraft(
      { method: 'edge-finder', axis: 'X', choices: {}, fields: { diameter: 'abc' } },
      'inch',
    )
    expect(draft).toMatchObject({
      ok: false,
      problems: {
        direction: { says: expect.stringContaining('which way'), empty: true },
        diameter: { says: expect.stringContaining('not a length'), empty: false },
        machinePosition: { empty: true },
      },
    })
    expect(
      readDraft({ method: 'tool-on-block', axis: 'Z', choices: {}, fields: { tool: '7.5' } }, 'inch'),
    ).toMatchObject({
      problems: { tool: { says: expect.stringContaining('whole number') } },
    })
  })

  it('becomes one when every field is understood', () => {
    const fields = {
      tool: 'T7',
      toolLength: '4.512',
      blockHeight: '25.4mm',
      machinePosition: '-9.834',
      drawingPosition: '0',
    }
    const draft = readDraft({ method: 'tool-on-block', axis: 'Z', choices: {}, fields }, 'inch')
    expect(draft.ok && pickUp(draft.reading, inch).value).toBeCloseTo(-15.346, 10)
  })
})
