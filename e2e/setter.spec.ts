import { touchSetter } from '@dogleg/core/simulated'
import { expect, expectAccessible, LONG_MS, openAt, signIn, test } from './dogleg.ts'
import { handAt, runThere } from './simulated.ts'

const PIECE = 1618

test('tool lengths from a setter: calibrated, measured, gone stale after a knock; and by the macro of the control', async ({
  page,
  server,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Zero')
  await page.getByRole('tab', { name: 'Tools' }).click()
  await page.getByRole('radio', { name: 'a setter' }).click()

  await test.step('nothing is measured before it is calibrated', async () => {
    await expect(page.getByText('Nobody has calibrated the setter yet.')).toBeVisible()
    await page.getByLabel('Tool', { exact: true }).fill('7')
    await page.getByLabel('Machine Z at the trigger').fill('-9.7')
    await expect(page.getByRole('button', { name: /^Record the length/ })).toBeDisabled()
  })

  await test.step('by a master; a height in the other unit is refused', async () => {
    await page.getByRole('button', { name: 'Calibrate it' }).click()
    await page.getByRole('radio', { name: 'it is known' }).click()
    await page.getByLabel('Height of the setter').fill('-386')
    await expect(page.getByText('The height looks like the other unit.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Record the setter' })).toBeDisabled()
    await page.getByRole('radio', { name: 'with a master' }).focus()
    await page.keyboard.press('Space')
    await page.keyboard.press('Tab')
    await page.keyboard.type('-11.2')
    await page.getByLabel('Length of the master').fill('4')
    await expect(page.getByTestId('answer')).toHaveText(/-15\.2000/)
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Record the setter' }).click()
  })

  await test.step('a tool by it', async () => {
    await expect(page.getByText('-15.2000').first()).toBeVisible()
    await page.getByLabel('Tool', { exact: true }).fill('7')
    await page.getByLabel('Machine Z at the trigger').fill('-10.6880')
    await expect(page.getByTestId('answer')).toHaveText(/4\.5120/)
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Record the length of T7' }).click()
    await expect(page.getByRole('row', { name: /T7 4\.5120/ })).toBeVisible()
  })

  await test.step('after an alarm it is calibrated again; what it measured is stale where it lies elsewhere', async () => {
    await page.getByRole('button', { name: 'Something changed' }).click()
    await page.getByRole('radio', { name: /Alarm, cleared without homing/ }).click()
    await page.getByRole('button', { name: 'Enter it in the logbook' }).click()
    await expect(page.getByText(/stale: calibrated before the alarm/)).toBeVisible()
    await page.getByRole('button', { name: 'Calibrate it' }).click()
    await page.getByLabel('Machine Z at the trigger').fill('-11.205')
    await page.getByLabel('Length of the master').fill('4')
    await expect(page.getByText('The setter lies 0.0050 in lower than it was.')).toBeVisible()
    await page.getByRole('button', { name: 'Record the setter' }).click()
    await expect(
      page.getByRole('row', { name: /T7.*before the setter was found to lie elsewhere/ }),
    ).toBeVisible()
  })

  await test.step('several by the macro, at the simulated mill; the control has their lengths then', async () => {
    await page.getByRole('link', { name: 'Practice' }).click()
    await page.getByRole('link', { name: 'Mill 1' }).click()
    await page.getByLabel('Piece number').fill(String(PIECE))
    await page.getByRole('button', { name: 'Switch it on' }).click()
    await expect(page.getByTestId('position-X')).toHaveText('0.0000')
    await page.getByRole('link', { name: 'Shop' }).click()
    await openAt(page, /first side/, 'Zero')
    await page.getByRole('tab', { name: 'Tools' }).click()
    await page.getByRole('radio', { name: 'its macro' }).click()
    await page.getByText('Several tools, by the macro of the control').click()
    await page.getByRole('textbox', { name: 'Tools' }).fill('3 7')
    await page.getByRole('button', { name: 'To the simulated Mill 1' }).click()
    await page.getByRole('link', { name: 'To the simulated Mill 1' }).click()
    await runThere(page)
    await expect(page.getByText('The program stands before the next block.')).toBeVisible({
      timeout: LONG_MS,
    })
    await expect(page.getByRole('alert')).toHaveCount(0)
    const { hand } = await handAt(page, server, PIECE)
    const preset = hand.see().tools.find(({ number }) => number === 7)?.length ?? 0
    const { view } = await (await page.request.get(`${server.address}/api/simulated/mill-1`)).json()
    expect(view.lengths[7]).toBeCloseTo(preset, 9)
    await page.getByRole('link', { name: 'Shop' }).click()
    await openAt(page, /first side/, 'Zero')
    await page.getByRole('tab', { name: 'Tools' }).click()
    await page.getByLabel('Tool', { exact: true }).fill('7')
    await page.getByLabel('Length on the tool page').fill(preset.toFixed(4))
    await page.getByRole('button', { name: 'Record the length of T7' }).click()
    await expect(page.getByRole('row', { name: new RegExp(`T7 ${preset.toFixed(4)}`) })).toBeVisible()
  })

  await test.step('by hand at the simulated mill: a master and a tool brought down on it, positions taken by key', async () => {
    // A machine as it was switched on: the program above did more to it than the hand here knows.
    await page.request.put(`${server.address}/api/simulated/mill-1`, {
      data: { machine: 'mill-1', seed: PIECE },
    })
    const { hand, doThere } = await handAt(page, server, PIECE)
    const preset = (tool: number) => hand.see().tools.find(({ number }) => number === tool)?.length ?? 0
    const takeZ = () =>
      page
        .getByRole('button', { name: /^Take position Z from/ })
        .first()
        .click()
    await page.getByRole('radio', { name: 'a setter' }).click()
    await page.getByRole('button', { name: 'Calibrate it' }).click()
    touchSetter(hand, 3)
    await doThere()
    await takeZ()
    await page.getByLabel('Length of the master').fill(preset(3).toFixed(4))
    await page.getByRole('button', { name: 'Record the setter' }).click()
    await page.getByLabel('Tool', { exact: true }).fill('7')
    touchSetter(hand, 7)
    await doThere()
    await takeZ()
    const length = Number((await page.getByTestId('answer').textContent())?.replace(/[^\d.-]/g, ''))
    // Two touches on the setter, a display of tenths: four times the doubt of their difference.
    expect(Math.abs(length - preset(7))).toBeLessThan(0.0007)
    await page.getByRole('button', { name: 'Record the length of T7' }).click()
    await expect(page.getByRole('row', { name: new RegExp(`T7 ${length.toFixed(4)}`) })).toBeVisible()
  })
})
