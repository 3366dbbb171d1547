import type { Page } from '@playwright/test'
import { expect, expectAccessible, openAt, openRow, signIn, test, toStep } from './dogleg.ts'

async function openSetup(page: Page, title: string, unit: 'inch' | 'mm', tolerance: string) {
  await page.getByRole('button', { name: 'Open a setup on Mill 1' }).click()
  await page.getByLabel('Part and side').fill(title)
  await page.getByRole('radio', { name: unit, exact: true }).click()
  await page.getByLabel('Tightest position tolerance').fill(tolerance)
  await page.getByRole('button', { name: 'Open it' }).click()
  await expect(page.getByRole('heading', { name: new RegExp(title) })).toBeVisible()
  await toStep(page, 'Zero')
}

async function takeX(page: Page, position: string) {
  await page.getByRole('radio', { name: 'X+' }).click()
  await page.getByLabel('Finder tip, diameter').fill('10mm')
  await page.getByLabel('Machine position').fill(position)
}

test('a setup in mm on a machine that shows inch: the unit is asked for, understood, and guarded', async ({
  page,
}) => {
  await signIn(page)
  await openSetup(page, 'Spacer ring', 'mm', '.05')
  await expect(page.getByText('Mill 1 shows inch: write in behind the number.')).toBeVisible()
  await takeX(page, '-9.5in')
  await expect(page.getByText('= -241.300 mm')).toBeVisible()
  await expect(page.getByTestId('answer')).toHaveText(/-236\.300/)
  await page.getByRole('button', { name: 'Record X of G54' }).click()
  await page.getByRole('tab', { name: /X/ }).click()
  await takeX(page, '-9.52')
  await expect(page.getByText('The position of X looks like the other unit.')).toBeVisible()
  await page.getByRole('link', { name: 'Program', exact: true }).click()
  await expect(page.getByText('G21 G90 G17 G40 G49 G80 G69 G94')).toBeVisible()
  await expect(page.getByText('Y and Z of G54 are not taken and will not be loaded.')).toBeVisible()
})

test('a profile: what it comes to changes as it is typed, and what it cannot carry gets a sentence', async ({
  page,
}) => {
  await page.getByRole('link', { name: 'Profiles' }).click()
  const listing = page.getByRole('list', { name: 'Program text' })
  await expect(listing).toContainText('G90 G10 L2 P1 X-15. Y-5.3333 Z-15.')
  await page.getByLabel('Zeros at the end').check()
  await expect(listing).toContainText('X-15.0000 Y-5.3333 Z-15.0000')
  await page.getByLabel('Digits, inch').fill('3')
  await expect(listing).toContainText('X-15.000 Y-5.333')
  await page.getByLabel('Standard, in order').fill('G60')
  await expect(
    page.getByText('What would be written for G60 cannot be read back as it is meant.'),
  ).toBeVisible()
  await page.getByLabel('Standard, in order').fill('G54 G55 G56 G57 G58 G59')
  await page.getByLabel('Digits, inch').fill('9')
  await expect(page.getByText('At most 5 digits.')).toBeVisible()
  await expect(page.getByText('Correct the fields first.')).toBeVisible()
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('link', { name: /Compact version 1/ })).toBeVisible()
  await page.getByLabel('Digits, inch').fill('4')
  await page.getByLabel('The control can').uncheck()
  await expect(listing).toContainText('KEY IN G54 BY HAND: X-15.0000 Y-5.3333 Z-15.0000')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('link', { name: /Compact version 2/ })).toBeVisible()

  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /first side/, 'Program')
  await expect(page.getByText(/now speaks Compact version 2/).first()).toBeVisible()
  await expect(page.getByText('This control cannot load offsets from a program')).toBeVisible()
})

test('a setup cannot be opened without a title, or with a tolerance that is none', async ({ page }) => {
  await signIn(page)
  await page.getByRole('button', { name: 'Open a setup on Mill 1' }).click()
  const open = page.getByRole('button', { name: 'Open it' })
  await open.click()
  await expect(page.getByText('Give the setup a title.')).toBeVisible()
  await expect(page.getByText('Type a number.')).toBeVisible()
  await page.getByLabel('Part and side').fill('Bracket')
  for (const [typed, says] of [
    ['-1', 'Type a length above zero: how far off part zero may be.'],
    ['abc', '"abc" is not a length'],
  ] as const) {
    await page.getByLabel('Tightest position tolerance').fill(typed)
    await open.click()
    await expect(page.getByText(says)).toBeVisible()
  }
  await expectAccessible(page)
  await page.getByLabel('Tightest position tolerance').fill('.002')
  await open.click()
  await expect(page.getByRole('heading', { name: /Bracket/ })).toBeVisible()
})

test('an extended offset, and a machine that is given a control without it', async ({ page }) => {
  await signIn(page)
  await openSetup(page, 'Third vise', 'inch', '.005')
  await page.getByLabel('Work offset').selectOption('G154 P3')
  await takeX(page, '-12')
  await page.getByRole('button', { name: 'Record X of G154 P3' }).click()
  await page.getByRole('link', { name: 'Program', exact: true }).click()
  await expect(page.getByText('G90 G10 L20 P3 X-11.8031')).toBeVisible()
  const address = page.url()

  await page.getByRole('link', { name: 'Machines' }).click()
  await openRow(page, /Mill 1/)
  await page.getByLabel('The control speaks').selectOption({ label: 'Plain' })
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Version 2.')).toBeVisible()
  await page.goto(address)
  await expect(page.getByText('G154 P3 is not an offset of this control.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Download .nc' })).toHaveCount(0)
})

test('a setup opened while the server is away is there at once, and in the list when it is back', async ({
  page,
  server,
}) => {
  await signIn(page)
  await expect(page.getByRole('button', { name: 'Open a setup on Mill 1' })).toBeEnabled()
  // The views of a setup load when they are opened first.
  await openAt(page, /first side/, 'Zero')
  await expect(page.getByRole('tabpanel')).toBeVisible()
  await page.getByRole('link', { name: 'Shop' }).click()
  // So does the form of a new one, or by itself once the shop has stood for a moment.
  await page.getByRole('button', { name: 'Open a setup on Mill 1' }).click()
  await expect(page.getByLabel('Part and side')).toBeVisible()
  await page.keyboard.press('Escape')
  await server.stop('SIGKILL')
  await openSetup(page, 'Night shift', 'inch', '.002')
  await takeX(page, '-12')
  await page.getByRole('button', { name: 'Record X of G54' }).click()
  await expect(page.getByText('2 entries are kept on this tablet until the server answers')).toBeVisible()
  await server.start()
  await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)
  await expect(page.getByRole('tab', { name: /X.*-11\.8031/ })).toBeVisible()
  await page.getByRole('link', { name: 'Shop' }).click()
  await expect(page.getByRole('link', { name: /Night shift/ })).toBeVisible()
})

test('each field lights up what it measures, and a mark of the drawing brings its field', async ({
  page,
}) => {
  await openAt(page, /second side/, 'Zero')
  await page.getByRole('tab', { name: /Z/ }).click()
  const drawing = page.getByRole('img', { name: /Side view/ })
  const lit = drawing.locator('line[stroke-width="3.5"]')
  await expect(lit).toHaveCount(0)
  for (const field of ['Tool length', 'Gauge block', 'Machine position']) {
    await page.getByLabel(field).focus()
    await expect(lit).toHaveCount(1)
  }
  await drawing.getByText('tool length').click()
  await expect(page.getByLabel('Tool length')).toBeFocused()
})
