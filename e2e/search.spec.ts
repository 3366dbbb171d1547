import { expect, expectAccessible, expectFitsBoth, openAt, signIn, test } from './dogleg.ts'

test('the whole shop is searched by keyboard: it says why each setup was found, and leads there and back', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /serial number/, 'Logbook')
  await page.getByLabel('Add a note').fill('The parallel under the left jaw is the short one.')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)
  await page.getByRole('link', { name: 'Find a setup' }).focus()
  await page.keyboard.press('Enter')
  const field = page.getByRole('searchbox', { name: 'Search the whole shop' })
  await expect(field).toBeFocused()
  // Nothing typed yet: the last ones.
  await expect(page.getByRole('link', { name: /Drawtube, first operation/ })).toBeVisible()
  await page.keyboard.type('paral mill')
  await expect(page.getByText('1 setup with paral mill')).toBeVisible()
  const row = page.getByRole('link', { name: /serial number/ })
  await expect(row).toContainText('Note: The parallel under the left jaw is the short one.')
  await expect(row).toContainText('With: Mill 1')
  await expectAccessible(page)
  await expectFitsBoth(page, { vertically: true })
  await field.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('navigation', { name: 'Steps of this setup' })).toBeVisible()
  await page.goBack()
  await expect(field).toHaveValue('paral mill')
  await field.fill('nobody-ever-wrote-this')
  await expect(page.getByText('No setup has nobody-ever-wrote-this in its log.')).toBeVisible()
})
