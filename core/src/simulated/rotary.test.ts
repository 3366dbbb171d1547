import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import type { Machine } from '../machine/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import {
  measureCentre,
  measureFlat,
  readCentreDraft,
  readFlatDraft,
  startingCentre,
  startingFlat,
} from '../rotary/index.ts'
import { act, advance, switchOn } from './act.ts'
import { finderOf } from './devices.ts'
import { clickUntil, type Hand, handOn, jogTo, own } from './hand.ts'
import { probeDownOn, probeOverRotary, probeSideOf, turnTo } from './hand-rotary.ts'
import { againstHidden, hiddenOf } from './hidden.ts'
import { practiceTools } from './practice-tools.ts'
import type { SimulatedRotary } from './rotary.ts'
import { endSketch } from './sketch.ts'
import { levelOf } from './true-rotary.ts'
import { viewOf } from './view.ts'
import { millWorld, practiceMachine } from './world.ts'

const machineIn = (unit: LengthUnit, top: 'front' | 'back' = 'front'): Machine => ({
  ...practiceMachine('mill', unit),
  rotary: { word: 'A', top, turns: null },
})
const switched = (seed: number, unit: LengthUnit = 'inch', top: 'front' | 'back' = 'front') =>
  act(switchOn(millWorld(seed, { machine: machineIn(unit, top), tools: practiceTools('mill', unit) })), {
    do: 'table',
    stands: 'rotary',
  }) as SimulatedRotary
const homed = (simulated: SimulatedRotary) => act(simulated, { do: 'home' }) as SimulatedRotary
const text = (value: number | undefined) => String(value)

/** A probe in the spindle, over the middle of the part along X, the rotary homed. */
function probing(simulated: SimulatedRotary): Hand {
  const hand = handOn(simulated)
  probeOverRotary(hand)
  return hand
}

