import { z } from 'zod'
import {
  type DraftRead,
  type DurationOf,
  type FieldProblems,
  type LengthUnit,
  readDuration,
  readLength,
  type TypedLength,
  typedLength,
  writeDuration,
} from '../../quantity/index.ts'

type FieldRead<Kept> = { ok: true; value: Kept } | { ok: false; says: string; empty: boolean }

/**
 * One field of a cycle's form, stated once: how it is kept in the log, how it stands in the form, and the way between
 * the two. From a table of these come the schema of the parameters, that of the form, and both ways between them.
 */
export interface Field<Kept, Typed> {
  kept: z.ZodType<Kept>
  typed: z.ZodType<Typed>
  /** What stands there where the form does not ask for it. */
  blank: Kept
  read: (typed: Typed, unit: LengthUnit) => FieldRead<Kept>
  write: (kept: Kept) => Typed
}

interface LengthRule {
  least?: number
  above?: number
  says?: string
}

const allows = (value: number, { least, above }: LengthRule) =>
  (least === undefined || value >= least) && (above === undefined || value > above)

const zero: TypedLength = { text: '0', value: 0, unit: 'inch' }

/** A length as typed, with the unit that it was read in. `least` and `above` are in any unit: zero is zero in both. */
export function length(rule: LengthRule = {}): Field<TypedLength, string> {
  const says = rule.says ?? 'That length cannot be right.'
  return {
    kept: typedLength.refine(({ value }) => allows(value, rule), { error: says }),
    typed: z.string(),
    blank: rule.above === undefined ? zero : { text: '1', value: 1, unit: 'inch' },
    read: (typed, unit) => {
      const entry = readLength(typed, unit)
      if (!entry.ok) return entry
      if (!allows(entry.value, rule)) return { ok: false, says, empty: false }
      return { ok: true, value: { text: entry.text, value: entry.value, unit } }
    },
    write: ({ text }) => text,
  }
}

/** A field that may stay empty: its value is then computed, and kept as null. */
export const computed = <Kept>(of: Field<Kept, string>): Field<Kept | null, string> => ({
  kept: of.kept.nullable(),
  typed: of.typed,
  blank: null,
  read: (typed, unit) => (typed.trim() === '' ? { ok: true, value: null } : of.read(typed, unit)),
  write: (kept) => (kept === null ? '' : of.write(kept)),
})

interface NumberRule {
  least: number
  most: number
  whole?: boolean
  says: string
}

const NUMBER = /^[+-]?(\d+\.?\d*|\.\d+)$/

/** A plain number: turns, degrees, a count. */
export function number({ least, most, whole, says }: NumberRule): Field<number, string> {
  const range = z.number().min(least, says).max(most, says)
  const kept = whole ? range.int(says) : range
  return {
    kept,
    typed: z.string(),
    blank: Math.min(most, Math.max(least, 1)),
    read: (typed) => {
      const text = typed.trim().replace(/[\u2212\u2013]/g, '-')
      if (text === '') return { ok: false, says: 'Type a number.', empty: true }
      const value = NUMBER.test(text) ? kept.safeParse(Number(text)) : undefined
      return value?.success ? { ok: true, value: value.data } : { ok: false, says, empty: false }
    },
    write: String,
  }
}

/** A time in seconds, as a stopwatch shows it or a person writes it. */
export function duration({
  above,
  of = 'seconds',
}: {
  above?: number
  of?: DurationOf
} = {}): Field<number, string> {
  const says = 'That must take some time.'
  return {
    kept: z
      .number()
      .min(0, says)
      .max(7 * 86_400),
    typed: z.string().max(30),
    blank: 0,
    read: (typed) => {
      const entry = readDuration(typed, of)
      if (!entry.ok) return entry
      return above !== undefined && entry.seconds <= above
        ? { ok: false, says, empty: false }
        : { ok: true, value: entry.seconds }
    },
    write: (kept) => writeDuration(kept, of),
  }
}

/** A choice of a few. */
export const oneOf = <const T extends readonly [string, ...string[]]>(
  options: T,
): Field<T[number], T[number]> => ({
  kept: z.enum(options) as unknown as z.ZodType<T[number]>,
  typed: z.enum(options) as unknown as z.ZodType<T[number]>,
  blank: options[0],
  read: (typed) => ({ ok: true, value: typed }),
  write: (kept) => kept,
})

export const yesNo: Field<boolean, boolean> = {
  kept: z.boolean(),
  typed: z.boolean(),
  blank: false,
  read: (typed) => ({ ok: true, value: typed }),
  write: (kept) => kept,
}

