import type { Chain } from './chain.ts'
import type { LogEntry } from './entry.ts'
import type { Strike } from './struck.ts'

/** Where an entry stands in its log: it counts, it was struck out, another took its place, or what it says no longer holds. */
export type Standing = 'counts' | 'struck' | 'superseded' | 'stale'

export interface LogLine<Entry extends LogEntry = LogEntry> {
  entry: Entry
  standing: Standing
  strike?: Strike
  cause?: { says: string; at: string }
}

/** Where an entry stands in its log now. */
export function standingOf<Entry extends LogEntry>(
  entry: Entry,
  strikes: ReadonlyMap<string, Strike>,
  { links, freshnessOf }: Pick<Chain, 'links' | 'freshnessOf'>,
): LogLine<Entry> {
  const strike = strikes.get(entry.id)
  if (strike) return { entry, standing: 'struck', strike }
  const link = links.get(entry.id)
  if (link?.supersededBy) return { entry, standing: 'superseded' }
  const freshness = freshnessOf(entry.id)
  return freshness.state === 'stale'
    ? { entry, standing: 'stale', cause: freshness.cause }
    : { entry, standing: 'counts' }
}
