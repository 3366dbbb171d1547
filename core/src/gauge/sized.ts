import { type LengthUnit, plainText, readLength, roundTo } from '../quantity/index.ts'
import { sizeAndClass } from './iso286.ts'

/** A size as a drawing has it, and the tolerance that stands with it. */
export interface Sized {
  /** The size as it is kept: a length that reads as `value`. */
  text: string
  /** In the unit asked for. */
  value: number
  /** As it is typed in a field of its own; undefined where none stands with the size. */
  tolerance?: string
}

const LIMITS = /^(.+?)\s*(?:\bto\b|\.{3})\s*(.+)$/i
/** A size and then both ways, or an upper and a lower deviation. A sum has one sign, or the same twice. */
const BOTH_WAYS = /^(.+?)\s*(?:\u00b1|\+\s*\/?\s*-)\s*(.+)$/
const TWO_WAYS = /^(.+?)\s+(\+\s*\S+)\s*\/?\s*(-\s*\S+)$/

/** Digits that a half of two limits needs beside theirs. */
const DIGITS = 9
const plain = (value: number) => String(roundTo(value, DIGITS))

/** Two limits, in `unit`; undefined where there are none. */
function limitsIn(typed: string, unit: LengthUnit): { least: number; greatest: number } | undefined {
  const found = LIMITS.exec(plainText(typed).trim())
  if (!found) return undefined
  const [one, other] = [readLength(found[1] ?? '', unit), readLength(found[2] ?? '', unit)]
  if (!one.ok || !other.ok || one.value === other.value) return undefined
  return { least: Math.min(one.value, other.value), greatest: Math.max(one.value, other.value) }
}

/**
 * A size as a machinist writes it: `1.2505`, `1.2500 to 1.2510`, `1.2505 +-.0005`, `1.2500 +.001 -.0005`, `20 H7`, `1 1/4 H7`.
 * Undefined where it is none. Limits stand for their middle, both ways by half of what is between them.
 */
export function readSized(typed: string, unit: LengthUnit): Sized | undefined {
  const text = plainText(typed).trim()
  const classed = sizeAndClass(text, unit)
  if (classed) return { text: classed.text, value: classed.value, tolerance: classed.code }
  const limits = limitsIn(text, unit)
  if (limits) {
    const middle = plain((limits.least + limits.greatest) / 2)
    const half = plain((limits.greatest - limits.least) / 2)
    return { text: middle, value: Number(middle), tolerance: `\u00b1${half}` }
  }
  const both = BOTH_WAYS.exec(text)
  const two = both ? null : TWO_WAYS.exec(text)
  const found = both ?? two
  if (found) {
    const size = readLength(found[1] ?? '', unit)
    const parts = found.slice(2).map((part) => readLength(part.replace(/^([+-])\s+/, '$1'), unit))
    if (size.ok && parts.every(({ ok }) => ok))
      return {
        text: size.text,
        value: size.value,
        tolerance: both
          ? `\u00b1${found[2]}`
          : found
              .slice(2)
              .join(' ')
              .replace(/([+-])\s+/g, '$1'),
      }
  }
  const size = readLength(text, unit)
  return size.ok ? { text: size.text, value: size.value } : undefined
}
