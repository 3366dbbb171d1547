import type { Page } from '@playwright/test'
import { expect, openAt, signIn, test } from './dogleg.ts'

/** What one tablet records stands on another so soon, by the pages' own clocks; no test of speed: a busy computer gets several tries. */
const SOON_MS = 300
const TRIES = 5

/** Sends a note from one page, as its outbox does, and waits until it stands on the other; gives how long that took, in ms. */
async function timeFromTo(from: Page, to: Page, text: string): Promise<number> {
  const stands = to.evaluate(
    (says) =>
      new Promise<number>((resolve) => {
        const look = () => document.body.textContent?.includes(says) && resolve(Date.now())
        new MutationObserver(look).observe(document.body, {
          childList: true,
          subtree: true,
          characterData: true,
        })
        look()
      }),
    text,
  )
  const sentAt = await from.evaluate(async (says) => {
    const setup = location.pathname.split('/')[2]
    const at = Date.now()
    const alphabet = '0123456789ABCDEFGHJKMNPQRSTVWXYZ'
    const id = `01KB${Array.from({ length: 22 }, () => alphabet[Math.floor(Math.random() * 32)]).join('')}`
    const entry = { id, setup, at: new Date(at).toISOString(), by: 'RT', kind: 'note', text: says }
    const { status } = await fetch('/api/entries', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ entries: [entry] }),
    })
    if (status !== 201) throw new Error(`It was refused: ${status}.`)
    return at
  }, text)
  return (await stands) - sentAt
}

test('what is recorded at one tablet stands on the other at once, and nobody asks for it meanwhile', async ({
  page,
  browser,
  server,
}) => {
  const context = await browser.newContext()
  const other = await context.newPage()
  await other.goto(server.address)
  await signIn(other, 'MK')
  await openAt(other, /second side/, 'Logbook')
  await signIn(page)
  await openAt(page, /second side/, 'Logbook')

  let best = Number.POSITIVE_INFINITY
  for (let n = 0; n < TRIES && best > SOON_MS; n++)
    best = Math.min(best, await timeFromTo(page, other, `From the other tablet, ${n}`))
  expect(best).toBeLessThanOrEqual(SOON_MS)

  // Two pages that stand idle ask for nothing.
  const asked: string[] = []
  for (const each of [page, other])
    each.on('request', (request) => {
      if (request.url().includes('/api/')) asked.push(request.url())
    })
  await page.waitForTimeout(8000)
  expect(asked).toEqual([])

  // The server is away, and comes back: the pages listen again, and miss nothing.
  await server.stop()
  await expect(other.getByText('The server does not answer. You can go on.')).toBeVisible()
  await server.start()
  await expect(other.getByText('The server does not answer.')).toHaveCount(0)
  await timeFromTo(page, other, 'After the server came back')
  await context.close()
})
