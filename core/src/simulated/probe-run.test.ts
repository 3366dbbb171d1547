import { describe, expect, it } from 'vitest'
import { times } from '../../testing/depth.ts'
import { writeSetLengths } from '../pickup/index.ts'
import { type ProbeTask, writeProbe } from '../probe/index.ts'
import { convertLength } from '../quantity/index.ts'
import { advance } from './act.ts'
import type { SimulatedMill } from './contact.ts'
import { boxOf, handOn, own, probeOver } from './hand.ts'
import { fromFrame } from './plan-geometry.ts'
import { millOf, UNITS } from './testing.ts'
import type { SeenBody } from './view-schema.ts'
import { blockMiddle } from './world.ts'

/** A good hand at a mill with a block in its vise: the probe is put by eye, and a program finds the rest. */
function probedBy(simulated: SimulatedMill, feature: 'block' | 'corner-top', within: number) {
  const hand = handOn(simulated)
  const { machine, profile, unit } = simulated.world
  const length = (inch: number) => convertLength(inch, 'inch', unit)
  const [clearance, inset] = [length(0.375), length(0.5)]
  const { seen } = probeOver(hand, feature === 'block' ? undefined : inset)
  const box = boxOf(seen?.bodies.find(({ role }) => role === 'part') as SeenBody)
  const { positions, mounted } = hand.see()
  const task: ProbeTask = {
    feature,
    axis: 'X',
    directionX: '+',
    directionY: '+',
    x: 0,
    y: 0,
    top: 0,
    depth: length(-0.25),
    size: box.X[1] - box.X[0],
    sizeY: box.Y[1] - box.Y[0],
    gap: own(hand, 0.375),
    search: own(hand, 0.375) + within,
    within,
    inset,
    clearance,
    start: {
      X: positions.X ?? 0,
      Y: positions.Y ?? 0,
      Z: positions.Z ?? 0,
      length: mounted.length ?? 0,
    },
  }
  const { probe } = machine
  if (!probe) throw new Error('no probe')
  const written = writeProbe(task, { machine, shape: probe, unit, offset: 'G54', near: {} }, profile, [])
  if (!written.ok) throw new Error(written.findings[0]?.says)
  // The length of the probe stands in the tool table of the control.
  hand.do({ do: 'key-length', tool: probe.tool, length: mounted.length ?? 0 })
  hand.do({ do: 'load', text: written.text })
  hand.do({ do: 'single', on: false })
  hand.do({ do: 'override', rapid: 100 })
  hand.do({ do: 'start' })
  for (let n = 0; n < 40 && hand.simulated.run?.phase === 'running'; n++)
    hand.simulated = advance(hand.simulated, 1000)
  return { simulated: hand.simulated, view: hand.see() }
}

describe.each(UNITS)('a zero by one program at the simulated machine, %s', (unit) => {
  const tenth = convertLength(0.0001, 'inch', unit)
  const within = convertLength(0.125, 'inch', unit)
  const seeds = Array.from({ length: times(6, 40) }, (_, n) => 100 + 7 * n)

  it.each(seeds)(
    'a block, middle and top: it lies where it is, and is as large as it is (seed %i)',
    (seed) => {
      const start = millOf(seed, unit, { squared: true })
      const { simulated, view } = probedBy(start, 'block', within)
      expect([simulated.alarm, simulated.run?.phase]).toEqual([null, 'stopped'])
      const { block } = start.world
      const middle = blockMiddle(start.world, start.vise.frame)
      const { X = 0, Y = 0, Z = 0 } = view.offsets.G54 ?? {}
      expect(Math.abs(X - middle.X)).toBeLessThan(tenth)
      expect(Math.abs(Y - middle.Y)).toBeLessThan(tenth)
      expect(Math.abs(Z - block.top)).toBeLessThan(tenth)
      // Two touches, each within six tenths of a tenth.
      expect(Math.abs((view.variables[100] ?? 0) - block.size.x)).toBeLessThan(1.5 * tenth)
      expect(Math.abs((view.variables[101] ?? 0) - block.size.y)).toBeLessThan(1.5 * tenth)
      // It ends over the middle, spindle up, the probe still in it.
      expect(view.positions.Z).toBe(0)
      expect(Math.hypot((view.positions.X ?? 0) - middle.X, (view.positions.Y ?? 0) - middle.Y)).toBeLessThan(
        2 * tenth,
      )
      expect(view.mounted.kind).toBe('probe')
    },
  )

  it('scatters as a probe does: the same program finds not quite the same, and no further off than it repeats', () => {
    const start = millOf(31, unit, { squared: true })
    const first = probedBy(start, 'block', within)
    const again = handOn(first.simulated)
    again.do({ do: 'reset' })
    again.do({ do: 'start' })
    for (let n = 0; n < 40 && again.simulated.run?.phase === 'running'; n++)
      again.simulated = advance(again.simulated, 1000)
    const sizes = [first.view, again.see()].map(({ variables }) => variables[100] ?? 0)
    const apart = Math.abs((sizes[1] ?? 0) - (sizes[0] ?? 0))
    expect(apart).toBeGreaterThan(1e-9)
    expect(apart).toBeLessThan(2.5 * tenth)
    // From the same machine it is the same again: a run can be looked at once more.
    expect(probedBy(start, 'block', within).view.variables).toEqual(first.view.variables)
  })

  it.each(seeds)('a corner and its top (seed %i)', (seed) => {
    const start = millOf(seed, unit, { squared: true })
    const { simulated, view } = probedBy(start, 'corner-top', within)
    expect([simulated.alarm, simulated.run?.phase]).toEqual([null, 'stopped'])
    const { block } = start.world
    const corner = fromFrame(start.vise.frame, { x: block.x, y: -block.size.y })
    const { X = 0, Y = 0, Z = 0 } = view.offsets.G54 ?? {}
    // A vise that is square within a few tenths over its length: a touch half an inch along is off by less.
    expect(Math.abs(X - corner.x)).toBeLessThan(tenth)
    expect(Math.abs(Y - corner.y)).toBeLessThan(tenth)
    expect(Math.abs(Z - block.top)).toBeLessThan(tenth)
  })
})

describe('the macro of a tool setter at the simulated machine', () => {
  it('leaves the true length in the table, to the last digit of the display', () => {
    const start = millOf(7, 'inch', { squared: true })
    const { machine, profile, unit, tools } = start.world
    const numbers = tools.map(({ shape }) => shape.number)
    const written = writeSetLengths(numbers, { machine, unit, profile }, [])
    if (!written.ok) throw new Error(written.findings[0]?.says)
    const hand = handOn(start)
    hand.do({ do: 'load', text: written.text })
    hand.do({ do: 'single', on: false })
    hand.do({ do: 'start' })
    for (let n = 0; n < 40 && hand.simulated.run?.phase === 'running'; n++)
      hand.simulated = advance(hand.simulated, 1000)
    expect(hand.simulated.alarm).toBeNull()
    for (const { shape, length } of tools)
      expect(Math.abs((hand.simulated.lengths[shape.number] ?? 0) - length)).toBeLessThan(0.00006)
  })
})
