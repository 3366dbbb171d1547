import { get, set } from 'idb-keyval'
import { useCallback, useEffect, useRef, useState } from 'react'

/** A program that is open: its name and its text. */
export interface OpenProgram {
  title: string
  text: string
}

const isProgram = (value: unknown): value is OpenProgram =>
  typeof value === 'object' && value !== null && 'title' in value && 'text' in value

/** Typing pauses this long before it is kept on the tablet. */
const KEEP_AFTER_MS = 400

/**
 * The program that is open for a setup, kept on the tablet (in its database: programs are larger than what a draft may
 * be), so that a reload loses nothing. `undefined` while it is looked up, null where there is none.
 */
export function useProgram(setup: string, start: OpenProgram | undefined) {
  const [program, setProgram] = useState<OpenProgram | null>()
  const [unkept, setUnkept] = useState(false)
  const timer = useRef<number>(undefined)
  const key = `program.${setup}`
  const first = useRef(start)
  useEffect(() => {
    let live = true
    get(key)
      .then((found: unknown) => live && setProgram(isProgram(found) ? found : (first.current ?? null)))
      .catch(() => live && setProgram(first.current ?? null))
    return () => {
      live = false
      window.clearTimeout(timer.current)
    }
  }, [key])
  const change = useCallback(
    (next: OpenProgram) => {
      setProgram(next)
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(() => {
        set(key, next).then(
          () => setUnkept(false),
          () => setUnkept(true),
        )
      }, KEEP_AFTER_MS)
    },
    [key],
  )
  return { program, change, unkept }
}
