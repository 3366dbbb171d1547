import {
  type BarStopDraft,
  type BarStopField,
  type BarWay,
  barStopDraft,
  barStopWorking,
  DIAMETERS_OUT,
  readBarStop,
  startingBarStop,
} from '@dogleg/core/bar-stop'
import { barStopProgram, barStopRests, barStopSituation } from '@dogleg/core/prepare'
import { offsetOf } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { Taken, TakeProgram, WholeProgram } from '../program/take-program.tsx'
import { Working } from '../ui/answer.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { takeKnown } from '../ui/known-key.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { Findings } from '../ui/verdict.tsx'
import { BarStopDrawing } from './bar-stop-drawing.tsx'

const LABELS: Record<BarStopField, readonly [label: string, hint: string]> = {
  tool: ['Stop in station', 'Such as T9.'],
  standsOut: ['Stands out', 'From the face of the chuck.'],
  chuck: ['Chuck from part zero', 'Z of its face: minus.'],
  face: ['To face off', 'In front of part zero.'],
  most: ['May stand out', 'By this chuck, this bar.'],
  x: ['X of the stop', 'A diameter; 0 on centre.'],
  away: ['Slow for the last', 'And back as far.'],
  feed: ['Feed', 'Length a minute.'],
}
const ORDER = ['tool', 'standsOut', 'chuck', 'face', 'most', 'x', 'away', 'feed'] as const

/** A stop in the turret, or a pusher: the program that brings it to where the bar is to end. */
export function BarStopPanel() {
  const { setup } = useOpenSetup()
  const { unit } = setup
  const [draft, change] = useKept<BarStopDraft>(`${setup.id}.bar`, barStopDraft, () => startingBarStop(unit))
  const [lit, setLit] = useState<BarStopField>()
  const read = useMemo(() => readBarStop(draft, unit), [draft, unit])
  const problems = read.ok ? {} : read.problems
  const { diameter } = barStopSituation(setup, read.ok ? read.value.tool : 0)
  const written = useMemo(() => (read.ok ? barStopProgram(setup, read.value) : undefined), [read, setup])
  const offset = offsetOf(setup, `T${read.ok ? read.value.tool : 0}`)
  const set = (part: Partial<BarStopDraft>) => change({ ...draft, ...part })
  const field = (name: BarStopField) => {
    const [label, hint] = LABELS[name]
    const told = problems[name]
    const common = {
      label,
      hint,
      value: draft[name],
      onChange: (text: string) => set({ [name]: text }),
      lit: lit === name,
      onFocus: () => setLit(name),
      narrow: true,
      ...(told && !told.empty ? { wrong: told.says } : {}),
    }
    return name === 'tool' ? (
      <TextEntry key={name} {...common} maxLength={10} />
    ) : (
      <LengthEntryField
        key={name}
        {...common}
        unit={unit}
        {...(name === 'most'
          ? takeKnown({
              label: `Take ${DIAMETERS_OUT} diameters of the bar`,
              length: diameter && DIAMETERS_OUT * diameter,
              unit,
              value: draft.most,
              onTake: (most) => set({ most }),
            })
          : {})}
      />
    )
  }
  return (
    <div className="grid flex-1 content-start gap-x-6 gap-y-4 py-2 md:grid-cols-[21rem_1fr] xl:grid-cols-[21rem_1fr_24rem]">
      <form
        aria-label="Bar stop"
        className="space-y-2"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => event.preventDefault()}
      >
        <Choice
          label="The bar is"
          value={draft.way}
          onChange={(way) => set({ way: way as BarWay })}
          options={[
            { value: 'pull', label: 'pulled out to a stop' },
            { value: 'push', label: 'pushed back' },
          ]}
        />
        <div className="grid grid-cols-2 gap-x-3 gap-y-1">{ORDER.map(field)}</div>
        <MissingLine problems={problems} />
      </form>
      <div className="min-h-80">
        <BarStopDrawing draft={draft} unit={unit} diameter={diameter} lit={lit} />
      </div>
      <section aria-label="Program of the stop" className="min-w-0 space-y-3 md:col-span-2 xl:col-span-1">
        {read.ok && written ? (
          <>
            <h2 className="sr-only">The program of the stop</h2>
            <Findings findings={written.findings} />
            {written.ok ? (
              <>
                <TakeProgram
                  setup={setup}
                  offset={offset}
                  what="bar"
                  rests={barStopRests(setup, read.value.tool)}
                  text={written.text}
                />
                <Taken program={offset.further.bar} text={written.text} />
                <p>
                  It stops twice: before the turret comes, and with the{' '}
                  {draft.way === 'pull' ? 'stop' : 'pusher'} at the bar. About {Math.round(written.seconds)} s
                  without the hands.
                </p>
                <Working answer={{ working: barStopWorking(read.value, unit) }} />
                <WholeProgram text={written.text} />
              </>
            ) : (
              <p className="text-lg font-semibold">No program is written for this stop.</p>
            )}
          </>
        ) : (
          <div className="space-y-2 text-ink-soft">
            <h2 className="font-semibold text-ink">A stop that the turret brings</h2>
            <p>
              The program brings it to where the bar is to end, stops, says what to pull or push and to clamp,
              and takes it away clear.
            </p>
            <p>
              Hands go in only while the turret stands and the spindle does not turn; chuck pressure, door and
              interlocks stay as they are.
            </p>
          </div>
        )}
      </section>
    </div>
  )
}
