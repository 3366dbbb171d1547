import type { BrowserContext, Page } from '@playwright/test'
import { expect, openAt, type Server, signIn, test, toStep } from './dogleg.ts'
import { startNewer } from './newer-release.ts'
import { runThere } from './simulated.ts'

/** Until the page is kept on this tablet, with all of its files. */
const kept = (page: Page) =>
  page.evaluate(async () => {
    await navigator.serviceWorker.ready
  })

/** A tablet with a browser of its own that keeps the page. */
async function tabletOf(context: BrowserContext, address: string) {
  const page = await context.newPage()
  const errors: string[] = []
  page.on('pageerror', (error) => errors.push(error.message))
  await page.goto(address)
  await kept(page)
  return { page, errors }
}

test('a page that is opened while the server is away shows what this tablet has seen, and works on it', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const { page, errors } = await tabletOf(context, server.address)
  await signIn(page)
  await openAt(page, /second side/, 'Logbook')
  await expect(page.getByRole('row').nth(3)).toBeVisible()
  const setup = page.url()
  await page.getByRole('link', { name: 'Shop', exact: true }).click()
  await openAt(page, /first side/, 'Logbook')
  await expect(page.getByRole('row').nth(3)).toBeVisible()
  await server.stop()

  // Opened anew, at the setup and at the shop: both stand, and say from when they are.
  const again = await context.newPage()
  await again.goto(setup)
  await expect(again.getByText(/What is shown is as of/)).toBeVisible()
  await expect(again.getByRole('row').nth(3)).toBeVisible()
  await again.getByRole('link', { name: 'Shop', exact: true }).click()
  await expect(again.getByRole('link', { name: /second side/ }).first()).toBeVisible()

  // What needs no server works: a step that was never opened here, a program written, and proved in a worker.
  await openAt(again, /first side/, 'Zero')
  await expect(again.getByRole('heading', { level: 2 }).first()).toBeVisible()
  await toStep(again, 'Code')
  await expect(again.getByRole('region', { name: 'Program text' })).toContainText('G84')
  await toStep(again, 'Prove')
  await expect(again.getByRole('button', { name: 'Record the proof', exact: true })).toBeEnabled()
  await again.goto(setup)
  await again.getByLabel('Add a note').fill('Written while the server was away.')
  await again.keyboard.press('Enter')
  await expect(again.getByText(/1 entry is kept on this tablet/)).toBeVisible()

  // A setup that this tablet has never seen is not there, and that is said.
  await again.goto(`${server.address}/setups/01M8JSHE3K9HABF3T635A5XCKS/ready`)
  await expect(again.getByText(/The server does not answer/).first()).toBeVisible()

  await server.start()
  await again.goto(setup)
  await expect(again.getByText('Written while the server was away.')).toBeVisible()
  await expect(again.getByText(/What is shown is as of/)).toHaveCount(0)
  await expect(again.getByText(/kept on this tablet/)).toHaveCount(0)
  expect(errors).toEqual([])
  await context.close()
})

test('two pages of one tablet with the server away send what each recorded once', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const { page } = await tabletOf(context, server.address)
  await signIn(page)
  await openAt(page, /second side/, 'Logbook')
  await expect(page.getByRole('row').nth(3)).toBeVisible()
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(other.getByRole('row').nth(3)).toBeVisible()
  await server.stop()
  const note = async (on: Page, text: string) => {
    await on.getByLabel('Add a note').fill(text)
    await on.keyboard.press('Enter')
    await expect(on.getByText(text)).toBeVisible()
  }
  await note(page, 'From the first page.')
  await note(other, 'From the second page.')
  await expect(page.getByText('2 entries are kept on this tablet until the server answers')).toBeVisible()
  await server.start()
  for (const each of [page, other]) {
    await expect(each.getByText(/kept on this tablet/)).toHaveCount(0, { timeout: 30_000 })
    await each.reload()
    for (const text of ['From the first page.', 'From the second page.'])
      await expect(each.getByText(text)).toHaveCount(1)
  }
  await context.close()
})

test('the page can be installed, as the browser judges it', async ({ server, browser }) => {
  const context = await browser.newContext()
  const { page } = await tabletOf(context, server.address)
  const devtools = await context.newCDPSession(page)
  const manifest = await devtools.send('Page.getAppManifest')
  expect(manifest.errors).toEqual([])
  expect(JSON.parse(manifest.data ?? '')).toMatchObject({ name: 'Dogleg', display: 'standalone' })
  const { installabilityErrors } = await devtools.send('Page.getInstallabilityErrors')
  // A window without a history of its own is never installed from: nothing else is against it.
  expect(installabilityErrors.map(({ errorId }) => errorId).filter((id) => id !== 'in-incognito')).toEqual([])
  await context.close()
})

