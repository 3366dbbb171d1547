import { judgeStart, loadable, type PalletPlan, type StartHappens, startTable } from '@dogleg/core/pallet'
import { Ban, Check, type LucideIcon, OctagonX, ShieldOff } from 'lucide-react'
import { useState } from 'react'
import { useOpenSetup } from '../../log/open-setup.ts'
import { useSigned } from '../../log/operator-gate.tsx'
import { record } from '../../log/record.ts'
import { Button } from '../../ui/button.tsx'
import { Choice } from '../../ui/choice.tsx'
import { VerdictMark } from '../../ui/verdict.tsx'
import { When } from '../../ui/when.tsx'
import type { Pallets } from './use-pallets.ts'

const HAPPENS: Record<StartHappens, { word: string; Icon: LucideIcon; look: string }> = {
  runs: { word: 'runs', Icon: Check, look: 'text-ink' },
  unguarded: { word: 'runs, unguarded', Icon: ShieldOff, look: 'text-hazard' },
  refused: { word: 'alarm', Icon: Ban, look: 'text-ink' },
  crash: { word: 'crash', Icon: OctagonX, look: 'font-semibold text-hazard' },
}

function Happens({ happens }: { happens: StartHappens }) {
  const { word, Icon, look } = HAPPENS[happens]
  return (
    <span className={`inline-flex items-center gap-1.5 ${look}`}>
      <Icon aria-hidden size={18} className="shrink-0" /> {word}
    </span>
  )
}

/** Before cycle start: what is inside, what is loaded, whether the interlock is on; and what each wrong combination does. */
export function StartPanel({ pallets, plan }: { pallets: Pallets; plan: PalletPlan }) {
  const { setup } = useOpenSetup()
  const signed = useSigned()
  const [inside, setInside] = useState<string>()
  const [loaded, setLoaded] = useState<string>()
  const [interlock, setInterlock] = useState<'on' | 'off'>()
  const fact = setup.run.pallets
  const { start } = setup.run
  const answer =
    inside && loaded && interlock
      ? { inside: Number(inside), loaded: Number(loaded), interlock: interlock === 'on' }
      : undefined
  const judgement = answer && judgeStart(plan, answer)
  const holds = pallets.stands && fact?.freshness.state === 'fresh' && fact.entry.verdict !== 'stop'
  const programs = loadable(plan)
  return (
    <div className="grid flex-1 content-start gap-x-8 gap-y-4 py-3 lg:grid-cols-[1fr_30rem]">
      <section aria-label="The check before the start" className="space-y-3">
        <Choice
          label="Which pallet is on the machine? Look, do not remember."
          value={inside}
          onChange={setInside}
          options={plan.pallets.map(({ params }, index) => ({
            value: String(index + 1),
            label: (
              <span>
                <span className="digits text-2xl">{index + 1}</span>{' '}
                <span className="font-normal">{params.fixture}</span>
              </span>
            ),
          }))}
        />
        <Choice
          label="Which program does the control show as loaded?"
          value={loaded}
          onChange={setLoaded}
          options={programs.map((number) => ({
            value: String(number),
            label: (
              <span>
                <span className="digits text-2xl">O{number}</span>{' '}
                {plan.main?.number === number && <span className="font-normal">main</span>}
              </span>
            ),
          }))}
        />
        <Choice
          label="Is the pallet interlock on?"
          value={interlock}
          onChange={setInterlock}
          options={[
            { value: 'on', label: 'on' },
            { value: 'off', label: 'off' },
          ]}
        />
        <div aria-live="polite" className="min-h-28 space-y-1">
          {judgement ? (
            <>
              <p className="flex items-start gap-3 text-2xl leading-snug font-semibold">
                <VerdictMark verdict={judgement.verdict} /> <span>{judgement.says}</span>
              </p>
              <p>{judgement.why}</p>
              {judgement.fix && <p className="font-semibold">{judgement.fix}</p>}
            </>
          ) : (
            <p className="text-lg text-ink-soft">Answer all three: then it says what the next press does.</p>
          )}
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <Button
            look="primary"
            className="min-h-14 text-lg"
            disabled={judgement?.happens !== 'runs' || !holds}
            onClick={() =>
              signed(() => {
                if (!answer || !fact) return
                record(setup.id, { kind: 'start-checked', ...answer, rests: [fact.entry.id] })
              })
            }
          >
            I have looked: record it
          </Button>
          {judgement && judgement.happens !== 'runs' ? (
            <span className="font-semibold">A start that is not right is not recorded.</span>
          ) : !holds ? (
            <span className="font-semibold">
              {fact
                ? 'The pallets must stand in the logbook without a stop first.'
                : 'Record the pallets first.'}
            </span>
          ) : null}
        </div>
        {start && (
          <p>
            Last answered by {start.entry.by}, <When at={start.entry.at} />: pallet {start.entry.inside}, O
            {start.entry.loaded}, interlock {start.entry.interlock ? 'on' : 'off'}.{' '}
            {start.freshness.state === 'stale' && (
              <span className="hatched px-1 font-semibold">Stale: {start.freshness.cause.says}.</span>
            )}
          </p>
        )}
        <p className="text-ink-soft">
          Keep the interlock on. Nobody reaches into the machine or the load station while a pallet changes.
        </p>
      </section>
      <table className="self-start">
        <caption className="pb-1 text-left font-semibold">What the press of cycle start does</caption>
        <thead>
          <tr className="border-b border-ink text-left text-sm text-ink-soft">
            <th className="py-1 pr-3 font-normal">inside</th>
            <th className="pr-3 font-normal">loaded</th>
            <th className="pr-3 font-normal">interlock on</th>
            <th className="font-normal">interlock off</th>
          </tr>
        </thead>
        <tbody>
          {startTable(plan).map((row) => {
            const lit = answer && answer.inside === row.inside && answer.loaded === row.loaded
            return (
              <tr
                key={`${row.inside}-${row.loaded}`}
                className={`border-b border-rule ${lit ? 'bg-stock-shade font-semibold' : ''}`}
              >
                <td className="digits py-2 pr-3 text-lg">{row.inside}</td>
                <td className="digits pr-3 text-lg">O{row.loaded}</td>
                <td className="pr-3">
                  <Happens happens={row.on} />
                </td>
                <td>
                  <Happens happens={row.off} />
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </div>
  )
}
