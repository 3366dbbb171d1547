import { readFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import { download, expect, expectView, openAt, openEarlier, signIn, test, toStep } from './dogleg.ts'

const tab = (page: Page, name: string | RegExp) => page.getByRole('tab', { name })
const code = (page: Page) => page.getByRole('region', { name: 'Program text' })

test('what is gauged, trying it and the chart: no violation, nothing wider than the window', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Run')
  await page.locator('.recharts-line').first().waitFor()
  await expectView(page, { vertically: false })
  await tab(page, /What is gauged/).click()
  await expect(page.getByText('Good', { exact: true })).toBeVisible()
  for (const part of ['Measure', 'Where', 'Result']) {
    await tab(page, part).click()
    await expectView(page, { vertically: true })
  }
  await tab(page, /Try it/).click()
  await expect(page.getByText(/each came out as the plan says/)).toBeVisible()
  await expectView(page, { vertically: false })
})

test('a bore: composed by keyboard, refused upside down, tried in and out of tolerance, taken, recorded, charted', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Run')
  await tab(page, /What is gauged/).click()
  await page.getByRole('button', { name: 'New plan' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Slot bore')
  await page.getByRole('button', { name: 'Add' }).click()
  const form = page.getByRole('form', { name: 'Feature' })
  await form.getByLabel('Name', { exact: true }).focus()
  for (const text of ['SLOT', '.5', '-.001 +.001']) {
    await page.keyboard.press('Control+A')
    await page.keyboard.type(text)
    await page.keyboard.press('Enter')
  }
  await tab(page, 'Where').click()
  await page.getByLabel('X', { exact: true }).focus()
  for (const text of ['2.9', '-2.5']) {
    await page.keyboard.type(text)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText('SLOT: the tolerance is upside down.')).toBeVisible()
  await expect(page.getByText(/Nothing is written/)).toBeVisible()
  await tab(page, 'Measure').click()
  await page.getByLabel('Tolerance').fill('±.0010')
  await expect(code(page)).toContainText('G65 P9814 D0.5 Q0.1')
  await expect(code(page)).toContainText('G103 P1')
  await tab(page, 'Result').click()
  await page.getByLabel('With the result').selectOption('wear')
  await page.getByLabel('Cut by T').fill('7')
  await expect(code(page)).toContainText('#2607= #2607 + #149')
  await expect(page.getByText('Good', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Record the plan' }).click()
  await expect(page.getByText(/Recorded by RT/)).toBeVisible()
  const { name, text } = await download(page)
  expect(name).toBe('slot-bore-gauge.nc')
  expect(text).toContain('A QUALIFIED PERSON')
  expect(text).toMatch(/M5[\s\S]*T16 M6[\s\S]*G65 P9832[\s\S]*G65 P9814[\s\S]*G65 P9833[\s\S]*M30\n%\n$/)

  // Tried: in, out, not there; and a wrong sign put in by hand is found by running it.
  await tab(page, /Try it/).click()
  const outcome = page.getByTestId('outcome')
  await expect(outcome).toContainText('Goes on')
  await page.getByLabel('SLOT', { exact: true }).fill('0.5008')
  await expect(page.getByRole('row', { name: /wear of diameter, T7/ })).toContainText('+0.0004')
  await expect(page.getByRole('row', { name: /#100 SLOT/ })).toContainText('+0.0008 off, then +0.0004')
  await page.getByLabel('SLOT', { exact: true }).fill('0.5014')
  await expect(outcome).toContainText('Stops: SLOT ABOVE 0.501 - T7')
  await page.getByRole('button', { name: 'All good' }).click()
  await page.getByLabel('What is not there').selectOption('part')
  await expect(outcome).toContainText('Stops: the probe met nothing')
  await expect(page.getByText(/kinds of part: each came out as the plan says/)).toBeVisible()
  await page.getByLabel('It moves by, a part').fill('.0001')
  await expect(page.getByText(/Corrected like this, every part stays in tolerance/)).toBeVisible()
  const editor = page.getByRole('textbox', { name: 'Program text' })
  await editor.focus()
  await page.keyboard.press('Control+A')
  await page.keyboard.insertText(text.replace('#2607= #2607 + #149', '#2607= #2607 - #149'))
  await expect(page.getByRole('heading', { name: 'Changed by hand' })).toBeVisible()
  await expect(page.getByText(/corrected the wrong way/).first()).toBeVisible()
  await tab(page, /What is gauged/).click()
  await expect(page.getByRole('button', { name: /Download/ })).toBeHidden()
  await tab(page, /Try it/).click()
  await page.getByRole('button', { name: 'As it was written' }).click()
  await expect(page.getByText(/corrected the wrong way/)).toHaveCount(0)

  // Recorded: one typed, many pasted, one of them out.
  await tab(page, /Chart/).click()
  // Trying it has a slider of that name too: on a slow machine it stands there a moment longer.
  await expect(page.getByLabel('Part', { exact: true })).toBeVisible()
  await page.getByLabel('SLOT', { exact: true }).focus()
  await page.keyboard.type('.4998')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 parts', { exact: true })).toBeVisible()
  await page.getByRole('radio', { name: 'many' }).click()
  await page.getByLabel('A part to a line').fill('.4999\n.5000\nabout half\n.5002')
  await expect(page.getByText(/Line 3:/)).toBeVisible()
  const rows = Array.from({ length: 20 }, (_, n) => (0.4999 + 0.00004 * n + (n % 2) * 0.00003).toFixed(5))
  await page.getByLabel('A part to a line').fill([...rows, '.5012'].join('\n'))
  await page.getByRole('button', { name: 'Record 21 parts' }).click()
  await expect(page.getByText('22 parts', { exact: true })).toBeVisible()
  await expect(page.getByRole('figure', { name: /SLOT over 22 parts/ })).toBeVisible()
  await expect(page.getByTestId('correct-before')).toContainText('Correct it before part')
  await expect(page.getByText('Say what was done about part 22 of Slot bore.')).toBeVisible()
  await page.getByLabel('What was done about it').selectOption('not-counted')
  await expect(page.getByRole('button', { name: 'Enter it', exact: true })).toBeDisabled()
  await page.getByLabel('Note').fill('A chip under the stylus.')
  await page.getByRole('button', { name: 'Enter it', exact: true }).click()
  await expect(page.getByText('21 parts', { exact: true })).toBeVisible()
  await expect(page.getByText(/measured wrong, does not count/).first()).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV' }).click(),
  ])
  const csv = await readFile(await file.path(), 'utf8')
  expect(csv.split('\r\n')[0]).toBe('part,at,by,SLOT,out,done,note')
  expect(csv.split('\r\n')).toHaveLength(23)
  expect(csv).toContain('A chip under the stylus.')
  // It is all in the log, and stands after a reload.
  await page.reload()
  await expect(page.getByText('21 parts', { exact: true })).toBeVisible()
  await toStep(page, 'Logbook')
  await expect(page.getByText('21 parts measured: 2 to 22').first()).toBeVisible()
  // What the plan rests on moves: it goes stale, and the results stay.
  await page.getByRole('button', { name: /Something changed/ }).click()
  await page.getByRole('radio', { name: /Vise moved/ }).click()
  await page.getByRole('button', { name: 'Enter it in the logbook' }).click()
  await expect(page.getByRole('link', { name: /^Run/ })).toContainText('stale')
})

test('the log file of a control, and a lathe whose parts are measured by hand', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Run')
  await page.locator('.recharts-line').first().waitFor()
  await page.getByLabel('Open a file of results').waitFor({ state: 'detached' })
  await page.getByRole('radio', { name: 'many' }).click()
  await page.getByLabel('Open a file of results').setInputFiles({
    name: 'gauge.log',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      'GAUGE HOUSING FIRST SIDE\nBORE 1.2504\nT7 DIA WEAR -0.0024\nDOWEL 0.3750\nFACE 0.0004\n',
    ),
  })
  await expect(page.getByText(/the log file of a control: 1 part, 3 values/)).toBeVisible()
  await page.getByRole('button', { name: 'Record 1 part' }).click()
  await expect(page.getByText(/^200 parts, corrected/)).toBeVisible()

  await page.getByRole('link', { name: 'Shop' }).click()
  await openEarlier(page, /O-ring/, 'Run')
  await expect(page.getByText(/has no probe/)).toBeVisible()
  await page.getByRole('button', { name: 'Add' }).click()
  const form = page.getByRole('form', { name: 'Feature' })
  await form.getByLabel('Name', { exact: true }).fill('GROOVE')
  await page.getByLabel('Drawing size').fill('1.010')
  await page.getByLabel('Tolerance').fill('.002')
  await page.getByRole('button', { name: 'Record the plan' }).click()
  await tab(page, /Chart/).click()
  await page.getByLabel('GROOVE', { exact: true }).fill('1.0125')
  await page.getByRole('button', { name: 'Record the part' }).click()
  await expect(page.getByText('1 of 1 parts out of tolerance')).toBeVisible()
})
