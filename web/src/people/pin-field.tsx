import { useId } from 'react'

/** A field for a PIN: digits that nobody beside reads. */
export function PinField({
  label,
  value,
  onChange,
}: {
  label: string
  value: string
  onChange: (pin: string) => void
}) {
  const id = useId()
  return (
    <div>
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <input
        id={id}
        data-entry
        type="password"
        inputMode="numeric"
        autoComplete="off"
        value={value}
        maxLength={8}
        onChange={({ target }) => onChange(target.value.replace(/\D/g, ''))}
        className="mt-0.5 block h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-3 text-2xl tracking-widest"
      />
    </div>
  )
}
