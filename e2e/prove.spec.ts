import { readFile, writeFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import {
  expect,
  expectAccessible,
  expectFitsBoth,
  expectView,
  LONG_MS,
  openAt,
  signIn,
  test,
  toStep,
} from './dogleg.ts'

const GOOD =
  'G20 G90 G17 G40 G49 G80 G69 G94\nT7 M6\nG90 G54 G0 X1. Y-1.5\nS3000 M3\nG43 H7 Z1.\nZ0.1\nG1 Z-0.2 F10.\nX2.\nG0 Z1.\nG53 Z0.\nM30\n'

/** Opens a program as a file. */
const openProgram = (page: Page, name: string, text: string | Buffer) =>
  page.getByLabel('Open a program file').setInputFiles({
    name,
    mimeType: 'text/plain',
    buffer: typeof text === 'string' ? Buffer.from(text) : text,
  })

const verdict = (page: Page, word: string) => page.getByText(word, { exact: true }).first()

test('a program and those that it calls are opened together, and proved as one', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Prove')
  const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  const main = GOOD.replace('X2.\n', 'M98 P200\n')
  const open = page.getByLabel('Open a program file')
  await open.setInputFiles([
    file('O200.nc', 'X2.\nM99\n'),
    file('side1.nc', main),
    file('notes.txt', 'G0 X1.'),
  ])
  await expect(page.getByRole('status').getByText(/Which of these is the main program\?/)).toBeVisible()
  await open.setInputFiles([file('O200.nc', 'X2.\nM99\n'), file('side1.nc', main)])
  await expect(page.getByLabel('Name of the program')).toHaveValue('side1.nc')
  await expect(verdict(page, 'Good')).toBeVisible()
  // Without the other it is stopped at the call.
  await open.setInputFiles([file('side1.nc', main)])
  await expect(page.getByText(/Program O200 is not in this text/).first()).toBeVisible()
})

test('every part of Prove is accessible and fits', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Prove')
  await expect(page.getByText('The next press, line 5:')).toBeVisible()
  for (const tab of [/Step/, /Findings/, /Work area/, /First run/, /Time/]) {
    await page.getByRole('tab', { name: tab }).click()
    await expectView(page, { vertically: false })
  }
  await page.getByRole('tab', { name: /Step/ }).click()
  await expectFitsBoth(page, { vertically: 'wide' })
  await page.getByRole('button', { name: 'In space' }).click()
  await expect(page.getByRole('button', { name: 'Turn left' })).toBeVisible()
  await expectView(page, { vertically: 'wide' })
  // With nothing open yet.
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /second side/, 'Prove')
  await expect(
    page.getByText('Open or drop a file, with those that it calls, or paste the text below.'),
  ).toBeVisible()
  for (const tab of [/Findings/, /Work area/, /First run/, /Time/, /Step/]) {
    await page.getByRole('tab', { name: tab }).click()
    await expectFitsBoth(page, { vertically: true })
  }
  await expectAccessible(page)
  await page.goto(new URL('/tools', page.url()).href)
  await expect(page.getByText('Its shape')).toBeVisible()
  await expectView(page, { vertically: false })
})

test('a crash is found as it is typed, shown, mended and proved again; the text makes the old proof stale', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Prove')
  await expect(page.getByText('Proved by RT')).toBeVisible()
  const line = page.getByLabel('Program text').getByText('G98 G83')
  await line.scrollIntoViewIfNeeded()
  await page.getByLabel('Program text').click()
  await page.keyboard.press('Control+Home')
  for (let n = 0; n < 23; n++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Home')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Delete')
  await page.keyboard.type('9')
  await expect(page.getByText('1 stop')).toBeVisible()
  await expect(page.getByText('Stale: proved before the text was changed')).toBeVisible()
  await page.getByRole('button', { name: 'Look at line 26.' }).click()
  await page.getByRole('button', { name: /Stop line 26/ }).click()
  await page.getByRole('tab', { name: 'Step' }).click()
  await expect(page.getByText(/2.3000 to the front .* passes through clamp 1/)).toBeVisible()
  await page.getByRole('tab', { name: /Findings/ }).click()
  await page.getByRole('button', { name: 'Mend…' }).click()
  await expect(page.getByRole('dialog')).toContainText('Write G98')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Take this change' }).click()
  await expect(page.getByText('Nothing is said of this program')).toBeVisible()
  // The same text again: the proof that was recorded holds again.
  await expect(page.getByText('Stale: proved before the text was changed')).toBeHidden()
})

