import type { Page } from '@playwright/test'
import { expect, expectAccessible, expectFits, openAt, openRow, signIn, test, toStep } from './dogleg.ts'

async function openSetup(page: Page, machine: string, title: string, unit = 'inch') {
  await page.getByRole('button', { name: `Open a setup on ${machine}` }).click()
  await page.getByLabel('Part and side').fill(title)
  await page.getByRole('radio', { name: unit, exact: true }).click()
  await page.getByLabel('Tightest position tolerance').fill('.002')
  await page.getByRole('button', { name: 'Open it' }).click()
  await toStep(page, 'Hold')
}

const readings = (page: Page) => page.getByLabel('Dial reads')
async function sweep(page: Page, held: string, near: string, far: string) {
  await page.getByRole('radio', { name: held }).click()
  await readings(page).first().fill(near)
  await readings(page).last().fill(far)
}
const square = (page: Page) => page.getByRole('tab', { name: /Square the vise/ }).click()
const record = (page: Page) => page.getByRole('button', { name: 'Record the sweep' }).click()
const next = (page: Page, says: string) =>
  expect(page.getByRole('status').filter({ hasText: says })).toBeVisible()

test('a vise is squared: the target, a reversed sign that is noticed, then snug, tight and done', async ({
  page,
}) => {
  await signIn(page)
  await openSetup(page, 'Mill 1', 'Bracket')
  await next(page, 'Choose the vise, and see whether it clears.')
  await square(page)
  await test.step('the cleaning guide is there at the moment it is needed', async () => {
    await expect(page.getByRole('heading', { name: 'Before the first sweep' })).toBeVisible()
    await expectAccessible(page)
    await expectFits(page, { vertically: true })
  })

  await test.step('by keyboard: bolt, sweep, part; the target is live', async () => {
    await page.getByLabel('Bolt, from left end').focus()
    for (const typed of ['-1', '1/4', '0', '5-3/4', '-.030']) {
      await page.keyboard.type(typed)
      await page.keyboard.press('Enter')
    }
    await page.getByText('Vise, part, dial').press('Enter')
    await page.getByLabel('Part, along the jaw').fill('4')
    await page.getByLabel('May be out').fill('.001')
    await expect(page.getByTestId('target')).toHaveText(/\+0\.0068/)
    await expect(page.getByTestId('out-of-square')).toHaveText(/0\.0218.*±0\.000/)
    await expect(page.getByText('-0.0300 - (-0.005455) x (5.7500 + 1.0000)')).toBeVisible()
    await expect(page.getByText(/The right end goes towards you by/)).toBeVisible()
    await page.getByRole('button', { name: 'Show the tap to +0.0068' }).click()
    await expect(page.getByRole('img', { name: /Plan view/ })).toContainText('+0.0068')
    await expectAccessible(page)
  })

  await test.step('a reload keeps what was typed; bad places get a sentence', async () => {
    await page.reload()
    await expect(readings(page).last()).toHaveValue('-.030')
    await page.getByLabel('to', { exact: true }).fill('.25')
    await expect(page.getByText('The swept points lie on top of each other.')).toBeVisible()
    await page.getByLabel('to', { exact: true }).fill('5.75')
    await page.getByLabel('Bolt, from left end').fill('3')
    await expect(page.getByText(/The bolt lies between the swept points/)).toBeVisible()
    await page.getByLabel('Bolt, from left end').fill('-1')
    await record(page)
    await next(page, 'Tap until the dial shows +0.0068 at 5.7500')
  })

  await test.step('the next sweep is worse: the sign was reversed, and it says so', async () => {
    await sweep(page, 'one bolt', '0', '-.070')
    await expect(page.getByText('Worse than before: the jaw was turned the wrong way.')).toBeVisible()
    await expect(page.getByText(/233 % of the slope before is left/)).toBeVisible()
  })

  await test.step('square with one bolt, moved by tightening, squared again, done', async () => {
    await page.getByRole('radio', { name: 'one bolt' }).click()
    await readings(page).first().fill('0')
    await readings(page).last().fill('.0005')
    await expect(page.getByText('Good', { exact: true })).toBeVisible()
    // Enter goes to the key that records, and from there to the first reading of the next sweep.
    await readings(page).last().press('Enter')
    await expect(page.getByRole('button', { name: 'Record the sweep' })).toBeFocused()
    await page.keyboard.press('Enter')
    await next(page, 'Snug the second bolt, and sweep.')
    await expect(readings(page).last()).toBeFocused()
    await expect(page.getByRole('radio', { name: 'second snug' })).toBeChecked()
    await readings(page).last().fill('.004')
    await record(page)
    await next(page, 'Take one bolt out and square it again.')
    // The form of the next sweep comes with the bolts as the work goes.
    for (const held of ['one bolt', 'second snug', 'both tight']) {
      await expect(page.getByRole('radio', { name: held })).toBeChecked()
      await expect(readings(page).first()).toHaveValue('0')
      await readings(page).last().fill('0')
      await record(page)
    }
    await next(page, 'Choose the vise, and see whether it clears.')
    await expect(page.getByRole('tab', { name: /Square the vise.*checked/ })).toBeVisible()
    await expect(page.getByRole('region', { name: 'Sweeps so far' })).toContainText('tight')
  })
})

