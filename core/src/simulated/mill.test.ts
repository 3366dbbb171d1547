import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import { evenly } from '../../testing/evenly.ts'
import { act, switchOn } from './act.ts'
import { finderOf, WHEEL_STEPS } from './devices.ts'
import { handOn, indicateBothSides, touchByFinder, touchByProbe } from './hand.ts'
import { freeWay, outside, type Rect } from './plan-geometry.ts'
import type { SimulatedState } from './state.ts'
import { millOf } from './testing.ts'
import { viewOf } from './view.ts'
import { partZeroOf } from './world.ts'

const number = (least: number, most: number) => evenly(least, most)

describe('how far a disc is free', () => {
  // Checked against marching along the line and measuring the distance at each step.
  it('agrees with going along in small steps', () => {
    fc.assert(
      fc.property(
        number(-6, 6),
        number(-6, 6),
        number(0, 2 * Math.PI),
        number(-0.3, 1),
        (x, y, angle, radius) => {
          const rect: Rect = { x0: -1, x1: 2, y0: -1, y1: 0.5 }
          const direction = { x: Math.cos(angle), y: Math.sin(angle) }
          fc.pre(outside(rect, { x, y }) > radius + 0.01)
          const way = freeWay(rect, radius, { x, y }, direction)
          const at = (along: number) =>
            outside(rect, { x: x + along * direction.x, y: y + along * direction.y })
          let met = Number.POSITIVE_INFINITY
          for (let along = 0; along < 20; along += 0.002)
            if (at(along) < radius - 1e-3) {
              met = along
              break
            }
          if (met < 20) {
            expect(way).toBeLessThanOrEqual(met)
            expect(Math.abs(at(way) - radius)).toBeLessThan(1e-9)
          } else if (way < 20) expect(at(way)).toBeLessThanOrEqual(radius + 1e-9)
        },
      ),
      depth(100, 3000),
    )
  })

  it('lets what touches leave and slide along, and no deeper', () => {
    const rect: Rect = { x0: 0, x1: 4, y0: 0, y1: 2 }
    const touching = { x: -0.5, y: 1 }
    expect(freeWay(rect, 0.5, touching, { x: 1, y: 0 })).toBe(0)
    expect(freeWay(rect, 0.5, touching, { x: -1, y: 0 })).toBe(Number.POSITIVE_INFINITY)
    expect(freeWay(rect, 0.5, touching, { x: 0, y: 1 })).toBe(Number.POSITIVE_INFINITY)
  })
})

/** A mill whose edge finder or other device stands before the left face, above the table by the height of the part. */
const before = (kind: 'edge-finder' | 'sensor' | 'probe' | 'indicator', off: number, below: number) => {
  const simulated = millOf(11, 'inch', { squared: true })
  const zero = partZeroOf(simulated.world, simulated.vise.frame)
  const mounted = act(simulated, { do: 'mount', what: kind })
  const { length, tip } = finderOf(kind, 'inch')
  return {
    zero,
    tip,
    simulated: {
      ...mounted,
      at: { X: zero.X - tip - off, Y: zero.Y + 1, Z: zero.Z - below + length },
    } as SimulatedState,
  }
}

const go = (simulated: SimulatedState, ...actions: Parameters<typeof act>[1][]) =>
  actions.reduce(act, simulated)

