import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, expectAccessible, LONG_MS, openAt, signIn, test, toStep, typeInto } from './dogleg.ts'

/** Types through a form with the keyboard alone: each value, then Tab; '' passes a field over, a list is left by Tab too. */
async function typeThrough(page: Page, values: readonly string[]) {
  for (const value of values) {
    if (value === 'Space') await page.keyboard.press(value)
    else if (value !== '') await typeInto(page, value)
    await page.keyboard.press('Tab')
    // Behind a position stands the key that takes it from the machine.
    const focused = await page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '')
    if (focused.startsWith('Take position')) await page.keyboard.press('Tab')
  }
}

const answer = (page: Page) => page.getByTestId('answer')

test('every way of finding X and Y, with the keyboard alone', async ({ page }) => {
  await signIn(page)
  await openAt(page, /second side/, 'Zero')
  const ways: [string, readonly string[], RegExp][] = [
    ['edge finder', ['Space', '.2', '-9.2205', '-3'], /-6\.1205/],
    ['3D sensor', ['-9.2205; -9.2203; -9.2204', '-3'], /-6\.2204/],
    ['indicator, both sides', ['-10.2725', '-7.9691', '-3'], /-6\.1208/],
    ['probe', ['Space', '.2362', '-9.2205', '0'], /-9\.1024/],
    ['middle of two faces', ['web', 'edge', '.2', '3', '-10.73', '-7.53', '-1.5'], /-7\.6300/],
    ['swept with an indicator', ['bore', '-8.2', '.006', '-.004', '0'], /-8\.2050/],
    [
      'circle through touches',
      [
        'bore',
        'probe',
        '.2362',
        '1.5',
        'X-15.0183 Y-8.0000\nX-16.2819 Y-8.0002\nX-15.6503 Y-7.3681\nX-15.6506 Y-8.6319',
        '0',
        '0',
      ],
      /-8\.0000/,
    ],
    [
      'corner',
      ['probe', 'X+', 'Y+', '-15.769 -7', '-15 -8.2\n-11 -8.2', '.2362', '90', '0', '0'],
      /-8\.0819/,
    ],
    ['set by the probe cycle', ['-8.0815', '', ''], /-8\.0815/],
  ]
  for (const [name, values, says] of ways) {
    await test.step(name, async () => {
      await page.getByLabel('Found with').focus()
      await typeInto(page, name)
      await page.keyboard.press('Tab')
      for (const field of await page.locator('form input[data-entry], form textarea').all())
        await field.fill('')
      await page.getByLabel('Found with').focus()
      await page.keyboard.press('Tab')
      await typeThrough(page, values)
      await expect(answer(page)).toHaveText(says)
      await expect(page.getByRole('button', { name: /^Record/ })).toBeFocused()
      await expectAccessible(page)
    })
  }

  await test.step('one that gives both axes records both', async () => {
    await page.getByLabel('Found with').selectOption('corner')
    await expect(page.getByText(/found with it/)).toBeVisible()
    await page.getByRole('button', { name: 'Record X and Y of G54' }).focus()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('tab', { name: /X.*-15\.6509/ })).toBeVisible()
    await expect(page.getByRole('tab', { name: /Y.*-8\.0819/ })).toBeVisible()
  })
})

