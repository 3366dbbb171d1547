import { isUnread, type LogEntry } from '@dogleg/core/log'
import { unitIn } from '@dogleg/core/pickup'
import { describeEntry } from '@dogleg/core/setup'
import { readLog } from '../log/read-log.ts'
import { sayWhen } from '../ui/when.tsx'

/** Whether this version can read an entry as what it is. */
export const isReadable = (entry: LogEntry) => readLog([entry]).every((each) => !isUnread(each))

/** An entry in words, without its setup: its lengths in the unit that they were typed in. One that cannot be read says so. */
export function sayEntry(entry: LogEntry, nameOf: (id: string) => string): string {
  const [read] = readLog([entry])
  if (!read || isUnread(read))
    return `An entry of ${entry.by} that this Dogleg cannot read (${read?.said ?? entry.kind}, ${sayWhen(entry.at)}).`
  const unit = unitIn(read) ?? 'inch'
  return describeEntry(read, { unit, leastStep: 0 }, () => 'an earlier entry', nameOf).says
}
