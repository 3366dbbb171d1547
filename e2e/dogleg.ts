import { readFile, writeFile } from 'node:fs/promises'
import { test as base, expect, type Page, type TestInfo } from '@playwright/test'
import axe from 'axe-core'
import { Server } from './harness.ts'

/** Messages of the browser's console that the tests expect: requests that fail while the server is away, or that it refuses. */
const EXPECTED = /Failed to load resource|ERR_CONNECTION_REFUSED/
/** Addresses that a test asks for although there is nothing. */
const NOWHERE = /nonsense|\/positions$|\/api\/simulated\//

/** The shop PC, and a tablet held upright. */
export const WIDE = { width: 1280, height: 800 }
export const UPRIGHT = { width: 800, height: 1280 }

/** Where the servers of this worker answer: the same address for each test, so that the page's scripts are read and compiled once. */
let port = 0

/**
 * The tablet of each test: one page for all tests of a worker, emptied of what it has kept before each of them. A window of its own
 * for each test would cost as much as most tests do.
 */
export const test = base.extend<{ server: Server; page: Page }, { tablet: Page }>({
  tablet: [
    async ({ browser }, use) => {
      // Without the worker that keeps the page on a tablet: away.spec.ts has tablets with it.
      const context = await browser.newContext({
        viewport: WIDE,
        acceptDownloads: true,
        serviceWorkers: 'block',
      })
      await use(await context.newPage())
      await context.close()
    },
    { scope: 'worker' },
  ],
  // biome-ignore lint/correctness/noEmptyPattern: Playwright wants the pattern
  server: async ({}, use) => {
    const server = new Server(port)
    await server.start()
    port = server.port
    await use(server)
    await server.stop()
  },
  page: async ({ tablet: page, server }, use, testInfo) => {
    const complaints = await emptied(page, server.address)
    await page.goto(server.address)
    await use(page)
    if (testInfo.status !== testInfo.expectedStatus)
      await keepAsItStood(page, testInfo).catch(() => undefined)
    // What is still under way ends with the page, before its server does. An address of the same server leaves the process of the
    // page running, with what it has compiled.
    await page.goto(`${server.address}/api/reference-stamp`).catch(() => page.goto('about:blank'))
    page.removeAllListeners()
    expect(complaints).toEqual([])
  },
})

/** Keeps what the page showed when its test failed, before it goes on to the next one. */
async function keepAsItStood(page: Page, testInfo: TestInfo) {
  await page.screenshot({ path: testInfo.outputPath('as-it-stood.png'), timeout: 5000 })
  const said = await page.locator('body').ariaSnapshot({ timeout: 5000 })
  await writeFile(testInfo.outputPath('as-it-stood.txt'), `${page.url()}\n${said}\n`)
}

/** Makes the tablet a new one for this address. What goes wrong on it from now on is put on the list that is given. */
async function emptied(page: Page, origin: string): Promise<string[]> {
  const devtools = await page.context().newCDPSession(page)
  await devtools.send('Storage.clearDataForOrigin', {
    origin,
    storageTypes: 'local_storage,indexeddb,cookies,cache_storage,service_workers',
  })
  await devtools.detach()
  await page.unrouteAll()
  await page.setViewportSize(WIDE)
  const complaints: string[] = []
  page.on('pageerror', (error) => complaints.push(error.message))
  page.on('console', (message) => {
    if (message.type() === 'error' && !EXPECTED.test(message.text())) complaints.push(message.text())
  })
  page.on('response', (response) => {
    if (response.status() === 404 && !NOWHERE.test(response.url()))
      complaints.push(`nothing is at ${response.url()}`)
  })
  return complaints
}

/** Signs the tablet in, as the first entry would ask for: by another page on the same tablet. */
export const signIn = (page: Page, initials = 'RT') =>
  page.evaluate((value) => {
    const key = 'dogleg.operator'
    localStorage.setItem(key, value)
    window.dispatchEvent(new StorageEvent('storage', { key, newValue: value }))
  }, initials)

/** Goes to a step, or another view, of the setup that is open. */
export const toStep = (page: Page, step: string) =>
  page
    .getByRole('navigation', { name: 'Steps of this setup' })
    .getByRole('link', { name: new RegExp(`^${step}`) })
    .click()

/** Opens a row of reference data from the list that is shown: an editor is that of the row only once the list says so. */
export async function openRow(page: Page, name: string | RegExp) {
  const link = page.getByRole('link', { name })
  await link.click()
  await expect(link).toHaveAttribute('aria-current', 'page')
}

