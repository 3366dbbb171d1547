import { useSyncExternalStore } from 'react'
import { listenerSet } from './listeners.ts'

const { notify, subscribe } = listenerSet()

/** The script that this page began with, as its document names it; none where it runs from its sources. */
const ownScript = () =>
  document.querySelector<HTMLScriptElement>('script[type="module"][src^="/assets/"]')?.getAttribute('src')

let other = false

/** Takes in which page the server has by now, by the script that it begins with; null where it does not say. */
export function notePage(served: string | null) {
  const own = served === null ? undefined : ownScript()
  const now = Boolean(own && served !== own)
  if (now === other) return
  other = now
  notify()
}

/** Whether the server has another page by now than the one that stands open here. */
export const useOtherPage = () => useSyncExternalStore(subscribe, () => other)

/** Does something whenever it turns out that the server has another page. */
export const whenOtherPage = (then: () => void) => subscribe(() => other && then())
