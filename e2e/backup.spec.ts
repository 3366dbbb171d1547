import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { expect, expectAccessible, expectFitsBoth, openAt, signIn, test } from './dogleg.ts'

/** Runs a command of the server, as somebody at its own keyboard would. */
function command(file: string, ...args: string[]) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [join(import.meta.dirname, '../server/dist/logbook-command.js'), ...args],
    { env: { ...process.env, DOGLEG_DATA: file }, encoding: 'utf8' },
  )
  return { status, says: stdout + stderr }
}

test('a backup is made by a key, put in the place of the logbook, and what came after it is given back', async ({
  page,
  server,
}) => {
  await signIn(page)
  const note = async (text: string) => {
    await page.getByRole('link', { name: 'Shop', exact: true }).click()
    await openAt(page, /second side/, 'Logbook')
    await page.getByLabel('Add a note').fill(text)
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByText(text)).toBeVisible()
    await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)
  }
  await note('Before the backup.')
  await expect(page.getByRole('link', { name: 'No backup yet' })).toBeVisible()
  await page.getByRole('link', { name: 'No backup yet' }).click()
  await page.getByRole('button', { name: 'Make a backup now' }).click()
  await expect(page.getByRole('status').getByText(/Last backup \d\d:\d\d/)).toBeVisible()
  await expectAccessible(page)
  await expectFitsBoth(page, { vertically: true })
  const restore = await page.getByText(/^npm run restore/).textContent()
  await note('After the backup.')
  await server.stop()
  const backup = (restore ?? '').replace('npm run restore ', '')
  expect(command(server.file, 'restore', backup)).toEqual({
    status: 0,
    says: expect.stringMatching(/What stood there is kept/),
  })
  expect(command(server.file, 'verify').status).toBe(0)
  await server.start()
  const alarm = page.getByRole('alert', { name: 'Entries are missing' })
  await alarm.getByRole('button', { name: 'Give back what this tablet holds' }).click()
  await expect(alarm).toHaveCount(0)
  await page.reload()
  await page.getByRole('link', { name: 'Logbook', exact: true }).click()
  await expect(page.getByText('Before the backup.')).toBeVisible()
  await expect(page.getByText('After the backup.')).toBeVisible()
})
