import type { Page } from '@playwright/test'
import axe from 'axe-core'
import { ulid } from 'ulid'
import { expect, expectAccessible, expectFitsBoth, expectView, openAt, signIn, test } from './dogleg.ts'

/** Numbers stand out from their ground by 7 to 1 (WCAG 2.2, 1.4.6): what axe finds where they do not. */
async function faintNumbers(page: Page) {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  return page.evaluate(async () => {
    const { violations } = await axe.run(
      { include: [['.digits']] },
      { runOnly: ['color-contrast-enhanced'], rules: { 'color-contrast-enhanced': { enabled: true } } },
    )
    return violations.flatMap(({ nodes }) =>
      nodes.map(({ html, failureSummary }) => `${html}: ${failureSummary}`),
    )
  })
}

test('how a tablet is set stays on it, and the dark ground keeps every state legible', async ({
  page,
  server,
}) => {
  await signIn(page)
  await page.goto(`${server.address}/this-tablet`)
  await expect(page.getByRole('heading', { name: 'This tablet' })).toBeVisible()
  await expectView(page, { vertically: true })
  await expect(page.getByText('Keeps what is recorded until the server has it')).toBeVisible()
  await page.getByRole('radio', { name: 'dark, for the night shift' }).click()
  await page.getByRole('checkbox', { name: /A tone/ }).check()
  await expectAccessible(page)
  await page.reload()
  await expect(page.locator('html')).toHaveClass(/night/)
  await expect(page.getByRole('checkbox', { name: /A tone/ })).toBeChecked()
  await page.getByRole('link', { name: 'Shop', exact: true }).click()
  await expect(page.getByRole('link', { name: /first side/ }).first()).toBeVisible()
  await expectAccessible(page)
  for (const step of ['Zero', 'Code', 'Logbook']) {
    await page.getByRole('link', { name: 'Shop', exact: true }).click()
    await openAt(page, /first side/, step)
    await page.waitForTimeout(500)
    await expectAccessible(page)
    expect(await faintNumbers(page)).toEqual([])
  }
  await page.goto(`${server.address}/this-tablet`)
  await page.getByRole('radio', { name: 'paper' }).click()
  await page.getByRole('link', { name: 'Shop', exact: true }).click()
  await openAt(page, /first side/, 'Zero')
  await page.waitForTimeout(500)
  expect(await faintNumbers(page)).toEqual([])
})

test('the shop on the wall shows what each machine waits for, and follows by itself', async ({
  page,
  server,
}) => {
  await page.goto(`${server.address}/wall`)
  await expect(page.getByRole('heading', { level: 2 })).toHaveText(['Lathe 1', 'Mill 1', 'Mill 2'])
  await expect(page.getByText('Zero: Take Y of G54.')).toBeVisible()
  await expectAccessible(page)
  await expectFitsBoth(page, { vertically: 'wide' })
  // Somebody elsewhere goes on with a job.
  const { board } = (await (await fetch(`${server.address}/api/setups`)).json()) as {
    board: { machines: { name: string; setups: { id: string }[] }[] }
  }
  const lathe = board.machines.find(({ name }) => name === 'Lathe 1')
  const note = {
    id: ulid(),
    setup: lathe?.setups[0]?.id,
    at: new Date().toISOString(),
    by: 'KM',
    kind: 'note',
    text: 'The collet is worn.',
    marked: true,
  }
  const { status } = await fetch(`${server.address}/api/entries`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ entries: [note] }),
  })
  expect(status).toBe(201)
  await expect(page.getByText('A note by KM waits')).toBeVisible()
  await server.stop()
  await expect(page.getByText(/The server does not answer: this is how it was/)).toBeVisible()
  await server.start()
  await expect(page.getByText(/this is how it was/)).toHaveCount(0)
})
