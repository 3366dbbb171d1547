import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { pickUp } from './pick-up.ts'
import type { Reading } from './reading.ts'
import { measureStock, type StockAsked, stockHeight, type TouchedStock, type ZeroAlong } from './stock.ts'
import { readStockDraft, startingStock, stockDraftOf } from './stock-draft.ts'
import { touchedAt, zeroMoved } from './touched.ts'

const inch = (value: number) => ({ text: String(value), value, unit: 'inch' as const })
const asked = (more: Partial<StockAsked> = {}): StockAsked => ({
  finished: { X: inch(4), Y: inch(2), Z: inch(1.25) },
  offTop: inch(0.05),
  offLow: {},
  zero: { X: 'middle', Y: 'middle', Z: 'finished-top' },
  ...more,
})
const round = (value: number, at = 0, doubt = 0.0002): TouchedStock => ({
  at,
  side: 'round',
  size: { value, doubt },
})
const set = { unit: 'inch' as const }

describe('a block against the part that is asked for', () => {
  // By hand: 4.200 for 4.000 leaves 0.200, a tenth a side; 2.100 for 2.000 leaves 0.050 a side; 1.375 high for 1.250 and 0.050 off the top leaves 0.075.
  it('what comes off each face, shared along the table, from top and height up and down', () => {
    const { X, Y, Z, findings } = measureStock(
      asked(),
      { X: round(4.2), Y: round(2.1), Z: { at: 0, side: 'minus', size: { value: 1.375, doubt: 0.0005 } } },
      set,
    )
    expect([X.low, X.high, Y.low, Y.high, Z.top, Z.bottom].map((value) => Number(value?.toFixed(9)))).toEqual(
      [0.1, 0.1, 0.05, 0.05, 0.05, 0.075],
    )
    // The middle is zero, and stays; the top of the stock lies a twentieth above the finished face.
    expect([X.wanted, Y.wanted, Z.wanted]).toEqual([0, 0, 0.05])
    expect(findings).toEqual([])
  })

  it.each([
    ['the middle', 'middle', undefined, 0],
    ['the left face: half of the part, and the middle stays in the middle', 'low', undefined, 2],
    ['the right face', 'high', undefined, -2],
    // A fiftieth off the left and the rest off the right: the middle lies further right by 0.1 - 0.02.
    ['the middle, with less off the left', 'middle', 0.02, 0.08],
    ['the left face, with less off it', 'low', 0.02, 2.08],
  ] as [string, ZeroAlong, number | undefined, number][])('zero at %s', (_, zero, off, wanted) => {
    const { X } = measureStock(
      asked({
        zero: { X: zero, Y: 'middle', Z: 'stock-top' },
        offLow: off === undefined ? {} : { X: inch(off) },
      }),
      { X: round(4.2) },
      set,
    )
    expect(X.wanted).toBeCloseTo(wanted, 12)
    expect((X.low ?? 0) + (X.high ?? 0)).toBeCloseTo(0.2, 12)
  })

  it('of which one face was touched: what is said counts for that one, and the rest is said to be unknown', () => {
    const one = (side: 'plus' | 'minus', off?: number) =>
      measureStock(
        asked({
          zero: { X: 'low', Y: 'middle', Z: 'stock-top' },
          offLow: off === undefined ? {} : { X: inch(off) },
        }),
        { X: { at: 0, side } },
        set,
      )
    expect(one('plus', 0.03).X).toMatchObject({ low: 0.03, wanted: -0.03 })
    expect(one('minus', 0.03).X).toMatchObject({ high: 0.03, wanted: 4.03 })
    expect(one('plus').X.wanted).toBeUndefined()
    expect(
      one('plus', 0.03).findings.map(({ severity, code, where }) => `${severity} ${code} ${where}`),
    ).toEqual(['look not-measured X', 'look not-measured Y'])
  })

  it('keeps the block where it lies, whatever zero is chosen: its low face and its high face on the drawing', () => {
    const number = (least: number, greatest: number) =>
      fc.integer({ min: Math.round(least * 1e4), max: Math.round(greatest * 1e4) }).map((n) => n / 1e4)
    fc.assert(
      fc.property(
        number(1, 8),
        number(0, 0.4),
        fc.option(number(0, 0.2), { nil: undefined }),
        fc.constantFrom('low' as const, 'middle' as const, 'high' as const),
        (finished, spare, off, zero) => {
          const size = finished + spare
          const { X } = measureStock(
            asked({
              finished: { X: inch(finished), Y: inch(2) },
              offLow: off === undefined ? {} : { X: inch(off) },
              zero: { X: zero, Y: 'middle', Z: 'stock-top' },
            }),
            { X: round(size) },
            set,
          )
          // Seen from the finished part's own low face: the block begins as far before it as comes off, and is as long as it is.
          const low = { low: 0, middle: finished / 2, high: finished }[zero]
          const begins = (X.wanted ?? Number.NaN) + low - size / 2
          expect(begins).toBeCloseTo(-(off ?? spare / 2), 9)
          expect(begins + size).toBeCloseTo(finished + (X.high ?? Number.NaN), 9)
        },
      ),
      depth(100, 1000),
    )
  })

  const jaws = { name: 'The vise', opening: 2.05 }
  it.each([
    ['too short', { X: round(3.9) }, {}, 'stop too-small X'],
    ['as long as it is known: no', { X: round(3.9999) }, {}, undefined],
    ['length and width turned round', { X: round(2.1), Y: round(4.2) }, {}, 'stop lies-turned-round X'],
    ['mm typed for inch', { X: round(4.2 / 25.4) }, {}, 'stop unit-mixed X'],
    ['a touch on a jaw: wider than the vise opens', { Y: round(2.1) }, { jaws }, 'stop larger-than-jaws Y'],
    ['another block', { X: round(5.4) }, {}, 'look much-comes-off X'],
    ['a sawn face that would not clean up', { X: round(4.012) }, {}, 'look thin-cut X'],
  ] as [string, Partial<Record<'X' | 'Y', TouchedStock>>, { jaws?: typeof jaws }, string | undefined][])(
    '%s',
    (_, touched, more, expected) => {
      const codes = measureStock(
        asked(),
        { X: round(4.2), Y: round(2.1), ...touched },
        { ...set, ...more },
      ).findings.map(({ severity, code, where }) => `${severity} ${code} ${where}`)
      expect(codes[0]).toBe(expected)
    },
  )

  it('more off one face than there is, and a block that is too low', () => {
    const codes = (more: Partial<StockAsked>, height = 1.375) =>
      measureStock(
        asked(more),
        { X: round(4.2), Y: round(2.1), Z: { at: 0, side: 'minus', size: { value: height, doubt: 0 } } },
        set,
      ).findings.map(({ severity, code }) => `${severity} ${code}`)
    expect(codes({ offLow: { X: inch(0.3) } })).toEqual(['stop face-short'])
    expect(codes({}, 1.29)).toEqual(['stop too-low'])
    expect(codes({ offTop: inch(0.6) }, 3)).toEqual(['look much-comes-off'])
  })
})

