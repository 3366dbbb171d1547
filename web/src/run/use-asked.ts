import { proxy, type Remote, wrap } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { type Ended, howItEnded, untilItEnds } from '../ui/worker-ended.tsx'

/** How long nothing changes before a worker is asked, in ms. */
const PAUSE = 300

export interface Asked<Answer> {
  /** Of just this question. */
  answer: Answer | undefined
  /** The last that there was, while this question is being answered. */
  last: Answer | undefined
  /** How far it is, 0 to 1, while it is being answered. */
  share: number | undefined
  stopped: boolean
  /** How it ended before it had answered. */
  failed: Ended | undefined
  stop: () => void
  again: () => void
}

/**
 * Asks a worker of its own a moment after the question changed; a change ends what is under way. `question` must keep its
 * identity while it is the same. `stop` ends it until it is asked again.
 */
export function useAsked<Question, Api, Answer>(
  question: Question | undefined,
  make: () => Worker,
  ask: (worker: Remote<Api>, question: Question, onProgress: (share: number) => void) => Promise<Answer>,
): Asked<Answer> {
  const [found, setFound] = useState<{ of: Question; answer: Answer }>()
  const [share, setShare] = useState<number>()
  const [stopped, setStopped] = useState<Question>()
  const [failed, setFailed] = useState<{ of: Question; ended: Ended }>()
  const [tries, setTries] = useState(0)
  const worker = useRef<Worker>(undefined)
  const how = useRef({ make, ask })
  how.current = { make, ask }
  // biome-ignore lint/correctness/useExhaustiveDependencies: trying again begins anew
  useEffect(() => {
    if (question === undefined || stopped === question) return
    let live = true
    setShare(0)
    setFailed(undefined)
    const wait = setTimeout(async () => {
      const own = how.current.make()
      worker.current = own
      try {
        const answer = await Promise.race([
          how.current.ask(
            wrap<Api>(own),
            question,
            proxy((done: number) => {
              if (live) setShare(done)
            }),
          ),
          untilItEnds(own),
        ])
        if (live) setFound({ of: question, answer })
      } catch (error) {
        if (live) setFailed({ of: question, ended: howItEnded(error) })
      } finally {
        own.terminate()
        if (live) setShare(undefined)
      }
    }, PAUSE)
    return () => {
      live = false
      clearTimeout(wait)
      worker.current?.terminate()
    }
  }, [question, stopped, tries])
  const mine = found !== undefined && found.of === question
  return {
    answer: mine ? found.answer : undefined,
    last: found?.answer,
    share: mine ? undefined : share,
    stopped: question !== undefined && stopped === question,
    failed: failed?.of === question ? failed?.ended : undefined,
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
