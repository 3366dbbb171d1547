import { ArrowRight } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'

/** Something to do: a sentence, with a way to it where it is done elsewhere. */
interface Doing {
  says: string
  /** Where it is done: an address, or a part of this page; neither where it is done here. */
  to?: string | undefined
  go?: (() => void) | undefined
}

interface NextLineProps extends Doing {
  /** The step in which it is done, where that is not this one. */
  where?: string | undefined
  /** Said where there is room: not beside `here`. */
  why?: ReactNode
  /** What is next on this page: once that is done, where it is done in another step. */
  here?: Doing | undefined
}

const LINK = 'inline-flex min-h-11 items-center underline decoration-rule decoration-2 underline-offset-4'

function Sentence({ says, to, go, look }: Doing & { look: string }) {
  if (to)
    return (
      <Link to={to} relative="path" className={`${LINK} ${look}`}>
        {says}
      </Link>
    )
  return go ? (
    <button type="button" className={`${LINK} ${look}`} onClick={go}>
      {says}
    </button>
  ) : (
    <span className={look}>{says}</span>
  )
}

/** The foot of a page: the next thing to do in one sentence, a link where it is done elsewhere, and why. */
export function NextLine({ says, where, why, to, go, here }: NextLineProps) {
  return (
    <p className="flex min-h-12 flex-wrap items-center gap-x-2 border-t border-rule text-lg" role="status">
      <ArrowRight aria-hidden size={20} />
      {where && <span className="rounded-sm bg-stock-shade px-1.5">{where}</span>}
      <Sentence says={says} to={to} go={go} look="font-semibold" />
      {why && !here && <span className="text-base text-ink-soft">{why}</span>}
      {here && (
        <span className="inline-flex flex-wrap items-center gap-x-2 text-base leading-5">
          <span className="text-ink-soft">{where ? 'After that, here:' : 'Here:'}</span>{' '}
          <Sentence {...here} look="" />
        </span>
      )}
    </p>
  )
}
