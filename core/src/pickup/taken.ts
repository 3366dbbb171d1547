import { fixedDigits, type LengthUnit, unitSymbol } from '../quantity/index.ts'

/** Digits after the point that a least step of a display shows. */
const digitsOf = (leastStep: number) => Math.max(0, Math.ceil(-Math.log10(leastStep) - 1e-9))

/**
 * A position that was read from the machine as it stands in a field: as the display shows it, with the unit behind it where
 * the field is in another one.
 */
export function takenText(
  value: number,
  { unit, leastStep }: { unit: LengthUnit; leastStep: number },
  field: LengthUnit,
): string {
  const text = fixedDigits(value, digitsOf(leastStep))
  return unit === field ? text : `${text}${unitSymbol(unit)}`
}
