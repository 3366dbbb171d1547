import {
  type Bolts,
  convergence,
  jawSketch,
  offTheJaw,
  plainSweep,
  readSweepDraft,
  type SweepDraft,
  squareness,
  sweepDraft,
  type Vise,
  withPartLength,
} from '@dogleg/core/hold'
import { jawLengthOf, startingSweep } from '@dogleg/core/prepare'
import { type FieldProblems, formatLength } from '@dogleg/core/quantity'
import { asksUpright, isSquare } from '@dogleg/core/setup'
import { CirclePlay, Undo2 } from 'lucide-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { draggedText } from '../drawing/use-drag.ts'
import { useProgress } from '../drawing/use-progress.ts'
import { now } from '../log/clock.ts'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { type NewEntry, record } from '../log/record.ts'
import { DoubtParts } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { CleaningGuide } from './cleaning-guide.tsx'
import { JawDrawing, type JawHandle } from './jaw-drawing.tsx'
import { SquareAnswer, Sweeps, TurnInstead } from './square-answer.tsx'
import { SweepForm } from './sweep-form.tsx'
import { UprightPart } from './upright-part.tsx'

const TAP_MS = 2500

const OTHER_BOLT: Record<Bolts, string> = { one: 'out', snug: 'snug', tight: 'tight' }

interface SquarePanelProps {
  /** The vise in hand; undefined where nobody said which. */
  vise: Vise | undefined
  onVise: (id: string) => void
}

