import type { LogEntry } from './entry.ts'

/**
 * Stands in a log for what cannot be read as an entry there: it was written by a newer Dogleg, or it was damaged. It stays as it is,
 * is shown with its raw text, and takes nothing else down; facts that it may have been about are not called fresh.
 */
export interface UnreadEntry extends LogEntry {
  kind: 'unread'
  why: 'newer' | 'damaged'
  /** What is wrong with it, in a sentence. */
  says: string
  /** What stands there, all of it. */
  raw: string
  /** The kind that it says it is, if it says one. */
  said?: string
  /** Its place in the server's logbook. */
  seq?: number
}

/** The time of something of which nothing tells when it was made: it may have been made after everything else. */
export const NO_TIME = '9999-12-31T23:59:59.999Z'

export const isUnread = (entry: LogEntry): entry is UnreadEntry => entry.kind === 'unread'

/** A title for it, as the logbook has it. */
export const UNREAD_TITLES: Record<UnreadEntry['why'], string> = {
  newer: 'Written by a newer Dogleg',
  damaged: 'Damaged',
}

/** The tag of its act, for those who follow a log: it may have been anything. */
export const UNREAD_TAG = 'unread'

/** Follows what an entry may have done, where what stood before it cannot be read. */
export const AFTER_UNREAD = ', perhaps: an entry before that cannot be read'

/** Follows 'before': what it does to what was recorded before it. */
export const unreadPast = ({ why }: UnreadEntry) =>
  why === 'newer' ? 'an entry that was written by a newer Dogleg' : 'an entry that is damaged'
