import type { Characteristic } from '@dogleg/core/gauge'
import { fixedDigits, formatLength } from '@dogleg/core/quantity'

/** A value as it is shown: a length in its usual digits, or degrees. */
export const formatValue = (value: number, unit: Characteristic['unit']) =>
  unit === 'deg' ? fixedDigits(value, 4) : formatLength(value, unit)

/** Seconds to a tenth, with their symbol. */
export const formatSeconds = (of: number) => `${fixedDigits(of, 1)} s`
