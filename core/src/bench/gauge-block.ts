import { formatWithUnit } from '../quantity/index.ts'
import type { ActionOf } from './actions.ts'
import { heightUnder, type MillBench } from './contact.ts'
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

function feelOf(bench: MillBench, height: number, off: number): Feel {
  const room = heightUnder(bench) - height + off
  if (room < 0) return 'does-not-go'
  if (room <= inch(bench, 0.0002)) return 'drag'
  return room <= inch(bench, 0.004) ? 'play' : 'loose'
}

export function tryBlock(bench: MillBench, { height }: ActionOf<'try-block'>): MillBench {
  if (bench.mounted.kind !== 'tool') return { ...bench, says: 'Put a tool into the spindle first.' }
  if (bench.rpm > 0)
    return alarmed(
      bench,
      'spindle',
      'Never reach in with the spindle turning.',
      'Reset: the spindle stands. Try again.',
    )
  if (heightUnder(bench) === Number.POSITIVE_INFINITY)
    return { ...bench, says: 'There is nothing under the tool to put it on.' }
  const chance = dice(bench.world.seed, bench.drawn)
  const feel = feelOf(bench, height, chance.within(inch(bench, 0.0002)))
  return {
    ...bench,
    drawn: chance.drawn,
    worked: bench.worked + 5,
    says: `${formatWithUnit(height, bench.world.unit)} under T${bench.mounted.tool}: it ${FEELS[feel]}.`,
  }
}
