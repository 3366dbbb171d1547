import type { GaugeProof, GaugeTime } from '@dogleg/core/gauge'
import { proxy, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import type { GaugeQuestion, Gauger } from './gauge-worker.ts'

/** How long nothing is typed before a program is tried, in ms. */
const PAUSE = 350

export interface GaugeTrial {
  /** What the program was shown to do; of just this question. */
  proof: GaugeProof | undefined
  time: GaugeTime | undefined
  /** It is being tried: how far it is, from 0 to 1. */
  share: number | undefined
  stopped: boolean
  failed: boolean
  stop: () => void
  again: () => void
}

interface Found {
  of: GaugeQuestion
  proof: GaugeProof
  time: GaugeTime | undefined
}

/**
 * Tries a gauging program off the page, a moment after the last change: proved in its setup and run against every kind of
 * part, then timed. A change ends it and begins anew; `stop` ends it for good, until it is asked for again.
 */
export function useGaugeProof(question: GaugeQuestion | undefined): GaugeTrial {
  const [found, setFound] = useState<Found>()
  const [share, setShare] = useState<number>()
  const [stopped, setStopped] = useState<GaugeQuestion>()
  const [failed, setFailed] = useState<GaugeQuestion>()
  const [tries, setTries] = useState(0)
  const worker = useRef<Worker>(undefined)
  // biome-ignore lint/correctness/useExhaustiveDependencies: trying again begins anew
  useEffect(() => {
    if (!question || stopped === question) return
    let live = true
    setShare(0)
    setFailed(undefined)
    const wait = setTimeout(async () => {
      const own = new Worker(new URL('./gauge-worker.ts', import.meta.url), { type: 'module' })
      worker.current = own
      const gauger = wrap<Gauger>(own)
      const broke = new Promise<never>((_, reject) => {
        own.onerror = () => reject(new Error('the worker ended'))
      })
      try {
        const proof = await Promise.race([
          gauger.prove(
            question,
            proxy((done: number) => {
              if (live) setShare(done)
            }),
          ),
          broke,
        ])
        if (!live) return
        setFound({ of: question, proof, time: undefined })
        setShare(undefined)
        const time = await Promise.race([gauger.time(question), broke])
        if (live) setFound({ of: question, proof, time })
      } catch {
        if (live) {
          setFailed(question)
          setShare(undefined)
        }
      } finally {
        own.terminate()
      }
    }, PAUSE)
    return () => {
      live = false
      clearTimeout(wait)
      worker.current?.terminate()
    }
  }, [question, stopped, tries])
  const mine = found && found.of === question ? found : undefined
  return {
    proof: mine?.proof,
    time: mine?.time,
    share: mine ? undefined : share,
    stopped: question !== undefined && stopped === question,
    failed: question !== undefined && failed === question,
    stop: () => {
      worker.current?.terminate()
      setStopped(question)
      setShare(undefined)
    },
    again: () => {
      setStopped(undefined)
      setTries(tries + 1)
    },
  }
}