/** Opens a setup from the shop page, at one of its steps. */
export async function openAt(page: Page, title: RegExp, step: string) {
  await page.getByRole('link', { name: title }).first().click()
  await toStep(page, step)
}

/** Of a program that is listed the first lines are looked at: the others are made like them, and cost two seconds each time. */
const LATER_LINES = '[aria-label="Program text"] li:nth-child(n+25)'

/** No violation of accessibility rules on what is on screen now. Only violations are worked out. */
export async function expectAccessible(page: Page) {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  const violations = await page.evaluate(async (later) => {
    // The page has no frames in it.
    const found = await axe.run({ exclude: [[later]] }, { resultTypes: ['violations'], iframes: false })
    return found.violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' | ')}`)
  }, LATER_LINES)
  expect(violations).toEqual([])
}

/** How much wider and higher than the window the page is, in px. */
const overhang = (page: Page) =>
  page.evaluate(() => ({
    width: document.documentElement.scrollWidth - window.innerWidth,
    height: document.documentElement.scrollHeight - window.innerHeight,
  }))

/** Nothing wider than the window, and, where asked, nothing below it. Drawings take a moment to follow a window that changes. */
export async function expectFits(page: Page, { vertically }: { vertically: boolean }) {
  await expect(async () => {
    const size = await overhang(page)
    expect(size.width, 'wider than the window, px').toBeLessThanOrEqual(0)
    if (vertically) expect(size.height, 'below the window, px').toBeLessThanOrEqual(0)
  }).toPass()
}

/**
 * Looks at what is on screen in both windows: nothing wider than either, and nothing below the window in both (true), in the wide one
 * ('wide') or in neither (false).
 */
export async function expectFitsBoth(page: Page, { vertically }: { vertically: boolean | 'wide' }) {
  await expectFits(page, { vertically: vertically !== false })
  await page.setViewportSize(UPRIGHT)
  await expectFits(page, { vertically: vertically === true })
  await page.setViewportSize(WIDE)
}

/** A view as it must be: no violation of accessibility rules, and it fits both windows. */
export async function expectView(page: Page, fits: { vertically: boolean | 'wide' }) {
  await expectAccessible(page)
  await expectFitsBoth(page, fits)
}

/**
 * Types into what has the focus. In a list that chooses the row that begins so; a list forgets what was typed a second ago, so that
 * on a machine that stalls it is looked at, as a person does, and typed again.
 */
export async function typeInto(page: Page, text: string) {
  const chosen = () =>
    page.evaluate(() => {
      const list = document.activeElement
      return list instanceof HTMLSelectElement ? (list.selectedOptions[0]?.text ?? '') : undefined
    })
  await expect(async () => {
    await page.keyboard.type(text)
    const row = await chosen()
    if (row !== undefined) expect(row.toLowerCase()).toContain(text.toLowerCase())
  }).toPass({ intervals: [1500] })
}

/** Takes the program that is on screen as a file: its name and its text. */
export async function download(page: Page) {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /Download/ }).click(),
  ])
  return { name: file.suggestedFilename(), text: await readFile(await file.path(), 'utf8') }
}

/** Opens a setup that may be among the earlier ones of its machine. */
export async function openEarlier(page: Page, title: RegExp, step: string) {
  const link = page.getByRole('link', { name: title }).first()
  await expect(page.getByRole('link', { name: /first side/ })).toBeVisible()
  if (!(await link.isVisible()))
    for (const more of await page.getByText(/and \d+ earlier/).all()) await more.click()
  await link.click()
  await toStep(page, step)
}

/** Waits until the page has fetched nothing for half a second; the connection over which changes are told stays open. */
export async function quiet(page: Page) {
  let before = -1
  await expect
    .poll(
      async () => {
        const now = await page.evaluate(() => performance.getEntriesByType('resource').length)
        const same = now === before
        before = now
        return same
      },
      { intervals: [500] },
    )
    .toBe(true)
}

export { expect, type Server }

/** How long is waited for what takes the page a while by itself, a program that runs or a large one that is read, ms. */
export const LONG_MS = 180_000

/** A tap in the place of a key that just recorded presses nothing for so long, ms: people look before they go on. */
export const SETTLE_MS = 1000

/** Records the proof that Prove shows, having come there by 'Prove it', whose place its key has. */
export async function recordProof(page: Page) {
  await page.waitForTimeout(SETTLE_MS)
  await page.getByRole('button', { name: 'Record the proof' }).click()
  await expect(page.getByText('Proved by RT')).toBeVisible()
}
