import { verdictOf } from '@dogleg/core/fact'
import { readUprightDraft, type UprightDraft, uprightDraft, uprightness } from '@dogleg/core/hold'
import { partSizes, startingUpright } from '@dogleg/core/prepare'
import { type FieldProblems, formatLength, unitSymbol } from '@dogleg/core/quantity'
import type { UprightFact } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Working } from '../ui/answer.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { FactLine } from '../ui/fact-line.tsx'
import { takeKnown } from '../ui/known-key.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { Findings, VerdictMark } from '../ui/verdict.tsx'

interface UprightPartProps {
  /** Whether it is asked now: the jaw was just found square, and nobody read it today. */
  asked: boolean
  fact: UprightFact | undefined
}

/** Two readings on the fixed jaw that was squared: does it stand upright, and does it stay down as the part is clamped? */
export function UprightPart({ asked, fact }: UprightPartProps) {
  return (
    <details open={fact?.freshness.state === 'stale'} className="border-y border-rule">
      <summary className="min-h-11 content-center font-semibold">
        {asked ? 'Once a day: does' : 'Does'} the fixed jaw stand upright, and stay down?
        {!asked && fact && <span className="ml-2 text-sm font-normal text-ink-soft">{inShort(fact)}</span>}
      </summary>
      {fact && <Said fact={fact} />}
      <UprightForm />
    </details>
  )
}

const inShort = ({ freshness, verdict }: UprightFact) =>
  freshness.state === 'stale' ? freshness.cause.says : verdict === 'good' ? 'yes' : 'look'

function Said({ fact }: { fact: UprightFact }) {
  return (
    <section aria-label="The fixed jaw as it was read" className="space-y-1 pb-2">
      <Figures read={fact.read} />
      <Findings findings={fact.findings} />
      <FactLine fact={fact} />
    </section>
  )
}

function Figures({ read: { lean, leans, lift } }: Pick<UprightFact, 'read'>) {
  const figure = (of: typeof lean, plus: boolean) => (
    <>
      <span className="digits text-2xl">{formatLength(of.value, of.unit, { plus })}</span>{' '}
      {unitSymbol(of.unit)}
      <span className="digits ml-2">±{formatLength(of.doubt.value, of.unit)}</span>
    </>
  )
  return (
    <dl className="grid grid-cols-2 gap-x-4">
      <div>
        <dt className="text-sm text-ink-soft">
          Leans {leans === null ? 'over the part’s height' : leans === 'over' ? 'over the part' : 'back'}
        </dt>
        <dd data-testid="lean">{figure(lean, false)}</dd>
      </div>
      <div>
        <dt className="text-sm text-ink-soft">Lifts as it is clamped</dt>
        <dd data-testid="lift">{figure(lift, true)}</dd>
      </div>
    </dl>
  )
}

function UprightForm() {
  const { setup } = useOpenSetup()
  const { unit, machine } = setup
  const [draft, change, clear] = useKept<UprightDraft>(`${setup.id}.upright`, uprightDraft, () =>
    startingUpright(setup),
  )
  const signed = useSigned()
  const live = useMemo(() => {
    const read = readUprightDraft(draft, unit)
    if (!read.ok) return { problems: read.problems }
    const entry = {
      kind: 'upright',
      ...read.value,
      machine: { id: machine.id, version: machine.version },
    } as const
    return { entry, read: uprightness(read.value, unit) }
  }, [draft, unit, machine])
  const problems: FieldProblems = live.problems ?? {}
  const length = (path: 'height' | 'up' | 'lift' | 'partHeight' | 'allowed' | 'dialStep') => ({
    unit,
    value: draft[path],
    onChange: (text: string) => change({ ...draft, [path]: text }),
    wrong: problems[path]?.empty ? undefined : problems[path]?.says,
  })
  return (
    <form
      aria-label="Readings on the fixed jaw"
      className="space-y-1 pb-2"
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => {
        event.preventDefault()
        const { entry } = live
        if (!entry) return
        signed(() => {
          record(setup.id, entry)
          clear()
        })
      }}
    >
      <div className="grid grid-cols-2 items-start gap-x-3">
        <LengthEntryField label="Up the face by" hint="Zero it at the bottom." {...length('height')} />
        <LengthEntryField label="Dial at the top" hint="With its sign." {...length('up')} />
        <LengthEntryField
          label="Part, how high"
          hint="What the jaw holds square."
          {...length('partHeight')}
          {...takeKnown({
            label: 'Take the height of the part in the work area',
            length: partSizes(setup).high,
            unit,
            value: draft.partHeight,
            onTake: (partHeight) => change({ ...draft, partHeight }),
          })}
        />
        <LengthEntryField
          label="On top, clamped"
          hint="Zero it on the jaw, part laid in."
          {...length('lift')}
        />
      </div>
      <details>
        <summary className="min-h-11 content-center">
          Dial
          <span className="ml-2 text-sm text-ink-soft">{draft.allowed} allowed</span>
        </summary>
        <div className="grid grid-cols-2 gap-x-3">
          <LengthEntryField label="May lean, may lift" {...length('allowed')} />
          <LengthEntryField label="Dial steps" {...length('dialStep')} />
          <TextEntry
            label="Stylus, angle"
            suffix="°"
            value={draft.stylusAngle}
            onChange={(stylusAngle) => change({ ...draft, stylusAngle })}
            wrong={problems.stylusAngle?.empty ? undefined : problems.stylusAngle?.says}
          />
        </div>
        <Choice
          label="Plus means what it touches"
          value={draft.plusMeans}
          onChange={(plusMeans) => change({ ...draft, plusMeans })}
          options={[
            { value: 'towards', label: 'comes towards it' },
            { value: 'away', label: 'goes away' },
          ]}
        />
      </details>
      {live.read && (
        <div className="space-y-1">
          <Figures read={live.read} />
          <VerdictMark verdict={verdictOf(live.read.findings)} />
          <Findings findings={live.read.findings} />
          <Working
            answer={{ working: [...live.read.lean.working, ...live.read.lift.working] }}
            title="How it leans and lifts"
          />
        </div>
      )}
      <Button type="submit" look="primary" disabled={!live.entry} className="min-h-14 w-full">
        Record the two readings
      </Button>
      <MissingLine problems={problems} />
    </form>
  )
}
