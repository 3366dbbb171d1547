import type { Setup, ShiftNote } from '@dogleg/core/setup'
import { Check, NotebookPen } from 'lucide-react'
import { useSigned } from '../log/operator-gate.tsx'
import { record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { When } from '../ui/when.tsx'

/** How many notes that were read already are still shown. */
const READ_SHOWN = 2

/** What was said with a setup that was handed over: what was stale then, what is left, what was let stand. */
function HandedWith({ entry }: Pick<ShiftNote, 'entry'>) {
  if (entry.kind !== 'handed-over') return null
  const lists = [
    ['Still open when recorded', entry.left],
    ['Stale when recorded', entry.stale],
    ['Let stand', entry.open],
  ] as const
  return lists.map(([name, lines]) =>
    lines.length > 0 ? (
      <span key={name} className="block">
        <span className="font-semibold">{name}: </span>
        {lines.slice(0, 4).join(' · ')}
        {lines.length > 4 && ` and ${lines.length - 4} more`}
      </span>
    ) : null,
  )
}

/** The notes left at the machine: what waits, large and first; then the last ones with who read them. */
export function ShiftNotes({ setup, notes }: { setup: Setup; notes: readonly ShiftNote[] }) {
  const signed = useSigned()
  const waiting = notes.filter(({ waits }) => waits)
  const read = notes.filter(({ waits }) => !waits).slice(0, READ_SHOWN)
  return (
    <section aria-label="Notes left at the machine">
      {waiting.map(({ entry, text }) => (
        <div
          key={entry.id}
          className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b-2 border-ink py-3"
        >
          <NotebookPen aria-hidden size={28} className="shrink-0" />
          <p className="min-w-64 flex-1">
            <span className="block text-xl leading-snug font-semibold">{text}</span>
            <HandedWith entry={entry} />
            <span className="text-ink-soft">
              {entry.by}, <When at={entry.at} />
            </span>
          </p>
          <Button
            look="primary"
            className="min-h-14 text-lg"
            aria-label={`I have read the note by ${entry.by}`}
            onClick={() => signed(() => record(setup.id, { kind: 'acknowledged', note: entry.id }))}
          >
            <Check aria-hidden size={22} /> I have read it
          </Button>
        </div>
      ))}
      {waiting.length === 0 &&
        read.map(({ entry, text, acknowledged }) => (
          <p key={entry.id} className="flex items-baseline gap-2 border-b border-rule py-1.5 text-ink-soft">
            <NotebookPen aria-hidden size={16} className="shrink-0 translate-y-0.5" />
            <span className="flex-1">
              {entry.by}: {text}
            </span>
            {acknowledged ? (
              <span className="shrink-0">
                read by {acknowledged.by}, <When at={acknowledged.at} />
              </span>
            ) : (
              <span className="shrink-0">yours, for the next shift</span>
            )}
          </p>
        ))}
    </section>
  )
}
