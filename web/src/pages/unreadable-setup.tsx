import { inOrder, isUnread } from '@dogleg/core/log'
import { type Logged, namesIn, type Reference } from '@dogleg/core/setup'
import { RawWords } from '../logbook/raw-words.tsx'
import { sayEntry } from '../logbook/say-entry.ts'
import { Button, ButtonLink } from '../ui/button.tsx'
import { saveFile } from '../ui/save-file.ts'
import { When } from '../ui/when.tsx'

/** A setup whose log cannot be worked out: why, every line of it that can be read, and what stands where one cannot. */
export function UnreadableSetup({
  says,
  entries,
  reference,
}: {
  says: string
  entries: readonly Logged[]
  reference: Reference
}) {
  const nameOf = namesIn(reference)
  const unread = entries.filter(isUnread)
  const save = () =>
    saveFile(
      JSON.stringify({ entries }, null, 1),
      `dogleg-log-${entries[0]?.setup ?? 'damaged'}.json`,
      'application/json',
    )
  return (
    <div className="max-w-prose py-6">
      <h1 className="text-2xl font-semibold">This setup cannot be worked out</h1>
      <p className="my-3 text-lg">{says}</p>
      <p className="my-3">
        Its log is safe as far as it stands below. Whoever looks after the server can take a backup that still
        has it whole; or open the setup anew, and measure again.
      </p>
      <div className="flex flex-wrap gap-3">
        <ButtonLink to="/" look="primary">
          To the shop
        </ButtonLink>
        <Button onClick={save}>Save the log as a file</Button>
      </div>
      {unread.length > 0 && (
        <section aria-label="What cannot be read" className="mt-6">
          <h2 className="text-xl font-semibold">What cannot be read</h2>
          {unread.map(({ id, seq, says: why, raw }) => (
            <div key={id} className="border-t border-rule py-2">
              <p>
                {seq ? `Place ${seq} of the logbook: ` : ''}
                {why}
              </p>
              <RawWords raw={raw} />
            </div>
          ))}
        </section>
      )}
      <section aria-label="Log" className="mt-6">
        <h2 className="text-xl font-semibold">Its log</h2>
        <ol>
          {inOrder(entries.filter((entry) => !isUnread(entry))).map((entry) => (
            <li key={entry.id} className="border-t border-rule py-1">
              <When at={entry.at} /> <span className="font-semibold">{entry.by}</span>{' '}
              {sayEntry(entry, nameOf)}
            </li>
          ))}
        </ol>
      </section>
    </div>
  )
}
