import { verdictOf } from '@dogleg/core/fact'
import {
  fitRatio,
  type LengthsDraft,
  lengthsDraft,
  movingRatio,
  readLengthsDraft,
  STOPS,
  stopKind,
} from '@dogleg/core/hold'
import { startingLengths } from '@dogleg/core/prepare'
import { type FieldProblems, fixedDigits, formatLength, unitSymbol } from '@dogleg/core/quantity'
import { inForce } from '@dogleg/core/setup'
import { Suspense, useMemo } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { FactLine } from '../ui/fact-line.tsx'
import { lazyPart, NoChart } from '../ui/lazy-part.tsx'
import { ListField } from '../ui/list-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'
import { RatioPair } from './ratio-pair.tsx'

const RatioChart = lazyPart(async () => (await import('./ratio-chart.tsx')).RatioChart, NoChart)

/** Measured lengths against the prediction: the ratio that this chuck really has. */
export function RatioPanel() {
  const { setup, reference } = useOpenSetup()
  const { unit, hold } = setup
  const [draft, change] = useKept<LengthsDraft>(`${setup.id}.lengths`, lengthsDraft, () =>
    startingLengths(setup, inForce(reference, 'collets')[0]?.id ?? ''),
  )
  const signed = useSigned()
  const collet = reference.collets.find(({ id }) => id === draft.collet) ?? inForce(reference, 'collets')[0]
  const live = useMemo(() => {
    const read = readLengthsDraft(draft, unit)
    if (!read.ok || !collet) return { read }
    const expected = movingRatio(collet, draft.stop)
    return { read, expected, fit: fitRatio(read.value.pairs, read.value.what, expected, unit) }
  }, [draft, unit, collet])
  if (!collet) return <p className="py-6 text-lg">There is no collet in the library.</p>

  const { read, expected, fit } = live
  const problems: FieldProblems = read.ok ? {} : read.problems
  const recorded = hold.lengths.get(collet.id)
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_1fr_22rem]">
      <form
        aria-label="Measured lengths"
        className="space-y-1"
        onSubmit={(event) => {
          event.preventDefault()
          if (!read.ok || !fit) return
          signed(() =>
            record(setup.id, {
              kind: 'lengths',
              collet: { id: collet.id, version: collet.version },
              ...read.value,
            }),
          )
        }}
      >
        <PickOne
          label="Measured on"
          value={collet.id}
          onChange={(id) => change({ ...draft, collet: id })}
          options={inForce(reference, 'collets', collet.id).map(({ id, name }) => [id, name])}
        />
        <PickOne
          label="With the stop"
          value={draft.stop}
          onChange={(stop) => change({ ...draft, stop: stopKind.parse(stop) })}
          hint={STOPS[draft.stop].says}
          options={stopKind.options.map((each) => [each, STOPS[each].name])}
        />
        <Choice
          label="Beside each diameter stands"
          value={draft.what}
          onChange={(what) => change({ ...draft, what })}
          options={[
            { value: 'face', label: 'where its face stood' },
            { value: 'length', label: 'length after facing' },
          ]}
        />
        <ListField
          label="Diameter and length, a bar to a line"
          value={draft.pairs}
          onChange={(pairs) => change({ ...draft, pairs })}
          hint="1.2490 .0012, then the next line. Ten bars, small and large."
          understood={read.ok ? `${read.value.pairs.length} bars` : undefined}
          wrong={problems.pairs?.empty ? undefined : problems.pairs?.says}
          rows={5}
        />
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!fit}
          className="mt-1 min-h-14 w-full text-lg"
        >
          Record the lengths
        </Button>
        <MissingLine problems={problems} />
      </form>

      <div className="flex min-h-80 flex-col">
        {read.ok && fit && expected ? (
          <Suspense fallback={<p className="text-ink-soft">Drawing…</p>}>
            <RatioChart
              pairs={read.value.pairs}
              what={read.value.what}
              fit={fit}
              expected={expected}
              unit={unit}
            />
          </Suspense>
        ) : (
          <p className="text-ink-soft">
            Stop the spindle before you measure. The bars, the measured lengths and the line through them
            appear here.
          </p>
        )}
      </div>

      <section aria-label="What this chuck has" className="space-y-2 md:col-span-2 xl:col-span-1">
        <RatioPair collet={collet} />
        {fit && (
          <>
            <h2 className="font-semibold">{fit.ofCollet ? 'This chuck has' : 'The stop moves'}</h2>
            <p className="digits text-5xl leading-tight tracking-tight" data-testid="ratio">
              {fixedDigits(fit.value, 2)}
              <span className="ml-2 text-xl text-ink-soft">to 1</span>
              <span className="ml-3 text-xl">±{fixedDigits(fit.doubt, 2)}</span>
            </p>
            <p className="text-ink-soft">
              The lengths scatter about the line by{' '}
              <span className="digits">
                {formatLength(fit.scatter, unit)} {unitSymbol(unit)}
              </span>
              : how well the stop repeats.
            </p>
            <VerdictMark verdict={verdictOf(fit.findings)} />
            <Findings findings={fit.findings} />
          </>
        )}
        {recorded && <FactLine fact={recorded} />}
      </section>
    </div>
  )
}
