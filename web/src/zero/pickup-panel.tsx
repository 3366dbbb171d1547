import { verdictOf } from '@dogleg/core/fact'
import type { LinearAxis, Machine } from '@dogleg/core/machine'
import {
  draftOf,
  type FieldName,
  judgePickup,
  METHOD_FIELDS,
  METHOD_NAMES,
  methodsFor,
  pickUp,
  pickupSettings,
  readDraft,
  readingIn,
  sketch,
} from '@dogleg/core/pickup'
import { unitSymbol } from '@dogleg/core/quantity'
import { expectationOf, type OffsetState, type Setup } from '@dogleg/core/setup'
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from 'lucide-react'
import { useEffect, useId, useMemo, useRef, useState } from 'react'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/use-setup.ts'
import { AnswerPanel } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { type LitField, PickupDrawing } from './pickup-drawing.tsx'
import { useDraft } from './use-draft.ts'

const FIELD_LABELS: Record<FieldName, string> = {
  diameter: 'Finder tip, diameter',
  machinePosition: 'Machine position',
  minusSide: 'Machine position, indicator on the minus side',
  plusSide: 'Machine position, indicator on the plus side',
  tool: 'Tool',
  toolLength: 'Tool length',
  blockHeight: 'Gauge block between tool and face',
  drawingPosition: 'The touched face on the drawing',
}
const HINTS: Partial<Record<FieldName, string>> = {
  diameter: '0.200 and 0.500 in or 10 mm are usual.',
  machinePosition: 'As the machine page of the control shows it.',
  minusSide: 'Dial at zero on the high spot.',
  plusSide: 'Dial at the same zero, other side.',
  toolLength: 'As it stands in the tool table.',
  blockHeight: '0 when the tool touches the face itself.',
  drawingPosition: '0 where the face is part zero.',
}

/** Fields that are read off the position display, in the machine's own unit. */
const POSITIONS: ReadonlySet<FieldName> = new Set(['machinePosition', 'minusSide', 'plusSide'])
const displayHint = ({ name, unit }: Machine) =>
  `${name} shows ${unit}: write ${unitSymbol(unit)} behind the number.`

/** The tool's number and its length stand side by side. */
const SHARES_ROW: ReadonlySet<FieldName> = new Set(['tool', 'toolLength'])

const ARROWS = {
  X: { '+': ArrowRight, '-': ArrowLeft },
  Y: { '+': ArrowUp, '-': ArrowDown },
}

interface PickupPanelProps {
  setup: Setup
  offset: OffsetState
  axis: LinearAxis
  onRecorded: () => void
  /** Bring the keyboard to the first thing to fill in: the axis before was just recorded. */
  takeFocus: boolean
}