test('the bolt can be dragged, many readings name the chip, and turning the program is weighed', async ({
  page,
}) => {
  await signIn(page)
  await openSetup(page, 'Mill 1', 'Plate')
  await square(page)
  const bolt = page.getByLabel('Bolt, from left end')
  const drawing = page.getByRole('img', { name: /Plan view/ })
  await bolt.fill('-1')
  // No place is made up for a bolt that nobody measured.
  await bolt.fill('')
  await page.getByRole('radio', { name: 'right', exact: true }).click()
  await expect(bolt).toHaveValue('')
  await expect(bolt).toBeFocused()
  await bolt.fill('-1')
  const handle = drawing.locator('g.cursor-ew-resize circle').first()
  const from = await handle.boundingBox()
  if (!from) throw new Error('no drawing')
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
  await page.mouse.down()
  await page.mouse.move(from.x + from.width / 2 + 60, from.y + 4, { steps: 5 })
  await page.mouse.up()
  await expect(bolt).not.toHaveValue('-1')
  const dragged = Number(await bolt.inputValue())
  expect(dragged).toBeGreaterThan(-1)
  expect(Number.isInteger(dragged * 16)).toBe(true)

  await bolt.fill('-1')
  await page.getByRole('radio', { name: 'right', exact: true }).click()
  await expect(bolt).toHaveValue('7.2992')
  await page.getByRole('radio', { name: 'left', exact: true }).click()
  await expect(bolt).toHaveValue('-1.0000')
  for (let i = 0; i < 3; i += 1) await page.getByRole('button', { name: 'Reading', exact: true }).click()
  const places = page.getByLabel(/^(Swept from|over|to)$/)
  const sweptAt = ['.25', '1.5', '3', '4.5', '5.75']
  const reads = ['0', '.002', '.004', '.009', '.008']
  for (const [index, place] of sweptAt.entries()) {
    await places.nth(index).fill(place)
    await readings(page)
      .nth(index)
      .fill(reads[index] ?? '')
  }
  await page.getByText('Vise, part, dial').click()
  await page.getByLabel('Part, along the jaw').fill('4')
  await page.getByLabel('May be out').fill('.001')
  await expect(page.getByText(/The reading at 4\.5000 stands 0\.002\d in off the line/)).toBeVisible()
  await expect(page.getByText('least squares line through 5 readings')).toBeVisible()
  await expect(page.getByRole('row', { name: /reading at 4\.5000 \+0\.00/ })).toBeVisible()

  await page.getByText('Or turn the program instead?').click()
  await expect(page.getByText('Turning the program by G68 is quicker for one part.')).toBeVisible()
  await page.getByLabel('a fourth axis or a tailstock lines up with it').check()
  await expect(page.getByText(/Square the vise: a fourth axis/)).toBeVisible()
  await expectAccessible(page)
})

