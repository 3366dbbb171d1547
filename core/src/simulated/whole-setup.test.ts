import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { depth, times } from '../../testing/depth.ts'
import type { LinearAxis } from '../machine/index.ts'
import { type Pickup, pickUp, pickupSettings, type Reading, writeLoad } from '../pickup/index.ts'
import type { LengthUnit } from '../quantity/index.ts'
import { act, advance } from './act.ts'
import { isMill } from './contact.ts'
import { finderOf } from './devices.ts'
import { EXERCISES, goodHandAt } from './exercises.ts'
import {
  handOn,
  indicateBothSides,
  probeTop,
  toolOnBlock,
  touchByFinder,
  touchByProbe,
  touchBySensor,
} from './hand.ts'
import { squareVise } from './hand-setting.ts'
import { millOf, UNITS } from './testing.ts'
import { partZeroOf } from './world.ts'

const seeds = fc.integer({ min: 1, max: 2 ** 31 - 1 })
const typed = (value: number, unit: LengthUnit) => ({ text: String(value), value, unit })

/** The readings that a good hand takes of a corner and the top, by each method, as they are entered in the Zero step. */
function readingsOf(
  method: 'edge-finder' | 'sensor' | 'probe' | 'indicator',
  axis: 'X' | 'Y',
  hand: ReturnType<typeof handOn>,
  unit: LengthUnit,
): Reading {
  const common = { axis, drawingPosition: typed(0, unit) }
  const into = { axis, way: 1 } as const
  const at = (value: number) => typed(value, unit)
  if (method === 'sensor') return { method, ...common, machinePosition: at(touchBySensor(hand, into)) }
  if (method === 'indicator') {
    const { minusSide, plusSide } = indicateBothSides(hand, axis === 'X' ? 'X-' : 'Y-')
    return { method, ...common, minusSide: at(minusSide), plusSide: at(plusSide) }
  }
  const touch = method === 'probe' ? touchByProbe : touchByFinder
  return {
    method,
    ...common,
    direction: '+',
    diameter: at(2 * finderOf(method, unit).tip),
    machinePosition: at(touch(hand, into)),
  }
}

const METHODS = ['edge-finder', 'sensor', 'probe', 'indicator'] as const