test('an old page at a newer server says so, is answered nothing that it might misread, and what it recorded goes out', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  })
  const page = await context.newPage()
  await page.goto(server.address)
  await signIn(page)
  await openAt(page, /second side/, 'Logbook')
  await expect(page.getByRole('row').nth(3)).toBeVisible()
  // From now on it speaks the language of before, and the server's page is another.
  await page.route('**/api/**', async (route) => {
    const headers = { ...route.request().headers(), 'dogleg-language': '0' }
    const response = await route.fetch({ headers }).catch(() => undefined)
    if (!response) return route.abort()
    return route.fulfill({
      response,
      headers: { ...response.headers(), 'dogleg-page': '/assets/newer.js' },
    })
  })
  const refused = page.waitForResponse(
    (response) => response.url().includes('/entries') && response.status() === 409,
  )
  await page.getByLabel('Add a note').fill('From a page of before.')
  await page.keyboard.press('Enter')
  const sent = await page.waitForResponse(
    (response) => response.request().method() === 'POST' && response.url().endsWith('/api/entries'),
  )
  expect(sent.status()).toBe(201)
  await refused
  await expect(page.getByRole('alert', { name: 'This page is of another version' })).toBeVisible()
  await page.unroute('**/api/**')
  await page.getByRole('button', { name: 'Load it again' }).click()
  await expect(page.getByRole('alert', { name: 'This page is of another version' })).toHaveCount(0)
  await expect(page.getByText('From a page of before.')).toBeVisible()
  await context.close()
})

test('a newer release: the page that is kept goes on, what is typed stays, and the newer one is taken at a press', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const { page, errors } = await tabletOf(context, server.address)
  await signIn(page)
  await openAt(page, /second side/, 'Logbook')
  const notes = page.getByLabel('Add a note')
  await notes.fill('Recorded before the release.')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Recorded before the release.')).toBeVisible()
  const newer = page.locator('html[data-release=newer]')
  await server.stop()
  await notes.fill('Recorded between the two.')
  await page.keyboard.press('Enter')
  await notes.fill('Half of a')
  const end = await startNewer(server.file, server.port)
  try {
    const told = page.getByRole('alert', { name: 'This page is of another version' })
    await expect(told).toBeVisible()
    // Nobody is interrupted: it stands as it was, and what waited went out.
    await expect(notes).toHaveValue('Half of a')
    await expect(newer).toHaveCount(0)
    await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)
    await page.getByRole('button', { name: 'Load it again' }).click()
    await expect(newer).toHaveCount(1)
    await expect(told).toHaveCount(0)
    await expect(page.getByText('Recorded between the two.')).toBeVisible()
    // It is the newer one that is kept: with the server away it opens.
    await kept(page)
  } finally {
    await end()
  }
  const again = await context.newPage()
  await again.goto(server.address)
  await expect(again.getByText(/What is shown is as of/)).toBeVisible()
  expect(await again.evaluate(() => document.documentElement.dataset.release)).toBe('newer')
  expect(errors).toEqual([])
  await context.close()
})

/** At a simulated machine that is off, and the server goes away. */
async function practiseAway(page: Page, server: Server) {
  await signIn(page)
  await page.getByRole('link', { name: 'Practice' }).click()
  await page.getByRole('link', { name: 'Mill 1' }).click()
  await expect(page.getByRole('button', { name: 'Switch it on' })).toBeVisible()
  await server.stop()
  await expect(page.getByText(/it is switched on at this tablet alone/)).toBeVisible()
}

test('the simulated machine with the server away: on at this tablet alone, a program runs, and then it is the server’s again', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const { page, errors } = await tabletOf(context, server.address)
  await practiseAway(page, server)
  await page.getByLabel('Piece number').fill('577')
  await page.getByRole('button', { name: 'Switch it on' }).click()
  await expect(page.getByText('It is on at this tablet alone', { exact: false })).toBeVisible()
  await expect(page.getByText('Piece 577.')).toBeVisible()
  await page.getByLabel('Distance along X').fill('1.5')
  await page.getByRole('button', { name: 'Jog X minus' }).click()
  await expect(page.getByTestId('position-X')).toHaveText('-1.5000')
  await page.getByRole('tab', { name: 'Program' }).click()
  await page.getByLabel('Another program').fill('O1\nG20 G90\nG53 G0 X-2.25\nM30')
  await page.getByRole('button', { name: 'Load it', exact: true }).click()
  await expect(page.getByText(/^(3 )?G53 G0 X-2.25$/).last()).toBeVisible()
  await runThere(page)
  await expect(page.getByTestId('position-X')).toHaveText('-2.2500')

  // The server is back: what is on here stays until somebody leaves it.
  await server.start()
  await page.getByRole('button', { name: 'Go to the one of the server' }).click()
  await expect(page.getByRole('button', { name: 'Switch it on' })).toBeVisible()
  await expect(page.getByText('It is on at this tablet alone', { exact: false })).toHaveCount(0)
  expect(errors).toEqual([])
  await context.close()
})

test('where the page is not kept, what is not here yet is said to be that, and comes with the server', async ({
  server,
  page,
}) => {
  await practiseAway(page, server)
  await page.getByRole('button', { name: 'Switch it on' }).click()
  await expect(page.getByText(/is not on this tablet yet, and the server did not give it/)).toBeVisible()
  await server.start()
  await expect(page.getByText(/it is switched on at this tablet alone/)).toHaveCount(0)
  await page.getByRole('button', { name: 'Switch it on' }).click()
  await expect(page.getByTestId('position-X')).toBeVisible()
  await expect(page.getByText(/is not on this tablet yet/)).toHaveCount(0)
})