test('does it clear: both ends, open and closed, the interval, no safe position, and what Z has to do with it', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /second side/, 'Hold')
  await page.getByRole('tab', { name: /clear/ }).click()
  const jaw = page.getByLabel(/Fixed jaw, from the front edge/)
  await expect(page.getByTestId('gap-back')).toHaveText('0.8043')
  await expect(page.getByTestId('gap-front')).toHaveText('0.9118')
  await expect(page.getByTestId('interval')).toContainText('10.0682 to 11.4243')
  await expect(page.getByText(/Keep Z above -13\.6654 in/)).toBeVisible()

  await jaw.fill('11.9')
  await expect(page.getByText(/the screw end \(vise closed\) hits the way cover by 0\.2957 in/)).toBeVisible()
  await expect(page.getByTestId('goes-stale')).toContainText('the squareness of the vise, G54 X')
  await expectAccessible(page)
  await page.getByLabel('Lowest spindle position, machine Z').fill('-13.9')
  await expect(page.getByText(/head cover by/)).toBeVisible()
  await page.getByLabel('Lowest spindle position, machine Z').fill('-30')
  await expect(page.getByText('Z -30.0000 is outside the travel of Mill 1.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Record the clearance' })).toBeDisabled()
  await page.getByLabel('Lowest spindle position, machine Z').fill('-12')

  await page.getByLabel('Must stay free at both ends').fill('-1')
  await expect(page.getByText(/A gap that is wanted cannot be negative/)).toBeVisible()
  await page.getByLabel('Must stay free at both ends').fill('1')
  await expect(page.getByText('No safe position: the vise is 0.2839 in too long.')).toBeVisible()
  await page.getByText('Every gap, other vises').click()
  await expect(page.getByText(/6 in vise.*too long by 1\.0500 in/)).toBeVisible()
  await expect(page.getByText(/4 in vise.*fits, jaw/)).toBeVisible()

  await page.getByLabel('Must stay free at both ends').fill('.2')
  await jaw.fill('10.8')
  await page.getByRole('slider', { name: 'Travel of the table in Y' }).press('Home')
  await expect(page.getByRole('img', { name: /Side view/ })).toContainText('0.9118')
  await expect(page.getByTestId('goes-stale')).toHaveCount(0)
  await page.getByRole('button', { name: 'Record the clearance' }).click()
  await expect(page.getByText(/Recorded by RT/)).toBeVisible()

  await page.getByRole('button', { name: 'Something changed' }).click()
  await page.getByRole('radio', { name: /A bolt of the vise tightened/ }).click()
  await expect(page.getByRole('dialog').getByRole('listitem')).toHaveText([
    'The squareness of the vise goes stale.',
    'G54 X goes stale.',
  ])
})

test('nothing is said of what was not typed yet', async ({ page }) => {
  await signIn(page)
  await openSetup(page, 'Mill 1', 'Bracket')
  await page.getByRole('tab', { name: /clear/ }).click()
  const side = page.getByRole('img', { name: /Side view/ })
  await expect(side.getByText('?')).toBeVisible()
  await expect(side.getByText('hits')).toHaveCount(0)
  await page.getByRole('link', { name: 'Shop' }).click()
  await openSetup(page, 'Lathe 1', 'Ring')
  // Nor is a collet or a stop anybody's choice before somebody chose it.
  await expect(
    page.getByRole('img', { name: 'An example: collet and stop are still to be chosen' }),
  ).toBeVisible()
  await page.getByRole('combobox', { name: 'Collet or jaws' }).selectOption('16c')
  await page.getByRole('combobox', { name: 'Stop' }).selectOption('draw-tube')
  await expect(page.getByRole('img', { name: /Cutaway/ }).getByText('?')).toHaveCount(2)
  await page.getByRole('tab', { name: 'All pairs' }).click()
  await expect(page.getByText('First say what the bars are, and what length the part allows.')).toBeVisible()
})

