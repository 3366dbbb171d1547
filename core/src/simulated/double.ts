import type { Profile } from '../control/index.ts'
import {
  axesOf,
  type Machine,
  POSITION_DIGITS,
  type PositionsRead,
  type ToolShape,
} from '../machine/index.ts'
import { roundTo } from '../quantity/index.ts'
import { switchOn } from './act.ts'
import type { SimulatedState } from './state.ts'
import { positionsShown } from './view.ts'
import { latheWorld, millWorld } from './world.ts'

/** A number that a piece can be asked for by again: from 1 to below this. */
export const SEEDS = 1_000_000

/**
 * The double of a machine of the shop, switched on: it stands at home, with a piece on it where nobody knows exactly.
 * @param seed of the piece; the same is the same again
 * @param tools of this machine
 */
export function doubleOf(
  seed: number,
  {
    machine,
    profile,
    tools,
  }: { machine: Machine; profile?: Profile | undefined; tools: readonly ToolShape[] },
): SimulatedState {
  // A control that has a macro for a tool setter has the setter too.
  const options = { machine, tools, setter: Boolean(profile?.setting), ...(profile ? { profile } : {}) }
  return switchOn(machine.kind === 'mill' ? millWorld(seed, options) : latheWorld(seed, options))
}

/** What a simulated machine shows, as a machine's positions are read; since when each axis stands there is not kept. */
export function positionsOf(simulated: SimulatedState, readAt: string): PositionsRead {
  const { machine } = simulated.world
  const shown = positionsShown(simulated)
  const positions: PositionsRead['positions'] = {}
  for (const axis of axesOf(machine))
    positions[axis] = roundTo(shown[axis] ?? 0, POSITION_DIGITS[machine.unit])
  return {
    unit: machine.unit,
    positions,
    since: {},
    ...(machine.rotary && simulated.turn
      ? { rotary: { degrees: roundTo(simulated.turn.shown, 4), since: readAt } }
      : {}),
    name: `the simulated ${machine.name}`,
    readAt,
    notes: [],
  }
}
