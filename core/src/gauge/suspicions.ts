import { MM_PER_INCH } from '../quantity/index.ts'
import type { Characteristic } from './characteristic.ts'
import type { MeasuredPart } from './results.ts'

/** A size further from its nominal value than this many tolerances is another feature, or a slip: by judgement. */
const FAR = 20

function suspicion(of: Characteristic, values: readonly number[]): string | undefined {
  const { key, nominal, lower, upper, unit } = of
  const width = Math.abs(upper - lower)
  const near = (value: number, to: number) =>
    Math.abs(value - to) <= Math.max(FAR * width, 0.02 * Math.abs(to))
  const odd = values.filter((value) => Math.abs(value - nominal) > FAR * width)
  const [first] = odd
  if (first === undefined || width === 0) return undefined
  const other = unit === 'inch' ? 'mm' : 'inch'
  if (unit !== 'deg' && nominal !== 0) {
    const factor = unit === 'inch' ? MM_PER_INCH : 1 / MM_PER_INCH
    if (odd.every((value) => near(value, nominal * factor)))
      return `${key}: ${first} looks like ${other}; the plan is in ${unit}.`
  }
  if (nominal !== 0 && odd.every((value) => near(value, -nominal)))
    return `${key}: ${first} has the wrong sign.`
  return `${key}: ${first} is far from ${nominal}${odd.length > 1 ? `, and ${odd.length - 1} more` : ''}: another value, or a slip?`
}

/** What looks wrong with results before they are recorded: another unit, a sign, another feature; a sentence each. */
export const resultSuspicions = (
  parts: readonly MeasuredPart[],
  characteristics: readonly Characteristic[],
): string[] =>
  characteristics.flatMap((of) => {
    const values = parts.flatMap(({ values: each }) => {
      const value = each[of.key]
      return value === undefined ? [] : [value]
    })
    return suspicion(of, values) ?? []
  })
