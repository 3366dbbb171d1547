import { deriveTools, isUnreadable, STEP_NAMES } from '@dogleg/core/setup'
import { travelerOf } from '@dogleg/core/traveler'
import { NotebookPen } from 'lucide-react'
import { useEffect, useMemo, useState } from 'react'
import { Navigate, NavLink, Outlet, useLocation, useParams } from 'react-router'
import { Lost } from '../app/lost.tsx'
import { loadAhead } from '../app/view.tsx'
import { AwayNotice } from '../hand-over/put-away.tsx'
import type { OpenSetup } from '../log/open-setup.ts'
import { useReady, useSetup } from '../log/use-setup.ts'
import { ChangedDialog } from '../logbook/changed-dialog.tsx'
import { UnreadNotice } from '../logbook/unread-notice.tsx'
import { PositionContext, positionSourceOf } from '../positions/use-positions.ts'
import { typesIn } from '../press/typed-before.ts'
import { useStayAwake } from '../tablet/stay-awake.ts'
import { addressOf, keptBetween, QUIETLY } from '../traveler/address.ts'
import { Button } from '../ui/button.tsx'
import { whenIdle } from '../ui/lazy-part.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { UnreadableSetup } from './unreadable-setup.tsx'

const tabLook = ({ isActive }: { isActive: boolean }) =>
  `inline-flex min-h-12 flex-col justify-center border-b-4 px-1 leading-5 xl:px-1.5 font-semibold ${isActive ? 'border-ink' : 'border-transparent hover:bg-stock-shade'}`

/** The traveler of one setup: its steps with their state, and what belongs to all of them. */
export function SetupPage() {
  const { id = '' } = useParams()
  useStayAwake()
  const { setup, entries, reference, error } = useSetup(id)
  if (!setup || !reference) {
    if (error) return <Lost says={error.message} />
    return <p className="py-10 text-lg">Reading the logbook…</p>
  }
  if (isUnreadable(setup))
    return <UnreadableSetup says={setup.unreadable} entries={entries} reference={reference} />
  // Another setup begins anew: nothing that is typed in one is shown in the other, or kept as its.
  return <Traveler key={id} setup={setup} entries={entries} reference={reference} />
}

function Traveler(open: Pick<OpenSetup, 'setup' | 'entries' | 'reference'>) {
  const { setup, reference } = open
  const { machine, unit } = setup
  const [changing, setChanging] = useState(false)
  const { search, pathname } = useLocation()
  const kept = keptBetween(search)
  const { ready, machineEntries, known } = useReady(setup)
  const lengths = useMemo(() => deriveTools(machineEntries, machine, unit), [machineEntries, machine, unit])
  const traveler = useMemo(
    () => travelerOf(setup, { ready, lengths, reference }),
    [setup, ready, lengths, reference],
  )
  const context: OpenSetup = { ...open, ready, machineEntries, lengths, traveler }
  const { steps, next } = traveler
  // Most go on to what is next.
  const ahead = next?.step
  useEffect(() => (ahead ? whenIdle(() => loadAhead(ahead)) : undefined), [ahead])
  const { title } = setup.opened
  useEffect(() => {
    typesIn({ id: setup.id, title, machine: machine.id, unit })
    return () => typesIn(undefined)
  }, [setup.id, title, machine.id, unit])
  const waits = ready.notes.filter((note) => note.waits)
  const at = pathname.replace(/\/$/, '').split('/').at(-1)
  if (at === setup.id) {
    // The note of the last shift is the first thing seen; then what is next.
    if (!known) return <p className="py-10 text-lg">Reading the logbook…</p>
    const to = waits.length > 0 ? 'ready' : next ? addressOf(next, search).slice('../'.length) : 'hand-over'
    return <Navigate to={to} replace state={QUIETLY} />
  }
  return (
    <>
      <nav
        aria-label="Steps of this setup"
        className="flex flex-wrap items-center gap-x-2 border-b border-rule print:hidden"
      >
        <h1 className="order-1 text-[0.9375rem] leading-4 font-semibold xl:max-w-40">
          {setup.opened.title}
          <span className="block text-sm leading-4 font-normal text-ink-soft">
            {setup.machine.name}, {setup.unit}
          </span>
        </h1>
        <div className="order-4 flex w-full flex-wrap xl:order-2 xl:w-auto">
          {steps.map(({ step, state }) => (
            <NavLink key={step} to={`${step}${kept}`} className={tabLook}>
              {STEP_NAMES[step]}
              <span className="text-sm leading-5">
                {' '}
                {step === 'ready' && waits.length > 0 ? (
                  <NoteChip by={waits.map(({ entry }) => entry.by)} />
                ) : (
                  <StateMark state={state} step={step} />
                )}
              </span>
            </NavLink>
          ))}
        </div>
        <div className="order-2 ml-auto flex gap-x-2 xl:order-3 xl:ml-0 xl:gap-x-0">
          {setup.machine.kind === 'mill' && (
            <NavLink to={`program${kept}`} className={tabLook}>
              Program
            </NavLink>
          )}
          <NavLink to={`logbook${kept}`} className={tabLook}>
            Logbook
          </NavLink>
        </div>
        <Button
          className="order-3 my-1 xl:ml-auto xl:px-2 xl:text-[0.9375rem]"
          onClick={() => setChanging(true)}
        >
          Something changed…
        </Button>
      </nav>
      <UnreadNotice setup={setup} />
      <AwayNotice setup={setup} />
      <PositionContext.Provider value={positionSourceOf(setup.machine)}>
        <Outlet context={context} />
      </PositionContext.Provider>
      {changing && <ChangedDialog {...context} onClose={() => setChanging(false)} />}
    </>
  )
}

/** A note waits to be read: it stands where the state of Ready would. */
function NoteChip({ by }: { by: readonly string[] }) {
  return (
    <span className="inline-flex items-center gap-1.5 rounded-sm bg-ink px-2 text-stock">
      <NotebookPen aria-hidden size={18} />
      {by.length === 1 ? `note by ${by[0]}` : `${by.length} notes`}
    </span>
  )
}
