import { createContext, type ReactNode, Suspense, useCallback, useContext, useEffect, useState } from 'react'
import { Button } from '../ui/button.tsx'
import { lazyPart, NotHereYet, whenIdle } from '../ui/lazy-part.tsx'
import { operator, useOperator } from './operator.ts'
import { sessionNow, useSession } from './session.ts'

const loadAsking = async () => (await import('./ask-initials.tsx')).AskInitials
// A dialog is no part of the first screen; it is fetched once that stands.
const AskInitials = lazyPart(loadAsking, NotHereYet)
const loadAtTablet = async () => (await import('../people/at-tablet-dialog.tsx')).AtTabletDialog
const AtTablet = lazyPart(loadAtTablet, NotHereYet)

/** Asks who is at the tablet: by initials, or by signing in where that is the rule. */
function Asking({ records, ...asked }: { records: boolean; onClose: () => void; onTold: () => void }) {
  const { signs, person } = useSession()
  return (
    <Suspense fallback={null}>
      {signs ? (
        <AtTablet {...asked} looksOnly={records && person?.may === 'looker'} />
      ) : (
        <AskInitials {...asked} />
      )}
    </Suspense>
  )
}

/** Whether what is recorded now is signed: somebody has said who they are, and may. */
const isSigned = () => {
  const { signs, person } = sessionNow()
  return signs ? person !== undefined && person.may !== 'looker' : operator() !== ''
}

type Action = () => void
const Gate = createContext<(action: Action) => void>(() => {})

/** Runs an action that adds to the logbook, after asking who is at the tablet where nobody has said so yet. */
export const useSigned = () => useContext(Gate)

/** Asks for initials once, when the first entry is made, and from the header whenever the hands change. */
export function OperatorGate({ children }: { children: ReactNode }) {
  const [pending, setPending] = useState<Action>()
  const signed = useCallback((action: Action) => {
    if (isSigned()) action()
    else setPending(() => action)
  }, [])
  const { signs } = useSession()
  useEffect(() => whenIdle(signs ? loadAtTablet : loadAsking), [signs])
  return (
    <Gate.Provider value={signed}>
      {children}
      {pending && (
        <Asking
          records
          onClose={() => setPending(undefined)}
          onTold={() => {
            setPending(undefined)
            if (isSigned()) pending()
          }}
        />
      )}
    </Gate.Provider>
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
      {open && <Asking records={false} onClose={() => setOpen(false)} onTold={() => setOpen(false)} />}
    </>
  )
}
