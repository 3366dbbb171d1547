import { initials } from '@dogleg/core/log'
import { useState } from 'react'
import { CheckField } from '../reference/form-fields.tsx'
import { Button } from '../ui/button.tsx'
import { setDecimalComma, useDecimalComma } from '../ui/decimal-comma.ts'
import { Dialog } from '../ui/dialog.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { setOperator } from './operator.ts'

/** Asks who is at the tablet. */
export function AskInitials({ onClose, onTold }: { onClose: () => void; onTold: () => void }) {
  const [text, setText] = useState('')
  const [wrong, setWrong] = useState<string>()
  const comma = useDecimalComma()
  const submit = () => {
    const read = initials.safeParse(text)
    if (!read.success) return setWrong(read.error.issues[0]?.message)
    setOperator(read.data)
    setWrong(undefined)
    onTold()
  }
  return (
    <Dialog
      open
      onOpenChange={(next) => !next && onClose()}
      title="Who is at this tablet?"
      says="Every entry of the logbook carries initials. They are kept on this tablet until you change them."
    >
      <form
        onSubmit={(event) => {
          event.preventDefault()
          submit()
        }}
      >
        <TextEntry
          words
          label="Your initials"
          value={text}
          onChange={setText}
          wrong={wrong}
          hint="Two or three letters."
        />
        <Button type="submit" look="primary" className="mt-2 w-full">
          That is me
        </Button>
      </form>
      <div className="mt-3 border-t border-rule pt-2">
        <CheckField
          label="At this tablet a comma is a decimal point: 12,7 is 12.7"
          checked={comma}
          onChange={({ target }) => setDecimalComma(target.checked)}
        />
      </div>
    </Dialog>
  )
}
