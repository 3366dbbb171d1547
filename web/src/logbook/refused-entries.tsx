import { Suspense } from 'react'
import { useWaiting } from '../log/outbox.ts'
import { lazyPart } from '../ui/lazy-part.tsx'

const NoList = () => (
  <p className="my-3 border-2 border-ink p-3 font-semibold">
    The server refused entries of this tablet. They are kept here; load the page again to read them.
  </p>
)

// Their words need the whole of the arithmetic, which the first screen does without.
const RefusedList = lazyPart(async () => (await import('./refused-list.tsx')).RefusedList, NoList)

/** Entries that the server refused, with its reason: they are not in the logbook, and stay here until a person decides. */
export function RefusedEntries({ setup }: { setup?: string }) {
  const some = useWaiting().some((each) => each.refused && (!setup || each.entry.setup === setup))
  if (!some) return null
  return (
    <Suspense fallback={null}>
      <RefusedList setup={setup} />
    </Suspense>
  )
}
