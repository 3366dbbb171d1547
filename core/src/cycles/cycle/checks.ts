import { type Finding, finding } from '../../fact/index.ts'
import { formatWithUnit } from '../../quantity/index.ts'
import type { CycleCase } from './operation.ts'

/** A tool that the table does not have; `unseen`: what is therefore not looked at. */
export const toolUnknown = (
  number: number,
  field: string,
  { machine }: Pick<CycleCase, 'machine'>,
  unseen = 'Its size, its reach and its holder are not looked at.',
): Finding =>
  finding(
    'look',
    'tool-unknown',
    field,
    `T${number} is not in the tool table of ${machine.name}.`,
    unseen,
    'Enter its shape on the tools page.',
  )

/** A cutter that goes deeper than it cuts: nothing, or a stop. `what` goes that deep. */
export const cutsTooLittle = (
  { number, flute }: { number: number; flute: number },
  depth: number,
  what: string,
  { unit }: Pick<CycleCase, 'unit'>,
): Finding[] =>
  flute >= depth
    ? []
    : [
        finding(
          'stop',
          'tool-short',
          'tool',
          `T${number} cuts ${formatWithUnit(flute, unit)} of its length; ${what} goes ${formatWithUnit(depth, unit)} deep.`,
          'What does not cut rubs and breaks.',
        ),
      ]

/** A spindle speed in rpm that the spindle does not reach: nothing, or a stop. */
export function tooFast(turns: number, field: string, { machine }: Pick<CycleCase, 'machine'>): Finding[] {
  const top = machine.dynamics?.spindleTop
  if (top === undefined || turns <= top + 0.5) return []
  return [
    finding(
      'stop',
      'spindle-fast',
      field,
      `${Math.round(turns)} rpm is more than the spindle turns: ${Math.round(top)} rpm.`,
      'The control stops with an alarm.',
    ),
  ]
}

/** The clearance stands under the R plane. */
export const clearanceLow: Finding = finding(
  'stop',
  'clearance-low',
  'clearance',
  'The clearance is lower than the R plane.',
  'The tool would come up to go down.',
  'Raise the clearance, or lower the R plane.',
)
