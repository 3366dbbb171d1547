import { useId } from 'react'
import { Select } from './select.tsx'

interface PickOneProps {
  label: string
  value: string
  onChange: (value: string) => void
  onFocus?: () => void
  options: readonly (readonly [value: string, says: string])[]
  hint?: string | undefined
  /** Said in the list while nothing is chosen yet; what stands there else is never nothing. */
  toChoose?: string
}

/** A labelled list to choose from, with what the choice means beside its name. */
export function PickOne({ label, value, onChange, onFocus, options, hint, toChoose }: PickOneProps) {
  const id = useId()
  return (
    <div>
      <div className="flex items-baseline justify-between gap-3">
        <label htmlFor={id} className="font-semibold">
          {label}
        </label>
        {hint && (
          <span id={`${id}-hint`} className="text-right text-sm leading-tight text-ink-soft">
            {hint}
          </span>
        )}
      </div>
      <Select
        id={id}
        value={value}
        onChange={({ target }) => onChange(target.value)}
        onFocus={onFocus}
        aria-describedby={hint ? `${id}-hint` : undefined}
        className="mt-0.5 block w-full text-lg"
      >
        {toChoose && value === '' && (
          <option value="" disabled>
            {toChoose}
          </option>
        )}
        {options.map(([each, says]) => (
          <option key={each} value={each}>
            {says}
          </option>
        ))}
      </Select>
    </div>
  )
}