describe('what a good hand finds, and what is hidden', () => {
  // The hidden place is the check: the readings know nothing of it, and the doubt is that of the method (trade.md 4). A doubt
  // is no bound: of a hundred one may lie outside of it, and none by half as much again.
  it.each(METHODS.flatMap((method) => UNITS.map((unit) => [method, unit] as const)))(
    'agrees within the doubt: %s, in %s',
    (method, unit) => {
      const setups = times(30, 1000)
      const shares = Array.from({ length: setups }, (_, seed) => {
        const axis = seed % 2 === 0 ? 'X' : 'Y'
        const simulated = millOf(seed + 1, unit, { squared: true })
        const hand = handOn(simulated)
        const reading = readingsOf(method, axis, hand, unit)
        const { value, doubt } = pickUp(reading, pickupSettings(simulated.world.machine, unit))
        expect(hand.simulated.alarm).toBeNull()
        expect(hand.simulated.tally).toMatchObject({ collisions: 0, bumps: 0, misses: 0 })
        return Math.abs(value - partZeroOf(simulated.world, simulated.vise.frame)[axis]) / doubt.value
      })
      expect(shares.filter((share) => share > 1).length).toBeLessThanOrEqual(Math.ceil(setups / 100))
      expect(Math.max(...shares)).toBeLessThan(1.5)
      // And it is no doubt of nothing: something of it is really there.
      expect(Math.max(...shares)).toBeGreaterThan(0.3)
    },
  )

  it('squares any vise, finds X, Y and Z, loads them by a program, and stands over part zero', () => {
    fc.assert(
      fc.property(seeds, fc.constantFrom(...UNITS), (seed, unit) => {
        const simulated = millOf(seed, unit)
        const { machine, profile, tools } = simulated.world
        const inch = unit === 'inch' ? 1 : 25.4
        const hand = handOn(simulated)
        squareVise(hand)
        hand.do({ do: 'part', in: true })
        if (!isMill(hand.simulated)) throw new Error('a mill stays a mill')
        const truth = partZeroOf(hand.simulated.world, hand.simulated.vise.frame)
        // trade.md 2: what is left is the tolerance of the jaw, here a thousandth over six inches.
        expect(Math.abs(Math.tan((truth.angle * Math.PI) / 180)) * 6).toBeLessThanOrEqual(0.001)

        const settings = pickupSettings(machine, unit)
        const tool = tools.find(({ shape }) => shape.number === 7)
        const length = Math.round((tool?.length ?? 0) / machine.leastStep) * machine.leastStep
        const block = unit === 'inch' ? 1 : 25
        const found: Partial<Record<LinearAxis, Pickup>> = {
          X: pickUp(readingsOf('probe', 'X', hand, unit), settings),
          Y: pickUp(readingsOf('probe', 'Y', hand, unit), settings),
          Z: pickUp(
            {
              method: 'tool-on-block',
              axis: 'Z',
              tool: 7,
              toolLength: typed(length, unit),
              blockHeight: typed(block, unit),
              machinePosition: typed(toolOnBlock(hand, 7, block), unit),
              drawingPosition: typed(0, unit),
            },
            settings,
          ),
        }
        expect(hand.simulated.alarm).toBeNull()
        for (const axis of ['X', 'Y', 'Z'] as const) {
          const { value, doubt } = found[axis] as Pickup
          // A jaw that is left a little out moves the touched face off the corner by its slope over half the block.
          const skew = axis === 'Z' ? 0 : (0.001 / 6) * 2.5 * inch
          expect(Math.abs(value - truth[axis])).toBeLessThanOrEqual(1.5 * doubt.value + skew)
        }

        const written = writeLoad(
          {
            offset: 'G54',
            unit,
            about: [],
            axes: Object.fromEntries(
              Object.entries(found).map(([axis, { value }]) => [axis, { value, about: '' }]),
            ),
          },
          profile,
          machine,
        )
        if (!written.ok) throw new Error('the offset is written')
        hand.do({ do: 'mount', what: 'nothing' })
        hand.do({ do: 'load', text: written.text })
        for (let press = 0; press < 60 && hand.simulated.run?.phase !== 'done'; press++) {
          hand.do({ do: 'start' })
          hand.simulated = advance(hand.simulated, 600)
        }
        expect(hand.simulated.alarm).toBeNull()
        for (const axis of ['X', 'Y', 'Z'] as const)
          expect(hand.simulated.offsets.G54?.[axis]).toBeCloseTo(
            (found[axis] as Pickup).value,
            unit === 'inch' ? 4 : 3,
          )
      }),
      depth(5, 250),
    )
  })

  it('finds Z by the probe from above within its doubt', () => {
    fc.assert(
      fc.property(seeds, fc.constantFrom(...UNITS), (seed, unit) => {
        const simulated = millOf(seed, unit, { squared: true })
        const hand = handOn(simulated)
        const { value, doubt } = pickUp(
          {
            method: 'probe-down',
            axis: 'Z',
            tool: 20,
            toolLength: typed(finderOf('probe', unit).length, unit),
            blockHeight: typed(0, unit),
            machinePosition: typed(probeTop(hand), unit),
            drawingPosition: typed(0, unit),
          },
          pickupSettings(simulated.world.machine, unit),
        )
        expect(Math.abs(value - simulated.world.block.top)).toBeLessThanOrEqual(1.5 * doubt.value)
      }),
      depth(40, 400),
    )
  })
})

describe('the exercises', () => {
  it.each(EXERCISES.map((exercise) => [exercise.id, exercise] as const))(
    '%s: a good hand does it, with nothing to remark, whatever the seed',
    (_id, exercise) => {
      fc.assert(
        fc.property(seeds, fc.constantFrom(...UNITS), (seed, unit) => {
          const { judged } = goodHandAt(exercise, seed, unit)
          expect(judged).toMatchObject({ good: true, remarks: [] })
        }),
        depth(5, 250),
      )
    },
  )

  it('an answer of another seed is not good: the places are hidden anew each time', () => {
    for (const id of ['corner-edge-finder', 'tool-on-block', 'wrong-length', 'spot-clamp', 'groove-start']) {
      const exercise = EXERCISES.find((each) => each.id === id)
      if (!exercise) throw new Error(`no ${id}`)
      const answers = [1, 2, 3, 4, 5].map(
        (seed) => exercise.byGoodHand(exercise.start(seed, 'inch'), seed, 'inch').answers,
      )
      const good = answers.filter(
        (answer) => exercise.judge(exercise.start(6, 'inch'), 6, 'inch', answer).good,
      )
      expect([id, good.length < answers.length]).toEqual([id, true])
    }
  })

  it('one that stops doing anything is judged as it stands', () => {
    const exercise = EXERCISES.find(({ id }) => id === 'square-vise')
    const left = exercise?.start(4, 'inch')
    if (!exercise || !left) throw new Error('no exercise')
    expect(exercise.judge(left, 4, 'inch', {})).toMatchObject({
      good: false,
      figures: [{ good: false }, { good: false }],
    })
    const tightened = act(act(left, { do: 'bolt', which: 'left', to: 'tight' }), {
      do: 'bolt',
      which: 'right',
      to: 'tight',
    })
    expect(exercise.judge(tightened, 4, 'inch', {}).figures.map(({ good }) => good)).toEqual([false, true])
  })
})
