import type { ProgramTurn, TurnedProgram } from '@dogleg/core/angle'
import type { Profile } from '@dogleg/core/control'
import { proxy, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { endedSays, howItEnded, untilItEnds } from '../ui/worker-ended.tsx'
import type { Turner } from './turn-worker.ts'

export type TurningState =
  | { state: 'idle' }
  | { state: 'turning'; share: number }
  | { state: 'done'; result: TurnedProgram }
  | { state: 'failed'; says: string }

/** Turns a program in a worker, with its progress; `stop` ends it at once. */
export function useTurner() {
  const [now, setNow] = useState<TurningState>({ state: 'idle' })
  const worker = useRef<Worker>(undefined)
  const stop = () => {
    worker.current?.terminate()
    worker.current = undefined
    setNow({ state: 'idle' })
  }
  useEffect(() => () => worker.current?.terminate(), [])
  const turn = async (text: string, turning: ProgramTurn, profile: Profile) => {
    worker.current?.terminate()
    const own = new Worker(new URL('./turn-worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    setNow({ state: 'turning', share: 0 })
    // Progress comes by a port of its own, and may come after the result.
    let ended = false
    const failed = untilItEnds(own)
    try {
      const result = await Promise.race([
        wrap<Turner>(own).turn(
          text,
          turning,
          profile,
          proxy((share: number) => {
            if (worker.current === own && !ended) setNow({ state: 'turning', share })
          }),
        ),
        failed,
      ])
      ended = true
      if (worker.current === own) setNow({ state: 'done', result })
    } catch (error) {
      ended = true
      if (worker.current === own)
        setNow({
          state: 'failed',
          says: endedSays(
            howItEnded(error),
            'Turning broke off. Load the page again, and turn a shorter piece.',
          ),
        })
    } finally {
      own.terminate()
    }
  }
  return { now, turn, stop }
}
