import type { Setup } from '@dogleg/core/setup'
import { TriangleAlert } from 'lucide-react'
import { Link } from 'react-router'

/** Says that something of a setup's log cannot be read here, and what that means for what is shown. */
export function UnreadNotice({ setup: { id, unread } }: { setup: Pick<Setup, 'id' | 'unread'> }) {
  const [first] = unread
  if (!first) return null
  const newer = unread.every(({ why }) => why === 'newer')
  return (
    <p role="status" className="my-2 flex items-start gap-2 border-2 border-ink p-2 print:hidden">
      <TriangleAlert aria-hidden size={22} className="mt-0.5 shrink-0" />
      <span>
        <span className="font-semibold">
          {unread.length === 1 ? 'One entry' : `${unread.length} entries`} of this log cannot be read here.
        </span>{' '}
        What was recorded before {unread.length === 1 ? 'it' : 'them'} counts as stale.{' '}
        {newer ? 'A newer Dogleg wrote that: bring this one up to date.' : 'See what stands there:'}{' '}
        <Link to={`/setups/${id}/logbook`} className="font-semibold underline underline-offset-4">
          Logbook
        </Link>
      </span>
    </p>
  )
}
