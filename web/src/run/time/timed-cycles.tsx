import { formatDuration, readDuration } from '@dogleg/core/quantity'
import { learntValues, offBy, oneCycle, speedsOf } from '@dogleg/core/timing'
import { Play, Square, Timer } from 'lucide-react'
import { useEffect, useState } from 'react'
import { useOpenSetup } from '../../log/open-setup.ts'
import { useSigned } from '../../log/operator-gate.tsx'
import { problemsOf, record } from '../../log/record.ts'
import { storage } from '../../log/storage.ts'
import { LeadsOnly } from '../../people/leads-only.tsx'
import { useSave } from '../../reference/use-save.ts'
import { Button } from '../../ui/button.tsx'
import { TextEntry } from '../../ui/entry-field.tsx'
import { When } from '../../ui/when.tsx'
import type { RunProgram } from './use-run-program.ts'

/** A stopwatch that goes on while the page is elsewhere: it keeps when it was started. */
function useStopwatch(key: string) {
  const name = `dogleg.stopwatch.${key}`
  const [started, setStarted] = useState<number>(() => Number(storage.get(name)) || 0)
  const [now, setNow] = useState(Date.now)
  useEffect(() => {
    if (started === 0) return
    const timer = setInterval(() => setNow(Date.now()), 100)
    return () => clearInterval(timer)
  }, [started])
  return {
    runs: started !== 0,
    seconds: started === 0 ? 0 : Math.max(0, now - started) / 1000,
    start: () => {
      const at = Date.now()
      storage.set(name, String(at))
      setNow(at)
      setStarted(at)
    },
    stop: () => {
      storage.remove(name)
      const took = (Date.now() - started) / 1000
      setStarted(0)
      return took
    },
  }
}

/** Cycles timed at the machine: by the stopwatch or typed; each says more of how long this machine takes. */
export function TimedCycles({ run }: { run: RunProgram }) {
  const { setup } = useOpenSetup()
  const { program, time, calibration } = run
  const { machine, profile } = setup
  const signed = useSigned()
  const watch = useStopwatch(setup.id)
  const [typed, setTyped] = useState('')
  const [byWatch, setByWatch] = useState(false)
  const [cycles, setCycles] = useState('1')
  const [told, setTold] = useState<string>()
  const read = readDuration(typed)
  const count = /^\d{1,5}$/.test(cycles.trim()) ? Number(cycles) : 0
  const found = time.answer
  const save = () =>
    signed(() => {
      if (!read.ok || !found || !program || count < 1) return
      const entry = {
        kind: 'timed' as const,
        title: program.title,
        hash: found.hash,
        reckoned: found.parts,
        ...oneCycle(read.seconds, count),
        cycles: count,
        how: byWatch ? ('stopwatch' as const) : ('typed' as const),
        machine: { id: machine.id, version: machine.version },
        profile: { id: profile.id, version: profile.version },
      }
      const [problem] = Object.values(problemsOf(setup.id, entry))
      setTold(problem)
      if (problem) return
      record(setup.id, entry)
      setTyped('')
      setByWatch(false)
    })
  const own = setup.run.timed.filter(({ title }) => title === program?.title)
  return (
    <section aria-label="Timed at the machine" className="min-w-0 space-y-1">
      <h2 className="font-semibold">Timed at the machine</h2>
      <div className="flex items-center gap-2">
        <Button
          className="min-h-14 flex-1"
          look={watch.runs ? 'primary' : 'plain'}
          onClick={() => {
            if (!watch.runs) watch.start()
            else {
              setTyped(watch.stop().toFixed(1))
              setByWatch(true)
            }
          }}
        >
          {watch.runs ? <Square aria-hidden size={20} /> : <Play aria-hidden size={20} />}
          {watch.runs ? 'Stop' : 'Start the stopwatch'}
        </Button>
        {watch.runs && (
          <span className="digits w-32 text-right text-2xl font-semibold" role="timer">
            {formatDuration(watch.seconds)}
          </span>
        )}
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_5rem] gap-2">
        <TextEntry
          label="It took"
          value={typed}
          onChange={(text) => {
            setTyped(text)
            setByWatch(false)
          }}
          narrow
          understood={read.ok ? read.understood : undefined}
          wrong={!read.ok && !read.empty ? read.says : told}
          hint="95, 1:35, 2 min 10 s"
        />
        <TextEntry
          label="Cycles"
          value={cycles}
          onChange={setCycles}
          narrow
          wrong={count < 1 ? 'One or more.' : undefined}
          maxLength={5}
        />
      </div>
      <Button className="w-full" disabled={!read.ok || !found || count < 1} onClick={save}>
        <Timer aria-hidden size={20} /> Record the time
      </Button>
      <p className="text-sm text-ink-soft">Overrides at 100 %, from cycle start to the end.</p>
      {own.length > 0 && (
        <table className="w-full text-sm">
          <tbody>
            {own
              .toReversed()
              .slice(0, 4)
              .map((entry) => {
                return (
                  <tr key={entry.id} className="border-t border-rule">
                    <td className="py-1">
                      <When at={entry.at} />
                    </td>
                    <td className="digits text-right text-base font-semibold">
                      {formatDuration(entry.seconds)}
                    </td>
                    <td className="digits text-right">{signedPercent(offBy(entry))}</td>
                  </tr>
                )
              })}
          </tbody>
        </table>
      )}
      <Learnt run={run} />
      {calibration.outdated > 0 && (
        <p className="text-sm">
          {calibration.outdated} timed before the machine or its profile was edited: not counted.
        </p>
      )}
    </section>
  )
}

const LEARNT = {
  toolChange: ['A tool change takes', 's'],
  spindleAcceleration: ['The spindle speeds up by', 'turns/s²'],
} as const

/** What timing says of the machine that its page says otherwise: taken over with a press, as a new version of the page. */
function Learnt({ run }: { run: RunProgram }) {
  const { setup } = useOpenSetup()
  const { machine, profile, unit } = setup
  const { save } = useSave('machines')
  const { dynamics } = machine
  const values = learntValues(run.calibration.calibration, speedsOf(machine, profile, unit))
  if (!dynamics || values.length === 0) return null
  return (
    <div className="border-t border-rule pt-1">
      {values.map(({ what, page, timed, doubt }) => (
        <p key={what}>
          {LEARNT[what][0]} <b className="digits">{timed.toFixed(1)}</b> ± {(2 * doubt).toFixed(1)}{' '}
          {LEARNT[what][1]}; the machine’s page says <span className="digits">{page}</span>.
        </p>
      ))}
      <LeadsOnly does="puts it on the machine’s page">
        <Button
          className="w-full"
          disabled={save.isPending}
          onClick={() =>
            save.mutate({
              row: {
                ...machine,
                dynamics: {
                  ...dynamics,
                  ...Object.fromEntries(
                    values.map(({ what, timed }) => [what, Number(timed.toPrecision(3))]),
                  ),
                  ...(values.some(({ what }) => what === 'spindleAcceleration')
                    ? { spindleTimed: true }
                    : {}),
                },
              },
            })
          }
        >
          Put it on the machine’s page
        </Button>
      </LeadsOnly>
      <p className="text-sm text-ink-soft">
        Times and proofs are calculated anew with it; what was timed before no longer counts.
      </p>
      {save.error && <p className="font-semibold">{save.error.message}</p>}
    </div>
  )
}

const signedPercent = (share: number) => `${share < 0 ? '−' : '+'}${Math.abs(100 * share).toFixed(1)} %`
