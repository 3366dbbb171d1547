import { Lock } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../log/api.ts'
import { useSession } from '../log/session.ts'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { PinField } from './pin-field.tsx'
import { leave } from './sign.ts'
import { SignInForm } from './sign-in-form.tsx'

const MAY = { looker: 'reads only', operator: 'records', lead: 'leads' } as const

/** Who is at this tablet, and who comes next. `looksOnly`: they wanted to record and may not. */
export function AtTabletDialog({
  looksOnly,
  onClose,
  onTold,
}: {
  looksOnly: boolean
  onClose: () => void
  onTold: () => void
}) {
  const { tablet, person } = useSession()
  if (!tablet || !person) return null
  return (
    <Dialog
      open
      wide
      onOpenChange={(next) => !next && onClose()}
      title={looksOnly ? `${person.initials} reads only` : 'Who comes to this tablet?'}
      says={
        looksOnly
          ? 'Somebody who records signs in here, then it is recorded under their initials.'
          : `${tablet.name}. Now at it: ${person.initials}, ${person.name}, who ${MAY[person.may]}.`
      }
    >
      <SignInForm onDone={onTold} />
      <div className="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule pt-3">
        <Button
          className="min-h-12"
          onClick={() => {
            onClose()
            void leave()
          }}
        >
          <Lock aria-hidden size={20} /> Lock this tablet
        </Button>
        {person.may === 'lead' && (
          <Link
            to="/people"
            onClick={onClose}
            className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
          >
            People and tablets
          </Link>
        )}
        <Link
          to="/this-tablet"
          onClick={onClose}
          className="inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
        >
          How this tablet is set
        </Link>
      </div>
      <details className="mt-1">
        <summary className="min-h-11 content-center font-semibold">
          Change the PIN of {person.initials}
        </summary>
        <ChangePin />
      </details>
    </Dialog>
  )
}

function ChangePin() {
  const [pin, setPin] = useState('')
  const [next, setNext] = useState('')
  const [told, setTold] = useState<{ says: string; wrong: boolean }>()
  const submit = async () => {
    try {
      await api.changePin(pin, next)
      setTold({ says: 'The new PIN counts from now on.', wrong: false })
    } catch (error) {
      setTold({ says: error instanceof Error ? error.message : String(error), wrong: true })
    }
    setPin('')
    setNext('')
  }
  return (
    <form
      className="grid items-end gap-x-4 sm:grid-cols-[1fr_1fr_auto]"
      onSubmit={(event) => {
        event.preventDefault()
        void submit()
      }}
    >
      <PinField label="PIN until now" value={pin} onChange={setPin} />
      <PinField label="New PIN, 4 to 8 digits" value={next} onChange={setNext} />
      <Button type="submit" className="min-h-12" disabled={pin === '' || next === ''}>
        Change it
      </Button>
      <p role={told?.wrong ? 'alert' : 'status'} className="col-span-full min-h-6 font-semibold">
        {told?.says}
      </p>
    </form>
  )
}
