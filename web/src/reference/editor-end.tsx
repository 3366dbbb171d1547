import { CopyPlus } from 'lucide-react'
import { Button } from '../ui/button.tsx'

interface EditorEndProps {
  /** 'machine', 'profile'. */
  noun: string
  save: { isPending: boolean; error: Error | null }
  dirty: boolean
  version: number
  onCopy: () => void
  /** Shows what somebody else saved meanwhile, in place of this form. */
  onTheirs: (() => void) | undefined
}

/** The foot of an editor: what became of the save, and what can be done. */
export function EditorEnd({ noun, save, dirty, version, onCopy, onTheirs }: EditorEndProps) {
  const saved = version > 1 && !dirty
  return (
    <>
      {save.error ? (
        <div role="alert" className="flex flex-wrap items-center gap-3 border-2 border-ink p-3">
          <p className="flex-1 font-semibold">{save.error.message}</p>
          {onTheirs && <Button onClick={onTheirs}>Show theirs</Button>}
        </div>
      ) : (
        <p role="status" className="min-h-6 text-ink-soft">
          {save.isPending
            ? 'Saving…'
            : saved
              ? `Version ${version}. What was written for an older one is stale.`
              : ''}
        </p>
      )}
      <div className="mt-2 flex gap-3">
        <Button type="submit" look="primary" className="min-h-12" disabled={!dirty || save.isPending}>
          Save
        </Button>
        <Button className="min-h-12" onClick={onCopy}>
          <CopyPlus aria-hidden size={20} /> Copy as a new {noun}
        </Button>
      </div>
    </>
  )
}