test('keys alone: stepped through by space, arrows, to the next tool, and recorded', async ({ page }) => {
  await signIn(page)
  await openAt(page, /second side/, 'Prove')
  await openProgram(page, 'slot.nc', GOOD)
  await expect(page.getByText(/The next press, line 1:/)).toBeVisible()
  await expect(page.getByText('Nothing is placed in the work area')).toBeVisible()
  await page.keyboard.press('t')
  await expect(page.getByText('The next press, line 2:')).toBeVisible()
  for (let n = 0; n < 3; n++) await page.keyboard.press('ArrowRight')
  await expect(page.getByText('The next press, line 5:')).toBeVisible()
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByText(/Spindle clockwise, 3000 rpm/i)).toBeVisible()
  await page.keyboard.press('End')
  await expect(page.getByText('The program has ended.')).toBeVisible()
  await page.keyboard.press('f')
  await expect(page.getByText(/The next press/)).toBeVisible()
  // With a stop in it (nothing of G54 but X is known) there is nothing to record.
  await expect(page.getByRole('button', { name: 'Record the proof' })).toBeDisabled()
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /first side/, 'Prove')
  await openProgram(page, 'slot.nc', GOOD)
  await expect(page.getByLabel('Name of the program')).toHaveValue('slot.nc')
  const recordProof = page.getByRole('button', { name: 'Record the proof', exact: true })
  await expect(recordProof).toBeEnabled()
  await recordProof.focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Proved by RT')).toBeVisible()
  await toStep(page, 'Logbook')
  await expect(page.getByText(/Proved: slot.nc/)).toBeVisible()
})

test('the work area is placed by typing and by dragging; what stands in the way is found, and a moved vise makes the proof stale', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Prove')
  await page.getByRole('tab', { name: 'Work area' }).click()
  await page.getByRole('button', { name: 'clamp 1' }).click()
  // Over the slot, as high as it is.
  await page.getByLabel('X from').fill('1-1/2')
  await expect(page.getByText(/stop/, { exact: false }).first()).toBeVisible()
  await expect(verdict(page, 'Stop')).toBeVisible()
  await page.getByLabel('X from').fill('3.75')
  await expect(verdict(page, 'Good')).toBeVisible()
  const plan = page.getByRole('figure', { name: 'Plan, from above' })
  const box = await plan.boundingBox()
  if (!box) throw new Error('the plan is not on the page')
  // From the right end of the clamp, over the slot.
  await page.mouse.move(box.x + box.width * 0.66, box.y + box.height * 0.5)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.5, { steps: 5 })
  await page.mouse.up()
  await expect(verdict(page, 'Stop')).toBeVisible()
  await expect(page.getByLabel('X from')).not.toHaveValue('3.75')
  await page.getByRole('button', { name: 'Record the work area' }).click()
  await expect(
    page.getByText(/Stale: proved before what stands in the work area was taken again/),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Something changed…' }).click()
  await page.getByText('Vise moved', { exact: true }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Record|Add|Enter/ })
    .click()
  await expect(page.getByText('What stands in the work area is stale.')).toBeVisible()
})

