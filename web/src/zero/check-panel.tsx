import { checkHindrance, isLoaded, restsOf, type StopHeight, stopHeight } from '@dogleg/core/prepare'
import { formatLength, formatWithUnit, unitSymbol } from '@dogleg/core/quantity'
import type { OffsetState, Setup } from '@dogleg/core/setup'
import { CircleCheckBig, Hourglass, OctagonX } from 'lucide-react'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { problemsOf, record } from '../log/record.ts'
import { useSettled } from '../log/settled.ts'
import { Button, ButtonLink } from '../ui/button.tsx'
import { LengthEntryField, TextEntry } from '../ui/entry-field.tsx'
import { When } from '../ui/when.tsx'
import { Repeats } from './repeats.tsx'
import { TravelDrawing } from './travel-drawing.tsx'

/** Measured lengths that are offered as that of the pointed tool. */
const MOST_OFFERED = 4

/** The look with a pointed tool: how to do it, and what was seen, as an entry with a result. */
export function CheckPanel({ setup, offset }: { setup: Setup; offset: OffsetState }) {
  const [length, setLength] = useState('')
  const [height, setHeight] = useState(setup.unit === 'inch' ? '.100' : '2')
  const { unit, machine } = setup
  const { lengths } = useOpenSetup()
  const measured = lengths.filter(({ freshness }) => freshness.state === 'fresh').slice(-MOST_OFFERED)
  const onLathe = machine.kind === 'lathe'
  const stands = stopHeight(offset, length, height, unit)
  const against = checkHindrance(offset)
  const { check } = offset
  const loaded = isLoaded(offset)

  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[19rem_1fr] xl:grid-cols-[21rem_1fr_22rem]">
      <div className="space-y-3">
        <h2 className="text-xl font-semibold">{onLathe ? 'Look at the bar' : 'Look with a pointed tool'}</h2>
        {onLathe ? (
          <ol className="list-decimal space-y-1 pl-5">
            <li>Key the geometry of {offset.name} in, and compare it with what stands here.</li>
            <li>Call the tool, spindle stopped, low rapid override, single block, a hand on feed hold.</li>
            <li>
              Bring it to X of the bar and Z a feeler off the face, and look: the feeler must just slide.
            </li>
          </ol>
        ) : (
          <ol className="list-decimal space-y-1 pl-5">
            <li>Pointed tool in the spindle, spindle stopped, Z at the top.</li>
            <li>
              <span className="digits">G90 {offset.name} G0 X0 Y0</span>, single block, low rapid override, a
              hand on feed hold. The program does this.
            </li>
            <li>Jog down by hand, stop at the height below, and look from both sides.</li>
          </ol>
        )}
        {!onLathe && !against && offset.axes.Z && (
          <>
            <div className="grid grid-cols-2 gap-x-3">
              <LengthEntryField
                label="Length of the tool"
                unit={unit}
                value={length}
                onChange={setLength}
                hint="As in the tool table."
              />
              <LengthEntryField
                label="Point above zero"
                unit={unit}
                value={height}
                onChange={setHeight}
                hint="A block of this height fits."
              />
            </div>
            {length.trim() === '' && measured.length > 0 && (
              <p className="flex flex-wrap items-center gap-2">
                Measured:
                {measured.map(({ tool, length: of }) => (
                  <Button
                    key={tool}
                    className="px-2"
                    aria-label={`The tool is T${tool}, ${formatLength(of.value, unit)} long`}
                    onClick={() => setLength(formatLength(of.value, unit))}
                  >
                    T{tool} <span className="digits">{formatLength(of.value, unit)}</span>
                  </Button>
                ))}
              </p>
            )}
            <p className="text-lg" data-testid="stop-at">
              {stands ? (
                <>
                  Stop at machine Z{' '}
                  <span className="digits font-semibold">{formatLength(stands.machineZ, unit)}</span>: a block
                  of {formatWithUnit(stands.height.value, unit)} must just slide under the point.
                </>
              ) : (
                <span className="text-base text-ink-soft">Type the length to know where to stop Z.</span>
              )}
            </p>
          </>
        )}
        {against && <p className="font-semibold">{against}</p>}
      </div>
      <div className="min-h-80">
        {onLathe ? (
          <LatheZero setup={setup} offset={offset} />
        ) : (
          <TravelDrawing setup={setup} offset={offset} />
        )}
      </div>
      <div className="space-y-3 md:col-span-2 xl:col-span-1">
        {!against && <Seen key={`${loaded}`} setup={setup} offset={offset} stands={stands} />}
        <h2 className="font-semibold">Check of {offset.name}</h2>
        {!check && <p className="text-ink-soft">Nobody has looked yet.</p>}
        {check && (
          <>
            {check.freshness.state === 'stale' ? (
              <p className="hatched flex items-center gap-2 px-2 text-2xl font-semibold">
                <Hourglass aria-hidden /> Stale
              </p>
            ) : check.entry.result === 'agrees' ? (
              <p className="flex items-center gap-2 text-2xl font-semibold text-verified">
                <CircleCheckBig aria-hidden />{' '}
                {onLathe ? 'It stands where it should' : 'It stands over part zero'}
              </p>
            ) : (
              <p className="flex items-center gap-2 text-2xl font-semibold text-hazard">
                <OctagonX aria-hidden /> It stands off
              </p>
            )}
            {check.freshness.state === 'stale' && (
              <p>
                It was {check.freshness.cause.says} (<When at={check.freshness.cause.at} />
                ).
              </p>
            )}
            {check.entry.note && <p>{check.entry.note}</p>}
            {check.entry.stood && (
              <p>
                Seen with the point{' '}
                {formatWithUnit(check.entry.stood.height.value, check.entry.stood.height.unit)} above part
                zero.
              </p>
            )}
            <p className="text-ink-soft">
              {check.entry.by}, <When at={check.entry.at} />
            </p>
          </>
        )}
        <Repeats offset={offset} />
        {!against && !onLathe && loaded && (
          <ButtonLink to={`../program?offset=${encodeURIComponent(offset.name)}`} relative="path">
            The program that goes there
          </ButtonLink>
        )}
      </div>
    </div>
  )
}

