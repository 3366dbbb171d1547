import {
  combineDoubt,
  type Doubt,
  type Finding,
  finding,
  resolutionDoubt,
  type WorkingLine,
  worstFirst,
} from '../fact/index.ts'
import { type Machine, type Obstacle, travelIn } from '../machine/index.ts'
import {
  convertLength,
  formatLength,
  formatLess,
  formatTerm,
  formatWithUnit,
  type LengthUnit,
} from '../quantity/index.ts'
import { isSampleVise, type Vise, type VisePart, type ViseState, viseIn, viseState } from './vise.ts'

/** Where a vise stands, and what is asked of it. Lengths in `unit`. */
export interface ClearanceCase {
  machine: Machine
  vise: Vise
  unit: LengthUnit
  /** Gripping face of the fixed jaw along the table, from its front edge, plus to the back. */
  jawAt: number
  /** The gap that is wanted everywhere. */
  wanted: number
  /** The lowest machine position of Z that the job goes to. */
  lowestZ: number
}

/** One part of the vise in one state against one thing that it could meet at the end of the travel. */
export interface Gap {
  obstacle: Obstacle
  part: VisePart
  state: ViseState
  /** Free length between them, in the unit of the case; below zero by how much they would overlap. */
  gap: number
  /** Whether their heights meet at all while Z goes no lower than the job does. */
  counts: boolean
  /** Machine position of Z above which their heights do not meet; undefined where Z makes no difference. */
  clearAbove?: number
}

export interface Clearance {
  gaps: Gap[]
  /** The smallest gap that counts, at each end. */
  back?: Gap
  front?: Gap
  /** Where the fixed jaw may stand; undefined when nothing keeps the gaps. An end without an obstacle is open. */
  interval?: { from: number; to: number }
  /** By how much the vise is too long, where there is no safe position. */
  shortfall?: number
  /** Longest a vise may be from its foremost to its rearmost point between what counts at both ends. */
  room?: number
  /** From its foremost to its rearmost point, as it stands in those states, what this vise takes of that. */
  reach?: number
  /** Of the two gaps; and of the room, where there is one. */
  working: WorkingLine[]
  roomWorking?: WorkingLine
  /** How far off each gap may be, in the unit of the case. */
  doubt: Doubt
  findings: Finding[]
}

/** What places along a table and vises are measured to with a rule or a tape (common practice). */
const RULE_STEP: Record<LengthUnit, number> = { inch: 1 / 32, mm: 1 }

/** A gap is made of three places that were measured with a rule. */
const gapDoubt = (unit: LengthUnit): Doubt =>
  combineDoubt(
    ['jaw along the table', 'extent of the vise', 'what it could meet'].map((what) => ({
      from: `${what}, by rule to ${formatWithUnit(RULE_STEP[unit], unit)}`,
      value: resolutionDoubt(RULE_STEP[unit]),
    })),
  )

const inUnit = (of: Obstacle, machine: Machine, unit: LengthUnit): Obstacle => ({
  ...of,
  at: convertLength(of.at, machine.unit, unit),
  bottom: convertLength(of.bottom, machine.unit, unit),
  top: convertLength(of.top, machine.unit, unit),
})

/** Things round the table of a machine, in the unit asked for. */
export const obstaclesIn = (machine: Machine, unit: LengthUnit): Obstacle[] =>
  machine.around?.obstacles.map((each) => inUnit(each, machine, unit)) ?? []

/** Whether the heights meet, and from which Z on down. */
function heights(obstacle: Obstacle, part: VisePart, topZ: number, lowestZ: number) {
  if (!obstacle.comesDownWithZ) return { counts: obstacle.bottom < part.top && obstacle.top > part.bottom }
  const counts = obstacle.bottom + (lowestZ - topZ) < part.top && obstacle.top > part.bottom
  return obstacle.bottom >= part.top ? { counts, clearAbove: topZ + part.top - obstacle.bottom } : { counts }
}

function gapsOf({ machine, unit, jawAt, lowestZ }: ClearanceCase, vise: Vise): Gap[] {
  const topZ = travelIn(machine, 'Z', unit).greatest
  return obstaclesIn(machine, unit).flatMap((obstacle) =>
    vise.parts.flatMap((part) =>
      viseState.options.map((state): Gap => {
        const { front, back } = part[state]
        const gap = obstacle.side === 'back' ? obstacle.at - (jawAt + back) : jawAt + front - obstacle.at
        return { obstacle, part, state, gap, ...heights(obstacle, part, topZ, lowestZ) }
      }),
    ),
  )
}

const least = (gaps: Gap[]): Gap | undefined =>
  gaps.reduce<Gap | undefined>((worst, each) => (!worst || each.gap < worst.gap ? each : worst), undefined)

