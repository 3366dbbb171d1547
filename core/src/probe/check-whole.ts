import { type Finding, finding } from '../fact/index.ts'
import { withinTravel } from '../machine/index.ts'
import { formatLength, formatWithUnit } from '../quantity/index.ts'
import type { ProbeSituation } from './situation.ts'
import type { ProbeField, ProbeStart, ProbeTask } from './task.ts'
import { roughZero } from './whole.ts'

/** A search that goes further past a surface than the probe bears. `past` in the situation's unit; `fix`: what to do about it. */
export const searchTooLong = (
  past: number,
  { shape, unit }: ProbeSituation,
  where: ProbeField,
  fix: string,
): Finding =>
  finding(
    past > shape.reach ? 'stop' : 'look',
    'search-too-long',
    where,
    `The search goes ${formatWithUnit(past, unit)} past where the surface is expected.`,
    `If the tip misses, the body meets the part; if the probe is not on, the stylus is pushed further than the ${formatWithUnit(shape.overtravel, unit)} that it may be deflected.`,
    fix,
  )

/** How well the place and the sizes must be known, so that the touches meet the part and nothing else does. */
function ofWithin(task: ProbeTask, situation: ProbeSituation, margin: number): Finding[] {
  const { shape, unit } = situation
  const { within = 0, gap, inset = 0 } = task
  const length = (value: number) => formatWithUnit(value, unit)
  if (within <= 0)
    return [
      finding(
        'stop',
        'no-within',
        'within',
        'Nothing is known to better than nothing.',
        'It is how far a face may lie from where it is said to be: by the saw, and by the eye that put the probe there. The search goes that far past.',
        'Type a length above zero; 1/8 in or 3 mm is usual.',
      ),
    ]
  if (gap > 0 && gap <= within)
    return [
      finding(
        'stop',
        'comes-down-on-part',
        'gap',
        `Where a face lies ${length(within)} further out, the probe comes down on the part.`,
        `It goes down ${length(gap)} off the face that is expected.`,
        `Stand off by more than ${length(within)}; 3/8 in or 10 mm is usual.`,
      ),
    ]
  if (within > margin)
    return [
      searchTooLong(
        within,
        situation,
        'within',
        `Measure the block with a rule and stand nearer to its middle, so that ${length(margin / 2)} is enough.`,
      ),
    ]
  return task.feature === 'corner-top' && inset <= within + shape.stylus / 2
    ? [
        finding(
          'stop',
          'top-beside-part',
          'inset',
          'The touch on top may miss the part.',
          `It is ${length(inset)} in from faces that may lie ${length(within)} from where they are expected, and the ball needs ${length(shape.stylus / 2)} more.`,
          `Touch the top ${length(2 * within + shape.stylus)} in.`,
        ),
      ]
    : []
}

function ofBlock({ feature, size, sizeY = 0 }: ProbeTask, { unit, jaws }: ProbeSituation): Finding[] {
  if (feature !== 'block') return []
  if (sizeY <= 0)
    return [
      finding(
        'stop',
        'no-size',
        'sizeY',
        'The width must be more than zero.',
        'It says how far the probe goes out before it comes down.',
      ),
    ]
  if (jaws && sizeY > jaws.opening)
    return [
      finding(
        'stop',
        'wider-than-jaws',
        'sizeY',
        `${jaws.name} opens ${formatWithUnit(jaws.opening, unit)}: a block of ${formatWithUnit(sizeY, unit)} does not go in.`,
        'Length and width are turned round, or it is not held in this vise.',
        `Check the two sizes${size <= jaws.opening ? ': the length would go in' : ''}. If it stands in another vise, record that under Hold.`,
      ),
    ]
  return []
}

/** By as much as a part may lie turned without anybody seeing it, in degrees. By judgement. */
const UNSEEN_TURN = 0.5

/** What a part that lies turned does to a zero from one touch a face: off by the place along the face, times the turn [D]. */
function ofTurned({ feature, within = 0, gap }: ProbeTask, { shape, unit }: ProbeSituation): Finding[] {
  const along = feature === 'block' ? within : gap + shape.stylus / 2
  const off = formatWithUnit(along * Math.tan((UNSEEN_TURN * Math.PI) / 180), unit)
  return [
    finding(
      'note',
      'presumes-square',
      'within',
      `If the part lies turned by half a degree, ${feature === 'block' ? 'X comes' : 'X and Y come'} out up to ${off} off.`,
      feature === 'block'
        ? 'X is touched first, where the eye put the probe along Y; Y is touched over the middle that was found.'
        : `Each face is touched once, ${formatWithUnit(along, unit)} from the corner.`,
      feature === 'block'
        ? 'Run it once more from the middle that it found, and that is gone.'
        : 'Square the part first, or measure the angle and take the corner with two touches a face.',
    ),
  ]
}

const STARTS = { X: 'startX', Y: 'startY', Z: 'startZ' } as const satisfies Record<string, ProbeField>

function ofStart({ start }: ProbeTask, { machine, unit }: ProbeSituation): Finding[] {
  if (!start) return []
  const outside = (['X', 'Y', 'Z'] as const).filter((axis) => !withinTravel(machine, axis, start[axis], unit))
  return [
    ...outside.map((axis) =>
      finding(
        'stop',
        'stands-outside-travel',
        STARTS[axis],
        `The probe cannot stand at machine ${axis} ${formatLength(start[axis], unit)}: that is outside the travel of ${machine.name}.`,
        'It is the position on the machine page with the probe over the part, not that of a work offset.',
        'Check the sign, the unit and the axis, or take the position from the machine.',
      ),
    ),
    ...(machine.toolLengths === 'gauge-line' && start.length <= 0
      ? [
          finding(
            'stop' as const,
            'tool-length-sign',
            'probeLength',
            'A tool length from the gauge line must be more than zero.',
            `Lengths on ${machine.name} are measured from the gauge line of the spindle down to the tip.`,
            'Type the length without a minus. If this shop measures against a master tool, change it on the machine page.',
          ),
        ]
      : []),
  ]
}

/** What can be wrong with a program that finds a whole zero from where the probe was put. `margin`: as far as a search may go past. */
export const checkWhole = (task: ProbeTask, situation: ProbeSituation, margin: number): Finding[] => [
  ...ofWithin(task, situation, margin),
  ...ofBlock(task, situation),
  ...ofStart(task, situation),
  ...ofTurned(task, situation),
]

/** The offset as it will stand when the program goes anywhere. */
export const nearOf = (task: ProbeTask, near: ProbeSituation['near'], start: ProbeStart | undefined) =>
  start ? roughZero(task, start) : near
