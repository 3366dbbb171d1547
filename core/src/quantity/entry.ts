import { z } from 'zod'
import { fixedDigits, formatAsMeant } from './format.ts'
import { plainText } from './plain.ts'
import { add, fromDecimal, multiply, negate, type Rational, rational, toNumber } from './rational.ts'
import { convertExact, convertLength, type LengthUnit, lengthUnit } from './unit.ts'

/** What a field made of what was typed: a length in the field's unit, or a sentence that says what is wrong. */
export type LengthEntry =
  | { ok: true; value: number; unit: LengthUnit; text: string; understood: string }
  | { ok: false; empty: boolean; says: string }

const LONGEST_ENTRY = 60
const LARGEST_LENGTH = 100_000

const TERM = {
  mixed: /(\d+)(?:-| +)(\d+)\/(\d+)(?![\d./])/y,
  fraction: /(\d+)\/(\d+)(?![\d./])/y,
  decimal: /(\d+\.?\d*|\.\d+)/y,
  unit: / *(inches|inch|in|"|mm|thou)(?![a-z])/iy,
  space: /\s*/y,
}

type TermUnit = LengthUnit | 'thou' | undefined
interface Term {
  value: Rational
  unit: TermUnit
}

class Refusal extends Error {}

const refuse = (says: string): never => {
  throw new Refusal(says)
}

const unitOf = (symbol: string | undefined): TermUnit => {
  const lower = symbol?.toLowerCase()
  if (lower === undefined) return undefined
  return lower === 'mm' || lower === 'thou' ? lower : 'inch'
}

function fractionOf(numerator: string, denominator: string, text: string): Rational {
  if (BigInt(denominator) === 0n) refuse(`${text} divides by zero. Write the fraction again.`)
  return rational(BigInt(numerator), BigInt(denominator))
}

/** A reader over the text that takes one pattern at a time, at its own place. */
class Cursor {
  at = 0
  readonly text: string
  constructor(text: string) {
    this.text = text
  }
  take(pattern: RegExp): RegExpExecArray | undefined {
    pattern.lastIndex = this.at
    const match = pattern.exec(this.text)
    if (match) this.at = pattern.lastIndex
    return match ?? undefined
  }
  get rest() {
    return this.text.slice(this.at)
  }
}

function takeNumber(cursor: Cursor): Rational {
  const mixed = cursor.take(TERM.mixed)
  if (mixed) {
    const [text, whole = '', top = '', bottom = ''] = mixed
    const part = fractionOf(top, bottom, `${top}/${bottom}`)
    if (part.numerator >= part.denominator) {
      refuse(
        `${text} can be read two ways. Put spaces round the minus to subtract, or write a proper fraction.`,
      )
    }
    return add(rational(BigInt(whole)), part)
  }
  const fraction = cursor.take(TERM.fraction)
  if (fraction) return fractionOf(fraction[1] ?? '', fraction[2] ?? '', fraction[0])
  const decimal = cursor.take(TERM.decimal)
  if (decimal) {
    if (cursor.rest.startsWith('/'))
      refuse(`${cursor.text} is not clear. Write a fraction with two whole numbers, such as 3/8.`)
    return fromDecimal(decimal[0])
  }
  return refuse(whatIsWrong(cursor.text, cursor.rest))
}

function takeTerm(cursor: Cursor): Term {
  const value = takeNumber(cursor)
  return { value, unit: unitOf(cursor.take(TERM.unit)?.[1]) }
}

function whatIsWrong(text: string, rest: string): string {
  if (/\d\s*,\s*\d/.test(text)) {
    return `${text} has a comma. Write a decimal point, and thousands without a mark.`
  }
  if (/\.\s*\d*\s*\./.test(text)) return `${text} has two decimal points in one number. Write it with one.`
  if (/^\d*\.?\d*e[+-]?\d/i.test(text)) return `${text} has an exponent. Write all the digits.`
  if (/[+-]\s*[+-]/.test(text)) return `${text} has two signs in a row. Leave one.`
  if (/[+-]\s*$/.test(text)) return `${text} ends with a sign. Type the number that follows it.`
  if (!/\d/.test(text)) return `"${text}" is not a length. Type a number such as 1.250, 1-1/4 or 12.7mm.`
  return `"${rest.trim() || text}" is not understood. Type a number such as 1.250, 1-1/4 or 12.7mm.`
}

function takeSum(cursor: Cursor): Term[] {
  const terms: Term[] = []
  let sign = cursor.take(/\s*([+-])/y)?.[1] ?? '+'
  for (;;) {
    cursor.take(TERM.space)
    const term = takeTerm(cursor)
    terms.push(sign === '-' ? { ...term, value: negate(term.value) } : term)
    cursor.take(TERM.space)
    if (cursor.rest === '') return terms
    sign = cursor.take(/[+-]/y)?.[0] ?? refuse(whatIsWrong(cursor.text, cursor.rest))
  }
}

function inFieldUnit(term: Term, unit: LengthUnit): Rational {
  if (term.unit === 'thou') {
    return convertExact(multiply(term.value, rational(1n, 1000n)), 'inch', unit)
  }
  return convertExact(term.value, term.unit ?? unit, unit)
}

function evaluate(text: string, unit: LengthUnit): number {
  const terms = takeSum(new Cursor(text))
  const bare = terms.some((term) => term.unit === undefined)
  const foreign = terms.find((term) => term.unit !== undefined && term.unit !== unit)
  if (bare && foreign) {
    refuse(`${text} mixes numbers with and without a unit. Say the unit on every number, or on none.`)
  }
  return toNumber(terms.map((term) => inFieldUnit(term, unit)).reduce(add))
}

/**
 * Reads a length as a machinist writes it: `.5`, `1/2`, `1-1/2`, `12.7mm`, `0.5in`, `5thou`, `2-.125`, `-.0005`.
 *
 * A whole number, a hyphen and a proper fraction without spaces is a mixed number (`1-1/2` is one and a half);
 * with spaces round the hyphen it is a subtraction. A unit suffix overrides the field's unit for its number.
 * The sum is kept exact and rounded once to the nearest double in the field's unit. Never throws.
 */
export function readLength(typed: string, unit: LengthUnit): LengthEntry {
  const text = plainText(typed).trim()
  if (text === '') return { ok: false, empty: true, says: 'Type a number.' }
  if (text.length > LONGEST_ENTRY) {
    return {
      ok: false,
      empty: false,
      says: `That is ${text.length} characters long. Type one length.`,
    }
  }
  try {
    const value = evaluate(text, unit)
    if (Math.abs(value) > LARGEST_LENGTH) {
      refuse(`${text} is longer than any machine's travel. Check the point and the unit.`)
    }
    return { ok: true, value, unit, text: typed.trim(), understood: formatAsMeant(value, unit) }
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, empty: false, says: error.message }
    throw error
  }
}

