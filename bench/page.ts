import { type BrowserContextOptions, chromium, type Page } from '@playwright/test'
import { launchOptions, Server } from '../e2e/harness.ts'

/** Does something with a page of the real server, at which RT stands; both end with it. */
export async function withPage(does: (page: Page) => Promise<void>, options: BrowserContextOptions = {}) {
  const server = new Server()
  await server.start()
  const browser = await chromium.launch(launchOptions)
  try {
    const context = await browser.newContext({ baseURL: server.address, ...options })
    const page = await context.newPage()
    // What the TypeScript runner puts round functions that are named; the page has none.
    await page.addInitScript('globalThis.__name = (named) => named')
    await page.addInitScript(() => localStorage.setItem('dogleg.operator', 'RT'))
    await does(page)
  } finally {
    await browser.close()
    await server.stop()
  }
}