const inState = ({ part, state }: Gap) =>
  part.open.front === part.closed.front && part.open.back === part.closed.back
    ? part.name
    : `${part.name} (vise ${state})`

function workingOf(gap: Gap, { unit, jawAt }: ClearanceCase): WorkingLine {
  const length = (value: number) => formatLength(value, unit)
  const { front, back } = gap.part[gap.state]
  const [at, jaw] = [length(gap.obstacle.at), length(jawAt)]
  return gap.obstacle.side === 'back'
    ? {
        finds: 'back gap',
        arithmetic: `${at} - (${jaw} ${formatTerm(back, unit)})`,
        means: `${gap.obstacle.name} less rearmost point: ${inState(gap)}`,
        gives: length(gap.gap),
      }
    : {
        finds: 'front gap',
        arithmetic: `${jaw} ${formatTerm(front, unit)} ${formatLess(gap.obstacle.at, unit)}`,
        means: `foremost point less ${gap.obstacle.name}: ${inState(gap)}`,
        gives: length(gap.gap),
      }
}

/** The Z below which the first of these meets in height; undefined where one does so at any Z. */
function meetsBelow(gaps: Gap[]): number | undefined {
  const from = gaps.map(({ clearAbove }) => clearAbove ?? Number.POSITIVE_INFINITY)
  const highest = Math.max(...from)
  return Number.isFinite(highest) ? highest : undefined
}

function findingsOfGap(gap: Gap | undefined, counting: Gap[], { unit, wanted }: ClearanceCase): Finding[] {
  if (!gap || gap.gap >= wanted) return []
  const { obstacle } = gap
  const end = obstacle.side === 'back' ? 'fully back' : 'fully forward'
  const least = gap.gap < 0 ? 0 : wanted
  const z = meetsBelow(counting.filter((each) => each.obstacle.side === obstacle.side && each.gap < least))
  const below = z === undefined ? '' : ` Only with Z below ${formatWithUnit(z, unit)}.`
  return gap.gap < 0
    ? [
        finding(
          'stop',
          `hits-${obstacle.side}`,
          obstacle.side,
          `With the table ${end}, the ${inState(gap)} hits the ${obstacle.name} by ${formatWithUnit(-gap.gap, unit)}.${below}`,
          'The gap is taken at the end of the travel, which a program or a jog can reach.',
          obstacle.side === 'back' ? 'Move the vise forward.' : 'Move the vise back.',
        ),
      ]
    : [
        finding(
          'look',
          `close-${obstacle.side}`,
          obstacle.side,
          `With the table ${end}, the ${inState(gap)} comes within ${formatWithUnit(gap.gap, unit)} of the ${obstacle.name}.${below}`,
          `${formatWithUnit(wanted, unit)} is wanted.`,
        ),
      ]
}

/** What would collide only below the Z that the job goes to: the first to do so as Z comes down. */
function belowTheJob(gaps: Gap[], of: ClearanceCase): Finding[] {
  const { greatest, least: lowest } = travelIn(of.machine, 'Z', of.unit)
  const hits = gaps.filter(
    ({ counts, gap, clearAbove }) =>
      !counts && gap < 0 && clearAbove !== undefined && clearAbove > lowest && clearAbove < greatest,
  )
  const z = meetsBelow(hits)
  const first = hits.find(({ clearAbove }) => clearAbove === z)
  if (!first || z === undefined) return []
  return [
    finding(
      'note',
      'hits-below',
      first.obstacle.side,
      `Keep Z above ${formatWithUnit(z, of.unit)} at that end: below it the ${first.obstacle.name} meets the ${inState(first)}.`,
      `They overlap by ${formatWithUnit(-first.gap, of.unit)} along the table; only their heights keep them apart. The job goes to ${formatWithUnit(of.lowestZ, of.unit)}.`,
    ),
  ]
}

function badInput({ machine, unit, jawAt, wanted, lowestZ }: ClearanceCase): Finding[] {
  const findings: Finding[] = []
  const { least: lowest, greatest } = travelIn(machine, 'Z', unit)
  const depth = convertLength(machine.around?.tableDepth ?? 0, machine.unit, unit)
  if (wanted < 0)
    findings.push(
      finding(
        'stop',
        'negative-wanted',
        'wanted',
        'A gap that is wanted cannot be negative.',
        'It is the free length that must stay at both ends.',
        'Type a length of zero or more.',
      ),
    )
  else if (wanted < gapDoubt(unit).value)
    findings.push(
      finding(
        'look',
        'wanted-small',
        'wanted',
        `A gap of ${formatWithUnit(wanted, unit)} cannot be told from a touch.`,
        `Measured by rule, a gap is known to ${formatWithUnit(gapDoubt(unit).value, unit)}.`,
        'Want more, or measure with a block of that thickness between them.',
      ),
    )
  if (lowestZ > greatest || lowestZ < lowest)
    findings.push(
      finding(
        'stop',
        'z-outside-travel',
        'lowestZ',
        `Z ${formatLength(lowestZ, unit)} is outside the travel of ${machine.name}.`,
        `Its travel in Z is ${formatLength(lowest, unit)} to ${formatWithUnit(greatest, unit)}.`,
        'Type the lowest machine position that the job goes to.',
      ),
    )
  if (jawAt < 0 || jawAt > depth)
    findings.push(
      finding(
        'look',
        'jaw-off-table',
        'jawAt',
        'The fixed jaw stands off the table.',
        `The table is ${formatWithUnit(depth, unit)} deep; places are counted from its front edge.`,
        'Check the place and its unit.',
      ),
    )
  return findings
}

