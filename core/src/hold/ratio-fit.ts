import { z } from 'zod'
import { type Finding, finding } from '../fact/index.ts'
import { fitLine } from '../geometry/index.ts'
import {
  convertLength,
  fixedDigits,
  formatWithUnit,
  type LengthUnit,
  typedLength,
} from '../quantity/index.ts'
import type { Moving } from './stop.ts'

export const lengthMeasured = z.enum(['face', 'length'])
/**
 * What was measured beside each diameter: where the bar's face stood (a larger bar stands further out), or the length
 * of the part after facing at one Z (a larger bar comes out shorter).
 */
export type LengthMeasured = z.infer<typeof lengthMeasured>

export const measuredPairs = z
  .array(z.object({ diameter: typedLength, length: typedLength }))
  .min(3, 'Three bars at least, of different diameters; ten are better.')
  .max(200)
  .refine(
    (pairs) =>
      new Set(pairs.map(({ diameter: { value, unit } }) => convertLength(value, unit, 'mm'))).size > 1,
    { error: 'All bars have one diameter: a ratio needs smaller and larger ones.' },
  )
export type MeasuredPairs = z.infer<typeof measuredPairs>

export interface RatioFit {
  /** Movement for each unit of diameter that this chuck really has. */
  value: number
  /** Standard error of the ratio. */
  doubt: number
  /** The line through what was measured, as it was measured: length at a diameter, in the setup's unit. */
  line: { at: number; length: number; slope: number }
  /** What the lengths scatter about the line, in the setup's unit: how well the stop repeats. */
  scatter: number
  /** Whether it is the collet's ratio: the stop moves with what closes. */
  ofCollet: boolean
  findings: Finding[]
}

/** A ratio that is known worse than this says nothing. */
const USELESS = 1

/**
 * The ratio from measured pairs: the slope of the least squares line of position over diameter, with its standard
 * error (scatter / sqrt of the sum of squares of the diameters; NIST/SEMATECH e-Handbook 4.4.3). Undefined when all
 * bars have one diameter.
 */
export function fitRatio(
  pairs: MeasuredPairs,
  what: LengthMeasured,
  expected: Moving,
  unit: LengthUnit,
): RatioFit | undefined {
  const sign = (what === 'face' ? 1 : -1) * expected.way
  const diameters = pairs.map(({ diameter }) => convertLength(diameter.value, diameter.unit, unit))
  const line = fitLine(
    pairs.map(({ length }, index) => ({
      x: diameters[index] ?? 0,
      y: sign * convertLength(length.value, length.unit, unit),
    })),
  )
  if (!line?.scatter && line?.scatter !== 0) return undefined
  const doubt = line.scatter / Math.sqrt(line.spreadOfX)
  const { slope: value, scatter } = line
  const middle = diameters.reduce((sum, each) => sum + each, 0) / diameters.length
  const findings: Finding[] = []
  const text = (ratio: number) => fixedDigits(ratio, 2)
  if (doubt > USELESS)
    findings.push(
      finding(
        'look',
        'ratio-unclear',
        'pairs',
        `These bars tell the ratio only to ${text(doubt)}.`,
        `Their diameters lie too close together for lengths that scatter by ${formatWithUnit(scatter, unit)}.`,
        'Add bars that are clearly larger and smaller.',
      ),
    )
  else if (value < -2 * doubt)
    findings.push(
      finding(
        'look',
        'ratio-backwards',
        'pairs',
        what === 'face'
          ? `Larger bars stood further ${expected.way > 0 ? 'in' : 'out'}; with this collet and stop they stand further ${expected.way > 0 ? 'out' : 'in'}.`
          : `Larger bars came out ${expected.way > 0 ? 'longer' : 'shorter'}; with this collet and stop they come out ${expected.way > 0 ? 'shorter' : 'longer'}.`,
        'The sign of the slope is the opposite of what the cone does.',
        'Check which column is which, and whether the face or the finished length was measured.',
      ),
    )
  else if (expected.value === 0 && Math.abs(value) <= 2 * doubt + 0.05)
    findings.push(
      finding(
        'note',
        'stop-stays',
        'pairs',
        `The stop stays: the lengths scatter by ${formatWithUnit(scatter, unit)} whatever the diameter.`,
        'With a stop that does not move, lengths tell how well it repeats, not the ratio of the collet.',
      ),
    )
  else if (Math.abs(value - expected.value) > 2 * Math.hypot(doubt, expected.doubt) + 0.05)
    findings.push(
      finding(
        'look',
        'ratio-differs',
        'pairs',
        `This chuck moves ${text(value)} to 1; ${text(expected.value)} to 1 was expected.`,
        `The lengths fix it to ${text(doubt)}. The cone is another than was thought, pads give, or the stop moves too.`,
        expected.value === 0
          ? 'Find out what lets the stop move before you rely on it.'
          : 'Use the measured ratio for this chuck.',
      ),
    )
  return {
    value: Math.max(0, value),
    doubt,
    scatter,
    ofCollet: expected.value > 0,
    line: { at: middle, length: sign * (line.intercept + line.slope * middle), slope: sign * line.slope },
    findings,
  }
}

/** What a chart of measured lengths shows: the bars, and both lines at the smallest and the largest diameter. */
export function chartOfRatio(
  pairs: MeasuredPairs,
  what: LengthMeasured,
  { line }: Pick<RatioFit, 'line'>,
  expected: Moving,
  unit: LengthUnit,
) {
  const points = pairs.map(({ diameter, length }) => ({
    diameter: convertLength(diameter.value, diameter.unit, unit),
    length: convertLength(length.value, length.unit, unit),
  }))
  const sizes = points.map(({ diameter }) => diameter)
  const slope = (what === 'face' ? 1 : -1) * expected.way * expected.value
  const lines = [Math.min(...sizes), Math.max(...sizes)].map((diameter) => ({
    diameter,
    fitted: line.length + line.slope * (diameter - line.at),
    expected: line.length + slope * (diameter - line.at),
  }))
  return { points, lines }
}
