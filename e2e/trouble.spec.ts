import type { Page } from '@playwright/test'
import { expect, expectAccessible, openAt, openRow, type Server, signIn, test } from './dogleg.ts'

const openSecondSide = async (page: Page) => {
  await openAt(page, /second side/, 'Zero')
  await expect(page.getByRole('tab', { name: /Y/, selected: true })).toBeVisible()
  await page.getByLabel('Found with').selectOption('edge-finder')
}
const typeY = async (page: Page, position: string) => {
  await page.getByRole('radio', { name: 'Y+' }).click()
  await page.getByLabel('Finder tip, diameter').fill('.2')
  await page.getByLabel('Machine position').fill(position)
}

test('bad readings get a sentence, and nothing is recorded', async ({ page }) => {
  await signIn(page)
  await openSecondSide(page)
  const position = page.getByLabel('Machine position')
  const record = page.getByRole('button', { name: 'Record Y of G54' })
  for (const [typed, says] of [
    ['abc', '"abc" is not a length'],
    ['1/0', '1/0 divides by zero'],
    ['12..5', 'two decimal points'],
    ['1,5', 'has a comma'],
  ] as const) {
    await position.fill(typed)
    await expect(page.getByText(says)).toBeVisible()
    await expect(record).toBeDisabled()
  }
  await expectAccessible(page)
  await position.fill('-9.2205')
  await expect(page.getByText('Say which way the spindle moved into the face.')).toBeVisible()
  await typeY(page, '9.2205')
  await expect(page.getByText('The machine cannot have stood at Y 9.2205.')).toBeVisible()
  await expect(page.getByText(/check the sign/)).toBeVisible()
  await expect(record).toBeDisabled()
  await expectAccessible(page)
})

test('entries made while the server is away are kept, through a reload of the draft, and sent when it is back', async ({
  page,
  server,
}) => {
  await signIn(page)
  await openSecondSide(page)
  await typeY(page, '-9.2205')
  await server.stop('SIGKILL')
  await page.getByRole('button', { name: 'Record Y of G54' }).click()
  await expect(page.getByText('1 entry is kept on this tablet until the server answers')).toBeVisible()
  await expect(page.getByRole('tab', { name: /Y.*-9\.1205/ })).toBeVisible()
  await server.start()
  await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole('tab', { name: /Y.*-9\.1205/ })).toBeVisible()
})

test('the page stands still while the server takes its time with what was recorded, and that is said', async ({
  page,
}) => {
  await signIn(page)
  await openSecondSide(page)
  await typeY(page, '-9.2205')
  await page.route('**/api/entries', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 4000))
    await route.continue()
  })
  await page.evaluate(() => {
    const tops = new Set<number>()
    Object.assign(window, { tops })
    const look = () => {
      tops.add(document.querySelector('main')?.getBoundingClientRect().top ?? -1)
      requestAnimationFrame(look)
    }
    look()
  })
  await page.getByRole('button', { name: 'Record Y of G54' }).click()
  const says = page.getByText('1 entry is kept on this tablet until the server takes it')
  await expect(says).toBeVisible()
  await expect(says).toHaveCount(0)
  // A key that moves while it is pressed is not pressed.
  expect(await page.evaluate(() => [...(window as unknown as { tops: Set<number> }).tops])).toHaveLength(1)
})

test('an entry that the server refuses is shown with the reason and stays on the tablet', async ({
  page,
}) => {
  await signIn(page)
  await openSecondSide(page)
  await page.route('**/api/entries', (route) =>
    route.fulfill({
      status: 422,
      json: { error: { code: 'clock-ahead', says: 'Set the clock of this tablet.' } },
    }),
  )
  await typeY(page, '-9.2205')
  await page.getByRole('button', { name: 'Record Y of G54' }).click()
  await expect(page.getByRole('link', { name: '1 refused: see the shop page' })).toBeVisible()
  await expect(page.getByRole('tab', { name: /Y.*not taken/ })).toBeVisible()
  await page.getByRole('link', { name: 'Logbook' }).click()
  await expect(page.getByText('Set the clock of this tablet.')).toBeVisible()
  await expectAccessible(page)
  await page.unroute('**/api/entries')
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText(/refused/)).toHaveCount(0)
  await expect(page.locator('tr[data-kind=pickup]')).toHaveCount(2)
})

