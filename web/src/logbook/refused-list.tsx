import { unitIn } from '@dogleg/core/pickup'
import { describeEntry, type Entry, entry as entrySchema, namesIn } from '@dogleg/core/setup'
import { discard, tryAgain, useWaiting } from '../log/outbox.ts'
import { useReference } from '../log/rows.ts'
import { Button } from '../ui/button.tsx'
import { sayWhen } from '../ui/when.tsx'

/** An entry in words, without its setup: its lengths in the unit that they were typed in. One that cannot be read says so. */
function say(entry: Entry, nameOf: (id: string) => string): string {
  if (!entrySchema.safeParse(entry).success)
    return `An entry of ${entry.by} that this Dogleg cannot read (${entry.kind}, ${sayWhen(entry.at)}).`
  const unit = unitIn(entry) ?? 'inch'
  return describeEntry(entry, { unit, leastStep: 0 }, () => 'an earlier entry', nameOf).says
}

/** The entries that were refused, in words, with what can be done. */
export function RefusedList({ setup }: { setup: string | undefined }) {
  const refused = useWaiting().filter((each) => each.refused && (!setup || each.entry.setup === setup))
  const { reference } = useReference()
  if (refused.length === 0) return null
  const nameOf = namesIn(reference)
  return (
    <section aria-label="Refused entries" className="my-3 border-2 border-ink p-3">
      <h2 className="text-lg font-semibold">
        Not in the logbook: the server refused these. They are kept on this tablet.
      </h2>
      {refused.map((each) => (
        <div key={each.entry.id} className="flex flex-wrap items-center gap-3 border-t border-rule py-2">
          <p className="flex-1">
            <span className="font-semibold">{say(each.entry, nameOf)}</span>
            <span className="block">{each.refused?.says}</span>
          </p>
          <Button onClick={() => tryAgain(each)}>Try again</Button>
          <Button onClick={() => discard(each)}>Remove from this tablet</Button>
        </div>
      ))}
    </section>
  )
}