describe('a rotary on the table of the simulated mill', () => {
  it('shows its angle from wherever it was switched on, until it is homed', () => {
    const simulated = switched(3)
    const on = viewOf(simulated)
    expect(on.rotary).toEqual({ word: 'A', shown: 0, onTable: true })
    // What is shown says nothing: turned to level by the hidden angle, the flat does not look up.
    const flat = (of: typeof on) => of.end?.round.find(({ id }) => id === 'round')?.flat ?? []
    const tilt = (of: typeof on) => Math.abs((flat(of)[0]?.z ?? 0) - (flat(of)[1]?.z ?? 9))
    const wrong = act(simulated, { do: 'turn', by: levelOf(simulated.world.rotary) })
    expect(tilt(viewOf(wrong))).toBeGreaterThan(0.1)
    const right = act(homed(simulated), { do: 'turn', by: levelOf(simulated.world.rotary) })
    expect(tilt(viewOf(right))).toBeLessThanOrEqual(0.02 + 1e-9)
    expect(viewOf(right).rotary?.shown).toBeCloseTo(levelOf(simulated.world.rotary), 3)
  })

  it('is not there on a machine that has none, and the vise cannot be worked at while it stands there', () => {
    const none = switchOn(millWorld(3, { machine: practiceMachine('mill', 'inch') }))
    expect(act(none, { do: 'turn', by: 1 }).says).toMatch(/no rotary/)
    expect(act(none, { do: 'table', stands: 'rotary' }).says).toMatch(/no rotary/)
    expect(viewOf(none)).toMatchObject({ rotary: null, end: null })
    const vise = act(switched(3), { do: 'table', stands: 'vise' })
    expect(act(vise, { do: 'turn', by: 1 }).says).toMatch(/not on the table/)
    expect(viewOf(vise).end).toBeNull()
    expect(act(switched(3), { do: 'part', in: false }).says).toMatch(/vise is not on the table/)
    expect(viewOf(switched(3)).seen?.bodies.map(({ id }) => id)).toEqual(['round', 'chuck'])
  })

  it('leads a good hand to its centre line and its angle, whatever is hidden, in either unit and counting either way', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 100_000 }),
        fc.constantFrom('inch' as const, 'mm' as const),
        fc.constantFrom('front' as const, 'back' as const),
        (seed, unit, top) => {
          const simulated = switched(seed, unit, top)
          const { rotary } = simulated.world
          const hand = probing(simulated)
          const { leastStep } = simulated.world.machine
          const settings = { unit, leastStep }
          const one = own(hand, 1)
          // The round below: the flat turned down, and by half from there it would be touched, so a quarter either way.
          const quarter = Math.round(levelOf(rotary)) + 90
          hand.do({ do: 'turn', by: quarter })
          const part = 2 * rotary.part.radius
          const length = finderOf('probe', unit).length
          const sides = () => ({ top: probeDownOn(hand, 0).Z })
          const first = { turned: hand.see().rotary?.shown, ...sides() }
          hand.do({ do: 'turn', by: 180 })
          const half = { turned: hand.see().rotary?.shown, ...sides() }
          const read = readCentreDraft(
            {
              ...startingCentre('probe', unit),
              diameter: text(2 * finderOf('probe', unit).tip),
              across: text(part),
              tool: '20',
              toolLength: text(length),
              turned: text(first.turned),
              top: text(first.top),
              halfTurned: text(half.turned),
              halfTop: text(half.top),
            },
            unit,
          )
          if (!read.ok) throw new Error(JSON.stringify(read.problems))
          const centre = measureCentre(read.value, settings)
          expect(Math.abs((centre.Z?.value ?? 0) - rotary.axis.z)).toBeLessThan(0.0006 * one)

          // With the flat down both sides are round; after half a turn it is up, and they are round again.
          hand.do({ do: 'turn', by: 90 })
          const y = () => ({ front: probeSideOf(hand, 'front'), back: probeSideOf(hand, 'back') })
          const low = { turned: hand.see().rotary?.shown, ...y() }
          hand.do({ do: 'turn', by: 180 })
          const high = { turned: hand.see().rotary?.shown, ...y() }
          const across = readCentreDraft(
            {
              ...startingCentre('probe', unit),
              diameter: text(2 * finderOf('probe', unit).tip),
              turned: text(low.turned),
              front: text(low.front),
              back: text(low.back),
              halfTurned: text(high.turned),
              halfFront: text(high.front),
              halfBack: text(high.back),
            },
            unit,
          )
          if (!across.ok) throw new Error(JSON.stringify(across.problems))
          const found = measureCentre(across.value, settings)
          expect(Math.abs((found.Y?.value ?? 0) - rotary.axis.y)).toBeLessThan(0.0003 * one)
          // The width is the difference of two touches, the axis half of their sum: it is known half as well.
          expect(Math.abs((found.widths[0] ?? 0) - part)).toBeLessThan(0.0006 * one)

          // The flat by eye, then by two touches.
          turnTo(hand, Math.round(levelOf(rotary) / 3) * 3)
          const [left, right] = [-0.4, 0.4].map((aside) => probeDownOn(hand, aside * rotary.part.radius)) as [
            { Y: number; Z: number },
            { Y: number; Z: number },
          ]
          const flat = readFlatDraft(
            {
              ...startingFlat('probe'),
              turned: text(hand.see().rotary?.shown),
              y1: text(left.Y),
              z1: text(left.Z),
              y2: text(right.Y),
              z2: text(right.Z),
            },
            unit,
          )
          if (!flat.ok) throw new Error(JSON.stringify(flat.problems))
          const angle = measureFlat(
            flat.value,
            machineIn(unit, top).rotary as NonNullable<Machine['rotary']>,
            settings,
          )
          const off = ((angle.level - levelOf(rotary) + 540) % 360) - 180
          expect(Math.abs(off)).toBeLessThan(4 * angle.doubt.value)
        },
      ),
      depth(25, 400),
    )
  })

  it('lets an edge finder kick at its sides, whose middle is that of the part', () => {
    const simulated = homed(switched(12))
    const { rotary } = simulated.world
    const hand = handOn(simulated)
    hand.do({ do: 'mount', what: 'edge-finder' })
    jogTo(hand, 'X', (rotary.x.end + rotary.x.face) / 2)
    // The flat down: both sides are round.
    turnTo(hand, Math.round(levelOf(rotary)) + 180)
    const part = hand.see().end?.round.find(({ id }) => id === 'round')
    if (!part) throw new Error('no part')
    const touch = (way: 1 | -1) => {
      hand.do({ do: 'up' })
      jogTo(hand, 'Y', part.middle.y - way * (part.radius + 0.5))
      // The lower end of the tip just over the part's middle: any lower, and the shank over it meets the round first.
      hand.do({ do: 'jog', axis: 'Z', by: part.middle.z + 0.05 - (hand.see().seen?.tipZ ?? 0) })
      hand.do({ do: 'spindle', rpm: 1000 })
      for (const step of [0.01, 0.001, 0.0001] as const) {
        clickUntil(hand, { axis: 'Y', way }, step, ({ mounted }) => mounted.kicked)
        if (step > 0.0001) hand.do({ do: 'wheel', axis: 'Y', step, clicks: -way * 8 })
      }
      return hand.see().positions.Y ?? 0
    }
    const [front, back] = [touch(1), touch(-1)]
    expect(hand.see().mounted.harmed).toBeNull()
    const { off } = rotary.part
    // As it stands now: by half a turn and the level from home.
    const by = (rotary.sense * (hand.see().rotary?.shown ?? 0) * Math.PI) / 180
    const middle = rotary.axis.y + Math.cos(by) * off.y - Math.sin(by) * off.z
    expect(Math.abs((front + back) / 2 - middle)).toBeLessThan(0.001)
    expect(Math.abs(back - front - 0.2 - 2 * rotary.part.radius)).toBeLessThan(0.008)
  })

  it('shows an indicator that is swept along the flat by how much it is turned, and nothing once it is level', () => {
    const swept = (off: number) => {
      const simulated = homed(switched(21))
      const { rotary } = simulated.world
      const hand = handOn(simulated)
      hand.do({ do: 'mount', what: 'indicator' })
      turnTo(hand, Number((levelOf(rotary) + off).toFixed(3)))
      jogTo(hand, 'X', (rotary.x.end + rotary.x.face) / 2)
      const part = hand.see().end?.round.find(({ id }) => id === 'round')
      const tip = () => hand.see().seen?.tip.y ?? 0
      hand.do({ do: 'jog', axis: 'Y', by: rotary.axis.y - 0.4 - tip() })
      hand.do({
        do: 'jog',
        axis: 'Z',
        by: (part?.middle.z ?? 0) + (part?.radius ?? 0) + 0.1 - (hand.see().seen?.tipZ ?? 0),
      })
      // Down until it shows something, and a little more.
      while ((hand.see().dial?.value ?? 0) <= 0) hand.do({ do: 'wheel', axis: 'Z', step: 0.01, clicks: -1 })
      hand.do({ do: 'wheel', axis: 'Z', step: 0.001, clicks: -15 })
      const front = hand.see().dial?.value ?? 0
      const { alarm, dial, mounted } = hand.do({ do: 'jog', axis: 'Y', by: 0.8 })
      expect([alarm, mounted.harmed]).toEqual([null, null])
      return { front, back: dial?.value ?? 0, sense: rotary.sense }
    }
    const level = swept(0)
    expect(level.front).toBeGreaterThan(0.005)
    expect(Math.abs(level.back - level.front)).toBeLessThan(0.0003)
    // By hand: half a degree over 0.8 in is 0.00698 in; counting up takes the front down and the back up.
    const tilted = swept(0.5)
    expect(tilted.back - tilted.front).toBeCloseTo(tilted.sense * 0.8 * Math.tan(Math.PI / 360), 3)
  })

  it('hits what it turns against, and breaks what leans on it', () => {
    const hand = probing(switched(5))
    const { rotary } = (hand.simulated as SimulatedRotary).world
    hand.do({ do: 'turn', by: Math.round(levelOf(rotary)) })
    probeDownOn(hand, 0)
    // The flat goes away under the ball, and the round comes up against it.
    const turned = hand.do({ do: 'turn', by: 90 })
    expect(turned.mounted.harmed ?? turned.alarm?.says).toMatch(/stylus|Collision/)
    // A tool that stands on the part is pushed up by it.
    const tool = handOn(homed(switched(5)))
    const number = tool.see().tools[0]?.number ?? 1
    tool.do({ do: 'mount', what: 'tool', tool: number })
    jogTo(tool, 'X', (rotary.x.end + rotary.x.face) / 2)
    jogTo(tool, 'Y', rotary.axis.y)
    const down = tool.do({ do: 'jog', axis: 'Z', by: -30 })
    expect(down.alarm).toMatchObject({
      code: 'collision',
      says: expect.stringContaining('part in the rotary'),
    })
  })

  it('carries a block of known height under a tool, and meets the chuck from the side', () => {
    const tool = handOn(homed(switched(9)))
    const { rotary } = (tool.simulated as SimulatedRotary).world
    const number = tool.see().tools[0]?.number ?? 1
    tool.do({ do: 'mount', what: 'tool', tool: number })
    jogTo(tool, 'X', (rotary.x.end + rotary.x.face) / 2)
    jogTo(tool, 'Y', rotary.axis.y)
    expect(tool.do({ do: 'try-block', height: 1 }).says).toMatch(/plenty of room/)
    const { length = 0 } = (tool.simulated as SimulatedRotary).world.tools[0] ?? {}
    // Beside the part on its left, lower than its top: it meets the end.
    jogTo(tool, 'X', rotary.x.end - 3)
    jogTo(tool, 'Z', rotary.axis.z + length)
    const met = tool.do({ do: 'jog', axis: 'X', by: 4 })
    expect(met.alarm?.says).toMatch(/part in the rotary/)
  })

  it('goes where a program sends it, keeps what a program writes into its offset, and is homed at the start', () => {
    const simulated = switched(7)
    const program =
      'G20 G90 G17 G40 G49 G80 G94\nG53 G0 Z0.\nG10 L2 P1 A12.5\nM0\nG54 G0 A0.\nM0\nG0 A30.\nM30'
    const hand = handOn(simulated)
    hand.do({ do: 'key-offset', offset: 'G54', axis: 'A', value: 40 })
    expect(hand.see().rotaryZeros).toEqual({ G54: 40 })
    hand.do({ do: 'load', text: program })
    hand.do({ do: 'single', on: false })
    hand.do({ do: 'override', rapid: 100 })
    const run = () => {
      hand.do({ do: 'start' })
      hand.simulated = act(hand.simulated, { do: 'single', on: false })
      for (let n = 0; n < 200 && hand.simulated.run?.phase === 'running'; n++)
        hand.simulated = advance(hand.simulated, 1)
      return hand.see()
    }
    const first = run()
    expect(first.alarm).toBeNull()
    expect(first.rotaryZeros).toEqual({ G54: 12.5 })
    expect(run().rotary?.shown).toBe(12.5)
    expect(run().rotary?.shown).toBe(42.5)
    expect(hand.simulated.turn?.off).toBe(0)
  })

  it('is drawn from its right end: the chuck, the part with its flat, and the tip or its side', () => {
    const hand = probing(switched(3))
    const far = endSketch(hand.see())
    expect([far?.round.map(({ id }) => id), far?.inSight]).toEqual([['chuck', 'round'], false])
    probeDownOn(hand, 0)
    const near = endSketch(hand.see())
    expect(near?.inSight).toBe(true)
    const [, part] = near?.round ?? []
    // The flat's two ends lie on the part's own round, as well as an eye tells it.
    for (const end of part?.flat ?? [])
      expect(
        Math.abs(
          Math.hypot(end.x - (part?.middle.x ?? 0), end.y - (part?.middle.y ?? 0)) - (part?.radius ?? 0),
        ),
      ).toBeLessThan(0.04)
    expect(part?.flat).toHaveLength(2)
    expect(endSketch(viewOf(act(hand.simulated, { do: 'table', stands: 'vise' })))).toBeUndefined()
  })

  it('is held against what is hidden, in degrees', () => {
    const simulated = act(homed(switched(7)), { do: 'key-offset', offset: 'G54', axis: 'A', value: 1 })
    const hidden = hiddenOf(simulated)
    expect(hidden.zero).toBeNull()
    const lines = againstHidden(viewOf(simulated), hidden)
    expect(lines.find(({ degrees }) => degrees)).toMatchObject({
      name: 'A with the flat up',
      keyed: 1,
      off: expect.closeTo(1 - levelOf((simulated as SimulatedRotary).world.rotary), 9),
    })
    expect(lines.filter(({ name }) => name.startsWith('the centre line'))).toHaveLength(2)
  })
})
