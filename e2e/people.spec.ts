import type { Page } from '@playwright/test'
import jsQR from 'jsqr'
import { expect, expectAccessible, expectFitsBoth, openAt, test, toStep } from './dogleg.ts'
import { codeAtKeyboard, enter, letIn, pinOf, signsIn, type Who } from './people.ts'

/** Changes who stands at this tablet: two presses and a PIN, where they were at it before. */
async function changeTo(page: Page, who: Who) {
  await page.getByRole('button', { name: /^At this tablet:/ }).click()
  await page.getByRole('button', { name: who, exact: true }).click()
  for (const digit of pinOf(who)) await page.getByRole('button', { name: digit, exact: true }).click()
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('button', { name: `At this tablet: ${who}. Change` })).toBeVisible()
}
const lockedOf = (page: Page) => page.getByRole('heading', { name: 'Who is at this tablet?' })

/** What a QR code on the page says, as a camera reads it. */
async function scan(page: Page) {
  const { data, width } = await page
    .getByRole('dialog')
    .locator('svg[role=img]')
    .evaluate(async (svg) => {
      const picture = new Image()
      picture.src = `data:image/svg+xml,${encodeURIComponent(new XMLSerializer().serializeToString(svg))}`
      await picture.decode()
      const canvas = new OffscreenCanvas(300, 300)
      const on = canvas.getContext('2d')
      if (!on) throw new Error('no canvas')
      on.fillStyle = 'white'
      on.fillRect(0, 0, 300, 300)
      on.drawImage(picture, 30, 30, 240, 240)
      return { data: [...on.getImageData(0, 0, 300, 300).data], width: 300 }
    })
  return jsQR(new Uint8ClampedArray(data), width, width)?.data
}

test('a tablet is let in by a code, and by a QR code, opens on its machine, and is shut out at once', async ({
  page,
  browser,
  server,
}) => {
  await signsIn(server)
  await page.goto(server.address)
  await expect(page.getByRole('heading', { name: 'This tablet is not let in yet' })).toBeVisible()
  await expectAccessible(page)
  await expectFitsBoth(page, { vertically: true })
  // Nothing of the shop is told before.
  await expect(page.getByText('Mill 1')).toHaveCount(0)
  await page.getByLabel('The code, six digits').fill('000000')
  await page.getByLabel('What this tablet is called').fill('Office')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/This code is not good/)).toBeVisible()
  await letIn(page, codeAtKeyboard(server), 'Office')
  await expectAccessible(page)
  await expectFitsBoth(page, { vertically: true })
  await enter(page, 'RT')
  await expect(page.getByRole('heading', { name: 'Mill 1' })).toBeVisible()

  await page.getByRole('link', { name: /backup/i }).click()
  await page.getByRole('link', { name: 'People and tablets' }).click()
  await expect(page.getByText('Office')).toBeVisible()
  await expectAccessible(page)
  await expectFitsBoth(page, { vertically: true })
  await page.getByRole('button', { name: 'Let a tablet in' }).click()
  const link = await scan(page)
  expect(link).toMatch(new RegExp(`^${server.address}/let-in#\\d{6}$`))
  await expectAccessible(page)
  await page.keyboard.press('Escape')

  const context = await browser.newContext({ viewport: { width: 800, height: 1280 } })
  const tablet = await context.newPage()
  await tablet.goto(link ?? '')
  await expect(tablet.getByLabel('The code, six digits')).toHaveValue(link?.slice(-6) ?? '')
  await tablet.getByLabel('What this tablet is called').fill('Mill 1')
  await tablet.keyboard.press('Enter')
  await expect(lockedOf(tablet)).toBeVisible()
  expect(tablet.url()).toBe(`${server.address}/`)
  await enter(tablet, 'KM')
  await expect(tablet.getByRole('button', { name: 'At this tablet: KM. Change' })).toBeVisible()

  // It hangs at a machine, and opens on what is on that.
  await page.getByRole('button', { name: 'Change Mill 1' }).click()
  await page.getByLabel('It hangs at, and opens on').selectOption('Mill 1')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await tablet.goto(server.address)
  await expect(tablet.getByRole('navigation', { name: 'Steps of this setup' })).toBeVisible()
  await tablet.getByRole('link', { name: 'Shop', exact: true }).click()
  await expect(tablet.getByRole('heading', { level: 2 }).first()).toHaveText('Mill 1')

  // It is shut out, and shows nothing more.
  await expect(page.getByText('KM is at it')).toBeVisible()
  await page.getByRole('button', { name: 'Change Mill 1' }).click()
  await page.getByRole('button', { name: 'Shut it out at once' }).click()
  await expect(page.getByText('KM is at it')).toHaveCount(0)
  // Without being touched it learns of it, and shows nothing more.
  await expect(tablet.getByRole('heading', { name: 'This tablet is not let in yet' })).toBeVisible()
  await context.close()
})

