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
