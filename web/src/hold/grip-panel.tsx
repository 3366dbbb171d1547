import {
  asksSeated,
  barRange,
  bySize,
  colletSketch,
  type Grip,
  type GripDraft,
  lengthSpread,
  readGripDraft,
  SAMPLE_BARS,
  STOPS,
  stopKind,
} from '@dogleg/core/hold'
import { partSizes } from '@dogleg/core/prepare'
import { type FieldProblems, readLength } from '@dogleg/core/quantity'
import { inForce, measuredRatios } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { Example } from '../drawing/example.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { type NewEntry, record, restates } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { AnswerPanel } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter } from '../ui/entry-field.tsx'
import { takeKnown } from '../ui/known-key.tsx'
import { ListField } from '../ui/list-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { Findings } from '../ui/verdict.tsx'
import { ColletDrawing } from './collet-drawing.tsx'
import { RatioPair } from './ratio-pair.tsx'
import { ShareSlider } from './share-slider.tsx'

interface GripPanelProps {
  draft: GripDraft
  change: (draft: GripDraft) => void
}

/** Which collet and which stop, and how far the part's length will wander with them. */
export function GripPanel({ draft, change }: GripPanelProps) {
  const { setup, reference } = useOpenSetup()
  const { unit, hold } = setup
  const [lit, setLit] = useState<string>()
  const [share, setShare] = useState(1)
  const signed = useSigned()
  const collet = reference.collets.find(({ id }) => id === draft.collet)
  // What is drawn before they are chosen is an example.
  const drawn = {
    collet: collet ?? inForce(reference, 'collets')[0],
    stop: draft.stop || ('collet' as const),
  }

  const live = useMemo(() => {
    const read = readGripDraft(draft, unit)
    if (!read.ok || !collet) return { read }
    const measured = measuredRatios(hold).get(collet.id)
    const grip: Grip = {
      ...read.value,
      collet,
      unit,
      range: barRange(read.value.bars, unit),
      allowed: read.value.allowed.value,
      ...(measured ? { measuredRatio: measured } : {}),
    }
    const spread = lengthSpread(grip)
    const entry: NewEntry = {
      kind: 'gripped',
      collet: { id: collet.id, version: collet.version },
      ...read.value,
      rests: measured && spread.ratio > 0 ? [measured.entry] : [],
    }
    return { read, grip, spread, measured, entry }
  }, [draft, unit, collet, hold])

  if (!drawn.collet) return <p className="py-6 text-lg">There is no collet in the library.</p>
  const { read, grip, spread } = live
  const problems: FieldProblems = {
    ...(read.ok ? {} : read.problems),
    // One that was chosen may be in the library no more.
    ...(collet ? {} : { collet: { says: 'Choose the collet or the jaws.', empty: true } }),
  }
  const wrong = (path: string) => (problems[path]?.empty ? undefined : problems[path]?.says)
  // Whether a bar goes into it is known before the rest is typed.
  const diameter = draft.known === 'tolerance' ? readLength(draft.diameter, unit) : undefined
  const size =
    collet && !read.ok && diameter?.ok
      ? bySize(collet, { least: diameter.value, greatest: diameter.value }, unit).filter(
          ({ severity }) => severity === 'stop',
        )
      : []
  const stopped = spread?.findings.some(({ severity }) => severity === 'stop')
  const recorded = hold.grip
  const same = recorded !== undefined && live.entry !== undefined && restates(recorded.entry, live.entry)

  const submit = () => {
    const { entry } = live
    if (entry && !stopped) signed(() => record(setup.id, entry))
  }

  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[20rem_1fr_22rem]">
      <form
        aria-label="Collet and stop"
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <PickOne
          label="Collet or jaws"
          value={collet?.id ?? ''}
          onChange={(id) => change({ ...draft, collet: id })}
          onFocus={() => setLit('collet')}
          toChoose="choose them"
          options={inForce(reference, 'collets', draft.collet).map(({ id, name }) => [id, name])}
        />
        <PickOne
          label="Stop"
          value={draft.stop}
          onChange={(stop) => change({ ...draft, stop: stopKind.parse(stop) })}
          onFocus={() => setLit('stop')}
          hint={draft.stop && STOPS[draft.stop].says}
          toChoose="choose it"
          options={stopKind.options.map((each) => [each, STOPS[each].name])}
        />
        {collet && draft.stop && asksSeated({ collet, stop: draft.stop }) && (
          <Choice
            quiet
            label="The part is seated on the stop"
            value={draft.seated}
            onChange={(seated) => change({ ...draft, seated })}
            options={[
              { value: '', label: 'not known' },
              { value: 'open', label: 'with the tube open' },
              { value: 'closing', label: 'as the jaws close' },
            ]}
          />
        )}
        <Choice
          quiet
          label="Operation"
          value={draft.operation}
          onChange={(operation) => change({ ...draft, operation })}
          options={[
            { value: 'first', label: 'first: face to cut' },
            { value: 'second', label: 'second: to length' },
          ]}
        />
        <Choice
          quiet
          label="The bars are known by"
          value={draft.known}
          onChange={(known) => change({ ...draft, known })}
          options={[
            { value: 'tolerance', label: 'bars by tolerance' },
            { value: 'measured', label: 'bars measured' },
          ]}
        />
        {draft.known === 'tolerance' ? (
          <div className="grid grid-cols-2 items-end gap-x-3">
            <LengthEntryField
              label="Diameter"
              unit={unit}
              value={draft.diameter}
              onChange={(diameter) => change({ ...draft, diameter })}
              lit={lit === 'diameter'}
              onFocus={() => setLit('diameter')}
              wrong={wrong('bars.diameter')}
              {...takeKnown({
                label: 'Take the diameter of the bar in the work area',
                length: partSizes(setup).diameter,
                unit,
                value: draft.diameter,
                onTake: (diameter) => change({ ...draft, diameter }),
              })}
            />
            <LengthEntryField
              label="Bar diameter varies by, in all"
              unit={unit}
              value={draft.spread}
              onChange={(text) => change({ ...draft, spread: text })}
              hint="Largest less smallest."
              lit={lit === 'spread'}
              onFocus={() => setLit('spread')}
              wrong={wrong('bars.spread')}
            />
          </div>
        ) : (
          <ListField
            label="Diameters measured"
            value={draft.diameters}
            onChange={(diameters) => change({ ...draft, diameters })}
            hint="Ten bars, with spaces between."
            understood={grip ? `${grip.range.measured} bars` : undefined}
            wrong={wrong('bars.diameters')}
            rows={2}
          />
        )}
        <LengthEntryField
          label={draft.operation === 'first' ? 'Stock left to face' : 'Length tolerance, whole'}
          unit={unit}
          value={draft.allowed}
          onChange={(allowed) => change({ ...draft, allowed })}
          lit={lit === 'allowed'}
          onFocus={() => setLit('allowed')}
          wrong={wrong('allowed')}
        />
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!live.entry || stopped}
          className="mt-1 min-h-12 w-full text-lg"
        >
          Record collet and stop
        </Button>
        <MissingLine problems={problems} />
        <GoesStale entry={stopped ? undefined : live.entry} />
      </form>

      <div className="flex min-h-80 flex-col gap-1">
        <Example value={collet && draft.stop ? undefined : 'collet and stop are still to be chosen'}>
          <ColletDrawing
            sketch={colletSketch(drawn.collet, drawn.stop, grip?.range ?? SAMPLE_BARS, share)}
            {...(draft.stop ? { stop: draft.stop } : {})}
            unit={unit}
            known={grip !== undefined}
            lit={lit}
          />
        </Example>
        <ShareSlider
          label="Bar that is drawn"
          value={share}
          onChange={setShare}
          ends={['smallest bar', 'largest bar']}
        />
      </div>

      <div className="space-y-2 md:col-span-2 xl:col-span-1">
        {collet && <RatioPair collet={collet} measured={live.measured} />}
        {spread ? (
          <AnswerPanel
            title={draft.operation === 'first' ? 'Leave at least to face' : 'The length will wander by'}
            answer={draft.operation === 'first' ? spread.toFace : spread}
            findings={same ? recorded.findings : spread.findings}
            fact={same ? recorded : undefined}
          />
        ) : (
          <>
            <Findings findings={size} />
            <p className="text-ink-soft">How far the length wanders appears here as you type.</p>
          </>
        )}
      </div>
    </div>
  )
}
