import type { Chain } from './chain.ts'
import type { Entry, EntryOf } from './entries.ts'

export type Standing = 'counts' | 'struck' | 'superseded' | 'stale'

export interface LogLine {
  entry: Entry
  standing: Standing
  strike?: EntryOf<'struck'>
  cause?: { says: string; at: string }
}

/** A log that cannot be shown as a setup: what is missing, in a sentence. */
export interface Unreadable {
  unreadable: string
  log: LogLine[]
}

export const isUnreadable = <T extends object>(of: T | Unreadable): of is Unreadable => 'unreadable' in of

/** Where an entry stands in its log now. */
export function standingOf(
  entry: Entry,
  strikes: ReadonlyMap<string, EntryOf<'struck'>>,
  chain: Chain,
): LogLine {
  const strike = strikes.get(entry.id)
  if (strike) return { entry, standing: 'struck', strike }
  const link = chain.links.get(entry.id)
  if (link?.supersededBy) return { entry, standing: 'superseded' }
  const freshness = chain.freshnessOf(entry.id)
  return freshness.state === 'stale'
    ? { entry, standing: 'stale', cause: freshness.cause }
    : { entry, standing: 'counts' }
}

/** What is said of a log with rows that cannot be read: none of its facts can be relied on. */
export const damagedSays = (rows: number) =>
  `${rows === 1 ? 'One entry' : `${rows} entries`} of this log cannot be read: what it said is not known, so nothing of this setup counts as fresh.`
