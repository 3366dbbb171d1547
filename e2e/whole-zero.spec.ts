import { blockMiddle, boxOf, isMill, partZeroOf, probeOver, type SeenBody } from '@dogleg/core/simulated'
import type { Page } from '@playwright/test'
import { expect, expectAccessible, LONG_MS, openAt, type Server, signIn, test, typeInto } from './dogleg.ts'
import { handAt, runThere } from './simulated.ts'

const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true }).click()

/** The probe stands over the part at the simulated mill, put there by eye; its length stands in the tables. */
async function putProbe(page: Page, server: Server, piece: number, inset?: number) {
  await page.getByRole('link', { name: 'Practice' }).click()
  await page.getByRole('link', { name: 'Mill 1' }).click()
  await page.getByLabel('Piece number').fill(String(piece))
  await press(page, 'Switch it on')
  await expect(page.getByTestId('position-X')).toHaveText('0.0000')
  const { hand, doThere } = await handAt(page, server, piece)
  const probe = hand.simulated.world.machine.probe?.tool ?? 0
  const length = hand.see().tools.find(({ number }) => number === probe)?.length ?? 0
  hand.do({ do: 'key-length', tool: probe, length })
  const { seen } = probeOver(hand, inset)
  await doThere()
  if (!isMill(hand.simulated)) throw new Error('not a mill')
  const { world, vise } = hand.simulated
  const box = boxOf(seen?.bodies.find(({ role }) => role === 'part') as SeenBody)
  return {
    length,
    box,
    truth: {
      middle: blockMiddle(world, vise.frame),
      corner: partZeroOf(world, vise.frame),
      size: world.block.size,
    },
  }
}

/** What the simulated control shows after the program: its offset page and its variables. */
const controlShows = async (page: Page, server: Server) => {
  const { view } = await (await page.request.get(`${server.address}/api/simulated/mill-1`)).json()
  return view as {
    offsets: Record<string, Record<'X' | 'Y' | 'Z', number>>
    variables: Record<string, number>
  }
}

const PIECE = 2718

