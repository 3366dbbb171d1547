import type { Freshness } from '@dogleg/core/fact'
import { Hourglass } from 'lucide-react'
import { When } from './when.tsx'

/** Who recorded the fact that stands, and when; before that, hatched, why it is stale if it is. */
export function FactLine({ fact }: { fact: { entry: { by: string; at: string }; freshness: Freshness } }) {
  const { entry, freshness } = fact
  return (
    <>
      {freshness.state === 'stale' && (
        <p className="hatched flex items-start gap-2 px-1 font-semibold">
          <Hourglass aria-hidden size={20} className="mt-0.5 shrink-0" />
          <span>
            Stale: {freshness.cause.says} (<When at={freshness.cause.at} />)
          </span>
        </p>
      )}
      <p className="text-ink-soft">
        Recorded by {entry.by}, <When at={entry.at} />
      </p>
    </>
  )
}
