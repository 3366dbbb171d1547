import type { Noun, Row } from '@dogleg/core/setup'
import { createContext, useContext, useEffect } from 'react'
import { useUnsaved } from '../log/unsaved.ts'

/** The id of a row that nobody has saved yet, in its address too. */
export const NEW = 'new'

/** A row that is being edited, while others may save it too. */
interface Editing {
  /** The version that somebody else saved since this one was opened; what is typed here stays meanwhile. */
  newer: number | undefined
  /** Goes on with the version that is saved now, and lets go of what was typed. */
  onNewer: () => void
  /** Something is typed that is not saved. */
  dirty: boolean
  /** Whether something is typed that is not saved. */
  noteDirty: (dirty: boolean) => void
  /** It is in no list yet: it is kept when it is saved. */
  isNew: boolean
  /** What becomes of a new one that was saved, where its page is not the place for it. */
  onCreated?: (row: Row<Noun>) => void
  /** This row stands now: it was saved here, or taken over. */
  adopt: (row: Row<Noun>) => void
}

const nothing = () => undefined
/** Outside of an editor there is nothing typed to be kept. */
export const EditingContext = createContext<Editing>({
  newer: undefined,
  onNewer: nothing,
  dirty: false,
  noteDirty: nothing,
  isNew: false,
  adopt: nothing,
})

export const useEditing = () => useContext(EditingContext)

/** Tells the page of the row whether something is typed that is not saved. */
export function useDirty(dirty: boolean) {
  const { noteDirty } = useEditing()
  useUnsaved(dirty)
  useEffect(() => noteDirty(dirty), [noteDirty, dirty])
}
