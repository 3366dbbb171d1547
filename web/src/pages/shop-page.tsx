import { STEP_NAMES } from '@dogleg/core/setup'
import type { MachineGlance } from '@dogleg/core/traveler'
import { NotebookPen, Plus } from 'lucide-react'
import { Suspense, useEffect, useState } from 'react'
import { Link, Navigate } from 'react-router'
import { hasLookedRound } from '../begin/looked-round.ts'
import { useOperator } from '../log/operator.ts'
import { useIsDemo } from '../log/place.ts'
import { useReference } from '../log/rows.ts'
import { useSession } from '../log/session.ts'
import { useBoard } from '../log/use-board.ts'
import { useShop } from '../log/use-shop.ts'
import { RefusedEntries } from '../logbook/refused-entries.tsx'
import { Button } from '../ui/button.tsx'
import { lazyPart, NotHereYet, whenIdle } from '../ui/lazy-part.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { When } from '../ui/when.tsx'
import { SetupRow } from './setup-row.tsx'

const loadOpening = async () => (await import('./open-setup-dialog.tsx')).OpenSetupDialog
// With it comes the arithmetic, which the first screen does without; it is fetched once that stands.
const OpenSetupDialog = lazyPart(loadOpening, NotHereYet)

/** The start page: every machine of the shop, what is on it, in which step, what is stale, what note waits. */
export function ShopPage() {
  const [opening, setOpening] = useState<string>()
  const { reference, error: referenceError } = useReference()
  const operator = useOperator()
  const { data, error: boardError } = useBoard(operator)
  const error = boardError ?? referenceError
  const shown = data !== undefined
  const hangsAt = useSession().tablet?.machine
  const machines = data?.board.machines ?? []
  const own = machines.find(({ id }) => id === hangsAt)
  useEffect(() => (shown ? whenIdle(loadOpening) : undefined), [shown])
  const opens = useOpensOn(own)
  if (opens !== undefined) return <Navigate to={`/setups/${opens}`} />
  return (
    <div className="py-1">
      <h1 className="sr-only">Shop</h1>
      <DemoLine />
      {data?.alarm && (
        <p role="alert" className="mb-4 border-2 border-ink p-3 font-semibold">
          {data.alarm}
        </p>
      )}
      {data?.warnings?.map((says) => (
        <p key={says} role="status" className="mb-4 border-2 border-rule p-3 font-semibold">
          <Link to="/this-shop" className="underline underline-offset-4">
            {says}
          </Link>
        </p>
      ))}
      {error && (
        <p role="alert" className="mb-4 border-2 border-ink p-3 font-semibold">
          {error.message}
        </p>
      )}
      {data?.reads !== undefined && (
        <p role="status" className="mb-4 border-2 border-rule p-3">
          Dogleg was changed, and reads the logbook through once: {data.reads} of 100. Older setups are not
          all known yet.
        </p>
      )}
      <RefusedEntries />
      {(own ? [own, ...machines.filter((each) => each !== own)] : machines).map((machine) => (
        <MachineSection key={machine.id} machine={machine} onOpen={() => setOpening(machine.id)} />
      ))}
      {data?.board.unreadable.map(({ id, says }) => (
        <p key={id} className="border-t border-rule py-3">
          <Link to={`/setups/${id}`} className="font-semibold underline underline-offset-4">
            {id}
          </Link>{' '}
          {says}
        </p>
      ))}
      {opening && reference && (
        <Suspense fallback={null}>
          <OpenSetupDialog
            reference={reference}
            machineId={opening}
            setupsOf={(machine) => data?.board.machines.find(({ id }) => id === machine)?.setups ?? []}
            onClose={() => setOpening(undefined)}
          />
        </Suspense>
      )}
    </div>
  )
}

/** A page that was opened on the shop has gone on to its machine's setup, or somebody came back from there. */
let opened = false

/** The setup that a tablet opens on which hangs at a machine: the one worked on there last; once, when its page is opened. */
function useOpensOn(own: MachineGlance | undefined): string | undefined {
  const [opens, setOpens] = useState<string>()
  useEffect(() => {
    if (!own) return
    if (!opened) setOpens(own.setups[0]?.id)
    opened = true
  }, [own])
  useEffect(
    () => () => {
      // Whoever goes elsewhere first is not called back.
      opened = true
    },
    [],
  )
  return opens
}

/** On the demo of a server that has no shop yet: the way to an own one, and the question that is asked once. */
function DemoLine() {
  const demo = useIsDemo()
  // The first screen does without.
  const [idle, setIdle] = useState(false)
  useEffect(() => whenIdle(async () => setIdle(true)), [])
  const { data } = useShop({ enabled: demo && idle })
  if (!demo || !data?.begins) return null
  if (!hasLookedRound()) return <Navigate to="/begin" replace />
  return (
    <p className="mb-2 flex flex-wrap items-center gap-x-3 border-b border-rule">
      This shop is made up: try anything.
      <Link
        to="/begin/own"
        className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
      >
        Set up your own
      </Link>
    </p>
  )
}

/** Setups of a machine that are shown at once; the others are one press away. */
const SHOWN = 3

function MachineSection({ machine, onOpen }: { machine: MachineGlance; onOpen: () => void }) {
  const { id, name, setups, more, notes, ready, cleared } = machine
  const others = more > 0 && (
    <Link
      to={`/machines/${id}/setups`}
      className="inline-flex min-h-11 items-center px-2 font-semibold underline underline-offset-4"
    >
      All setups on {name}, {more} more: older, or put away
    </Link>
  )
  return (
    <section aria-labelledby={`machine-${id}`} className="mb-1">
      <div className="flex flex-wrap items-center gap-x-4 border-b-2 border-ink">
        <h2 id={`machine-${id}`} className="text-2xl font-semibold">
          {name}
        </h2>
        <p className="flex items-center gap-1.5">
          {STEP_NAMES.ready} <StateMark state={ready} />
        </p>
        {setups.length === 0 && (
          <p className="text-ink-soft">{more === 0 ? 'Nothing on it yet.' : 'Everything is put away.'}</p>
        )}
        <Button className="my-1 ml-auto" onClick={onOpen} aria-label={`Open a setup on ${name}`}>
          <Plus aria-hidden size={20} /> Open a setup
        </Button>
      </div>
      {notes.map((note) => (
        <Link
          key={note.id}
          to={`/setups/${note.setup}/ready`}
          className="flex min-h-11 items-center gap-2 border-b border-rule bg-stock-shade px-2 py-1 hover:underline"
        >
          <NotebookPen aria-hidden size={20} className="shrink-0" />
          <span className="flex-1">
            <span className="font-semibold">{note.by} left a note: </span>
            {note.text}
          </span>
          <span className="text-ink-soft">
            <When at={note.at} />
          </span>
        </Link>
      ))}
      <ul>
        {setups.slice(0, SHOWN).map((setup, index) => (
          <SetupRow key={setup.id} setup={setup} onMachine={index === 0 && !cleared} />
        ))}
      </ul>
      {setups.length > SHOWN && (
        <details>
          <summary className="min-h-11 content-center px-2 font-semibold">
            and {setups.length - SHOWN + more} earlier
          </summary>
          <ul>
            {setups.slice(SHOWN).map((setup) => (
              <SetupRow key={setup.id} setup={setup} onMachine={false} />
            ))}
          </ul>
          {others}
        </details>
      )}
      {setups.length <= SHOWN && others}
    </section>
  )
}
