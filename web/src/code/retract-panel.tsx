import {
  bestMultiple,
  fitAcceleration,
  holeSeconds,
  kneeOf,
  mostMultiple,
  savingOf,
  type TapDraft,
  type TapSizes,
} from '@dogleg/core/cycles/tapping'
import type { Machine } from '@dogleg/core/machine'
import { formatShort } from '@dogleg/core/quantity'
import { Suspense, useState } from 'react'
import { LeadsOnly } from '../people/leads-only.tsx'
import { useSave } from '../reference/use-save.ts'
import { Button } from '../ui/button.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { lazyPart, NoChart } from '../ui/lazy-part.tsx'
import { Typed } from './typed.tsx'

const RetractChart = lazyPart(async () => (await import('./retract-chart.tsx')).RetractChart, NoChart)

interface RetractPanelProps {
  tap: TapDraft
  sizes: TapSizes
  machine: Machine
  holes: number
  /** The control has a word for it. */
  hasWord: boolean
  partsAShift: string
  onPartsAShift: (typed: string) => void
}

const money = new Intl.NumberFormat('en', { maximumFractionDigits: 0 })

/** What coming out faster saves with this spindle, how far it pays, and what to watch. */
export function RetractPanel({
  tap,
  sizes,
  machine,
  holes,
  hasWord,
  partsAShift,
  onPartsAShift,
}: RetractPanelProps) {
  const { stroke, limits, multiple, rpm } = sizes
  const knee = kneeOf(stroke)
  const most = mostMultiple(stroke, limits)
  const best = bestMultiple(stroke, limits)
  const untimed = machine.dynamics?.spindleTimed !== true && best > multiple.value
  const parts = Number(partsAShift)
  const { costs } = machine
  const saving = savingOf(stroke, 1, multiple.value, {
    holes,
    partsAShift: parts > 0 ? parts : null,
    shiftsAMonth: costs?.shiftsAMonth ?? null,
    anHour: costs?.anHour ?? null,
  })
  const rows: [string, string][] = [
    ['a hole', formatShort(saving.perHole)],
    ['a part', formatShort(saving.perPart)],
    ['a shift', saving.perShift === null ? '-' : formatShort(saving.perShift)],
    ['a month', saving.perMonth === null ? '-' : formatShort(saving.perMonth)],
    ['a month, money', saving.moneyAMonth === null ? '-' : money.format(saving.moneyAMonth)],
  ]
  const says =
    tap.holder === 'floating'
      ? 'In a floating holder the tap comes out at the speed that it went in at: 1.'
      : !hasWord
        ? 'This control has no word for it: it comes out as the control is set.'
        : best <= 1
          ? 'A higher multiple brings nothing here: the spindle is not quicker over so short a way.'
          : untimed
            ? 'Nobody has timed this spindle: try 2 first. Two timed holes, below, say whether more pays.'
            : knee <= most
              ? `Beyond ${knee.toFixed(1)} the spindle never comes to its speed: more brings nothing.`
              : `${most} is the most: ${Math.round(most * rpm.tap)} of ${Math.round(limits.topSpeed * 60)} rpm. More would pay up to ${knee.toFixed(1)}.`
  return (
    <section aria-label="What a faster way out saves" className="space-y-2">
      <div className="grid gap-x-4 gap-y-2 xl:grid-cols-[1fr_15rem]">
        <div className="h-56 min-w-0">
          <Suspense fallback={<p className="text-ink-soft">Drawing…</p>}>
            <RetractChart stroke={stroke} most={9} cap={most} knee={knee} chosen={multiple.value} />
          </Suspense>
        </div>
        <div>
          <p>
            Retract speed{' '}
            <span className="digits text-3xl font-semibold" data-testid="multiple">
              {multiple.value}
            </span>{' '}
            x infeed saves, against 1
          </p>
          <dl className="grid grid-cols-[1fr_auto] gap-x-3">
            {rows.map(([name, value]) => (
              <div key={name} className="contents">
                <dt className="border-t border-rule">{name}</dt>
                <dd className="digits border-t border-rule text-right font-semibold">{value}</dd>
              </div>
            ))}
          </dl>
          <p className="text-sm text-ink-soft">
            One hole takes <span className="digits">{formatShort(holeSeconds(stroke, multiple.value))}</span>.
            {costs === null && ' Enter what an hour costs on the machine’s page.'}
          </p>
        </div>
      </div>
      <p className="font-semibold">{says}</p>
      <p className="text-sm">
        Raising it, watch the first holes: a tap that squeals or pulls material out, a holder that slips,
        chips wound round the tap. Single holes first, a hand on feed hold.
      </p>
      <div className="grid gap-x-4 md:grid-cols-[10rem_1fr]">
        <Typed field="partsAShift">
          {(typed) => (
            <TextEntry
              label="Parts a shift"
              value={typed}
              onChange={onPartsAShift}
              narrow
              wrong={partsAShift.trim() !== '' && !(parts > 0) ? 'A number above zero.' : undefined}
            />
          )}
        </Typed>
        <TimedHoles sizes={sizes} machine={machine} />
      </div>
    </section>
  )
}

