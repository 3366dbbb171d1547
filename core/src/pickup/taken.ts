import { digitsOfStep, fixedDigits, type LengthUnit, unitSymbol } from '../quantity/index.ts'

/**
 * A position that was read from the machine as it stands in a field: as the display shows it, with the unit behind it where
 * the field is in another one.
 */
export function takenText(
  value: number,
  { unit, leastStep }: { unit: LengthUnit; leastStep: number },
  field: LengthUnit,
): string {
  const text = fixedDigits(value, digitsOfStep(leastStep))
  return unit === field ? text : `${text}${unitSymbol(unit)}`
}
