import { formatWithUnit } from '../quantity/index.ts'
import type { ActionOf } from './actions.ts'
import { heightUnder, type SimulatedMill } from './contact.ts'
import { dice } from './dice.ts'
import { alarmed, inch } from './mill.ts'

/** How a gauge block or feeler goes in under a tool. Feels, by judgement: within two tenths it drags. */
type Feel = 'loose' | 'play' | 'drag' | 'does-not-go'

const FEELS: Record<Feel, string> = {
  loose: 'goes in with plenty of room',
  play: 'goes in with a little play',
  drag: 'just goes in, with a drag',
  'does-not-go': 'does not go in',
}

function feelOf(simulated: SimulatedMill, height: number, off: number): Feel {
  const room = heightUnder(simulated) - height + off
  if (room < 0) return 'does-not-go'
  if (room <= inch(simulated, 0.0002)) return 'drag'
  return room <= inch(simulated, 0.004) ? 'play' : 'loose'
}

export function tryBlock(simulated: SimulatedMill, { height }: ActionOf<'try-block'>): SimulatedMill {
  if (simulated.mounted.kind !== 'tool') return { ...simulated, says: 'Put a tool into the spindle first.' }
  if (simulated.rpm > 0)
    return alarmed(
      simulated,
      'spindle',
      'Never reach in with the spindle turning.',
      'Reset: the spindle stands. Try again.',
    )
  if (heightUnder(simulated) === Number.POSITIVE_INFINITY)
    return { ...simulated, says: 'There is nothing under the tool to put it on.' }
  const chance = dice(simulated.world.seed, simulated.drawn)
  const feel = feelOf(simulated, height, chance.within(inch(simulated, 0.0002)))
  return {
    ...simulated,
    drawn: chance.drawn,
    worked: simulated.worked + 5,
    says: `${formatWithUnit(height, simulated.world.unit)} under T${simulated.mounted.tool}: it ${FEELS[feel]}.`,
  }
}
