import { CircleAlert } from 'lucide-react'
import { type ComponentProps, type ReactNode, useId } from 'react'

const BOX = 'min-h-11 w-full rounded-sm border bg-white/60 px-2 text-lg'

/** What is wrong with a field, with a mark. */
export function Wrong({ says, id }: { says: string | undefined; id?: string }) {
  if (!says) return null
  return (
    <p id={id} className="flex items-start gap-1 text-sm font-semibold">
      <CircleAlert aria-hidden size={16} className="mt-0.5 shrink-0" />
      {says}
    </p>
  )
}

type FieldProps = ComponentProps<'input'> & { label: ReactNode; wrong?: string | undefined; digits?: boolean }

/** A labelled field of a form of reference data. */
export function Field({ label, wrong, digits, className = '', ...rest }: FieldProps) {
  const id = useId()
  return (
    <div className={className}>
      <label htmlFor={id} className="text-sm text-ink-soft">
        {label}
      </label>
      <input
        id={id}
        autoComplete="off"
        aria-invalid={wrong !== undefined}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        {...(digits ? { 'data-numbers': '' } : {})}
        {...rest}
        className={`${BOX} ${wrong ? 'border-3 border-ink' : 'border-ink-soft'} ${digits ? 'digits' : ''}`}
      />
      <Wrong says={wrong} id={`${id}-wrong`} />
    </div>
  )
}

type AreaProps = ComponentProps<'textarea'> & { label: ReactNode; wrong?: string | undefined }

/** A labelled field for several lines. */
export function AreaField({ label, wrong, className = '', ...rest }: AreaProps) {
  const id = useId()
  return (
    <div className={className}>
      <label htmlFor={id} className="text-sm text-ink-soft">
        {label}
      </label>
      <textarea
        id={id}
        aria-invalid={wrong !== undefined}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        {...rest}
        className={`${BOX} py-1 ${wrong ? 'border-3 border-ink' : 'border-ink-soft'}`}
      />
      <Wrong says={wrong} id={`${id}-wrong`} />
    </div>
  )
}

export function SelectField({
  label,
  children,
  className = '',
  ...rest
}: ComponentProps<'select'> & { label: ReactNode }) {
  const id = useId()
  return (
    <div className={className}>
      <label htmlFor={id} className="text-sm text-ink-soft">
        {label}
      </label>
      <select id={id} {...rest} className={`${BOX} border-ink-soft`}>
        {children}
      </select>
    </div>
  )
}

export function CheckField({ label, ...rest }: ComponentProps<'input'> & { label: ReactNode }) {
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input type="checkbox" {...rest} className="size-6 shrink-0 accent-ink" />
      {label}
    </label>
  )
}

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="border-t border-rule pt-2 pb-4">
      <legend className="pr-3 text-lg font-semibold">{title}</legend>
      <div className="grid grid-cols-2 gap-x-4 gap-y-2 md:grid-cols-4">{children}</div>
    </fieldset>
  )
}
