import { type ComponentType, useEffect, useState } from 'react'
import type { RouteObject } from 'react-router'
import { Failed } from './lost.tsx'

type Load = () => Promise<ComponentType>

/** How each view is loaded, by its path. */
const loads = new Map<string, Load>()

/** Loads a view ahead, so that it opens at once; where the server is away, when it is opened. */
export const loadAhead = async (path: string) =>
  void (await loads
    .get(path)?.()
    .catch(() => undefined))

/** A view that did not load when it was opened: tried again each time that it is shown. */
function Late({ load }: { load: Load }) {
  const [Loaded, setLoaded] = useState<ComponentType>()
  const [error, setError] = useState<unknown>()
  useEffect(() => {
    load().then((component) => setLoaded(() => component), setError)
  }, [load])
  if (error) throw error
  return Loaded ? <Loaded /> : <p className="py-10 text-lg">Opening…</p>
}

/**
 * A view that is loaded when it is opened. What goes wrong in it stays in it, and the rest of the page goes on; that holds for
 * loading too, where the router by itself would take the whole page away.
 */
export const view = (path: string, load: Load, children?: RouteObject[]): RouteObject => {
  loads.set(path, load)
  return {
    path,
    lazy: async () => ({ Component: await load().catch(() => () => <Late load={load} />) }),
    errorElement: <Failed />,
    ...(children ? { children } : {}),
  }
}
