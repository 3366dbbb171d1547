import { type Finding, worstFirst } from '../fact/index.ts'
import { type LinearAxis, type Machine, travelIn, withinTravel } from '../machine/index.ts'
import {
  formatLength,
  formatWithUnit,
  type LengthUnit,
  MM_PER_INCH,
  roundTo,
  usualDigits,
} from '../quantity/index.ts'
import { type Pickup, readingIn } from './pick-up.ts'
import type { Reading } from './reading.ts'

/** An earlier value of an axis of the same offset. */
export interface EarlierValue {
  value: number
  doubt: number
  fresh: boolean
}

/** What a pickup is judged against; all lengths in the setup's unit. */
export interface Expectation {
  machine: Machine
  unit: LengthUnit
  /** How close part zero must be for this part. */
  tolerance: number
  /** The value that this one takes the place of. */
  last?: EarlierValue | undefined
  /** The last value of the other axis along the table, for a swap. */
  lastOther?: EarlierValue | undefined
  /** The indicator's swing on the other axis. */
  otherSwing?: number | undefined
}

/** A value this far from a stale last one is worth a look: the part was moved on purpose, but seldom further. [inch, mm] */
const FAR_AFTER_MOVE = { inch: 1, mm: 25 }
/** Two values nearer than this are taken for the same place, typed differently. [inch, mm] */
const SAME_PLACE = { inch: 0.1, mm: 2.5 }
/** Largest finder and swing that are usual on a mill. [inch, mm] */
const LARGE_FINDER = { inch: 1, mm: 25 }
const LARGE_SWING = { inch: 6, mm: 150 }
/** How many times the doubt of a difference two repeats may lie apart. Common practice: look again past about three. */
const REPEATS_WITHIN = 3

const finding = (
  severity: Finding['severity'],
  code: string,
  where: string,
  says: string,
  why: string,
  fix?: string,
): Finding => ({ severity, code, where, says, why, ...(fix === undefined ? {} : { fix }) })

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

const rss = (...values: number[]) => Math.hypot(...values)

