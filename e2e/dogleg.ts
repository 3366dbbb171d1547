import { readFile } from 'node:fs/promises'
import { AxeBuilder } from '@axe-core/playwright'
import { test as base, expect, type Page } from '@playwright/test'
import { Server } from './harness.ts'

/** Messages of the browser's console that the tests expect: requests that fail while the server is away, or that it refuses. */
const EXPECTED = /Failed to load resource|ERR_CONNECTION_REFUSED/
/** Addresses that a test asks for although there is nothing. */
const NOWHERE = /nonsense|\/positions$|\/api\/simulated\//

export const test = base.extend<{ server: Server; page: Page }>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright wants the pattern
  server: async ({}, use) => {
    const server = new Server()
    await server.start()
    await use(server)
    await server.stop()
  },
  page: async ({ page, server }, use) => {
    const complaints: string[] = []
    page.on('pageerror', (error) => complaints.push(error.message))
    page.on('console', (message) => {
      if (message.type() === 'error' && !EXPECTED.test(message.text())) complaints.push(message.text())
    })
    page.on('response', (response) => {
      if (response.status() === 404 && !NOWHERE.test(response.url()))
        complaints.push(`nothing is at ${response.url()}`)
    })
    await page.goto(server.address)
    await use(page)
    expect(complaints).toEqual([])
  },
})

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

/**
 * No violation of accessibility rules on what is on screen now. Only violations are worked out, and no other frames are looked for:
 * the page has none.
 */
export async function expectAccessible(page: Page) {
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .analyze()
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' | ')}`)).toEqual([])
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
  }).toPass({ timeout: 5_000 })
}

/** The shop PC, and a tablet held upright. */
const WIDE = { width: 1280, height: 800 }
const UPRIGHT = { width: 800, height: 1280 }

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

export { expect, type Server }
