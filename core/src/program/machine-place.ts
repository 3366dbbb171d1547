import type { Machine } from '../machine/index.ts'
import { convertLength } from '../quantity/index.ts'
import type { ReadOptions } from './read-options.ts'
import type { Triple } from './ways.ts'

/**
 * A place of the machine, in its own unit and diameters, in the motion's frame; `toMachine` is to be added to a position of the motion to get
 * one of the machine, NaN where it is not known. There home is half a travel away: drawn, not measured.
 */
export function inMotion(
  place: Machine['home'],
  { machine, unit }: Pick<ReadOptions, 'machine' | 'unit'>,
  toMachine: Readonly<Triple>,
): Triple {
  const scale = convertLength(1, machine.unit, unit)
  return (['X', 'Y', 'Z'] as const).map((axis, at) => {
    const travel = machine.axes[axis]
    if (!travel) return 0
    const radius = machine.kind === 'lathe' && axis === 'X' ? 0.5 : 1
    const half = ((travel.greatest - travel.least) * scale * radius) / 2
    const shift = toMachine[at] as number
    const from = Number.isNaN(shift) ? half : machine.home[axis] * scale * radius - shift
    return from + (place[axis] - machine.home[axis]) * scale * radius
  }) as Triple
}
