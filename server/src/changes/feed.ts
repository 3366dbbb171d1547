import type { Answer } from '@dogleg/core/api'

/** What is told of a change: how far the logbook and the rows go now, and which setups have new entries. */
export type Changed = Answer<'changes'>

/** A setup that has new entries, and its machine where it is known. */
export type Touched = Changed['setups'][number]

/** What is told, and the place up to which all has been told then: who was cut off goes on from there. */
export interface Told {
  changed: Changed
  upTo: number
}

/** Whoever listens; `close` ends it from here. */
export interface Listener {
  tell: (told: Told) => void
  close: () => void
}

/** How often everybody is told that nothing has changed, in ms: whoever hears nothing for longer is cut off. */
const BEAT_MS = 15_000

/**
 * Tells every tablet that listens of what was written, once it stands in the logbook, in the order in which it was.
 * `now` says how far the logbook and the rows go: that may be further than has been told, for what is just about to be; `from` how far the
 * logbook went before anybody listened.
 */
export function changeFeed(now: () => Promise<Omit<Changed, 'setups'>>, from: number) {
  const listeners = new Set<Listener>()
  /** Place of the last entry that was told of. */
  let upTo = from
  const tellAll = async (setups: Touched[], last: number | undefined, all?: true) => {
    if (last !== undefined) upTo = Math.max(upTo, last)
    const until = upTo
    if (listeners.size === 0) return
    const changed: Changed = { ...(await now()), setups, ...(all ? { all } : {}) }
    for (const { tell } of listeners) tell({ changed, upTo: until })
  }
  const beat = setInterval(() => void tellAll([], undefined).catch(() => undefined), BEAT_MS)
  beat.unref()
  return {
    /** Entries of some setups were written, up to a place. A feed that fails holds nobody up: each tablet asks again by itself. */
    changed: (setups: Touched[], last: number) => void tellAll(setups, last).catch(() => undefined),
    /** A row was written. */
    rowChanged: () => void tellAll([], undefined).catch(() => undefined),
    /** Anything may have been written. */
    allChanged: () =>
      void now()
        .then(({ place }) => tellAll([], place.seq, true))
        .catch(() => undefined),
    /** Tells one who begins to listen how things stand: what is written from now on it hears. */
    listen: async (listener: Listener): Promise<{ off: () => void; stands: Told }> => {
      listeners.add(listener)
      const before = upTo
      const stands = await now()
      // What was written before, and is just about to be told, is told again to whoever is cut off meanwhile.
      return {
        off: () => void listeners.delete(listener),
        stands: { changed: { ...stands, setups: [] }, upTo: before },
      }
    },
    end: () => {
      clearInterval(beat)
      for (const { close } of listeners) close()
      listeners.clear()
    },
  }
}
export type ChangeFeed = ReturnType<typeof changeFeed>
