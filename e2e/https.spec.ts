import jsQR from 'jsqr'
import { expect, expectAccessible, expectFits, test } from './dogleg.ts'
import { codeAtKeyboard, enter, letIn, signsIn } from './people.ts'

test('over https: the page that says how to trust the shop, then signing in by a key that goes nowhere else', async ({
  server,
  browser,
}) => {
  await signsIn(server)
  await server.stop()
  await server.start({ DOGLEG_HTTPS: 'shop', DOGLEG_HTTPS_PORT: '0', DOGLEG_PORT: '0' })
  // The harness knows the port of https.
  const secure = `https://127.0.0.1:${server.port}`
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    ignoreHTTPSErrors: true,
    serviceWorkers: 'block',
  })
  const page = await context.newPage()
  await page.goto(secure)
  await letIn(page, codeAtKeyboard(server), 'Mill 1')
  await enter(page, 'RT')
  await expect(page.getByRole('heading', { name: 'Mill 1' })).toBeVisible()
  const [cookie] = await context.cookies()
  expect(cookie).toMatchObject({ name: '__Host-dogleg', httpOnly: true, secure: true, sameSite: 'Strict' })
  await page.goto(`${secure}/people`)
  await page.getByRole('button', { name: 'Let a tablet in' }).click()
  const { plain } = await page.evaluate(async () => {
    const response = await fetch('/api/tablets/codes', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{}',
    })
    return (await response.json()) as { plain?: string }
  })
  expect(plain).toMatch(/^http:\/\/127\.0\.0\.1:\d+$/)
  await expect(page.getByText(plain ?? '')).toBeVisible()

  // A tablet that knows nothing of the shop yet.
  await page.goto(plain ?? '')
  await expect(page.getByRole('heading', { name: 'Before this tablet opens Dogleg' })).toBeVisible()
  await expectAccessible(page)
  await expectFits(page, { vertically: false })
  await page.setViewportSize({ width: 800, height: 1280 })
  await expectFits(page, { vertically: true })
  const { data } = await page.locator('.qr svg').evaluate(async (svg) => {
    const canvas = new OffscreenCanvas(300, 300)
    const on = canvas.getContext('2d')
    if (!on) throw new Error('no canvas')
    on.fillStyle = 'white'
    on.fillRect(0, 0, 300, 300)
    // This page lets nothing be loaded: the code is drawn by hand from its one path.
    const [, , size = 1] = (svg.getAttribute('viewBox') ?? '').split(' ').map(Number)
    on.setTransform(300 / size, 0, 0, 300 / size, 0, 0)
    on.fillStyle = 'black'
    for (const path of svg.querySelectorAll('path')) on.fill(new Path2D(path.getAttribute('d') ?? ''))
    return { data: [...on.getImageData(0, 0, 300, 300).data] }
  })
  expect(jsQR(new Uint8ClampedArray(data), 300, 300)?.data).toBe(`${plain}/`)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Load the shop’s certificate' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('dogleg-authority.crt')
  expect(await page.getByRole('link', { name: 'Open Dogleg' }).getAttribute('href')).toBe(secure)
  await page.goto(`${plain}/setups/anything`)
  expect(page.url()).toBe(`${secure}/setups/anything`)
  await context.close()
  // What follows knows the server by its plain port again.
  await server.stop()
  await server.start({ DOGLEG_HTTPS: '', DOGLEG_PORT: String(server.port) })
})