describe('the height of a block', () => {
  const top: Reading = {
    method: 'probe-down',
    axis: 'Z',
    tool: 20,
    machinePosition: inch(-9),
    toolLength: inch(6),
    blockHeight: inch(0),
    drawingPosition: inch(0.05),
  }
  it('is the position at its top less that at its seat, whatever was chosen for zero', () => {
    const { value, position } = pickUp(top, { unit: 'inch', leastStep: 0.0001 })
    expect(stockHeight(inch(-10.5), undefined, { reading: top, value, position, at: 0.05 })).toBeCloseTo(
      1.5,
      12,
    )
  })
  it('with the length of the probe where its cycle has set zero: that shows no position', () => {
    // G54 Z -15.05 for a top that lies 0.05 above zero: the tip touched at -15, the gauge line stood at -9.
    const reading: Reading = {
      method: 'probe-set',
      axis: 'Z',
      shown: inch(-15.05),
      drawingPosition: inch(0.05),
    }
    const of = { reading, value: -15.05, position: -15.05, at: 0.05 }
    expect(stockHeight(inch(-10.5), 6, of)).toBeCloseTo(1.5, 12)
    expect(stockHeight(inch(-10.5), undefined, of)).toBeUndefined()
  })
})

describe('part zero put elsewhere on the drawing', () => {
  const settings = { unit: 'inch', leastStep: 0.0001 } as const
  const readings: Reading[] = [
    {
      method: 'edge-finder',
      axis: 'X',
      direction: '+',
      diameter: inch(0.2),
      machinePosition: inch(-14),
      drawingPosition: inch(0),
    },
    { method: 'sensor', axis: 'Y', machinePosition: inch(-6), drawingPosition: inch(1) },
    {
      method: 'middle',
      axis: 'X',
      device: 'probe',
      side: 'web',
      diameter: inch(0.2),
      low: inch(-17),
      high: inch(-13),
      drawingPosition: inch(0),
    },
    { method: 'probe-set', axis: 'X', shown: inch(-15), size: inch(4), drawingPosition: inch(0) },
    {
      method: 'from-offset',
      axis: 'X',
      source: 'G55',
      base: inch(-15),
      baseDoubt: inch(0.0001),
      shift: inch(1),
      shiftWithin: inch(0),
    },
    {
      method: 'corner',
      axis: 'Y',
      device: 'probe',
      diameter: inch(0.2),
      directionX: '+',
      pointsX: [{ x: inch(-14), y: inch(-6) }],
      directionY: '+',
      pointsY: [
        { x: inch(-13), y: inch(-7) },
        { x: inch(-11), y: inch(-7) },
      ],
      cornerAngle: 90,
      drawingX: inch(0),
      drawingY: inch(0),
    },
  ]
  it.each(readings.map((of) => [of.method, of] as const))(
    '%s: zero goes the other way by as much, and back again',
    (_, of) => {
      const before = pickUp(of, settings).value
      const moved = zeroMoved(of, 0.75, 'inch')
      expect(pickUp(moved, settings).value).toBeCloseTo(before - 0.75, 9)
      // What was read at the machine stays as it was typed.
      expect(pickUp(moved, settings).position).toBeCloseTo(
        pickUp(of, settings).position - (of.method === 'from-offset' ? 0.75 : 0),
        9,
      )
      expect(pickUp(zeroMoved(moved, -0.75, 'inch'), settings).value).toBeCloseTo(before, 9)
      const [a, b] = [touchedAt(of, 'inch'), touchedAt(moved, 'inch')]
      if (a) expect(b).toEqual({ at: a.at + 0.75, side: a.side })
    },
  )
})

