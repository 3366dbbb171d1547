import { capability, chartOf, resultsCsv, resultsJson } from '@dogleg/core/gauge'
import { reportedParts, seriesDrift, valueSeries } from '@dogleg/core/setup'
import { FileDown } from 'lucide-react'
import { Suspense, useMemo, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { lazyPart, NoChart } from '../ui/lazy-part.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { saveFile } from '../ui/save-file.ts'
import { CapabilityPanel } from './capability-panel.tsx'
import { CorrectionForm } from './correction-form.tsx'
import { OutParts } from './out-parts.tsx'
import { ResultEntry } from './result-entry.tsx'

const ValueChart = lazyPart(async () => (await import('./value-chart.tsx')).ValueChart, NoChart)

interface ChartPanelProps {
  /** The plan in hand. */
  title: string
  onCompose: () => void
}

const fileName = (title: string, ending: string) =>
  `${title.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-results.${ending}`

/** Recording: results in, the chart of one value, what it says, and what was done about parts that are out. */
export function ChartPanel({ title, onCompose }: ChartPanelProps) {
  const { setup } = useOpenSetup()
  const { unit, gauge } = setup
  const signed = useSigned()
  const [chosen, choose] = useState<string>()
  const [key, setKey] = useState<string>()
  const names = gauge.series.map((each) => each.title)
  const shown = chosen ?? (names.includes(title) ? title : names[0])
  const series = gauge.series.find((each) => each.title === shown)
  const fact = gauge.plans.find(({ entry }) => entry.plan.head.title === shown)
  const value = useMemo(
    () =>
      series
        ? valueSeries(series, key ?? series.characteristics[0]?.key ?? '', fact?.entry.offset ?? '', setup)
        : undefined,
    [series, key, fact, setup],
  )
  const said = useMemo(() => {
    if (!value) return undefined
    const { values, of } = value
    return { chart: chartOf(values), drift: seriesDrift(value), fit: capability(values, of) }
  }, [value])
  if (!series || !fact)
    return (
      <p className="py-6 text-lg">
        Nothing is measured by a plan yet: record one first.{' '}
        <Button onClick={onCompose}>Go to the plan</Button>
      </p>
    )
  const { characteristics, parts } = series
  const about = { setup: setup.opened.title, plan: series.title, unit }
  return (
    <div className="grid flex-1 content-start gap-x-5 gap-y-3 py-2 md:grid-cols-[17rem_1fr] lg:grid-cols-[17rem_1fr_20rem]">
      <div className="space-y-2">
        {names.length > 1 && (
          <PickOne
            label="Measured by"
            value={series.title}
            onChange={(next) => {
              choose(next)
              setKey(undefined)
            }}
            options={names.map((name) => [name, name])}
          />
        )}
        <ResultEntry
          key={series.title}
          title={series.title}
          characteristics={characteristics}
          count={parts.length}
          onRecord={(came) =>
            signed(
              () =>
                void record(setup.id, {
                  kind: 'gauged',
                  plan: series.title,
                  rests: [fact.entry.id],
                  unit,
                  ...came,
                }),
            )
          }
        />
        <OutParts series={series} />
      </div>
      <div className="flex min-w-0 flex-col gap-2">
        <div className="flex flex-wrap items-end gap-2">
          <div className="w-36">
            <PickOne
              label="Value"
              value={value?.of.key ?? ''}
              onChange={setKey}
              options={characteristics.map((of) => [of.key, of.key])}
            />
          </div>
          <p className="pb-3">
            {value ? `${value.values.length} parts` : ''}
            {value &&
              value.corrections.length > 0 &&
              `, corrected ${value.corrections.length === 1 ? 'once' : `${value.corrections.length} times`}`}
          </p>
          <div className="ml-auto flex gap-2">
            {(
              [
                ['CSV', 'csv', 'text/csv', () => resultsCsv(characteristics, reportedParts(series))],
                [
                  'JSON',
                  'json',
                  'application/json',
                  () => resultsJson(about, characteristics, reportedParts(series)),
                ],
              ] as const
            ).map(([name, ending, type, text]) => (
              <Button
                key={name}
                className="h-12"
                disabled={parts.length === 0}
                onClick={() => saveFile(text(), fileName(series.title, ending), type)}
              >
                <FileDown aria-hidden size={20} /> {name}
              </Button>
            ))}
          </div>
        </div>
        {value && value.values.length > 0 ? (
          <Suspense fallback={<p className="text-ink-soft">Drawing…</p>}>
            <ValueChart
              series={value}
              chart={said?.chart}
              drift={value.uncorrected ? undefined : said?.drift}
            />
          </Suspense>
        ) : (
          <p className="rounded-sm bg-layout p-6 text-lg text-scribe">
            The chart begins with the first part that is recorded.
          </p>
        )}
      </div>
      <div className="space-y-3 md:col-span-2 lg:col-span-1">
        {value && <CapabilityPanel series={value} chart={said?.chart} drift={said?.drift} fit={said?.fit} />}
        {value && value.values.length > 0 && (
          <CorrectionForm key={value.of.key} series={series} value={value} />
        )}
      </div>
    </div>
  )
}
