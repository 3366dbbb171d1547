import { chromium } from '@playwright/test'
import { launchOptions, Server } from '../e2e/harness.ts'
import { report } from './report.ts'

const LIMIT_BYTES = 200_000

/** JavaScript that the first screen loads, as it crosses the network, and the time until the list is on screen. */
export async function benchFirstLoad() {
  const server = new Server()
  await server.start()
  const browser = await chromium.launch(launchOptions)
  try {
    const page = await browser.newPage()
    const scripts: Promise<number>[] = []
    page.on('requestfinished', (request) => {
      if (request.resourceType() === 'script')
        scripts.push(request.sizes().then(({ responseBodySize }) => responseBodySize))
    })
    await page.goto(server.address)
    await page.getByRole('link', { name: /first side/ }).waitFor()
    const shown = await page.evaluate(() => performance.now())
    const bytes = (await Promise.all(scripts)).reduce((sum, size) => sum + size, 0)
    report({
      name: `JavaScript of the first screen, as sent (list shown ${Math.round(shown)} ms after the address was opened)`,
      baseline: 'the room given to it',
      measured: `${(bytes / 1000).toFixed(1)} kB`,
      against: `${LIMIT_BYTES / 1000} kB`,
      ratio: bytes / LIMIT_BYTES,
      limit: 1,
    })
  } finally {
    await browser.close()
    await server.stop()
  }
}
