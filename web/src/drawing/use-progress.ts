import { useEffect, useState } from 'react'

const stillness = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

/** Runs from 0 to 1 in `ms` while `running`; at once where the person wants no motion. Back to 0 when it is not. */
export function useProgress(running: boolean, ms: number): number {
  const [progress, setProgress] = useState(0)
  useEffect(() => {
    if (!running) return setProgress(0)
    if (stillness()) return setProgress(1)
    let frame = 0
    let start: number | undefined
    const step = (now: number) => {
      start ??= now
      const share = Math.min(1, (now - start) / ms)
      // Slow at both ends, as a hand taps.
      setProgress(share * share * (3 - 2 * share))
      if (share < 1) frame = requestAnimationFrame(step)
    }
    frame = requestAnimationFrame(step)
    return () => cancelAnimationFrame(frame)
  }, [running, ms])
  return progress
}
