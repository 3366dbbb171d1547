import { whatIf } from '@dogleg/core/setup'
import { useMemo, useState } from 'react'
import type { OpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { asIfRecorded, problemsOf, record } from '../log/record.ts'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { Consequences } from './consequences.tsx'

interface StrikeDialogProps extends OpenSetup {
  target: string
  says: string
  onClose: () => void
}

/** Strikes an entry out with a reason, after saying what rests on it. */
export function StrikeDialog({ setup, entries, reference, target, says, onClose }: StrikeDialogProps) {
  const [reason, setReason] = useState('')
  const [wrong, setWrong] = useState<string>()
  const signed = useSigned()
  const changes = useMemo(
    () =>
      whatIf(entries, asIfRecorded(setup.id, { kind: 'struck', target, reason: 'considered' }), reference),
    [entries, setup.id, target, reference],
  )
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title="Strike out this entry?"
      says="It stays in the logbook, struck through, with your reason. Striking out the strike brings it back."
    >
      <p className="text-lg font-semibold">{says}</p>
      <Consequences says={changes} />
      <form
        onSubmit={(event) => {
          event.preventDefault()
          const entry = { kind: 'struck' as const, target, reason: reason.trim() }
          const problems = problemsOf(setup.id, entry)
          setWrong(problems.reason)
          if (problems.reason) return
          signed(() => {
            record(setup.id, entry)
            onClose()
          })
        }}
      >
        <TextEntry words label="Reason" value={reason} onChange={setReason} wrong={wrong} maxLength={300} />
        <Button type="submit" look="primary" className="mt-2 min-h-14 w-full text-lg">
          Strike it out
        </Button>
      </form>
    </Dialog>
  )
}