/** One axis of one offset: what to type, the picture of it, the answer as it is typed, and the key that records it. */
export function PickupPanel({ setup, offset, axis, onRecorded, takeFocus }: PickupPanelProps) {
  const { unit, machine } = setup
  const { draft, setField, setDirection, setMethod, clear } = useDraft(setup, offset.name, axis)
  const [lit, setLit] = useState<LitField>()
  const form = useRef<HTMLFormElement>(null)
  const directionTold = useId()
  const signed = useSigned()
  const fact = offset.axes[axis]

  const live = useMemo(() => {
    const read = readDraft(draft, unit)
    if (!read.ok) return read
    const pickup = pickUp(read.reading, pickupSettings(machine, unit))
    const findings = judgePickup(read.reading, pickup, expectationOf(setup, offset.name, axis))
    return { ...read, pickup, findings }
  }, [draft, unit, machine, setup, offset.name, axis])

  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const problem = live.ok ? undefined : Object.values(live.problems).find(({ empty }) => !empty)
  const missing = live.ok ? undefined : Object.keys(live.problems).length
  const untouched = METHOD_FIELDS[draft.method].every(
    (field) => !POSITIONS.has(field) || !draft.fields[field],
  )

  const submit = () => {
    if (!live.ok || stopped) return
    signed(() => {
      record(setup.id, {
        kind: 'pickup',
        offset: offset.name,
        reading: live.reading,
        machine: { id: machine.id, version: machine.version },
      })
      clear()
      onRecorded()
    })
  }

  const focusField = (field: FieldName) =>
    form.current?.querySelector<HTMLInputElement>(`[data-field="${field}"] input`)?.focus()

  const wantsFocus = useRef(takeFocus)
  useEffect(() => {
    if (!wantsFocus.current) return
    wantsFocus.current = false
    const open = [...(form.current?.querySelectorAll<HTMLElement>('[data-open] button, input') ?? [])]
    open.find((each) => !(each instanceof HTMLInputElement) || each.value === '')?.focus()
  }, [])

  const arrows = axis === 'Z' ? undefined : ARROWS[axis]
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[18rem_1fr] xl:grid-cols-[21rem_1fr_22rem]">
      <form
        ref={form}
        aria-label={`${axis} of ${offset.name}`}
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        {axis !== 'Z' && (
          <Choice
            label="Found with"
            value={draft.method}
            onChange={setMethod}
            options={methodsFor(axis).map((method) => ({ value: method, label: METHOD_NAMES[method] }))}
          />
        )}
        {draft.method === 'edge-finder' && arrows && (
          <div data-open={draft.direction ? undefined : true}>
            <Choice
              label="The spindle moved into the face going"
              value={draft.direction}
              onChange={setDirection}
              onFocus={() => setLit('direction')}
              describedBy={directionTold}
              options={(['+', '-'] as const).map((way) => {
                const Arrow = arrows[way]
                return {
                  value: way,
                  label: (
                    <span className="flex items-center gap-2 text-xl">
                      <Arrow aria-hidden size={22} /> {axis}
                      {way === '+' ? '+' : '−'}
                    </span>
                  ),
                }
              })}
            />
            <p id={directionTold} className="min-h-5 text-sm text-ink-soft">
              {!live.ok && live.problems.direction?.says}
            </p>
          </div>
        )}
        <div className="grid grid-cols-[6rem_minmax(0,1fr)] gap-x-3 gap-y-1">
          {METHOD_FIELDS[draft.method].map((field) => {
            const common = {
              label: FIELD_LABELS[field],
              value: draft.fields[field] ?? '',
              onChange: (text: string) => setField(field, text),
              hint: machine.unit !== unit && POSITIONS.has(field) ? displayHint(machine) : HINTS[field],
              lit: lit === field,
              onFocus: () => setLit(field),
            }
            const told = live.ok ? undefined : live.problems[field]
            return (
              <div key={field} data-field={field} className={SHARES_ROW.has(field) ? '' : 'col-span-2'}>
                {field === 'tool' ? (
                  <TextEntry {...common} wrong={told && !told.empty ? told.says : undefined} />
                ) : (
                  <LengthEntryField {...common} unit={unit} />
                )}
              </div>
            )
          })}
        </div>
        <div className="pt-1">
          <Button
            type="submit"
            look="primary"
            data-record
            disabled={!live.ok || stopped}
            className="min-h-14 w-full text-lg"
          >
            Record {axis} of {offset.name}
          </Button>
          <p className="min-h-5 text-sm text-ink-soft" aria-live="polite">
            {stopped
              ? 'Not recorded while the verdict is stop.'
              : (problem?.says && 'One field is not understood yet.') ||
                (missing ? `${missing} ${missing === 1 ? 'answer is' : 'answers are'} still missing.` : '')}
          </p>
        </div>
      </form>

      <div className="min-h-80">
        <PickupDrawing
          sketch={sketch(untouched && fact ? draftOf(readingIn(fact.entry.reading, unit)) : draft, unit)}
          unit={unit}
          machine={machine}
          lit={lit}
          value={live.ok ? live.pickup.value : untouched ? fact?.value : undefined}
          last={fact?.value}
          onPick={focusField}
        />
      </div>

      <div className="md:col-span-2 xl:col-span-1">
        {live.ok ? (
          <AnswerPanel
            title={`${axis} of ${offset.name}, not recorded yet`}
            answer={live.pickup}
            findings={live.findings}
          />
        ) : fact ? (
          <AnswerPanel
            title={`${axis} of ${offset.name}, as recorded`}
            answer={fact}
            findings={fact.findings}
            fact={fact}
          />
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">
              {axis} of {offset.name}
            </h2>
            <p>The machine position at which the spindle stands over part zero appears here as you type.</p>
            <p>Lengths can be typed as .5, 1-1/2, 12.7mm, 0.5in or 2-.125.</p>
            {machine.note && (
              <p>
                Note on {machine.name}: {machine.note}
              </p>
            )}
          </div>
        )}
      </div>
    </div>
  )
}
