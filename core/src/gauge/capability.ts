import { chisquare, normal } from './distributions.ts'

/** A ratio with the range in which it truly lies, at the confidence that was asked for. */
export interface Ratio {
  value: number
  low: number
  high: number
}

/** How a process fits its tolerance. */
export interface Capability {
  n: number
  mean: number
  /** Standard deviation of all values, and from one value to the next. */
  overall: number
  within: number
  /** From the scatter of one part to the next: what it could do. Absent where that is zero. */
  cp?: Ratio
  cpk?: Ratio
  /** From the scatter of all: what it did. */
  pp: Ratio
  ppk: Ratio
  /** Share of parts out of tolerance that a normal process of this mean and scatter would have. */
  out: number
}

/** d2 of ranges of two. */
const D2 = 1.128
/** Fewer values say nothing worth printing. */
const LEAST_FOR_CAPABILITY = 10
const CONFIDENCE = 0.95

/**
 * A width over six standard deviations. Its range by the chi-square distribution: value x sqrt(chi2 / nu), with nu degrees of
 * freedom (NIST/SEMATECH e-Handbook 6.1.6). From moving ranges nu is about 0.62 (n - 1) (Wheeler's effective degrees of
 * freedom, from memory).
 */
function widthRatio(width: number, sigma: number, nu: number): Ratio {
  const value = width / (6 * sigma)
  const at = (share: number) => value * Math.sqrt(chisquare.inv(share, nu) / nu)
  return { value, low: at((1 - CONFIDENCE) / 2), high: at((1 + CONFIDENCE) / 2) }
}

/** The nearer limit over three standard deviations; its range by value +/- z sqrt(1/(9 n) + value^2/(2 nu)) (the same source). */
function nearerRatio(nearer: number, sigma: number, n: number, nu: number): Ratio {
  const value = nearer / (3 * sigma)
  const z = normal.inv((1 + CONFIDENCE) / 2, 0, 1)
  const off = z * Math.sqrt(1 / (9 * n) + value ** 2 / (2 * nu))
  return { value, low: value - off, high: value + off }
}

/**
 * Capability of single values in the order in which they came, against a tolerance. Undefined with fewer than ten values,
 * without scatter, or with limits that are upside down. It means something only for a process that is in control.
 */
export function capability(
  values: readonly number[],
  { lower, upper }: { lower: number; upper: number },
): Capability | undefined {
  const n = values.length
  if (n < LEAST_FOR_CAPABILITY || !(upper > lower)) return undefined
  const mean = values.reduce((sum, value) => sum + value, 0) / n
  const overall = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1))
  let ranges = 0
  for (let at = 1; at < n; at++) ranges += Math.abs((values[at] as number) - (values[at - 1] as number))
  const within = ranges / (n - 1) / D2
  if (!(overall > 0)) return undefined
  const width = upper - lower
  const nearer = Math.min(upper - mean, mean - lower)
  const nu = 0.62 * (n - 1)
  return {
    n,
    mean,
    overall,
    within,
    ...(within > 0 ? { cp: widthRatio(width, within, nu), cpk: nearerRatio(nearer, within, n, nu) } : {}),
    pp: widthRatio(width, overall, n - 1),
    ppk: nearerRatio(nearer, overall, n, n - 1),
    out: normal.cdf(lower, mean, overall) + 1 - normal.cdf(upper, mean, overall),
  }
}
