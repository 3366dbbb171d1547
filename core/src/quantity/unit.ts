import { z } from 'zod'
import { fromDecimal, multiply, type Rational, rational, toNumber } from './rational.ts'

/** The unit that lengths travel in. Always one of the two; feet and centimetres are not written in a shop. */
export const lengthUnit = z.enum(['inch', 'mm'])
export type LengthUnit = z.infer<typeof lengthUnit>

/** One inch is 25.4 mm exactly (international yard and pound agreement, 1959; ISO 80000-3). */
export const MM_PER_INCH = 25.4

const MM_PER_INCH_EXACT = rational(127n, 5n)
const INCH_PER_MM_EXACT = rational(5n, 127n)

export const unitSymbol = (unit: LengthUnit) => (unit === 'inch' ? 'in' : 'mm')

/** Digits after the point at which a length is usually written: a tenth of a thou, or a micrometre. */
export const usualDigits = (unit: LengthUnit) => (unit === 'inch' ? 4 : 3)

/** Converts exactly; the caller rounds once, at the end. */
export function convertExact(value: Rational, from: LengthUnit, to: LengthUnit): Rational {
  if (from === to) return value
  return multiply(value, from === 'inch' ? MM_PER_INCH_EXACT : INCH_PER_MM_EXACT)
}

/**
 * Converts a length from one unit to the other with a single rounding to the nearest double:
 * the decimal digits of `value` are taken as exact. 0.1 inch is 2.54 mm, not 2.5399999999999996.
 */
export function convertLength(value: number, from: LengthUnit, to: LengthUnit): number {
  if (from === to) return value
  const magnitude = fromDecimal(String(Math.abs(value)))
  const converted = toNumber(convertExact(magnitude, from, to))
  return value < 0 ? -converted : converted
}

/** Digits after the point that a step of a display or a dial shows: 4 for 0.0001, 3 for 0.002. */
export const digitsOfStep = (step: number) => Math.max(0, Math.ceil(-Math.log10(step) - 1e-9))
