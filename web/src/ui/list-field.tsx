import { CircleAlert } from 'lucide-react'
import { type ReactNode, useId } from 'react'

interface ListFieldProps {
  label: string
  value: string
  onChange: (text: string) => void
  hint: string
  /** What the field made of it. */
  understood?: string | undefined
  wrong?: string | undefined
  rows: number
  /** Most characters that are taken. */
  most?: number
  lit?: boolean
  onFocus?: () => void
  /** A key at the end of the field. */
  action?: ReactNode
}

/** A field for a list that is typed or pasted; says under itself what it understood or what is wrong. */
export function ListField({
  label,
  value,
  onChange,
  hint,
  understood,
  wrong,
  rows,
  most = 8000,
  lit,
  onFocus,
  action,
}: ListFieldProps) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <div
        className={`mt-0.5 flex rounded-sm border bg-white/60 ${wrong ? 'border-3 border-ink' : lit ? 'border-layout ring-2 ring-layout' : 'border-ink-soft'}`}
      >
        <textarea
          id={id}
          rows={rows}
          data-numbers
          value={value}
          onChange={({ target }) => onChange(target.value)}
          onFocus={onFocus}
          aria-invalid={wrong !== undefined}
          aria-describedby={`${id}-told`}
          maxLength={most}
          autoComplete="off"
          spellCheck={false}
          className="digits block min-w-0 flex-1 bg-transparent px-3 py-1 text-xl"
        />
        {action}
      </div>
      <p id={`${id}-told`} className="min-h-5 text-sm leading-5" aria-live="polite">
        {wrong ? (
          <span className="flex items-start gap-1 font-semibold">
            <CircleAlert aria-hidden size={16} className="mt-0.5 shrink-0" />
            {wrong}
          </span>
        ) : (
          <span className="text-ink-soft">{understood ? `= ${understood}` : hint}</span>
        )}
      </p>
    </div>
  )
}
