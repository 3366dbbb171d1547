import { z } from 'zod'
import { type LengthUnit, readDegrees, readLength, readRows, type TypedLength } from '../quantity/index.ts'
import {
  type ChoiceName,
  choiceName,
  type Field,
  type FieldName,
  fieldName,
  METHODS,
  pickupMethod,
} from './methods.ts'
import { type PositionReading, readPosition } from './position.ts'
import { isHeight, type Reading, reading } from './reading.ts'

/** What stands in the form: everything as typed, by field name, nothing promised. Fields of other methods may stand in it too. */
export const pickupDraft = z.object({
  axis: z.enum(['X', 'Y', 'Z']),
  method: pickupMethod,
  choices: z.partialRecord(choiceName, z.string()).default({}),
  fields: z.partialRecord(fieldName, z.string()),
})
export type PickupDraft = z.infer<typeof pickupDraft>

type Problems = Partial<Record<FieldName | ChoiceName, { says: string; empty: boolean }>>

export type DraftReading =
  /** `readings`: that of the axis in hand first; a method that gives X and Y has two. */
  { ok: true; reading: Reading; readings: readonly Reading[] } | { ok: false; problems: Problems }

type Read<T> = { ok: true; value: T } | { ok: false; empty: boolean; says: string }

/** A tool number as typed, `7` or `T7`: a whole number from 0 to 9999, or a sentence. */
export function readToolNumber(typed: string): Read<number> {
  const text = typed.trim()
  if (text === '') return { ok: false, empty: true, says: 'Type the tool number.' }
  const digits = /^[Tt]?\s*(\d{1,4})$/.exec(text)?.[1]
  return digits === undefined
    ? {
        ok: false,
        empty: false,
        says: `"${text.slice(0, 20)}" is not a tool number. Type a whole number, such as 7.`,
      }
    : { ok: true, value: Number(digits) }
}

const lengthOf = (typed: string, unit: LengthUnit): Read<TypedLength> => {
  const entry = readLength(typed, unit)
  return entry.ok ? { ok: true, value: { text: entry.text, value: entry.value, unit } } : entry
}

function pointsOf(typed: string, unit: LengthUnit): Read<{ x: TypedLength; y: TypedLength }[]> {
  const needs = 'Type X and Y of the spindle at each touch, a line each.'
  const list = readRows(typed, unit, { columns: ['X', 'Y'], needs, least: 1 })
  if (!list.ok) return list
  return {
    ok: true,
    value: list.rows.map(({ cells }) => ({ x: cells[0] as TypedLength, y: cells[1] as TypedLength })),
  }
}

function readField({ reads }: Field, typed: string, unit: LengthUnit): Read<unknown> {
  if (reads === 'tool') return readToolNumber(typed)
  if (reads === 'degrees') return readDegrees(typed)
  if (reads === 'points') return pointsOf(typed, unit)
  return reads === 'position' ? readPosition(typed, unit) : lengthOf(typed, unit)
}

/** Turns a form into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readDraft(draft: PickupDraft, unit: LengthUnit): DraftReading {
  const problems: Problems = {}
  const parts: Record<string, unknown> = {}
  const { choices, fields, both } = METHODS[draft.method]
  for (const { name, needs, options } of choices) {
    const chosen = draft.choices[name]
    if (options.some(([value]) => value === chosen)) parts[name] = chosen
    else problems[name] = { says: needs, empty: true }
  }
  for (const field of fields) {
    const typed = draft.fields[field.name] ?? ''
    if (field.optional && typed.trim() === '') continue
    const entry = readField(field, typed, unit)
    if (!entry.ok) problems[field.name] = { says: entry.says, empty: entry.empty }
    else parts[field.name] = entry.value
  }
  // A sensor or probe comes down on the face itself.
  if (isHeight({ ...parts, method: draft.method } as Reading))
    parts.blockHeight ??= { text: '0', value: 0, unit }
  if (Object.keys(problems).length > 0) return { ok: false, problems }
  const whole = reading.safeParse({ ...parts, method: draft.method, axis: draft.axis })
  if (!whole.success) {
    for (const { path, message } of whole.error.issues)
      problems[path[0] as FieldName] ??= { says: message, empty: false }
    return { ok: false, problems }
  }
  // One that gives both axes says the same of the other, and is checked once.
  const other = { ...whole.data, axis: draft.axis === 'X' ? 'Y' : 'X' } as Reading
  return { ok: true, reading: whole.data, readings: both ? [whole.data, other] : [whole.data] }
}

const textOf = (part: unknown): string | undefined => {
  if (typeof part === 'number') return String(part)
  if (Array.isArray(part)) return part.map(({ x, y }) => `${x.value} ${y.value}`).join('\n')
  if (typeof part !== 'object' || part === null || !('value' in part)) return undefined
  const { value, repeats = [] } = part as PositionReading
  return [value, ...repeats.map((each) => each.value)].join('; ')
}

/** A reading as a form in its own unit, for the picture of what was recorded. */
export function draftOf(of: Reading): PickupDraft {
  const parts = of as Partial<Record<FieldName | ChoiceName, unknown>>
  const { choices, fields } = METHODS[of.method]
  const draft: PickupDraft = { axis: of.axis, method: of.method, choices: {}, fields: {} }
  for (const { name } of choices) if (typeof parts[name] === 'string') draft.choices[name] = parts[name]
  for (const { name } of fields) {
    const text = textOf(parts[name])
    if (text !== undefined) draft.fields[name] = text
  }
  return draft
}

/** Fields that stay as they were from one pickup to the next: what touched, not where. */
export const CARRIED: readonly FieldName[] = ['diameter', 'tool', 'toolLength', 'blockHeight', 'cornerAngle']

/** Whether nothing has been read into a form yet: no position, no dial, no points, no offset. */
export const isUntouched = (draft: PickupDraft) =>
  METHODS[draft.method].fields.every(
    ({ name, reads }) =>
      !(reads === 'position' || reads === 'points' || name === 'shown' || name === 'measured') ||
      !draft.fields[name]?.trim(),
  )
