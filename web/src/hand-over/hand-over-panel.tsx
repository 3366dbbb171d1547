import { acknowledgementOf, lastHandedOver } from '@dogleg/core/setup'
import type { SetupSheet } from '@dogleg/core/sheet'
import { ArrowRightLeft } from 'lucide-react'
import { useId } from 'react'
import { z } from 'zod'
import { useKept } from '../log/kept.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { useEarlierRuns } from '../log/use-listed.ts'
import { Button } from '../ui/button.tsx'
import { When } from '../ui/when.tsx'
import { PutAway } from './put-away.tsx'

const LONGEST_NOTE = 1000

/** As many lines as an entry takes; where there are more, the last one says how many. */
const atMost = (lines: readonly string[], most: number, longest: number): string[] => {
  const cut = lines.map((each) => each.slice(0, longest))
  return cut.length <= most
    ? cut
    : [...cut.slice(0, most - 1), `and ${cut.length - most + 1} more, on the setup sheet.`]
}

/** Handing over: a note for the next shift, with what is left, what is stale and what was let stand; and who has read it. */
export function HandOverPanel({ sheet, open }: { sheet: SetupSheet; open: readonly string[] }) {
  const inHand = useOpenSetup()
  const { setup } = inHand
  const entries = useEarlierRuns(inHand)
  const signed = useSigned()
  const id = useId()
  const [note, setNote, clear] = useKept(`${setup.id}.hand-over`, z.string().max(LONGEST_NOTE), () => '')
  const last = lastHandedOver(setup)
  const read = last && acknowledgementOf(last, entries)
  const give = () =>
    signed(() => {
      record(setup.id, {
        kind: 'handed-over',
        note: note.trim(),
        stale: atMost(sheet.stale, 100, 200),
        open: atMost(open, 100, 400),
        left: atMost(sheet.left, 40, 400),
      })
      clear()
    })
  return (
    <div className="grid flex-1 content-start gap-x-8 gap-y-4 py-3 lg:grid-cols-[1fr_24rem]">
      <section aria-label="What goes with it" className="space-y-4">
        <List title="Left to do" lines={sheet.left} none="Nothing is left to do." />
        <List title="Stale" lines={sheet.stale} none="Nothing is stale." />
        <List title="Looked at and let stand" lines={open} none="Nothing was let stand." />
        <PutAway setup={setup} />
      </section>
      <section aria-label="Hand it over" className="space-y-2">
        <label htmlFor={id} className="text-lg font-semibold">
          A note for the next shift
        </label>
        <textarea
          id={id}
          value={note}
          maxLength={LONGEST_NOTE}
          rows={6}
          onChange={({ target }) => setNote(target.value)}
          className="w-full rounded-sm border border-ink-soft bg-white/60 p-3 text-xl leading-snug"
        />
        <Button look="primary" className="min-h-14 w-full text-lg" onClick={give}>
          <ArrowRightLeft aria-hidden size={22} /> Hand over
        </Button>
        <p className="text-ink-soft">
          It stands first in Ready on {setup.machine.name} until somebody else says that it was read.
        </p>
        {last && (
          <p className="border-t border-rule pt-2">
            Last handed over by {last.by}, <When at={last.at} />
            {last.note ? `: ${last.note}` : '.'}{' '}
            <span className="block font-semibold">
              {read ? (
                <>
                  Read by {read.by}, <When at={read.at} />.
                </>
              ) : (
                'Nobody else has read it yet.'
              )}
            </span>
          </p>
        )}
      </section>
    </div>
  )
}

function List({ title, lines, none }: { title: string; lines: readonly string[]; none: string }) {
  return (
    <div>
      <h2 className="border-b border-ink text-lg font-semibold">
        {title} {lines.length > 0 && <span className="digits">{lines.length}</span>}
      </h2>
      {lines.length === 0 && <p className="py-1 text-ink-soft">{none}</p>}
      <ul>
        {lines.map((line) => (
          <li key={line} className="border-b border-rule py-1.5 text-lg leading-snug">
            {line}
          </li>
        ))}
      </ul>
    </div>
  )
}
