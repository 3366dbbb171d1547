import {
  characteristicsIn,
  gaugeSketch,
  isProbed,
  nextErrors,
  partWith,
  placeAt,
  playOf,
  type TriedCase,
  tryProgram,
} from '@dogleg/core/gauge'
import { formatLength } from '@dogleg/core/quantity'
import { outOf } from '@dogleg/core/setup'
import { Play, RotateCcw } from 'lucide-react'
import { Suspense, useMemo, useState } from 'react'
import { useProgress } from '../drawing/use-progress.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Button } from '../ui/button.tsx'
import { lazyPart } from '../ui/lazy-part.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Progress } from '../ui/progress.tsx'
import { Findings } from '../ui/verdict.tsx'
import { EndedLine } from '../ui/worker-ended.tsx'
import { CaseTable } from './case-table.tsx'
import { formatSeconds, formatValue } from './format-value.ts'
import { GaugePlanDrawing } from './gauge-plan-drawing.tsx'
import { HoldsPanel } from './holds-panel.tsx'
import { SizeSliders } from './size-sliders.tsx'
import type { Gauging } from './use-gauging.ts'

const ProgramEditor = lazyPart(
  async () => (await import('../prove/program-editor.tsx')).ProgramEditor,
  () => <p>The editor is not on this tablet yet, and the server does not answer.</p>,
)

/** How long the probe is shown going, in ms. */
const SHOWN = 9000

type Absent = 'nothing' | 'part' | string

