import { Suspense } from 'react'
import { useUnreadable, useWaiting } from '../log/outbox.ts'
import { lazyPart } from '../ui/lazy-part.tsx'

/** Where the list did not load: what only waits for the server is no matter of it. */
export function NoList() {
  const refused = useWaiting().some((each) => each.refused)
  const unreadable = useUnreadable().length > 0
  if (!refused && !unreadable) return null
  return (
    <p className="my-3 border-2 border-ink p-3 font-semibold">
      Entries of this tablet are not in the logbook. They are kept here; load the page again to read them.
    </p>
  )
}

// Their words need the whole of the arithmetic, which the first screen does without.
const RefusedList = lazyPart(async () => (await import('./refused-list.tsx')).RefusedList, NoList)

/** Entries of this tablet that are not in the logbook for a reason: refused, or not to be read. They stay here until a person decides. */
export function RefusedEntries({ setup }: { setup?: string }) {
  const own = useWaiting().filter(({ entry }) => !setup || entry.setup === setup)
  // Whether one that waits can be read is known only with the list and the arithmetic: it shows nothing where all can.
  const some = useUnreadable().length > 0 || own.length > 0
  if (!some) return null
  return (
    <Suspense fallback={null}>
      <RefusedList setup={setup} />
    </Suspense>
  )
}
