import type { FieldProblems, LengthUnit } from '@dogleg/core/quantity'
import { createContext, memo, type ReactNode, use } from 'react'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'

/** The form of one cycle: what stands in it, what is wrong, and which field is lit. */
export interface CycleForm {
  /** What stands in the form; where typing is followed late, as the page round the fields has it. */
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

const Answers = createContext<CycleForm['draft'] | undefined>(undefined)
/** What stands in the fields this moment, where the form follows it late. */
export const AnswersProvider = Answers.Provider

/** What stands in all fields this moment: which fields there are goes by it, so that Enter finds the next one at once. */
export function useAnswers(): CycleForm['draft'] {
  const { draft } = useCycleForm()
  return use(Answers) ?? draft
}

/** What stands in one field this moment. */
export const useAnswer = (field: string): string | boolean | undefined => useAnswers()[field]

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

/** A field with what stands in it: drawn again where that is another, and not at each key of the others. */
type Shown<Props> = Props & { value: string | boolean | undefined }

const useField = ({ field, value }: Shown<{ field: string }>) => {
  const { change, problems, lit, onLit } = useCycleForm()
  const problem = problems[field]
  return {
    value: text(value),
    onChange: (next: string) => change(field, next),
    onFocus: () => onLit(field),
    lit: lit === field,
    wrong: problem && !problem.empty ? problem.says : undefined,
  }
}

/** The same of a field that says what it comes to while it is empty: a value only where all that it comes from is known. */
function useComputedField({ field, value, computed, needs, hint }: Shown<FieldProps>) {
  const bound = useField({ field, value })
  const { missing, drawn } = useCycleForm()
  if (computed === undefined || bound.value !== '') return { ...bound, placeholder: computed, hint }
  const known = !missing.some((name) => (needs ?? drawn).includes(name))
  return known
    ? { ...bound, placeholder: computed, hint: CALCULATED }
    : { ...bound, placeholder: undefined, hint: LATER }
}

/** A length of the cycle, in the setup's unit. */
export const LengthField = (props: FieldProps) => <LengthShown {...props} value={useAnswer(props.field)} />

const LengthShown = memo(function LengthShown(props: Shown<FieldProps>) {
  const { unit } = useCycleForm()
  const bound = useComputedField(props)
  return (
    <div data-field={props.field}>
      <LengthEntryField {...bound} label={props.label} unit={unit} narrow />
    </div>
  )
})

/** A plain number: turns, degrees, a count, a tool. */
export const NumberField = (props: NumberFieldProps) => (
  <NumberShown {...props} value={useAnswer(props.field)} />
)

type NumberFieldProps = FieldProps & { suffix?: string }

const NumberShown = memo(function NumberShown({ suffix, ...props }: Shown<NumberFieldProps>) {
  const bound = useComputedField(props)
  return (
    <div data-field={props.field}>
      <TextEntry {...bound} label={props.label} narrow {...(suffix ? { suffix } : {})} />
    </div>
  )
})

/** Words, as they are typed. */
export const WordsField = (props: WordsFieldProps) => <WordsShown {...props} value={useAnswer(props.field)} />

type WordsFieldProps = FieldProps & { most: number; narrow?: boolean }

const WordsShown = memo(function WordsShown({
  field,
  value,
  label,
  hint,
  most,
  narrow,
}: Shown<WordsFieldProps>) {
  const bound = useField({ field, value })
  return (
    <div data-field={field}>
      <TextEntry {...bound} words label={label} maxLength={most} hint={hint} narrow={narrow} />
    </div>
  )
})

/** A choice of a few. */
export const ChoiceField = (props: ChoiceFieldProps) => (
  <ChoiceShown {...props} value={useAnswer(props.field)} />
)

type ChoiceFieldProps = FieldProps & {
  options: readonly (readonly [value: string, says: string])[]
  quiet?: boolean
}

/** The choices stand in the form as they are written, each time anew. */
const isSameChoice = (a: Shown<ChoiceFieldProps>, b: Shown<ChoiceFieldProps>) =>
  a.value === b.value &&
  a.field === b.field &&
  a.label === b.label &&
  a.quiet === b.quiet &&
  a.options.join('\n') === b.options.join('\n')

const ChoiceShown = memo(function ChoiceShown({
  field,
  value,
  label,
  options,
  quiet,
}: Shown<ChoiceFieldProps>) {
  const { change, onLit } = useCycleForm()
  return (
    <div data-field={field}>
      <Choice
        label={String(label)}
        quiet={quiet === true}
        value={text(value)}
        onChange={(next) => change(field, next)}
        onFocus={() => onLit(field)}
        options={options.map(([value, says]) => ({ value, label: says }))}
      />
    </div>
  )
}, isSameChoice)

/** On or off. */
export const SwitchField = (props: FieldProps) => <SwitchShown {...props} value={useAnswer(props.field)} />

const SwitchShown = memo(function SwitchShown({ field, value, label }: Shown<FieldProps>) {
  const { change, onLit } = useCycleForm()
  return (
    <label data-field={field} className="flex min-h-11 items-center gap-3 font-semibold">
      <input
        type="checkbox"
        checked={value === true}
        onChange={({ target }) => change(field, target.checked)}
        onFocus={() => onLit(field)}
        className="size-6 shrink-0 accent-ink"
      />
      {label}
    </label>
  )
})

/** Fields side by side. */
export const Pair = ({ children }: { children: ReactNode }) => (
  <div className="grid grid-cols-2 gap-x-3">{children}</div>
)