interface SeenProps {
  setup: Setup
  offset: OffsetState
  stands: StopHeight | undefined
}

/** What was seen: asked from when the program that goes there was taken, or somebody says that it was gone there by hand. */
function Seen({ setup, offset, stands }: SeenProps) {
  const [byHand, setByHand] = useState(false)
  const { name, program } = offset
  if (isLoaded(offset)) return <WhatWasSeen setup={setup} offset={offset} stands={stands} byHand={false} />
  if (byHand) return <WhatWasSeen setup={setup} offset={offset} stands={stands} byHand />
  return (
    <div className="space-y-2">
      <p className="text-lg font-semibold">
        {program
          ? `What the control has for ${name} is not what was found.`
          : `${name} has not been loaded yet.`}
      </p>
      <ButtonLink to={`../program?offset=${encodeURIComponent(name)}`} relative="path" className="w-full">
        Take the program that goes there
      </ButtonLink>
      <Button className="w-full" onClick={() => setByHand(true)}>
        It is keyed in, I went there by hand
      </Button>
    </div>
  )
}

/** The keys stand away from those that record a reading, and do not count for a hand that tapped twice. */
function WhatWasSeen({ setup, offset, stands, byHand }: SeenProps & { byHand: boolean }) {
  const [note, setNote] = useState('')
  const [wrong, setWrong] = useState<string>()
  const signed = useSigned()
  const settled = useSettled()
  const onLathe = setup.machine.kind === 'lathe'
  const tell = (result: 'agrees' | 'off') => {
    const entry = {
      kind: 'checked' as const,
      offset: offset.name,
      rests: restsOf(offset, 'checked', setup.part),
      result,
      ...(stands ? { stood: { toolLength: stands.toolLength, height: stands.height } } : {}),
      ...(byHand ? { byHand: true as const } : {}),
      note: note.trim(),
    }
    const problems = problemsOf(setup.id, entry)
    setWrong(problems.note)
    if (problems.note) return
    signed(() => {
      record(setup.id, entry)
      setNote('')
    })
  }
  return (
    <div className="space-y-2">
      <TextEntry
        words
        label="What was seen"
        value={note}
        onChange={setNote}
        maxLength={300}
        wrong={wrong}
        hint="Needed when it stands off: how far, which way."
      />
      <div className="grid grid-cols-2 gap-2">
        <Button className="min-h-14" disabled={!settled} onClick={() => tell('off')}>
          It stands off
        </Button>
        <Button look="primary" className="min-h-14" disabled={!settled} onClick={() => tell('agrees')}>
          {onLathe ? 'It stands where it should' : 'It stands over part zero'}
        </Button>
      </div>
    </div>
  )
}

/** The geometry that has been taken for a lathe tool, to be keyed in. */
function LatheZero({ setup, offset }: { setup: Setup; offset: OffsetState }) {
  const { unit, shift } = setup
  return (
    <table className="w-full">
      <caption className="pb-1 text-left font-semibold">Geometry of {offset.name}, to be keyed in</caption>
      <tbody>
        {offset.wants.map((axis) => {
          const fact = offset.axes[axis]
          return (
            <tr key={axis} className="border-t border-rule">
              <th scope="row" className="py-1 text-left text-xl">
                {axis}
              </th>
              <td className="digits py-1 text-right text-3xl">
                {fact ? formatLength(fact.value, unit) : <span className="text-lg">not taken</span>}
              </td>
              <td className="w-40 pl-2 text-ink-soft">
                {fact && `${unitSymbol(unit)}${axis === 'X' ? ', in diameters' : ''}`}
              </td>
            </tr>
          )
        })}
        {shift && (
          <tr className={`border-t border-rule ${shift.freshness.state === 'stale' ? 'hatched' : ''}`}>
            <th scope="row" className="py-1 text-left">
              Work shift, Z
            </th>
            <td className="digits py-1 text-right text-3xl">{formatLength(shift.shift.value, unit)}</td>
            <td className="w-40 pl-2 text-ink-soft">
              {shift.freshness.state === 'stale' ? 'stale' : unitSymbol(unit)}
            </td>
          </tr>
        )}
      </tbody>
    </table>
  )
}
