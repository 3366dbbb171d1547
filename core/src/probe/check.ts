import { type Finding, finding, worstFirst } from '../fact/index.ts'
import { type Machine, type ProbeShape, probeIn, withinTravel } from '../machine/index.ts'
import { formatLength, formatWithUnit, type LengthUnit } from '../quantity/index.ts'
import { checkWhole, nearOf, searchTooLong } from './check-whole.ts'
import { startOf } from './plan.ts'
import type { ProbeSituation } from './situation.ts'
import { FEATURES, isTop, isWhole, type ProbeTask } from './task.ts'
import { spanOf } from './whole.ts'

/** A search may go this far past where the surface is expected. Common practice by judgement. [inch, mm] */
const MARGIN: Record<LengthUnit, number> = { inch: 0.25, mm: 6 }
/** Room that the body must keep above the part. By judgement. [inch, mm] */
const BODY_ROOM: Record<LengthUnit, number> = { inch: 0.04, mm: 1 }

/** The probe of a machine in the unit of the setup. */
export const shapeIn = ({ unit }: Machine, shape: ProbeShape, to: LengthUnit): ProbeShape =>
  probeIn(shape, unit, to)

/** As far past where a surface is expected as a search may go. */
const marginOf = ({ shape, unit }: ProbeSituation) => Math.min(MARGIN[unit], shape.overtravel)

function ofDepth(task: ProbeTask, { shape, unit }: ProbeSituation): Finding[] {
  if (isTop(task)) return []
  const { depth } = task
  if (depth >= 0)
    return [
      finding(
        'stop',
        'depth-sign',
        'depth',
        depth === 0
          ? 'A depth of 0 leaves the ball at the edge of the top.'
          : 'A positive depth sends the probe up.',
        'The depth is signed from the top of the feature: below it is minus. Upwards it finds nothing, and ends in an alarm.',
        `Type ${formatLength(depth === 0 ? -shape.stylus : -depth, unit)}.`,
      ),
    ]
  const room = shape.reach + depth
  if (room <= 0)
    return [
      finding(
        'stop',
        'body-against-part',
        'depth',
        `At ${formatWithUnit(-depth, unit)} below the top the body of the probe meets the part.`,
        `The stylus reaches ${formatWithUnit(shape.reach, unit)} below the body, and the body is ${formatWithUnit(shape.body, unit)} thick.`,
        'Touch nearer to the top, or use a longer stylus.',
      ),
    ]
  if (room < BODY_ROOM[unit])
    return [
      finding(
        'look',
        'body-near-part',
        'depth',
        `The body passes ${formatWithUnit(room, unit)} above the part.`,
        `The stylus reaches ${formatWithUnit(shape.reach, unit)} below the body.`,
        'Touch a little nearer to the top.',
      ),
    ]
  if (-depth < shape.stylus / 2)
    return [
      finding(
        'look',
        'shallow',
        'depth',
        'The ball touches with its lower half only.',
        `Its centre is ${formatWithUnit(-depth, unit)} below the top; a chamfer or burr there is measured instead of the face.`,
        `Go ${formatWithUnit(shape.stylus, unit)} or more below the top.`,
      ),
    ]
  return []
}

function ofSearch(task: ProbeTask, situation: ProbeSituation): Finding[] {
  const { shape, unit } = situation
  const { gap, search, feature } = task
  const { inside } = FEATURES[feature]
  if (inside && shape.stylus >= task.size)
    return [
      finding(
        'stop',
        'stylus-larger-than-pocket',
        'size',
        `A stylus of ${formatWithUnit(shape.stylus, unit)} does not go into a ${feature} of ${formatWithUnit(task.size, unit)}.`,
        'The probe goes down in the middle before it searches.',
        'Check the size on the drawing, or use a smaller stylus.',
      ),
    ]
  if (gap <= 0)
    return [
      finding(
        'stop',
        'starts-in-part',
        'gap',
        'The probe would start in the part.',
        'The gap is measured from the stylus to the surface, before the search.',
        'Type a gap above zero; 3/8 in or 10 mm is usual.',
      ),
    ]
  // How far past a whole zero's faces are searched is asked for in other words.
  if (isWhole(task)) return []
  if (search <= gap)
    return [
      finding(
        'stop',
        'search-too-short',
        'search',
        `It would stop ${formatWithUnit(gap - search, unit)} before the surface.`,
        `The gap at the start is ${formatWithUnit(gap, unit)}; the search is counted from there.`,
        `Search ${formatWithUnit(gap + marginOf(situation) / 2, unit)}.`,
      ),
    ]
  const past = search - gap
  const margin = marginOf(situation)
  if (past > margin)
    return [
      searchTooLong(
        past,
        situation,
        'search',
        `Search ${formatWithUnit(gap + margin / 2, unit)}: the gap and a margin, not plenty.`,
      ),
    ]
  return []
}

