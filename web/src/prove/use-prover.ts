import type { ProveCase } from '@dogleg/core/prove'
import { proxy, wrap } from 'comlink'
import { startTransition, useCallback, useEffect, useRef, useState } from 'react'
import { listenerSet } from '../log/listeners.ts'
import { endedSays, howItEnded, untilItEnds } from '../ui/worker-ended.tsx'
import type { ProgramText } from './large-text.ts'
import type { Proved, Prover } from './prove-worker.ts'
import type { Drawing } from './view/drawing.ts'

export type Proving =
  | { state: 'idle' }
  /** The last proof stays on screen while the next one is made. */
  | { state: 'proving' }
  | { state: 'done' }
  | { state: 'stopped' }
  | { state: 'failed'; says: string }

const isUnreadable = (error: unknown) => error instanceof Error && error.name === 'NotReadableError'

/** How far it is, 0 to 1: of use only to what shows it, so that nothing else is rendered for it. */
export interface ShareDone {
  get: () => number
  subscribe: (listener: () => void) => () => void
}

function shareDone() {
  const { notify, subscribe } = listenerSet()
  let share = 0
  return {
    get: () => share,
    subscribe,
    set: (next: number) => {
      share = next
      notify()
    },
  }
}

/**
 * Proves a program in a worker, with its progress; `stop` ends it at once. `proved` is the last that was finished, with
 * its case and its text; its picture goes to the drawing.
 */
export function useProver(drawing: Drawing) {
  const [now, setNow] = useState<Proving>({ state: 'idle' })
  const [proved, setProved] = useState<Omit<Proved, 'picture'> & { of: ProveCase; text: ProgramText }>()
  const [share] = useState(shareDone)
  const worker = useRef<Worker>(undefined)
  useEffect(() => () => worker.current?.terminate(), [])
  const stop = useCallback(() => {
    worker.current?.terminate()
    worker.current = undefined
    setNow({ state: 'stopped' })
  }, [])
  const clear = useCallback(() => {
    worker.current?.terminate()
    worker.current = undefined
    setProved(undefined)
    void drawing.show(undefined)
    setNow({ state: 'idle' })
  }, [drawing])
  const prove = useCallback(
    async (of: ProveCase, text: ProgramText) => {
      worker.current?.terminate()
      const own = new Worker(new URL('./prove-worker.ts', import.meta.url), { type: 'module' })
      worker.current = own
      share.set(0)
      setNow({ state: 'proving' })
      // Progress comes by a port of its own, and may come after the result.
      let ended = false
      const failed = untilItEnds(own)
      // A large text goes as the file that it came from: it need not be copied.
      const run = (from: string | Blob) =>
        wrap<Prover>(own).prove(
          of,
          from,
          proxy((done: number) => {
            if (worker.current === own && !ended) share.set(done)
          }),
        )
      try {
        const result = await Promise.race([
          // Where the file was changed meanwhile, what was opened still stands here.
          typeof text === 'string'
            ? run(text)
            : run(text.file).catch((error: unknown) =>
                isUnreadable(error) ? run(text.slice(0)) : Promise.reject(error),
              ),
          failed,
        ])
        ended = true
        if (worker.current !== own) return
        const { picture, ...rest } = result
        // For the benchmarks: from here to the picture.
        performance.mark('dogleg.proved')
        drawing.show(picture).then(
          () => performance.mark('dogleg.pictured'),
          () => undefined,
        )
        startTransition(() => {
          setProved({ ...rest, of, text })
          setNow({ state: 'done' })
        })
      } catch (error) {
        ended = true
        if (worker.current === own)
          setNow({
            state: 'failed',
            says: endedSays(
              howItEnded(error),
              'Proving broke off: the program may be too large for this tablet. Nothing is lost; try a shorter piece.',
            ),
          })
      } finally {
        own.terminate()
      }
    },
    [drawing, share],
  )
  return { now, share: share as ShareDone, proved, prove, stop, clear }
}
