import type { ComponentProps } from 'react'

/** A list to choose from, as the browser shows it: large, and at home under a gloved finger. */
export function Select({ className = '', ...rest }: ComponentProps<'select'>) {
  return (
    <select
      {...rest}
      className={`h-12 rounded-sm border border-ink-soft bg-white/60 px-2 text-xl ${className}`}
    />
  )
}
