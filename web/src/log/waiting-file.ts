import { isObject, type LogEntry } from '@dogleg/core/log'
import { isStamped, post, type Waiting } from './outbox.ts'

// What waits on a tablet, as a file: where its storage takes nothing more, a person carries it to another one.

const FORM = 1

/** What waits, as the text of a file. */
export const waitingFile = (waiting: readonly Waiting[]): string =>
  JSON.stringify({ dogleg: 'waiting', form: FORM, entries: waiting.map(({ entry }) => entry) }, null, 1)

/** The entries of such a file; why it cannot be taken; undefined where the file is something else. */
export function readWaitingFile(text: string): LogEntry[] | { says: string } | undefined {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch {
    return undefined
  }
  if (!isObject(data) || data.dogleg !== 'waiting') return undefined
  if (data.form !== FORM || !Array.isArray(data.entries))
    return { says: 'It was saved by a newer Dogleg. Load this page again, then read it.' }
  const entries = data.entries.filter(isStamped)
  return entries.length === data.entries.length
    ? entries
    : { says: 'Something in it is no entry: it was changed, or is not all there.' }
}

/** Takes them to this tablet's own outbox: each goes to the logbook once, under whoever made it. */
export function takeWaiting(entries: readonly LogEntry[]) {
  for (const entry of entries) post(entry, 'of-others')
}
