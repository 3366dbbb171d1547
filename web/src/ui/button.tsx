import type { ComponentProps } from 'react'
import { Link } from 'react-router'

const BASE =
  'inline-flex min-h-11 items-center justify-center gap-2 rounded-sm px-4 text-base font-semibold select-none disabled:cursor-not-allowed'
const LOOKS = {
  primary:
    'bg-ink text-stock hover:bg-ink-soft disabled:bg-transparent disabled:text-ink-soft disabled:border disabled:border-rule',
  plain: 'border border-ink-soft text-ink hover:bg-stock-shade disabled:border-rule disabled:text-ink-soft',
  quiet: 'text-ink underline decoration-rule underline-offset-4 hover:bg-stock-shade',
}
export type ButtonLook = keyof typeof LOOKS

export function Button({
  look = 'plain',
  className = '',
  ...rest
}: ComponentProps<'button'> & { look?: ButtonLook }) {
  return <button type="button" {...rest} className={`${BASE} ${LOOKS[look]} ${className}`} />
}

export function ButtonLink({
  look = 'plain',
  className = '',
  ...rest
}: ComponentProps<typeof Link> & { look?: ButtonLook }) {
  return <Link {...rest} className={`${BASE} ${LOOKS[look]} ${className}`} />
}
