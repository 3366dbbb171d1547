import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth } from '../../testing/depth.ts'
import {
  pickupSettings,
  readSetterDraft,
  readToolLengthDraft,
  setterHeight,
  startingSetter,
  toolLength,
} from '../pickup/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { act } from './act.ts'
import type { SimulatedMill } from './contact.ts'
import { type Hand, handOn, jogTo, own } from './hand.ts'
import { touchSetter } from './hand-setting.ts'
import { millOf } from './testing.ts'

const handWith = (seed: number, unit: LengthUnit = 'inch') => handOn(millOf(seed, unit, { setter: true }))
const setterOf = (hand: Hand) => {
  const { setter } = (hand.simulated as SimulatedMill).world
  if (!setter) throw new Error('no setter')
  return setter
}

describe('a tool setter on the table of the simulated mill', () => {
  it('leads a good hand to the length of every tool, from a master of known length, in either unit', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 100_000 }),
        fc.constantFrom('inch' as const, 'mm' as const),
        (seed, unit) => {
          const hand = handWith(seed, unit)
          const { machine, tools } = hand.simulated.world
          const settings = pickupSettings(machine, unit)
          const [master, ...others] = tools
          if (!master) throw new Error('no tools')
          // The master is known to the last digit of the display, as its label says.
          const known = hand.see().tools.find(({ number }) => number === master.shape.number)?.length ?? 0
          const read = readSetterDraft(
            {
              ...startingSetter(unit),
              machinePosition: String(touchSetter(hand, master.shape.number)),
              masterLength: String(known),
            },
            unit,
          )
          if (!read.ok) throw new Error(JSON.stringify(read.problems))
          const height = setterHeight(read.value, settings)
          expect(Math.abs(height.value - setterOf(hand).trigger)).toBeLessThan(4 * height.doubt.value)
          for (const { shape, length } of others) {
            const measured = readToolLengthDraft(
              {
                tool: String(shape.number),
                machinePosition: String(touchSetter(hand, shape.number)),
                masterPosition: '',
                masterLength: '',
                on: 'setter',
              },
              unit,
              { entry: '01J00000000000000000000000', height: height.value, doubt: height.doubt.value },
            )
            if (!measured.ok) throw new Error(JSON.stringify(measured.problems))
            const found = toolLength(measured.reading, settings)
            expect(Math.abs(found.value - length)).toBeLessThan(4 * found.doubt.value)
          }
        },
      ),
      depth(20, 200),
    )
  })

  it('is not there where nobody put one, and only a tool that stands still is sought down on it', () => {
    const without = handOn(millOf(4, 'inch'))
    const [tool] = without.simulated.world.tools
    without.do({ do: 'mount', what: 'tool', tool: tool?.shape.number ?? 1 })
    expect(without.do({ do: 'search', axis: 'Z', by: -1 }).says).toMatch(/Only a probe can search/)
    expect(without.see().setter).toBe(false)
    const hand = handWith(4)
    expect(hand.see().setter).toBe(true)
    touchSetter(hand, tool?.shape.number ?? 1)
    expect(hand.do({ do: 'search', axis: 'X', by: -1 }).says).toMatch(/along Z, minus/)
    hand.do({ do: 'up' })
    hand.do({ do: 'spindle', rpm: 800 })
    expect(hand.do({ do: 'search', axis: 'Z', by: -1 }).alarm).toMatchObject({ code: 'spindle' })
  })

  it('misses beside it, hits what else is there, and is hit by a move that is not sought', () => {
    const hand = handWith(8)
    const number = hand.simulated.world.tools[0]?.shape.number ?? 1
    touchSetter(hand, number)
    jogTo(hand, 'Z', -own(hand, 0.1))
    // Nothing on the way down so far.
    expect(hand.do({ do: 'search', axis: 'Z', by: -0.05 }).alarm).toMatchObject({ code: 'no-contact' })
    const pushed = handWith(8)
    touchSetter(pushed, number)
    expect(pushed.do({ do: 'jog', axis: 'Z', by: -0.1 }).alarm?.says).toMatch(/met the tool setter/)
    const other = handWith(8)
    other.do({ do: 'mount', what: 'tool', tool: number })
    const part = other.see().seen?.bodies.find(({ role }) => role === 'part')
    jogTo(other, 'X', part?.corners[0]?.x ?? 0)
    jogTo(other, 'Y', ((part?.corners[0]?.y ?? 0) + (part?.corners[2]?.y ?? 0)) / 2)
    expect(other.do({ do: 'search', axis: 'Z', by: -20 }).alarm?.says).toMatch(/met the part/)
  })

  it('triggers at the very end of a move that is just long enough, and not of one that is too short', () => {
    const at = (by: number) => {
      const hand = handWith(8)
      const number = hand.simulated.world.tools[0]?.shape.number ?? 1
      touchSetter(hand, number)
      jogTo(hand, 'Z', (hand.see().positions.Z ?? 0) + 0.5)
      return hand.do({ do: 'search', axis: 'Z', by })
    }
    expect(at(-0.501).says).toMatch(/triggered/)
    expect(at(-0.499).alarm).toMatchObject({ code: 'no-contact' })
  })

  it('stands where it stands, whatever the vise does', () => {
    const hand = handWith(8)
    const seen = () => hand.see().seen?.bodies.find(({ id }) => id === 'setter')?.corners
    const before = seen()
    hand.simulated = act(hand.simulated, { do: 'bolt', which: 'right', to: 'out' })
    hand.simulated = act(hand.simulated, { do: 'tap', end: 'right', way: 'back', strength: 'firm' })
    expect(seen()).toEqual(before)
  })
})
