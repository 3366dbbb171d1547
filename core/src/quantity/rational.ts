/**
 * Exact fractions, so that what was typed is converted once and rounded once.
 * The denominator is always positive; no attempt is made to reduce.
 */
export interface Rational {
  readonly numerator: bigint
  readonly denominator: bigint
}

export const rational = (numerator: bigint, denominator = 1n): Rational => ({
  numerator,
  denominator,
})

export const add = (a: Rational, b: Rational): Rational => ({
  numerator: a.numerator * b.denominator + b.numerator * a.denominator,
  denominator: a.denominator * b.denominator,
})

export const multiply = (a: Rational, b: Rational): Rational => ({
  numerator: a.numerator * b.numerator,
  denominator: a.denominator * b.denominator,
})

export const negate = (a: Rational): Rational => ({
  numerator: -a.numerator,
  denominator: a.denominator,
})

const absolute = (n: bigint) => (n < 0n ? -n : n)

const bitLength = (n: bigint) => n.toString(2).length

/** The value of plain decimal digits such as `12.75` or `.5`, or of a number as JavaScript prints it (`1e-7`). */
export function fromDecimal(text: string): Rational {
  const [mantissa = '0', exponentText] = text.toLowerCase().split('e')
  const [whole = '', decimals = ''] = mantissa.split('.')
  const exponent = Number(exponentText ?? 0) - decimals.length
  const digits = BigInt(`${whole}${decimals}` || '0')
  return exponent >= 0
    ? rational(digits * 10n ** BigInt(exponent))
    : rational(digits, 10n ** BigInt(-exponent))
}

/** The double nearest to the fraction (ties to even), as IEEE 754 asks of a single rounding. Never gives -0. */
export function toNumber({ numerator, denominator }: Rational): number {
  if (numerator === 0n) return 0
  const magnitude = absolute(numerator)
  const shift = 66 - (bitLength(magnitude) - bitLength(denominator))
  const up = shift > 0 ? magnitude << BigInt(shift) : magnitude
  const down = shift < 0 ? denominator << BigInt(-shift) : denominator
  const sticky = up % down === 0n ? 0n : 1n
  const value = Number((up / down) | sticky) * 2 ** -shift
  return numerator < 0n ? -value : value
}

/** Rounds to whole numbers, halves away from zero. */
export function roundHalfAway({ numerator, denominator }: Rational): bigint {
  const magnitude = (2n * absolute(numerator) + denominator) / (2n * denominator)
  return numerator < 0n ? -magnitude : magnitude
}
