import { readLength } from './entry.ts'
import type { LengthUnit } from './unit.ts'

/**
 * By what a length is put up and down at the keypad, the coarse step first: a thou and a tenth of one in inches; in mm hundredths and
 * thousandths. Common practice: what a wear offset is changed by.
 */
export const STEPS: Readonly<Record<LengthUnit, readonly [coarse: string, fine: string]>> = {
  inch: ['.001', '.0001'],
  mm: ['.01', '.001'],
}

const decimalsOf = (text: string) => /^[+-]?\d*\.?(\d*)$/.exec(text.trim())?.[1]?.length ?? 0

/**
 * A length that is typed in a field, put up or down by a step, as text: with as many decimals as were typed, and at least those of the
 * step. Undefined where what is typed is no length; an empty field counts from zero.
 * @param step with its sign, a decimal: '-.001'
 */
export function stepped(text: string, unit: LengthUnit, step: string): string | undefined {
  const read = readLength(text.trim() === '' ? '0' : text, unit)
  if (!read.ok) return undefined
  const decimals = Math.min(12, Math.max(decimalsOf(text), decimalsOf(step)))
  const sum = (read.value + Number(step)).toFixed(decimals)
  return Number(sum) === 0 ? (0).toFixed(decimals) : sum
}
