import { Button } from '../ui/button.tsx'

interface SavedProps {
  pending: boolean
  error: Error | null
  saved: boolean
  /** Shows what somebody else saved meanwhile, in place of this form. */
  onTheirs?: (() => void) | undefined
}

/** What became of a save. */
export function Saved({ pending, error, saved, onTheirs }: SavedProps) {
  if (error)
    return (
      <div role="alert" className="flex flex-wrap items-center gap-3 border-2 border-ink p-3">
        <p className="flex-1 font-semibold">{error.message}</p>
        {onTheirs && <Button onClick={onTheirs}>Show theirs</Button>}
      </div>
    )
  return (
    <p role="status" className="min-h-6 text-ink-soft">
      {pending
        ? 'Saving…'
        : saved
          ? 'Saved as the next version. What was written for the old one is stale.'
          : ''}
    </p>
  )
}