/** Squaring a vise: the sweep as it is typed, the jaw and the dial, the tap, the next sweep. */
export function SquarePanel({ vise, onVise }: SquarePanelProps) {
  const { setup, machineEntries } = useOpenSetup()
  const { unit, hold } = setup
  const [draft, change, clear] = useKept<SweepDraft>(`${setup.id}.sweep`, sweepDraft, () =>
    startingSweep(setup),
  )
  const [lit, setLit] = useState<string>()
  const [tapping, setTapping] = useState(false)
  const progress = useProgress(tapping, TAP_MS)
  const form = useRef<HTMLFormElement>(null)
  /** The sweep that was just recorded here, until the log shows it. */
  const [sent, setSent] = useState<string>()
  const [starts, setStarts] = useState(false)
  const signed = useSigned()
  const recorded = hold.sweeps.at(-1)

  const jawLength = jawLengthOf(setup, vise)
  const live = useMemo(() => {
    const read = readSweepDraft(withPartLength(draft, jawLength, unit), unit)
    if (!read.ok) return { problems: read.problems }
    const squared = squareness(read.value, unit)
    const before = recorded?.freshness.state === 'fresh' && recorded.squared.ok ? recorded.squared : undefined
    const turned = squared.ok && before ? convergence(before, squared) : undefined
    const off = squared.ok && vise ? offTheJaw(squared.sweep, jawLength) : []
    const entry: NewEntry = {
      kind: 'swept',
      sweep: read.value,
      ...(vise ? { vise: { id: vise.id, version: vise.version } } : {}),
    }
    return {
      sweep: read.value,
      entry: squared.ok && off.length === 0 ? entry : undefined,
      squared,
      turned,
      findings: [...off, ...(turned?.findings ?? []), ...squared.findings],
    }
  }, [draft, unit, recorded, jawLength, vise])

  const problems: FieldProblems = live.problems ?? {}
  const untouched = draft.points.slice(1).every(({ reading }) => reading === '')
  const shown = live.squared ?? (untouched ? recorded?.squared : undefined)
  const tap = shown?.ok && shown.sweep.bolts === 'one' ? shown.tap : undefined
  const stale = recorded?.freshness.state === 'stale'
  const isDone = untouched && !stale && isSquare(recorded)
  const asked = useMemo(() => asksUpright(hold, machineEntries, now()), [hold, machineEntries])
  const needsGuide = untouched && (!recorded || stale)

  const setPoint = (index: number, part: 'at' | 'reading', text: string) =>
    change({
      ...draft,
      points: draft.points.map((each, i) => (i === index ? { ...each, [part]: text } : each)),
    })
  const drag = (handle: JawHandle, at: number) => {
    const text = draggedText(at, unit)
    if (handle === 'pivot') change({ ...draft, pivot: text })
    else setPoint(Number(handle.split('.')[1]), 'at', text)
  }

  const sketch = jawSketch(
    untouched && recorded && !stale
      ? {
          ...draft,
          points: recorded.entry.sweep.points.map(({ at, reading }) => ({
            at: at.text,
            reading: reading.text,
          })),
        }
      : draft,
    jawLength,
    unit,
  )

  const submit = () => {
    if (!live.entry) return
    const { entry } = live
    signed(() => {
      setSent(record(setup.id, entry).id)
      setTapping(false)
    })
  }
  const towardsDial = live.sweep
    ? plainSweep(live.sweep, unit).towardsDial
    : draft.plusMeans === 'towards'
      ? 1
      : -1

  // Once the sweep stands in the log the form is that of the next one, and the keyboard at the first thing to type.
  useEffect(() => {
    if (sent === undefined || recorded?.entry.id !== sent) return
    setSent(undefined)
    clear()
    setStarts(true)
  })
  useEffect(() => {
    if (!starts) return
    setStarts(false)
    const fields = form.current?.querySelectorAll<HTMLInputElement>('input[data-entry]') ?? []
    ;[...fields].find((each) => each.value === '' && each.checkVisibility())?.focus()
  }, [starts])

  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_1fr_23rem]">
      <SweepForm
        ref={form}
        draft={draft}
        change={change}
        setPoint={setPoint}
        stays={sketch.stays}
        onOtherBolt={() => change({ ...draft, pivot: formatLength(sketch.otherBolt, unit) })}
        problems={problems}
        lit={lit}
        onLit={setLit}
        jawLength={jawLength}
        vise={vise}
        onVise={onVise}
        entry={live.entry}
        onRecord={submit}
      />

      <div className="flex min-h-80 flex-col gap-2">
        <JawDrawing
          sketch={sketch}
          tap={tap}
          towardsDial={towardsDial}
          unit={unit}
          held={OTHER_BOLT[draft.bolts]}
          lit={lit}
          progress={tap ? progress : 0}
          onDrag={drag}
        />
        {tap && (
          <Button onClick={() => setTapping(!tapping)} className="self-center">
            {tapping ? <Undo2 aria-hidden size={20} /> : <CirclePlay aria-hidden size={20} />}
            {tapping
              ? 'Back to the sweep'
              : `Show the tap to ${formatLength(tap.target, unit, { plus: true })}`}
          </Button>
        )}
        {shown?.ok && !needsGuide && (
          <div className="grid grid-cols-2 gap-x-4">
            <DoubtParts answer={shown.outOfSquare} />
            {!shown.within && <TurnInstead squared={shown} />}
          </div>
        )}
        <Sweeps left={live.squared ? live.turned?.left : recorded?.convergence?.left} />
        {isDone && <UprightPart key={hold.upright?.entry.id ?? ''} asked={asked} fact={hold.upright} />}
      </div>

      <div className="md:col-span-2 xl:col-span-1">
        {needsGuide ? (
          <CleaningGuide
            why={
              stale
                ? `It was ${recorded?.freshness.state === 'stale' ? recorded.freshness.cause.says : ''}.`
                : undefined
            }
          />
        ) : shown ? (
          <SquareAnswer
            squared={shown}
            findings={live.squared ? live.findings : (recorded?.findings ?? [])}
            fact={live.squared ? undefined : recorded}
          />
        ) : (
          <p className="text-ink-soft">What to do with the jaw appears here as you type.</p>
        )}
      </div>
    </div>
  )
}
