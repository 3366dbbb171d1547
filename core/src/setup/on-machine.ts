import type { Logged } from './kinds.ts'
import { kinds } from './kinds.ts'

// What a machine is told of, without every setup that there ever was on it: the logs of those that were worked on last, and for each
// thing that stands beyond its setup (a tool's length, an offset, a tick) where it was said last.

/** So many setups that were worked on last. */
export const WORKED_ON_LAST = 8
/** So many for each thing: what it was before is what it is judged against. */
export const SAID_LAST = 2

/** Whether what was said of a thing is worked out from all of its setup's log: where part zero is. Else the entry that says it is enough. */
export const needsItsLog = (name: string) => /^(offset\/|flat\/|centre-line$)/.test(name)

/** What an entry says of its machine that stands beyond its setup, by name; that somebody was at it is one of these things. */
export function saidOfMachine(entry: Logged): readonly string[] {
  if (entry.kind === 'unread') return ['unread']
  const of = kinds.of(entry.kind)
  if (!of) return []
  const said = of.onMachine === 'nothing' ? [] : of.onMachine(entry)
  return of.written === 'at-machine' ? [...said, `by/${entry.by}`] : said
}
