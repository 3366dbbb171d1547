import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams } from 'react-router'
import { Lost } from '../app/lost.tsx'
import { useReachable } from '../log/api.ts'
import { useRows } from '../log/rows.ts'
import { InnerTabs } from '../run/inner-tabs.tsx'
import { atMachine, useIsOwn } from '../simulated/at-machine.ts'
import { BarDrawing } from '../simulated/bar-drawing.tsx'
import { Console } from '../simulated/console.tsx'
import { Hidden } from '../simulated/hidden.tsx'
import { KeyedTables } from '../simulated/keyed-tables.tsx'
import { ProgramLoader } from '../simulated/program-loader.tsx'
import { ProgramRun } from '../simulated/program-run.tsx'
import { TableDrawing } from '../simulated/table-drawing.tsx'
import { type Simulated, useSimulated } from '../simulated/use-simulated.ts'
import { ViseKeys } from '../simulated/vise-keys.tsx'
import { Button } from '../ui/button.tsx'
import { TextEntry } from '../ui/entry-field.tsx'

type Place = 'table' | 'program' | 'tables' | 'hidden'
const PLACES: readonly (readonly [Place, string])[] = [
  ['table', 'On the table'],
  ['program', 'Program'],
  ['tables', 'Offsets and lengths'],
  ['hidden', 'What is hidden'],
]

/** The double of a machine of the shop: a setup can be done at it as at the real one. */
export function SimulatedPage() {
  const { id = '' } = useParams()
  const { data: machines } = useRows('machines')
  const simulated = useSimulated(id)
  const isOwn = useIsOwn(id)
  const reachable = useReachable()
  if (!machines) return <p className="py-10 text-lg">Reading the machines…</p>
  const machine = machines.find((each) => each.id === id)
  if (!machine) return <Lost says={`There is no machine "${id}" here.`} />
  return (
    <div className="flex flex-1 flex-col py-2">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl font-semibold">The simulated {machine.name}</h1>
        <p className="text-ink-soft">
          {simulated.machine ? `Piece ${simulated.machine.seed}. ` : ''}Nothing here moves a real machine.
        </p>
      </div>
      {isOwn && (
        <p role="status" className="flex flex-wrap items-center gap-3 border-2 border-rule p-2">
          <span>It is on at this tablet alone: it was switched on while the server was away.</span>
          {reachable && <Button onClick={simulated.leaveOwn}>Go to the one of the server</Button>}
        </p>
      )}
      {simulated.error && (
        <p role="alert" className="border-2 border-ink p-2 font-semibold">
          {simulated.error}
        </p>
      )}
      {simulated.machine && !reachable && !isOwn && (
        <Button className="my-2 self-start" onClick={() => simulated.switchOn({ machine: id })}>
          Switch one on at this tablet alone
        </Button>
      )}
      {simulated.machine ? (
        <AtTheMachine key={simulated.machine.startedAt} id={id} simulated={simulated} />
      ) : simulated.off ? (
        <SwitchOn machine={id} simulated={simulated} />
      ) : (
        <p className="py-6 text-lg">Looking whether it is on…</p>
      )}
    </div>
  )
}

/** The main switch; a piece that was had before can be asked for by its number. */
function SwitchOn({ machine, simulated }: { machine: string; simulated: Simulated }) {
  const [piece, setPiece] = useState('')
  const number = /^\s*\d{1,6}\s*$/.test(piece) && Number(piece) > 0 ? Number(piece) : undefined
  const wrong = piece.trim() !== '' && number === undefined ? 'A whole number from 1 to 999999.' : undefined
  return (
    <form
      className="max-w-xl py-4"
      onSubmit={(event) => {
        event.preventDefault()
        if (!wrong) simulated.switchOn({ machine, seed: number })
      }}
    >
      <p className="pb-3 text-lg">
        It is switched off. Switched on, it stands at home, with a vise and a part on its table (on a lathe a
        bar in its chuck) where nobody knows exactly, and empty tables.
      </p>
      {!useReachable() && (
        <p className="pb-3 font-semibold">
          The server does not answer: it is switched on at this tablet alone, and is gone once the page is
          closed.
        </p>
      )}
      <TextEntry
        label="Piece number"
        value={piece}
        onChange={setPiece}
        wrong={wrong}
        hint="Empty for a new one; the same number is the same piece again."
      />
      <Button type="submit" look="primary" className="mt-2 min-h-14 text-lg" disabled={simulated.busy}>
        Switch it on
      </Button>
    </form>
  )
}

function AtTheMachine({ id, simulated }: { id: string; simulated: Simulated }) {
  const { machine, work, switchOn } = simulated
  const [place, setPlace] = useState<Place>('table')
  const loads = machine?.view.run?.loads ?? 0
  const { data: program } = useQuery({
    queryKey: ['simulated-program', id, machine?.startedAt, loads],
    queryFn: () => atMachine.programOf(id),
    enabled: loads > 0,
    staleTime: Number.POSITIVE_INFINITY,
  })
  if (!machine) return null
  const { view } = machine
  return (
    <div className="grid flex-1 content-start gap-x-6 lg:grid-cols-[1fr_24rem]">
      <div className="min-w-0">
        <InnerTabs label="Parts of the simulated machine" value={place} places={PLACES} onChange={setPlace}>
          {place === 'table' && (
            <div className="pt-2">
              {view.kind === 'mill' ? <TableDrawing view={view} low /> : <BarDrawing view={view} />}
              <ViseKeys view={view} work={work} />
            </div>
          )}
          {place === 'program' && (
            <div className="grid gap-x-6 xl:grid-cols-[1fr_17rem]">
              <ProgramRun view={view} work={work} text={program?.text ?? ''} />
              <ProgramLoader work={work} />
            </div>
          )}
          {place === 'tables' && <KeyedTables view={view} work={work} />}
          {place === 'hidden' && <Hidden id={id} view={view} onAnew={() => switchOn({ machine: id })} />}
        </InnerTabs>
      </div>
      <Console view={view} work={work} />
    </div>
  )
}
