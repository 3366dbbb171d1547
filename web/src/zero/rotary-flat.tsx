import { formatAngle } from '@dogleg/core/angle'
import { verdictOf, worstFirst } from '@dogleg/core/fact'
import type { RotaryAxis } from '@dogleg/core/machine'
import { pickupSettings, understoodPosition } from '@dogleg/core/pickup'
import {
  type FlatDraft,
  type FlatField,
  type FlatReading,
  flatDraft,
  flatDraftOf,
  judgeFlat,
  measureFlat,
  readFlatDraft,
  startingFlat,
  wasTurned,
} from '@dogleg/core/rotary'
import { asEarlierFlat, type OffsetState, rotaryNotHomed } from '@dogleg/core/setup'
import { type ReactNode, useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { PositionEntry, TakeAll, TurnedEntry } from '../positions/position-entry.tsx'
import { Judged, Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { fieldsOf } from './fields-of.ts'
import { FlatDrawing } from './rotary-drawing.tsx'

const DEVICES = [
  ['probe', 'probe'],
  ['sensor', '3D sensor'],
  ['indicator', 'indicator at zero'],
  ['edge-finder', 'edge finder'],
] as const
const FACES = [
  ['up', 'up'],
  ['front', 'to the front'],
  ['back', 'to the back'],
] as const

interface RotaryFlatProps {
  offset: OffsetState
  rotary: RotaryAxis
  /** What else the panel offers, over the form. */
  children: ReactNode
}

/** The angle of the rotary from a flat: two touches across it, or an indicator swept along it. */
export function RotaryFlat({ offset, rotary, children }: RotaryFlatProps) {
  const { setup, machineEntries, ready } = useOpenSetup()
  const { unit, machine, centre } = setup
  const { word } = rotary
  const fact = offset.rotary
  const [draft, change, clear] = useKept<FlatDraft>(`${setup.id}.${offset.name}.flat`, flatDraft, () =>
    startingFlat(machine.probe ? 'probe' : 'sensor'),
  )
  const [lit, setLit] = useState<FlatField>()
  const [turnedBetween, setTurnedBetween] = useState<string>()
  const signed = useSigned()
  const notHomed = rotaryNotHomed(ready, machineEntries, machine)
  const judge = (reading: FlatReading) => {
    const flat = measureFlat(reading, rotary, pickupSettings(machine, unit))
    const findings = judgeFlat(reading, flat, rotary, {
      machine,
      unit,
      centreY: centre?.freshness.state === 'fresh' ? centre.centre.Y?.value : undefined,
      last: fact && asEarlierFlat(fact.flat, fact.freshness.state === 'fresh'),
    })
    return { flat, findings: worstFirst([...findings, ...notHomed]) }
  }
  const read = useMemo(() => readFlatDraft(draft, unit), [draft, unit])
  const live = read.ok ? judge(read.value) : undefined
  const problems = read.ok ? {} : read.problems
  const stopped = live !== undefined && verdictOf(live.findings) === 'stop'
  const entry = read.ok
    ? {
        kind: 'flat' as const,
        offset: offset.name,
        reading: read.value,
        machine: { id: machine.id, version: machine.version },
      }
    : undefined
  const submit = () => {
    if (!entry || stopped) return
    signed(() => {
      record(setup.id, entry)
      clear(startingFlat(draft.device))
    })
  }
  const set = (part: Partial<FlatDraft>) => change({ ...draft, ...part })
  const field = fieldsOf<FlatDraft, FlatField>({
    draft,
    change,
    problems,
    lit,
    onLit: (name) => setLit(name as FlatField),
  })
  const common = (...of: Parameters<typeof field>) => ({ ...field(...of), narrow: true })
  const position = (name: 'y1' | 'z1' | 'y2' | 'z2') => {
    const axis = name.startsWith('y') ? 'Y' : 'Z'
    return (
      <PositionEntry
        {...common(name, `${axis} of touch ${name.slice(1)}`, 'Machine position.')}
        axis={axis}
        unit={unit}
        understood={understoodPosition(draft[name], unit)}
        bare
      />
    )
  }
  const touch = (n: 1 | 2) => (
    <div className="flex items-start gap-2">
      <div className="grid min-w-0 flex-1 grid-cols-2 gap-x-2">
        {position(`y${n}`)}
        {position(`z${n}`)}
      </div>
      <div className="pt-6.5">
        <TakeAll
          unit={unit}
          what={`Y and Z of touch ${n}`}
          onTake={({ Y = '', Z = '', rotary: now }) => {
            const first = draft.turned.trim() === '' || n === 1
            const moved = !first && now && wasTurned(draft.turned, now)
            setTurnedBetween(
              moved
                ? `${word} stood at ${draft.turned} at the first touch, and at ${now} now: touch both without turning it.`
                : undefined,
            )
            set({
              [`y${n}`]: Y,
              [`z${n}`]: Z,
              ...(first && now ? { turned: now } : {}),
            })
          }}
        />
      </div>
    </div>
  )
  const shown = live ?? (fact && { flat: fact.flat, findings: worstFirst([...fact.findings, ...notHomed]) })
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[21rem_1fr] xl:grid-cols-[21rem_1fr_24rem]">
      <form
        aria-label={`${word} of ${offset.name} from a flat`}
        className="space-y-1"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        {children}
        <Choice
          label="How"
          quiet
          value={draft.method}
          onChange={(method) => set({ method })}
          options={[
            { value: 'touches', label: 'two touches' },
            { value: 'level', label: 'indicator swept' },
          ]}
        />
        {draft.method === 'touches' && (
          <div className="grid grid-cols-2 gap-x-3">
            <PickOne
              label="Touched with"
              value={draft.device}
              onChange={(device) => set({ device: device as FlatDraft['device'] })}
              options={DEVICES.filter(([device]) => draft.faces !== 'up' || device !== 'edge-finder')}
            />
            <PickOne
              label="The flat faces"
              value={draft.faces}
              onChange={(faces) =>
                set({
                  faces: faces as FlatDraft['faces'],
                  ...(faces === 'up' && draft.device === 'edge-finder' ? { device: 'sensor' } : {}),
                })
              }
              options={FACES}
            />
          </div>
        )}
        <div className="grid grid-cols-2 gap-x-3">
          <TurnedEntry {...common('turned', `${word} shows`, 'While it is touched.')} word={word} />
          <TextEntry
            {...common('drawing', `${word} in the program`, 'As the flat faces so.')}
            suffix="°"
            maxLength={12}
          />
        </div>
        {draft.method === 'touches' ? (
          <>
            {touch(1)}
            {touch(2)}
            {turnedBetween && (
              <p role="alert" className="text-sm font-semibold">
                {turnedBetween}
              </p>
            )}
          </>
        ) : (
          <div className="grid grid-cols-2 gap-x-3">
            <LengthEntryField {...common('front', 'Dial at the front', 'Pushed in is plus.')} unit={unit} />
            <LengthEntryField {...common('back', 'Dial at the back', 'The same: it is level.')} unit={unit} />
            <LengthEntryField {...common('span', 'Y was moved by', 'From one to the other.')} unit={unit} />
          </div>
        )}
        <Button
          type="submit"
          look="primary"
          data-record
          disabled={!entry || stopped}
          className="min-h-14 w-full text-lg"
        >
          Record {word} of {offset.name}
        </Button>
        <MissingLine problems={problems} stopped={stopped} />
        {entry && !stopped && <GoesStale entry={entry} besides={`${offset.name} ${word}`} />}
      </form>
      <div className="min-h-80">
        <FlatDrawing
          draft={live || !fact ? draft : flatDraftOf(fact.entry.reading)}
          flat={shown?.flat}
          rotary={rotary}
          lit={lit}
        />
      </div>
      <section aria-label={`${word} of ${offset.name}`} className="space-y-3 md:col-span-2 xl:col-span-1">
        {shown ? (
          <>
            <div className={!live && fact?.freshness.state === 'stale' ? 'hatched -mx-2 px-2' : ''}>
              <h2 className="font-semibold">
                {word} of {offset.name}, {live ? 'not recorded yet' : 'as recorded'}
              </h2>
              <p className="digits text-5xl leading-tight tracking-tight" data-testid="answer">
                {formatAngle(shown.flat.value)}
                <span className="ml-2 text-xl text-ink-soft">deg</span>
              </p>
              <p className="text-xl">
                <span className="digits">±{formatAngle(shown.flat.doubt.value)}</span>
                <span className="ml-2 text-base text-ink-soft">how far off it may be</span>
              </p>
            </div>
            <Judged findings={shown.findings} {...(live ? {} : { fact })} />
            <Working answer={shown.flat} />
          </>
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">The rotary’s own zero</h2>
            <p>
              Turn the part until a flat looks level, and touch it at two places across, from the same side:
              the tip’s size does not matter.
            </p>
            <p>
              Or sweep an indicator along Y and turn until it reads the same at both ends. Come to the angle
              from the same side as the program will.
            </p>
          </div>
        )}
      </section>
    </div>
  )
}
