import type { Setup } from '@dogleg/core/setup'
import { Archive, ArchiveRestore } from 'lucide-react'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { When } from '../ui/when.tsx'

/** A setup that is done with leaves the board, and nothing else. */
export function PutAway({ setup: { id, away, machine } }: { setup: Pick<Setup, 'id' | 'away' | 'machine'> }) {
  const signed = useSigned()
  if (away) return null
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <Button className="min-h-12" onClick={() => signed(() => record(id, { kind: 'put-away', away: true }))}>
        <Archive aria-hidden size={20} /> Put the setup away
      </Button>
      <p className="min-w-64 flex-1 text-ink-soft">
        It leaves the board. Its log stays, with all setups on {machine.name} and in the search, and it can be
        brought back.
      </p>
    </div>
  )
}

/** Says of a setup that it is put away, on each of its pages. */
export function AwayNotice({ setup: { id, away } }: { setup: Pick<Setup, 'id' | 'away'> }) {
  const signed = useSigned()
  if (!away) return null
  return (
    <div
      role="status"
      className="my-2 flex flex-wrap items-center gap-x-4 gap-y-1 border-2 border-rule p-2 print:hidden"
    >
      <span>
        <span className="font-semibold">This setup is put away</span>, by {away.by}, <When at={away.at} />. It
        comes back by itself once work on it is recorded.
      </span>
      <Button className="ml-auto" onClick={() => signed(() => record(id, { kind: 'put-away', away: false }))}>
        <ArchiveRestore aria-hidden size={20} /> Bring it back
      </Button>
    </div>
  )
}
