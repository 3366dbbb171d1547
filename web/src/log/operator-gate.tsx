import { initials as initialsSchema } from '@dogleg/core/setup'
import { createContext, type ReactNode, useCallback, useContext, useState } from 'react'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { TextEntry } from '../ui/entry-field.tsx'
import { operator, setOperator, useOperator } from './operator.ts'

type Action = () => void
const Gate = createContext<(action: Action) => void>(() => {})

/** Runs an action that adds to the logbook, after asking who is at the tablet where nobody has said so yet. */
export const useSigned = () => useContext(Gate)

/** Asks for initials once, when the first entry is made, and from the header whenever the hands change. */
export function OperatorGate({ children }: { children: ReactNode }) {
  const [pending, setPending] = useState<Action>()
  const signed = useCallback((action: Action) => {
    if (operator()) action()
    else setPending(() => action)
  }, [])
  return (
    <Gate.Provider value={signed}>
      {children}
      <AskInitials
        open={pending !== undefined}
        onClose={() => setPending(undefined)}
        onTold={() => {
          setPending(undefined)
          pending?.()
        }}
      />
    </Gate.Provider>
  )
}

function AskInitials({ open, onClose, onTold }: { open: boolean; onClose: Action; onTold: Action }) {
  const [text, setText] = useState('')
  const [wrong, setWrong] = useState<string>()
  const submit = () => {
    const read = initialsSchema.safeParse(text)
    if (!read.success) return setWrong(read.error.issues[0]?.message)
    setOperator(read.data)
    setWrong(undefined)
    onTold()
  }
  return (
    <Dialog
      open={open}
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
    </Dialog>
  )
}

/** The initials in the header; a press changes them. */
export function OperatorButton() {
  const initials = useOperator()
  const [open, setOpen] = useState(false)
  return (
    <>
      <Button
        look="quiet"
        onClick={() => setOpen(true)}
        aria-label={`At this tablet: ${initials || 'nobody named'}. Change`}
      >
        {initials || 'Who are you?'}
      </Button>
      <AskInitials open={open} onClose={() => setOpen(false)} onTold={() => setOpen(false)} />
    </>
  )
}
