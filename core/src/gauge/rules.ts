import { individuals } from './individuals.ts'

/** A rule that says that something has changed. NIST/SEMATECH e-Handbook 6.3.2: the Western Electric rules, and those for trends. */
export type RuleName =
  | 'beyond'
  | 'two-of-three'
  | 'four-of-five'
  | 'eight-one-side'
  | 'six-trend'
  | 'fourteen-alternating'

export const RULES: Record<RuleName, string> = {
  beyond: 'beyond the control limits',
  'two-of-three': 'two of three beyond two thirds of the way to a limit',
  'four-of-five': 'four of five beyond one third of the way to a limit',
  'eight-one-side': 'eight in a row on one side of the middle',
  'six-trend': 'six in a row going up, or down',
  'fourteen-alternating': 'fourteen in a row going up and down by turns',
}

/** Where a rule spoke: the value that completed it. */
export interface Signal {
  rule: RuleName
  /** Index of the value, and of the first one that belongs to it. */
  at: number
  from: number
}

/** Upper limit of a moving range of two: D4 = 3.267 mean ranges. NIST/SEMATECH e-Handbook 6.3.2.2 (from memory). */
const RANGE_LIMIT = 3.267

/** Whether `least` of the last `of` values up to `at` lie beyond `sigmas` on one side. */
function beyond(z: readonly number[], at: number, of: number, least: number, sigmas: number): boolean {
  if (at + 1 < of) return false
  const last = z.slice(at + 1 - of, at + 1)
  const [up, down] = [last.filter((value) => value > sigmas), last.filter((value) => value < -sigmas)]
  const here = z[at] as number
  return (up.length >= least && here > sigmas) || (down.length >= least && here < -sigmas)
}

const steps = (values: readonly number[], at: number, of: number) =>
  at + 1 < of
    ? []
    : Array.from({ length: of - 1 }, (_, n) =>
        Math.sign((values[at + 2 - of + n] as number) - (values[at + 1 - of + n] as number)),
      )

/**
 * Every value at which a rule speaks, against limits of the same values or of an earlier run (`mean`, and `upper` three
 * standard deviations above it). A rule that goes on speaking is given once for each run of values.
 */
export function signals(values: readonly number[], limits: { mean: number; upper: number }): Signal[] {
  const sigma = (limits.upper - limits.mean) / 3
  if (!(sigma > 0)) return []
  const z = values.map((value) => (value - limits.mean) / sigma)
  const speaks: Record<RuleName, (at: number) => boolean> = {
    beyond: (at) => Math.abs(z[at] as number) > 3,
    'two-of-three': (at) => beyond(z, at, 3, 2, 2),
    'four-of-five': (at) => beyond(z, at, 5, 4, 1),
    'eight-one-side': (at) => beyond(z, at, 8, 8, 0),
    'six-trend': (at) => {
      const of = steps(values, at, 6)
      return of.length === 5 && of[0] !== 0 && of.every((step) => step === of[0])
    },
    'fourteen-alternating': (at) => {
      const of = steps(values, at, 14)
      return (
        of.length === 13 && of.every((step, n) => step !== 0 && (n === 0 || step === -(of[n - 1] as number)))
      )
    },
  }
  const spans: Record<RuleName, number> = {
    beyond: 1,
    'two-of-three': 3,
    'four-of-five': 5,
    'eight-one-side': 8,
    'six-trend': 6,
    'fourteen-alternating': 14,
  }
  const found: Signal[] = []
  for (const rule of Object.keys(speaks) as RuleName[]) {
    let spoke = false
    for (let at = 0; at < values.length; at++) {
      const now = speaks[rule](at)
      if (now && (!spoke || rule === 'beyond')) found.push({ rule, at, from: at + 1 - spans[rule] })
      spoke = now
    }
  }
  return found.sort((a, b) => a.at - b.at)
}

/** What the values themselves say their limits are, and where they break the rules. */
export function chartOf(values: readonly number[], first?: number) {
  const base = first === undefined ? values : values.slice(0, first)
  const limits = individuals(base)
  return (
    limits && {
      ...limits,
      /** What each value lies from the one before it; the first has none. */
      ranges: values.map((value, at) =>
        at === 0 ? undefined : Math.abs(value - (values[at - 1] as number)),
      ),
      rangeUpper: RANGE_LIMIT * limits.movingRange,
      signals: signals(values, limits),
    }
  )
}

export type Chart = NonNullable<ReturnType<typeof chartOf>>
