import {
  convergence,
  type FieldProblems,
  jawSketch,
  plainSweep,
  readSweepDraft,
  type SweepDraft,
  squareness,
  sweepDraft,
} from '@dogleg/core/hold'
import { fixedDigits, formatLength } from '@dogleg/core/quantity'
import { jawLengthOf, startingSweep } from '@dogleg/core/setup'
import { CirclePlay, Minus, Plus, Undo2 } from 'lucide-react'
import { useMemo, useState } from 'react'
import { useProgress } from '../drawing/use-progress.ts'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/use-setup.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { DoubtParts } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { CleaningGuide } from './cleaning-guide.tsx'
import { JawDrawing, type JawHandle } from './jaw-drawing.tsx'
import { MissingLine } from './missing-line.tsx'
import { SquareAnswer, Sweeps, TurnInstead } from './square-answer.tsx'

const TAP_MS = 2500

/** Squaring a vise: the sweep as it is typed, the jaw and the dial, the tap, the next sweep. */
export function SquarePanel() {
  const { setup, reference } = useOpenSetup()
  const { unit, hold } = setup
  const [draft, change, clear] = useKept<SweepDraft>(`${setup.id}.sweep`, sweepDraft, () =>
    startingSweep(setup, reference.vises),
  )
  const [lit, setLit] = useState<string>()
  const [tapping, setTapping] = useState(false)
  const progress = useProgress(tapping, TAP_MS)
  const signed = useSigned()
  const recorded = hold.sweeps.at(-1)

  const live = useMemo(() => {
    const read = readSweepDraft(draft, unit)
    if (!read.ok) return { problems: read.problems }
    const squared = squareness(read.value, unit)
    const before = recorded?.freshness.state === 'fresh' && recorded.squared.ok ? recorded.squared : undefined
    const turned = squared.ok && before ? convergence(before, squared) : undefined
    return {
      sweep: read.value,
      entry: squared.ok ? ({ kind: 'swept', sweep: read.value } as const) : undefined,
      squared,
      turned,
      findings: [...(turned?.findings ?? []), ...squared.findings],
    }
  }, [draft, unit, recorded])

  const problems: FieldProblems = live.problems ?? {}
  const wrong = (path: string) => (problems[path]?.empty ? undefined : problems[path]?.says)
  const untouched = draft.points.slice(1).every(({ reading }) => reading === '')
  const shown = live.squared ?? (untouched ? recorded?.squared : undefined)
  const tap = shown?.ok && shown.sweep.bolts === 'one' ? shown.tap : undefined
  const stale = recorded?.freshness.state === 'stale'
  const needsGuide = untouched && (!recorded || stale)

  const setPoint = (index: number, part: 'at' | 'reading', text: string) =>
    change({
      ...draft,
      points: draft.points.map((each, i) => (i === index ? { ...each, [part]: text } : each)),
    })
  const drag = (handle: JawHandle, at: number) => {
    const text = fixedDigits(at, unit === 'inch' ? 4 : 1)
    if (handle === 'pivot') change({ ...draft, pivot: text })
    else setPoint(Number(handle.split('.')[1]), 'at', text)
  }
  const addPoint = () => change({ ...draft, points: [...draft.points, { at: '', reading: '' }] })
  const dropPoint = () => change({ ...draft, points: draft.points.slice(0, -1) })

  const submit = () => {
    if (!live.entry) return
    const { entry } = live
    signed(() => {
      record(setup.id, entry)
      clear({
        ...draft,
        points: draft.points.map(({ at }, index) => ({ at, reading: index === 0 ? '0' : '' })),
      })
      setTapping(false)
    })
  }
  const field = (path: string) => ({ lit: lit === path, onFocus: () => setLit(path), wrong: wrong(path) })
  const towardsDial = live.sweep
    ? plainSweep(live.sweep, unit).towardsDial
    : draft.plusMeans === 'towards'
      ? 1
      : -1
  const rarelyWrong = ['partLength', 'allowed', 'dialStep', 'stylusAngle'].some((path) => problems[path])

  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_1fr_23rem]">
      <form
        aria-label="Sweep of the fixed jaw"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <Choice
          label="The vise is held by"
          value={draft.bolts}
          onChange={(bolts) => change({ ...draft, bolts })}
          options={[
            { value: 'one', label: 'one bolt' },
            { value: 'snug', label: 'second snug' },
            { value: 'tight', label: 'both tight' },
          ]}
        />
        <div className="mt-2">
          <LengthEntryField
            label="The bolt that stays, from the jaw’s left end"
            unit={unit}
            value={draft.pivot}
            onChange={(pivot) => change({ ...draft, pivot })}
            hint="Minus where it is left of the jaw."
            {...field('pivot')}
          />
        </div>
        {draft.points.map(({ at, reading }, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a reading has no name but its place in the order
          <div key={index} className="grid grid-cols-2 gap-x-3">
            <LengthEntryField
              label={index === 0 ? 'Swept from' : index === draft.points.length - 1 ? 'to' : 'over'}
              unit={unit}
              value={at}
              onChange={(text) => setPoint(index, 'at', text)}
              hint={index === 0 ? 'From the left end.' : undefined}
              {...field(`points.${index}.at`)}
            />
            <LengthEntryField
              label="Dial reads"
              unit={unit}
              value={reading}
              onChange={(text) => setPoint(index, 'reading', text)}
              hint={index === 0 ? 'Zero it here.' : 'With its sign.'}
              {...field(`points.${index}.reading`)}
            />
          </div>
        ))}
        <div className="flex gap-2">
          <Button look="quiet" className="px-2" onClick={addPoint} disabled={draft.points.length >= 20}>
            <Plus aria-hidden size={18} /> Reading
          </Button>
          {draft.points.length > 2 && (
            <Button look="quiet" className="px-2" onClick={dropPoint}>
              <Minus aria-hidden size={18} /> Last one
            </Button>
          )}
        </div>
        <details open={rarelyWrong || undefined} className="border-t border-rule">
          <summary className="min-h-11 content-center font-semibold">
            Part and dial
            {!rarelyWrong && (
              <span className="ml-2 text-sm font-normal text-ink-soft">
                {draft.partLength} long, {draft.allowed} allowed
              </span>
            )}
          </summary>
          <div className="grid grid-cols-2 gap-x-3">
            <LengthEntryField
              label="Part, along the jaw"
              unit={unit}
              value={draft.partLength}
              onChange={(partLength) => change({ ...draft, partLength })}
              {...field('partLength')}
            />
            <LengthEntryField
              label="May be out"
              unit={unit}
              value={draft.allowed}
              onChange={(allowed) => change({ ...draft, allowed })}
              hint="Over the part."
              {...field('allowed')}
            />
            <LengthEntryField
              label="Step of the dial"
              unit={unit}
              value={draft.dialStep}
              onChange={(dialStep) => change({ ...draft, dialStep })}
              {...field('dialStep')}
            />
            <TextEntry
              label="Stylus angle"
              suffix="°"
              value={draft.stylusAngle}
              onChange={(stylusAngle) => change({ ...draft, stylusAngle })}
              hint="To the jaw; 0 is flat."
              {...field('stylusAngle')}
            />
          </div>
          <Choice
            label="Plus on the dial means the jaw"
            value={draft.plusMeans}
            onChange={(plusMeans) => change({ ...draft, plusMeans })}
            options={[
              { value: 'towards', label: 'comes towards it' },
              { value: 'away', label: 'goes away' },
            ]}
          />
        </details>
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!live.squared?.ok}
          className="mt-2 min-h-14 w-full text-lg"
        >
          Record the sweep
        </Button>
        <MissingLine problems={problems} />
        <GoesStale entry={live.entry} />
      </form>

      <div className="flex min-h-80 flex-col gap-2">
        <JawDrawing
          sketch={jawSketch(
            untouched && recorded && !stale
              ? {
                  ...draft,
                  points: recorded.entry.sweep.points.map(({ at, reading }) => ({
                    at: at.text,
                    reading: reading.text,
                  })),
                }
              : draft,
            jawLengthOf(setup, reference.vises),
            unit,
          )}
          tap={tap}
          towardsDial={towardsDial}
          unit={unit}
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
            {shown.outOfSquare.value > shown.sweep.allowed && <TurnInstead squared={shown} />}
          </div>
        )}
        <Sweeps left={live.squared ? live.turned?.left : recorded?.convergence?.left} />
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
