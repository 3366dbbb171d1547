import type { GaugeProof, GaugeTime } from '@dogleg/core/gauge'
import type { GaugeQuestion, Gauger } from './gauge-worker.ts'
import { type Asked, useAsked } from './use-asked.ts'

export interface GaugeTrial
  extends Pick<Asked<GaugeProof>, 'share' | 'stopped' | 'failed' | 'stop' | 'again'> {
  /** What the program was shown to do; of just this question. */
  proof: GaugeProof | undefined
  time: GaugeTime | undefined
}

const makeWorker = () => new Worker(new URL('./gauge-worker.ts', import.meta.url), { type: 'module' })

/**
 * Tries a gauging program off the page, a moment after the last change: proved in its setup and run against every kind of
 * part, then timed. A change ends it and begins anew; `stop` ends it for good, until it is asked for again.
 */
export function useGaugeProof(question: GaugeQuestion | undefined): GaugeTrial {
  const { answer, share, stopped, failed, stop, again } = useAsked<GaugeQuestion, Gauger, GaugeProof>(
    question,
    makeWorker,
    (worker, of, onProgress) => worker.prove(of, onProgress),
  )
  const time = useAsked<GaugeQuestion, Gauger, GaugeTime>(
    answer ? question : undefined,
    makeWorker,
    (worker, of) => worker.time(of),
  )
  return { proof: answer, time: time.answer, share, stopped, failed, stop, again }
}
