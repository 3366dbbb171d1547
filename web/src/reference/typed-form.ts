import { type LengthUnit, plainText, readLength, typedInOther } from '@dogleg/core/quantity'
import { type FieldErrors, type FieldValues, type Resolver, set } from 'react-hook-form'
import type { z } from 'zod'

/** A row as it stands in its form: the numbers that are typed are text until they are understood. */
export type Typed<T> = T extends number
  ? string
  : T extends readonly (infer Each)[]
    ? Typed<Each>[]
    : T extends object
      ? { [Key in keyof T]: Key extends 'version' ? T[Key] : Typed<T[Key]> }
      : T

/** What a typed number is: a length in the row's unit, one that may stand empty, or a plain number such as an angle or a ratio. */
type NumberKind = 'length' | 'length?' | 'number'

const isLength = (kind: NumberKind | undefined) => kind === 'length' || kind === 'length?'

/** The typed numbers of a kind of row, by path; `*` stands for any name or place: `parts.*.open.front`. */
export type TypedNumbers = Readonly<Record<string, NumberKind>>

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null

const matches = (pattern: string, path: readonly string[]) => {
  const keys = pattern.split('.')
  return keys.length === path.length && keys.every((key, index) => key === '*' || key === path[index])
}

const kindAt = (numbers: TypedNumbers, path: readonly string[]) =>
  Object.entries(numbers).find(([pattern]) => matches(pattern, path))?.[1]

/** The same value with every leaf passed through `change`, which is told the path to it. */
function mapLeaves(
  value: unknown,
  change: (leaf: unknown, path: readonly string[]) => unknown,
  path: readonly string[] = [],
): unknown {
  if (Array.isArray(value))
    return value.map((each, index) => mapLeaves(each, change, [...path, String(index)]))
  if (!isObject(value)) return change(value, path)
  return Object.fromEntries(
    Object.entries(value).map(([key, each]) => [key, mapLeaves(each, change, [...path, key])]),
  )
}

/** The form of a row: its typed numbers as text; a number that is none yet stands empty. */
export const toTyped = <Row extends object>(row: Row, numbers: TypedNumbers) =>
  mapLeaves(row, (leaf, path) => {
    const kind = kindAt(numbers, path)
    if (kind === 'length?' && leaf === null) return ''
    return typeof leaf === 'number' && kind ? (Number.isNaN(leaf) ? '' : String(leaf)) : leaf
  }) as Typed<Row>

/** A length of a form in two units: as it is typed, and as it would be converted. */
export interface TwoWays {
  typed: string
  converted: string
}

/** The lengths of a form that a change of its unit means something for: zero is zero in both. */
export function lengthsTyped(
  values: unknown,
  numbers: TypedNumbers,
  { from, to }: { from: LengthUnit; to: LengthUnit },
): TwoWays[] {
  const found: TwoWays[] = []
  mapLeaves(values, (leaf, path) => {
    if (!isLength(kindAt(numbers, path)) || typeof leaf !== 'string') return leaf
    const converted = typedInOther(leaf, from, to)
    if (converted !== undefined && Number(converted) !== 0) found.push({ typed: leaf, converted })
    return leaf
  })
  return found
}

/** The same form with every length that is understood brought into the other unit; what is not stays as it is typed. */
export const convertTyped = <Values>(
  values: Values,
  numbers: TypedNumbers,
  { from, to }: { from: LengthUnit; to: LengthUnit },
): Values =>
  mapLeaves(values, (leaf, path) =>
    isLength(kindAt(numbers, path)) && typeof leaf === 'string'
      ? (typedInOther(leaf, from, to) ?? leaf)
      : leaf,
  ) as Values

/** A plain number as it is typed: `10`, `.5`, `-3.25`. */
function readNumber(text: string): { ok: true; value: number } | { ok: false; says: string } {
  const trimmed = plainText(text).trim()
  if (trimmed === '') return { ok: false, says: 'Type a number.' }
  return /^-?(\d+\.?\d*|\.\d+)$/.test(trimmed)
    ? { ok: true, value: Number(trimmed) }
    : { ok: false, says: `"${trimmed.slice(0, 20)}" is not a number.` }
}

type Wrong = { path: string; says: string }

/**
 * Reads a form of typed numbers into its row: each number first, with its sentence where it is not understood, then the
 * whole by the row's schema. Lengths are read in `unit`.
 */
export function readTyped<Row extends object>(
  schema: z.ZodType<Row>,
  numbers: TypedNumbers,
  values: Typed<Row>,
  unit: LengthUnit,
): { ok: true; row: Row } | { ok: false; wrong: Wrong[] } {
  const wrong: Wrong[] = []
  const read = mapLeaves(values, (leaf, path) => {
    const kind = kindAt(numbers, path)
    if (!kind || typeof leaf !== 'string') return leaf
    if (kind === 'length?' && leaf.trim() === '') return null
    const number = isLength(kind) ? readLength(leaf, unit) : readNumber(leaf)
    if (number.ok) return number.value
    wrong.push({ path: path.join('.'), says: number.says })
    return leaf
  })
  if (wrong.length > 0) return { ok: false, wrong }
  const whole = schema.safeParse(read)
  if (whole.success) return { ok: true, row: whole.data }
  return {
    ok: false,
    wrong: whole.error.issues.map(({ path, message }) => ({ path: path.join('.'), says: message })),
  }
}

/** The same for react-hook-form. */
export function typedResolver<Row extends object>(
  schema: z.ZodType<Row>,
  numbers: TypedNumbers,
  unitOf: (values: Typed<Row>) => LengthUnit,
): Resolver<Typed<Row> & FieldValues, unknown, Row & FieldValues> {
  return (values) => {
    const read = readTyped(schema, numbers, values, unitOf(values))
    if (read.ok) return { values: read.row, errors: {} }
    const errors: FieldErrors<Typed<Row> & FieldValues> = {}
    for (const { path, says } of read.wrong) set(errors, path, { type: 'typed', message: says })
    return { values: {}, errors }
  }
}