/** Compares with the value that stood before: a repeat, a move, or one of the usual slips. */
function againstLast(pickup: Pickup, expected: Expectation): Finding[] {
  const { last, lastOther, unit } = expected
  if (!last) return []
  const { axis, value } = pickup
  const moved = value - last.value
  const near = (a: number, b: number) => Math.abs(a - b) <= SAME_PLACE[unit]
  const text = formatLength(value, unit)
  const before = formatLength(last.value, unit)
  const farFrom = Math.abs(moved) > FAR_AFTER_MOVE[unit]

  if (farFrom && near(value, -last.value))
    return [
      finding(
        'look',
        'sign-flipped',
        axis,
        `${axis} has the other sign from last time.`,
        `It was ${before} and is now ${text}: the same number with the sign turned round.`,
        'Check the sign on the display.',
      ),
    ]
  if (farFrom && (near(value * MM_PER_INCH, last.value) || near(value, last.value * MM_PER_INCH)))
    return [
      finding(
        'look',
        'unit-mixed',
        axis,
        `${axis} differs from last time by a factor of 25.4.`,
        `It was ${before} and is now ${text}: an inch value in a mm setup, or the other way round.`,
        'Check which unit the display shows, and write the unit behind the number.',
      ),
    ]
  if (farFrom && lastOther && near(value, lastOther.value)) {
    const other = axis === 'X' ? 'Y' : 'X'
    return [
      finding(
        'look',
        'axes-swapped',
        axis,
        `This ${axis} is where ${other} was.`,
        `${other} was ${formatLength(lastOther.value, unit)} and ${axis} was ${before}; ${axis} is now ${text}.`,
        'Check that X and Y are not swapped.',
      ),
    ]
  }
  const bound = last.fresh ? REPEATS_WITHIN * rss(last.doubt, pickup.doubt.value) : FAR_AFTER_MOVE[unit]
  if (Math.abs(moved) <= bound) return []
  const why = last.fresh
    ? `Two readings of the same zero should agree within ${formatWithUnit(bound, unit)} (three times their doubt).`
    : `The last value is stale, but it was ${before}, further than ${formatWithUnit(bound, unit)} away.`
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

function ofEdgeFinder(from: Reading & { method: 'edge-finder' }, unit: LengthUnit): Finding[] {
  const { value } = from.diameter
  if (value <= 0)
    return [
      finding(
        'stop',
        'finder-diameter',
        'diameter',
        'The diameter of the finder must be more than zero.',
        'Half of it lies between the spindle and the face.',
        'Type the diameter of the tip. 0.200 and 0.500 in or 10 mm are usual.',
      ),
    ]
  if (value <= LARGE_FINDER[unit]) return []
  return [
    finding(
      'look',
      'finder-diameter',
      'diameter',
      `A finder of ${formatWithUnit(value, unit)} is unusual.`,
      '0.200 and 0.500 in or 10 mm are usual.',
      'Check the diameter and its unit.',
    ),
  ]
}

function ofIndicator(
  from: Reading & { method: 'indicator' },
  pickup: Pickup,
  expected: Expectation,
): Finding[] {
  const { unit, otherSwing } = expected
  const swing = pickup.swing ?? 0
  if (swing === 0)
    return [
      finding(
        'stop',
        'no-swing',
        'plusSide',
        'Both sides have the same position.',
        "The two sides lie apart by twice the indicator's swing.",
        'Turn the indicator to the other side of the plane, bring the dial to zero, and read again.',
      ),
    ]
  const findings: Finding[] = []
  if (from.plusSide.value < from.minusSide.value)
    findings.push(
      finding(
        'note',
        'sides-turned-round',
        'plusSide',
        'The two sides look turned round.',
        'With the indicator on the plus side the machine position is the greater one. The middle is the same either way.',
      ),
    )
  if (swing > LARGE_SWING[unit])
    findings.push(
      finding(
        'look',
        'large-swing',
        'plusSide',
        `A swing of ${formatWithUnit(swing, unit)} is large.`,
        'It is the distance from the spindle axis to the stylus.',
        'Check both positions.',
      ),
    )
  const bound = REPEATS_WITHIN * rss(pickup.doubt.value, pickup.doubt.value)
  if (otherSwing !== undefined && Math.abs(swing - otherSwing) > bound)
    findings.push(
      finding(
        'look',
        'swings-disagree',
        pickup.axis,
        `The swing is ${formatLength(swing, unit)} here and ${formatLength(otherSwing, unit)} on the other axis.`,
        `It is the indicator's own radius and must come out the same within ${formatWithUnit(bound, unit)}: the indicator was bumped, or a side was not at zero.`,
        'Take both axes again without touching the indicator between.',
      ),
    )
  return findings
}

function ofToolOnBlock(from: Reading & { method: 'tool-on-block' }, { machine }: Expectation): Finding[] {
  const findings: Finding[] = []
  if (from.blockHeight.value < 0)
    findings.push(
      finding(
        'stop',
        'block-height',
        'blockHeight',
        'A gauge block cannot have a negative height.',
        'It stands between the tool and the face. Type 0 when the tool touches the face itself.',
      ),
    )
  if (machine.toolLengths === 'gauge-line' && from.toolLength.value <= 0)
    findings.push(
      finding(
        'stop',
        'tool-length-sign',
        'toolLength',
        'A tool length from the gauge line must be more than zero.',
        `Lengths on ${machine.name} are measured from the gauge line of the spindle down to the tip.`,
        'Type the length without a minus. If this shop measures against a master tool, change it on the machine page.',
      ),
    )
  return findings
}

function ofMethod(from: Reading, pickup: Pickup, expected: Expectation): Finding[] {
  if (from.method === 'edge-finder') return ofEdgeFinder(from, expected.unit)
  if (from.method === 'indicator') return ofIndicator(from, pickup, expected)
  return ofToolOnBlock(from, expected)
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
    ...ofMethod(inUnit, pickup, expected),
    ...againstLast(pickup, expected),
    ...againstTolerance(pickup, expected),
  ])
}
