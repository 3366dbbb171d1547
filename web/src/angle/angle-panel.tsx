import {
  ANGLE_METHODS,
  type AngleDraft,
  type AngleField,
  type AngleJudgement,
  type AngleMethod,
  angleDraft,
  angleDraftOf,
  angleSketch,
  fitsOffset,
  formatAngle,
  judgeAngle,
  measureAngle,
  readAngleDraft,
} from '@dogleg/core/angle'
import { type Finding, worstFirst } from '@dogleg/core/fact'
import { pickupSettings } from '@dogleg/core/pickup'
import { startingAngle } from '@dogleg/core/prepare'
import { formatWithUnit, unitSymbol } from '@dogleg/core/quantity'
import { type AngleFact, angleQuestion, type OffsetState, zerosOf } from '@dogleg/core/setup'
import { type ComponentProps, useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { TouchListEntry } from '../positions/position-entry.tsx'
import { Judged, Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { ListField } from '../ui/list-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Residuals } from '../ui/residuals.tsx'
import { AngleDrawing } from './angle-drawing.tsx'

const LISTS: Record<
  Exclude<AngleMethod, 'shown'>,
  { field: 'points' | 'holes' | 'features'; label: string; hint: string }
> = {
  edge: {
    field: 'points',
    label: 'Spindle at each touch, X and Y',
    hint: 'Two lines or more; one tip, one side of the part.',
  },
  holes: {
    field: 'holes',
    label: 'Centres of the two holes, X and Y',
    hint: 'Machine positions, a line each.',
  },
  features: {
    field: 'features',
    label: 'Drawing X, Y, then machine X, Y',
    hint: 'A feature to a line; a name may stand in front. A dash for one that was not measured.',
  },
}

interface Shown {
  angle: AngleFact['angle']
  judgement: AngleJudgement
  findings: readonly Finding[]
}

/** The angle at arm's length, what ignoring it costs, what to do, and how it was found. */
function AngleAnswer({
  shown,
  title,
  unit,
  fact,
}: {
  shown: Shown
  title: string
  unit: 'inch' | 'mm'
  fact?: AngleFact | undefined
}) {
  const { angle, judgement, findings } = shown
  const stale = fact?.freshness.state === 'stale'
  return (
    <section aria-label={title} className="grid gap-x-8 gap-y-3 md:grid-cols-2 xl:grid-cols-1">
      <div className="space-y-2">
        <div className={stale ? 'hatched -mx-2 px-2' : ''}>
          <h2 className="font-semibold">{title}</h2>
          <p className="digits text-5xl leading-tight tracking-tight" data-testid="angle">
            {formatAngle(angle.value)}
            <span className="ml-2 text-xl text-ink-soft">deg</span>
          </p>
          <p className="text-xl">
            <span className="digits">±{formatAngle(angle.doubt.value, 4)}</span>
            <span className="ml-2 text-base text-ink-soft">
              {angle.value === 0 ? 'straight' : angle.value > 0 ? 'counter-clockwise' : 'clockwise'}
            </span>
          </p>
        </div>
        <p className="text-2xl font-semibold">{judgement.says}</p>
        <p>{judgement.why}</p>
        <p className="flex justify-between gap-3 border-t border-rule pt-1">
          left there by the angle's own doubt
          <span className="digits text-lg font-semibold whitespace-nowrap">
            {formatWithUnit(judgement.costDoubt, unit)}
          </span>
        </p>
        <Judged findings={findings} fact={fact} />
      </div>
      <div>
        <Working answer={angle} />
        <Residuals residuals={angle.residuals} unit={unit} title="How far each is off the fit" />
        <details className="border-t border-rule">
          <summary className="min-h-11 content-center font-semibold">What the doubt is made of</summary>
          <ul className="pb-2 text-sm">
            {angle.doubt.parts.map(({ from, value }) => (
              <li key={from} className="flex justify-between gap-2">
                {from}
                <span className="digits">{formatAngle(value, 5)}</span>
              </li>
            ))}
          </ul>
        </details>
      </div>
    </section>
  )
}

/** How the part lies: the points as they are typed, the part drawn turned, the judgement, and the key that records it. */
export function AnglePanel({ offset }: { offset: OffsetState }) {
  const { setup } = useOpenSetup()
  const { unit, machine } = setup
  const fact = offset.angle
  const [draft, change, clear] = useKept<AngleDraft>(`${setup.id}.${offset.name}.angle`, angleDraft, () =>
    startingAngle(setup, offset),
  )
  const [lit, setLit] = useState<AngleField>()
  const signed = useSigned()
  const set = (part: Partial<AngleDraft>) => change({ ...draft, ...part })

  const live = useMemo(() => {
    const read = readAngleDraft(draft, unit)
    if (!read.ok) return { problems: read.problems, reading: read.reading }
    const { reading, asked, skipped } = read
    const angle = measureAngle(reading, pickupSettings(machine, unit))
    const question = angleQuestion(asked, setup)
    const judgement = judgeAngle(angle, question)
    const fits = fitsOffset({
      offset: offset.name,
      zeros: zerosOf(offset),
      measuredAt: undefined,
      angle,
      reach: question.reach,
      allowed: question.allowed,
      unit,
    })
    const entry = {
      kind: 'angled' as const,
      offset: offset.name,
      reading,
      ...asked,
      machine: { id: machine.id, version: machine.version },
    }
    return {
      shown: { angle, judgement, findings: worstFirst([...judgement.findings, ...fits]) },
      entry,
      skipped,
    }
  }, [draft, unit, machine, setup, offset])

  const problems = live.problems ?? {}
  const list = draft.method === 'shown' ? undefined : LISTS[draft.method]
  const untouched = !(list ? draft[list.field] : draft.angle).trim()
  const told = (field: AngleField) => {
    const problem = problems[field]
    return problem && !problem.empty ? problem.says : undefined
  }
  const picture = untouched && fact ? angleDraftOf(fact.entry.reading, fact.entry) : draft
  const pictured = live.shown?.angle ?? (untouched ? fact?.angle : undefined)

  const submit = () => {
    const { entry } = live
    if (!entry) return
    signed(() => {
      record(setup.id, entry)
      clear({ ...draft, points: '', holes: '', features: '', angle: '' })
    })
  }
  const lengthField = (field: 'reach' | 'allowed' | 'base', label: string, hint: string) => (
    <LengthEntryField
      label={label}
      unit={unit}
      value={draft[field]}
      onChange={(text) => set({ [field]: text })}
      wrong={told(field)}
      hint={hint}
      lit={lit === field}
      onFocus={() => setLit(field)}
    />
  )
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 pt-1 md:grid-cols-[19rem_1fr] xl:grid-cols-[21rem_1fr_22rem]">
      <form
        aria-label={`Angle of ${offset.name}`}
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <div className="grid grid-cols-2 gap-x-3">
          <PickOne
            label="From"
            value={draft.method}
            onChange={(method) => set({ method: method as AngleMethod })}
            options={Object.entries(ANGLE_METHODS)}
          />
          {draft.method !== 'shown' && (
            <PickOne
              label="Found with"
              value={draft.device}
              onChange={(device) => set({ device: device as AngleDraft['device'] })}
              options={[
                ['probe', 'probe'],
                ['edge-finder', 'edge finder'],
                ['sensor', '3D sensor'],
                ['indicator', 'indicator'],
              ]}
            />
          )}
        </div>
        {list && (
          <TouchesOrList
            touches={draft.method === 'edge'}
            unit={unit}
            label={list.label}
            value={draft[list.field]}
            onChange={(text) => set({ [list.field]: text })}
            rows={{ edge: 3, holes: 2, features: 4, shown: 1 }[draft.method]}
            hint={list.hint}
            wrong={told(list.field)}
            understood={
              live.reading || live.entry
                ? `${draft[list.field].trim().split('\n').length - (live.skipped?.length ?? 0)} understood${live.skipped?.length ? `, ${live.skipped.length} not measured` : ''}`
                : undefined
            }
            lit={lit === list.field}
            onFocus={() => setLit(list.field)}
          />
        )}
        {draft.method === 'shown' && (
          <div className="grid grid-cols-2 gap-x-3">
            <TextEntry
              label="Angle shown"
              value={draft.angle}
              onChange={(angle) => set({ angle })}
              suffix="deg"
              wrong={told('angle')}
              hint={`Variable ${setup.profile.probing?.results.angle ?? ''}.`}
            />
            {lengthField('base', 'Base', 'Between the touches.')}
          </div>
        )}
        {(draft.method === 'edge' || draft.method === 'holes') && (
          <TextEntry
            label="Direction on the drawing"
            value={draft.nominal}
            onChange={(nominal) => set({ nominal })}
            suffix="deg"
            wrong={told('nominal')}
            hint="0 along X, 90 along Y; any other angle too."
            lit={lit === 'nominal'}
            onFocus={() => setLit('nominal')}
          />
        )}
        <div className="grid grid-cols-2 gap-x-3">
          {lengthField('reach', 'Farthest cut', 'From part zero.')}
          {lengthField('allowed', 'May be off there', `In ${unitSymbol(unit)}.`)}
        </div>
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            checked={draft.needsSquare}
            onChange={({ target }) => set({ needsSquare: target.checked })}
            className="size-6 accent-ink"
          />
          Something else rests on it being square
        </label>
        <GoesStale entry={live.entry} />
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!live.entry}
          className="min-h-14 w-full text-lg"
        >
          Record the angle of {offset.name}
        </Button>
        <MissingLine problems={problems} />
      </form>
      <div className="min-h-80">
        <AngleDrawing
          sketch={angleSketch(picture, pictured, unit)}
          angle={pictured?.value}
          unit={unit}
          lit={lit}
        />
      </div>
      <div className="md:col-span-2 xl:col-span-1">
        {live.shown ? (
          <AngleAnswer shown={live.shown} title={`Angle of ${offset.name}, not recorded yet`} unit={unit} />
        ) : fact ? (
          <AngleAnswer shown={fact} title={`Angle of ${offset.name}, as recorded`} unit={unit} fact={fact} />
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">Angle of {offset.name}</h2>
            <p>How the part lies, and what to do about it, appears here as you type.</p>
            <p>Counter-clockwise is plus, seen from above. The longest base gives the least doubt.</p>
          </div>
        )}
      </div>
    </div>
  )
}

/** Touches of an edge are taken from the machine; other lists have columns of their own. */
function TouchesOrList({ touches, ...rest }: ComponentProps<typeof TouchListEntry> & { touches: boolean }) {
  if (touches) return <TouchListEntry {...rest} />
  const { unit: _, ...list } = rest
  return <ListField {...list} />
}
