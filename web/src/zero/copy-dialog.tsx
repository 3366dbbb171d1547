import { type CopyDraft, type CopyField, copyDraft, readCopies, startingCopies } from '@dogleg/core/prepare'
import { formatLength, formatWithUnit } from '@dogleg/core/quantity'
import { addressNames } from '@dogleg/core/setup'
import { useMemo } from 'react'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { PickOne } from '../ui/pick-one.tsx'

const MOST_SHOWN = 12

/** Copies of one offset to others, each a step further: several vises, faces of a tombstone, pallets. */
export function CopyDialog({ onClose }: { onClose: () => void }) {
  const { setup } = useOpenSetup()
  const { unit, machine, profile } = setup
  const [draft, change, clear] = useKept<CopyDraft>(`${setup.id}.copies`, copyDraft, () =>
    startingCopies(setup),
  )
  const signed = useSigned()
  const read = useMemo(() => readCopies(draft, setup), [draft, setup])
  const set = (part: Partial<CopyDraft>) => change({ ...draft, ...part })
  const told = (field: CopyField | 'first' | 'source') => {
    const problem = read.ok ? undefined : read.problems[field]
    return problem && !problem.empty ? problem.says : undefined
  }
  const source = setup.offsets.find(({ name }) => name === draft.source)
  const outside = read.ok ? read.copies.find((copy) => copy.outside) : undefined
  const replaced = read.ok
    ? [...new Set(read.copies.filter((copy) => copy.replaces).map(({ offset }) => offset))]
    : []
  const submit = () => {
    if (!read.ok || outside) return
    signed(() => {
      for (const { offset, reading, rests } of read.copies)
        record(setup.id, {
          kind: 'pickup',
          offset,
          reading,
          rests,
          machine: { id: machine.id, version: machine.version },
        })
      clear()
      onClose()
    })
  }
  return (
    <Dialog
      open
      wide
      onOpenChange={(open) => !open && onClose()}
      title="Copy or shift an offset"
      says="Each further offset is the source and one step more: vises in a row, faces of a tombstone, the other pallet. A copy goes stale when its source is taken again."
    >
      <form
        className="grid gap-x-6 gap-y-3 md:grid-cols-2"
        onKeyDown={nextFieldOnEnter}
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <div className="space-y-2">
          <PickOne
            label="From"
            value={draft.source}
            onChange={(source) => set({ source })}
            options={setup.offsets.map(({ name }) => [name, name])}
          />
          {told('source') && <p className="font-semibold">{told('source')}</p>}
          <PickOne
            label="To"
            value={draft.first}
            onChange={(first) => set({ first })}
            options={addressNames(machine, profile).map((name) => [name, name])}
          />
          {told('first') && <p className="font-semibold">{told('first')}</p>}
          <TextEntry
            label="How many, from there on"
            value={draft.count}
            onChange={(count) => set({ count })}
            wrong={told('count')}
          />
          <div className="grid grid-cols-3 gap-x-3">
            {(['X', 'Y', 'Z'] as const).map((axis) => (
              <LengthEntryField
                key={axis}
                label={`Step in ${axis}`}
                unit={unit}
                value={draft[axis]}
                onChange={(text) => set({ [axis]: text })}
              />
            ))}
          </div>
          <LengthEntryField
            label="The step is known to"
            unit={unit}
            value={draft.within}
            onChange={(within) => set({ within })}
            wrong={told('within')}
            hint="How far off the spacing of the fixtures may be."
          />
        </div>
        <div className="space-y-3">
          {read.ok && (
            <table className="w-full">
              <caption className="pb-1 text-left font-semibold">What would be recorded</caption>
              <tbody>
                {read.copies.slice(0, MOST_SHOWN).map(({ offset, axis, value }) => (
                  <tr key={`${offset}-${axis}`} className="border-t border-rule">
                    <th scope="row" className="digits py-0.5 text-left">
                      {offset} {axis}
                    </th>
                    <td className="digits py-0.5 text-right text-xl">{formatLength(value, unit)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {read.ok && read.copies.length > MOST_SHOWN && <p>and {read.copies.length - MOST_SHOWN} more</p>}
          {read.ok && read.left.length > 0 && (
            <p>
              {read.left.join(' and ')} of {draft.source} {read.left.length > 1 ? 'are' : 'is'} missing or
              stale and not copied.
            </p>
          )}
          {source?.rotary && (
            <p>
              {source.rotary.axis} of {draft.source} is not copied: take it for each, or key it in.
            </p>
          )}
          {replaced.length > 0 && <p className="font-semibold">{replaced.join(', ')} will be replaced.</p>}
          {outside && (
            <p className="font-semibold text-hazard">
              {outside.axis} of {outside.offset} would be at {formatWithUnit(outside.value, unit)}, outside
              the travel. Check the step and its sign.
            </p>
          )}
          <Button
            type="submit"
            look="primary"
            data-record
            disabled={!read.ok || outside !== undefined}
            className="min-h-14 w-full text-lg"
          >
            Record {read.ok ? read.copies.length : ''} values
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