test('what cannot be is said in a sentence, and nothing typed is lost', async ({ page }) => {
  await signIn(page)
  await openAt(page, /second side/, 'Zero')
  await page.getByLabel('Found with').selectOption('circle')
  await page.getByLabel('Which', { exact: true }).selectOption('bore')
  await page.getByLabel('Touched with').selectOption('probe')
  await page.getByLabel('Tip, diameter').fill('.2362')
  const points = page.getByLabel('Spindle at each touch')
  for (const [typed, says] of [
    ['-15,01 -8\n-16,2 -8', /Line 1.*decimal point/],
    ['-15 -8\n-16 -8', /Three touches or more/],
    ['-15 -8\n-16 -8\n-17 -8', /they lie on one line/],
    ['-15 -8\n-15 -8\n-15 -8', /same place/],
  ] as const) {
    await points.fill(typed)
    await expect(page.getByText(says)).toBeVisible()
    await expect(page.getByRole('button', { name: /^Record/ })).toBeDisabled()
  }
  await page.reload()
  await expect(points).toHaveValue('-15 -8\n-15 -8\n-15 -8')
  await points.fill('-381mm -8\n-16 -8\n-15.5 -7.5')
  await page.getByLabel('Drawing diameter').fill('.75')
  await expect(page.getByText(/It measures 1\.2362 in; the drawing says 0\.7500 in/)).toBeVisible()
  await page.getByLabel('Drawing diameter').fill('.2')
  await expect(page.getByText(/does not go into a bore of 0\.2000 in/)).toBeVisible()
  await expect(page.getByRole('button', { name: /^Record/ })).toBeDisabled()
  await toStep(page, 'Angle')
  await page.getByLabel('Spindle at each touch').fill('-15 -8')
  await page.getByLabel('Direction on the drawing').fill('400')
  await expect(page.getByText(/more than a full turn/)).toBeVisible()
})

test('an offset is copied to others, and the copies go stale with it', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Zero')
  await page.getByRole('tab', { name: 'Offsets' }).click()
  await page.getByRole('button', { name: /Copy or shift/ }).click()
  await page.getByLabel('How many').fill('4')
  await page.getByLabel('Step in X').fill('6')
  await expect(page.getByText(/outside the travel/)).toBeVisible()
  await page.getByLabel('How many').fill('3')
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Record 9 values' }).click()
  await expect(page.getByRole('row', { name: /G57.*-0\.3510.*-5\.7205.*-15\.3460/ })).toBeVisible()
  await page.getByRole('tab', { name: /^X/ }).click()
  await page.getByRole('radio', { name: 'X+' }).click()
  await page.getByLabel('Machine position').fill('-18.4512')
  await page.getByRole('button', { name: 'Record X of G54' }).click()
  await page.getByRole('tab', { name: 'Offsets' }).click()
  await expect(page.getByText('taken before X was taken again')).toHaveCount(3)
})

test('a tool length against the master says what it makes stale, and stands in the table', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Zero')
  await page.getByRole('tab', { name: 'Tools' }).click()
  await page.getByLabel('Tool', { exact: true }).fill('7')
  await page.getByLabel('Machine Z, this tool').fill('-9.700')
  await page.getByLabel('Machine Z, master').fill('-10.346')
  await page.getByLabel('Length of the master').fill('4')
  await expect(answer(page)).toHaveText(/4\.6460/)
  await expect(page.getByText(/T7 is 0\.1340 in longer than last time/)).toBeVisible()
  await expect(page.getByTestId('goes-stale')).toHaveText(/G54 Z/)
  await page.getByRole('button', { name: 'Record the length of T7' }).click()
  await expect(page.getByRole('row', { name: /T7 4\.6460/ })).toBeVisible()
  await expect(page.getByRole('tab', { name: /Z.*stale/ })).toBeVisible()
})

test('a probe call is checked before it is written, and what it set is typed in', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Zero')
  await page.getByRole('tab', { name: 'Probe' }).click()
  await page.getByLabel(/^X of the/).fill('0')
  await page.getByLabel(/^Y of the/).fill('0')
  await expect(page.getByText('G65 P9811 X0. Q0.125 S1').first()).toBeVisible()
  await page.getByLabel('Depth from the top').fill('.25')
  await expect(page.getByText('A positive depth sends the probe up.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Download .nc' })).toHaveCount(0)
  await page.getByLabel('Depth from the top').fill('-.25')
  await page.getByLabel('Search at most').fill('1.5')
  await expect(page.getByText(/past where the surface is expected/)).toBeVisible()
  await page.getByLabel('Set G54 from').selectOption('bore')
  await page.getByLabel('Diameter').fill('1.5')
  await page.getByLabel('Search at most').fill('.8')
  const downloading = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Download .nc' }).click()
  const text = readFileSync(await (await downloading).path(), 'utf8')
  expect(text).toMatch(/G65 P9832 .*\n.*G65 P9810 .*\n[\s\S]*G65 P9814 D1\.5 Q0\.1681 S1[\s\S]*G65 P9833/)
  await page.getByRole('tab', { name: /^X/ }).click()
  await page.getByLabel('Found with').selectOption('probe-set')
  await page.getByLabel('As the offset page shows it').fill('-18.3509')
  await page.getByRole('button', { name: 'Record X of G54' }).click()
  await expect(page.getByRole('tab', { name: /X.*-18\.3509/ })).toBeVisible()
})

