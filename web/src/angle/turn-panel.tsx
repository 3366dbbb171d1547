import { angleDraftOf, angleSketch, formatAngle } from '@dogleg/core/angle'
import { rotationFor, turningRests, whoTurns } from '@dogleg/core/prepare'
import { readLength } from '@dogleg/core/quantity'
import type { OffsetState } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Taken, TakeProgram, WholeProgram } from '../program/take-program.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField } from '../ui/entry-field.tsx'
import { Findings } from '../ui/verdict.tsx'
import { AngleDrawing } from './angle-drawing.tsx'

const placesTyped = z.object({ aboutX: z.string(), aboutY: z.string(), lookX: z.string(), lookY: z.string() })
type Places = z.infer<typeof placesTyped>

/** Turning on and off for this control, by value or by the probe's variable, about part zero or another point. */
export function TurnPanel({ offset }: { offset: OffsetState }) {
  const { setup } = useOpenSetup()
  const { unit, profile } = setup
  const reach = offset.angle?.entry.reach
  const [by, setBy] = useState<'value' | 'variable'>('value')
  const [places, setPlaces] = useKept<Places>(`${setup.id}.${offset.name}.turn`, placesTyped, () => ({
    aboutX: '0',
    aboutY: '0',
    lookX: reach?.text ?? '',
    lookY: '0',
  }))
  const read = (field: keyof typeof places) => {
    const entry = readLength(places[field], unit)
    return entry.ok ? entry.value : undefined
  }
  const [aboutX, aboutY, lookX, lookY] = [read('aboutX'), read('aboutY'), read('lookX'), read('lookY')]
  const understood =
    aboutX !== undefined && aboutY !== undefined && lookX !== undefined && lookY !== undefined
  const written = useMemo(
    () =>
      aboutX !== undefined && aboutY !== undefined && lookX !== undefined && lookY !== undefined
        ? rotationFor(setup, offset, {
            about: { x: aboutX, y: aboutY },
            look: { x: lookX, y: lookY },
            byVariable: by === 'variable',
          })
        : undefined,
    [setup, offset, aboutX, aboutY, lookX, lookY, by],
  )
  const field = (name: keyof typeof places, label: string, hint: string) => (
    <LengthEntryField
      label={label}
      unit={unit}
      value={places[name]}
      onChange={(text) => setPlaces({ ...places, [name]: text })}
      hint={hint}
    />
  )
  const rests = turningRests(setup, offset)
  const whose = whoTurns(setup, offset)
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[20rem_1fr] xl:grid-cols-[20rem_1fr_25rem]">
      <div className="space-y-2">
        {offset.angle && (
          <p className="text-lg">
            {offset.name} lies at{' '}
            <span className="digits font-semibold">{formatAngle(offset.angle.angle.value)}</span> degrees.
          </p>
        )}
        {whose && <p className="font-semibold">{whose}</p>}
        <Choice
          label="Turn by"
          value={by}
          onChange={setBy}
          options={[
            { value: 'value', label: 'the value' },
            {
              value: 'variable',
              label: profile.probing ? `variable #${profile.probing.results.angle}` : 'a variable',
            },
          ]}
        />
        <div className="grid grid-cols-2 gap-x-3">
          {field('aboutX', 'About X', '0 for part zero.')}
          {field('aboutY', 'About Y', '0 for part zero.')}
          {field('lookX', 'Far corner X', 'On the drawing.')}
          {field('lookY', 'Far corner Y', 'On the drawing.')}
        </div>
        {!understood && <p className="font-semibold">Type all four places of the drawing.</p>}
        <p>
          A turning turns moves in X and Y. It does not turn moves in machine positions, home returns or a
          rotary axis, and it cannot tilt the part. Look at clamps and jaws: the path comes nearer to some of
          them.
        </p>
        {profile.rotation?.note && <p>On this control: {profile.rotation.note}</p>}
      </div>
      <section aria-label="Turning" className="min-w-0 space-y-3">
        {written && <Findings findings={written.findings} />}
        {written?.ok && (
          <>
            <div className="space-y-3">
              <p>
                After the line that calls {offset.name}:
                <span className="digits mt-1 block rounded-sm border border-rule bg-white/50 px-3 py-2 text-xl font-semibold">
                  {written.on}
                </span>
              </p>
              <p>
                Before the program ends, and before a tool change:
                <span className="digits mt-1 block rounded-sm border border-rule bg-white/50 px-3 py-2 text-xl font-semibold">
                  {written.off}
                </span>
              </p>
            </div>
            <div className="max-w-lg space-y-2">
              <p className="font-semibold">
                A program that looks at it: over the point, over the far corner, spindle at the top
              </p>
              <TakeProgram setup={setup} offset={offset} what="angle" rests={rests} text={written.text} />
              <Taken program={offset.further.angle} text={written.text} />
            </div>
            <WholeProgram text={written.text} />
          </>
        )}
        {written && !written.ok && (
          <p className="text-xl font-semibold">
            No turning is written for {offset.name}
            {offset.angle && !profile.rotation
              ? `: turn the moves of the program itself by ${formatAngle(offset.angle.angle.value)} degrees.`
              : '.'}
          </p>
        )}
      </section>
      {offset.angle && (
        <div className="md:col-span-2 xl:col-span-1">
          <AngleDrawing
            sketch={angleSketch(
              angleDraftOf(offset.angle.entry.reading, offset.angle.entry),
              offset.angle.angle,
              unit,
            )}
            angle={offset.angle.angle.value}
            unit={unit}
            lit={undefined}
          />
        </div>
      )}
    </div>
  )
}