function ofSizes(task: ProbeTask, { shape, unit }: ProbeSituation): Finding[] {
  const findings: Finding[] = []
  const needsSize = FEATURES[task.feature].fields.includes('size')
  if (needsSize && task.size <= 0)
    findings.push(
      finding(
        'stop',
        'no-size',
        'size',
        'The size must be more than zero.',
        'It says how far the probe goes out before it comes down, and how far apart it touches.',
      ),
    )
  else if (task.feature === 'edge' && task.size < 5 * shape.stylus)
    findings.push(
      finding(
        'look',
        'short-base',
        'size',
        `A base of ${formatWithUnit(task.size, unit)} is short.`,
        'The doubt of an angle is that of two touches over the base.',
        'Touch as far apart as the edge allows.',
      ),
    )
  if (task.clearance <= 0)
    findings.push(
      finding(
        'stop',
        'no-clearance',
        'clearance',
        'The probe would move sideways through the part.',
        'The clearance is counted up from the top of the feature.',
        'Type a length above zero; an inch or 25 mm over what stands round it.',
      ),
    )
  return findings
}

function ofTravel(task: ProbeTask, { machine, shape, unit, offset, ...of }: ProbeSituation): Finding[] {
  const start = startOf(task, shape.stylus)
  const near = nearOf(task, of.near, task.start)
  const findings: Finding[] = []
  for (const axis of ['X', 'Y'] as const) {
    const zero = near[axis]
    // Where the probe cannot even stand is said of the position itself.
    if (task.start && !withinTravel(machine, axis, task.start[axis], unit)) continue
    const places = isWhole(task) ? spanOf(task, axis, shape.stylus) : [start[axis]]
    const at = places
      .map((each) => (zero ?? 0) + each)
      .find((each) => !withinTravel(machine, axis, each, unit))
    if (zero !== undefined && at !== undefined)
      findings.push(
        finding(
          'stop',
          'start-outside-travel',
          axis === 'X' ? 'x' : 'y',
          `${isWhole(task) ? 'It would go to' : 'The start,'} machine ${axis} ${formatLength(at, unit)}${isWhole(task) ? ',' : ', is'} outside the travel of ${machine.name}.`,
          `${offset} ${axis} is at ${formatLength(zero, unit)} so far.`,
          'Check the place on the drawing, or touch from the other side.',
        ),
      )
  }
  const unknown = (['X', 'Y'] as const).filter((axis) => near[axis] === undefined)
  if (unknown.length > 0)
    findings.push(
      finding(
        'look',
        'no-rough-zero',
        'offset',
        `${unknown.join(' and ')} of ${offset} ${unknown.length > 1 ? 'are' : 'is'} not known even roughly.`,
        `The program goes to places of ${offset}: it must be right to within the margin of the search before it runs.`,
        `Jog the probe over the place, set ${offset} there by hand, and look at the offset page before you start.`,
      ),
    )
  return findings
}

/** What can be wrong with a probe call before it is written: signs, search, body, sizes, travel. Worst first. */
export const checkProbe = (task: ProbeTask, situation: ProbeSituation): Finding[] =>
  worstFirst([
    ...ofDepth(task, situation),
    ...ofSearch(task, situation),
    ...ofSizes(task, situation),
    ...ofTravel(task, situation),
    ...(isWhole(task) ? checkWhole(task, situation, marginOf(situation)) : []),
  ])
