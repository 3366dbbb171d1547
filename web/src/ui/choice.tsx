import { RadioGroup } from 'radix-ui'
import type { ReactNode } from 'react'
import { stepAtOnce } from './step-at-once'

interface ChoiceProps<T extends string> {
  label: string
  value: T | undefined
  options: readonly { value: T; label: ReactNode }[]
  onChange: (value: T) => void
  /** Hide the label where a heading says it already. */
  quiet?: boolean
  onFocus?: () => void
  describedBy?: string | undefined
}

/** A choice of a few, as large buttons in a row; arrow keys move, as in any radio group. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  quiet,
  onFocus,
  describedBy,
}: ChoiceProps<T>) {
  return (
    <div>
      {!quiet && <p className="mb-1 font-semibold">{label}</p>}
      <RadioGroup.Root
        aria-label={label}
        aria-describedby={describedBy}
        value={value ?? ''}
        onValueChange={(next) => onChange(next as T)}
        onFocus={onFocus}
        onKeyDownCapture={stepAtOnce}
        className="flex gap-2"
        orientation="horizontal"
      >
        {options.map((option) => (
          <RadioGroup.Item
            key={option.value}
            value={option.value}
            data-entry
            className="flex min-h-12 flex-1 items-center justify-center gap-2 rounded-sm border border-ink-soft px-2 text-center leading-tight font-semibold hover:bg-stock-shade data-[state=checked]:border-ink data-[state=checked]:bg-ink data-[state=checked]:text-stock"
          >
            {option.label}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  )
}
