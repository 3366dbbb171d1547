import { type BoltSide, type SweepDraft, type Vise, withPartLength } from '@dogleg/core/hold'
import { partSizes } from '@dogleg/core/prepare'
import { type FieldProblems, formatLength } from '@dogleg/core/quantity'
import { inForce } from '@dogleg/core/setup'
import { Minus, Plus } from 'lucide-react'
import { type RefObject, useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import type { NewEntry } from '../log/record.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { takeKnown } from '../ui/known-key.tsx'
import { MissingLine } from '../ui/missing-line.tsx'
import { PickOne } from '../ui/pick-one.tsx'

interface SweepFormProps {
  ref: RefObject<HTMLFormElement | null>
  draft: SweepDraft
  change: (draft: SweepDraft) => void
  setPoint: (index: number, part: 'at' | 'reading', text: string) => void
  /** Which bolt stays, once its place is typed; `onOtherBolt` takes the other one. */
  stays: BoltSide | undefined
  onOtherBolt: () => void
  problems: FieldProblems
  /** The path of the field that is lit up in the drawing. */
  lit: string | undefined
  onLit: (path: string) => void
  /** In the setup's unit. */
  jawLength: number
  vise: Vise | undefined
  onVise: (id: string) => void
  /** What would be recorded; undefined while it is not whole. */
  entry: NewEntry | undefined
  onRecord: () => void
}

/** What seldom changes from one sweep to the next is folded away. */
const FOLDED = ['partLength', 'allowed', 'dialStep', 'stylusAngle']

/** The form of a sweep: how the vise is held, where the bolt is, where the dial stood and what it read. */
export function SweepForm({
  ref,
  draft,
  change,
  setPoint,
  stays,
  onOtherBolt,
  problems,
  lit,
  onLit,
  jawLength,
  vise,
  onVise,
  entry,
  onRecord,
}: SweepFormProps) {
  const { setup, reference } = useOpenSetup()
  const { unit } = setup
  const [unfolded, setUnfolded] = useState(false)
  const rarelyWrong = FOLDED.some((path) => problems[path])
  const field = (path: string) => ({
    lit: lit === path,
    onFocus: () => onLit(path),
    wrong: problems[path]?.empty ? undefined : problems[path]?.says,
  })
  return (
    <form
      ref={ref}
      aria-label="Sweep of the fixed jaw"
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => {
        event.preventDefault()
        onRecord()
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
      <div className="mt-2 grid grid-cols-2 items-start gap-x-3">
        <LengthEntryField
          label="Bolt, from left end"
          unit={unit}
          value={draft.pivot}
          onChange={(pivot) => change({ ...draft, pivot })}
          hint="Minus: left of the jaw."
          {...field('pivot')}
        />
        <Choice
          label="It stays"
          value={stays}
          onChange={(side) => {
            // A place that nobody typed is not made up: the keyboard goes to where it is typed.
            if (stays === undefined)
              ref.current?.querySelector<HTMLInputElement>('input[data-entry]')?.focus()
            else if (side !== stays) onOtherBolt()
          }}
          options={[
            { value: 'left', label: 'left' },
            { value: 'right', label: 'right' },
          ]}
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
        <Button
          look="quiet"
          className="px-2"
          onClick={() => change({ ...draft, points: [...draft.points, { at: '', reading: '' }] })}
          disabled={draft.points.length >= 20}
        >
          <Plus aria-hidden size={18} /> Reading
        </Button>
        {draft.points.length > 2 && (
          <Button
            look="quiet"
            className="px-2"
            onClick={() => change({ ...draft, points: draft.points.slice(0, -1) })}
          >
            <Minus aria-hidden size={18} /> Last one
          </Button>
        )}
      </div>
      <details
        open={unfolded || rarelyWrong}
        onToggle={({ currentTarget }) => setUnfolded(currentTarget.open)}
        className="border-t border-rule"
      >
        <summary className="min-h-11 content-center font-semibold">
          Vise, part, dial
          {!unfolded && (
            <span className="ml-2 text-sm font-normal text-ink-soft">
              {vise ? `${vise.name}, ` : ''}
              {withPartLength(draft, jawLength, unit).partLength} long
            </span>
          )}
        </summary>
        {inForce(reference, 'vises', vise?.id).length > 0 && (
          <PickOne
            label="Vise"
            value={vise?.id ?? ''}
            onChange={onVise}
            toChoose="choose it"
            options={inForce(reference, 'vises', vise?.id).map(({ id, name }) => [id, name])}
          />
        )}
        <div className="grid grid-cols-2 gap-x-3">
          <LengthEntryField
            label="Part, along the jaw"
            unit={unit}
            value={draft.partLength}
            onChange={(partLength) => change({ ...draft, partLength })}
            hint={`Empty: the jaw, ${formatLength(jawLength, unit)}.`}
            {...field('partLength')}
            {...takeKnown({
              label: 'Take the length of the part in the work area',
              length: partSizes(setup).along,
              unit,
              value: draft.partLength,
              onTake: (partLength) => change({ ...draft, partLength }),
            })}
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
        disabled={!entry}
        className="mt-2 min-h-14 w-full text-lg"
      >
        Record the sweep
      </Button>
      <MissingLine problems={problems} />
      <GoesStale entry={entry} />
    </form>
  )
}
