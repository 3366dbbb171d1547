import { verdictOf, worstFirst } from '@dogleg/core/fact'
import type { RotaryAxis } from '@dogleg/core/machine'
import { pickupSettings, understoodPosition } from '@dogleg/core/pickup'
import { formatLength, formatWithUnit, type LengthUnit, readLength, unitSymbol } from '@dogleg/core/quantity'
import {
  type Centre,
  type CentreDraft,
  type CentreField,
  centreDraft,
  centreDraftOf,
  judgeCentre,
  measureCentre,
  readCentreDraft,
  startingCentre,
} from '@dogleg/core/rotary'
import { asEarlierCentre, lineUnderTop, type OffsetState, onCentreLine } from '@dogleg/core/setup'
import { type ReactNode, useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { PositionEntry, TurnedEntry } from '../positions/position-entry.tsx'
import { Judged, Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { takeKnown } from '../ui/known-key.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { fieldsOf } from './fields-of.ts'
import { CentreDrawing } from './rotary-drawing.tsx'

const DEVICES = [
  ['probe', 'probe'],
  ['sensor', '3D sensor'],
  ['edge-finder', 'edge finder'],
  ['indicator', 'indicator at zero'],
] as const

interface RotaryCentreProps {
  offset: OffsetState
  rotary: RotaryAxis
  /** What else the panel offers, over the form. */
  children: ReactNode
}

/** What was touched is done; with what, and how large the part is, stays. */
function untouched(draft: CentreDraft, unit: LengthUnit): CentreDraft {
  const { device, diameter, round, across, acrossWithin, tool, toolLength, block } = draft
  return {
    ...startingCentre(device, unit),
    diameter,
    round,
    across,
    acrossWithin,
    tool,
    toolLength,
    block,
  }
}

/** One axis of the centre line, large. */
function AxisLine({ centre, axis }: { centre: Centre; axis: 'Y' | 'Z' }) {
  const of = centre[axis]
  if (!of) return null
  return (
    <p className="flex items-baseline gap-3">
      <span className="text-2xl font-semibold">{axis}</span>
      <span className="digits text-4xl leading-tight tracking-tight" data-testid={`centre-${axis}`}>
        {formatLength(of.value, of.unit)}
      </span>
      <span className="digits text-lg">±{formatLength(of.doubt.value, of.unit)}</span>
    </p>
  )
}

/** Puts Y and Z of the offset on the centre line that is recorded. */
function PutOnLine({ offset }: { offset: OffsetState }) {
  const { setup } = useOpenSetup()
  const { unit, machine, centre } = setup
  const [typed, setTyped] = useState('0')
  const signed = useSigned()
  const entries = useMemo(() => {
    const read = readLength(typed, unit)
    if (!centre || !read.ok) return []
    return onCentreLine(centre, { text: read.text, value: read.value, unit }).map(({ reading, rests }) => ({
      kind: 'pickup' as const,
      offset: offset.name,
      reading,
      rests,
      machine: { id: machine.id, version: machine.version },
    }))
  }, [centre, typed, unit, offset.name, machine])
  if (!centre || centre.freshness.state === 'stale' || centre.verdict === 'stop') return null
  const axes = entries.map(({ reading }) => reading.axis).join(' and ')
  const there = entries.every(({ reading, rests }) => {
    const stands = offset.axes[reading.axis]
    return (
      stands?.freshness.state === 'fresh' &&
      stands.entry.rests?.[0] === rests[0] &&
      stands.entry.reading.method === 'centre-line' &&
      stands.entry.reading.drawingPosition.value === reading.drawingPosition.value
    )
  })
  return (
    <form
      aria-label={`${offset.name} on the centre line`}
      className="space-y-1 border-t border-rule pt-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (entries.length === 0 || there) return
        signed(() => {
          for (const entry of entries) record(setup.id, entry)
        })
      }}
    >
      {centre.centre.Z && (
        <LengthEntryField
          label="The centre line on the drawing, Z"
          hint="0 at the centre; minus the radius where zero is on top."
          value={typed}
          onChange={setTyped}
          unit={unit}
          {...takeKnown({
            label: 'Take zero on top of the part',
            length: lineUnderTop(centre, unit),
            unit,
            value: typed === '0' ? '' : typed,
            onTake: setTyped,
          })}
        />
      )}
      <Button type="submit" data-record disabled={entries.length === 0 || there} className="w-full">
        {there ? `${axes} of ${offset.name} lie on it` : `Put ${axes || 'Y and Z'} of ${offset.name} on it`}
      </Button>
      {!there && entries.length > 0 && <GoesStale entry={entries} />}
    </form>
  )
}

