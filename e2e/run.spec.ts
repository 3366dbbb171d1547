import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { expect, expectView, openAt, signIn, test, toStep } from './dogleg.ts'
import { Server } from './harness.ts'

const tab = (page: Page, name: string | RegExp) => page.getByRole('tab', { name })

test('pallets, time, savings, sheet and handing over: no violation, nothing wider than the window', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /both operations/, 'Run')
  await expect(page.getByText(/stops after 10 changes/).first()).toBeVisible()
  for (const [part, vertically] of [
    ['What runs on each', true],
    ['Before the start', true],
    ['Try the run', 'wide'],
    ['Over a shift', true],
  ] as const) {
    await tab(page, part).click()
    await expectView(page, { vertically })
  }
  await tab(page, /^Time/).click()
  await page.getByRole('button', { name: /DRILL/ }).click()
  await expect(page.getByText('G98 G81 X15. Y15.', { exact: false })).toBeVisible()
  await expectView(page, { vertically: 'wide' })
  await tab(page, /What would save/).click()
  await expect(page.getByRole('button', { name: 'Look…' }).first()).toBeVisible()
  await expectView(page, { vertically: false })
  await toStep(page, 'Hand over')
  await expect(page.getByRole('article', { name: 'Setup sheet' })).toBeVisible()
  await expectView(page, { vertically: false })
  await tab(page, /To the next shift/).click()
  await expectView(page, { vertically: true })
})

test('a shift: pallets mended and set, a mismatch refused, timed, a saving taken, printed, handed over, acknowledged', async ({
  page,
  browser,
}) => {
  await signIn(page)
  await openAt(page, /both operations/, 'Run')
  // The programs call each other: mended as differences, one after the other.
  await page.getByRole('button', { name: /Mend with a main program/ }).click()
  await expect(page.getByRole('dialog')).toContainText('pallet 1')
  await page.getByRole('button', { name: /on to the next/ }).click()
  await page.getByRole('button', { name: /on to the next/ }).click()
  await expect(page.getByRole('dialog').getByText('M98 P5501', { exact: false })).toBeVisible()
  await page.getByRole('button', { name: 'Take all of them' }).click()
  await expect(page.getByText('it goes on for ever', { exact: false })).toBeHidden()
  await expect(page.getByText(/is not proved as it is here/)).toHaveCount(2)
  await expect(page.getByRole('cell', { name: 'O5490' })).toHaveCount(2)
  await page.getByRole('button', { name: 'Record the pallets' }).click()
  await page.getByRole('button', { name: /check before the start/ }).click()

  // Each wrong combination is refused; the right one is recorded.
  const answer = async (inside: RegExp, loaded: RegExp, interlock: string) => {
    await page.getByRole('radio', { name: inside }).click()
    await page.getByRole('radio', { name: loaded }).click()
    await page.getByRole('radio', { name: interlock, exact: true }).click()
  }
  const recordIt = page.getByRole('button', { name: /I have looked/ })
  await answer(/2.*side clamps B/, /O5501/, 'on')
  await expect(page.getByText(/The control refuses to start/)).toBeVisible()
  await expect(recordIt).toBeDisabled()
  await answer(/2.*side clamps B/, /O5501/, 'off')
  await expect(page.getByText(/A crash: O5501 would cut on pallet 2/)).toBeVisible()
  await expect(recordIt).toBeDisabled()
  await answer(/2.*side clamps B/, /O5490/, 'on')
  await recordIt.click()
  await expect(page.getByText(/Last answered by RT/)).toBeVisible()
  await expect(page.getByRole('link', { name: /^Run/ })).toContainText('set up')

  // Played by keyboard: the change waits for the ready button.
  await tab(page, 'Try the run').click()
  await page.getByRole('button', { name: 'Cycle start' }).focus()
  await page.keyboard.press('Enter')
  const on = page.getByRole('button', { name: 'Go on' })
  await on.focus()
  for (let press = 0; press < 3; press++) await page.keyboard.press('Enter')
  await expect(page.getByText('Waits for the ready button of pallet 2.')).toBeVisible()
  await page.getByRole('button', { name: 'Ready, pallet 2' }).focus()
  await page.keyboard.press('Enter')
  await on.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Pallet 1 goes out, pallet 2 comes in.')).toBeVisible()

  // A shift: nonsense is refused; twice as long is about twice the parts; a second person is worth more.
  await tab(page, 'What runs on each').click()
  await page.getByLabel('A shift lasts').fill('long')
  await expect(page.getByText(/Type a time such as 8, 7:30/)).toBeVisible()
  await page.getByLabel('A shift lasts').fill('16 h')
  await tab(page, 'Over a shift').click()
  await expect(page.getByRole('row', { name: /As it is/ })).toContainText(/35\d/)
  await tab(page, 'What runs on each').click()
  await page.getByLabel('A shift lasts').fill('8:00')
  await tab(page, 'Over a shift').click()
  await page.getByRole('button', { name: 'A second person' }).click()
  await expect(page.getByRole('row', { name: /A second person/ })).toContainText('+')
  await expect(page.getByRole('img', { name: /over the shift/ }).getByText('person 2')).toBeVisible()

  // Timed: nonsense is refused, a time is counted.
  await tab(page, /^Time/).click()
  await page.getByLabel('Program').selectOption('O5502 second operation')
  await page.getByLabel('It took').fill('soon')
  await expect(page.getByText(/Type a time such as/)).toBeVisible()
  await expect(page.getByText('as 2 timed cycles of this machine say')).toBeVisible()
  await page.getByLabel('It took').fill('1:21.5')
  await page.getByRole('button', { name: 'Record the time' }).click()
  await expect(page.getByText('as 3 timed cycles of this machine say')).toBeVisible()

  // A saving: looked at, taken, kept with before and after; its proof is that of the text before.
  await tab(page, /What would save/).click()
  const offer = page
    .getByRole('region', { name: 'What would save time' })
    .getByRole('listitem')
    .filter({ hasText: 'At rapid to Z2.5, then at feed' })
  await offer.getByRole('button', { name: 'Look…' }).click()
  await expect(page.getByRole('dialog').getByText('G0 Z2.5')).toBeVisible()
  await page.getByRole('button', { name: 'Take this change' }).click()
  const taken = page.getByRole('region', { name: 'Taken so far' })
  await expect(taken).toContainText('At rapid to Z2.5')
  await expect(offer).toBeHidden()
  await page.getByRole('link', { name: 'Prove it again' }).click()
  await expect(page.getByLabel('Name of the program')).toHaveValue('O5502 second operation')
  const recordProof = page.getByRole('button', { name: 'Record the proof', exact: true })
  await expect(recordProof).toBeEnabled()
  await recordProof.click()
  // The pallet runs the text of before: it is taken anew.
  await toStep(page, 'Run')
  await tab(page, /Pallets/).click()
  await expect(page.getByText('Look at the pallets and record them again.')).toBeVisible()
  await page.getByLabel(/Its program, O5502/).selectOption({ label: 'O5502 second operation' })
  await page.getByRole('button', { name: 'Record the pallets' }).click()
  // The other is not proved as it runs: the start is not what comes next.
  await expect(page.getByText('O5501 first operation is not proved as it is here.')).toBeVisible()
  await expect(page.getByText(/^Before cycle start: /)).toHaveCount(0)

  // The sheet, on one or two pages.
  await toStep(page, 'Hand over')
  const sheet = page.getByRole('article', { name: 'Setup sheet' })
  await expect(sheet).toContainText('At rapid to Z2.5')
  await expect(sheet.getByRole('img', { name: /^Opens/ })).toBeVisible()
  const pdf = await page.pdf({ format: 'A4' })
  const pages = pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g) ?? []
  expect(pages.length).toBeGreaterThanOrEqual(1)
  expect(pages.length).toBeLessThanOrEqual(2)

  // Handed over, and read by the next.
  await tab(page, /To the next shift/).click()
  await page.getByLabel('A note for the next shift').fill('Main program is O5490 now. Tap is new.')
  await page.getByRole('button', { name: 'Hand over' }).click()
  await expect(page.getByText('Nobody else has read it yet.')).toBeVisible()
  const next = await browser.newPage()
  await next.goto(page.url())
  await next.evaluate(() => localStorage.setItem('dogleg.operator', 'MK'))
  await next.reload()
  await toStep(next, 'Ready')
  await next.getByRole('button', { name: 'I have read the note by RT' }).click()
  await next.getByRole('button', { name: 'I have read the note by LB' }).click()
  await next.close()
  await expect(page.getByText(/Read by MK/)).toBeVisible()
})

