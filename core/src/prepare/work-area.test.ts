import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '../../testing/evenly.ts'
import { demoReference } from '../demo/index.ts'
import { SAMPLE_VISES, type Vise } from '../hold/index.ts'
import type { Reading } from '../pickup/index.ts'
import { type Body, boundsOf } from '../prove/index.ts'
import { asTyped } from '../quantity/index.ts'
import { deriveSetup, isUnreadable, offsetOf } from '../setup/index.ts'
import { add, derive, edge, holdLog, inch, pickup, touch } from '../setup/testing.ts'
import { startingAngle } from './drafts.ts'
import { jawsRound, knownBody, partSizes, reachOfPart } from './work-area.ts'

const known = (readings: Reading[], typed = {}) => {
  const setup = derive(
    readings.map((each) => pickup(each)),
    demoReference,
  )
  return knownBody(setup, offsetOf(setup, 'G54'), typed)
}
const sizes = { sizeX: 4, sizeY: 3, sizeZ: 1 }
const face = (axis: 'X' | 'Y', direction: '+' | '-', at = 0): Reading =>
  ({ ...edge(axis, -10), direction, drawingPosition: inch(at) }) as Reading

describe('the corner of a part, as zero was taken', () => {
  it('lies at the face that was touched: to the plus of one that the spindle went into towards plus', () => {
    // Left face and back face, Z on top: the usual corner of a part against the fixed jaw.
    expect(known([face('X', '+'), face('Y', '-'), touch(5)], sizes)).toEqual({
      numbers: { x: 0, y: -3, z: -1 },
      why: [
        'X of G54 was taken at its left face',
        'Y of G54 was taken at its back face',
        'Z of G54 was taken at its top',
      ],
    })
    expect(known([face('X', '-'), face('Y', '+')], sizes).numbers).toEqual({ x: -4, y: 0 })
    // The touched face is not part zero: it lies where the drawing has it.
    expect(known([face('X', '+', 0.5), face('Y', '-', -0.25)], sizes).numbers).toEqual({ x: 0.5, y: -3.25 })
  })

  it('lies half its width from the middle between its faces; a pocket tells nothing of its outside', () => {
    const middle = (side: 'web' | 'pocket'): Reading => ({
      method: 'middle',
      axis: 'X',
      device: 'edge-finder',
      side,
      diameter: inch(0.2),
      low: inch(-12),
      high: inch(-8),
      drawingPosition: inch(0),
    })
    expect(known([middle('web')], sizes).numbers).toEqual({ x: -2 })
    expect(known([middle('pocket')], sizes)).toEqual({ numbers: {}, why: [] })
  })

  it('waits for the size where the part lies before the face that was touched, and for the axis that nobody took', () => {
    expect(known([face('X', '+'), face('Y', '-')]).numbers).toEqual({ x: 0 })
    expect(known([face('X', '+'), face('Y', '-')], { sizeY: 2 }).numbers).toEqual({ x: 0, y: -2 })
    expect(known([])).toEqual({ numbers: {}, why: [] })
  })

  it('is in the unit of the setup, whatever the reading was typed in', () => {
    const mm = { ...face('X', '+'), drawingPosition: asTyped(25.4, 'mm') } as Reading
    expect(known([mm], sizes).numbers.x).toBeCloseTo(1, 12)
  })

  it('wherever the part was touched, the touched face of the box is there (any size, any place)', () => {
    const place = evenly(-5, 5)
    fc.assert(
      fc.property(
        place,
        evenly(0.1, 10),
        fc.constantFrom('+' as const, '-' as const),
        (at, size, direction) => {
          const { x = Number.NaN } = known([face('X', direction, at)], { sizeX: size }).numbers
          expect(direction === '+' ? x : x + size).toBeCloseTo(at, 9)
        },
      ),
      { numRuns: 40 },
    )
  })
})

