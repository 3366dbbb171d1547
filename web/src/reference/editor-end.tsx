import { CopyPlus } from 'lucide-react'
import { useLeads } from '../log/session.ts'
import { Button } from '../ui/button.tsx'
import { useDirty, useEditing } from './editing.ts'

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
  const { newer, onNewer, isNew } = useEditing()
  const leads = useLeads()
  useDirty(dirty)
  if (!leads)
    return (
      <p role="note" className="border-t border-rule py-3 font-semibold">
        A lead of the shop changes a {noun}: sign one in at the top to save anything here.
      </p>
    )
  return (
    <>
      {newer !== undefined && !save.error && (
        <div role="alert" className="flex flex-wrap items-center gap-3 border-2 border-ink p-3">
          <p className="flex-1 font-semibold">
            Somebody else saved this {noun} meanwhile (version {newer}). What you typed still stands here,
            over version {version}: look at theirs, then enter your change again.
          </p>
          <Button onClick={onNewer}>Show theirs</Button>
        </div>
      )}
      {save.error ? (
        <div role="alert" className="flex flex-wrap items-center gap-3 border-2 border-ink p-3">
          <p className="flex-1 font-semibold">{save.error.message}</p>
          {onTheirs && <Button onClick={onTheirs}>Show theirs</Button>}
        </div>
      ) : (
        <p role="status" className="min-h-6 text-ink-soft">
          {save.isPending
            ? 'Saving…'
            : isNew
              ? `Not in the list yet: this ${noun} is kept when you save it.`
              : saved
                ? `Version ${version}. What was written for an older one is stale.`
                : ''}
        </p>
      )}
      <div className="mt-2 flex gap-3">
        <Button
          type="submit"
          look="primary"
          className="min-h-12"
          disabled={!(dirty || isNew) || save.isPending}
        >
          Save
        </Button>
        {!isNew && (
          <Button className="min-h-12" onClick={onCopy}>
            <CopyPlus aria-hidden size={20} /> Copy as a new {noun}
          </Button>
        )}
      </div>
    </>
  )
}
