import { type Entry, entryIssues, readEntry, shapeNow } from '@dogleg/core/setup'
import { clockAsIf, clockNow, newId, now } from './clock.ts'
import { operator } from './operator.ts'
import { post } from './outbox.ts'
import { noteRecorded, SETTLE_MS } from './settled.ts'

type Unstamped<T> = T extends Entry ? Omit<T, 'id' | 'setup' | 'at' | 'by' | 'shape'> : never
export type NewEntry = Unstamped<Entry>

/** An entry with its stamp: a new id, the time, who is at this tablet, and the shape that its kind has today. */
function stamp(setup: string | undefined, entry: NewEntry): Entry {
  const id = newId()
  const at = new Date(now()).toISOString()
  return { id, setup: setup ?? id, at, by: operator(), ...entry, ...shapeNow(entry.kind) } as Entry
}

/** An entry as if it were made now, after `before` others, for what it would change; nothing is recorded. */
export const asIfRecorded = (setup: string, entry: NewEntry, before = 0): Entry => ({
  ...stamp(setup, entry),
  clock: clockAsIf(before),
})

/** Whether what is to be recorded says the same as an entry that stands, whoever made it and when. */
export const restates = (standing: Entry, entry: NewEntry) =>
  Object.entries(entry).every(
    ([name, value]) =>
      JSON.stringify(Object.entries(standing).find(([key]) => key === name)?.[1]) === JSON.stringify(value),
  )

/** What the schema has against an entry, by field, before anybody signs it. */
export function problemsOf(setup: string | undefined, entry: NewEntry): Record<string, string> {
  const issues = entryIssues({ ...stamp(setup, entry), by: operator() || 'unsigned' })
  return Object.fromEntries(issues.map(({ field, says }) => [field, says]))
}

/** What was recorded last, and when: a key that is tapped twice records once. */
let latest: { says: string; at: number; kept: Entry } | undefined

/**
 * Adds an entry to a setup's log, or opens a new setup when there is none yet. Returns the entry as kept; the one before where it says
 * the same by the same person within a second.
 */
export function record(setup: string | undefined, entry: NewEntry): Entry {
  const says = JSON.stringify([setup, operator(), entry])
  if (latest?.says === says && performance.now() - latest.at < SETTLE_MS) return latest.kept
  const kept = send(stamp(setup, entry))
  latest = { says, at: performance.now(), kept }
  noteRecorded()
  return kept
}

/** Sends an entry that has its stamp already, with what its order can be told from. Returns it as kept. Throws where it is none. */
export function send(entry: Entry): Entry {
  const kept = readEntry({ ...entry, clock: clockNow() })
  if (kept.kind === 'unread') throw new Error(kept.says)
  post(kept)
  return kept
}
