import type { StepState } from '@dogleg/core/setup'
import { useQuery } from '@tanstack/react-query'
import { Plus } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../log/api.ts'
import { useReference } from '../log/use-setup.ts'
import { RefusedEntries } from '../logbook/refused-entries.tsx'
import { Button } from '../ui/button.tsx'
import { StateMark } from '../ui/state-mark.tsx'
import { When } from '../ui/when.tsx'
import { OpenSetupDialog } from './open-setup-dialog.tsx'

const ORDER: Record<StepState, number> = { stale: 0, open: 1, done: 2 }

/** Every setup of the shop: which machine, how it stands, what comes next. Stale ones first. */
export function SetupsPage() {
  const [opening, setOpening] = useState(false)
  const { reference } = useReference()
  const { data, error } = useQuery({ queryKey: ['setups'], queryFn: api.setups, refetchInterval: 5000 })
  const setups = data?.setups.toSorted((a, b) => ORDER[a.zero] - ORDER[b.zero])
  return (
    <div className="py-5">
      <div className="mb-4 flex items-center justify-between gap-4">
        <h1 className="text-3xl font-semibold">Setups</h1>
        <Button look="primary" disabled={!reference} onClick={() => setOpening(true)}>
          <Plus aria-hidden size={20} /> Open a setup
        </Button>
      </div>
      {data?.readOnly && (
        <p className="mb-4 border-2 border-ink p-3 font-semibold">
          The logbook file cannot be written. What you enter is kept on this tablet until it can be.
        </p>
      )}
      {error && (
        <p role="alert" className="mb-4 border-2 border-ink p-3 font-semibold">
          {error.message}
        </p>
      )}
      <RefusedEntries />
      {setups?.length === 0 && <p className="text-lg">No setup yet. Open one for the part on the machine.</p>}
      <ul>
        {setups?.map(({ id, title, machine, zero, next, lastAt }) => (
          <li key={id} className="border-t border-rule last:border-b">
            <Link
              to={`/setups/${id}`}
              className="grid min-h-18 grid-cols-[1fr_7rem] items-center gap-x-4 gap-y-1 px-2 py-3 hover:bg-stock-shade md:grid-cols-[1fr_7rem_18rem_10rem]"
            >
              <span>
                <span className="block text-xl font-semibold">{title}</span>
                <span className="text-ink-soft">{machine}</span>
              </span>
              <StateMark state={zero} />
              <span>{next}</span>
              <span className="text-ink-soft md:text-right">
                <When at={lastAt} />
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {opening && reference && <OpenSetupDialog reference={reference} onClose={() => setOpening(false)} />}
    </div>
  )
}
