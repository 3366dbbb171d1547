import { fitLine } from '../geometry/index.ts'
import { studentt } from './distributions.ts'

/** How a size moves from part to part since it was last corrected, and when it will be out. */
export interface Drift {
  /** Parts that it was seen over. */
  over: number
  /** Change from one part to the next, and how far off that may be (95 %). */
  slope: number
  doubt: number
  /** The slope is more than its doubt: the tool wears. */
  seen: boolean
  /** Index of the part at which the size reaches the limit, and the earliest and latest at which it may; none where it moves away from it or hardly. */
  reaches?: { limit: 'upper' | 'lower'; at: number; earliest: number; latest: number | undefined }
  /** Index of the first part that should not be made before a correction: the scatter of one part is kept clear of the limit. */
  correctBefore?: number
  /** The line, for the chart: value at the first and at the last part that it was seen over. */
  line: { from: number; to: number; a: number; b: number }
}

/** Fewer parts show no drift. */
const LEAST_FOR_DRIFT = 5
const CONFIDENCE = 0.95
/** No prediction goes further than this many parts. */
const FURTHEST = 100_000

/**
 * Tool wear over parts: the least squares line through the values since the last correction (NIST/SEMATECH e-Handbook 4.4.3),
 * and where it, and the band in which one more part would lie, reach the limits. `from` is the index of the first part after
 * the correction. Undefined with fewer than five parts.
 */
export function driftOf(
  values: readonly number[],
  from: number,
  { lower, upper }: { lower: number; upper: number },
): Drift | undefined {
  const points = values.slice(from).map((y, n) => ({ x: from + n, y }))
  const n = points.length
  if (n < LEAST_FOR_DRIFT) return undefined
  const fit = fitLine(points)
  if (fit?.scatter === undefined) return undefined
  const { slope, intercept, scatter, spreadOfX } = fit
  const t = studentt.inv((1 + CONFIDENCE) / 2, n - 2)
  const doubt = (t * scatter) / Math.sqrt(spreadOfX)
  const last = from + n - 1
  const meanX = from + (n - 1) / 2
  const at = (x: number) => intercept + slope * x
  /** Half of the band in which one more part lies. */
  const band = (x: number) => t * scatter * Math.sqrt(1 + 1 / n + (x - meanX) ** 2 / spreadOfX)
  const common = {
    over: n,
    slope,
    doubt,
    seen: Math.abs(slope) > doubt,
    line: { from, to: last, a: at(from), b: at(last) },
  }
  if (!common.seen) return common
  const limit = slope > 0 ? upper : lower
  const way = Math.sign(slope)
  const reached = Math.max(last + 1, Math.ceil((limit - intercept) / slope))
  // With the slope as steep and as flat as it may be, from where the line stands in the middle of what was seen.
  const when = (of: number) => meanX + (limit - at(meanX)) / of
  const earliest = Math.max(last + 1, Math.floor(when(slope + way * doubt)))
  const flat = slope - way * doubt
  const latest = flat * way > 0 ? Math.max(last + 1, Math.ceil(when(flat))) : undefined
  let before = last + 1
  while (before < FURTHEST && way * (at(before) + way * band(before) - limit) < 0) before++
  return {
    ...common,
    reaches: { limit: slope > 0 ? 'upper' : 'lower', at: reached, earliest, latest },
    ...(before < FURTHEST ? { correctBefore: before } : {}),
  }
}
