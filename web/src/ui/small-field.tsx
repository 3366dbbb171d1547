import type { ReactNode } from 'react'

/** A field of a bar: its label small over it. */
export const SmallField = ({
  label,
  id,
  className = '',
  children,
}: {
  label: string
  id: string
  className?: string
  children: ReactNode
}) => (
  <div className={className}>
    <label htmlFor={id} className="block text-sm text-ink-soft">
      {label}
    </label>
    {children}
  </div>
)
