import type { Locator, Page } from '@playwright/test'
import { expect, expectAccessible, openAt, signIn, test } from './dogleg.ts'

const KEYS: Record<string, string> = {
  '-': 'Minus',
  '/': 'Slash',
  '.': 'Point',
  ' ': 'space',
  '\n': 'Next line',
}
const keypad = (page: Page) => page.locator('[data-keypad]')
const press = (page: Page, name: string) =>
  keypad(page)
    .locator('button')
    .and(page.getByLabel(name, { exact: true }))
    .or(
      keypad(page)
        .locator('button')
        .filter({ hasText: new RegExp(`^${name.replace(/[.+]/g, '\\$&')}\\s*$`) }),
    )

/** Types with the keys on the screen alone. */
async function keyIn(page: Page, text: string) {
  for (const each of text)
    await press(page, KEYS[each] ?? each)
      .first()
      .tap()
}

/** The keys stand over nothing that is being read: neither the field, nor the drawing, nor the answer. */
async function overNothing(page: Page, ...parts: Locator[]) {
  const keys = await keypad(page).boundingBox()
  for (const part of parts) {
    if ((await part.count()) === 0) continue
    const box = await part.first().boundingBox()
    if (!keys || !box) continue
    const [w, h] = [page.viewportSize()?.width ?? 0, page.viewportSize()?.height ?? 0]
    // As much of it as is in the window.
    const seen = {
      left: Math.max(0, box.x),
      right: Math.min(w, box.x + box.width),
      top: Math.max(0, box.y),
      bottom: Math.min(h, box.y + box.height),
    }
    const across = Math.min(seen.right, keys.x + keys.width) - Math.max(seen.left, keys.x)
    const down = Math.min(seen.bottom, keys.y + keys.height) - Math.max(seen.top, keys.y)
    expect(Math.min(across, down), 'px of it that lie under the keys').toBeLessThanOrEqual(1)
  }
}

for (const viewport of [
  { width: 1280, height: 800 },
  { width: 800, height: 1280 },
])
  test(`a whole corner is picked up with the keypad alone, at ${viewport.width}x${viewport.height}`, async ({
    server,
    browser,
  }) => {
    const context = await browser.newContext({ viewport, hasTouch: true, serviceWorkers: 'block' })
    const page = await context.newPage()
    await page.goto(server.address)
    await signIn(page)
    await openAt(page, /second side/, 'Zero')
    await page.getByLabel('Found with').selectOption('corner')
    for (const [label, says] of [
      ['Touched with', /probe/],
      ['Into X face', /X\+/],
      ['Into Y face', /Y\+/],
    ] as const) {
      const list = page.getByLabel(label)
      const options = await list.locator('option').allTextContents()
      await list.selectOption(options.find((each) => says.test(each)) ?? '')
    }
    const fields = page.locator('form [data-numbers]')
    const typed = ['-15.769 -7', '-15 -8.2\n-11 -8.2', '.2362', '90', '0', '0']
    await fields.first().tap()
    for (const [n, value] of typed.entries()) {
      const field = fields.nth(n)
      await expect(field).toBeFocused()
      // The tablet's own keyboard does not come.
      if (n > 0) expect(await field.evaluate((each: HTMLInputElement) => each.inputMode)).toMatch(/^(none)?$/)
      await field.fill('')
      await keyIn(page, value)
      await expect(field).toHaveValue(value)
      // The page goes after what was typed.
      await expect(() =>
        overNothing(page, field, page.getByTestId('answer'), page.locator('main svg[role=img]')),
      ).toPass()
      for (const key of await keypad(page).locator('button:visible').all()) {
        const box = await key.boundingBox()
        expect(Math.min(box?.width ?? 0, box?.height ?? 0)).toBeGreaterThanOrEqual(63.5)
      }
      if (n === 0) await expectAccessible(page)
      if (n < typed.length - 1) await press(page, 'Next').tap()
    }
    await expect(page.getByTestId('answer')).toHaveText(/-8\.0819/)
    await press(page, 'Next').tap()
    await expect(keypad(page)).toHaveCount(0)
    await page.getByRole('button', { name: 'Record X and Y of G54' }).tap()
    await expect(page.getByRole('tab', { name: /X.*-15\.6509/ })).toBeVisible()
    const overhang = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    expect(overhang).toBeLessThanOrEqual(0)
    await context.close()
  })