test('the part is found askew by features, and the program is turned to it', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Angle')
  await page.getByLabel('From', { exact: true }).focus()
  await typeInto(page, 'many')
  await page.keyboard.press('Tab')
  await typeInto(page, 'probe')
  await page.keyboard.press('Tab')
  await page.keyboard.type(
    'A 0 0 -18.3510 -6.1205\nB 4 0 -14.3516 -6.0507\nC 4 2 -14.3865 -4.0510\nD 0 2 -18.3859 -4.1088\nE 2 2 - -',
  )
  await expect(page.getByTestId('angle')).toHaveText(/0\.9\d\d/)
  await expect(page.getByText('4 understood, 1 not measured')).toBeVisible()
  await expect(page.getByText(/D spoils the fit: without it the angle is 1\.000 deg/)).toBeVisible()
  await page
    .getByLabel('Drawing X, Y')
    .fill('A 0 0 -18.3510 -6.1205\nB 4 0 -14.3516 -6.0507\nC 4 2 -14.3865 -4.0510')
  await expect(page.getByTestId('angle')).toHaveText(/1\.000/)
  await expect(page.getByText('Turn the program.', { exact: true })).toBeVisible()
  await expect(page.getByText(/taken by touching a face of the turned part/)).toBeVisible()
  await expectAccessible(page)
  await page.getByRole('button', { name: 'Record the angle of G54' }).click()
  await expect(page.getByRole('tab', { name: /How it lies.*1\.000/ })).toBeVisible()

  await test.step('written for the control, by value and by variable', async () => {
    await page.getByRole('tab', { name: 'Turn the program' }).click()
    await expect(page.getByText('G68 X0. Y0. R1.', { exact: true }).first()).toBeVisible()
    await page.getByRole('radio', { name: 'variable #189' }).click()
    await expect(page.getByText('G68 X0. Y0. R#189', { exact: true }).first()).toBeVisible()
    await page.getByLabel('Far corner X').fill('40')
    await page.getByRole('radio', { name: 'the value' }).click()
    await expect(page.getByText(/the far corner lies outside the travel/)).toBeVisible()
  })

  await test.step("a program's own moves, and what cannot be turned by its line", async () => {
    await page.getByRole('tab', { name: 'Turn moves' }).click()
    const program = page.getByLabel('Program, pasted')
    await program.fill('G90 G54 G0 X0 Y0\nG18 G2 X1. Z0 I.5\nM98 P100')
    await page.getByRole('button', { name: 'Turn it by 1.000 degrees' }).click()
    await expect(page.getByText('another plane than XY')).toBeVisible()
    await expect(page.getByText('line 3')).toBeVisible()
    await program.fill('G90 G54 G0 X0 Y0\nG1 X1. F10. (along)')
    await page.getByRole('button', { name: 'Turn it by 1.000 degrees' }).click()
    await expect(page.getByText('2 moves turned, read back and compared.')).toBeVisible()
    await expect(page.getByRole('list', { name: 'Program text' })).toContainText(
      /G1 X0\.9998 Y0\.017\d F10\. \(along\)/,
    )
  })

  await test.step('a long program is turned beside the page: progress, stopped, and then to the end', async () => {
    const lines = Array.from({ length: 200_000 }, (_, i) => `G1 X${(i % 97) / 100} Y${(i % 83) / 100} F20.`)
    const buffer = Buffer.from(['G90 G54', ...lines].join('\n'))
    await page.getByLabel('Open a file').setInputFiles({ name: 'long.nc', mimeType: 'text/plain', buffer })
    await expect(page.getByText('long.nc, 200001 lines')).toBeVisible()
    const turn = page.getByRole('button', { name: 'Turn it by 1.000 degrees' })
    await turn.click()
    await expect(page.getByRole('progressbar', { name: 'Turning' })).toBeVisible()
    await page.getByRole('button', { name: 'Stop' }).click()
    await expect(turn).toBeVisible()
    await turn.click()
    await expect(page.getByText('200000 moves turned, read back and compared.')).toBeVisible({
      timeout: LONG_MS,
    })
    await page.getByRole('button', { name: 'Take it out' }).click()
    await expect(page.getByLabel('Program, pasted')).toHaveValue('G90 G54 G0 X0 Y0\nG1 X1. F10. (along)')
  })

  await test.step('the part is clamped again: the angle is stale, and nothing is turned', async () => {
    await page.getByRole('button', { name: 'Something changed' }).click()
    await page.getByRole('radio', { name: /Part clamped again/ }).click()
    await page.getByRole('button', { name: 'Enter it in the logbook' }).click()
    await page.getByRole('tab', { name: 'Turn the program' }).click()
    await expect(
      page.getByText(/The angle of G54 is stale: measured before the part was clamped again/),
    ).toBeVisible()
    await expect(page.getByText('No turning is written for G54')).toBeVisible()
  })
})

