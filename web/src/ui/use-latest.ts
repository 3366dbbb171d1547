import { useCallback, useLayoutEffect, useRef } from 'react'

/**
 * A function that is called late, when an answer or a file has come, as it was shown last: it then changes what stands in the form by
 * now, with what was typed meanwhile. As it was when it began it would take that away.
 */
export function useLatest<Args extends unknown[], Result>(
  now: (...args: Args) => Result,
): (...args: Args) => Result {
  const latest = useRef(now)
  useLayoutEffect(() => {
    latest.current = now
  })
  return useCallback((...args: Args) => latest.current(...args), [])
}
