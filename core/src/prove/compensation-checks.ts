import type { ModalState } from '../program/index.ts'
import { formatLength } from '../quantity/index.ts'
import { programFinding } from './program-finding.ts'
import { say, type Walk } from './walk.ts'

/** Whose radius leads the tool beside its path. */
export function compensationChecks(
  walk: Walk,
  row: number,
  { beside, d, tool, tip, offset }: ModalState,
): void {
  if (beside === 0 || Number.isNaN(beside)) return
  const { facts, motion } = walk
  const line = motion.line[row] as number
  const radius = formatLength(Math.abs(beside), facts.unit)
  if (tip)
    say(walk, `nose/${tool}/${offset}`, () =>
      offset === `T${tool}`
        ? programFinding(
            'note',
            'compensation-by',
            line,
            `The nose of T${tool}, ${radius}, is led beside its path.`,
            'Radius and tip number are those of its page here. What the geometry page of the control holds is not seen: compare it.',
            { row },
          )
        : programFinding(
            'look',
            'compensation-other',
            line,
            `T${tool} is led beside its path by the nose of ${offset}: ${radius}.`,
            `The geometry of ${offset} is another tool’s: the part comes out otherwise by the difference.`,
            { row, fix: `Call T${tool} with its own geometry, if that is meant.` },
          ),
    )
  else if (d !== tool && facts.tools.has(d))
    say(walk, `d/${tool}/${d}`, () =>
      programFinding(
        'look',
        'compensation-other',
        line,
        `T${tool} is led beside its path by the radius of T${d}: ${radius}.`,
        `D${d} holds another tool’s radius: the part comes out large or small by the difference.`,
        { row, fix: `Write D${tool}, if that is meant.` },
      ),
    )
  else
    say(walk, `radius/${tool}/${d}/${radius}`, () =>
      programFinding(
        'note',
        'compensation-by',
        line,
        `T${tool} is led ${radius} beside its path by D${d}.`,
        'That is its radius in the tool list, with the wear that the program writes. What the table of the control holds is not seen here: compare it.',
        { row },
      ),
    )
}
