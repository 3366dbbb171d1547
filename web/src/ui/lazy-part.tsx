import { type ComponentType, lazy, type ReactNode } from 'react'

/**
 * A part of the page that is loaded when the first one is shown. Where the server that has it is away, `instead` stands
 * in its place, and the page itself goes on.
 */
export const lazyPart = <Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  instead: () => ReactNode,
) =>
  lazy(async (): Promise<{ default: ComponentType<Props> }> => {
    try {
      return { default: await load() }
    } catch {
      return { default: instead }
    }
  })

/** The first screen has so long to itself, in ms. */
const FIRST_SCREEN_MS = 2000

/**
 * Fetches a part that will be wanted soon, once the first screen has had its time and the page has nothing else to do. Gives what
 * calls it off.
 */
export function whenIdle(load: () => Promise<unknown>): () => void {
  let asked: number | undefined
  // Where it cannot be had, it is asked for again when it is wanted.
  const fetchIt = () => void load().catch(() => undefined)
  const timer = setTimeout(() => {
    if (typeof requestIdleCallback === 'undefined') fetchIt()
    else asked = requestIdleCallback(fetchIt, { timeout: 5000 })
  }, FIRST_SCREEN_MS)
  return () => {
    clearTimeout(timer)
    if (asked !== undefined) cancelIdleCallback(asked)
  }
}

/** What stands in the place of a dialog. */
export const NotHereYet = () => (
  <p role="alert" className="fixed inset-x-4 top-16 z-50 border-2 border-ink bg-stock p-3 font-semibold">
    This is not on this tablet yet, and the server does not answer. Load the page again when it does.
  </p>
)

/** What stands in a chart's place. */
export const NoChart = () => (
  <p className="rounded-sm bg-layout p-3 text-scribe">
    The chart is not on this tablet yet, and the server does not answer. Everything else works; load the page
    again later.
  </p>
)

/** What stands in the place of a part of a step. */
export const NoPart = () => (
  <p className="py-6 text-lg">
    This part is not on this tablet yet, and the server does not answer. Everything else works; load the page
    again later.
  </p>
)
