import type { Logged } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { useWaiting } from './outbox.ts'
import { readLog } from './read-log.ts'

/**
 * This tablet's own entries that are on their way to the server, read as they will be there: one that cannot be is delivered all the
 * same, so that the server's refusal is shown with its reason.
 */
export function useOwnEntries(): readonly Logged[] {
  const waiting = useWaiting()
  return useMemo(() => readLog(waiting.flatMap(({ entry, refused }) => (refused ? [] : [entry]))), [waiting])
}