/** A short name from a list that is looked up elsewhere. */
export const name: Field<string, string> = {
  kept: z.string().max(60),
  typed: z.string().max(60),
  blank: '',
  read: (typed) => ({ ok: true, value: typed }),
  write: (kept) => kept,
}

/** The same, of a list from which somebody has to choose. */
export const chosen = (says: string): Field<string, string> => ({
  ...name,
  read: (typed) => (typed === '' ? { ok: false, says, empty: true } : { ok: true, value: typed }),
})

/** Words that somebody types, kept as they stand. */
export const words = (most: number, says: string): Field<string, string> => ({
  kept: z.string().min(1, says).max(most),
  typed: z.string().max(most),
  blank: '-',
  read: (typed) => (typed.trim() === '' ? { ok: false, says, empty: true } : { ok: true, value: typed }),
  write: (kept) => kept,
})

// biome-ignore lint/suspicious/noExplicitAny: a table holds fields of every kind
export type Fields = Record<string, Field<any, any>>
export type KeptOf<F extends Fields> = {
  [K in keyof F]: F[K] extends Field<infer Kept, infer _> ? Kept : never
}
export type TypedOf<F extends Fields> = {
  [K in keyof F]: F[K] extends Field<infer _, infer Typed> ? Typed : never
}

/** A form made from its fields. */
export interface Form<F extends Fields> {
  fields: F
  /** What is kept of it. */
  params: z.ZodType<KeptOf<F>>
  /** What stands in it: everything as typed, nothing promised. */
  draft: z.ZodType<TypedOf<F>>
  /** What the form comes to, or what each field still needs. Fields that are not asked for never stand in the way. */
  read: (draft: TypedOf<F>, unit: LengthUnit) => DraftRead<KeptOf<F>>
  /**
   * Everything that is understood; what nobody typed is as in the example, and the rest stands for what a form has where nobody
   * asks: for drawings and hints.
   */
  lenient: (draft: TypedOf<F>, unit: LengthUnit, example?: Partial<TypedOf<F>>) => KeptOf<F>
  /** The form again, from what was kept. */
  write: (params: KeptOf<F>) => TypedOf<F>
}

/** `asks` says which fields count, for what stands in the form. */
export function formOf<F extends Fields>(
  fields: F,
  asks: (draft: TypedOf<F>) => (field: keyof F) => boolean = () => () => true,
): Form<F> {
  const entries = Object.entries(fields)
  const shape = (of: 'kept' | 'typed') =>
    z.object(Object.fromEntries(entries.map(([key, field]) => [key, field[of]])))
  return {
    fields,
    params: shape('kept') as unknown as z.ZodType<KeptOf<F>>,
    draft: shape('typed') as unknown as z.ZodType<TypedOf<F>>,
    read: (draft, unit) => {
      const asked = asks(draft)
      const problems: FieldProblems = {}
      const value: Record<string, unknown> = {}
      for (const [key, field] of entries) {
        const read = field.read(draft[key as keyof F], unit)
        if (read.ok) value[key] = read.value
        else if (asked(key)) problems[key] = { says: read.says, empty: read.empty }
        else value[key] = field.blank
      }
      return Object.keys(problems).length === 0
        ? { ok: true, value: value as KeptOf<F> }
        : { ok: false, problems }
    },
    lenient: (draft, unit, example) =>
      Object.fromEntries(
        entries.map(([key, field]) => {
          const read = field.read(draft[key as keyof F], unit)
          const shown = !read.ok && read.empty ? example?.[key as keyof F] : undefined
          const instead = shown === undefined ? read : field.read(shown, unit)
          return [key, instead.ok ? instead.value : field.blank]
        }),
      ) as KeptOf<F>,
    write: (params) =>
      Object.fromEntries(
        entries.map(([key, field]) => [key, field.write(params[key as keyof F])]),
      ) as TypedOf<F>,
  }
}

/** Nothing of what a drawing says. */
export const unanswered = <T extends Record<string, string>>(example: T): Record<keyof T, ''> =>
  Object.fromEntries(Object.keys(example).map((key) => [key, ''])) as Record<keyof T, ''>

/** What of a drawing a form still needs: nothing that rests on it is known. */
export const undrawn = (problems: FieldProblems, example: Readonly<Record<string, string>>): string[] =>
  Object.keys(problems).filter((field) => field in example && problems[field]?.empty)
