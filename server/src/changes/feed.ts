import type { Answer } from '@dogleg/core/api'

/** What is told of a change: how far the logbook and the rows go now, and which setups have new entries. */
export type Changed = Answer<'changes'>

/** A setup that has new entries, and its machine where it is known. */
export type Touched = Changed['setups'][number]

/** Whoever listens; `close` ends it from here. */
export interface Listener {
  tell: (changed: Changed) => void
  close: () => void
}

/** How often everybody is told that nothing has changed, in ms: whoever hears nothing for longer is cut off. */
const BEAT_MS = 15_000

/**
 * Tells every tablet that listens of what was written, once it stands in the logbook.
 * `now` says how far the logbook and the rows go.
 */
export function changeFeed(now: () => Promise<Omit<Changed, 'setups'>>) {
  const listeners = new Set<Listener>()
  const tellAll = async (setups: Touched[], all?: true) => {
    if (listeners.size === 0) return
    const changed: Changed = { ...(await now()), setups, ...(all ? { all } : {}) }
    for (const { tell } of listeners) tell(changed)
  }
  const beat = setInterval(() => void tellAll([]).catch(() => undefined), BEAT_MS)
  beat.unref()
  return {
    now,
    /** Something was written: entries of some setups, or a row. A feed that fails holds nobody up: each tablet asks again by itself. */
    changed: (setups: Touched[] = []) => void tellAll(setups).catch(() => undefined),
    /** Anything may have been written. */
    changedAll: () => void tellAll([], true).catch(() => undefined),
    listen: (listener: Listener) => {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
    /** How many listen. */
    get listening() {
      return listeners.size
    },
    end: () => {
      clearInterval(beat)
      for (const { close } of listeners) close()
      listeners.clear()
    },
  }
}
export type ChangeFeed = ReturnType<typeof changeFeed>
