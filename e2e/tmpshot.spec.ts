import { expect, openAt, signIn, test, toStep } from './dogleg.ts'
test('shots', async ({ page, server }) => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(server.address)
  console.log(await page.getByRole('link').allInnerTexts())
})
