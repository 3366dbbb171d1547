import type { Profile } from '@dogleg/core/control'
import type { Machine, ToolShape } from '@dogleg/core/machine'
import { type HiddenTruth, latheWorld, switchOn } from '@dogleg/core/simulated'
import { expect, expectAccessible, LONG_MS, openAt, signIn, test } from './dogleg.ts'
import { runThere } from './simulated.ts'

const PIECE = 577
/** Part zero stands so far in front of the chuck. */
const CHUCK = 2

test('a stop that the turret brings: the bar is pulled against it, and stands out as far as was asked', async ({
  page,
  server,
}) => {
  await signIn(page)
  const rows = async <T>(noun: string): Promise<T[]> =>
    (await (await page.request.get(`${server.address}/api/${noun}`)).json())[noun]
  const actions = (list: object[]) =>
    page.request.post(`${server.address}/api/simulated/lathe-1/actions`, { data: { actions: list } })

  await test.step('the turret gets a stop, and the machine is switched on', async () => {
    const like = (await rows<ToolShape>('tools')).find(({ machineId }) => machineId === 'lathe-1')
    const { onLathe: _, ...shape } = like as ToolShape
    const added = await page.request.post(`${server.address}/api/tools`, {
      data: {
        ...shape,
        id: 'lathe-1-stop',
        number: 9,
        name: 'Bar stop',
        version: 1,
        kind: 'drill',
        diameter: 0.75,
      },
    })
    expect(added.ok(), await added.text()).toBe(true)
    await page.getByRole('link', { name: 'Practice' }).click()
    await page.getByRole('link', { name: 'Lathe 1' }).click()
    await page.getByLabel('Piece number').fill(String(PIECE))
    await page.getByRole('button', { name: 'Switch it on' }).click()
    await expect(page.getByTestId('position-X')).toBeVisible()
  })

  const machine = (await rows<Machine>('machines')).find(({ id }) => id === 'lathe-1') as Machine
  const profile = (await rows<Profile>('profiles')).find(({ id }) => id === machine.profileId) as Profile
  const tools = (await rows<ToolShape>('tools')).filter(({ machineId }) => machineId === machine.id)
  const simulated = switchOn(latheWorld(PIECE, { machine, profile, tools }))
  const stop = simulated.world.tools.find(({ shape }) => shape.number === 9)?.geometry
  if (!stop) throw new Error('no stop')
  // Touched off: the geometry of the stop stands in the table, its Z counted from part zero.
  await actions([
    { do: 'key-offset', offset: 'T9', axis: 'X', value: stop.X },
    { do: 'key-offset', offset: 'T9', axis: 'Z', value: stop.Z + CHUCK },
  ])

  await test.step('the form, with its guards', async () => {
    await page.getByRole('link', { name: 'Shop' }).click()
    await openAt(page, /Drawtube/, 'Zero')
    await page.getByRole('tab', { name: 'Bar stop' }).click()
    await page.getByRole('radio', { name: 'pulled out to a stop' }).focus()
    await page.keyboard.press('Tab')
    for (const typed of ['T9', '5', '-2', '.03', '3.5']) {
      await page.keyboard.type(typed)
      await page.keyboard.press('Tab')
    }
    await expect(page.getByText(/is more than may stand out of this chuck/)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Download .nc' })).toHaveCount(0)
    await page.getByLabel('Stands out', { exact: true }).fill('-2.03')
    await expect(page.getByText('The bar must stand out of the chuck by more than nothing.')).toBeVisible()
    await page.getByLabel('Stands out', { exact: true }).fill('2.03')
    await expect(page.getByRole('button', { name: 'Download .nc' })).toBeVisible()
    await expectAccessible(page)
  })

  await test.step('it runs, stops twice, and goes away clear', async () => {
    await page.getByRole('button', { name: 'To the simulated Lathe 1' }).click()
    await page.getByRole('link', { name: 'To the simulated Lathe 1' }).click()
    // Further back than the stop will come.
    for (let pushes = 0; pushes < 2; pushes++)
      await page.getByRole('button', { name: 'Push the bar back, and clamp' }).click()
    const stands = page.getByText('The program stands before the next block.')
    await runThere(page)
    await expect(stands).toBeVisible({ timeout: LONG_MS })
    await page.getByRole('button', { name: 'Cycle start' }).click()
    // Not where it stood before cycle start: the stop is against the bar by now.
    await expect(page.getByText(/Next: rapid, 0\.5000 away from the chuck/)).toBeVisible({ timeout: LONG_MS })
    await expect(page.getByRole('alert')).toHaveCount(0)
    await page.getByRole('button', { name: 'Pull the bar out, and clamp' }).click()
    await expect(
      page.getByText('The bar is pulled against what stands in front of it, and clamped.'),
    ).toBeVisible()
    await page.getByRole('button', { name: 'Cycle start' }).click()
    await expect(page.getByText('The program at its end.')).toBeVisible({ timeout: LONG_MS })
    await expect(page.getByRole('alert')).toHaveCount(0)
  })

  // What is hidden says where the face truly stands: within the repeatability of a stop, 0.001.
  const answer = await page.request.get(`${server.address}/api/simulated/lathe-1/hidden`)
  const hidden = (await answer.json()) as HiddenTruth
  const shown = hidden.tools.find(({ number }) => number === 9)?.geometry
  expect(Math.abs((shown?.Z ?? 0) - stop.Z - 2.03)).toBeLessThan(0.001)
})
