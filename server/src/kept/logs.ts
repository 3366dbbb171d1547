import { type Logged, slimmed } from '@dogleg/core/setup'
import type { EntryStore, PlacedEntry } from '../entries/store.ts'
import { type KeptFile, prepared } from './open.ts'

/** Logs that are kept in memory: of a large shop those that count on its machines. */
const MOST_KEPT = 1000

/** An entry without what is long. */
export const slim = (entry: Logged) => (entry.kind === 'unread' ? entry : slimmed(entry))

/** Puts what was used last at the end, and lets go of what was used longest ago. */
export function use<T>(known: Map<string, T>, key: string, value: T, most: number): T {
  known.delete(key)
  known.set(key, value)
  const [oldest] = known.keys()
  if (known.size > most && oldest !== undefined) known.delete(oldest)
  return value
}

/** Logs of setups without what is long; each is read again when it has a new entry. */
export function logReader(store: EntryStore) {
  const known = new Map<string, { last: number; log: PlacedEntry[] }>()
  return async (db: KeptFile, setup: string): Promise<PlacedEntry[]> => {
    const row = prepared(db, 'select last from setups where setup = ?').get(setup)
    const last = (row as { last: number } | undefined)?.last ?? 0
    const before = known.get(setup)
    if (before?.last === last) return use(known, setup, before, MOST_KEPT).log
    const log = (await store.placed(setup)).map(({ entry, seq }) => ({ entry: slim(entry), seq }))
    return use(known, setup, { last, log }, MOST_KEPT).log
  }
}
export type LogReader = ReturnType<typeof logReader>
