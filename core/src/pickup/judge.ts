import { type Finding, finding, worstFirst } from '../fact/index.ts'
import { type LinearAxis, travelIn, withinTravel } from '../machine/index.ts'
import { formatLength, formatWithUnit, type LengthUnit, MM_PER_INCH } from '../quantity/index.ts'
import { allowedDoubt, type EarlierValue, type Expectation, repeatBound } from './expectation.ts'
import { guardMethod } from './guards.ts'
import { readingIn } from './pick-up.ts'
import { type PositionReading, valuesOf } from './position.ts'
import type { Reading, ReadingOf } from './reading.ts'
import type { Pickup } from './words.ts'

/** A value this far from a stale last one is worth a look: the part was moved on purpose, but seldom further. [inch, mm] */
const FAR_AFTER_MOVE = { inch: 1, mm: 25 }
/** Two values nearer than this are taken for the same place, typed differently. [inch, mm] */
const SAME_PLACE = { inch: 0.1, mm: 2.5 }

/** Findings of one kind that are said; more say nothing new. */
const MOST_TOLD = 3

interface Stood {
  /** The field that says so. */
  where: string
  axis: LinearAxis
  at: number
}

const POSITIONS = new Set(['machinePosition', 'minusSide', 'plusSide', 'low', 'high'])

/** Every machine position that a reading says the machine stood at. */
function positionsOf(from: Reading): Stood[] {
  return Object.entries(from).flatMap(([where, part]: [string, unknown]): Stood[] => {
    if (POSITIONS.has(where))
      return valuesOf(part as PositionReading).map((at) => ({ where, axis: from.axis, at }))
    if (!Array.isArray(part)) return []
    return (part as ReadingOf<'circle'>['points']).flatMap(({ x, y }) => [
      { where, axis: 'X' as const, at: x.value },
      { where, axis: 'Y' as const, at: y.value },
    ])
  })
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
  const range = (of: LinearAxis) => {
    const { least, greatest } = travelIn(machine, of, unit)
    return `${of} of ${machine.name} goes from ${formatLength(least, unit)} to ${formatWithUnit(greatest, unit)}.`
  }
  const readings = positionsOf(from)
    .filter(({ axis: of, at }) => !withinTravel(machine, of, at, unit))
    .slice(0, MOST_TOLD)
    .map(({ where, axis: of, at }) =>
      finding(
        'stop',
        'outside-travel',
        where,
        `The machine cannot have stood at ${of} ${formatLength(at, unit)}.`,
        range(of),
        slipThatFits(at, of, expected) ?? 'Read the machine position again.',
      ),
    )
  // A lathe's geometry is no place that the tool goes to, and Z is short of a tool's length.
  if (machine.kind === 'lathe') return readings
  if (readings.length > 0 || axis === 'Z' || withinTravel(machine, axis, value, unit)) return readings
  return [
    finding(
      'look',
      'zero-outside-travel',
      'drawingPosition',
      `Part zero, at ${formatLength(value, unit)}, is beyond the travel.`,
      `${range(axis)} The spindle cannot stand over it, so the check move to ${axis}0 cannot be made.`,
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

/** What a probe cycle is said to have set, and did not change: it may not have run. */
const unchanged = (axis: LinearAxis, value: string, fresh: boolean): Finding =>
  finding(
    fresh ? 'note' : 'look',
    'unchanged-result',
    axis,
    `${axis} is ${value}, to the last digit what stood before.`,
    fresh
      ? 'A probe can find the same again on a part that did not move. On one that did, no cycle set it: the program that ran was the old one, or none.'
      : 'What stood before is stale: a touch that finds the very same is most likely no touch at all.',
    'See that the program at the control is the one in hand, run it, and read the offset page again.',
  )

/** Compares with the value that stood before: a repeat, a move, or one of the usual slips. */
function againstLast(from: Reading, pickup: Pickup, expected: Expectation): Finding[] {
  const { last, lastOther, unit } = expected
  if (!last || from.method === 'from-offset' || from.method === 'centre-line') return []
  const { axis, value } = pickup
  const moved = value - last.value
  const same =
    from.method === 'probe-set' && !from.shift && Math.abs(moved) < expected.machine.leastStep / 100
  if (same) return [unchanged(axis, formatLength(value, unit), last.fresh)]
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

function againstTolerance({ doubt, axis }: Pickup, { tolerance, unit, machine }: Expectation): Finding[] {
  if (allowedDoubt(doubt.value, tolerance, unit)) return []
  const better =
    axis === 'Z' || machine.kind === 'lathe'
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
    ...againstLast(inUnit, pickup, expected),
    ...againstTolerance(pickup, expected),
  ])
}
