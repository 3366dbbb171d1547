import { formatAngle } from '@dogleg/core/angle'
import { verdictOf } from '@dogleg/core/fact'
import { axesOf, type LinearAxis } from '@dogleg/core/machine'
import {
  formatLength,
  formatWithUnit,
  readDegrees,
  readLength,
  type TypedLength,
} from '@dogleg/core/quantity'
import { judgeHome, type ShownHome } from '@dogleg/core/ready'
import type { ReadyState, Setup } from '@dogleg/core/setup'
import { Hourglass } from 'lucide-react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { PositionEntry, TurnedEntry } from '../positions/position-entry.tsx'
import { Button } from '../ui/button.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'
import { When } from '../ui/when.tsx'

const draftSchema = z.partialRecord(z.enum(['X', 'Y', 'Z', 'rotary']), z.string())

/** What the control shows after homing, against what this machine shows when all is well. */
export function HomePanel({ setup, home }: { setup: Setup; home: ReadyState['home'] }) {
  const { machine } = setup
  const { unit } = machine
  const axes = axesOf(machine)
  const [draft, setDraft] = useKept<Partial<Record<LinearAxis | 'rotary', string>>>(
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
  const { rotary } = machine
  const turned = rotary ? readDegrees(draft.rotary ?? '') : undefined
  const wrongTurn = turned && !turned.ok && !turned.empty ? turned.says : undefined
  const whole = axes.every((axis) => read[axis]) && wrongTurn === undefined
  const shown = { ...read, ...(turned?.ok ? { rotary: turned.value } : {}) } as ShownHome
  const findings = whole ? judgeHome(shown, machine, unit) : []
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
              shown,
              machine: { id: machine.id, version: machine.version },
            })
            setDraft({})
          })
        }}
      >
        <div className={`grid gap-2 ${rotary ? 'grid-cols-2' : 'grid-cols-3'}`}>
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
          {rotary && (
            <TurnedEntry
              word={rotary.word}
              narrow
              label={`${rotary.word} shows`}
              value={draft.rotary ?? ''}
              onChange={(text) => setDraft({ ...draft, rotary: text })}
              hint="usual 0; may stay empty"
              wrong={wrongTurn}
            />
          )}
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
                .concat(
                  rotary && home.entry.shown.rotary !== undefined
                    ? [`${rotary.word} ${formatAngle(home.entry.shown.rotary)}°`]
                    : [],
                )
                .join(', ')
            )}{' '}
            {home.entry.by}, <When at={home.entry.at} />
          </p>
        )}
      </div>
    </section>
  )
}
