/** A point of a straight line that is looked for: `x` is taken as exact, `y` was measured. Each axis in one unit. */
export interface LinePoint {
  x: number
  y: number
}

export interface LineFit {
  slope: number
  intercept: number
  /** y less the line, point by point, in the unit of y. */
  residuals: number[]
  /** Standard deviation of one y about the line, in the unit of y; undefined with two points, which leave nothing over. */
  scatter: number | undefined
  /** Sum of the squares of x about its mean: a slope is off by (doubt of one y) / sqrt(spreadOfX). */
  spreadOfX: number
}

/**
 * The least squares straight line through two or more points, y on x (NIST/SEMATECH e-Handbook 4.4.3.1).
 * Undefined where there is none: fewer than two points, or all at the same x.
 */
export function fitLine(points: readonly LinePoint[]): LineFit | undefined {
  const n = points.length
  if (n < 2) return undefined
  const meanX = points.reduce((sum, { x }) => sum + x, 0) / n
  const meanY = points.reduce((sum, { y }) => sum + y, 0) / n
  const spreadOfX = points.reduce((sum, { x }) => sum + (x - meanX) ** 2, 0)
  if (points.every(({ x }) => x === points[0]?.x) || spreadOfX === 0) return undefined
  const slope = points.reduce((sum, { x, y }) => sum + (x - meanX) * (y - meanY), 0) / spreadOfX
  const intercept = meanY - slope * meanX
  const residuals = points.map(({ x, y }) => y - meanY - slope * (x - meanX))
  const left = residuals.reduce((sum, residual) => sum + residual ** 2, 0)
  return { slope, intercept, residuals, scatter: n > 2 ? Math.sqrt(left / (n - 2)) : undefined, spreadOfX }
}
