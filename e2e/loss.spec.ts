import { copyFileSync, rmSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, expectAccessible, openAt, signIn, test } from './dogleg.ts'

const recordY = async (page: Page, position: string) => {
  await page.getByRole('radio', { name: 'Y+' }).click()
  await page.getByLabel('Finder tip, diameter').fill('.2')
  await page.getByLabel('Machine position').fill(position)
  await page.getByRole('button', { name: 'Record Y of G54' }).click()
}
const openY = async (page: Page) => {
  await openAt(page, /second side/, 'Zero')
  await expect(page.getByRole('tab', { name: /Y/, selected: true })).toBeVisible()
  await page.getByLabel('Found with').selectOption('edge-finder')
}

test('a server that came back with less is told to everybody, and given back what a tablet holds', async ({
  page,
  server,
}) => {
  await signIn(page)
  await openY(page)
  // An older state of the logbook, as of a backup.
  await server.stop()
  copyFileSync(server.file, `${server.file}.older`)
  await server.start()
  await recordY(page, '-9.2205')
  await expect(page.getByRole('tab', { name: /Y.*-9\.1205/ })).toBeVisible()
  await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)
  await server.stop()
  copyFileSync(`${server.file}.older`, server.file)
  rmSync(`${server.file}-known.json`)
  await server.start()
  const alarm = page.getByRole('alert', { name: 'Entries are missing' })
  await expect(alarm).toBeVisible()
  await expect(alarm.getByText(/Tell whoever looks after the server/)).toBeVisible()
  await expectAccessible(page)
  await alarm.getByRole('button', { name: 'Give back what this tablet holds' }).click()
  await expect(alarm).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('tab', { name: /Y.*-9\.1205/ })).toBeVisible()
})

test('a tablet whose storage is blocked works, sends what is entered once, and says what is not kept', async ({
  browser,
  server,
}) => {
  const context = await browser.newContext()
  await context.addInitScript(() => {
    Object.defineProperty(window, 'localStorage', {
      get: () => {
        throw new DOMException('blocked', 'SecurityError')
      },
    })
  })
  const page = await context.newPage()
  const sent: string[] = []
  page.on('request', (request) => {
    if (request.method() === 'POST' && request.url().endsWith('/api/entries'))
      sent.push(...(request.postDataJSON() as { entries: { id: string }[] }).entries.map(({ id }) => id))
  })
  await page.goto(server.address)
  await openY(page)
  await expect(page.getByText(/storage of this tablet is full or blocked: what is typed/)).toBeVisible()
  await recordY(page, '-9.2205')
  await page.getByLabel('Your initials').fill('RT')
  await page.getByRole('button', { name: 'That is me' }).click()
  await expect(page.getByRole('tab', { name: /Y.*-9\.1205/ })).toBeVisible()
  // Long enough for it to be sent again, were it not known to be there.
  await page.waitForTimeout(5000)
  expect(sent).toHaveLength(1)
  await server.stop()
  await page.getByRole('tab', { name: /^Y/ }).click()
  await page.getByLabel('Found with').selectOption('edge-finder')
  await recordY(page, '-9.2215')
  await expect(page.getByText(/full or blocked: do not close this page yet/)).toBeVisible()
  await server.start()
  await expect(page.getByText(/do not close this page yet/)).toHaveCount(0)
  await context.close()
})

test('a zero is stale when the vise was moved after it, though the tablet that says so had its clock set back', async ({
  page,
  browser,
  server,
}) => {
  const context = await browser.newContext()
  const other = await context.newPage()
  await other.goto(server.address)
  await signIn(page, 'RT')
  await signIn(other, 'MK')
  for (const tablet of [page, other]) await openY(tablet)
  await context.setOffline(true)
  // The wall clock is set back by an hour; the steady one cannot be set.
  await other.evaluate(() => {
    const now = Date.now
    Date.now = () => now() - 3_600_000
  })
  await recordY(page, '-9.2205')
  await expect(page.getByRole('tab', { name: /Y.*-9\.1205/ })).toBeVisible()
  await page.waitForTimeout(1500)
  await other.getByRole('button', { name: /Something changed/ }).click()
  await other.getByRole('radio', { name: /Vise moved/ }).click()
  await other.getByRole('button', { name: 'Enter it in the logbook' }).click()
  await context.setOffline(false)
  await expect(page.getByRole('tab', { name: /Y.*-9\.1205.*stale/ })).toBeVisible()
  await context.close()
})
