import { verdictOf } from '@dogleg/core/fact'
import { axesOf, type LinearAxis } from '@dogleg/core/machine'
import { formatLength, formatWithUnit, readLength, type TypedLength } from '@dogleg/core/quantity'
import { judgeHome, type ShownHome } from '@dogleg/core/ready'
import type { ReadyState, Setup } from '@dogleg/core/setup'
import { Hourglass } from 'lucide-react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { PositionEntry } from '../positions/position-entry.tsx'
import { Button } from '../ui/button.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'
import { When } from '../ui/when.tsx'

const draftSchema = z.partialRecord(z.enum(['X', 'Y', 'Z']), z.string())

/** What the control shows after homing, against what this machine shows when all is well. */
export function HomePanel({ setup, home }: { setup: Setup; home: ReadyState['home'] }) {
  const { machine } = setup
  const { unit } = machine
  const axes = axesOf(machine)
  const [draft, setDraft] = useKept<Partial<Record<LinearAxis, string>>>(
    `home.${setup.id}`,
    draftSchema,
    () => ({}),
  )
  const signed = useSigned()
  const read: Partial<Record<LinearAxis, TypedLength>> = {}
  for (const axis of axes) {
    const entry = readLength(draft[axis] ?? '', unit)
    if (entry.ok) read[axis] = { text: entry.text, value: entry.value, unit }
  }
  const whole = axes.every((axis) => read[axis])
  const findings = whole ? judgeHome(read as ShownHome, machine, unit) : []
  const stale = home?.freshness.state === 'stale' ? home.freshness.cause : undefined
  return (
    <section aria-label="Home positions">
      <div className="flex items-center justify-between gap-3">
        <h2 className="text-lg font-semibold">Home positions</h2>
        {whole ? (
          <VerdictMark verdict={verdictOf(findings)} />
        ) : stale ? (
          <span className="hatched inline-flex items-center gap-1.5 px-1 font-semibold">
            <Hourglass aria-hidden size={18} /> stale
          </span>
        ) : (
          home && <VerdictMark verdict={home.verdict} />
        )}
      </div>
      <form
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          if (!whole) return
          signed(() => {
            record(setup.id, {
              kind: 'homed',
              shown: read as ShownHome,
              machine: { id: machine.id, version: machine.version },
            })
            setDraft({})
          })
        }}
      >
        <div className="grid grid-cols-3 gap-2">
          {axes.map((axis) => (
            <PositionEntry
              key={axis}
              plain
              narrow
              axis={axis}
              label={`${axis} shows`}
              unit={unit}
              value={draft[axis] ?? ''}
              onChange={(text) => setDraft({ ...draft, [axis]: text })}
              hint={`usual ${formatLength(machine.home[axis], unit)}`}
            />
          ))}
        </div>
        <Button type="submit" data-record disabled={!whole} className="w-full">
          Record the home positions
        </Button>
      </form>
      <div className="mt-1">
        <Findings findings={whole ? findings : stale ? [] : (home?.findings ?? [])} />
        {!whole && home && (
          <p className="text-ink-soft">
            {stale ? (
              <>Stale: {stale.says}.</>
            ) : (
              axes
                .flatMap((axis) => {
                  const shown = home.entry.shown[axis]
                  return shown ? [`${axis} ${formatWithUnit(shown.value, shown.unit)}`] : []
                })
                .join(', ')
            )}{' '}
            {home.entry.by}, <When at={home.entry.at} />
          </p>
        )}
      </div>
    </section>
  )
}
