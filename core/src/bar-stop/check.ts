import { type Finding, finding, type WorkingLine, worstFirst } from '../fact/index.ts'
import { type Machine, withinTravel } from '../machine/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { type BarStopTask, DIAMETERS_OUT, stopAt } from './task.ts'

export interface BarStopSituation {
  machine: Machine
  unit: LengthUnit
  /** Geometry of the stop: machine X (a diameter) and Z over part zero, as far as it was taken. */
  geometry: { X?: number; Z?: number }
  /** Diameter of the bar as it was gripped, where that is known. */
  diameter?: number
  /** How far the collet draws the bar back as it closes, where it does and that is known. */
  drawnBack?: { from: string; by: number }
}

function ofLengths(task: BarStopTask, unit: LengthUnit): Finding[] {
  const { standsOut, chuck, face, away, feed } = task
  const findings: Finding[] = []
  const stop = (code: string, where: string, says: string, why: string, fix?: string) =>
    findings.push(finding('stop', code, where, says, why, fix))
  if (standsOut <= 0)
    stop(
      'stands-out-sign',
      'standsOut',
      'The bar must stand out of the chuck by more than nothing.',
      'It is counted from the face of the chuck outwards, and has no sign.',
      'Type the length without a minus.',
    )
  if (chuck > 0)
    stop(
      'chuck-sign',
      'chuck',
      'The chuck would stand in front of the part.',
      'Its face is counted from part zero: towards the chuck is minus.',
      `Type ${formatLength(-chuck, unit)}, if part zero is the finished face.`,
    )
  if (face < 0)
    stop(
      'face-sign',
      'face',
      'What is faced off cannot be less than nothing.',
      'It is stock in front of part zero.',
    )
  if (away <= 0)
    stop(
      'no-way-off',
      'away',
      'The turret would come up to the bar, and leave it, at rapid.',
      'It slows down so far before the end of the bar, and goes back as far before it goes home.',
      'Type a length above zero; 1/2 in or 12 mm is usual.',
    )
  if (feed <= 0)
    stop('no-feed', 'feed', 'A feed must be more than zero.', 'It is the way from there to the bar.')
  return findings
}

function ofReach(task: BarStopTask, { unit, diameter }: BarStopSituation): Finding[] {
  const { standsOut, most, face } = task
  const length = (value: number) => formatWithUnit(value, unit)
  if (standsOut <= 0) return []
  const findings: Finding[] = []
  if (most > 0 && standsOut > most)
    findings.push(
      finding(
        'stop',
        'past-the-limit',
        'standsOut',
        `${length(standsOut)} is more than may stand out of this chuck: ${length(most)}.`,
        'A bar that stands out too far bends, whips, and leaves the chuck.',
        'Hold it shorter, or support it with a centre or a rest and type what may stand out then.',
      ),
    )
  if (most <= 0)
    findings.push(
      finding(
        'stop',
        'no-limit',
        'most',
        'The most that may stand out must be more than zero.',
        `Without a centre ${DIAMETERS_OUT} diameters are usual${diameter ? `: ${length(DIAMETERS_OUT * diameter)} for this bar` : ''}.`,
      ),
    )
  else if (diameter !== undefined && standsOut > DIAMETERS_OUT * diameter)
    findings.push(
      finding(
        'look',
        'long-for-its-diameter',
        'standsOut',
        `The bar stands out ${(standsOut / diameter).toFixed(1)} times its diameter.`,
        `Without a centre ${DIAMETERS_OUT} diameters are usual: beyond, it bends and chatters, and at speed it may whip.`,
        'Use a centre or a rest, or hold it shorter.',
      ),
    )
  const leaves = stopAt(task)
  if (Math.abs(leaves - face) > 1e-6)
    findings.push(
      finding(
        leaves < 0 ? 'stop' : 'look',
        leaves < 0 ? 'ends-behind-zero' : 'other-facing',
        'standsOut',
        leaves < 0
          ? `The bar would end ${length(-leaves)} behind part zero: there is no part there.`
          : `That leaves ${length(leaves)} to face off, and not ${length(face)}.`,
        `The chuck's face lies at Z ${formatLength(task.chuck, unit)}; the bar ends ${length(standsOut)} in front of it.`,
        `Let it stand out ${length(face - task.chuck)}.`,
      ),
    )
  return findings
}

function ofTravel(task: BarStopTask, { machine, unit, geometry }: BarStopSituation): Finding[] {
  const name = `T${task.tool}`
  const missing = (['X', 'Z'] as const).filter((axis) => geometry[axis] === undefined)
  if (missing.length > 0)
    return [
      finding(
        'look',
        'no-geometry',
        'tool',
        `${missing.join(' and ')} of ${name} ${missing.length > 1 ? 'were' : 'was'} not taken here.`,
        'The stop goes to where its geometry says: with a wrong one it meets the bar, or the chuck.',
        `Touch its face off at a known place, as the Z of a tool, before it runs.`,
      ),
    ]
  const at = { X: (geometry.X ?? 0) + task.x, Z: (geometry.Z ?? 0) + stopAt(task) }
  return (['X', 'Z'] as const).flatMap((axis) =>
    withinTravel(machine, axis, at[axis], unit)
      ? []
      : [
          finding(
            'stop' as const,
            'outside-travel',
            axis === 'X' ? 'x' : 'standsOut',
            `The stop cannot get there: machine ${axis} ${formatLength(at[axis], unit)} is outside the travel of ${machine.name}.`,
            `${axis} of ${name} is at ${formatLength(geometry[axis] ?? 0, unit)}.`,
            'Check the geometry of the stop, and its sign.',
          ),
        ],
  )
}

function ofClosing(task: BarStopTask, { unit, drawnBack }: BarStopSituation): Finding[] {
  if (!drawnBack || drawnBack.by <= 0) return []
  return [
    finding(
      'note',
      'drawn-back',
      'standsOut',
      `${drawnBack.from} draws the bar back as it closes: lengths wander by up to ${formatWithUnit(drawnBack.by, unit)}.`,
      task.way === 'pull'
        ? 'The stop stands still, and the bar is drawn away from it. See Collet, stop.'
        : 'The pusher stands behind it as it closes, and is left by as much.',
      'Face off at least as much.',
    ),
  ]
}

/** What can be wrong with a stop that is driven to the bar. Worst first. */
export const checkBarStop = (task: BarStopTask, situation: BarStopSituation): Finding[] =>
  worstFirst([
    ...ofLengths(task, situation.unit),
    ...ofReach(task, situation),
    ...ofTravel(task, situation),
    ...ofClosing(task, situation),
  ])

/** Where the stop goes: its Z from part zero, and what is then left to face off. */
export function barStopWorking(task: BarStopTask, unit: LengthUnit): WorkingLine[] {
  const number = (value: number) => formatLength(value, unit)
  return [
    {
      finds: 'Z of the stop',
      arithmetic: `${number(task.chuck)} + ${number(task.standsOut)}`,
      means: "the chuck's face from part zero, and how far the bar stands out of it",
      gives: number(stopAt(task)),
    },
  ]
}