describe('the form of a block', () => {
  const draft = { ...startingStock({}), X: '4', Y: '2', offTop: '.05' }
  it('asks for the part and what comes off the top; the rest may stay empty', () => {
    expect(readStockDraft(draft, 'inch', false)).toMatchObject({
      ok: true,
      value: { finished: { X: { value: 4 }, Y: { value: 2 } }, offLow: {}, offTop: { value: 0.05 } },
    })
    expect(readStockDraft(startingStock({}), 'inch', false)).toMatchObject({
      problems: { X: { empty: true }, Y: { empty: true }, offTop: { empty: true } },
    })
  })
  it.each([
    [{ offTop: '-.05' }, 'offTop', 'zero or more'],
    [{ X: '-4' }, 'X', 'more than zero'],
    [{ offX: '-1' }, 'offX', 'zero or more'],
    [{ seat: 'x' }, 'seat', 'x'],
    [{ Z: '0' }, 'Z', 'more than zero'],
    [{ offTop: '1000000000000000000000000000000' }, 'offTop', 'longer than any machine'],
  ])('%o is said at its field', (part, field, says) => {
    const read = readStockDraft({ ...draft, ...part }, 'inch', false)
    expect(read.ok ? {} : Object.keys(read.problems)).toEqual([field])
    expect(read.ok ? '' : read.problems[field]?.says).toContain(says)
  })
  it('wants the length of the probe only for a seat, and only where its cycle set Z', () => {
    expect(readStockDraft({ ...draft, seat: '-10' }, 'inch', true)).toMatchObject({
      problems: { seatLength: { empty: true } },
    })
    expect(readStockDraft({ ...draft, seat: '-10', seatLength: '6' }, 'inch', true).ok).toBe(true)
    expect(readStockDraft({ ...draft, seat: '-10; -10.0002' }, 'inch', false).ok).toBe(true)
  })
  it('begins with zero where it stands', () => {
    expect(
      startingStock({
        X: { at: 0, side: 'plus' },
        Y: { at: 0, side: 'round' },
        Z: { at: 0.05, side: 'minus' },
      }),
    ).toMatchObject({ zeroX: 'low', zeroY: 'middle', zeroZ: 'finished-top' })
    expect(startingStock({ X: { at: -2, side: 'round' }, Y: { at: 0, side: 'minus' } })).toMatchObject({
      zeroX: 'high',
      zeroY: 'high',
      zeroZ: 'stock-top',
    })
  })
  it('comes back as it was typed', () => {
    const whole = { ...draft, Z: '1-1/4', offX: '.02', seat: '-10.5', zeroX: 'low' as const }
    const read = readStockDraft(whole, 'inch', false)
    expect(read.ok && stockDraftOf(read.value)).toEqual(whole)
  })
})
