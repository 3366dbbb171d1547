import { type Finding, finding } from '../fact/index.ts'
import { type LinearAxis, type Machine, travelIn, withinTravel } from '../machine/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'

/** The first of some machine positions that the machine cannot have stood at, in `unit`. */
export function outsideTravel(
  axis: LinearAxis,
  where: string,
  positions: readonly number[],
  machine: Machine,
  unit: LengthUnit,
): Finding[] {
  const outside = positions.find((at) => !withinTravel(machine, axis, at, unit))
  if (outside === undefined) return []
  const { least, greatest } = travelIn(machine, axis, unit)
  return [
    finding(
      'stop',
      'outside-travel',
      where,
      `The machine cannot have stood at ${axis} ${formatLength(outside, unit)}.`,
      `${axis} of ${machine.name} goes from ${formatLength(least, unit)} to ${formatWithUnit(greatest, unit)}.`,
      'Read the machine position again: its sign, and the unit of the display.',
    ),
  ]
}
