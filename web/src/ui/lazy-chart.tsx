import { type ComponentType, lazy } from 'react'

/** What stands in a chart's place while the server that has it is away: the page itself goes on. */
const NotHere = () => (
  <p className="rounded-sm bg-layout p-3 text-scribe">
    The chart is not on this tablet yet, and the server does not answer. Everything else works; load the page
    again later.
  </p>
)

/** A chart that is loaded when the first one is shown. */
export const lazyChart = <Props extends object>(load: () => Promise<ComponentType<Props>>) =>
  lazy(async (): Promise<{ default: ComponentType<Props> }> => {
    try {
      return { default: await load() }
    } catch {
      return { default: NotHere }
    }
  })
