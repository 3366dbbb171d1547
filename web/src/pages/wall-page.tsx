import { STEP_NAMES } from '@dogleg/core/setup'
import { type MachineGlance, NOTHING_LEFT } from '@dogleg/core/traveler'
import { NotebookPen } from 'lucide-react'
import { Link } from 'react-router'
import { useReachable } from '../log/api.ts'
import { useKnownSince } from '../log/known-before.ts'
import { useBoard } from '../log/use-board.ts'
import { useStayAwake } from '../tablet/stay-awake.ts'
import { StateMark } from '../ui/state-mark.tsx'
import { When } from '../ui/when.tsx'

/** The shop on a screen on the wall: every machine in large type, and what it waits for. It is kept up to date by itself. */
export function WallPage() {
  const { data, error } = useBoard('')
  const reachable = useReachable()
  const since = useKnownSince()
  useStayAwake()
  return (
    <div className="flex flex-1 flex-col py-2">
      <h1 className="sr-only">The shop on the wall</h1>
      {(data?.alarm ?? error?.message) && (
        <p role="alert" className="mb-3 border-4 border-ink p-3 text-2xl font-semibold">
          {data?.alarm ?? error?.message}
        </p>
      )}
      {!reachable && (
        <p role="status" className="mb-3 border-4 border-ink p-3 text-2xl font-semibold">
          The server does not answer: this is how it was
          {since === undefined ? ' before' : null}
          {since !== undefined && (
            <>
              {' '}
              at <When at={new Date(since).toISOString()} />
            </>
          )}
          .
        </p>
      )}
      <div className="grid flex-1 auto-rows-fr gap-3 lg:grid-cols-2 2xl:grid-cols-3">
        {data?.board.machines.map((machine) => (
          <Machine key={machine.id} machine={machine} />
        ))}
      </div>
      <p className="pt-2 text-lg text-ink-soft">
        Ready counts for whoever walked round the machine: somebody who takes over walks round again.
      </p>
    </div>
  )
}

function Machine({ machine: { name, ready, setups, cleared, notes } }: { machine: MachineGlance }) {
  const setup = cleared ? undefined : setups[0]
  return (
    <section className="flex flex-col gap-1 border-4 border-ink p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 className="text-4xl leading-tight font-semibold">{name}</h2>
        <p className="flex items-center gap-2 text-2xl">
          {STEP_NAMES.ready} <StateMark state={ready} />
        </p>
      </div>
      {setup ? (
        <>
          <p className="text-3xl leading-tight">
            <Link to={`/setups/${setup.id}`} className="underline decoration-rule underline-offset-4">
              {setup.title}
            </Link>
          </p>
          <p className="mt-auto text-3xl leading-tight font-semibold">
            {setup.next ? `${STEP_NAMES[setup.next.step]}: ${setup.next.says}` : NOTHING_LEFT.says}
          </p>
          {setup.stale.length > 0 && (
            <p className="hatched text-2xl leading-tight">
              Stale: {setup.stale[0]}
              {setup.stale.length > 1 && ` and ${setup.stale.length - 1} more`}
            </p>
          )}
          <p className="text-xl text-ink-soft">
            last worked on <When at={setup.lastAt} />
          </p>
        </>
      ) : (
        <p className="text-3xl text-ink-soft">Nothing on it.</p>
      )}
      {notes.length > 0 && (
        <p className="flex items-center gap-2 text-2xl font-semibold">
          <NotebookPen aria-hidden size={28} />
          {notes.length === 1 ? `A note by ${notes[0]?.by} waits` : `${notes.length} notes wait`}
        </p>
      )}
    </section>
  )
}
