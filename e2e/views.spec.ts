import { expect, expectAccessible, expectView, openAt, quiet, signIn, test, toStep } from './dogleg.ts'

// Every main view, on the shop PC and on a tablet held upright: no violation of accessibility rules, nothing wider than
// the window, and what is meant to be seen at one glance without scrolling.
test('the shop, and the steps on a mill', async ({ page }) => {
  await signIn(page)
  await expect(page.getByRole('link', { name: /first side/ })).toBeVisible()
  await expectView(page, { vertically: true })
  await openAt(page, /serial number/, 'Ready')
  await expectView(page, { vertically: true })
  for (const [step, tabs] of [
    ['Zero', [/^X|X.*stale/, /Y/, /Z/, /Check/]],
    ['Hold', [/Square/, /clear/]],
    ['Angle', [/How it lies/, /Turn the program/, /Turn moves/, /Right part/]],
  ] as const) {
    await toStep(page, step)
    for (const tab of tabs) {
      await page.getByRole('tab', { name: tab }).first().click()
      await expect(page.getByRole('tabpanel')).toBeVisible()
      await expectView(page, { vertically: true })
    }
  }
})

test('the tables and the probe calls of Zero, and a zero on a lathe', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Zero')
  for (const tab of ['Offsets', 'Tools', 'Block', 'Probe']) {
    await page.getByRole('tab', { name: tab }).click()
    await quiet(page)
    await expectView(page, { vertically: tab !== 'Probe' })
  }
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /Drawtube/, 'Zero')
  for (const tab of [/X/, /Z/, /Check/, /Table/, /Bar stop/]) {
    await page.getByRole('tab', { name: tab }).click()
    await expectView(page, { vertically: true })
  }
})

test('a job that comes back: its angle as recorded, its turning, its zero against the last times', async ({
  page,
}) => {
  await signIn(page)
  await page
    .getByText(/and \d+ earlier/)
    .first()
    .click()
  await openAt(page, /Counterweight bracket/, 'Zero')
  await page.getByRole('tab', { name: /Check/ }).click()
  await page.locator('.recharts-line').first().waitFor()
  await expectAccessible(page)
  await toStep(page, 'Angle')
  for (const tab of [/How it lies/, /Turn the program/, /Right part/]) {
    await page.getByRole('tab', { name: tab }).click()
    await expectView(page, { vertically: true })
  }
})

test('Hold on a lathe', async ({ page }) => {
  await signIn(page)
  await openAt(page, /Drawtube/, 'Hold')
  for (const [tab, vertically] of [
    ['Collet, stop', true],
    ['All pairs', false],
    ['True ratio', true],
    ['Checks', true],
  ] as const) {
    await page.getByRole('tab', { name: tab }).click()
    await expect(page.getByRole('tabpanel')).toBeVisible()
    await expectView(page, { vertically })
  }
})

test('program, logbook and the library', async ({ page }) => {
  await openAt(page, /serial number/, 'Ready')
  for (const view of ['Program', 'Logbook', 'Machines', 'Vises', 'Collets', 'Tools', 'Profiles']) {
    const link = page.getByRole('link', { name: view, exact: true })
    await link.click()
    await expect(link).toHaveAttribute('aria-current', 'page')
    // The list turns to its first row: between the two nothing stands there for a moment.
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await quiet(page)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await expectView(page, { vertically: false })
  }
})
