/** A newer page has so long to be fetched, in ms. */
const FETCH_MS = 60_000

/** Loads the page that the server has now, in the place of the one that this tablet keeps. */
export async function loadNewPage(): Promise<void> {
  const registration = await navigator.serviceWorker?.getRegistration()
  if (!registration?.active) return location.reload()
  let loaded = false
  const load = () => {
    if (!loaded) location.reload()
    loaded = true
  }
  navigator.serviceWorker.addEventListener('controllerchange', load, { once: true })
  setTimeout(load, FETCH_MS)
  const take = (worker: ServiceWorker) => worker.postMessage({ type: 'SKIP_WAITING' })
  if (registration.waiting) return take(registration.waiting)
  await registration.update().catch(() => undefined)
  const next = registration.installing ?? registration.waiting
  if (!next) return load()
  if (next.state === 'installed') return take(next)
  next.addEventListener('statechange', () => next.state === 'installed' && take(next))
}
