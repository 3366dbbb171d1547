import { type Finding, verdictOf, worstFirst } from '@dogleg/core/fact'
import { leastStepIn } from '@dogleg/core/machine'
import { judgePickup, type Pickup, pickUp, pickupSettings, type Reading } from '@dogleg/core/pickup'
import {
  emptyFound,
  type FoundDraft,
  type FoundField,
  foundDraft,
  foundFields,
  judgeFound,
  type ProbeTask,
  readFound,
} from '@dogleg/core/probe'
import { formatLength } from '@dogleg/core/quantity'
import { expectationOf, type OffsetState, type Setup } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { useKept } from '../log/kept.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { LengthEntryField } from '../ui/entry-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'

interface WholeFoundProps {
  setup: Setup
  offset: OffsetState
  task: ProbeTask
  /** Where the sizes stand, in words; undefined for those that the program stopped for. */
  variables: readonly string[]
  onRecorded: () => void
}

const LABELS: Record<FoundField, string> = { X: 'X', Y: 'Y', Z: 'Z', length: 'Length', width: 'Width' }

/** A reading an axis, judged against what stood before, its size against what was asked for. */
function judged(setup: Setup, offset: string, reading: Reading): { pickup: Pickup; findings: Finding[] } {
  const pickup = pickUp(reading, pickupSettings(setup.machine, setup.unit))
  return { pickup, findings: judgePickup(reading, pickup, expectationOf(setup, offset, reading.axis)) }
}

/** What a program for a whole zero found: typed from the offset page, judged, and recorded as X, Y and Z at once. */
export function WholeFound({ setup, offset, task, variables, onRecorded }: WholeFoundProps) {
  const { unit, machine } = setup
  const [draft, change, clear] = useKept<FoundDraft>(
    `${setup.id}.${offset.name}.found`,
    foundDraft,
    () => emptyFound,
  )
  const signed = useSigned()
  const live = useMemo(() => {
    const read = readFound(draft, task, unit)
    if (!read.ok) return read
    const each = read.value.map((reading) => ({ reading, ...judged(setup, offset.name, reading) }))
    const own = each.flatMap(({ findings }) => findings)
    const last = Object.fromEntries(
      Object.values(offset.axes).map(({ axis, value, freshness }) => [
        axis,
        { value, fresh: freshness.state === 'fresh' },
      ]),
    )
    const ran = judgeFound(read.value, task, {
      unit,
      offset: offset.name,
      leastStep: leastStepIn(machine, unit),
      last,
    })
    return {
      ...read,
      each,
      findings: worstFirst([
        ...ran,
        ...own.filter(({ code }) => ran.length === 0 || code !== 'unchanged-result'),
      ]),
    }
  }, [draft, task, unit, setup, machine, offset])
  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const problems = live.ok ? {} : live.problems
  const submit = () => {
    if (!live.ok || stopped) return
    signed(() => {
      for (const reading of live.value)
        record(setup.id, {
          kind: 'pickup',
          offset: offset.name,
          reading,
          machine: { id: machine.id, version: machine.version },
        })
      clear()
      onRecorded()
    })
  }
  return (
    <section aria-label="What it found" className="space-y-1 border-t border-rule pt-2">
      <h2 className="font-semibold">
        After it ran: {offset.name} as the offset page shows it
        {task.feature === 'block' &&
          (variables.length > 0 ? `; ${variables.join(', ')}` : '; the sizes as they were read')}
      </h2>
      <div className="grid grid-cols-2 gap-x-2">
        {foundFields(task).map((field) => (
          <LengthEntryField
            key={field}
            label={LABELS[field]}
            value={draft[field]}
            onChange={(text) => change({ ...draft, [field]: text })}
            unit={unit}
            narrow
            {...(problems[field] && !problems[field].empty ? { wrong: problems[field].says } : {})}
          />
        ))}
      </div>
      {live.ok && (
        <>
          <VerdictMark verdict={verdictOf(live.findings)} />
          <p>
            {live.each.map(({ pickup: { axis, doubt } }) => (
              <span key={axis} className="digits mr-3">
                {axis} ±{formatLength(doubt.value, unit)}
              </span>
            ))}
          </p>
          <Findings findings={live.findings} />
        </>
      )}
      <Button
        look="primary"
        className="min-h-12 w-full text-lg"
        disabled={!live.ok || stopped}
        data-record
        onClick={submit}
      >
        Record X, Y and Z of {offset.name}
      </Button>
      <MissingLine problems={problems} stopped={stopped} />
    </section>
  )
}