describe('an edge finder', () => {
  // trade.md 4: it kicks with half its tip short of the face; common practice: at about 1000 a minute.
  it('kicks where half its tip is short of the face, within its repeatability', () => {
    const { simulated, zero, tip } = before('edge-finder', 0.02, 0.2)
    let now = act(simulated, { do: 'spindle', rpm: 1000 })
    for (let n = 0; n < 400 && !viewOf(now).mounted.kicked; n++)
      now = act(now, { do: 'wheel', axis: 'X', step: 0.0001, clicks: 1 })
    expect(Math.abs(now.at.X + tip - zero.X)).toBeLessThan(0.0011)
  })

  it('goes on past its kick as a hand does, so that a coarse step is in the reading', () => {
    const { simulated, zero, tip } = before('edge-finder', 0.015, 0.2)
    const now = go(simulated, { do: 'spindle', rpm: 1000 }, { do: 'wheel', axis: 'X', step: 0.01, clicks: 3 })
    expect(viewOf(now).mounted.kicked).toBe(true)
    expect(now.at.X + tip - zero.X).toBeCloseTo(0.015, 6)
  })

  it('bends when it is pushed on, and then reads wrong', () => {
    const { simulated } = before('edge-finder', 0.02, 0.2)
    const pushed = go(simulated, { do: 'spindle', rpm: 1000 }, { do: 'jog', axis: 'X', by: 0.15 })
    expect(viewOf(pushed).mounted.harmed).toContain('bent')
    expect(pushed.tally.bumps).toBe(1)
    const hand = handOn(act(pushed, { do: 'jog', axis: 'X', by: -0.2 }))
    const zero = partZeroOf(
      millOf(11, 'inch', { squared: true }).world,
      (pushed as never as { vise: { frame: never } }).vise.frame,
    )
    expect(Math.abs(touchByFinder(hand, { axis: 'X', way: 1 }) + 0.1 - zero.X)).toBeGreaterThan(0.0015)
  })

  it('only leans over while the spindle stands, and flies apart when it turns too fast', () => {
    const { simulated } = before('edge-finder', 0.02, 0.2)
    const still = act(simulated, { do: 'wheel', axis: 'X', step: 0.01, clicks: 3 })
    expect(viewOf(still).mounted.kicked).toBe(false)
    expect(still.says).toContain('while the spindle turns')
    expect(act(simulated, { do: 'spindle', rpm: 4000 }).alarm?.code).toBe('spindle')
  })

  it('meets the part with its shank where it is too low, and says what met what', () => {
    const { simulated } = before('edge-finder', 0.3, 0.6)
    const hit = act(simulated, { do: 'jog', axis: 'X', by: 1 })
    expect(hit.alarm).toMatchObject({ code: 'collision' })
    expect(hit.says).toMatch(/edge finder met the (part|fixed jaw|moving jaw)/)
    expect(act(hit, { do: 'jog', axis: 'X', by: -1 }).at.X).toBe(hit.at.X)
    const calm = act(hit, { do: 'reset' })
    expect([calm.alarm, calm.at.Z, calm.mounted.kind]).toEqual([null, 0, 'nothing'])
  })
})

describe('an indicator', () => {
  it('has the same swing on X and Y, and another one once it was bumped', () => {
    const simulated = millOf(5, 'inch', { squared: true })
    const hand = handOn(simulated)
    const swing = ({ minusSide, plusSide }: { minusSide: number; plusSide: number }) =>
      Math.abs(plusSide - minusSide) / 2
    const x = swing(indicateBothSides(hand, 'X-'))
    // Rammed into the face of the part from the left.
    const { X, Y, Z } = partZeroOf(simulated.world, simulated.vise.frame)
    hand.simulated = {
      ...hand.simulated,
      at: { X: X - 1.6, Y: Y + 1, Z: Z - 0.2 + finderOf('indicator', 'inch').length },
    }
    hand.do({ do: 'look', way: 'X+' })
    hand.do({ do: 'jog', axis: 'X', by: 1.2 })
    expect(hand.simulated.tally.bumps).toBe(1)
    const y = swing(indicateBothSides(hand, 'Y-'))
    // trade.md 4: it must come out the same on X and Y, or it was bumped.
    expect(Math.abs(x - y)).toBeGreaterThan(0.001)
    const sound = handOn(simulated)
    const [sx, sy] = [swing(indicateBothSides(sound, 'X-')), swing(indicateBothSides(sound, 'Y-'))]
    expect(Math.abs(sx - sy)).toBeLessThan(0.0003)
  })

  it('reads short off its high spot: radius x (1 - cos), until it is rocked', () => {
    const { simulated, zero } = before('indicator', 0, 0.2)
    const radius = (simulated.world as never as { indicator: { radius: number } }).indicator.radius
    const turned = act(
      { ...simulated, at: { ...simulated.at, X: zero.X - radius - 0.04 + 0.02 } },
      { do: 'look', way: 'X+' },
    )
    const off = viewOf(turned).dial?.value ?? 0
    const on = viewOf(act(turned, { do: 'rock' })).dial?.value ?? 0
    expect(on).toBeCloseTo(0.02, 3)
    const aside = (turned.mounted as { aside: number }).aside
    expect(on - off).toBeCloseTo(radius * (1 - Math.cos(aside)), 3)
  })
})

describe('a 3D sensor', () => {
  it('shows zero with the spindle over the face, and breaks past its end', () => {
    const { simulated, zero } = before('sensor', 0.05, 0.3)
    const over = { ...simulated, at: { ...simulated.at, X: zero.X } }
    expect(
      Math.abs(viewOf(act(over, { do: 'wheel', axis: 'X', step: 0.0001, clicks: 0 })).dial?.value ?? 1),
    ).toBeLessThan(0.0005)
    const broken = act(simulated, { do: 'jog', axis: 'X', by: 0.3 })
    expect(viewOf(broken).mounted.harmed).toContain('broken')
    expect(act(simulated, { do: 'spindle', rpm: 500 }).alarm?.code).toBe('spindle')
  })
})

