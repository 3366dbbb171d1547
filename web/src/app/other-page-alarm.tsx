import { useEffect, useState } from 'react'
import { useOtherPage } from '../log/other-page.ts'
import { useUnkept } from '../log/outbox.ts'
import { storage, useHeld } from '../log/storage.ts'
import { isAnythingUnsaved } from '../log/unsaved.ts'
import { Button } from '../ui/button.tsx'
import { loadNewPage } from './load-new-page.ts'

/** What a page that was loaded anew by itself tells the next one. */
const TAKEN = 'dogleg.taken'
/** Nobody has touched the tablet for so long, in ms: nobody reads what is on it now. */
const UNTOUCHED_MS = 120_000
const LOOK_MS = 5000
/** For so long it is said that the page was loaded anew, in ms. */
const TOLD_MS = 60_000

/** Nothing is typed that would be gone, and nothing is open that somebody is about to answer. */
const mayLoad = () => !isAnythingUnsaved() && document.querySelector('[role=dialog]') === null

/** Loads the server's newer page once nobody has touched this one for a while and nothing is typed on it. */
function useTakenByItself(other: boolean, lost: boolean) {
  useEffect(() => {
    if (!other || lost) return
    let touched = performance.now()
    const touch = () => {
      touched = performance.now()
    }
    const look = () => {
      if (performance.now() - touched < UNTOUCHED_MS || !mayLoad()) return
      storage.set(TAKEN, '1')
      touch()
      void loadNewPage()
    }
    const timer = setInterval(look, LOOK_MS)
    for (const event of ['pointerdown', 'keydown']) window.addEventListener(event, touch, true)
    return () => {
      clearInterval(timer)
      for (const event of ['pointerdown', 'keydown']) window.removeEventListener(event, touch, true)
    }
  }, [other, lost])
}

/** Said for a while on a page that was loaded anew by itself. */
function TakenNotice() {
  const [told, setTold] = useState(() => {
    const taken = storage.get(TAKEN) !== null
    storage.remove(TAKEN)
    return taken
  })
  useEffect(() => {
    if (!told) return
    const timer = setTimeout(() => setTold(false), TOLD_MS)
    return () => clearTimeout(timer)
  }, [told])
  return told ? (
    <p role="status" className="my-2 border-2 border-rule p-2">
      Dogleg was changed on the server, and this page was loaded anew while nobody touched it. What was typed
      into a step is still there.
    </p>
  ) : null
}

/** Told on a page that has stood open while the server was changed: what it says may not be what the server's own page says. */
export function OtherPageAlarm() {
  const other = useOtherPage()
  const lost = useHeld() + useUnkept() > 0
  useTakenByItself(other, lost)
  if (!other) return <TakenNotice />
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
      <Button look="primary" onClick={() => void loadNewPage()}>
        Load it again
      </Button>
    </section>
  )
}
