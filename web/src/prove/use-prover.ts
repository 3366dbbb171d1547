import type { ProveCase } from '@dogleg/core/prove'
import { proxy, wrap } from 'comlink'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { Proved, Prover } from './prove-worker.ts'

export type Proving =
  | { state: 'idle' }
  /** The last proof stays on screen while the next one is made. */
  | { state: 'proving'; share: number }
  | { state: 'done' }
  | { state: 'stopped' }
  | { state: 'failed'; says: string }

/** Proves a program in a worker, with its progress; `stop` ends it at once. `proved` is the last that was finished, with its case. */
export function useProver() {
  const [now, setNow] = useState<Proving>({ state: 'idle' })
  const [proved, setProved] = useState<Proved & { of: ProveCase }>()
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
    setNow({ state: 'idle' })
  }, [])
  const prove = useCallback(async (of: ProveCase) => {
    worker.current?.terminate()
    const own = new Worker(new URL('./prove-worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setNow({ state: 'proving', share: 0 })
    // Progress comes by a port of its own, and may come after the result.
    let ended = false
    const failed = new Promise<never>((_, reject) => {
      own.onerror = () => reject(new Error('the worker ended'))
    })
    try {
      const result = await Promise.race([
        wrap<Prover>(own).prove(
          of,
          proxy((share: number) => {
            if (worker.current === own && !ended) setNow({ state: 'proving', share })
          }),
        ),
        failed,
      ])
      ended = true
      if (worker.current !== own) return
      // For the benchmarks: from here to the picture.
      performance.mark('dogleg.proved')
      setProved({ ...result, of })
      setNow({ state: 'done' })
    } catch {
      ended = true
      if (worker.current === own)
        setNow({
          state: 'failed',
          says: 'Proving broke off: the program may be too large for this tablet. Nothing is lost; try a shorter piece.',
        })
    } finally {
      own.terminate()
    }
  }, [])
  return { now, proved, prove, stop, clear }
}
