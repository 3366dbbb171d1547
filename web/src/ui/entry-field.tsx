import { type LengthUnit, readLength, unitSymbol } from '@dogleg/core/quantity'
import { CircleAlert } from 'lucide-react'
import { type ReactNode, useId } from 'react'

interface TextEntryProps {
  label: ReactNode
  value: string
  onChange: (text: string) => void
  /** What the field made of it; shown under the field. */
  understood?: string | undefined
  /** What is wrong with it, when it is not merely empty. */
  wrong?: string | undefined
  suffix?: string
  /** Said under an empty field. */
  hint?: string | undefined
  lit?: boolean
  onFocus?: () => void
  /** Most characters that are taken; a length never needs more than this. */
  maxLength?: number
  /** What an empty field stands for. */
  placeholder?: string | undefined
  /** It shares its row: a little less room. */
  narrow?: boolean | undefined
  /** A key at the end of the field. */
  action?: ReactNode
  /** Said behind what it understood. */
  understoodMore?: string | undefined
  /** Words, not numbers: a comma stays a comma, and the tablet's own keyboard comes. */
  words?: boolean
  /** The unit of the length that is typed. */
  lengthIn?: LengthUnit
  /** Several readings of one thing may be typed, with a semicolon between them. */
  several?: boolean
}

/** A large field that says, under itself, what it understood or what is wrong. */
export function TextEntry({
  label,
  value,
  onChange,
  understood,
  wrong,
  suffix,
  hint,
  lit,
  onFocus,
  maxLength = 80,
  placeholder,
  narrow,
  action,
  understoodMore,
  words,
  lengthIn,
  several,
}: TextEntryProps) {
  const id = useId()
  const told = `${id}-told`
  return (
    <div>
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <div
        className={`mt-0.5 flex h-12 items-center rounded-sm border bg-white/60 ${wrong ? 'border-3 border-ink' : lit ? 'border-layout ring-2 ring-layout' : 'border-ink-soft'}`}
      >
        <input
          id={id}
          data-entry
          {...(words ? {} : { 'data-numbers': '' })}
          data-unit={lengthIn}
          {...(several ? { 'data-several': '' } : {})}
          value={value}
          onChange={(event) => onChange(event.target.value)}
          onFocus={(event) => {
            event.target.select()
            onFocus?.()
          }}
          aria-invalid={wrong !== undefined}
          aria-describedby={told}
          maxLength={maxLength}
          placeholder={placeholder}
          autoComplete="off"
          autoCorrect="off"
          spellCheck={false}
          enterKeyHint="next"
          className={`${words ? '' : 'digits'} h-full min-w-0 flex-1 bg-transparent outline-none placeholder:text-ink-soft ${narrow ? 'px-2 text-xl' : 'px-3 text-2xl'}`}
        />
        {suffix && <span className={`text-ink-soft ${narrow ? 'pr-2' : 'pr-3'}`}>{suffix}</span>}
        {action}
      </div>
      <p id={told} className="min-h-5 text-sm leading-5" aria-live={wrong || understood ? 'polite' : 'off'}>
        {wrong ? (
          <span className="flex items-start gap-1 font-semibold">
            <CircleAlert aria-hidden size={16} className="mt-0.5 shrink-0" />
            {wrong}
          </span>
        ) : understood ? (
          <span className="digits text-ink-soft">
            = {understood}
            {understoodMore && `, ${understoodMore}`}
          </span>
        ) : (
          <span className="text-ink-soft">{hint}</span>
        )}
      </p>
    </div>
  )
}

/** A field for a length: says what it understood in the field's unit, or what `wrong` has against a length that is understood. */
export function LengthEntryField({
  unit,
  value,
  wrong,
  ...rest
}: Omit<TextEntryProps, 'understood' | 'suffix'> & { unit: LengthUnit }) {
  const entry = readLength(value, unit)
  return (
    <TextEntry
      {...rest}
      value={value}
      suffix={unitSymbol(unit)}
      lengthIn={unit}
      understood={entry.ok ? entry.understood : undefined}
      wrong={!entry.ok && !entry.empty ? entry.says : wrong}
    />
  )
}

/** Enter goes to the next field of the form, and from the last one to the button that records. */
export function nextFieldOnEnter(event: React.KeyboardEvent<HTMLFormElement>) {
  const from = event.target as HTMLElement
  if (event.key !== 'Enter' || !(from instanceof HTMLInputElement)) return
  // What is typed in a dialog over the form is not of the form.
  if (!event.currentTarget.contains(from)) return
  event.preventDefault()
  const fields = [
    ...event.currentTarget.querySelectorAll<HTMLElement>('input[data-entry], button[data-record]'),
  ].filter((each) => each.checkVisibility())
  fields[fields.indexOf(from) + 1]?.focus()
}