test('collet and stop: spread, ranking, the ratio that the chuck really has, and the checks', async ({
  page,
}) => {
  await signIn(page, 'LB')
  await openAt(page, /Drawtube/, 'Hold')
  await test.step('exact ratio and rule of thumb, first and second operation', async () => {
    await page.getByRole('tab', { name: 'Collet, stop' }).click()
    await expect(page.getByText('2.836').first()).toBeVisible()
    await expect(page.getByText('rule of thumb')).toBeVisible()
    // From bar to bar 0.0123, and 0.010 that a sawn end takes.
    await expect(page.getByTestId('answer')).toHaveText(/0\.0223/)
    await page.getByRole('radio', { name: 'second: to length' }).click()
    await page.getByLabel('Length tolerance, whole').fill('.005')
    await expect(
      page.getByText(/The length will wander by 0\.0123 in; the part allows 0\.0050 in/),
    ).toBeVisible()
    await page.getByLabel('Bar diameter varies by, in all').fill('-.004')
    await expect(page.getByText(/Largest less smallest cannot be negative/)).toBeVisible()
    await page.getByLabel('Bar diameter varies by, in all').fill('.004')
    await expectAccessible(page)
  })

  await test.step('the drawing moves with the bar', async () => {
    const drawing = page.getByRole('img', { name: /Cutaway/ })
    await expect(drawing).toContainText('+0.0113')
    await page.getByRole('slider', { name: 'Bar that is drawn' }).press('Home')
    await expect(drawing).toContainText('1.3730')
    await expect(drawing).toContainText('+0.0000')
  })

  await test.step('the ranked pairs, with those never to use last', async () => {
    await page.getByRole('tab', { name: 'All pairs' }).click()
    const rows = page.getByRole('row')
    await expect(rows.nth(1)).toContainText('good')
    await expect(rows.last()).toContainText('never')
    await expect(rows.last()).toContainText('It traps coolant and loads the rotary union.')
    await page.getByRole('button', { name: /Use Dead-length.* Threaded into the collet/ }).click()
    await expect(page.getByTestId('answer')).toHaveText(/0\.0005/)
    await expect(page.getByTestId('goes-stale')).toContainText('Anti-rotation screw')
    await page.getByRole('combobox', { name: 'Stop' }).selectOption('actuator')
    await expect(page.getByText('Never stop a bar on the back of the actuator.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Record collet and stop' })).toBeDisabled()
  })

  await test.step('ten bars in place of a tolerance', async () => {
    await page.getByRole('combobox', { name: 'Collet or jaws' }).selectOption('16c')
    await page.getByRole('combobox', { name: 'Stop' }).selectOption('draw-tube')
    await page.getByRole('radio', { name: 'bars measured' }).click()
    await page
      .getByLabel('Diameters measured')
      .fill('1.3740 1.3742 1.3744 1.3746 1.3748 1.3750 1.3752 1.3754 1.3756 1.3758')
    await expect(page.getByText('= 10 bars')).toBeVisible()
    await expect(page.getByTestId('answer')).toHaveText(/0\.0061/)
  })

  await test.step('measured lengths: the ratio with its doubt, and it is used', async () => {
    await page.getByRole('tab', { name: 'True ratio' }).click()
    const list = page.getByLabel('Diameter and length, a bar to a line')
    await list.fill('1.375 .001\n1.375 .001\n1.375 .002')
    await expect(page.getByText(/All bars have one diameter/)).toBeVisible()
    await list.fill('1.373 .0000\n1.374 .0042\n1.375 .0079\n1.376 .0121\n1.377 .0160')
    await expect(page.getByTestId('ratio')).toHaveText(/3\.99.*±0\.0/)
    await expect(page.getByText(/This chuck moves 3\.99 to 1; 2\.84 to 1 was expected/)).toBeVisible()
    await expect(page.locator('.recharts-line').first()).toBeVisible()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Record the lengths' }).click()
    await page.getByRole('tab', { name: 'Collet, stop' }).click()
    await expect(page.getByText('measured on this chuck')).toBeVisible()
    await expect(page.getByTestId('answer')).toHaveText(/0\.0082/)
    await page.getByRole('button', { name: 'Record collet and stop' }).click()
    await expect(page.getByText(/Recorded by LB/)).toBeVisible()
    await toStep(page, 'Logbook')
    await expect(page.getByText('5 face positions measured on 16C')).toBeVisible()
    await toStep(page, 'Hold')
  })

  await test.step('the checks, and a collet that is changed', async () => {
    await page.getByRole('tab', { name: 'Checks' }).click()
    await page.getByRole('button', { name: /Tick: The control's clamping direction/ }).click()
    await page.getByRole('button', { name: /Tick: The stop is locked/ }).click()
    await expect(page.getByRole('link', { name: /^Hold/ })).toContainText('checked')
    await page.getByRole('button', { name: 'Something changed' }).click()
    await page.getByRole('radio', { name: /Collet or jaws changed/ }).click()
    await page.getByRole('button', { name: 'Enter it in the logbook' }).click()
    await expect(page.getByRole('link', { name: /^Hold/ })).toContainText('stale')
    await expect(page.getByText('Again: ticked before the collet was changed.').first()).toBeVisible()
  })
})

test('vises and collets of the library: the picture follows, and what cannot be gets a sentence', async ({
  page,
}) => {
  await page.getByRole('link', { name: 'Collets' }).click()
  await page.getByLabel('Cone per side, degrees').fill('90')
  await page.getByLabel('Name', { exact: true }).focus()
  await expect(
    page.getByText('A cone of 90 degrees is a flat face: type the angle per side, such as 10.'),
  ).toBeVisible()
  await expect(page.getByText('Correct the fields first.')).toBeVisible()
  await page.getByLabel('Cone per side, degrees').fill('7')
  await expect(page.getByRole('region', { name: 'Preview' })).toContainText('4.072')
  await page.getByLabel('Known by').selectOption('measured')
  await page.getByLabel('Ratio, to 1').fill('3.1')
  await page.getByLabel('known to ±').fill('.2')
  await expect(page.getByRole('region', { name: 'Preview' })).toContainText('3.100')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Version 2.')).toBeVisible()

  await page.getByRole('link', { name: 'Vises' }).click()
  await openRow(page, /160 mm vise/)
  await expect(page.getByRole('img', { name: /Side view of the vise/ })).toContainText('450.000')
  await page.getByLabel('open, back').last().fill('-400')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(
    page.getByText('The front end must lie in front of the back end: a smaller number.'),
  ).toBeVisible()
  await page.getByLabel('open, back').last().fill('-262')
  await page.getByLabel('open, front').last().fill('-16in')
  await expect(page.getByRole('img', { name: /Side view of the vise/ })).toContainText('488.400')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Version 2.')).toBeVisible()
  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /first side/, 'Hold')
  await expect(page.getByRole('tab', { name: /clear.*stale/ })).toBeVisible()
})

