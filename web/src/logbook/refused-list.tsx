import { namesIn } from '@dogleg/core/setup'
import { discard, discardUnreadable, tryAgain, useUnreadable, useWaiting } from '../log/outbox.ts'
import { useReference } from '../log/rows.ts'
import { Button } from '../ui/button.tsx'
import { saveFile } from '../ui/save-file.ts'
import { RawWords } from './raw-words.tsx'
import { isReadable, sayEntry } from './say-entry.ts'

const saveRaw = (raw: string, name: string) => saveFile(raw, `dogleg-${name}.json`, 'application/json')

/** Entries of this tablet that are not in the logbook and do not get there by themselves, with what can be done. */
export function RefusedList({ setup }: { setup: string | undefined }) {
  const waiting = useWaiting().filter(({ entry }) => !setup || entry.setup === setup)
  const refused = waiting.filter((each) => each.refused)
  const unread = waiting.filter((each) => !each.refused && !isReadable(each.entry))
  const unreadable = useUnreadable()
  const { reference } = useReference()
  const nameOf = namesIn(reference)
  return (
    <>
      {refused.length > 0 && (
        <section aria-label="Refused entries" className="my-3 border-2 border-ink p-3">
          <h2 className="text-lg font-semibold">
            Not in the logbook: the server refused these. They are kept on this tablet.
          </h2>
          {refused.map((each) => (
            <div key={each.entry.id} className="border-t border-rule py-2">
              <p className="font-semibold">{sayEntry(each.entry, nameOf)}</p>
              <p>{each.refused?.says}</p>
              {!isReadable(each.entry) && <RawWords raw={JSON.stringify(each.entry, null, 1)} />}
              <div className="mt-2 flex flex-wrap gap-3">
                <Button onClick={() => saveRaw(JSON.stringify(each.entry), each.entry.id)}>
                  Save as a file
                </Button>
                <Button onClick={() => tryAgain(each)}>Try again</Button>
                <Button onClick={() => discard(each)}>Remove from this tablet</Button>
              </div>
            </div>
          ))}
        </section>
      )}
      {(unread.length > 0 || unreadable.length > 0) && (
        <section aria-label="Entries that cannot be read" className="my-3 border-2 border-ink p-3">
          <h2 className="text-lg font-semibold">
            Kept on this tablet, but this version of Dogleg cannot read it. It does not count in what is
            shown.
          </h2>
          {unread.map(({ entry }) => (
            <div key={entry.id} className="border-t border-rule py-2">
              <p className="font-semibold">{sayEntry(entry, nameOf)} It is sent when the server answers.</p>
              <RawWords raw={JSON.stringify(entry, null, 1)} />
              <Button onClick={() => saveRaw(JSON.stringify(entry), entry.id)}>Save as a file</Button>
            </div>
          ))}
          {unreadable.map((each) => (
            <div key={each.key} className="border-t border-rule py-2">
              <p>
                What it says, word for word. Save it as a file and keep it, or write down what it says and
                enter it again.
              </p>
              <RawWords raw={each.raw} />
              <div className="mt-2 flex flex-wrap gap-3">
                <Button onClick={() => saveRaw(each.raw, each.key)}>Save as a file</Button>
                <Button onClick={() => discardUnreadable(each)}>Remove from this tablet</Button>
              </div>
            </div>
          ))}
        </section>
      )}
    </>
  )
}
