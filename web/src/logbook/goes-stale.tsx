import { wouldGoStale } from '@dogleg/core/setup'
import { Hourglass } from 'lucide-react'
import { useMemo } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { asIfRecorded, type NewEntry } from '../log/record.ts'

/** Beside the key that records: the facts that go stale by it, said before it is pressed. Silent when none does. */
export function GoesStale({
  entry,
  besides,
}: {
  entry: NewEntry | readonly NewEntry[] | undefined
  /** What is recorded anew with it, by its name. */
  besides?: string
}) {
  const { setup, entries, reference } = useOpenSetup()
  const names = useMemo(
    () =>
      wouldGoStale(
        setup,
        entries,
        [entry ?? []].flat().map((each, before) => asIfRecorded(setup.id, each, before)),
        reference,
      ).filter((name) => name !== besides),
    [entry, besides, entries, setup, reference],
  )
  if (names.length === 0) return null
  return (
    <p className="flex items-start gap-2 text-sm leading-tight" data-testid="goes-stale">
      <Hourglass aria-hidden size={16} className="mt-0.5 shrink-0" />
      <span>
        Recording this makes stale: {names[0]?.replace(/^The /, 'the ')}
        {names.slice(1).map((name) => `, ${name.replace(/^The /, 'the ')}`)}.
      </span>
    </p>
  )
}
