import { readLength, type TypedLength } from './entry.ts'
import type { LengthUnit } from './unit.ts'

/** What is wrong with a field, by its path ('pivot', 'points.1.reading'); `empty` where nothing was typed yet. */
export type FieldProblems = Record<string, { says: string; empty: boolean }>

/** What a form comes to: what it stands for, or what each field still needs. */
export type DraftRead<T> = { ok: true; value: T } | { ok: false; problems: FieldProblems }

/** Reads fields of lengths in `unit`, and notes in `problems` what is wrong with each. */
export const lengthFields =
  (unit: LengthUnit, problems: FieldProblems) =>
  (path: string, typed: string): TypedLength | undefined => {
    const entry = readLength(typed, unit)
    if (entry.ok) return { text: entry.text, value: entry.value, unit }
    problems[path] = { says: entry.says, empty: entry.empty }
    return undefined
  }

interface SchemaRead<T> {
  success: boolean
  data?: T
  error?: { issues: readonly { path: readonly PropertyKey[]; message: string }[] }
}

/** The end of reading a form: what the schema has against fields that are understood; those that are not have their sentence already. */
export function draftRead<T>(read: SchemaRead<T>, problems: FieldProblems): DraftRead<T> {
  if (Object.keys(problems).length === 0 && read.success) return { ok: true, value: read.data as T }
  const told = Object.keys(problems)
  for (const { path, message } of read.error?.issues ?? []) {
    const field = path.join('.')
    if (!told.some((each) => each === field || each.startsWith(`${field}.`)))
      problems[field] ??= { says: message, empty: false }
  }
  return { ok: false, problems }
}
