import { expect, expectFitsBoth, expectView, openAt, signIn, test } from './dogleg.ts'

const TEXT =
  'G20 G90 G17 G40 G49 G80 G69 G94\nT7 M6\nG90 G54 G0 X1. Y-1.5\nS3000 M3\nG43 H7 Z1.\nZ0.1\nM777\nG1 Z-0.2 F10.\nX2.\nG0 Z1.\nG53 Z0.\nM30\n'

test('a code that nobody knows stops the proof; on the word of who says what it is, it is proved', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Prove')
  await page.getByLabel('Open a program file').setInputFiles({
    name: 'DOOR.NC',
    mimeType: 'text/plain',
    buffer: Buffer.from(TEXT),
  })
  await expect(page.getByText('1 stop')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Record the proof' })).toBeDisabled()
  await page.getByRole('tab', { name: /Findings/ }).click()
  await expect(page.getByRole('button', { name: 'Stop line 7 M777 is not known' })).toBeVisible()
  await page.screenshot({ path: '/tmp/shots/findings.png' })
  await page.getByRole('link', { name: 'Say what M777 is' }).click()
  const section = page.getByRole('group', { name: 'The machine’s own codes' })
  await expect(section.getByLabel('Code', { exact: true }).last()).toHaveValue('M777')
  await section.getByLabel('Seconds').last().fill('3')
  await section.getByLabel('What it does').last().fill('Opens the door.')
  await section.scrollIntoViewIfNeeded()
  await page.screenshot({ path: '/tmp/shots/own.png' })
  await expectView(page, { vertically: false })
  await expectFitsBoth(page, { vertically: false })
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText(/^Version \d+\. What was written for an older one is stale/)).toBeVisible()
  await page.goBack()
  await expect(page.getByRole('button', { name: 'Record the proof' })).toBeEnabled()
  await page.getByRole('tab', { name: /Findings/ }).click()
  await expect(
    page.getByText('every block read exactly, but for: M777 moves nothing (says RT).'),
  ).toBeVisible()
  await page.screenshot({ path: '/tmp/shots/coverage.png' })
  await page.getByRole('button', { name: 'Record the proof' }).click()
  await expect(page.getByText('Proved by RT')).toBeVisible()
  await page.getByRole('link', { name: 'Log' }).click()
  await expect(
    page.getByText(/every block read exactly, but for: M777 moves nothing \(says RT\)/),
  ).toBeVisible()
})