describe('a probe', () => {
  it('stops where it triggers, half its stylus short of the face', () => {
    const { simulated, zero, tip } = before('probe', 0.3, 0.3)
    const touched = act(simulated, { do: 'search', axis: 'X', by: 0.5 })
    expect(Math.abs(touched.at.X + tip - zero.X)).toBeLessThan(0.00011)
    expect(viewOf(touched).mounted.triggered).toEqual({ axis: 'X', at: expect.closeTo(touched.at.X, 4) })
  })

  it('gives an alarm when it touches nothing, and meets the part with its body when it is sent too far past it', () => {
    const { simulated, zero } = before('probe', 0.3, -0.2)
    expect(act(simulated, { do: 'search', axis: 'X', by: 0.5 }).alarm?.code).toBe('no-contact')
    // Beside the part by less than its body is wide: the tip misses, and the body comes down on the part (trade.md 8).
    const beside: SimulatedState = { ...simulated, at: { ...simulated.at, X: zero.X - 0.35 } }
    expect(act(beside, { do: 'search', axis: 'Z', by: -0.6 }).alarm?.code).toBe('no-contact')
    const low = act(beside, { do: 'search', axis: 'Z', by: -3 })
    expect(low.alarm?.says).toContain('body of the probe met the part')
  })

  it('does not search without being one, nor when it is broken', () => {
    const { simulated } = before('sensor', 0.3, 0.3)
    expect(act(simulated, { do: 'search', axis: 'X', by: 0.5 }).at).toEqual(simulated.at)
    const { simulated: probing } = before('probe', 0.1, 0.3)
    const broken = act(probing, { do: 'jog', axis: 'X', by: 0.6 })
    expect(viewOf(broken).mounted.harmed).toContain('broken')
    expect(act(broken, { do: 'search', axis: 'X', by: -0.1 }).at).toEqual(broken.at)
  })
})

describe('the vise', () => {
  const loose = (left: 'out' | 'snug' | 'tight', right: 'out' | 'snug' | 'tight') => {
    const simulated = millOf(8, 'inch')
    return { ...simulated, vise: { ...simulated.vise, left, right } }
  }
  const pivotOf = (simulated: ReturnType<typeof loose>, which: 'left' | 'right') => {
    const { frame } = simulated.vise
    const at = { x: simulated.world.vise.pivots[which], y: simulated.world.vise.pivotY }
    const [c, s] = [Math.cos(frame.angle), Math.sin(frame.angle)]
    return { x: frame.x + c * at.x - s * at.y, y: frame.y + s * at.x + c * at.y }
  }

  it('turns about the one bolt that holds it', () => {
    const simulated = loose('snug', 'out')
    const tapped = act(simulated, {
      do: 'tap',
      end: 'right',
      way: 'back',
      strength: 'medium',
    }) as typeof simulated
    expect(tapped.vise.frame.angle).toBeGreaterThan(simulated.vise.frame.angle)
    const [a, b] = [pivotOf(simulated, 'left'), pivotOf(tapped, 'left')]
    expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-12)
  })

  it('rocks about no known place with two snug, slides with none, and is held by a tight one', () => {
    const snug = loose('snug', 'snug')
    const rocked = act(snug, { do: 'tap', end: 'right', way: 'back', strength: 'firm' }) as typeof snug
    for (const which of ['left', 'right'] as const) {
      const [a, b] = [pivotOf(snug, which), pivotOf(rocked, which)]
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(1e-4)
    }
    const none = loose('out', 'out')
    expect(
      (act(none, { do: 'tap', end: 'right', way: 'back', strength: 'firm' }) as typeof none).vise.frame.y,
    ).toBeGreaterThan(none.vise.frame.y)
    const tight = loose('tight', 'out')
    expect(
      (act(tight, { do: 'tap', end: 'right', way: 'back', strength: 'firm' }) as typeof tight).vise,
    ).toEqual(tight.vise)
  })

  it('moves when it is tightened, so that it must be swept again', () => {
    const simulated = loose('snug', 'snug')
    const tight = act(simulated, { do: 'bolt', which: 'left', to: 'tight' }) as typeof simulated
    const moved = Math.abs(tight.vise.frame.angle - simulated.vise.frame.angle) * 6
    expect(moved).toBeGreaterThan(0.0001)
    expect(moved).toBeLessThan(0.0005)
  })
})

