import { type Finding, finding, worstFirst } from '../fact/index.ts'
import { type LinearAxis, travelIn, withinTravel } from '../machine/index.ts'
import {
  formatLength,
  formatWithUnit,
  type LengthUnit,
  MM_PER_INCH,
  roundTo,
  usualDigits,
} from '../quantity/index.ts'
import { type EarlierValue, type Expectation, repeatBound } from './expectation.ts'
import { guardMethod } from './guards.ts'
import { type Pickup, readingIn } from './pick-up.ts'
import type { Reading } from './reading.ts'

/** A value this far from a stale last one is worth a look: the part was moved on purpose, but seldom further. [inch, mm] */
const FAR_AFTER_MOVE = { inch: 1, mm: 25 }
/** Two values nearer than this are taken for the same place, typed differently. [inch, mm] */
const SAME_PLACE = { inch: 0.1, mm: 2.5 }

/** The machine positions in a reading: field name and value. */
function positionsOf(from: Reading): [string, number][] {
  return from.method === 'indicator'
    ? [
        ['minusSide', from.minusSide.value],
        ['plusSide', from.plusSide.value],
      ]
    : [['machinePosition', from.machinePosition.value]]
}

/** A likely slip that would bring a position inside the travel: the sign, or the unit. */
function slipThatFits(
  position: number,
  axis: LinearAxis,
  { machine, unit }: Expectation,
): string | undefined {
  if (withinTravel(machine, axis, -position, unit))
    return `With the other sign, ${formatLength(-position, unit)}, it would be inside: check the sign.`
  const [other, factor] = unit === 'mm' ? ['inches', MM_PER_INCH] : ['millimetres', 1 / MM_PER_INCH]
  for (const sign of [1, -1]) {
    if (withinTravel(machine, axis, sign * position * factor, unit))
      return `Read in ${other} it would be inside: check which unit the display shows.`
  }
  return undefined
}

function outsideTravel(axis: LinearAxis, from: Reading, value: number, expected: Expectation): Finding[] {
  const { machine, unit } = expected
  const { least, greatest } = travelIn(machine, axis, unit)
  const range = `${axis} of ${machine.name} goes from ${formatLength(least, unit)} to ${formatWithUnit(greatest, unit)}`
  const readings = positionsOf(from)
    .filter(([, position]) => !withinTravel(machine, axis, position, unit))
    .map(([where, position]) =>
      finding(
        'stop',
        'outside-travel',
        where,
        `The machine cannot have stood at ${axis} ${formatLength(position, unit)}.`,
        `${range}.`,
        slipThatFits(position, axis, expected) ?? 'Read the machine position again.',
      ),
    )
  if (readings.length > 0 || axis === 'Z' || withinTravel(machine, axis, value, unit)) return readings
  return [
    finding(
      'look',
      'zero-outside-travel',
      'drawingPosition',
      `Part zero, at ${formatLength(value, unit)}, is beyond the travel.`,
      `${range}. The spindle cannot stand over it, so the check move to ${axis}0 cannot be made.`,
      "Check the feature's place on the drawing, and its sign.",
    ),
  ]
}

/**
 * The usual slips in a machine position, given what it was before: the other sign, the other unit, the other axis.
 * The rest of the reading (finder, block, place on the drawing) is taken as right.
 */
function slipSinceLast(
  pickup: Pickup,
  last: EarlierValue,
  lastOther: EarlierValue | undefined,
  unit: LengthUnit,
) {
  const { axis, value, position } = pickup
  const text = formatLength(position, unit)
  /** The value, had the position been another one: every pickup follows its position one to one. */
  const had = (other: number) => value + (other - position)
  const near = (a: number, b: number) => Math.abs(a - b) <= SAME_PLACE[unit]

  if (near(had(-position), last.value))
    return finding(
      'look',
      'sign-flipped',
      axis,
      `${axis} has the other sign from last time.`,
      `The position is ${text}; with the sign turned round it would give ${formatLength(last.value, unit)}, as before.`,
      'Check the sign on the display.',
    )
  if (near(had(position * MM_PER_INCH), last.value) || near(had(position / MM_PER_INCH), last.value))
    return finding(
      'look',
      'unit-mixed',
      axis,
      `The position of ${axis} looks like the other unit.`,
      `It is ${text}; read in the other unit it would give ${formatLength(last.value, unit)}, as before.`,
      'Check which unit the display shows, and write the unit behind the number.',
    )
  if (lastOther && Math.abs(position - lastOther.position) <= 3 * SAME_PLACE[unit]) {
    const other = axis === 'X' ? 'Y' : 'X'
    return finding(
      'look',
      'axes-swapped',
      axis,
      `This ${axis} is where ${other} was.`,
      `The machine stood at ${other} ${formatLength(lastOther.position, unit)} before, and at ${axis} ${formatLength(last.position, unit)}; the ${axis} typed now is ${text}.`,
      'Check that X and Y are not swapped.',
    )
  }
  return undefined
}

/** Compares with the value that stood before: a repeat, a move, or one of the usual slips. */
function againstLast(pickup: Pickup, expected: Expectation): Finding[] {
  const { last, lastOther, unit } = expected
  if (!last) return []
  const { axis, value } = pickup
  const moved = value - last.value
  const slip =
    Math.abs(moved) > FAR_AFTER_MOVE[unit] ? slipSinceLast(pickup, last, lastOther, unit) : undefined
  if (slip) return [slip]
  const bound = last.fresh ? repeatBound(last.doubt, pickup.doubt.value) : FAR_AFTER_MOVE[unit]
  if (Math.abs(moved) <= bound) return []
  const why = last.fresh
    ? `Two readings of the same zero should agree within ${formatWithUnit(bound, unit)} (three times their doubt).`
    : `The last value is stale, but it was ${formatLength(last.value, unit)}, further than ${formatWithUnit(bound, unit)} away.`
  return [
    finding(
      'look',
      'far-from-last',
      axis,
      `${axis} is ${formatWithUnit(Math.abs(moved), unit)} from the last value.`,
      why,
      last.fresh
        ? 'Take it again. If the part was moved, say so under "Something changed".'
        : 'Check the reading if the part was not moved that far.',
    ),
  ]
}

function againstTolerance({ doubt, axis }: Pickup, { tolerance, unit }: Expectation): Finding[] {
  // Compared as shown: a doubt of 0.00100042 reads 0.0010 and is not over 0.0010.
  if (roundTo(doubt.value, usualDigits(unit)) <= tolerance) return []
  const better =
    axis === 'Z'
      ? 'Use a finer method if the part must be right the first time.'
      : 'An indicator on both sides leaves about a tenth.'
  return [
    finding(
      'look',
      'doubt-over-tolerance',
      axis,
      `This may be off by ${formatWithUnit(doubt.value, unit)}; the part allows ${formatWithUnit(tolerance, unit)}.`,
      'The doubt is that of the method: its repeatability and the step of the display.',
      better,
    ),
  ]
}

/**
 * Judges a pickup before it is recorded: travel, the slips that are usual (sign, unit, swapped axes),
 * the last value, the method's own guards, and the tolerance. Worst first; empty when all is well.
 */
export function judgePickup(from: Reading, pickup: Pickup, expected: Expectation): Finding[] {
  const inUnit = readingIn(from, expected.unit)
  return worstFirst([
    ...outsideTravel(pickup.axis, inUnit, pickup.value, expected),
    ...guardMethod(inUnit, pickup, expected),
    ...againstLast(pickup, expected),
    ...againstTolerance(pickup, expected),
  ])
}
