import { type Entry, entry as entrySchema } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { useWaiting } from './outbox.ts'

/**
 * This tablet's own entries that are on their way to the server, as far as they can be read: one that cannot is delivered all the
 * same, so that the server's refusal is shown with its reason, and harms nothing here.
 */
export function useOwnEntries(): readonly Entry[] {
  const waiting = useWaiting()
  return useMemo(
    () =>
      waiting.flatMap(({ entry, refused }) =>
        !refused && entrySchema.safeParse(entry).success ? [entry] : [],
      ),
    [waiting],
  )
}