test('the wrong part is known before anything is given out', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Angle')
  await page.getByRole('tab', { name: /Right part/ }).click()
  const list = page.getByLabel('Name, measured, drawing')
  await list.fill('A-B 3.0004 2.000 .005 3.000')
  await expect(page.getByText('The part lies the other way round').first()).toBeVisible()
  await page.getByRole('button', { name: 'Record what it is' }).click()
  await expect(page.getByRole('tab', { name: /turned round/ })).toBeVisible()
  await page.getByRole('link', { name: 'Program', exact: true }).click()
  await expect(page.getByText('No program is written for G54')).toBeVisible()
  await toStep(page, 'Angle')
  await page.getByRole('tab', { name: /Right part/ }).click()
  await list.fill('A-B 2.0004 2.000 .005 3.000')
  await page.getByRole('button', { name: 'Record what it is' }).click()
  await page.getByRole('link', { name: 'Program', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Download .nc' })).toBeVisible()
})

test('face and diameter on a lathe, checked at the bar; the zero of a job against its last times', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /Drawtube/, 'Zero')
  await page.getByLabel('Machine X at the cut').fill('-10.5')
  await page.getByLabel('Diameter measured').fill('0')
  await expect(page.getByText(/A diameter must be more than zero/)).toBeVisible()
  await page.getByLabel('Diameter measured').fill('1.248')
  await page.getByRole('button', { name: 'Record X of T1' }).click()
  await page.getByLabel('Machine Z at the face').fill('-8.1')
  await page.getByLabel('Z of the face').fill('.02')
  await page.getByRole('button', { name: 'Record Z of T1' }).click()
  await expect(page.getByRole('row', { name: 'X -11.7480 in, in diameters' })).toBeVisible()
  await page.getByRole('button', { name: 'It stands where it should' }).click()
  await expect(page.getByRole('link', { name: /^Zero/ })).toContainText('checked')

  await page.getByRole('link', { name: 'Shop' }).click()
  await page
    .getByText(/and \d+ earlier/)
    .first()
    .click()
  await openAt(page, /Counterweight bracket/, 'Zero')
  await page.getByRole('tab', { name: /Check/ }).click()
  await expect(page.getByText(/X is 0\.04\d\d in from where it usually is for this job/)).toBeVisible()
  await page.getByLabel('Length of the tool').fill('5.0265')
  await expect(page.getByTestId('stop-at')).toHaveText(/Stop at machine Z -9\.59/)
  await page.getByRole('button', { name: 'It stands over part zero' }).click()
  await expect(page.getByText(/Seen with the point 0\.1000 in above/)).toBeVisible()
})
