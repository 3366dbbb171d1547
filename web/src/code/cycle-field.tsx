import type { FieldProblems, LengthUnit } from '@dogleg/core/quantity'
import { createContext, type ReactNode, use } from 'react'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'

/** The form of one cycle: what stands in it, what is wrong, and which field is lit. */
export interface CycleForm {
  draft: Readonly<Record<string, string | boolean>>
  change: (field: string, value: string | boolean) => void
  /** Several fields in one go. */
  changeAll: (fields: Readonly<Record<string, string | boolean>>) => void
  problems: FieldProblems
  /** What nobody said yet, and what of a form comes from the drawing: what is calculated from the one is not shown. */
  missing: readonly string[]
  drawn: readonly string[]
  unit: LengthUnit
  lit: string | undefined
  onLit: (field: string) => void
}

const Context = createContext<CycleForm | undefined>(undefined)
export const CycleFormProvider = Context.Provider

export function useCycleForm(): CycleForm {
  const form = use(Context)
  if (!form) throw new Error('a field of a cycle stands outside its form')
  return form
}

const text = (value: string | boolean | undefined) => (typeof value === 'string' ? value : '')

/** Said of an empty field that shows what it comes to, and of one that will. */
const CALCULATED = 'calculated; type over'
const LATER = 'calculated later'

interface FieldProps {
  field: string
  label: ReactNode
  /** What an empty field comes to, in words. */
  computed?: string | undefined
  /** The fields that this comes from; all of the drawing where it is not said. */
  needs?: readonly string[] | undefined
  hint?: string | undefined
}

const useField = (field: string) => {
  const { draft, change, problems, lit, onLit } = useCycleForm()
  const problem = problems[field]
  return {
    value: text(draft[field]),
    onChange: (next: string) => change(field, next),
    onFocus: () => onLit(field),
    lit: lit === field,
    wrong: problem && !problem.empty ? problem.says : undefined,
  }
}

/** What an empty field shows, and the hint under it: a value only where all that it comes from is known. */
function useComputed(
  { computed, needs, hint }: Pick<FieldProps, 'computed' | 'needs' | 'hint'>,
  value: string,
) {
  const { missing, drawn } = useCycleForm()
  if (computed === undefined || value !== '') return { placeholder: computed, hint }
  const known = !missing.some((field) => (needs ?? drawn).includes(field))
  return known ? { placeholder: computed, hint: CALCULATED } : { placeholder: undefined, hint: LATER }
}

/** A length of the cycle, in the setup's unit. */
export function LengthField({ field, label, computed, needs, hint }: FieldProps) {
  const { unit } = useCycleForm()
  const bound = useField(field)
  const shown = useComputed({ computed, needs, hint }, bound.value)
  return (
    <div data-field={field}>
      <LengthEntryField {...bound} label={label} unit={unit} narrow {...shown} />
    </div>
  )
}

/** A plain number: turns, degrees, a count, a tool. */
export function NumberField({
  field,
  label,
  computed,
  needs,
  hint,
  suffix,
}: FieldProps & { suffix?: string }) {
  const bound = useField(field)
  const shown = useComputed({ computed, needs, hint }, bound.value)
  return (
    <div data-field={field}>
      <TextEntry {...bound} label={label} narrow {...shown} {...(suffix ? { suffix } : {})} />
    </div>
  )
}

/** Words, as they are typed. */
export function WordsField({
  field,
  label,
  hint,
  most,
  narrow,
}: FieldProps & { most: number; narrow?: boolean }) {
  const bound = useField(field)
  return (
    <div data-field={field}>
      <TextEntry {...bound} words label={label} maxLength={most} hint={hint} narrow={narrow} />
    </div>
  )
}

/** A choice of a few. */
export function ChoiceField({
  field,
  label,
  options,
  quiet,
}: FieldProps & { options: readonly (readonly [value: string, says: string])[]; quiet?: boolean }) {
  const { draft, change, onLit } = useCycleForm()
  return (
    <div data-field={field}>
      <Choice
        label={String(label)}
        quiet={quiet === true}
        value={text(draft[field])}
        onChange={(next) => change(field, next)}
        onFocus={() => onLit(field)}
        options={options.map(([value, says]) => ({ value, label: says }))}
      />
    </div>
  )
}

/** On or off. */
export function SwitchField({ field, label }: FieldProps) {
  const { draft, change, onLit } = useCycleForm()
  return (
    <label data-field={field} className="flex min-h-11 items-center gap-3 font-semibold">
      <input
        type="checkbox"
        checked={draft[field] === true}
        onChange={({ target }) => change(field, target.checked)}
        onFocus={() => onLit(field)}
        className="size-6 shrink-0 accent-ink"
      />
      {label}
    </label>
  )
}

/** Fields side by side. */
export const Pair = ({ children }: { children: ReactNode }) => (
  <div className="grid grid-cols-2 gap-x-3">{children}</div>
)