test('Hold goes on while the server is away, and another tablet sees what came of it', async ({
  page,
  server,
  browser,
}) => {
  await signIn(page)
  await openAt(page, /second side/, 'Hold')
  await square(page)
  await sweep(page, 'one bolt', '0', '.004')
  await server.stop('SIGKILL')
  await record(page)
  await expect(page.getByText('1 entry is kept on this tablet until the server answers')).toBeVisible()
  await next(page, 'Tap until the dial shows')
  await expect(page.getByRole('link', { name: /^Zero/ })).toContainText('stale')
  await server.start()
  await expect(page.getByText(/kept on this tablet/)).toHaveCount(0)

  const other = await (await browser.newContext()).newPage()
  await other.goto(server.address)
  await signIn(other, 'MK')
  await openAt(other, /second side/, 'Hold')
  await square(other)
  await expect(other.getByRole('region', { name: 'Sweeps so far' })).toContainText('one bolt 0.0033')
  await other.getByRole('button', { name: 'Something changed' }).click()
  await other.getByRole('radio', { name: /Vise moved/ }).click()
  await other.getByRole('button', { name: 'Enter it in the logbook' }).click()
  await expect(page.getByRole('heading', { name: 'Before the first sweep' })).toBeVisible()
  await expect(page.getByText('It was swept before the vise was moved.').first()).toBeVisible()
  await other.context().close()
})

test('Hold on a lathe by keyboard alone', async ({ page }) => {
  await signIn(page, 'LB')
  const tab = async (times: number) => {
    for (let i = 0; i < times; i += 1) await page.keyboard.press('Tab')
  }
  await openSetup(page, 'Lathe 1', 'Ring')
  await page.getByRole('combobox', { name: 'Collet or jaws' }).focus()
  await page.keyboard.type('5C')
  await tab(1)
  await page.keyboard.type('Clamped')
  await expect(page.getByRole('combobox', { name: 'Stop' })).toHaveValue('draw-tube')
  await tab(1)
  await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('radio', { name: 'second: to length' })).toBeChecked()
  await tab(2)
  await expect(page.getByLabel('Diameter', { exact: true })).toBeFocused()
  for (const typed of ['3/4', '2 thou', '.010']) {
    await page.keyboard.type(typed)
    await page.keyboard.press('Enter')
  }
  // 2.836 x 0.002 + 0.001
  await expect(page.getByTestId('answer')).toHaveText(/0\.0067/)
  await expect(page.getByRole('button', { name: 'Record collet and stop' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Recorded by LB/)).toBeVisible()
  await page.getByRole('tab', { name: 'Collet, stop' }).focus()
  for (const _ of ['All pairs', 'True ratio', 'Checks']) await page.keyboard.press('ArrowRight')
  for (const item of ['Anti-rotation', 'The control', 'The stop']) {
    const line = page.getByRole('button', { name: new RegExp(`^Tick: ${item}`) })
    await line.focus()
    await page.keyboard.press('Space')
    await expect(line).toHaveCount(0)
  }
  await expect(page.getByRole('link', { name: /^Hold/ })).toContainText('checked')
})