test('what no program is gets said, and nothing is lost', async ({ page }) => {
  await signIn(page)
  await openAt(page, /second side/, 'Prove')
  await expect(
    page.getByText('Open or drop a file, with those that it calls, or paste the text below.'),
  ).toBeVisible()
  await openProgram(page, 'wide.nc', Buffer.from('G20 G0 X1.', 'utf16le'))
  await page.getByRole('tab', { name: /Findings/ }).click()
  await expect(page.getByText(/saved as UTF-16/).first()).toBeVisible()
  await openProgram(page, 'loop.nc', 'G20\nN1 G0 X1.\nGOTO 1\n')
  await expect(page.getByText(/has not come to its end/).first()).toBeVisible()
  await openProgram(page, 'slot.nc', GOOD)
  await expect(page.getByRole('button', { name: /line 1\b.*end/ })).toBeHidden()
  await page.waitForTimeout(600)
  await page.reload()
  await expect(page.getByPlaceholder('Name of the program')).toHaveValue('slot.nc')
})

test('a large program: progress, stopped at once, then read whole', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Prove')
  await expect(page.getByText('Proved by RT')).toBeVisible()
  const place = (n: number, span: number) => ((n % span) / 100).toFixed(2)
  const moves = Array.from({ length: 200_000 }, (_, n) => `X${place(n, 300)} Y-${place(7 * n, 250)}`).join(
    '\n',
  )
  const text = GOOD.replace('X2.\n', `${moves}\n`)
  const file = test.info().outputPath('large.nc')
  await writeFile(file, text)
  await page.getByLabel('Open a program file').setInputFiles(file)
  await expect(page.getByText('A large program')).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(page.getByText('Stopped.')).toBeVisible()
  await page.getByRole('button', { name: 'Prove it' }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeHidden({ timeout: LONG_MS })
  await page.getByRole('tab', { name: 'Step' }).click()
  await page.keyboard.press('End')
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByText(/The next press, line 2000\d\d:/)).toBeVisible()
  // Only a window of it stands in the editor, and the program is whole all the same.
  await expect(page.getByLabel('Program text').getByText('M30')).toBeVisible()
  await page.keyboard.press('Home')
  await expect(page.getByText('The next press, line 1:')).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save file' }).click(),
  ])
  expect((await readFile(await download.path(), 'utf8')).length).toBe(text.length)
  // The tablet has kept it as a file; it is there again after a reload.
  await page.reload()
  await expect(page.getByPlaceholder('Name of the program')).toHaveValue('large.nc')
  await expect(page.getByText('A large program')).toBeVisible()
  await expect(page.getByText('The next press, line 1:')).toBeVisible({ timeout: LONG_MS })
})

test('on a lathe: one view, diameters, towards the chuck', async ({ page }) => {
  await signIn(page)
  await openAt(page, /Drawtube/, 'Prove')
  await page.getByRole('tab', { name: 'Work area' }).click()
  await page.getByRole('button', { name: 'Add: Bar' }).click()
  await page.getByLabel('Length').fill('3')
  await page.getByLabel('Z of its end').fill('-3')
  // The diameter is that of the bar in Hold.
  await page.getByRole('button', { name: 'Place it' }).click()
  await page.getByRole('button', { name: 'Add: Chuck' }).click()
  await expect(page.getByRole('button', { name: 'Place it' })).toBeDisabled()
  await page.getByLabel('Diameter').fill('6')
  await page.getByLabel('Length').fill('2')
  await page.getByLabel('Z of its end').fill('-5')
  await page.getByRole('button', { name: 'Place it' }).click()
  await openProgram(
    page,
    'turn.nc',
    'G20 G99\nT0101\nG50 S2000\nG97 S500 M3\nG0 X1.2 Z.1\nG1 Z-6. F.01\nG28 U0. W0.\nM30\n',
  )
  await page.getByRole('tab', { name: 'Step' }).click()
  await page.keyboard.press('f')
  await page.getByRole('tab', { name: /Findings/ }).click()
  await expect(page.getByText(/goes into chuck/).first()).toBeVisible()
  await expectAccessible(page)
})
