import { createContext, type ReactNode, Suspense, useCallback, useContext, useEffect, useState } from 'react'
import { Button } from '../ui/button.tsx'
import { lazyPart, NotHereYet, whenIdle } from '../ui/lazy-part.tsx'
import { operator, useOperator } from './operator.ts'

const loadAsking = async () => (await import('./ask-initials.tsx')).AskInitials
// A dialog is no part of the first screen; it is fetched once that stands.
const AskInitials = lazyPart(loadAsking, NotHereYet)
const Asking = (asked: { onClose: () => void; onTold: () => void }) => (
  <Suspense fallback={null}>
    <AskInitials {...asked} />
  </Suspense>
)

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
  useEffect(() => whenIdle(loadAsking), [])
  return (
    <Gate.Provider value={signed}>
      {children}
      {pending && (
        <Asking
          onClose={() => setPending(undefined)}
          onTold={() => {
            setPending(undefined)
            pending()
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
      {open && <Asking onClose={() => setOpen(false)} onTold={() => setOpen(false)} />}
    </>
  )
}
