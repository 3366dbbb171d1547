import { useEffect } from 'react'

const typed = new Set<object>()

/** Notes that something is typed here which is kept nowhere until it is saved or recorded. */
export function useUnsaved(is: boolean) {
  useEffect(() => {
    if (!is) return
    const this_ = {}
    typed.add(this_)
    return () => void typed.delete(this_)
  }, [is])
}

/** Whether anything is typed on this page that would be gone if it were loaded again. */
export const isAnythingUnsaved = () => typed.size > 0
