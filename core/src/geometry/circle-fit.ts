import { centroid, type PlanePoint } from './point.ts'

export interface CircleFit {
  centre: PlanePoint
  radius: number
  /** Distance from the centre less the radius, point by point: plus is outside. */
  residuals: number[]
  /** Greatest residual less the least. Three points always lie on a circle: 0. */
  form: number
  /** Standard deviation of one point about the circle; undefined with three points, which leave nothing over. */
  scatter: number | undefined
  /** By how much one unit of doubt of each point's distance is multiplied in each result: the points' spread on the circle. */
  sensitivity: { x: number; y: number; radius: number }
}

type Three = [number, number, number]
type Matrix = [Three, Three, Three]

/** The inverse of a symmetric matrix of three by its cofactors; undefined where it has none within rounding. */
function inverse([[a, b, c], [, d, e], [, , f]]: Matrix): Matrix | undefined {
  const [A, B, C] = [d * f - e * e, c * e - b * f, b * e - c * d]
  const determinant = a * A + b * B + c * C
  if (!(Math.abs(determinant) > 1e-13 * Math.abs(a * d * f))) return undefined
  const [D, E, F] = [a * f - c * c, b * c - a * e, a * d - b * b]
  const over = (value: number) => value / determinant
  return [
    [over(A), over(B), over(C)],
    [over(B), over(D), over(E)],
    [over(C), over(E), over(F)],
  ]
}

const times = (of: Matrix, by: Three): Three =>
  of.map((row) => row[0] * by[0] + row[1] * by[1] + row[2] * by[2]) as Three

/** Sum of the products of some columns: the normal equations of a least squares problem. */
function normal(rows: readonly Three[], right: readonly number[]): { matrix: Matrix; vector: Three } {
  const matrix: Matrix = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ]
  const vector: Three = [0, 0, 0]
  rows.forEach((row, n) => {
    for (const i of [0, 1, 2] as const) {
      vector[i] += row[i] * (right[n] ?? 0)
      for (const j of [0, 1, 2] as const) matrix[i][j] += row[i] * row[j]
    }
  })
  return { matrix, vector }
}

/** The algebraic fit, about the centroid and scaled to the points' spread: a start, and the test for a straight line. */
function algebraic(points: readonly PlanePoint[]): Three | undefined {
  const rows = points.map(({ x, y }): Three => [2 * x, 2 * y, 1])
  const { matrix, vector } = normal(
    rows,
    points.map(({ x, y }) => x * x + y * y),
  )
  const inverted = inverse(matrix)
  if (!inverted) return undefined
  const [x, y, c] = times(inverted, vector)
  return [x, y, Math.sqrt(c + x * x + y * y)]
}

const MOST_STEPS = 200

/** Derivative of each point's residual by centre x, centre y and radius, and the residuals themselves. */
function slopes(points: readonly PlanePoint[], [cx, cy, r]: Three): { rows: Three[]; residuals: number[] } {
  const rows: Three[] = []
  const residuals: number[] = []
  for (const { x, y } of points) {
    const away = Math.hypot(x - cx, y - cy)
    residuals.push(away - r)
    rows.push(away === 0 ? [0, 0, -1] : [(cx - x) / away, (cy - y) / away, -1])
  }
  return { rows, residuals }
}

const sumOfSquares = (values: readonly number[]) => values.reduce((sum, value) => sum + value * value, 0)

/** Gauss-Newton with Levenberg's damping, from the algebraic fit down to the least sum of squared distances. */
function geometric(points: readonly PlanePoint[], start: Three): Three {
  let at = start
  let damping = 1e-3
  let { rows, residuals } = slopes(points, at)
  let left = sumOfSquares(residuals)
  for (let step = 0; step < MOST_STEPS && left > 0 && damping < 1e12; step += 1) {
    const { matrix, vector } = normal(rows, residuals)
    const damped = matrix.map((row, i) => row.map((of, j) => (i === j ? of * (1 + damping) : of))) as Matrix
    const inverted = inverse(damped)
    if (!inverted) return at
    const by = times(inverted, vector)
    const next: Three = [at[0] - by[0], at[1] - by[1], at[2] - by[2]]
    const tried = slopes(points, next)
    const remains = sumOfSquares(tried.residuals)
    if (remains <= left) {
      const moved = Math.hypot(...by)
      at = next
      rows = tried.rows
      residuals = tried.residuals
      left = remains
      damping /= 10
      if (moved < 1e-15 * Math.max(1, at[2])) return at
    } else damping *= 10
  }
  return at
}

/**
 * The circle through three or more points with the least sum of squared distances to them
 * (geometric fit: Gander, Golub, Strebel, BIT 34, 1994). Any one unit in and out.
 * Undefined where there is none: fewer than three points, all on one straight line, or two that are the same place.
 */
export function fitCircle(points: readonly PlanePoint[]): CircleFit | undefined {
  if (points.length < 3) return undefined
  const middle = centroid(points)
  const spread = Math.max(...points.map(({ x, y }) => Math.hypot(x - middle.x, y - middle.y)))
  if (!(spread > 0)) return undefined
  const scaled = points.map(({ x, y }) => ({ x: (x - middle.x) / spread, y: (y - middle.y) / spread }))
  const start = algebraic(scaled)
  // A circle a thousand times as large as the points' spread is a straight line with noise on it.
  if (!start || !Number.isFinite(start[2]) || start[2] > 1000) return undefined
  const found = geometric(scaled, start)
  const { rows, residuals } = slopes(scaled, found)
  const variance = inverse(normal(rows, residuals).matrix)
  if (!variance) return undefined
  const own = residuals.map((residual) => residual * spread)
  const n = points.length
  return {
    centre: { x: middle.x + spread * found[0], y: middle.y + spread * found[1] },
    radius: spread * found[2],
    residuals: own,
    form: n > 3 ? Math.max(...own) - Math.min(...own) : 0,
    scatter: n > 3 ? Math.sqrt(sumOfSquares(own) / (n - 3)) : undefined,
    sensitivity: {
      x: Math.sqrt(variance[0][0]),
      y: Math.sqrt(variance[1][1]),
      radius: Math.sqrt(variance[2][2]),
    },
  }
}
