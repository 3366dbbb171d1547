import { get, set } from 'idb-keyval'
import { useCallback, useEffect, useRef, useState } from 'react'
import { type ProgramText, programText, textOf } from './large-text.ts'

/** A program that is open: its name and its text. */
export interface OpenProgram {
  title: string
  text: ProgramText
}

/** What is kept of it; a large one as a file, which the tablet's database copies by itself. */
const keptOf = ({ title, text }: OpenProgram) => ({
  title,
  text: typeof text === 'string' ? text : text.file,
})

/** A program as it was kept; undefined where it is none. */
async function programKept(value: unknown): Promise<OpenProgram | undefined> {
  if (typeof value !== 'object' || value === null || !('title' in value && 'text' in value)) return undefined
  const { title, text } = value
  return {
    title: String(title),
    text: text instanceof Blob ? await textOf(text) : programText(String(text)),
  }
}

const keyOf = (setup: string) => `program.${setup}`

const handedKey = (setup: string) => `handed.${setup}`

/** Remembers that a text was put into Prove from where it can be had again: another may take its place without a question. */
export const noteHanded = (setup: string, text: string): Promise<void> => set(handedKey(setup), text)

/** Puts a program where Prove opens it, and remembers what was put there. */
export async function keepProgram(setup: string, program: { title: string; text: string }): Promise<void> {
  await set(keyOf(setup), keptOf(program))
  await noteHanded(setup, program.text)
}

/** The name of the program that stands in Prove, unless it is empty, was put there by `keepProgram`, or has one of these texts. */
export async function isKept(setup: string, texts: readonly string[]): Promise<string | undefined> {
  const standing = await get(keyOf(setup))
    .then(programKept)
    .catch(() => undefined)
  if (!standing || standing.text.length === 0) return undefined
  const { text, title } = standing
  const handed = await get(handedKey(setup)).catch(() => undefined)
  const known = typeof text === 'string' && (text === handed || texts.includes(text))
  return known ? undefined : title || 'A program'
}

/** Typing pauses this long before it is kept on the tablet. */
const KEEP_AFTER_MS = 400

/**
 * The program that is open for a setup, kept on the tablet (in its database: programs are larger than what a draft may
 * be), so that a reload loses nothing. `undefined` while it is looked up, null where there is none.
 */
export function useProgram(setup: string, start: OpenProgram | undefined) {
  const [program, setProgram] = useState<OpenProgram | null>()
  const [unkept, setUnkept] = useState(false)
  /** What was typed and is not kept yet. */
  const due = useRef<OpenProgram>(undefined)
  const timer = useRef<number>(undefined)
  const key = keyOf(setup)
  const first = useRef(start)
  const keep = useCallback(() => {
    window.clearTimeout(timer.current)
    const program = due.current
    due.current = undefined
    if (program)
      set(key, keptOf(program)).then(
        () => setUnkept(false),
        () => setUnkept(true),
      )
  }, [key])
  // Leaving the step, the page or the tab does not wait for typing to pause.
  useEffect(() => {
    const whenHidden = () => document.visibilityState === 'hidden' && keep()
    window.addEventListener('pagehide', keep)
    document.addEventListener('visibilitychange', whenHidden)
    return () => {
      window.removeEventListener('pagehide', keep)
      document.removeEventListener('visibilitychange', whenHidden)
      keep()
    }
  }, [keep])
  useEffect(() => {
    let live = true
    get(key)
      .then(programKept)
      .then((found) => live && setProgram(found ?? first.current ?? null))
      .catch(() => live && setProgram(first.current ?? null))
    return () => {
      live = false
    }
  }, [key])
  const change = useCallback(
    (next: OpenProgram) => {
      setProgram(next)
      due.current = next
      window.clearTimeout(timer.current)
      timer.current = window.setTimeout(keep, KEEP_AFTER_MS)
    },
    [keep],
  )
  return { program, change, unkept }
}