test('steps, the units, taking back, and a real keyboard, which sends the keys away', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    hasTouch: true,
    serviceWorkers: 'block',
  })
  const page = await context.newPage()
  await page.goto(server.address)
  await signIn(page)
  await openAt(page, /second side/, 'Zero')
  await page.getByLabel('Found with').selectOption('edge finder')
  const field = page.locator('form input[data-unit]').first()
  await field.fill('')
  await field.tap()
  await keyIn(page, '.2')
  await press(page, '+ .001').tap()
  await expect(field).toHaveValue('0.201')
  await press(page, '− .0001').tap()
  await expect(field).toHaveValue('0.2009')
  await press(page, 'As before').tap()
  await expect(field).toHaveValue('')
  await keyIn(page, '127')
  await press(page, 'Take back').tap()
  await press(page, 'mm').tap()
  await expect(field).toHaveValue('12mm')
  await press(page, 'Take back').tap()
  await press(page, '+ .001').tap()
  await expect(keypad(page).getByRole('status', { includeHidden: true })).toHaveText(/no length yet/)
  // A real keyboard goes on as ever.
  await page.keyboard.type('5')
  await expect(keypad(page)).toHaveCount(0)
  await field.blur()
  await field.tap()
  await expect(keypad(page)).toBeVisible()
  await press(page, 'The tablet’s own keyboard').tap()
  await expect(keypad(page)).toHaveCount(0)
  await expect(field).toBeFocused()
  expect(await field.evaluate((each: HTMLInputElement) => each.inputMode)).toBe('')
  // A field for words has the tablet's own keyboard.
  await page.getByRole('link', { name: 'Logbook' }).tap()
  await page.getByLabel('Add a note').tap()
  await expect(keypad(page)).toHaveCount(0)
  await context.close()
})

/** Rests a finger on something for as long as it takes. */
async function rest(page: Page, on: Locator) {
  await expect(on).toBeVisible()
  // The page makes room for the keys, and then stands still.
  let [before, box] = [null, await on.boundingBox()] as Awaited<ReturnType<Locator['boundingBox']>>[]
  while (JSON.stringify(before) !== JSON.stringify(box)) {
    await page.waitForTimeout(400)
    ;[before, box] = [box, await on.boundingBox()]
  }
  if (!box) throw new Error('it is not on the page')
  const touch = await page.context().newCDPSession(page)
  const at = [{ x: box.x + box.width / 2, y: box.y + box.height / 2 }]
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at })
  await expect(page.getByRole('menu')).toBeVisible()
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  await expect(page.getByRole('menu')).toBeVisible()
}

test('a finger that rests on a value: what was typed, as the last setup had it, copied and pasted', async ({
  server,
  browser,
}) => {
  const context = await browser.newContext({ hasTouch: true, serviceWorkers: 'block' })
  const page = await context.newPage()
  await page.goto(server.address)
  await signIn(page)
  const fieldIn = async (title: RegExp) => {
    await page.getByRole('link', { name: 'Shop', exact: true }).click()
    await openAt(page, title, 'Zero')
    await page.getByRole('tab', { name: /^(→ )?X/ }).click()
    await page.getByLabel('Found with').selectOption('corner')
    return page.getByRole('textbox', { name: 'X on the drawing' })
  }
  const first = await fieldIn(/first side/)
  await first.fill('.375')
  await first.blur()
  const field = await fieldIn(/second side/)
  for (const text of ['.5', '.25']) {
    await field.fill(text)
    await field.blur()
  }
  await rest(page, field)
  await expectAccessible(page)
  await page.getByRole('menuitem', { name: 'As it was typed before: .5' }).tap()
  await expect(field).toHaveValue('.5')
  await rest(page, field)
  await page.getByRole('menuitem', { name: /^As in Focuser housing, first side: \.375/ }).tap()
  await expect(field).toHaveValue('.375')
  // Of a number that is shown: from what it was computed.
  await page.getByRole('tab', { name: 'Offsets' }).click()
  await rest(page, page.locator('[data-value="-15.6504"][data-typed]'))
  await expect(page.getByText(/^Typed: /)).toBeVisible()
  await page.getByRole('menuitem', { name: 'Copy -15.6504' }).tap()
  await expect(page.getByRole('menu')).toHaveCount(0)
  await context.close()
})
