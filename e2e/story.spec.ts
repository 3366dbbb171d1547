import { readFileSync } from 'node:fs'
import { expect, expectAccessible, expectFits, openAt, signIn, test, toStep } from './dogleg.ts'

test('from two readings to a work offset the control can run, and back the next day', async ({
  page,
  server,
}) => {
  await test.step('open the demo setup', async () => {
    await expect(page.getByRole('link', { name: /serial number.*stale/s })).toBeVisible()
    await expect(page.getByRole('link', { name: /first side.*checked/s })).toBeVisible()
    await openAt(page, /second side/, 'Zero')
    await expect(page.getByRole('status').filter({ hasText: 'Take Y of G54' })).toBeVisible()
  })

  await test.step('type what the edge finder showed; the answer changes as it is typed', async () => {
    await page.getByLabel('Found with').selectOption('edge-finder')
    await page.getByRole('radio', { name: 'Y+' }).click()
    await page.getByLabel('Finder tip, diameter').fill('.2')
    await page.getByLabel('Machine position').fill('-9.2205')
    await expect(page.getByTestId('answer')).toHaveText(/-9\.1205/)
    await page.getByLabel('The touched face on the drawing').fill('-3')
    await expect(page.getByTestId('answer')).toHaveText(/-6\.1205/)
    await expect(page.getByText('±0.0010')).toBeVisible()
    await expect(page.getByText('Check this')).toBeVisible()
    await expect(page.getByText(/the part allows 0\.0005 in/)).toBeVisible()
    await expectFits(page, { vertically: true })
  })

  await test.step('a reload keeps what was typed', async () => {
    await page.reload()
    await expect(page.getByLabel('Machine position')).toHaveValue('-9.2205')
  })

  await test.step('the indicator does better; its swing must agree with that of X', async () => {
    await page.getByLabel('Found with').selectOption('indicator')
    await page.getByLabel(/minus side/).fill('-10.2725')
    await page.getByLabel(/plus side/).fill('-7.9500')
    await page.getByLabel('The touched face on the drawing').fill('-3')
    await expect(page.getByText(/The swing is 1\.1613 here and 1\.1517/)).toBeVisible()
    await page.getByLabel(/plus side/).fill('-7.9691')
    await expect(page.getByText('Good', { exact: true })).toBeVisible()
    await expect(page.getByTestId('answer')).toHaveText(/-6\.1208/)
  })

  await test.step('record it: the first entry asks who it is', async () => {
    await page.getByRole('button', { name: 'Record Y of G54' }).click()
    await page.getByLabel('Your initials').fill('RT')
    await page.getByRole('button', { name: 'That is me' }).click()
    await expect(page.getByRole('tab', { name: /Y.*-6\.1208/ })).toBeVisible()
    await expect(page.getByRole('tab', { name: /Z/, selected: true })).toBeVisible()
  })

  await test.step('Z by a tool on a gauge block', async () => {
    await page.getByLabel('Tool', { exact: true }).fill('7')
    await page.getByLabel('Tool length').fill('4.512')
    await page.getByLabel('Gauge block').fill('25.4mm')
    await expect(page.getByText('= 1.0000 in')).toBeVisible()
    await page.getByLabel('Machine position').fill('-9.834')
    await page.getByRole('button', { name: 'Record Z of G54' }).click()
    await expect(page.getByRole('tab', { name: /Z.*-15\.3460/ })).toBeVisible()
  })

  await test.step('take the program to the control', async () => {
    await page.getByRole('link', { name: 'Take the program for G54 to the control.' }).click()
    const downloading = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Download .nc' }).click()
    const download = await downloading
    expect(download.suggestedFilename()).toBe('focuser-housing-second-side-g54.nc')
    const text = readFileSync(await download.path(), 'utf8')
    expect(text).toContain('G90 G10 L2 P1 X-15.6504 Y-6.1208 Z-15.346 (LOAD G54)')
    expect(text.indexOf('G53 G0 Z0.')).toBeLessThan(text.indexOf('G0 X0. Y0.'))
    await expect(page.getByText(/Taken: downloaded by RT.*The same as this one/)).toBeVisible()
    await expectAccessible(page)
  })

  await test.step('check it with a pointed tool', async () => {
    await toStep(page, 'Zero')
    await page.getByRole('tab', { name: /Check/ }).click()
    await page.getByRole('button', { name: 'It stands off' }).click()
    await expect(page.getByText('Say how far off it stood, and which way.')).toBeVisible()
    await page.getByRole('button', { name: 'It stands over part zero' }).click()
    await expect(page.getByRole('link', { name: /Zero.*checked/ })).toBeVisible()
    await expect(page.getByRole('link', { name: /Zero.*checked/ })).toBeVisible()
    await expectAccessible(page)
  })

  await test.step('come back tomorrow: it is all in the logbook', async () => {
    await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)
    await server.stop()
    await server.start()
    await page.reload()
    await page.getByRole('link', { name: 'Logbook' }).click()
    await expect(page.locator('tr[data-kind=pickup]')).toHaveCount(3)
    await page.getByText('The text as it was taken').click()
    await expect(page.getByRole('list', { name: 'Program text' })).toContainText(
      'X-15.6504 Y-6.1208 Z-15.346',
    )
    await expect(page.getByText(/tool on gauge block, T7.*block 25\.4mm = 1\.0000 in/)).toBeVisible()
    await expectAccessible(page)
  })

  await test.step('the vise is moved: what goes stale is said first, then marked', async () => {
    await page.getByRole('button', { name: 'Something changed' }).click()
    await page.getByRole('radio', { name: /Vise moved/ }).click()
    await expect(page.getByRole('dialog').getByRole('listitem')).toHaveText([
      'The squareness of the vise goes stale.',
      'The clearance of the vise goes stale.',
      'G54 X goes stale.',
      'G54 Y goes stale.',
      'G54 Z goes stale.',
      'The check of G54 goes stale.',
      'The program for G54 goes stale.',
    ])
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Enter it in the logbook' }).click()
    await expect(page.getByRole('link', { name: /Zero.*stale/ })).toBeVisible()
    await page.getByRole('link', { name: 'Program' }).click()
    await expect(page.getByText(/X, Y and Z of G54 are stale: taken before the vise was moved/)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Download .nc' })).toHaveCount(0)
  })

  await test.step('it was a slip: strike it out, with a reason, and everything holds again', async () => {
    await page.getByRole('link', { name: 'Logbook' }).click()
    await page.getByRole('button', { name: 'Strike out: Vise moved' }).click()
    await expect(page.getByText('G54 X is fresh again.')).toBeVisible()
    await page.getByRole('button', { name: 'Strike it out' }).click()
    await expect(page.getByText('Say why it is struck out.')).toBeVisible()
    await page.getByLabel('Reason').fill('Wrong setup.')
    await page.getByRole('button', { name: 'Strike it out' }).click()
    await expect(page.getByText(/Struck out by RT.*Wrong setup\./)).toBeVisible()
    await expect(page.locator('.line-through').first()).toBeVisible()
    await expect(page.getByRole('link', { name: /Zero.*checked/ })).toBeVisible()
  })
})

