import { verdictOf, worstFirst } from '@dogleg/core/fact'
import type { LinearAxis } from '@dogleg/core/machine'
import {
  type ChoiceName,
  draftOf,
  type FieldName,
  isUntouched,
  judgePickup,
  METHODS,
  type Pickup,
  pickUp,
  pickupSettings,
  planSketch,
  readDraft,
  readingIn,
  sketch,
} from '@dogleg/core/pickup'
import { formatLength } from '@dogleg/core/quantity'
import { againstTable, expectationOf, inWorkShift, type OffsetState, type Setup } from '@dogleg/core/setup'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { AnswerPanel } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { nextFieldOnEnter } from '../ui/entry-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { Residuals } from '../ui/residuals.tsx'
import { PickupDrawing } from './pickup-drawing.tsx'
import { PickupFields } from './pickup-form.tsx'
import { PlanDrawing } from './plan-drawing.tsx'
import { useDraft } from './use-draft.ts'
import { WhichMethod } from './which-method.tsx'

interface PickupPanelProps {
  setup: Setup
  offset: OffsetState
  axis: LinearAxis
  onRecorded: () => void
  /** Bring the keyboard to the first thing to fill in: the axis before was just recorded. */
  takeFocus: boolean
}

/** The other axis that a method gives with the one in hand. */
function FoundWithIt({ others }: { others: readonly Pickup[] }) {
  return others.map(({ axis, value, doubt, unit }) => (
    <p key={axis} className="text-xl">
      <span className="font-semibold">{axis}</span>{' '}
      <span className="digits text-2xl">{formatLength(value, unit)}</span>{' '}
      <span className="digits">±{formatLength(doubt.value, unit)}</span>
      <span className="ml-2 text-base text-ink-soft">found with it</span>
    </p>
  ))
}

/** One axis of one offset: what to type, the picture of it, the answer as it is typed, and the key that records it. */
export function PickupPanel({ setup, offset, axis, onRecorded, takeFocus }: PickupPanelProps) {
  const { unit, machine } = setup
  const { draft, setField, setChoice, setMethod, clear } = useDraft(setup, offset.name, axis)
  const [lit, setLit] = useState<FieldName | ChoiceName>()
  const form = useRef<HTMLFormElement>(null)
  const signed = useSigned()
  const fact = offset.axes[axis]
  const { lengths: tools } = useOpenSetup()

  const live = useMemo(() => {
    const read = readDraft(draft, unit)
    if (!read.ok) return read
    const readings = read.readings.map((reading) => inWorkShift(reading, setup.shift))
    const judged = readings.map((reading) => {
      const pickup = pickUp(reading, pickupSettings(machine, unit))
      return {
        reading,
        pickup,
        findings: worstFirst([
          ...judgePickup(reading, pickup, expectationOf(setup, offset.name, reading.axis)),
          ...againstTable(reading, tools, unit),
        ]),
      }
    })
    const [own, ...others] = judged as [(typeof judged)[number], ...typeof judged]
    // What is said of both axes is said once.
    const said = new Set(own.findings.map(({ code, says }) => `${code} ${says}`))
    const more = others.flatMap(({ findings }) =>
      findings.filter(({ code, says }) => !said.has(`${code} ${says}`)),
    )
    return {
      ...read,
      readings,
      pickup: own.pickup,
      others: others.map(({ pickup }) => pickup),
      findings: [...own.findings, ...more],
    }
  }, [draft, unit, machine, setup, offset.name, tools])

  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const problems = live.ok ? {} : live.problems
  const untouched = isUntouched(draft)
  const axes = METHODS[draft.method].both ? 'X and Y' : axis

  const submit = () => {
    if (!live.ok || stopped) return
    signed(() => {
      for (const reading of live.readings)
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

  const focusField = (field: FieldName) =>
    form.current?.querySelector<HTMLElement>(`[data-field="${field}"] :is(input, textarea)`)?.focus()

  const wantsFocus = useRef(takeFocus)
  useEffect(() => {
    if (!wantsFocus.current) return
    wantsFocus.current = false
    const open = [...(form.current?.querySelectorAll<HTMLElement>('[data-open] button, input') ?? [])]
    open.find((each) => !(each instanceof HTMLInputElement) || each.value === '')?.focus()
  }, [])

  const shown = untouched && fact ? draftOf(readingIn(fact.entry.reading, unit)) : draft
  const inPlan = shown.method === 'circle' || shown.method === 'corner'
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[21rem_1fr_22rem]">
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
        <PickupFields
          draft={draft}
          unit={unit}
          machine={machine}
          tools={tools}
          problems={problems}
          lit={lit}
          onLit={setLit}
          onField={setField}
          onChoice={setChoice}
          onMethod={setMethod}
        />
        <div className="pt-1">
          <Button
            type="submit"
            look="primary"
            data-record
            disabled={!live.ok || stopped}
            className="min-h-14 w-full text-lg"
          >
            Record {axes} of {offset.name}
          </Button>
          <MissingLine problems={problems} stopped={stopped} />
        </div>
      </form>

      <div className="min-h-80">
        {inPlan ? (
          <PlanDrawing sketch={planSketch(shown, unit)} unit={unit} lit={lit} onPick={focusField} />
        ) : (
          <PickupDrawing
            sketch={sketch(shown, unit)}
            unit={unit}
            machine={machine}
            lit={lit}
            value={live.ok ? live.pickup.value : untouched ? fact?.value : undefined}
            last={fact?.value}
            onPick={focusField}
          />
        )}
      </div>

      <div className="md:col-span-2 xl:col-span-1">
        {live.ok ? (
          <AnswerPanel
            title={`${axis} of ${offset.name}, not recorded yet`}
            answer={live.pickup}
            findings={live.findings}
            after={<FoundWithIt others={live.others} />}
            details={
              <Residuals
                residuals={live.pickup.residuals}
                unit={unit}
                title="How far each touch is off the fit"
              />
            }
          />
        ) : fact ? (
          <AnswerPanel
            title={`${axis} of ${offset.name}, as recorded`}
            answer={fact}
            findings={fact.findings}
            fact={fact}
            details={
              <Residuals residuals={fact.residuals} unit={unit} title="How far each touch is off the fit" />
            }
          />
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">
              {axis} of {offset.name}
            </h2>
            {machine.kind === 'lathe' && <p>The geometry of the tool appears here as you type.</p>}
            <WhichMethod setup={setup} axis={axis} onMethod={setMethod} />
            <p>
              Lengths can be typed as .5, 1-1/2, 12.7mm, 0.5in or 2-.125. Several readings of one position: a
              semicolon between them.
            </p>
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
