import { unitIn } from '@dogleg/core/pickup'
import { describeEntry, type Entry, entry as entrySchema } from '@dogleg/core/setup'
import { sayWhen } from '../ui/when.tsx'

/** Whether this version can read an entry as what it is. */
export const isReadable = (entry: Entry) => entrySchema.safeParse(entry).success

/** An entry in words, without its setup: its lengths in the unit that they were typed in. One that cannot be read says so. */
export function sayEntry(entry: Entry, nameOf: (id: string) => string): string {
  if (!isReadable(entry))
    return `An entry of ${entry.by} that this Dogleg cannot read (${entry.kind}, ${sayWhen(entry.at)}).`
  const unit = unitIn(entry) ?? 'inch'
  return describeEntry(entry, { unit, leastStep: 0 }, () => 'an earlier entry', nameOf).says
}
