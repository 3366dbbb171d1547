import { fromDecimal, multiply, rational, roundHalfAway } from './rational.ts'
import { type LengthUnit, unitSymbol, usualDigits } from './unit.ts'

/** The number times ten to the digits, rounded half away from zero on the digits that the number prints as. */
function scaledExactly(magnitude: number, digits: number): bigint {
  return roundHalfAway(multiply(fromDecimal(String(magnitude)), rational(10n ** BigInt(digits))))
}

/** Products below this are whole numbers that a double holds with room to spare. */
const SAFE = 1e12
/** Nearer to a half than this, the product's own rounding could decide: then it is computed exactly. */
const NEAR_HALF = 1e-3

/**
 * Decimal digits of a number, rounded half away from zero on the digits that the number prints as
 * (so 1.0005 to three digits is 1.001, as on paper), with no negative zero.
 */
export function fixedDigits(value: number, digits: number): string {
  const magnitude = Math.abs(value)
  const product = magnitude * 10 ** digits
  const plain = product < SAFE && Math.abs(product - Math.floor(product) - 0.5) > NEAR_HALF
  // Nothing near a half: the engine's own rounding prints the same digits, and quicker.
  if (plain && digits > 0 && product >= 1) return value.toFixed(digits)
  const text = (plain ? Math.round(product) : scaledExactly(magnitude, digits))
    .toString()
    .padStart(digits + 1, '0')
  const point = text.length - digits
  const sign = value < 0 && /[1-9]/.test(text) ? '-' : ''
  return digits === 0 ? sign + text : `${sign}${text.slice(0, point)}.${text.slice(point)}`
}

/** The value that `fixedDigits` prints, as a number. */
export const roundTo = (value: number, digits: number) => Number(fixedDigits(value, digits))

/** Digits needed to print the number as it is: at least `least`, at most `most`, no trailing zeros beyond `least`. */
function digitsNeeded(value: number, least: number, most: number): number {
  for (let digits = least; digits < most; digits += 1) {
    if (roundTo(value, digits) === value) return digits
  }
  return most
}

export interface FormatOptions {
  /** Digits after the point; the unit's usual number when left out. */
  digits?: number
  /** Write a plus sign before what is not negative. */
  plus?: boolean
}

/** A length at its unit's usual resolution (0.0001 in, 0.001 mm), without the unit's symbol, no negative zero. */
export function formatLength(value: number, unit: LengthUnit, options: FormatOptions = {}): string {
  const text = fixedDigits(value, options.digits ?? usualDigits(unit))
  return options.plus && !text.startsWith('-') ? `+${text}` : text
}

/** A length with its symbol: `-14.1312 in`. */
export const formatWithUnit = (value: number, unit: LengthUnit, options?: FormatOptions) =>
  `${formatLength(value, unit, options)} ${unitSymbol(unit)}`

/** A length with every digit that was meant, at least the usual ones: `0.00005 in` is not shown as 0.0001. */
export const formatAsMeant = (value: number, unit: LengthUnit) =>
  formatWithUnit(value, unit, { digits: digitsNeeded(value, usualDigits(unit), 7) })

/** A length as a term of a sum, with its sign and a space: `+ 1.0000`, `- 0.2500`. */
export const formatTerm = (value: number, unit: LengthUnit, options?: FormatOptions) =>
  formatLength(value, unit, { ...options, plus: true }).replace(/^([+-])/, '$1 ')

/** A length as it is taken away in a sum: `- 1.0000`, and `+ 0.2500` for what is negative itself. */
export const formatLess = (value: number, unit: LengthUnit) =>
  value < 0 ? formatTerm(-value, unit) : `- ${formatLength(value, unit)}`
