import { levelOf, onRotary, probeDownOn, probeOverRotary, probeSideOf, turnTo } from '@dogleg/core/simulated'
import { expect, expectAccessible, LONG_MS, openAt, signIn, test } from './dogleg.ts'
import { handAt, runThere } from './simulated.ts'

const PIECE = 4711

test('a part in the rotary: its centre line by half a turn, its angle from a flat, loaded and run', async ({
  page,
  server,
}) => {
  const press = (name: string | RegExp) => page.getByRole('button', { name, exact: true }).click()
  const FIELDS = { Y: /^Y at the (front|back)$/, A: 'A shows' } as const
  const take = async (what: keyof typeof FIELDS, n = 0) => {
    await page
      .getByRole('button', { name: new RegExp(`^Take position ${what} from`) })
      .nth(n)
      .click()
    // The next key is pressed when this one has its answer, as a person does.
    await expect(page.getByRole('textbox', { name: FIELDS[what] }).nth(n)).not.toHaveValue('')
  }
  await signIn(page)
  await page.getByRole('link', { name: 'Practice' }).click()
  await page.getByRole('link', { name: 'Mill 1' }).click()
  await page.getByLabel('Piece number').fill(String(PIECE))
  await press('Switch it on')
  await expect(page.getByTestId('position-X')).toHaveText('0.0000')
  const { hand, doThere } = await handAt(page, server, PIECE)
  probeOverRotary(hand)
  await doThere()
  if (!onRotary(hand.simulated)) throw new Error('no rotary')
  const { rotary, machine } = hand.simulated.world
  const level = levelOf(rotary)
  const probe = hand.see().tools.find(({ number }) => number === machine.probe?.tool)

  await test.step('the machine shows it, and turns it by hand', async () => {
    await expect(page.getByTestId('position-A')).toHaveText('0.000')
    await press('Axis A')
    await press('A plus 1 click')
    await expect(page.getByTestId('position-A')).toHaveText('1.000')
    await page.getByLabel('Degrees of A').fill('1')
    await press('Jog A minus')
    await expect(page.getByTestId('position-A')).toHaveText('0.000')
    await expectAccessible(page)
  })

  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /first side/, 'Zero')
  await page.getByRole('tab', { name: 'Rotary' }).click()

  await test.step('the centre line, from both sides and by half a turn', async () => {
    // The flat down: both sides are round, and by half a turn they are again.
    const low = Math.round(level) + 180
    await page.getByLabel('Part measures').fill((2 * rotary.part.radius).toFixed(4))
    await page.getByLabel('Its length').fill(String(probe?.length ?? ''))
    for (const [half, at] of [
      [0, low],
      [1, low + 180],
    ] as const) {
      turnTo(hand, at)
      for (const [side, field] of [
        ['front', 2 * half],
        ['back', 2 * half + 1],
      ] as const) {
        probeSideOf(hand, side)
        await doThere()
        await take('Y', field)
      }
      await take('A', half)
    }
    await expect(page.getByText('Good', { exact: true })).toBeVisible()
    await expectAccessible(page)
    const y = Number(await page.getByTestId('centre-Y').textContent())
    expect(Math.abs(y - rotary.axis.y)).toBeLessThan(0.0003)
    await press('Record the centre line')
    await press('Put Y of G54 on it')
    await expect(page.getByRole('button', { name: 'Y of G54 lie on it' })).toBeDisabled()
    await expect(page.getByRole('tab', { name: new RegExp(`^Y.*${y.toFixed(4)}`) })).toBeVisible()
  })

  await test.step('a flat that was touched from two sides of the axis is refused', async () => {
    await page.getByRole('radio', { name: 'A from a flat' }).click()
    await page.getByLabel('The flat faces').selectOption('front')
    for (const [label, text] of [
      ['A shows', '0'],
      ['Y of touch 1', (rotary.axis.y - 1).toFixed(4)],
      ['Z of touch 1', '-11'],
      ['Y of touch 2', (rotary.axis.y + 1).toFixed(4)],
      ['Z of touch 2', '-10'],
    ] as const)
      await page.getByRole('textbox', { name: label }).fill(text)
    await expect(page.getByText('The two touches are on two sides of the axis.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Record A of G54' })).toBeDisabled()
    await page.getByLabel('The flat faces').selectOption('up')
  })

  await test.step('A from the flat, two touches taken by key', async () => {
    turnTo(hand, Math.round(level / 5) * 5)
    for (const [n, share] of [
      [1, -0.4],
      [2, 0.4],
    ] as const) {
      probeDownOn(hand, share * rotary.part.radius)
      await doThere()
      await press(new RegExp(`^Take position Y and Z of touch ${n} from`))
      await expect(page.getByRole('textbox', { name: `Z of touch ${n}` })).toHaveValue(/^-\d/)
    }
    await expect(page.getByRole('textbox', { name: 'A shows' })).toHaveValue(
      String(Math.round(level / 5) * 5),
    )
    // Who walked round has ticked that it was homed.
    await expect(page.getByText('Good', { exact: true })).toBeVisible()
    await expectAccessible(page)
    const a = Number((await page.getByTestId('answer').textContent())?.replace('deg', ''))
    expect(Math.abs(a - level)).toBeLessThan(0.06)
    await press('Record A of G54')
    await page.getByRole('tab', { name: 'Offsets' }).click()
    await expect(page.getByRole('row', { name: /^G54/ })).toContainText(a.toFixed(3))
  })

  await test.step('and once more with the keyboard alone: an indicator that reads the same at both ends', async () => {
    await page.getByRole('tab', { name: 'Rotary' }).focus()
    await page.keyboard.press('Enter')
    await page.keyboard.press('Tab')
    // What is found, then how: arrow keys move in each, Tab goes on.
    const how = page.getByRole('radio', { name: 'indicator swept' })
    for (
      let n = 0;
      n < 6 &&
      !(await page
        .getByRole('radio', { name: 'two touches' })
        .evaluate((of) => of === document.activeElement));
      n++
    )
      await page.keyboard.press('Tab')
    await page.keyboard.press('ArrowRight')
    await expect(how).toBeChecked()
    await page.keyboard.press('Tab')
    const a = Number(level.toFixed(3))
    for (const text of [String(a), '0', '.0100', '.0100', '1.2']) {
      await page.keyboard.type(text)
      await page.keyboard.press('Enter')
    }
    await expect(page.getByTestId('answer')).toContainText(a.toFixed(3))
    await expect(page.getByRole('button', { name: 'Record A of G54' })).toBeFocused()
    await page.keyboard.press('Enter')
    await expect(page.getByText('A of G54, as recorded')).toBeVisible()
  })

  await test.step('the program loads it, and turns the part to its zero', async () => {
    await page.getByRole('link', { name: 'Take the program for G54 to the control again.' }).click()
    await expect(page.getByText(/G10 L2 P1 X\S+ Y\S+ Z\S+ A/).first()).toBeVisible()
    await press('To the simulated Mill 1')
    await page.getByRole('link', { name: 'To the simulated Mill 1' }).click()
    await runThere(page)
    // It stops to be compared, and again with the part at its zero.
    await expect(page.getByText('The program stands before the next block.')).toBeVisible({
      timeout: LONG_MS,
    })
    await page.getByRole('button', { name: 'Cycle start' }).click()
    await expect
      .poll(async () => Math.abs(Number(await page.getByTestId('position-A').textContent()) - level), {
        timeout: LONG_MS,
      })
      .toBeLessThan(0.06)
    await expect(page.getByRole('alert')).toHaveCount(0)
    await page.getByRole('tab', { name: 'Offsets and lengths' }).click()
    await expect(page.getByRole('row', { name: /^G54/ })).toContainText(/-?\d+\.\d{3}$/)
  })

  await test.step('clamped again, the angle no longer holds; the centre line does', async () => {
    await page.getByRole('link', { name: 'Shop' }).click()
    await openAt(page, /first side/, 'Zero')
    await press('Something changed…')
    await page.getByRole('radio', { name: /Part clamped again/ }).click()
    await expect(page.getByText('G54 A goes stale.')).toBeVisible()
    await expect(page.getByText('G54 Y goes stale.')).toHaveCount(0)
    await press('Enter it in the logbook')
    await expect(page.getByRole('tab', { name: /Rotary/ }).getByLabel('stale')).toBeVisible()
  })
})