test('two tablets add to one setup: each sees the other, and the difference is named', async ({
  page,
  server,
  browser,
}) => {
  const other = await (await browser.newContext()).newPage()
  await other.goto(server.address)
  await signIn(page, 'RT')
  await signIn(other, 'MK')
  for (const tablet of [page, other]) await openSecondSide(tablet)
  await typeY(page, '-9.2205')
  await typeY(other, '-9.2305')
  await page.getByRole('button', { name: 'Record Y of G54' }).click()
  await expect(other.getByText('Y is 0.0100 in from the last value.')).toBeVisible()
  await other.getByRole('button', { name: 'Record Y of G54' }).click()
  await expect(page.getByRole('tab', { name: /Y.*-9\.1305/ })).toBeVisible()
  await page.getByRole('link', { name: 'Logbook' }).click()
  await expect(page.getByText('taken again since').first()).toBeVisible()
  await other.context().close()
})

test('a machine edited on two tablets: the late save is refused with what stands, and the program goes stale', async ({
  page,
  server,
}) => {
  await page.getByRole('link', { name: 'Machines' }).click()
  await openRow(page, /Mill 1/)
  const least = page.getByLabel('X lowest, in')
  await least.fill('abc')
  await least.blur()
  await expect(page.getByText(/"abc" is not a length/)).toBeVisible()
  await least.fill('5')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('The lowest position must be below the highest.')).toBeVisible()
  await least.fill('-32')
  await changeElsewhere(server)
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(
    page.getByText(/Somebody else saved this machine after you opened it \(version 2\)/),
  ).toBeVisible()
  await expect(least).toHaveValue('-32')
  await page.getByRole('button', { name: 'Show theirs' }).click()
  await expect(page.getByLabel('What the next person should know about it')).toHaveValue(
    'from the other tablet',
  )
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /first side/, 'Program')
  await expect(page.getByText(/written for version 1 of Mill 1, which has been edited/)).toBeVisible()
})

async function changeElsewhere({ address }: Server) {
  const { machines } = (await (await fetch(`${address}/api/machines`)).json()) as {
    machines: { id: string }[]
  }
  const machine = machines.find(({ id }) => id === 'mill-1')
  const saved = await fetch(`${address}/api/machines/${machine?.id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ...machine, note: 'from the other tablet' }),
  })
  expect(saved.status).toBe(200)
}

test('a page that stood open while the server was changed says so, and loads again with what is typed', async ({
  page,
}) => {
  await signIn(page)
  await openSecondSide(page)
  await typeY(page, '-9.2205')
  await page.route('**/api/**', async (route) => {
    // What is pushed is an answer that never ends: it cannot be fetched as a whole.
    if (route.request().url().includes('/api/changes')) return route.continue()
    const response = await route.fetch()
    await route.fulfill({
      response,
      headers: { ...response.headers(), 'dogleg-page': '/assets/of-tomorrow.js' },
    })
  })
  const alarm = page.getByRole('alert', { name: 'This page is of another version' })
  await expect(alarm).toContainText('Dogleg was changed on the server while this page stood open.')
  await expectAccessible(page)
  const loaded = page.waitForEvent('load')
  await alarm.getByRole('button', { name: 'Load it again' }).click()
  await loaded
  await expect(page.getByLabel('Machine position')).toHaveValue('-9.2205')
  // Once the server says that it has this very page, there is nothing to be said.
  await expect(alarm).toBeVisible()
  await page.unrouteAll({ behavior: 'wait' })
  await expect(alarm).toHaveCount(0)
})

test('an address where there is nothing says so, with the way back', async ({ page, server }) => {
  await page.goto(`${server.address}/nowhere`)
  await expect(page.getByText('There is no page at this address.')).toBeVisible()
  await page.goto(`${server.address}/setups/nonsense`)
  await expect(page.getByText('There is no setup with this address. Go back to the shop.')).toBeVisible()
  await page.getByRole('link', { name: 'To the shop' }).click()
  await expect(page.getByRole('link', { name: /first side/ })).toBeVisible()
})
