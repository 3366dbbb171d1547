import { formatLength } from '@dogleg/core/quantity'
import { type OffsetState, repeatHistory } from '@dogleg/core/setup'
import { Suspense, useMemo, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useEarlierRuns } from '../log/use-listed.ts'
import { Choice } from '../ui/choice.tsx'
import { lazyPart, NoChart } from '../ui/lazy-part.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'

const RepeatChart = lazyPart(async () => (await import('./repeat-chart.tsx')).RepeatChart, NoChart)

/** The zero against the last ten times that this job was on this machine; nothing where it is the first. */
export function Repeats({ offset }: { offset: OffsetState }) {
  const open = useOpenSetup()
  const { setup, reference } = open
  const entries = useEarlierRuns(open)
  const { unit } = setup
  const history = useMemo(
    () => repeatHistory(setup, offset.name, entries, reference),
    [setup, offset.name, entries, reference],
  )
  const [chosen, setChosen] = useState<string>()
  const [first] = history
  if (!first) return null
  const unusual = history.find(({ findings }) => findings.length > 0)
  const shown = history.find(({ axis }) => axis === chosen) ?? unusual ?? first
  const { usual, earlier, findings } = shown
  return (
    <section aria-label="Earlier times" className="space-y-2 border-t border-rule pt-3">
      <h2 className="font-semibold">
        This job the last {earlier.length === 1 ? 'time' : `${earlier.length} times`} on this machine
      </h2>
      <Choice
        label="Axis"
        quiet
        value={shown.axis}
        onChange={setChosen}
        options={history.map(({ axis, findings: against }) => ({
          value: axis,
          label: against.length > 0 ? `${axis}: unusual` : axis,
        }))}
      />
      <Suspense fallback={<div className="h-40" />}>
        <RepeatChart history={shown} unit={unit} />
      </Suspense>
      {usual ? (
        <div className="flex flex-wrap items-center gap-x-3">
          <VerdictMark verdict={findings.length > 0 ? 'look' : 'good'} />
          <p className="text-sm">
            Usual here: <span className="digits">{formatLength(usual.lower, unit)}</span> to{' '}
            <span className="digits">{formatLength(usual.upper, unit)}</span>
          </p>
        </div>
      ) : (
        <p className="text-sm text-ink-soft">With four earlier times or more it says what is usual.</p>
      )}
      <Findings findings={findings} />
    </section>
  )
}
