import { SETTLED_NAMES, type SettledAs, settledAs } from '@dogleg/core/gauge'
import type { GaugedPart, GaugeSeries } from '@dogleg/core/setup'
import { useState } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { type NewEntry, problemsOf, record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { formatValue } from './format-value.ts'

/** Parts out of tolerance: what was done about each, and a word for the one that waits. */
export function OutParts({ series }: { series: GaugeSeries }) {
  const { parts, characteristics } = series
  const out = parts.filter((part) => part.out.length > 0)
  const open = out.find((part) => part.open)
  const says = (part: GaugedPart) =>
    part.out
      .map((key) => {
        const unit = characteristics.find((of) => of.key === key)?.unit ?? 'inch'
        return `${key} ${formatValue(part.values[key] ?? 0, unit)}`
      })
      .join(', ')
  return (
    <section aria-label="Out of tolerance" className="space-y-1">
      <h2 className="font-semibold">
        {out.length === 0
          ? 'No part is out of tolerance.'
          : `${out.length} of ${parts.length} parts out of tolerance`}
      </h2>
      {open && <Settle key={`${open.entry.id}/${open.part}`} part={open} says={says(open)} />}
      <ul className="max-h-32 overflow-y-auto">
        {out
          .filter((part) => part !== open)
          .map((part) => (
            <li key={`${part.entry.id}/${part.part}`} className="border-t border-rule py-0.5 text-sm">
              <span className="font-semibold">Part {part.label}</span>,{' '}
              <span className="digits">{says(part)}</span>:{' '}
              {part.settled ? SETTLED_NAMES[part.settled.did] : 'waits for a word'}
              {part.settled?.note && <span className="block text-ink-soft">{part.settled.note}</span>}
            </li>
          ))}
      </ul>
    </section>
  )
}

function Settle({ part, says }: { part: GaugedPart; says: string }) {
  const { setup } = useOpenSetup()
  const signed = useSigned()
  const [did, setDid] = useState<SettledAs>('reworked')
  const [note, setNote] = useState('')
  const entry: NewEntry = {
    kind: 'settled',
    gauged: part.entry.id,
    part: part.part,
    label: part.label,
    did,
    note: note.trim(),
  }
  const wrong = problemsOf(setup.id, entry).note
  return (
    <form
      aria-label="What was done"
      className="space-y-1 rounded-sm border border-ink-soft p-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!wrong) signed(() => void record(setup.id, entry))
      }}
    >
      <p className="text-lg">
        <span className="font-semibold">Part {part.label}</span>: <span className="digits">{says}</span>
      </p>
      <PickOne
        label="What was done about it"
        value={did}
        onChange={(next) => setDid(settledAs.parse(next))}
        options={settledAs.options.map((each) => [each, SETTLED_NAMES[each]])}
      />
      <TextEntry
        words
        label="Note"
        value={note}
        onChange={setNote}
        maxLength={300}
        hint={wrong ?? 'How, why.'}
        narrow
      />
      <Button type="submit" look="primary" disabled={wrong !== undefined} className="w-full">
        Enter it
      </Button>
    </form>
  )
}