/** Two holes timed at the machine give the spindle's acceleration. */
function TimedHoles({ sizes, machine }: { sizes: TapSizes; machine: Machine }) {
  const [typed, setTyped] = useState({ slow: '', fast: '', multiple: '4', doubt: '.2' })
  const { save } = useSave('machines')
  const [slow, fast, multiple, timingDoubt] = [typed.slow, typed.fast, typed.multiple, typed.doubt].map(
    Number,
  ) as [number, number, number, number]
  const { stroke } = sizes
  const asked = typed.slow.trim() !== '' && typed.fast.trim() !== ''
  const fit = asked
    ? fitAcceleration({
        turns: Math.max(...stroke.strokes),
        speed: stroke.speed,
        slow,
        fast,
        multiple,
        timingDoubt: Math.max(0, timingDoubt || 0),
      })
    : undefined
  const field = (name: keyof typeof typed, label: string, suffix: string) => (
    <TextEntry
      label={label}
      narrow
      suffix={suffix}
      value={typed[name]}
      onChange={(next) => setTyped({ ...typed, [name]: next })}
      wrong={typed[name].trim() !== '' && !(Number(typed[name]) > 0) ? 'A number above zero.' : undefined}
    />
  )
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 content-center font-semibold">
        The spindle’s acceleration is <span className="digits">{Number(stroke.acceleration.toFixed(1))}</span>{' '}
        turns/s²: time two holes to find it
      </summary>
      <div className="grid grid-cols-2 gap-x-3 md:grid-cols-4">
        {field('slow', 'Retract at 1 x', 's')}
        {field('fast', 'Retract faster', 's')}
        {field('multiple', 'which was at', 'times')}
        {field('doubt', 'Each within', 's')}
      </div>
      {fit && !fit.ok && <p className="font-semibold">{fit.says}</p>}
      {fit?.ok && (
        <p>
          <span className="digits text-2xl font-semibold">{fit.value.toFixed(1)}</span> turns/s²{' '}
          <span className="digits">±{fit.doubt.toFixed(1)}</span>
          {fit.reached ? '' : ': it never came to its speed on the way out'}.{' '}
          {fit.doubt > fit.value / 2 && 'That says too little: time ten holes together, and divide. '}
          {machine.dynamics && fit.doubt <= fit.value / 2 && (
            <LeadsOnly does="keeps it for the machine">
              <Button
                disabled={save.isPending}
                onClick={() => {
                  const { dynamics } = machine
                  if (dynamics)
                    save.mutate({
                      row: {
                        ...machine,
                        dynamics: {
                          ...dynamics,
                          spindleAcceleration: Number(fit.value.toFixed(1)),
                          spindleTimed: true,
                        },
                      },
                    })
                }}
              >
                Keep it for {machine.name}
              </Button>
            </LeadsOnly>
          )}
          {save.error && <span role="alert"> {save.error.message}</span>}
        </p>
      )}
    </details>
  )
}
