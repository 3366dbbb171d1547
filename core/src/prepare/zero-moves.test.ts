import { describe, expect, it } from 'vitest'
import { demoReference } from '../demo/index.ts'
import type { StockAsked } from '../pickup/index.ts'
import {
  deriveSetup,
  type Entry,
  isUnreadable,
  type OffsetState,
  type Setup,
  stockOf,
} from '../setup/index.ts'
import { add, inch, opened } from '../setup/testing.ts'
import { moveHindrances, zeroAfter, zeroMoves } from './zero-moves.ts'

const on = { machine: { id: 'mill-1', version: 1 } }
const middle = (axis: 'X' | 'Y', at: number, size: number) =>
  add('pickup', {
    offset: 'G54',
    reading: { method: 'probe-set', axis, shown: inch(at), size: inch(size), drawingPosition: inch(0) },
    ...on,
  }) as Entry
const top = () =>
  add('pickup', {
    offset: 'G54',
    reading: { method: 'probe-set', axis: 'Z', shown: inch(-15), drawingPosition: inch(0) },
    ...on,
  }) as Entry
const block = () => [opened, middle('X', -15, 4.2), middle('Y', -8, 2.1), top()]
const asked: StockAsked = {
  finished: { X: inch(4), Y: inch(2) },
  offTop: inch(0.05),
  offLow: {},
  zero: { X: 'low', Y: 'low', Z: 'finished-top' },
}
const derived = (log: readonly Entry[]): Setup => {
  const setup = deriveSetup(log, demoReference)
  if (isUnreadable(setup)) throw new Error(setup.unreadable)
  return setup
}
const g54 = ({ offsets }: Setup) => offsets.find(({ name }) => name === 'G54') as OffsetState
const movesOf = (setup: Setup, of = asked) => zeroMoves(g54(setup), stockOf(of, g54(setup), setup), setup)
/** The log with zero moved as it is asked for. */
const moved = (log: readonly Entry[], of = asked) => [
  ...log,
  ...movesOf(derived(log), of).map(({ kind, ...body }) => add(kind, body) as Entry),
]

describe('part zero, from the middle and the top of the stock to the corner and the finished face', () => {
  // By hand: half of the finished part back along the table, the facing down.
  it('goes there on all axes, as was said before, and is judged as what it is: nothing was read again', () => {
    const before = derived(block())
    const said = Object.values(g54(before).axes).map((fact) =>
      zeroAfter(stockOf(asked, g54(before), before), fact),
    )
    const setup = derived(moved(block()))
    const { axes } = g54(setup)
    expect([axes.X?.value, axes.Y?.value, axes.Z?.value].map((value) => Number(value?.toFixed(9)))).toEqual([
      -17, -9, -15.05,
    ])
    expect(said).toEqual(
      [axes.X?.value, axes.Y?.value, axes.Z?.value].map((value) => expect.closeTo(value ?? 0, 12)),
    )
    expect(Object.values(axes).flatMap(({ findings }) => findings.map(({ code }) => code))).toEqual([])
    // There it stands: asked again, nothing goes anywhere.
    expect(Object.values(axes).map((fact) => zeroAfter(stockOf(asked, g54(setup), setup), fact))).toEqual([
      undefined,
      undefined,
      undefined,
    ])
    expect(movesOf(setup)).toEqual([])
  })

  it('and back again, to the last digit', () => {
    const back: StockAsked = { ...asked, zero: { X: 'middle', Y: 'middle', Z: 'stock-top' } }
    const { axes } = g54(derived(moved(moved(block()), back)))
    expect([axes.X?.value, axes.Y?.value, axes.Z?.value]).toEqual([-15, -8, -15])
  })

  it('makes stale what has places of the drawing in it; a zero that is taken again does not', () => {
    const layout = add('laid-out', {
      unit: 'inch',
      bodies: [
        {
          id: 'part',
          name: 'part',
          role: 'part',
          shape: 'box',
          at: { x: -2, y: -1, z: -1 },
          size: { x: 4, y: 2, z: 1 },
        },
      ],
    } as never) as Entry
    const stateOf = (log: readonly Entry[]) => derived(log).prove.layout?.freshness
    expect(stateOf([...block(), layout])?.state).toBe('fresh')
    expect(stateOf([...block(), layout, middle('X', -15.0001, 4.2)])?.state).toBe('fresh')
    expect(stateOf(moved([...block(), layout]))).toMatchObject({
      state: 'stale',
      cause: { says: 'placed before X0 was put elsewhere on the drawing' },
    })
  })

  it('leaves an axis alone that is stale, or whose touch does not tell', () => {
    const knocked = derived([...block(), add('happened', { what: 'part-reclamped', note: '' }) as Entry])
    expect(movesOf(knocked)).toEqual([])
    const said = [
      ...block(),
      add('pickup', {
        offset: 'G54',
        reading: { method: 'probe-set', axis: 'X', shown: inch(-15) },
        ...on,
      }) as Entry,
    ]
    expect(movesOf(derived(said)).map(({ reading }) => reading.axis)).toEqual(['Y', 'Z'])
  })

  it('does not go along the axes where the part lies turned by more than is allowed', () => {
    const angled = (rise: number) =>
      add('angled', {
        offset: 'G54',
        reading: {
          method: 'edge',
          device: 'probe',
          points: [
            { x: inch(-17), y: inch(-9) },
            { x: inch(-13), y: inch(-9 + rise) },
          ],
          nominal: 0,
        },
        reach: inch(4),
        allowed: inch(0.002),
        needsSquare: false,
        ...on,
      }) as Entry
    const stops = (log: readonly Entry[]) => {
      const setup = derived(log)
      return moveHindrances(movesOf(setup), g54(setup), setup).map(({ code }) => code)
    }
    expect(stops(block())).toEqual([])
    // 0.07 over 4 is one degree: root 5 along it is 0.039 off.
    expect(stops([opened, angled(0.07), ...block().slice(1)])).toContain('part-lies-turned')
    expect(stops([opened, angled(0.0001), ...block().slice(1)])).toEqual([])
  })

  it('is put nowhere that the machine cannot stand', () => {
    const setup = derived([opened, middle('X', -0.5, 4.2), middle('Y', -8, 2.1)])
    const far: StockAsked = { ...asked, zero: { ...asked.zero, X: 'high' } }
    expect(
      moveHindrances(movesOf(setup, far), g54(setup), setup).map(
        ({ severity, code }) => `${severity} ${code}`,
      ),
    ).toEqual(['stop zero-outside-travel'])
  })
})