/** Trying it: a part that stands in for the real one, the program run against it, and every kind of part in a table. */
export function TryPanel({ gauging, onCompose }: { gauging: Gauging; onCompose: () => void }) {
  const { setup } = useOpenSetup()
  const { unit, machine, profile } = setup
  const { read, program, text, trial } = gauging
  const { plan } = read
  const { written, where } = program
  const [sizes, setSizes] = useState<ReadonlyMap<string, number>>(new Map())
  const [absent, setAbsent] = useState<Absent>('nothing')
  const [playing, setPlaying] = useState(false)
  const progress = useProgress(playing, SHOWN)
  const characteristics = useMemo(
    () =>
      plan
        ? characteristicsIn(plan, unit).filter(
            ({ feature }) => plan.features.find(({ id }) => id === feature)?.params.what !== 'hand',
          )
        : [],
    [plan, unit],
  )
  const tried = useMemo(() => {
    if (!plan || !written || !where || text === undefined) return undefined
    const part =
      absent === 'part'
        ? { empty: true }
        : {
            ...partWith(plan, sizes, unit),
            ...(absent === 'nothing' ? {} : { missing: new Set([absent]) }),
          }
    const result = tryProgram(text, plan.features, written.variables, where, part)
    return {
      result,
      points: playOf(result),
      next: nextErrors(plan.features, result, (of) => sizes.get(of.key) ?? of.middle, where),
    }
  }, [plan, written, where, text, sizes, absent, unit])
  const sketch = useMemo(() => (plan && where ? gaugeSketch(plan, where) : undefined), [plan, where])
  if (!plan || !written || !where || text === undefined || !tried)
    return (
      <p className="py-6 text-lg">
        There is no program to try yet: something is missing, or says stop.{' '}
        <Button onClick={onCompose}>Go to the plan</Button>
      </p>
    )
  const { result, points, next } = tried
  const probe = playing ? placeAt(points, progress) : points.at(-1)
  const real = new Map(characteristics.map((of) => [of.key, sizes.get(of.key) ?? of.middle]))
  const out = outOf(Object.fromEntries(real), characteristics)
  const unitOf = (key: string | undefined) => characteristics.find((of) => of.key === key)?.unit ?? unit
  const pick = ({ key, value, kind }: TriedCase) => {
    const feature = plan.features.find(({ params }) => params.name === key)
    setAbsent(kind === 'no part' ? 'part' : kind === 'no contact' ? (feature?.id ?? 'nothing') : 'nothing')
    setSizes(key !== undefined && value !== undefined ? new Map([[key, value]]) : new Map())
    setPlaying(false)
  }
  const findings = trial.proof?.findings ?? []
  return (
    <div className="grid flex-1 content-start gap-x-5 gap-y-3 py-2 md:grid-cols-[16rem_1fr] lg:grid-cols-[16rem_1fr_25rem]">
      <section aria-label="The part" className="space-y-2">
        <div className="flex items-center justify-between gap-2">
          <h2 className="text-lg font-semibold">The part</h2>
          <Button onClick={() => setSizes(new Map())}>
            <RotateCcw aria-hidden size={18} /> All good
          </Button>
        </div>
        <SizeSliders
          characteristics={characteristics}
          sizes={sizes}
          out={out}
          onChange={(key, value) => setSizes(new Map([...sizes, [key, value]]))}
        />
        <PickOne
          label="What is not there"
          value={absent}
          onChange={setAbsent}
          options={[
            ['nothing', 'all is there'],
            ['part', 'no part at all'],
            ...plan.features
              .filter(({ params }) => isProbed(params.what))
              .map(({ id, params }) => [id, `no ${params.name}`] as const),
          ]}
        />
      </section>

      <div className="min-w-0 space-y-2">
        <div className="h-64">
          {sketch && (
            <GaugePlanDrawing
              sketch={sketch}
              chosen={undefined}
              lit={undefined}
              probe={probe}
              stylus={where.shape.stylus}
            />
          )}
        </div>
        <div className="flex flex-wrap items-start gap-3">
          <Button look="primary" className="min-h-14" onClick={() => setPlaying(!playing)}>
            <Play aria-hidden size={20} /> {playing ? 'Stop' : 'See it go'}
          </Button>
          <p className="min-w-0 flex-1 text-2xl leading-8 font-semibold" role="status" data-testid="outcome">
            {result.alarm
              ? `Stops: ${result.alarm.says || `alarm in line ${result.alarm.line}`}`
              : result.skipped
                ? 'Skips what follows'
                : 'Goes on'}
            <span className="block text-base font-normal text-ink-soft">
              {result.alarm
                ? `line ${result.alarm.line}, after ${formatSeconds(result.seconds)}`
                : `after ${formatSeconds(result.seconds)}`}
            </span>
          </p>
        </div>
        <table className="w-full border-collapse text-left">
          <caption className="sr-only">Variables after the program</caption>
          <thead className="text-sm text-ink-soft">
            <tr>
              <th className="pr-3 font-normal">Variable</th>
              <th className="font-normal">Holds</th>
              <th className="text-right font-normal">Value</th>
              <th className="pl-4 font-normal">Next part</th>
            </tr>
          </thead>
          <tbody>
            {[...written.variables.values].map(([key, variable]) => {
              const value = result.values.get(key)
              return (
                <tr key={key} className="border-t border-rule">
                  <td className="digits pr-3">#{variable}</td>
                  <td className="font-semibold">{key}</td>
                  <td className="digits text-right text-xl">
                    {value === undefined ? 'not set' : formatValue(value, unitOf(key))}
                  </td>
                  <td className="pl-4">
                    {next.has(key) && (
                      <span className="digits">
                        {formatLength(next.get(key)?.before ?? 0, unit, { plus: true })} off, then{' '}
                        {formatLength(next.get(key)?.after ?? 0, unit, { plus: true })}
                      </span>
                    )}
                  </td>
                </tr>
              )
            })}
            {result.corrected.map(({ target, before, after }) => (
              <tr key={target.variable} className="border-t border-rule">
                <td className="digits pr-3">#{target.variable}</td>
                <td className="font-semibold">{target.name}</td>
                <td className="digits text-right text-xl">{formatLength(after, unit, { plus: true })}</td>
                <td className="pl-4 text-ink-soft">
                  {after === before ? 'left alone' : `was ${formatLength(before, unit)}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <HoldsPanel plan={plan} where={where} />
        {trial.share !== undefined && !trial.stopped && (
          <div className="flex items-center gap-3" role="status">
            <span>Trying every kind of part…</span>
            <Progress label="Tried so far" share={trial.share} className="flex-1" />
            <Button onClick={trial.stop}>Stop</Button>
          </div>
        )}
        {trial.failed && (
          <p>
            <EndedLine
              ended={trial.failed}
              broke="Trying it broke off. Nothing is lost."
              again={trial.again}
            />
          </p>
        )}
        {trial.stopped && (
          <p>
            Not tried on every kind of part. <Button onClick={trial.again}>Try them all</Button>
          </p>
        )}
        {trial.proof && <CaseTable cases={trial.proof.cases} unitOf={unitOf} onPick={pick} />}
      </div>

      <section aria-label="The program" className="flex min-w-0 flex-col gap-2 md:col-span-2 lg:col-span-1">
        <div className="flex flex-wrap items-center justify-between gap-2">
          <h2 className="text-lg font-semibold">
            {gauging.edited ? 'Changed by hand' : 'As it was written'}
          </h2>
          {gauging.edited && <Button onClick={gauging.asWritten}>As it was written</Button>}
        </div>
        <Findings findings={findings.map((each) => ({ ...each, where: `line ${each.line}` }))} />
        <div className="h-[26rem]">
          <Suspense fallback={<p className="text-ink-soft">Opening the editor…</p>}>
            <ProgramEditor
              text={text}
              onChange={gauging.edit}
              findings={findings}
              line={playing ? (probe?.line ?? 0) : (result.alarm?.line ?? 0)}
              onLine={() => undefined}
              kind={machine.kind}
              profile={profile}
            />
          </Suspense>
        </div>
        {result.printed.length > 0 && (
          <details open>
            <summary className="min-h-11 content-center font-semibold">
              In the log file of the control
            </summary>
            <pre className="digits rounded-sm border border-rule bg-white/50 px-3 py-1 text-base">
              {result.printed.join('\n')}
            </pre>
          </details>
        )}
      </section>
    </div>
  )
}