/** The centre line of the rotary: front, back and top of what it holds, and the same by half a turn. */
export function RotaryCentre({ offset, rotary, children }: RotaryCentreProps) {
  const { setup, lengths } = useOpenSetup()
  const { unit, machine, centre: fact } = setup
  const { word } = rotary
  const { probe } = machine
  const [draft, change, clear] = useKept<CentreDraft>(`${setup.id}.centre-line`, centreDraft, () =>
    fact
      ? untouched(centreDraftOf(fact.entry.reading), unit)
      : startingCentre(
          probe ? 'probe' : 'edge-finder',
          unit,
          probe && probe.stylus > 0 && machine.unit === unit
            ? { tool: String(probe.tool), diameter: formatLength(probe.stylus, unit) }
            : undefined,
        ),
  )
  const [lit, setLit] = useState<CentreField>()
  const signed = useSigned()
  const live = useMemo(() => {
    const read = readCentreDraft(draft, unit)
    if (!read.ok) return read
    const centre = measureCentre(read.value, pickupSettings(machine, unit))
    const last = fact && asEarlierCentre(fact.centre, fact.freshness.state === 'fresh')
    return { ...read, centre, findings: worstFirst(judgeCentre(read.value, centre, { machine, unit, last })) }
  }, [draft, unit, machine, fact])
  const problems = live.ok ? {} : live.problems
  const stopped = live.ok && verdictOf(live.findings) === 'stop'
  const entry = live.ok
    ? {
        kind: 'centre-line' as const,
        reading: live.value,
        machine: { id: machine.id, version: machine.version },
      }
    : undefined
  const submit = () => {
    if (!entry || stopped) return
    signed(() => {
      record(setup.id, entry)
      clear(untouched(draft, unit))
    })
  }
  const set = (part: Partial<CentreDraft>) => change({ ...draft, ...part })
  const field = fieldsOf<CentreDraft, CentreField>({
    draft,
    change,
    problems,
    lit,
    onLit: (name) => setLit(name as CentreField),
  })
  const common = (...of: Parameters<typeof field>) => ({ ...field(...of), narrow: true })
  const position = (name: CentreField, label: string, axis: 'Y' | 'Z') => (
    <PositionEntry
      key={name}
      {...common(name, label, '')}
      axis={axis}
      unit={unit}
      understood={understoodPosition(draft[name], unit)}
    />
  )
  const known = lengths.find(
    ({ tool, freshness }) => String(tool) === draft.tool && freshness.state === 'fresh',
  )
  const shown = live.ok ? live : fact && { centre: fact.centre, findings: fact.findings }
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 xl:grid-cols-[42rem_1fr]">
      <form
        aria-label="The rotary's centre line"
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <div className="max-w-80">{children}</div>
        <div className="grid grid-cols-2 gap-x-3 sm:grid-cols-4">
          <PickOne
            label="Touched with"
            value={draft.device}
            onChange={(device) => set({ device: device as CentreDraft['device'] })}
            options={DEVICES}
          />
          {draft.device === 'probe' || draft.device === 'edge-finder' ? (
            <LengthEntryField {...common('diameter', 'Tip, diameter', 'Of ball or tip.')} unit={unit} />
          ) : (
            <p className="self-center text-sm text-ink-soft">Its tip does not count.</p>
          )}
          <LengthEntryField {...common('across', 'Part measures', 'Through its middle.')} unit={unit} />
          <LengthEntryField
            {...common('acrossWithin', 'Known within', 'By how it was measured.')}
            unit={unit}
          />
          <PickOne
            label="The part is"
            value={draft.round ? 'round' : 'flat'}
            onChange={(round) => set({ round: round === 'round' })}
            options={[
              ['round', 'round'],
              ['flat', 'with flats'],
            ]}
          />
          <TextEntry {...common('tool', 'Top: tool', 'Such as T20.')} maxLength={10} />
          <LengthEntryField
            {...common('toolLength', 'Its length', 'As in the tool table.')}
            unit={unit}
            {...takeKnown({
              label: `Take the measured length of T${draft.tool}`,
              length: known?.length.value,
              unit,
              value: draft.toolLength,
              onTake: (toolLength) => set({ toolLength }),
            })}
          />
          <LengthEntryField {...common('block', 'Block on top', '0 for none.')} unit={unit} />
        </div>
        {(
          [
            [
              'As it stands',
              'Front and back half way up, the top over the middle.',
              'turned',
              'front',
              'back',
              'top',
            ],
            [
              'Turned by half',
              'The same at 180° from there.',
              'halfTurned',
              'halfFront',
              'halfBack',
              'halfTop',
            ],
          ] as const
        ).map(([title, says, turned, front, back, top]) => (
          <fieldset key={title}>
            <legend>
              <span className="font-semibold">{title}.</span>{' '}
              <span className="text-sm text-ink-soft">{says}</span>
            </legend>
            <div className="grid grid-cols-2 gap-x-3 sm:grid-cols-4">
              <TurnedEntry {...common(turned, `${word} shows`, '')} word={word} />
              {position(front, 'Y at the front', 'Y')}
              {position(back, 'Y at the back', 'Y')}
              {position(top, 'Z on top', 'Z')}
            </div>
          </fieldset>
        ))}
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!entry || stopped}
          className="min-h-14 w-full text-lg"
        >
          Record the centre line
        </Button>
        <MissingLine problems={problems} stopped={stopped} />
        {entry && !stopped && <GoesStale entry={entry} besides="The rotary’s centre line" />}
      </form>
      <div className="grid content-start gap-4 sm:grid-cols-2 xl:grid-cols-1">
        <CentreDrawing
          draft={live.ok || !fact ? draft : centreDraftOf(fact.entry.reading)}
          centre={shown?.centre}
          unit={unit}
          lit={lit}
        />
        <section aria-label="The centre line" className="space-y-2">
          {shown ? (
            <>
              <div className={!live.ok && fact?.freshness.state === 'stale' ? 'hatched -mx-2 px-2' : ''}>
                <h2 className="font-semibold">
                  The centre line, {live.ok ? 'not recorded yet' : 'as recorded'}, {unitSymbol(unit)}
                </h2>
                <AxisLine centre={shown.centre} axis="Y" />
                <AxisLine centre={shown.centre} axis="Z" />
                {shown.centre.runsOut && (
                  <p className="text-lg">
                    The part runs out {shown.centre.runsOut.atLeast ? 'at least ' : ''}
                    <span className="digits font-semibold" data-testid="runs-out">
                      {formatWithUnit(shown.centre.runsOut.value, unit)}
                    </span>{' '}
                    <span className="digits">±{formatLength(shown.centre.runsOut.doubt, unit)}</span>
                  </p>
                )}
              </div>
              <Judged findings={shown.findings} {...(live.ok ? {} : { fact })} />
              {!live.ok && <PutOnLine offset={offset} />}
              <details className="border-t border-rule">
                <summary className="min-h-11 content-center font-semibold">Working</summary>
                {(['Y', 'Z'] as const).map((axis) => {
                  const of = shown.centre[axis]
                  return of && <Working key={axis} answer={of} title={axis} />
                })}
              </details>
            </>
          ) : (
            <div className="space-y-2 text-ink-soft">
              <h2 className="font-semibold text-ink">The rotary’s centre line</h2>
              <p>
                Touch what it holds at the front and the back, half way up, and on top; turn it by half, and
                touch the same again. The middle of the two is the axis, however the part runs out.
              </p>
            </div>
          )}
        </section>
      </div>
    </div>
  )
}
