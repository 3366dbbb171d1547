import { z } from 'zod'
import { type Finding, finding } from '../fact/index.ts'
import { axesOf, leastStepIn, type Machine, withinTravel } from '../machine/index.ts'
import { convertLength, formatWithUnit, type LengthUnit, typedLength } from '../quantity/index.ts'

/** What the control showed after homing; an axis that the machine has not is left out. */
export const shownHome = z.object({
  X: typedLength,
  Y: typedLength.optional(),
  Z: typedLength,
  rotary: z
    .number()
    .min(-360)
    .max(360)
    .optional()
    .describe('degrees of the rotary; not read where it is missing'),
})
export type ShownHome = z.infer<typeof shownHome>

/** Steps of the display that a home position may differ by: the axis settles on a step or its neighbour. Common practice. */
const STEPS = 2
/** Degrees that a rotary may be off its 0 after homing: two steps of its display, a thousandth each. Common practice. */
const ROTARY_STEPS = 0.002

/**
 * Compares what the control shows after homing with what this machine shows when all is well. All machine positions
 * refer to home, so a home that is off puts every work offset off by as much.
 */
export const judgeHome = (shown: ShownHome, machine: Machine, unit: LengthUnit): Finding[] => [
  ...judgeAxes(shown, machine, unit),
  ...judgeRotary(shown, machine),
]

function judgeRotary({ rotary }: ShownHome, machine: Machine): Finding[] {
  if (!machine.rotary || rotary === undefined || Math.abs(rotary) <= ROTARY_STEPS * (1 + 1e-9)) return []
  const { word } = machine.rotary
  return [
    finding(
      'look',
      'home-differs',
      word,
      `${word} shows ${rotary} deg after homing, not 0.`,
      'The angles of all offsets refer to its home.',
      'Home the rotary again, and look whether its machine position is shown.',
    ),
  ]
}

function judgeAxes(shown: ShownHome, machine: Machine, unit: LengthUnit): Finding[] {
  const limit = STEPS * leastStepIn(machine, unit)
  return axesOf(machine).flatMap((axis) => {
    const typed = shown[axis]
    if (!typed)
      return [
        finding(
          'look',
          'home-missing',
          axis,
          `${axis} was not read.`,
          `${machine.name} has an axis ${axis}.`,
          `Read ${axis} too.`,
        ),
      ]
    const expected = convertLength(machine.home[axis], machine.unit, unit)
    const value = convertLength(typed.value, typed.unit, unit)
    const off = value - expected
    // A hair for the last digit that a conversion leaves.
    if (Math.abs(off) <= limit * (1 + 1e-9)) return []
    const outside = !withinTravel(machine, axis, value, unit)
    return [
      finding(
        'look',
        outside ? 'home-outside' : 'home-differs',
        axis,
        `${axis} shows ${formatWithUnit(value, unit)}, ${formatWithUnit(Math.abs(off), unit)} ${off > 0 ? 'above' : 'below'} the usual ${formatWithUnit(expected, unit)}.`,
        outside
          ? 'That is outside the travel: the axis is not homed, or the display shows another position than the machine position.'
          : 'All machine positions refer to home: every work offset would be off by as much.',
        'Look whether the machine position is shown, and home again. If it stays, do not run: find out what moved.',
      ),
    ]
  })
}