test('a setup goes to another installation and comes back the same; what is no such file says so', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /both operations/, 'Hand over')
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as JSON' }).click(),
  ])
  const text = await readFile(await file.path(), 'utf8')
  const elsewhere = new Server()
  await elsewhere.start()
  await page.goto(elsewhere.address)
  await page.getByRole('button', { name: /Open a setup on Mill 2/ }).click()
  const folder = test.info().outputPath()
  const put = async (content: string) => {
    const path = join(folder, 'setup.json')
    await writeFile(path, content)
    await page.getByLabel('Read a setup from a file').setInputFiles(path)
  }
  await put('{"format": "something"}')
  await expect(page.getByText(/This is no file of a setup/)).toBeVisible()
  // Another installation's own demo has other ids: this one is new there.
  await put(text)
  await expect(page.getByText(/entries are taken in/)).toBeVisible()
  await put(text)
  await expect(page.getByText(/All of it was here already/)).toBeVisible()
  await page.getByRole('link', { name: 'Open it' }).click()
  await toStep(page, 'Hand over')
  await expect(page.getByRole('article', { name: 'Setup sheet' })).toContainText('-440.012')
  await page.goto('about:blank')
  await elsewhere.stop()
})

test('a job set up again begins with what was measured stale; the logbook is searched', async ({ page }) => {
  await signIn(page)
  await page.getByRole('button', { name: /Open a setup on Mill 1/ }).click()
  await page.getByLabel('The job').selectOption({
    label: (await page.getByRole('option', { name: /first side again/ }).textContent()) ?? '',
  })
  await page.getByRole('button', { name: 'Set it up again' }).click()
  await toStep(page, 'Zero')
  await expect(page.getByText(/before the job was set up again/).first()).toBeVisible()
  await toStep(page, 'Logbook')
  await page.getByLabel('Of', { exact: true }).selectOption('zero')
  await page.getByLabel('Look for').fill('edge finder')
  await expect(page.getByRole('row', { name: /edge finder/ })).toHaveCount(2)
  await expect(page.getByText(/Taken over from the last time: RT/).first()).toBeVisible()
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV' }).click(),
  ])
  expect(await readFile(await csv.path(), 'utf8')).toContain('Job set up again')
})
