import { methodName } from '@dogleg/core/pickup'
import { HAPPENINGS, type HappeningKind, happeningKind, whatIf } from '@dogleg/core/setup'
import { useId, useState } from 'react'
import type { OpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { asIfRecorded, type NewEntry, record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { Select } from '../ui/select.tsx'
import { Consequences } from './consequences.tsx'

/** The tools that a Z of this setup rests on. */
function toolsInUse({ log }: OpenSetup['setup']): number[] {
  const tools = log.flatMap(({ entry }) =>
    entry.kind === 'pickup' && entry.reading.method === 'tool-on-block' ? [entry.reading.tool] : [],
  )
  return [...new Set(tools)].sort((a, b) => a - b)
}

/** Something happened at the machine: which, and what goes stale by it, said before it is entered. */
export function ChangedDialog({ setup, entries, reference, onClose }: OpenSetup & { onClose: () => void }) {
  const tools = toolsInUse(setup)
  const [what, setWhat] = useState<HappeningKind>()
  const [tool, setTool] = useState(tools[0])
  const [note, setNote] = useState('')
  const signed = useSigned()
  const group = useId()
  const kinds = happeningKind.options.filter(
    (kind) =>
      HAPPENINGS[kind].said &&
      HAPPENINGS[kind].on.includes(setup.machine.kind) &&
      (!HAPPENINGS[kind].rotary || setup.machine.rotary !== null) &&
      (kind !== 'tool-measured-again' || tools.length > 0),
  )

  const entry: NewEntry | undefined = what && {
    kind: 'happened',
    what,
    note: note.trim(),
    ...(what === 'tool-measured-again' && tool !== undefined ? { tool } : {}),
  }

  const machineSays = what && HAPPENINGS[what].alarm ? ['Walk-round and power-up are due again.'] : []

  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Something changed"
      wide
      says="What was taken before it no longer holds. The logbook marks it stale; nothing is removed."
    >
      <form
        className="grid gap-x-8 gap-y-3 md:grid-cols-[1fr_20rem]"
        onSubmit={(event) => {
          event.preventDefault()
          if (!entry) return
          signed(() => {
            record(setup.id, entry)
            onClose()
          })
        }}
      >
        <fieldset className="space-y-1">
          <legend className="sr-only">What happened</legend>
          {kinds.map((kind) => (
            <label
              key={kind}
              className="flex min-h-12 items-center gap-3 rounded-sm border border-rule px-3 has-checked:border-ink has-checked:bg-stock-shade"
            >
              <input
                type="radio"
                name={group}
                checked={what === kind}
                onChange={() => setWhat(kind)}
                className="size-5 shrink-0 accent-ink"
              />
              <span className="py-1">
                <span className="font-semibold">{HAPPENINGS[kind].title}</span>
                <span className="block text-sm text-ink-soft">{HAPPENINGS[kind].explains}</span>
              </span>
            </label>
          ))}
        </fieldset>
        <div>
          {what === 'tool-measured-again' && (
            <label className="mt-3 flex items-center gap-3 font-semibold">
              Tool
              <Select
                className="digits"
                value={tool}
                onChange={(event) => setTool(Number(event.target.value))}
              >
                {tools.map((each) => (
                  <option key={each} value={each}>
                    T{each}
                  </option>
                ))}
              </Select>
              <span className="text-sm font-normal text-ink-soft">
                used for {methodName('tool-on-block')}
              </span>
            </label>
          )}
          {entry && (
            <Consequences
              says={[...whatIf(entries, asIfRecorded(setup.id, entry), reference), ...machineSays]}
            />
          )}
          <div className="mt-3">
            <TextEntry
              words
              label="Note"
              value={note}
              onChange={setNote}
              hint="If it matters to the next person."
              maxLength={300}
            />
          </div>
          <Button type="submit" look="primary" disabled={!entry} className="mt-2 min-h-14 w-full text-lg">
            Enter it in the logbook
          </Button>
        </div>
      </form>
    </Dialog>
  )
}
