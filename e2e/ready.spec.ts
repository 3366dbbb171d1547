import { expect, expectAccessible, openAt, signIn, test, toStep } from './dogleg.ts'

test('a shift begins: the note first, then the walk-round, home, and what an alarm makes due again', async ({
  page,
}) => {
  await signIn(page, 'RT')
  await test.step('the shop page shows what waits, and leads to it', async () => {
    await page.getByRole('link', { name: /MK left a note: Vise is back on/ }).click()
    await expect(page.getByRole('button', { name: 'I have read the note by MK' })).toBeVisible()
    await expectAccessible(page)
  })

  await test.step('it stands over every step until it is read', async () => {
    await toStep(page, 'Zero')
    await page.getByRole('link', { name: 'Ready note by MK' }).click()
    await page.getByRole('button', { name: 'I have read the note by MK' }).click()
    await expect(page.getByText(/read by RT/).first()).toBeVisible()
    await expect(page.getByRole('link', { name: /^Ready/ })).toContainText('checked')
  })

  await test.step('an alarm makes lines due again, with the reason', async () => {
    await page.getByRole('button', { name: 'Something changed' }).click()
    await page.getByRole('radio', { name: /Alarm, cleared/ }).click()
    await expect(page.getByText('Walk-round and power-up are due again.')).toBeVisible()
    await page.getByRole('button', { name: 'Enter it in the logbook' }).click()
    await expect(page.getByText('Again: ticked before the alarm.').first()).toBeVisible()
    await expect(page.getByRole('link', { name: /^Ready/ })).toContainText('stale')
    await expectAccessible(page)
  })

  await test.step('ticks are entries: who and when, and taken back by a strike', async () => {
    const lines = page.getByRole('button', { name: /^Tick: / })
    const count = await lines.count()
    expect(count).toBe(7)
    for (let left = count; left > 0; left -= 1) {
      await lines.first().press('Enter')
      await expect(lines).toHaveCount(left - 1)
    }
    await page.getByRole('button', { name: /Take back: Light on/ }).click()
    await expect(lines).toHaveCount(1)
    await lines.first().click()
    await expect(lines).toHaveCount(0)
  })

  await test.step('home positions are compared with what this machine shows', async () => {
    const home = page.getByRole('region', { name: 'Home positions' })
    await home.getByLabel('X shows').fill('0')
    await home.getByLabel('X shows').press('Enter')
    await page.keyboard.type('.0125')
    await page.keyboard.press('Enter')
    await page.keyboard.type('0')
    await expect(home.getByText('Y shows 0.0125 in, 0.0125 in above the usual 0.0000 in.')).toBeVisible()
    await home.getByLabel('Y shows').fill('.0001')
    await expect(home.getByText('Good')).toBeVisible()
    await home.getByRole('button', { name: 'Record the home positions' }).click()
    await expect(page.getByRole('link', { name: /^(Take|See|Sweep) / }).last()).toBeVisible()
  })

  await test.step('overrides for what comes now', async () => {
    const overrides = page.getByRole('region', { name: 'Overrides' })
    await overrides.getByRole('radio', { name: 'First run' }).click()
    await expect(overrides.getByText('5 %', { exact: true })).toBeVisible()
    await expect(overrides.getByText('single block')).toBeVisible()
    await expect(overrides).toContainText('0.83 in in one second')
  })

  await test.step('the logbook says it all', async () => {
    await toStep(page, 'Logbook')
    await expect(page.getByText('Ticked: Light on, warm-up run').first()).toBeVisible()
    await expect(page.getByText('Read and acknowledged', { exact: false }).first()).toBeVisible()
  })
})

test("a machine's own walk-round: edited with the machine, and what was ticked before is due", async ({
  page,
}) => {
  await signIn(page, 'LB')
  await page.getByRole('link', { name: 'Machines' }).click()
  await expect(page.getByRole('link', { name: /Lathe 1/ })).toHaveAttribute('aria-current', 'page')
  await page.getByRole('button', { name: 'Change the list for this machine' }).click()
  const lines = page.getByLabel('What is to be done')
  await lines.first().fill('')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Say what is to be done, or take the line out.')).toBeVisible()
  await lines.first().fill('No key in the chuck')
  await page.getByRole('button', { name: 'Another line' }).click()
  await lines.last().fill('Bar feeder empty')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Version 2.')).toBeVisible()
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /Drawtube/, 'Ready')
  await expect(page.getByRole('button', { name: 'Tick: Bar feeder empty' })).toBeVisible()
  await expect(page.getByText('Again: the line was changed since it was ticked.')).toBeVisible()
})
