import { useOtherPage } from '../log/other-page.ts'
import { useUnkept } from '../log/outbox.ts'
import { useHeld } from '../log/storage.ts'
import { Button } from '../ui/button.tsx'

/** Told on a page that has stood open while the server was changed: what it says may not be what the server's own page says. */
export function OtherPageAlarm() {
  const other = useOtherPage()
  const lost = useHeld() + useUnkept() > 0
  if (!other) return null
  return (
    <section
      role="alert"
      aria-label="This page is of another version"
      className="my-2 flex flex-wrap items-center justify-between gap-3 border-2 border-ink p-3"
    >
      <div className="max-w-prose">
        <h2 className="text-lg font-semibold">
          Dogleg was changed on the server while this page stood open.
        </h2>
        <p>
          Load the page again before you rely on what it shows.{' '}
          {lost
            ? 'The storage of this tablet is full or blocked: first write down what is typed and not recorded.'
            : 'What is recorded is kept, and so is what is typed into a step; save first what is typed into a note or a page of the library.'}
        </p>
      </div>
      <Button look="primary" onClick={() => location.reload()}>
        Load it again
      </Button>
    </section>
  )
}
