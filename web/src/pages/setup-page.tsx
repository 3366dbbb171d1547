import { isUnreadable } from '@dogleg/core/setup'
import { useState } from 'react'
import { Navigate, NavLink, Outlet, useLocation, useParams } from 'react-router'
import { Lost } from '../app/lost.tsx'
import type { OpenSetup } from '../log/open-setup.ts'
import { useSetup } from '../log/use-setup.ts'
import { ChangedDialog } from '../logbook/changed-dialog.tsx'
import { Button } from '../ui/button.tsx'
import { StateMark } from '../ui/state-mark.tsx'

const tabLook = ({ isActive }: { isActive: boolean }) =>
  `inline-flex min-h-12 items-center gap-2 border-b-4 px-4 text-lg font-semibold ${isActive ? 'border-ink' : 'border-transparent hover:bg-stock-shade'}`

/** The traveler of one setup: its steps with their state, and what belongs to all of them. */
export function SetupPage() {
  const { id = '' } = useParams()
  const { setup, entries, reference, error } = useSetup(id)
  const { pathname } = useLocation()
  if (!setup || !reference) {
    if (error) return <Lost says={error.message} />
    return <p className="py-10 text-lg">Reading the logbook…</p>
  }
  if (isUnreadable(setup)) return <Lost says={setup.unreadable} />
  if (pathname.replace(/\/$/, '').endsWith(id)) return <Navigate to="zero" replace />
  return <Traveler setup={setup} entries={entries} reference={reference} />
}

function Traveler({ setup, entries, reference }: OpenSetup) {
  const [changing, setChanging] = useState(false)
  const { search } = useLocation()
  const context: OpenSetup = { setup, entries, reference }
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-6 border-b border-rule">
        <h1 className="text-xl font-semibold">
          {setup.opened.title}
          <span className="ml-3 text-base font-normal text-ink-soft">
            {setup.machine.name}, {setup.unit}
          </span>
        </h1>
        <nav aria-label="Steps of this setup" className="flex">
          <NavLink to={`zero${search}`} className={tabLook}>
            Zero <StateMark state={setup.zero} />
          </NavLink>
          <NavLink to={`program${search}`} className={tabLook}>
            Program
          </NavLink>
          <NavLink to={`logbook${search}`} className={tabLook}>
            Logbook
          </NavLink>
        </nav>
        <Button className="my-1 ml-auto" onClick={() => setChanging(true)}>
          Something changed…
        </Button>
      </div>
      <Outlet context={context} />
      {changing && <ChangedDialog {...context} onClose={() => setChanging(false)} />}
    </>
  )
}
