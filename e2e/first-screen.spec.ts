import { expect, test } from './dogleg.ts'

/** Requests before the shop is on screen, by what they are for. */
const MOST = { document: 1, script: 8, stylesheet: 1, font: 2, image: 1, fetch: 8, eventsource: 1, other: 1 }

test('the first screen asks for each thing once, and for no more than it needs', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext()
  const page = await context.newPage()
  const asked: { kind: string; path: string }[] = []
  page.on('request', (request) =>
    asked.push({ kind: request.resourceType(), path: new URL(request.url()).pathname }),
  )
  // The page finds no quiet moment until the shop is on screen, so that a slow machine counts the same requests as a fast one.
  await page.addInitScript(() => {
    const waiting: IdleRequestCallback[] = []
    window.requestIdleCallback = (then) => waiting.push(then)
    const quiet = () => {
      window.requestIdleCallback = (then) => window.setTimeout(then)
      for (const then of waiting) then({ didTimeout: false, timeRemaining: () => 50 })
    }
    window.addEventListener('quiet', quiet, { once: true })
  })
  await page.goto(server.address)
  await expect(page.getByRole('link', { name: /first side/ })).toBeVisible()
  const count = (kind: string) => asked.filter((each) => each.kind === kind).length
  for (const [kind, most] of Object.entries(MOST)) expect(count(kind), kind).toBeLessThanOrEqual(most)
  expect(asked.map(({ kind }) => kind).filter((kind) => !(kind in MOST))).toEqual([])
  expect(count('script')).toBeGreaterThan(0)
  // And what is fetched once it stands, for the dialogs, has nothing of it again.
  await page.evaluate(() => window.dispatchEvent(new Event('quiet')))
  await expect.poll(() => asked.some(({ path }) => path.includes('open-setup-dialog'))).toBe(true)
  await expect.poll(() => asked.some(({ path }) => path.includes('ask-initials'))).toBe(true)
  // The icon of the tab is the browser's own asking.
  const paths = asked.flatMap(({ kind, path }) =>
    ['other', 'fetch', 'eventsource'].includes(kind) ? [] : path,
  )
  expect(paths.filter((path, index) => paths.indexOf(path) !== index)).toEqual([])
  await context.close()
})