describe('the machine as a whole', () => {
  it('comes to the same from the same seed and actions, and never stands outside its travel or inside the part', () => {
    const action = fc.oneof(
      fc.record({
        do: fc.constant('wheel' as const),
        axis: fc.constantFrom('X', 'Y', 'Z'),
        step: fc.constantFrom(...WHEEL_STEPS.inch),
        clicks: fc.integer({ min: -100, max: 100 }),
      }),
      fc.record({
        do: fc.constant('jog' as const),
        axis: fc.constantFrom('X', 'Y', 'Z'),
        by: number(-20, 20),
      }),
      fc.record({
        do: fc.constant('search' as const),
        axis: fc.constantFrom('X', 'Y', 'Z'),
        by: number(-8, 8),
      }),
      fc.record({
        do: fc.constant('mount' as const),
        what: fc.constantFrom('probe', 'sensor', 'indicator', 'edge-finder', 'nothing'),
      }),
      fc.record({
        do: fc.constant('mount' as const),
        what: fc.constant('tool'),
        tool: fc.constantFrom(3, 5, 7, 99),
      }),
      fc.constantFrom(
        { do: 'reset' as const },
        { do: 'home' as const },
        { do: 'rock' as const },
        { do: 'spindle' as const, rpm: 1000 },
      ),
      fc.record({ do: fc.constant('look' as const), way: fc.constantFrom('X+', 'X-', 'Y+', 'Y-') }),
    ) as fc.Arbitrary<Parameters<typeof act>[1]>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.array(action, { maxLength: 25 }), (seed, actions) => {
        const begins = () => millOf(seed, 'inch')
        const ends = go(begins(), ...actions)
        expect(go(begins(), ...actions)).toEqual(ends)
        for (const axis of ['X', 'Y', 'Z'] as const) {
          const travel = ends.world.machine.axes[axis]
          expect(ends.at[axis]).toBeGreaterThanOrEqual((travel?.least ?? 0) - 1e-9)
          expect(ends.at[axis]).toBeLessThanOrEqual((travel?.greatest ?? 0) + 1e-9)
        }
        if (ends.mounted.kind !== 'tool') return
        // A tool that cuts nothing by hand: its tip is not in the part.
        const length =
          ends.world.tools.find(({ shape }) => shape.number === (ends.mounted as { tool: number }).tool)
            ?.length ?? 0
        const zero = partZeroOf(begins().world, begins().vise.frame)
        const below = ends.at.Z - length < zero.Z - 1e-6
        const { size } = begins().world.block
        const [dx, dy] = [ends.at.X - zero.X, ends.at.Y - zero.Y]
        expect(below && dx > 0.1 && dx < size.x - 0.1 && dy > 0.1 && dy < size.y - 0.1).toBe(false)
      }),
      depth(60, 600),
    )
  })

  it('shows nothing of what is hidden but what an eye sees', () => {
    const simulated = millOf(21, 'inch')
    const { X, Y } = partZeroOf(simulated.world, simulated.vise.frame)
    const view = viewOf(simulated)
    const corner = view.seen?.bodies.find(({ role }) => role === 'part')?.corners[0]
    expect(Math.abs((corner?.x ?? 0) - X)).toBeLessThanOrEqual(0.0101)
    expect(Math.abs((corner?.y ?? 0) - Y)).toBeLessThanOrEqual(0.0101)
    // Not a digit more: what is shown are whole hundredths, in twos.
    for (const { corners } of view.seen?.bodies ?? [])
      for (const { x } of corners) expect(Math.abs(x / 0.02 - Math.round(x / 0.02))).toBeLessThan(1e-6)
    expect(JSON.stringify(view)).not.toContain(String(simulated.world.vise.frame.angle))
  })

  it('says what it cannot do, and stays as it is', () => {
    const simulated = millOf(2, 'inch')
    for (const action of [
      { do: 'start' },
      { do: 'try-block', height: 1 },
      { do: 'mount', what: 'tool', tool: 99 },
      { do: 'search', axis: 'X', by: 1 },
    ] as const)
      expect([action.do, act(simulated, action).says !== '', act(simulated, action).at]).toEqual([
        action.do,
        true,
        simulated.at,
      ])
    const probing = act(simulated, { do: 'mount', what: 'probe' })
    expect(touchByProbe(handOn(probing), { axis: 'X', way: 1 })).not.toBe(0)
    expect(switchOn(simulated.world).at).toEqual({ X: 0, Y: 0, Z: 0 })
  })
})
