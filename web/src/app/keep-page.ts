import { Workbox } from 'workbox-window'
import { whenOtherPage } from '../log/other-page.ts'

/**
 * Keeps the page on this tablet, so that it opens while the server is away. Browsers allow that over https, and at the server's own PC;
 * elsewhere the page is fetched each time.
 */
export async function keepPage(): Promise<void> {
  if (!('serviceWorker' in navigator)) return
  const workbox = new Workbox('/sw.js')
  await workbox.register()
  // The server has another page by now: it is fetched, and taken when somebody says so or nobody types.
  whenOtherPage(() => void workbox.update().catch(() => undefined))
}