it('a bar is as thick as the thickest that is gripped', () => {
  const setup = deriveSetup([holdLog.lathe, holdLog.gripped('16c', 'draw-tube')], demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  const { grip } = setup.hold
  const { numbers, why } = knownBody(setup, offsetOf(setup, 'T1'), { length: 2 })
  const { bars } = grip?.entry ?? {}
  if (bars?.known !== 'tolerance') throw new Error('the fixture has a bar by tolerance')
  expect(numbers.diameter).toBeCloseTo(bars.diameter.value + bars.spread.value / 2, 12)
  expect(why).toEqual(['the bar is that of Hold'])
})

describe('the jaws of a vise round a part', () => {
  const six = SAMPLE_VISES[0] as Vise
  const part: Body = {
    id: 'part',
    name: 'part',
    role: 'part',
    shape: 'box',
    at: { x: 0, y: -3, z: -1 },
    size: { x: 4, y: 3, z: 1 },
  }
  const boxes = (of = six, more = {}) =>
    jawsRound(of, { ...part, ...more } as Body, 'inch', { above: 0.4, fromLeft: 1 }).map((each) => [
      each.name,
      ...boundsOf(each).least,
      ...boundsOf(each).greatest,
    ])

  it('stand at its back and its front, as far below its top as it stands out (6 in sample: 2 and 3.5 thick, 1.7 high)', () => {
    const near = (row: (string | number)[] | undefined, [name, ...corners]: (string | number)[]) => {
      expect(row?.[0]).toBe(name)
      for (const [n, each] of corners.entries()) expect(row?.[n + 1]).toBeCloseTo(Number(each), 9)
    }
    const [fixed, moving] = boxes()
    near(fixed, ['fixed jaw', -1, 0, -2.1, 5, 2, -0.4])
    near(moving, ['moving jaw', -1, -6.5, -2.1, 5, -3, -0.4])
  })

  it('are not there where the vise does not open so far, or the part is round', () => {
    expect(boxes(six, { at: { x: 0, y: -7, z: -1 }, size: { x: 4, y: 7, z: 1 } })).toHaveLength(1)
    const round = { shape: 'cylinder', axis: 'Z', at: { x: 0, y: 0, z: -1 }, diameter: 2, length: 1 }
    expect(jawsRound(six, { ...part, ...round } as Body, 'inch', { above: 0.4, fromLeft: 0 })).toEqual([])
  })

  it('are the same in the other unit', () => {
    const mm = jawsRound(
      six,
      { ...part, at: { x: 0, y: -76.2, z: -25.4 }, size: { x: 101.6, y: 76.2, z: 25.4 } } as Body,
      'mm',
      { above: 10.16, fromLeft: 25.4 },
    )
    const inches = jawsRound(six, part, 'inch', { above: 0.4, fromLeft: 1 })
    expect(mm).toHaveLength(2)
    for (const [n, each] of mm.entries()) {
      const [a, b] = [boundsOf(each), boundsOf(inches[n] as Body)]
      for (const corner of ['least', 'greatest'] as const)
        for (const [axis, value] of a[corner].entries())
          expect(value / 25.4).toBeCloseTo(b[corner][axis] ?? Number.NaN, 9)
    }
  })
})

describe('how far the part reaches from part zero', () => {
  const laid = (bodies: Body[], unit: 'inch' | 'mm' = 'inch') =>
    derive([add('laid-out', { unit, bodies })], demoReference)
  const box = (x: number, y: number, role: Body['role'] = 'part'): Body => ({
    id: `b${x}`,
    name: 'b',
    role,
    shape: 'box',
    at: { x: 0, y: 0, z: 0 },
    size: { x, y, z: 1 },
  })
  it('is to its farthest corner (3-4-5), and starts the form of the angle; empty where nobody placed it', () => {
    expect(reachOfPart(laid([box(3, 4), box(30, 40, 'clamp')]))).toBeCloseTo(5, 12)
    expect(reachOfPart(laid([box(76.2, 101.6)], 'mm'))).toBeCloseTo(5, 9)
    expect(reachOfPart(laid([]))).toBeUndefined()
    const start = (of: ReturnType<typeof laid>) => startingAngle(of, offsetOf(of, 'G54')).reach
    expect(start(laid([box(3, 4)]))).toBe('5.0000')
    expect(start(laid([]))).toBe('')
  })
})

describe('how large the part is', () => {
  const laid = (bodies: object[], unit: 'inch' | 'mm' = 'inch') =>
    partSizes(derive([add('laid-out', { unit, bodies: bodies as Body[] })], demoReference))
  const part = { id: 'p', name: 'part', role: 'part', shape: 'box', at: { x: 1, y: -3, z: -1 } }
  const box = { ...part, size: { x: 4, y: 3, z: 1 } }
  const clamp = { ...box, id: 'c', role: 'clamp', size: { x: 9, y: 9, z: 9 } }
  const round = (axis: string) => ({ ...part, shape: 'cylinder', axis, diameter: 2, length: 5 })

  it('is as it was placed, whichever way it lies, in the unit of the setup', () => {
    expect(laid([clamp, box])).toEqual({ along: 4, high: 1 })
    expect(laid([round('Z')])).toEqual({ diameter: 2, high: 5 })
    expect(laid([round('X')])).toEqual({ along: 5, high: 2 })
    expect(laid([round('Y')])).toEqual({ along: 2, high: 2 })
    expect(laid([{ ...box, size: { x: 101.6, y: 76.2, z: 25.4 } }], 'mm')).toEqual({
      along: expect.closeTo(4, 9),
      high: expect.closeTo(1, 9),
    })
  })

  it('is nobody’s where none is placed, or several are', () => {
    expect(laid([])).toEqual({})
    expect(laid([clamp])).toEqual({})
    expect(laid([box, { ...box, id: 'q' }])).toEqual({})
  })
})
