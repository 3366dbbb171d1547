import type { Setup } from './derive.ts'
import { type Entry, type EntryOf, kinds } from './kinds.ts'
import { isUnreadable, type LogLine, type Unreadable } from './log-lines.ts'

/** What a repeat of the job begins with: how it was held and measured, its programs and plans, as far as it stood. Checks are made anew. */
const stands = ({ entry, standing }: LogLine) =>
  kinds.of(entry.kind)?.carried === true && (standing === 'counts' || standing === 'stale')

/** What is new of a repeat: who sets it up, when (ISO 8601), and ids that grow. */
export interface Repeating {
  by: string
  at: string
  nextId: () => string
}

/**
 * The log that a job begins with when it is set up again: what stood at the end of the last setup, taken over with who made it
 * and when, and then the entry that says that it was set up again, which makes everything that was measured stale. What an entry
 * rested on and is not taken over stays named, so that it is missing. Nothing where the last setup can't be read.
 */
export function repeatJob(last: Setup | Unreadable, { by, at, nextId }: Repeating): Entry[] {
  if (isUnreadable(last)) return []
  const setup = nextId()
  const { opened } = last
  const start: EntryOf<'opened'> = {
    id: setup,
    setup,
    at,
    by,
    kind: 'opened',
    title: opened.title,
    machine: { id: last.machine.id, version: last.machine.version },
    unit: opened.unit,
    tolerance: opened.tolerance,
    again: last.id,
  }
  const ids = new Map<string, string>()
  const carried = last.log.filter(stands).map(({ entry }) => {
    const id = nextId()
    ids.set(entry.id, id)
    const from = entry.carried ?? { entry: entry.id, by: entry.by, at: entry.at }
    const rests =
      'rests' in entry && entry.rests
        ? { rests: entry.rests.map((each: string) => ids.get(each) ?? each) }
        : {}
    return { ...entry, ...rests, id, setup, at, by, carried: from } as Entry
  })
  const again: Entry = {
    id: nextId(),
    setup,
    at,
    by,
    kind: 'happened',
    what: 'set-up-again',
    note: '',
  }
  return [start, ...carried, again]
}