test('a block of unknown size: X, Y and Z by one program at the simulated mill, and what it found', async ({
  page,
  server,
}) => {
  await signIn(page)
  const { length, box, truth } = await putProbe(page, server, PIECE)
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /first side/, 'Zero')
  await page.getByRole('tab', { name: 'Probe' }).click()
  await page.getByLabel('Set G54 from').selectOption('block')
  const sizes = [box.X[1] - box.X[0], box.Y[1] - box.Y[0]].map((size) => size.toFixed(1))
  for (const [label, text] of [
    ['Length along X', sizes[0]],
    ['Width along Y', sizes[1]],
    ['Probe length', String(length)],
    ['X of the middle', '0'],
    ['Y of the middle', '0'],
  ] as const)
    await page.getByLabel(label).fill(text ?? '')
  await page.getByRole('button', { name: /^Take position X, Y and Z from/ }).click()
  await expect(page.getByLabel('Machine Z')).toHaveValue(/^-\d/)

  await test.step('a depth with the wrong sign is refused, with its reason', async () => {
    await page.getByLabel('Depth from top').fill('.25')
    await expect(page.getByText('A positive depth sends the probe up.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Download .nc' })).toHaveCount(0)
    await page.getByLabel('Depth from top').fill('-.25')
    await expectAccessible(page)
  })

  await test.step('it runs, and ends over the middle', async () => {
    await press(page, 'To the simulated Mill 1')
    await page.getByRole('link', { name: 'To the simulated Mill 1' }).click()
    await runThere(page)
    await expect(page.getByText('The program stands before the next block.')).toBeVisible({
      timeout: LONG_MS,
    })
    await expect(page.getByRole('alert')).toHaveCount(0)
    await page.getByRole('tab', { name: 'Offsets and lengths' }).click()
    await expect(page.getByRole('region', { name: 'Variables' })).toContainText('#100')
  })
  const { offsets, variables } = await controlShows(page, server)
  const found = offsets.G54 ?? { X: 0, Y: 0, Z: 0 }
  // A vise up to three quarters of a degree off, and a probe put within a fiftieth: 0.02 x tan 0.75 is 0.0003.
  for (const axis of ['X', 'Y', 'Z'] as const)
    expect(Math.abs(found[axis] - truth.middle[axis])).toBeLessThan(0.0004)

  await test.step('what it found is typed in and recorded, three axes at once', async () => {
    await page.getByRole('link', { name: 'Shop' }).click()
    await openAt(page, /first side/, 'Zero')
    await page.getByRole('tab', { name: 'Probe' }).click()
    const results = page.getByRole('region', { name: 'What it found' })
    for (const axis of ['X', 'Y', 'Z'] as const)
      await results.getByLabel(axis, { exact: true }).fill(found[axis].toFixed(4))
    await results.getByLabel('Length').fill((variables[100] ?? 0).toFixed(4))
    await results.getByLabel('Width').fill((variables[101] ?? 0).toFixed(4))
    await expectAccessible(page)
    await press(page, 'Record X, Y and Z of G54')
    for (const axis of ['X', 'Y', 'Z'] as const)
      await expect(
        page.getByRole('tab', { name: new RegExp(`^${axis}.*${found[axis].toFixed(4)}`) }),
      ).toBeVisible()
    await page.getByRole('tab', { name: /^X/ }).click()
    await expect(page.getByRole('region', { name: 'X of G54, as recorded' })).toContainText('by RT')
  })

  await test.step('the block is held against the part, and zero goes from the middle to the corner', async () => {
    await page.getByRole('tab', { name: 'Block' }).click()
    const finished = { X: truth.size.x - 0.1, Y: truth.size.y - 0.06 }
    await page.getByLabel('Finished, along X').fill(finished.X.toFixed(4))
    await page.getByLabel('Finished, along Y').fill(finished.Y.toFixed(4))
    await page.getByLabel('Off the top').fill('.03')
    const comesOff = page.getByRole('region', { name: 'What comes off' })
    // Half of what is there too much, a face: 0.05 and 0.03 within the touches.
    await expect(comesOff.getByRole('row', { name: /^X/ })).toContainText(/0\.(0499|0500|0501)/)
    await expect(comesOff.getByRole('row', { name: /^Y/ })).toContainText(/0\.(0299|0300|0301)/)
    await expect(comesOff.getByText('Good', { exact: true })).toBeVisible()
    await page.getByLabel('X zero at').selectOption('left face')
    await page.getByLabel('Y zero at').selectOption('front face')
    await page.getByLabel('Z zero at').selectOption('finished face')
    await expect(page.getByTestId('goes-stale')).toBeVisible()
    await expectAccessible(page)
    await press(page, 'Move zero of G54, and record')
    const moved = {
      X: Number(found.X.toFixed(4)) - finished.X / 2,
      Y: Number(found.Y.toFixed(4)) - finished.Y / 2,
      Z: Number(found.Z.toFixed(4)) - 0.03,
    }
    for (const axis of ['X', 'Y', 'Z'] as const) {
      const shown = Number(
        await page
          .getByRole('tab', { name: new RegExp(`^${axis} `) })
          .locator('.digits')
          .textContent(),
      )
      expect(Math.abs(shown - moved[axis])).toBeLessThan(0.0002)
    }
    await expect(page.getByText('Recorded as it stands.')).toBeVisible()
    // Back again, with one choice each and one press.
    await page.getByLabel('X zero at').selectOption('middle')
    await page.getByLabel('Y zero at').selectOption('middle')
    await page.getByLabel('Z zero at').selectOption('stock top')
    await press(page, 'Move zero of G54, and record')
    for (const axis of ['X', 'Y', 'Z'] as const)
      await expect(
        page.getByRole('tab', { name: new RegExp(`^${axis}.*${found[axis].toFixed(4)}`) }),
      ).toBeVisible()
  })
})

test('a corner and its top by one program, the probe put by eye', async ({ page, server }) => {
  await signIn(page)
  const { length, truth } = await putProbe(page, server, PIECE, 0.5)
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /first side/, 'Zero')
  await page.getByRole('tab', { name: 'Probe' }).click()
  await page.getByLabel('Set G54 from').focus()
  await typeInto(page, 'corner and')
  await page.keyboard.press('Tab')
  for (const value of ['X+', 'Y+', '.5', '-.25', '0', '0', '0', '.375', '.125', '.375', String(length)]) {
    await typeInto(page, value)
    await page.keyboard.press('Tab')
  }
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Machine Z')).toHaveValue(/^-\d/)
  await press(page, 'To the simulated Mill 1')
  await page.getByRole('link', { name: 'To the simulated Mill 1' }).click()
  await runThere(page)
  await expect(page.getByText('The program stands before the next block.')).toBeVisible({ timeout: LONG_MS })
  const { offsets } = await controlShows(page, server)
  const found = offsets.G54 ?? { X: 0, Y: 0, Z: 0 }
  // One touch a face, half an inch from the corner, in a vise up to three quarters of a degree off: 0.5 x tan 0.75 is 0.0066.
  for (const axis of ['X', 'Y'] as const)
    expect(Math.abs(found[axis] - truth.corner[axis])).toBeLessThan(0.007)
  expect(Math.abs(found.Z - truth.corner.Z)).toBeLessThan(0.0002)
})
