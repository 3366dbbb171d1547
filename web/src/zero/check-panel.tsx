import { checkHindrance, type OffsetState, restsOf, type Setup } from '@dogleg/core/setup'
import { CircleCheckBig, Hourglass, OctagonX } from 'lucide-react'
import { useState } from 'react'
import { useSigned } from '../log/operator-gate.tsx'
import { problemsOf, record } from '../log/use-setup.ts'
import { Button, ButtonLink } from '../ui/button.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { When } from '../ui/when.tsx'
import { TravelDrawing } from './travel-drawing.tsx'

/** The look with a pointed tool: how to do it, and what was seen, as an entry with a result. */
export function CheckPanel({ setup, offset }: { setup: Setup; offset: OffsetState }) {
  const [note, setNote] = useState('')
  const [wrong, setWrong] = useState<string>()
  const signed = useSigned()
  const against = checkHindrance(offset)
  const { check } = offset

  const tell = (result: 'agrees' | 'off') => {
    const entry = {
      kind: 'checked' as const,
      offset: offset.name,
      rests: restsOf(offset, 'checked'),
      result,
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
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[18rem_1fr] xl:grid-cols-[21rem_1fr_22rem]">
      <div className="space-y-3">
        <h2 className="text-xl font-semibold">Look with a pointed tool</h2>
        <ol className="list-decimal space-y-1 pl-5">
          <li>Pointed tool in the spindle, spindle stopped, Z at the top.</li>
          <li>
            <span className="digits">G90 {offset.name} G0 X0 Y0</span>, single block, low rapid override, a
            hand on feed hold. The program does this.
          </li>
          <li>Jog down by hand and look from both sides.</li>
        </ol>
        {against ? (
          <p className="font-semibold">{against}</p>
        ) : (
          <>
            <TextEntry
              label="What was seen"
              value={note}
              onChange={setNote}
              maxLength={300}
              wrong={wrong}
              hint="Needed when it stands off: how far, which way."
            />
            <Button look="primary" className="min-h-14 w-full text-lg" onClick={() => tell('agrees')}>
              It stands over part zero
            </Button>
            <Button className="w-full" onClick={() => tell('off')}>
              It stands off
            </Button>
          </>
        )}
      </div>
      <div className="min-h-80">
        <TravelDrawing setup={setup} offset={offset} />
      </div>
      <div className="space-y-3 md:col-span-2 xl:col-span-1">
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
                <CircleCheckBig aria-hidden /> It stands over part zero
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
            <p className="text-ink-soft">
              {check.entry.by}, <When at={check.entry.at} />
            </p>
          </>
        )}
        {!against && (
          <ButtonLink to={`../program?offset=${encodeURIComponent(offset.name)}`} relative="path">
            The program that goes there
          </ButtonLink>
        )}
      </div>
    </div>
  )
}
