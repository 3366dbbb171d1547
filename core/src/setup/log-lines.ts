import type { LogLine as Line } from '../log/index.ts'
import type { Logged } from './kinds.ts'

/** A line of a setup's log: an entry, and where it stands now. */
export type LogLine = Line<Logged>

/** A log that cannot be shown as a setup: what is missing, in a sentence. */
export interface Unreadable {
  unreadable: string
  log: LogLine[]
}

export const isUnreadable = <T extends object>(of: T | Unreadable): of is Unreadable => 'unreadable' in of
