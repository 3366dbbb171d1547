import type { Machine } from '../machine/index.ts'
import { FLAG, type Motion, ROW } from '../program/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type ProgramFinding, programFinding } from './program-finding.ts'

interface WrapFacts {
  machine: Machine
  unit: LengthUnit
  top?: number
  lying?: { radius: number; axisY: number }
  /** Where the machine shows the rotary when the program has it at 0, in degrees; undefined where nobody measured it. */
  rotaryZero?: number
}

/** Places that differ by less are the same, by unit. */
const SLACK = { inch: 0.001, mm: 0.02 }

/** What is wrong with a program that turns a rotary axis: wrapping begun or ended in the part, too deep, beyond its limits; the first of each. */
export function wrapFindings(
  motion: Motion,
  { machine, unit, top, lying, rotaryZero }: WrapFacts,
): ProgramFinding[] {
  const { count, kind, flags, y, z, rotary, line } = motion
  // On a lathe it is the spindle that turns to an angle, all the way round.
  if (machine.kind === 'lathe' || (!rotary && !flags.some((flag) => flag & FLAG.MAPPED))) return []
  const found: ProgramFinding[] = []
  const said = new Set<string>()
  const say = (
    severity: 'stop' | 'look' | 'note',
    code: string,
    row: number,
    says: string,
    why: string,
    fix?: string,
  ) => {
    if (said.has(code)) return
    said.add(code)
    found.push(
      programFinding(severity, code, line[row] as number, says, why, { row, ...(fix ? { fix } : {}) }),
    )
  }
  const slack = SLACK[unit]
  const length = (value: number) => formatWithUnit(value, unit)
  const place = (value: number) => formatLength(value, unit)
  const surface = top ?? 0
  const limits = machine.rotary?.turns
  let wrapped = false
  let lowest = { z: Number.POSITIVE_INFINITY, row: -1 }
  for (let row = 0; row < count; row++) {
    if (kind[row] === ROW.EVENT) continue
    const turn = rotary?.[row] ?? 0
    const [py, pz] =
      row > 0 ? [y[row - 1] as number, z[row - 1] as number] : [motion.start[1], motion.start[2]]
    const turns = turn !== (row > 0 ? (rotary?.[row - 1] ?? 0) : 0)
    if (turns && !machine.rotary)
      say(
        'look',
        'no-rotary',
        row,
        `${machine.name} has no rotary axis that is known here.`,
        'Which way it turns, and how far it may, is not looked at.',
        'Enter it on the machine’s page.',
      )
    if (turns && machine.rotary && rotaryZero === undefined)
      say(
        'note',
        'rotary-zero-unknown',
        row,
        `Nobody has taken the ${machine.rotary.word} of the offset.`,
        'It turns from where the control’s own page has it. A part that is alike all round does not mind.',
      )
    const at = turn + (rotaryZero ?? 0)
    if (limits && turns && (at < limits.least - 1e-6 || at > limits.greatest + 1e-6))
      say(
        'stop',
        'rotary-limits',
        row,
        `The rotary would go to ${Number(at.toFixed(3))} degrees; it goes from ${limits.least} to ${limits.greatest}.`,
        'The control stops with an alarm.',
        'Begin at another angle.',
      )
    const now = ((flags[row] as number) & FLAG.MAPPED) !== 0
    const radius = motion.states[motion.state[row] as number]?.mapping ?? 0
    if (now && !wrapped) {
      if (Math.abs(py - (lying?.axisY ?? 0)) > slack)
        say(
          'stop',
          'mapping-off-centre',
          row,
          `Wrapping begins at Y ${place(py)}, off the centre line.`,
          'Where Y stands when it begins is taken for the centre line: everything is cut beside it, and not as deep.',
          'Go to Y0 before it.',
        )
      if (pz < surface - slack)
        say(
          'stop',
          'mapping-in-part',
          row,
          `Wrapping begins while the tool stands at Z ${place(pz)}, below the top of the part.`,
          'The first move turns the part under a tool that is in it.',
          'Stand above the part before it.',
        )
      if (lying && Math.abs(radius - lying.radius) > 0.05 * lying.radius)
        say(
          'look',
          'mapping-radius-differs',
          row,
          `It is wrapped on a radius of ${length(radius)}; the part there has ${length(lying.radius)}.`,
          'Lengths round the part come out longer or shorter by as much.',
        )
    }
    if (!now && wrapped && pz < surface - slack)
      say(
        'stop',
        'mapping-ends-in-part',
        row,
        `Wrapping ends while the tool stands at Z ${place(pz)}, in the part.`,
        'The next move goes somewhere else than it seems, through the part.',
        'Retract before it.',
      )
    const feeds = kind[row] !== ROW.RAPID
    if (now && feeds && Math.min(pz, z[row] as number) < surface - slack / 100) {
      const deep = surface - Math.min(pz, z[row] as number)
      const whole = lying?.radius ?? radius
      if (deep >= whole)
        say(
          'stop',
          'past-centre',
          row,
          `It cuts ${length(deep)} deep; the radius is ${length(whole)}.`,
          'The tool goes past the centre of the part: Z zero is not where the program takes it to be, or the radius is wrong.',
          'Say where Z zero is: on top, or in the centre.',
        )
    }
    if (now && feeds && (z[row] as number) < lowest.z) lowest = { z: z[row] as number, row }
    wrapped = now
  }
  if (lying && top !== undefined && lowest.row >= 0 && lowest.z > top + slack)
    say(
      'look',
      'mapping-air',
      lowest.row,
      `Nothing of what is wrapped touches the part: the lowest is ${length(lowest.z - top)} above it.`,
      'Z zero is not where the program takes it to be.',
      'Say where Z zero is: on top, or in the centre.',
    )
  return found
}