test('the whole job by keyboard alone', async ({ page }) => {
  await signIn(page)
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key)
  }
  await page.getByRole('button', { name: 'Open a setup on Mill 1' }).focus()
  await press('Enter')
  await page.getByLabel('Part and side').focus()
  await page.keyboard.type('Bracket, first side')
  await press('Enter')
  await page.keyboard.type('2 thou')
  await expect(page.getByText('= 0.0020 in')).toBeVisible()
  await press('Enter', 'Enter')

  await page.getByRole('link', { name: /^Zero/ }).focus()
  await press('Enter')
  await expect(page.getByRole('tab', { name: /X/, selected: true })).toBeVisible()
  await page.getByRole('radio', { name: 'X+' }).focus()
  await press('Space', 'Tab')
  await page.keyboard.type('1/5')
  await press('Enter')
  await page.keyboard.type('-14.2312')
  await press('Enter', 'Enter', 'Enter')
  await expect(page.getByRole('tab', { name: /X.*-14\.1312/ })).toBeVisible()

  await expect(page.getByRole('tab', { name: /Y/, selected: true })).toBeVisible()
  await expect(page.getByLabel('Finder tip, diameter')).toHaveValue('1/5')
  await expect(page.getByRole('radio', { name: 'Y+' })).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await press('Tab', 'Enter')
  await page.keyboard.type('-8.35')
  await press('Enter', 'Enter', 'Enter')
  await expect(page.getByRole('tab', { name: /Y.*-8\.4500/ })).toBeVisible()

  await expect(page.getByLabel('Tool', { exact: true })).toBeFocused()
  await page.keyboard.type('12')
  await press('Enter')
  await page.keyboard.type('5')
  await press('Enter')
  await page.keyboard.type('0')
  await press('Enter')
  await page.keyboard.type('-10 - 1/4')
  await press('Enter', 'Enter', 'Enter')
  await expect(page.getByRole('tab', { name: /Z.*-15\.2500/ })).toBeVisible()

  await page.getByRole('link', { name: 'Take the program for G54 to the control.' }).focus()
  await press('Enter')
  await page.getByRole('button', { name: 'Download .nc' }).focus()
  const downloading = page.waitForEvent('download')
  await press('Enter')
  await downloading
  await page.getByRole('link', { name: /^Zero/ }).focus()
  await press('Enter')
  const stands = page.getByRole('button', { name: 'It stands over part zero' })
  // Not within a second of coming on screen: a hand that tapped twice has seen nothing.
  await expect(stands).toBeDisabled()
  await expect(stands).toBeEnabled()
  await stands.focus()
  await press('Enter')
  await expect(page.getByRole('link', { name: /Zero.*checked/ })).toBeVisible()
})