/**
 * A length as it is stored: what was typed, beside what it meant. `value` is in `unit`.
 * The two must agree: a number that its own text does not give is refused.
 */
export const typedLength = z
  .object({
    text: z.string().max(LONGEST_ENTRY).describe('as typed'),
    value: z.number().describe('in unit'),
    unit: lengthUnit,
  })
  .refine(
    ({ text, value, unit }) => {
      const entry = readLength(text, unit)
      return entry.ok && entry.value === value
    },
    { error: 'What was typed and the number kept beside it do not agree. Type it again.' },
  )
export type TypedLength = z.infer<typeof typedLength>

/** A typed length from a number that a program knows (a default, the demo). */
export const asTyped = (value: number, unit: LengthUnit): TypedLength => ({
  text: String(value),
  value,
  unit,
})

/** A length that was computed, as it would be typed: to a billionth, whatever its size. */
export function computedLength(value: number, unit: LengthUnit): TypedLength {
  const text = fixedDigits(value, 9).replace(/\.?0+$/, '')
  return { text, value: Number(text), unit }
}

/** How a stored entry reads back: `12.7mm = 0.5000 in`, or just the length where what was typed is a plain number. */
export function describeTyped({ text, value, unit }: TypedLength): string {
  const meant = formatAsMeant(value, unit)
  return Number(text) === value ? meant : `${text} = ${meant}`
}

/** Digits beyond what any caliper shows: a length that is converted to and fro comes back as it was. */
const CONVERTED_DIGITS = 6

/** A length as it is typed, as it would be typed in the other unit; undefined where it is not understood. */
export function typedInOther(text: string, from: LengthUnit, to: LengthUnit): string | undefined {
  const read = readLength(text, from)
  return read.ok ? String(Number(convertLength(read.value, from, to).toFixed(CONVERTED_DIGITS))) : undefined
}
