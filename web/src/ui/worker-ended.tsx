import { Button } from './button.tsx'

/** How a worker ended before it had answered: it broke, or its part of the page never came. */
export type Ended = 'broke' | 'not-here'

class WorkerEnded extends Error {
  readonly how: Ended
  constructor(how: Ended) {
    super('the worker ended')
    this.how = how
  }
}

/**
 * Fails when a worker ends by itself. One whose script cannot be fetched says so by an event that has no error in it: where the page is
 * not kept on the tablet, and the server is away or has a newer one.
 */
export const untilItEnds = (worker: Worker): Promise<never> =>
  new Promise((_, reject) => {
    worker.onerror = (event) => reject(new WorkerEnded(event instanceof ErrorEvent ? 'broke' : 'not-here'))
  })

export const howItEnded = (error: unknown): Ended => (error instanceof WorkerEnded ? error.how : 'broke')

const NOT_HERE =
  'This part of Dogleg is not on this tablet yet, and the server did not give it. Nothing is lost: try again when the server answers, or load the page again.'

/** What is said of it; `broke` where it broke. */
export const endedSays = (ended: Ended, broke: string): string => (ended === 'not-here' ? NOT_HERE : broke)

/** That a worker ended, and the key that tries again. */
export const EndedLine = ({
  ended,
  broke,
  again,
  tryAgain = 'Try again',
}: {
  ended: Ended
  broke: string
  again: () => void
  tryAgain?: string
}) => (
  <span className="font-semibold" role="alert">
    {endedSays(ended, broke)} <Button onClick={again}>{tryAgain}</Button>
  </span>
)
