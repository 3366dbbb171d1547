import { existsSync, readdirSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { expect, expectAccessible, expectFitsBoth, signIn, test } from './dogleg.ts'
import { Server } from './harness.ts'

test('the first start asks one thing; an own shop is set up by keyboard, with nothing of the demo in it', async ({
  browser,
}) => {
  const server = new Server(0, 'ask')
  await server.start()
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  try {
    await page.goto(server.address)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('What would you like to do?')
    await expectAccessible(page)
    await expectFitsBoth(page, { vertically: true })
    // Round the demo first: it says on every page that it is one, and leads to an own shop.
    await page.getByRole('button', { name: /Look round the demo/ }).focus()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('link', { name: /first side/ })).toBeVisible()
    for (const at of ['/', '/machines', '/search']) {
      await page.goto(`${server.address}${at}`)
      await expect(page.getByRole('banner').getByText('demo')).toBeVisible()
    }
    await page.goto(server.address)
    await signIn(page)
    await page.getByRole('link', { name: 'Set up your own' }).focus()
    await page.keyboard.press('Enter')

    const title = page.getByRole('heading', { level: 1 })
    await expect(title).toHaveText('Which machine comes first?')
    await expectAccessible(page)
    const name = page.getByLabel('What it is called in the shop')
    await name.fill('')
    await expect(page.getByText('Give the machine a name.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Next' })).toBeDisabled()
    await name.fill('Bench mill')
    await name.press('Enter')
    await page.getByRole('button', { name: 'Next' }).press('Enter')
    await expect(title).toHaveText(/^In which unit does Bench mill show positions/)
    await expectFitsBoth(page, { vertically: true })
    await page.getByLabel('Travel in X').fill('22')
    // What was typed stays, however the page is left.
    await page.reload()
    await expect(page.getByLabel('Travel in X')).toHaveValue('22')
    await page.getByRole('button', { name: 'Next' }).press('Enter')
    await page.getByRole('radio', { name: /Two-line/ }).press('Space')
    await expectAccessible(page)
    await expectFitsBoth(page, { vertically: true })
    await page.getByRole('button', { name: 'Next' }).press('Enter')
    await page.getByRole('checkbox', { name: /1\/4-20 tap/ }).press('Space')
    await expectAccessible(page)
    await expectFitsBoth(page, { vertically: true })
    await page.getByRole('button', { name: 'Next' }).press('Enter')
    await expect(title).toHaveText('Who leads this shop?')
    await expectAccessible(page)
    await expectFitsBoth(page, { vertically: true })
    // At one PC nobody needs to: it is left empty.
    await page.getByRole('button', { name: 'Open the shop' }).press('Enter')

    await expect(page.getByRole('heading', { name: 'Bench mill' })).toBeVisible()
    await expect(page.getByText('Nothing on it yet.')).toBeVisible()
    await expect(page.getByRole('banner').getByText('demo')).toHaveCount(0)
    await expect(page.getByRole('heading', { level: 2 })).toHaveCount(1)
    // Another tablet that has seen the demo is not alarmed, and nothing of the demo is found.
    await expect(page.getByRole('alert')).toHaveCount(0)
    await page.getByRole('link', { name: 'Find a setup' }).click()
    await expect(page.getByText('Nothing was set up yet.')).toBeVisible()
    await page.getByRole('link', { name: 'Tools' }).click()
    await expect(page.getByRole('navigation', { name: 'tools' }).getByRole('link')).toHaveText([
      /T1 1\/2 end mill/,
      /T2 1\/4 end mill/,
      /T3 1\/2 spot drill/,
      /T4 #7 drill/,
    ])
    await page.getByRole('link', { name: 'Machines' }).click()
    await expect(page.getByLabel('The control speaks')).toHaveValue('two-line')
    await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Bench mill')

    // A start finds it there, and asks nothing.
    await server.stop()
    expect(existsSync(server.file)).toBe(true)
    expect(readdirSync(dirname(server.file)).filter((each) => each.includes('begun'))).toEqual([])
    expect(existsSync(join(dirname(server.file), 'demo.sqlite'))).toBe(true)
    await server.start()
    await page.goto(server.address)
    await expect(page.getByRole('heading', { name: 'Bench mill' })).toBeVisible()
    await page.goto(`${server.address}/begin`)
    await expect(page.getByText('This server has its shop already.')).toBeVisible()
  } finally {
    await context.close()
    await server.stop()
  }
})
