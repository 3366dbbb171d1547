import { isDemo } from '@dogleg/core/api'
import { api } from '../log/api.ts'

const EVERY_MS = 300
const PATIENCE_MS = 60_000

/** Waits until the server shows the own shop: it goes on with it by itself, at the same address. */
export async function ownShopThere() {
  const until = performance.now() + PATIENCE_MS
  while (performance.now() < until) {
    const logbook = await api.shop().then(
      (shop) => shop.logbook,
      () => undefined,
    )
    if (logbook !== undefined && !isDemo(logbook)) return
    await new Promise((resolve) => setTimeout(resolve, EVERY_MS))
  }
  throw new Error(
    'Your shop is set up, but the server has not gone on with it. Start Dogleg again on the server.',
  )
}