test('a PIN that is wrong ten times is slowed down, and the right one is not told from it meanwhile', async ({
  page,
  server,
}) => {
  await signsIn(server)
  await page.goto(server.address)
  await letIn(page, codeAtKeyboard(server), 'Mill 1')
  const says = page.getByRole('alert')
  for (let n = 0; n < 10; n++) {
    await enter(page, 'KM', String(5001 + n))
    await expect(says).toHaveText(n < 3 ? /do not belong together/ : /Wait \d seconds/)
  }
  await enter(page, 'KM')
  await expect(says).toHaveText(/Wait \d seconds/)
  await page.waitForTimeout(5500)
  await enter(page, 'KM')
  await expect(page.getByRole('button', { name: 'At this tablet: KM. Change' })).toBeVisible()
  // What the next one signs in with is on the tablet by now, though nobody has asked for it yet.
  await server.stop()
  await page.getByRole('button', { name: /^At this tablet:/ }).click()
  await enter(page, 'LV')
  await expect(page.getByRole('button', { name: 'At this tablet: LV. Change' })).toBeVisible()
  await server.start()
})

test('two people at one tablet with the server away in between: each signs their own, and what is typed stays', async ({
  page,
  server,
}) => {
  await signsIn(server)
  await page.goto(server.address)
  await letIn(page, codeAtKeyboard(server), 'Mill 1')
  await enter(page, 'LV')
  await openAt(page, /second side/, 'Logbook')
  const note = page.getByLabel('Add a note')
  const record = async (text: string) => {
    await note.fill(text)
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByText(text)).toBeVisible()
  }
  await record('The vise is clean.')

  // Half a note, then the tablet is locked: it is still there for whoever comes.
  await note.fill('Burr on the left j')
  await page.getByRole('button', { name: /^At this tablet:/ }).click()
  await page.getByRole('button', { name: 'Lock this tablet' }).click()
  await expect(lockedOf(page)).toBeVisible()
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  await expect(lockedOf(page)).toBeVisible()
  await enter(page, 'LV')
  await expect(note).toHaveValue('Burr on the left j')

  await server.stop()
  await record('Burr on the left jaw.')
  await expect(page.getByText('1 entry is kept on this tablet until the server answers')).toBeVisible()
  await page.getByRole('button', { name: /^At this tablet:/ }).click()
  await enter(page, 'KM')
  await expect(page.getByRole('button', { name: 'At this tablet: KM. Change' })).toBeVisible()
  await record('The burr is off.')
  await changeTo(page, 'LV')
  await record('Seen, thanks.')
  await server.start()
  await expect(page.getByText(/kept on this tablet/)).toHaveCount(0, { timeout: 20_000 })
  await page.reload()
  const whoSaid = (text: string) => page.getByRole('row').filter({ hasText: text })
  for (const [text, who] of [
    ['The vise is clean.', 'LV'],
    ['Burr on the left jaw.', 'LV'],
    ['The burr is off.', 'KM'],
    ['Seen, thanks.', 'LV'],
  ] as const)
    await expect(whoSaid(text).getByRole('cell').nth(1)).toHaveText(`${who}Mill 1`)
})

test('an operator strikes out their own and saves no machine; whoever looks only records nothing', async ({
  page,
  server,
}) => {
  await signsIn(server)
  await page.goto(server.address)
  await letIn(page, codeAtKeyboard(server), 'Mill 1')
  await enter(page, 'KM')
  await openAt(page, /second side/, 'Logbook')
  await page.getByLabel('Add a note').fill('Mine.')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('row').filter({ hasText: 'Mine.' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Strike out/ })).toHaveCount(1)
  await page.getByRole('link', { name: 'Machines' }).click()
  await expect(page.getByText(/A lead of the shop changes a machine/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0)
  await expectAccessible(page)

  await page.getByRole('button', { name: /^At this tablet:/ }).click()
  await enter(page, 'WALL')
  await page.getByRole('link', { name: 'Shop', exact: true }).click()
  await openAt(page, /second side/, 'Logbook')
  await expect(page.getByRole('button', { name: /^Strike out/ })).toHaveCount(0)
  await page.getByLabel('Add a note').fill('Written by a screen.')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'WALL reads only' })).toBeVisible()
  await expectAccessible(page)
  // Somebody who records signs in, and it is recorded under their initials.
  await enter(page, 'KM')
  await expect(page.getByRole('row').filter({ hasText: 'Written by a screen.' })).toContainText('KM')
  await toStep(page, 'Ready')
})
