import { type Finding, finding } from '../fact/index.ts'
import { type Individuals, individuals } from '../gauge/index.ts'
import type { LinearAxis } from '../machine/index.ts'
import { convertLength, formatLength, formatWithUnit } from '../quantity/index.ts'
import { deriveSetup, type Setup } from './derive.ts'
import type { Logged } from './kinds.ts'
import { isUnreadable } from './log-lines.ts'
import type { AxisFact } from './offsets.ts'
import type { Reference } from './reference.ts'

/** So many earlier times count. */
export const REPEATS = 10

/** A zero of an earlier run of the job. */
interface EarlierZero {
  at: string
  value: number
}

/** One axis of a zero against the last ten times that the job was on this machine, in the setup's unit. */
export interface RepeatHistory {
  axis: LinearAxis
  /** The oldest first. */
  earlier: EarlierZero[]
  now: number
  /** What is usual, from the earlier ones; undefined with fewer than four. */
  usual: Individuals | undefined
  findings: Finding[]
}

/** Setups whose titles come to the same are of one job. */
export const jobOf = (title: string) => title.trim().toLowerCase()

function judge(
  { axis, value: now, doubt }: AxisFact,
  usual: Individuals | undefined,
  { unit, machine }: Setup,
): Finding[] {
  // A zero is known no better than its doubt: limits that are narrower say nothing.
  const within = doubt.value
  if (!usual || (now >= usual.lower - within && now <= usual.upper + within)) return []
  return [
    finding(
      'look',
      'unusual-zero',
      axis,
      `${axis} is ${formatWithUnit(Math.abs(now - usual.mean), unit)} from where it usually is for this job.`,
      `On ${machine.name} it came out between ${formatLength(usual.lower, unit)} and ${formatLength(usual.upper, unit)} (mean and 2.66 times the mean moving range of the last times).`,
      'The vise, the stop or the part stands elsewhere this time, or a reading slipped. Look before you go on.',
    ),
  ]
}

/** The zeros of an offset against the last ten setups of the same title on the machine, axis by axis; none where it is the first. */
export function repeatHistory(
  setup: Setup,
  offset: string,
  machineEntries: readonly Logged[],
  reference: Reference,
): RepeatHistory[] {
  const opened = machineEntries.filter(
    (entry) =>
      entry.kind === 'opened' &&
      entry.id !== setup.id &&
      entry.at < setup.opened.at &&
      jobOf(entry.title) === jobOf(setup.opened.title),
  )
  const runs = opened.flatMap(({ id }) => {
    const run = deriveSetup(
      machineEntries.filter((entry) => entry.setup === id),
      reference,
    )
    return isUnreadable(run) ? [] : [run]
  })
  const standing = setup.offsets.find(({ name }) => name === offset)
  if (!standing) return []
  return Object.values(standing.axes).flatMap((own): RepeatHistory[] => {
    const { axis, value } = own
    const earlier = runs
      .flatMap((run) => {
        const fact = run.offsets.find(({ name }) => name === offset)?.axes[axis]
        if (!fact) return []
        return [{ at: fact.entry.at, value: convertLength(fact.value, run.unit, setup.unit) }]
      })
      .sort((a, b) => (a.at < b.at ? -1 : 1))
      .slice(-REPEATS)
    if (earlier.length === 0) return []
    const usual = individuals(earlier.map((each) => each.value))
    return [{ axis, earlier, now: value, usual, findings: judge(own, usual, setup) }]
  })
}
