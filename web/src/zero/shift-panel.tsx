import { verdictOf, worstFirst } from '@dogleg/core/fact'
import {
  judgeWorkShift,
  pickupSettings,
  readWorkShift,
  type WorkShiftDraft,
  workShift,
  workShiftDraft,
} from '@dogleg/core/pickup'
import { formatLength, unitSymbol } from '@dogleg/core/quantity'
import { type OffsetState, type ShiftFact, shiftTools } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { PositionEntry } from '../positions/position-entry.tsx'
import { AnswerPanel } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { fieldsOf } from './fields-of.ts'
import { ShiftDrawing } from './shift-drawing.tsx'

/** How the value is told to the control. */
function KeyItIn({ shift }: { shift: ShiftFact['shift'] }) {
  const { setup } = useOpenSetup()
  const name = setup.profile.offsets.standard[0] ?? 'G54'
  return (
    <p>
      Key in Z of {name}:{' '}
      <span className="digits text-xl font-semibold">{formatLength(shift.value, shift.unit)}</span>. A control
      with a page of its own for it may count the other way: with the tool at the face, look that it shows the
      face’s own Z.
    </p>
  )
}

/** The work shift of a lathe: one tool at the face brings all of them back to a part that was moved. */
export function ShiftPanel({ offset }: { offset: OffsetState }) {
  const { setup } = useOpenSetup()
  const { unit, machine, shift: fact } = setup
  const tools = useMemo(() => shiftTools(setup.offsets), [setup])
  const [draft, change, clear] = useKept<WorkShiftDraft>(`${setup.id}.work-shift`, workShiftDraft, () => ({
    tool: '',
    machinePosition: '',
    drawingPosition: '0',
  }))
  const [lit, setLit] = useState<keyof WorkShiftDraft>()
  const signed = useSigned()
  const tool =
    tools.find(({ name }) => name === draft.tool) ??
    tools.find(({ name }) => name === offset.name) ??
    tools[0]
  const z = tool?.axes.Z
  const live = useMemo(() => {
    const read = readWorkShift(draft, z && { value: z.value, doubt: z.doubt.value }, unit)
    if (!read.ok) return read
    const answer = workShift(read.value, pickupSettings(machine, unit))
    const last = fact && { value: fact.shift.value, fresh: fact.freshness.state === 'fresh' }
    return { ...read, answer, findings: judgeWorkShift(read.value, answer, { machine, unit, last }) }
  }, [draft, z, unit, machine, fact])
  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const problems = live.ok ? {} : live.problems
  const entry =
    live.ok && tool && z
      ? {
          kind: 'work-shift' as const,
          offset: tool.name,
          reading: live.value,
          rests: [z.entry.id],
          machine: { id: machine.id, version: machine.version },
        }
      : undefined
  const common = fieldsOf<WorkShiftDraft, keyof WorkShiftDraft>({
    draft,
    change,
    problems,
    lit,
    onLit: setLit,
  })
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_1fr_22rem]">
      <form
        aria-label="Work shift"
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          if (!entry || stopped) return
          signed(() => {
            record(setup.id, entry)
            clear()
          })
        }}
      >
        <PickOne
          label="Tool at the face"
          value={tool?.name ?? ''}
          onChange={(name) => change({ ...draft, tool: name })}
          options={tools.map(({ name }) => [name, name] as const)}
        />
        <PositionEntry
          {...common('machinePosition', 'Machine Z at the face', 'Do not move Z before reading it.')}
          axis="Z"
          unit={unit}
          plain
        />
        <LengthEntryField
          {...common('drawingPosition', 'Z of the face', '0 where the finished face is part zero.')}
          unit={unit}
        />
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!entry || stopped}
          className="min-h-14 w-full text-lg"
        >
          Record the work shift
        </Button>
        <MissingLine
          problems={problems}
          stopped={stopped}
          says={tools.length === 0 ? 'Take the Z of a tool first.' : undefined}
        />
        {entry && !stopped && <GoesStale entry={entry} besides="The work shift" />}
      </form>
      <div className="min-h-72">
        <ShiftDrawing
          unit={unit}
          shift={live.ok ? live.answer.value : fact?.shift.value}
          tool={tool?.name ?? 'the tool'}
          lit={lit}
        />
      </div>
      <div className="space-y-3 md:col-span-2 xl:col-span-1">
        {live.ok ? (
          <AnswerPanel title="Work shift, not recorded yet" answer={live.answer} findings={live.findings} />
        ) : fact ? (
          <AnswerPanel
            title="Work shift, as recorded"
            answer={fact.shift}
            findings={worstFirst(fact.findings)}
            fact={fact}
            after={fact.freshness.state === 'fresh' && <KeyItIn shift={fact.shift} />}
          />
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">One tool for all of them</h2>
            <p>
              The part lies elsewhere along Z: another collet, another stop, clamped again. The tools still
              stand to each other as they did. Bring one of them to the face, and the shift puts all of them
              right, in {unitSymbol(unit) === 'in' ? 'inches' : 'mm'}.
            </p>
            <p>What was touched at the part as it lies now, and not before, does not belong to them.</p>
          </div>
        )}
      </div>
    </div>
  )
}
