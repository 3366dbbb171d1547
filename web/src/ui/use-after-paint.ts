import { startTransition, useEffect, useState } from 'react'
import { useLatest } from './use-latest.ts'

/**
 * What a value was until the page has been drawn with the new one: what follows from it is computed and drawn after that, and holds up
 * neither the field that is typed in nor its answer. A change that comes meanwhile begins it anew. `follow` lets it follow at once, for
 * a key that is about to be pressed.
 */
export function useAfterPaint<T>(value: T): [later: T, follow: () => void] {
  const [later, setLater] = useState(value)
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => startTransition(() => setLater(() => value)))
    })
    return () => {
      cancelAnimationFrame(frame)
      clearTimeout(timer)
    }
  }, [value])
  const follow = useLatest(() => setLater(() => value))
  return [later, follow]
}
