import { totalOf } from './breakdown.ts'
import type { TimeParts } from './cycle-time.ts'
import type { MachineSpeeds } from './machine-speeds.ts'

const KINDS = ['cutting', 'rapid', 'toolChange', 'dwell', 'spindle', 'tappingOut', 'probing'] as const
type Kind = (typeof KINDS)[number]

/**
 * How far the computed time of each kind may be off before anything was timed, as a share: feeds are what they are, rapids and
 * changes depend on what the machine's page says. By judgement.
 */
const BEFORE: Record<Kind, number> = {
  cutting: 0.03,
  rapid: 0.15,
  toolChange: 0.3,
  dwell: 0.005,
  spindle: 0.3,
  tappingOut: 0.15,
  probing: 0.15,
}

/** A cycle that was timed at the machine: what was computed for it (in the log's own word), and what it took. Seconds. */
export interface TimedCycle {
  reckoned: TimeParts
  seconds: number
  /** How far off the timing may be. */
  doubt: number
}

/** A finger on a screen starts and stops a watch no closer than this, in seconds. By judgement. */
const BY_HAND = 0.5

/** One cycle of several that were timed together by hand: its seconds, and how far off they may be. */
export const oneCycle = (seconds: number, cycles: number) => ({
  seconds: seconds / cycles,
  doubt: BY_HAND / cycles,
})

/** By how much a timed cycle took longer than it was computed, as a share. */
export const offBy = ({ reckoned, seconds }: Pick<TimedCycle, 'reckoned' | 'seconds'>) =>
  seconds / totalOf(reckoned) - 1

/** What the computed seconds of each kind are to be multiplied with on this machine, and how far off that may be. */
export interface Calibration {
  factors: Record<Kind, number>
  doubts: Record<Kind, number>
  /** Covariance of the factors, row by row in the order of the kinds. */
  covariance: readonly number[]
  runs: number
}

const inOrder = (parts: TimeParts) => KINDS.map((kind) => parts[kind])
const named = (values: readonly number[]) =>
  Object.fromEntries(KINDS.map((kind, index) => [kind, values[index]])) as Record<Kind, number>

/**
 * What timed cycles say of a machine: the best linear estimate of one factor a kind, beginning at 1 with the doubt of nobody
 * having timed anything, taking each timed cycle in turn (recursive least squares; in one go it is the generalised least
 * squares of JCGM 100:2008's linear model). Kinds that a cycle has little of are hardly moved by it.
 */
export function calibrate(cycles: readonly TimedCycle[]): Calibration {
  const n = KINDS.length
  const factors = KINDS.map(() => 1)
  const covariance = new Array<number>(n * n).fill(0)
  KINDS.forEach((kind, index) => {
    covariance[index * n + index] = BEFORE[kind] ** 2
  })
  for (const { reckoned, seconds, doubt } of cycles) {
    const p = inOrder(reckoned)
    const spread = KINDS.map((_, row) =>
      p.reduce((sum, part, column) => sum + (covariance[row * n + column] as number) * part, 0),
    )
    const total = p.reduce((sum, part, index) => sum + part * (spread[index] as number), doubt ** 2)
    if (total <= 0) continue
    const off = seconds - p.reduce((sum, part, index) => sum + part * (factors[index] as number), 0)
    for (let row = 0; row < n; row++) {
      const gain = (spread[row] as number) / total
      factors[row] = (factors[row] as number) + gain * off
      for (let column = 0; column < n; column++)
        covariance[row * n + column] =
          (covariance[row * n + column] as number) - gain * (spread[column] as number)
    }
  }
  return {
    factors: named(factors),
    doubts: named(KINDS.map((_, index) => Math.sqrt(Math.max(0, covariance[index * n + index] as number)))),
    covariance,
    runs: cycles.length,
  }
}

/** What timed cycles say of a value of the machine's page. */
export interface LearntValue {
  what: 'toolChange' | 'spindleAcceleration'
  page: number
  timed: number
  /** One standard deviation. */
  doubt: number
}

/** A factor is known once its doubt is this share of what it was before anything was timed, by judgement. */
const KNOWN = 0.6

/**
 * The values of the machine's page that timed cycles tell apart from what is there: the tool change (seconds), and how the
 * spindle speeds up (turns/s2: half the time is twice as much). Only where timing says more than was known before, and the
 * page is off by more than the doubt.
 */
export function learntValues(
  { factors, doubts }: Calibration,
  { toolChange, spindleAcceleration }: Pick<MachineSpeeds, 'toolChange' | 'spindleAcceleration'>,
): LearntValue[] {
  const known = (kind: Kind) =>
    doubts[kind] < KNOWN * BEFORE[kind] && Math.abs(factors[kind] - 1) > doubts[kind]
  return [
    ...(known('toolChange')
      ? [
          {
            what: 'toolChange' as const,
            page: toolChange,
            timed: toolChange * factors.toolChange,
            doubt: toolChange * doubts.toolChange,
          },
        ]
      : []),
    ...(known('spindle')
      ? [
          {
            what: 'spindleAcceleration' as const,
            page: spindleAcceleration,
            timed: spindleAcceleration / factors.spindle,
            doubt: (spindleAcceleration * doubts.spindle) / factors.spindle ** 2,
          },
        ]
      : []),
  ]
}

/** What a cycle should take on the machine as it was timed, and how far off that may be, in seconds (one standard deviation). */
export function predict(
  parts: TimeParts,
  { factors, covariance }: Calibration,
): { seconds: number; doubt: number } {
  const p = inOrder(parts)
  const n = KINDS.length
  let variance = 0
  for (let row = 0; row < n; row++)
    for (let column = 0; column < n; column++)
      variance += (p[row] as number) * (p[column] as number) * (covariance[row * n + column] as number)
  return {
    seconds: KINDS.reduce((sum, kind) => sum + parts[kind] * factors[kind], 0),
    doubt: Math.sqrt(Math.max(0, variance)),
  }
}
