import { z } from 'zod'
import { type LengthEntry, type LengthUnit, readLength, type TypedLength } from '../quantity/index.ts'
import { type PickupMethod, pickupMethod, type Reading } from './reading.ts'

const fieldName = z.enum([
  'diameter',
  'machinePosition',
  'minusSide',
  'plusSide',
  'tool',
  'toolLength',
  'blockHeight',
  'drawingPosition',
])
export type FieldName = z.infer<typeof fieldName>

/** What stands in the form: everything as typed, by field name, nothing promised. Fields of other methods may stand in it too. */
export const pickupDraft = z.object({
  axis: z.enum(['X', 'Y', 'Z']),
  method: pickupMethod,
  direction: z.enum(['+', '-']).optional(),
  fields: z.partialRecord(fieldName, z.string()),
})
export type PickupDraft = z.infer<typeof pickupDraft>

/** The fields of each method in the order of the work; the tool's number is a whole number, all others are lengths. */
export const METHOD_FIELDS: Record<PickupMethod, readonly FieldName[]> = {
  'edge-finder': ['diameter', 'machinePosition', 'drawingPosition'],
  indicator: ['minusSide', 'plusSide', 'drawingPosition'],
  'tool-on-block': ['tool', 'toolLength', 'blockHeight', 'machinePosition', 'drawingPosition'],
}

export type DraftReading =
  | { ok: true; reading: Reading }
  | { ok: false; problems: Partial<Record<FieldName | 'direction', { says: string; empty: boolean }>> }

/** A tool number as typed, `7` or `T7`: a whole number from 0 to 9999, or a sentence. */
export function readToolNumber(
  typed: string,
): { ok: true; value: number } | { ok: false; empty: boolean; says: string } {
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

/** Turns a form into a reading, or says what each field still needs. Lengths are read in `unit`. */
export function readDraft(draft: PickupDraft, unit: LengthUnit): DraftReading {
  const problems: Partial<Record<FieldName | 'direction', { says: string; empty: boolean }>> = {}
  const parts: Record<string, unknown> = { method: draft.method, axis: draft.axis }
  if (draft.method === 'edge-finder') {
    if (draft.direction) parts.direction = draft.direction
    else problems.direction = { says: 'Say which way the spindle moved into the face.', empty: true }
  }
  for (const name of METHOD_FIELDS[draft.method]) {
    const typed = draft.fields[name] ?? ''
    const entry = name === 'tool' ? readToolNumber(typed) : readLength(typed, unit)
    if (!entry.ok) problems[name] = { says: entry.says, empty: entry.empty }
    else parts[name] = name === 'tool' ? entry.value : stored(entry as LengthEntry & { ok: true })
  }
  return Object.keys(problems).length > 0 ? { ok: false, problems } : { ok: true, reading: parts as Reading }
}

/** A reading as a form in its own unit, for the picture of what was recorded. */
export function draftOf(reading: Reading): PickupDraft {
  const parts = reading as Partial<Record<FieldName, TypedLength | number>>
  const fields: PickupDraft['fields'] = {}
  for (const name of METHOD_FIELDS[reading.method]) {
    const part = parts[name]
    if (part !== undefined) fields[name] = String(typeof part === 'number' ? part : part.value)
  }
  const direction = reading.method === 'edge-finder' ? { direction: reading.direction } : {}
  return { axis: reading.axis, method: reading.method, fields, ...direction }
}

const stored = ({ text, value, unit }: LengthEntry & { ok: true }): TypedLength => ({ text, value, unit })
