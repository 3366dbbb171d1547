import { verdictOf } from '@dogleg/core/fact'
import type { LinearAxis, Machine } from '@dogleg/core/machine'
import {
  type ChoiceName,
  type FieldName,
  judgePickup,
  type PickupMethod,
  pickUp,
  pickupDraft,
  pickupSettings,
  readDraft,
} from '@dogleg/core/pickup'
import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import type { Task } from '@dogleg/core/simulated'
import { useState } from 'react'
import { useKept } from '../log/kept.ts'
import { Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { Findings } from '../ui/verdict.tsx'
import { PickupFields } from '../zero/pickup-form.tsx'

interface WorkOutProps {
  form: NonNullable<Task['form']>
  method: PickupMethod
  /** What is found: 'X of G54'. */
  name: string
  axis: LinearAxis
  unit: LengthUnit
  machine: Machine
  /** Names the piece, so that what is typed for one is not shown for the next. */
  piece: string
  onAnswer: (text: string) => void
}

/** The Zero step's own form for one axis, with its working: what it comes to can be given as the answer. */
export function WorkOut({ form, method, name, axis, unit, machine, piece, onAnswer }: WorkOutProps) {
  const [draft, change] = useKept(`practice.${piece}.${axis}`, pickupDraft, () => ({
    axis,
    method,
    choices: {},
    fields: form.carried,
  }))
  const [lit, setLit] = useState<FieldName | ChoiceName>()
  const read = readDraft(draft, unit)
  const pickup = read.ok ? pickUp(read.reading, pickupSettings(machine, unit)) : undefined
  // How far off the part may be is the exercise's own affair: only the usual slips are said here.
  const findings =
    read.ok && pickup
      ? judgePickup(read.reading, pickup, { machine, unit, tolerance: pickup.doubt.value })
      : []
  return (
    <form
      aria-label={`Work out ${axis}`}
      className="grid gap-x-6 pt-2 md:grid-cols-2"
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => event.preventDefault()}
    >
      <div className="space-y-1">
        <PickupFields
          draft={draft}
          unit={unit}
          machine={machine}
          tools={[]}
          problems={read.ok ? {} : read.problems}
          lit={lit}
          onLit={setLit}
          onField={(field, text) => change({ ...draft, fields: { ...draft.fields, [field]: text } })}
          onChoice={(choice, value) => change({ ...draft, choices: { ...draft.choices, [choice]: value } })}
          onMethod={undefined}
        />
      </div>
      <div className="space-y-3">
        {pickup ? (
          <>
            <h2 className="font-semibold">{name}</h2>
            <p>
              <span className="digits text-4xl" data-testid="worked-out">
                {formatLength(pickup.value, unit)}
              </span>
              <span className="digits block text-lg">±{formatLength(pickup.doubt.value, unit)}</span>
            </p>
            <Findings findings={findings} />
            <Button
              look="primary"
              data-record
              className="w-full"
              disabled={verdictOf(findings) === 'stop'}
              onClick={() => onAnswer(formatLength(pickup.value, unit))}
            >
              Answer {axis} with it
            </Button>
            <Working answer={pickup} />
          </>
        ) : (
          <p className="text-ink-soft">
            Take the position with the key at the end of its field, when the device says so. The value and its
            working appear here.
          </p>
        )}
      </div>
    </form>
  )
}
