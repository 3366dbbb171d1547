import { useEffect } from 'react'
import { useChosen } from './choices.ts'

/** Whether a page can keep the screen on here: over https, and at the server's own PC. */
export const canStayAwake = () => 'wakeLock' in navigator

/** Keeps the screen on while this is shown, where it is wanted and the browser can. */
export function useStayAwake() {
  const wanted = useChosen('awake') === 'on'
  useEffect(() => {
    if (!wanted || !canStayAwake()) return
    let held: WakeLockSentinel | undefined
    let over = false
    const hold = async () => {
      if (document.visibilityState !== 'visible' || (held && !held.released)) return
      try {
        held = await navigator.wakeLock.request('screen')
        if (over) await held.release()
      } catch {
        // The battery is low, or the page was left: asked again when it is looked at.
      }
    }
    void hold()
    document.addEventListener('visibilitychange', hold)
    return () => {
      over = true
      document.removeEventListener('visibilitychange', hold)
      void held?.release().catch(() => undefined)
    }
  }, [wanted])
}
