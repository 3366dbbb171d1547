import { useEffect, useState } from 'react'

/** Whether something is so, and has been for `ms`: what is over sooner is not told. */
export function useLasts(is: boolean, ms: number): boolean {
  const [lasts, setLasts] = useState(false)
  useEffect(() => {
    if (!is) return
    const timer = setTimeout(() => setLasts(true), ms)
    return () => {
      clearTimeout(timer)
      setLasts(false)
    }
  }, [is, ms])
  return is && lasts
}
