import type { Logged } from './kinds.ts'
import { kinds } from './kinds.ts'

/**
 * What a machine is told of without every setup that there ever was on it: those worked on last, and for each thing that stands beyond
 * its setup (a tool's length, an offset, a tick) those in which it was said last.
 */
export const WORKED_ON_LAST = 12
/** As many for each thing: what it was before is what it is judged against. */
export const SAID_LAST = 2

/** What an entry says of its machine that stands beyond its setup, by name; that somebody was at it is one of these things. */
export function saidOfMachine(entry: Logged): readonly string[] {
  if (entry.kind === 'unread') return ['unread']
  const of = kinds.of(entry.kind)
  if (!of) return []
  const said = of.onMachine === 'nothing' ? [] : of.onMachine(entry)
  return of.written === 'at-machine' ? [...said, `by/${entry.by}`] : said
}
