import { ArrowRight } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'

interface NextLineProps {
  says: string
  why?: ReactNode
  /** Where it is done: an address, or a part of this page; neither where it is done here. */
  to?: string | undefined
  go?: (() => void) | undefined
}

const LINK =
  'inline-flex min-h-11 items-center font-semibold underline decoration-rule decoration-2 underline-offset-4'

/** The foot of a step: the next thing to do in one sentence, a link where it is done elsewhere, and why. */
export function NextLine({ says, why, to, go }: NextLineProps) {
  return (
    <p className="flex min-h-12 flex-wrap items-center gap-x-2 border-t border-rule text-lg" role="status">
      <ArrowRight aria-hidden size={20} />
      {to ? (
        <Link to={to} relative="path" className={LINK}>
          {says}
        </Link>
      ) : go ? (
        <button type="button" className={LINK} onClick={go}>
          {says}
        </button>
      ) : (
        <span className="font-semibold">{says}</span>
      )}
      {why && <span className="text-base text-ink-soft">{why}</span>}
    </p>
  )
}