/** Said of a vise that nobody measured: what is found of it is as good as the sample, and never good. */
const asTheSampleSays = (vise: Vise): Finding[] =>
  isSampleVise(vise)
    ? [
        finding(
          'look',
          'sample-vise',
          'vise',
          `As the sample says: nobody measured ${vise.name}.`,
          'Its lengths are made up, of the usual proportions of such a vise.',
          'Measure yours wide open and closed, and enter it on the page of the vises.',
        ),
      ]
    : []

/**
 * Whether a vise clears what stands round the table, with the vise open and closed, at both ends of the travel in Y:
 * back gap = obstacle - rearmost point, front gap = foremost point - obstacle, each the least over the vise's states.
 * Only what meets in height while Z stays at or above `lowestZ` counts. Common practice.
 */
export function clearance(of: ClearanceCase): Clearance {
  const vise = viseIn(of.vise, of.unit)
  const gaps = gapsOf(of, vise)
  const counting = gaps.filter(({ counts }) => counts)
  const back = least(counting.filter(({ obstacle }) => obstacle.side === 'back'))
  const front = least(counting.filter(({ obstacle }) => obstacle.side === 'front'))
  const to = back ? of.jawAt + back.gap - of.wanted : Number.POSITIVE_INFINITY
  const from = front ? of.jawAt - front.gap + of.wanted : Number.NEGATIVE_INFINITY
  const { unit, wanted } = of
  const worst = [back, front].filter((each) => each !== undefined)
  const working = worst.map((gap) => workingOf(gap, of))
  const findings = [
    ...asTheSampleSays(of.vise),
    ...badInput(of),
    ...worst.flatMap((gap) => findingsOfGap(gap, counting, of)),
  ]
  const result: Clearance = { gaps, working, doubt: gapDoubt(unit), findings: [] }
  if (back) result.back = back
  if (front) result.front = front
  if (back && front) {
    result.reach = back.part[back.state].back - front.part[front.state].front
    result.room = back.obstacle.at - front.obstacle.at - 2 * wanted
    result.roomWorking = {
      finds: 'room for a vise',
      arithmetic: `${formatLength(back.obstacle.at, unit)} ${formatLess(front.obstacle.at, unit)} - 2 x ${formatLength(wanted, unit)}`,
      gives: formatLength(result.room, unit),
    }
  }
  if (from <= to) result.interval = { from, to }
  else {
    result.shortfall = from - to
    findings.push(
      finding(
        'stop',
        'no-safe-position',
        'jawAt',
        `No safe position: the vise is ${formatWithUnit(from - to, unit)} too long.`,
        `From its foremost to its rearmost point a vise may be ${formatWithUnit(result.room ?? 0, unit)} with ${formatWithUnit(wanted, unit)} free at each end.`,
        'Use a shorter vise, take the handle off, or keep the program away from one end of Y and say so in a note.',
      ),
    )
  }
  result.findings = worstFirst([...findings, ...belowTheJob(gaps, of)])
  return result
}

/** What a clearance says whatever the place: of the vise itself, and whether it fits at all. */
export const beforeItStands = ({ findings }: Clearance): Finding[] =>
  findings.filter(({ code }) => code === 'sample-vise' || code === 'no-safe-position')

/** Where each vise of a library could stand in place of the one in hand; no interval where it fits nowhere. */
export const libraryFit = (of: Omit<ClearanceCase, 'vise'>, vises: readonly Vise[]) =>
  vises.map((vise) => {
    const { interval, shortfall } = clearance({ ...of, vise })
    return { vise, ...(interval ? { interval } : {}), ...(shortfall === undefined ? {} : { shortfall }) }
  })

/** The end of the travel at which less is free; the back where they are alike. */
export const worseEnd = ({ back, front }: Pick<Clearance, 'back' | 'front'>): 'back' | 'front' =>
  front && (!back || front.gap < back.gap) ? 'front' : 'back'
