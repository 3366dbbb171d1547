import { squareVise, toolOnBlock, touchByProbe } from '@dogleg/core/simulated'
import type { Page } from '@playwright/test'
import { expect, expectAccessible, expectView, LONG_MS, signIn, test, toStep } from './dogleg.ts'
import { handAt, seeMachine } from './simulated.ts'

const press = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true }).click()
const take = (page: Page, axis: string) =>
  page.getByRole('button', { name: new RegExp(`^Take position ${axis} from`) }).click()

const PIECE = 4711

test('a whole setup on the simulated machine, from the walk-round to the proved program', async ({
  page,
  server,
}) => {
  await signIn(page)
  const { hand, doThere } = await handAt(page, server, PIECE)

  await test.step('switch it on', async () => {
    await page.getByRole('link', { name: 'Practice' }).click()
    await page.getByRole('link', { name: 'Mill 1' }).click()
    await page.getByLabel('Piece number').fill(String(PIECE))
    await press(page, 'Switch it on')
    await expect(page.getByTestId('position-X')).toHaveText('0.0000')
  })

  await test.step('open a setup; the note, the walk-round, home as the machine shows it', async () => {
    await page.getByRole('link', { name: 'Shop' }).click()
    await press(page, 'Open a setup on Mill 1')
    await page.getByLabel('Part and side').fill('Bracket, practised')
    await page.getByLabel('Tightest position tolerance').fill('.002')
    await press(page, 'Open it')
    await toStep(page, 'Ready')
    await page.getByRole('button', { name: /I have read/ }).click()
    const lines = page.getByRole('button', { name: /^Tick: / })
    for (let left = await lines.count(); left > 0; left--) {
      await lines.first().click()
      await expect(lines).toHaveCount(left - 1)
    }
    for (const axis of ['X', 'Y', 'Z']) {
      await take(page, axis)
      await expect(page.getByLabel(`${axis} shows`)).toHaveValue('0.0000')
    }
    await press(page, 'Record the home positions')
    await expect(
      page.getByRole('link', { name: 'Choose the vise, and see whether it clears.' }),
    ).toBeVisible()
  })

  await test.step('square the vise, and sweep it tight', async () => {
    const { left } = squareVise(hand)
    await doThere()
    await toStep(page, 'Hold')
    await page.getByRole('tab', { name: /Square the vise/ }).click()
    await page.getByRole('radio', { name: 'tight' }).click()
    await page.getByLabel('Bolt, from left end').fill('-1')
    await page.getByLabel('Swept from').fill('.4')
    await page.getByLabel('to', { exact: true }).fill('5.6')
    await page.getByLabel('Dial reads').first().fill('0')
    await page.getByLabel('Dial reads').last().fill(String(left))
    await page.getByText('Vise, part, dial').click()
    await page.getByLabel('Part, along the jaw').fill('4')
    await page.getByLabel('May be out').fill('.001')
    await expect(page.getByText('Good', { exact: true })).toBeVisible()
    await press(page, 'Record the sweep')
  })

  await test.step('X and Y by the probe, each position taken from the machine where it triggered', async () => {
    hand.do({ do: 'part', in: true })
    await toStep(page, 'Zero')
    for (const axis of ['X', 'Y'] as const) {
      const trigger = touchByProbe(hand, { axis, way: 1 })
      await doThere()
      await page.getByRole('tab', { name: new RegExp(axis) }).click()
      await page.getByLabel('Found with').selectOption('probe')
      await page.getByRole('radio', { name: `${axis}+` }).click()
      await page.getByLabel('Stylus, effective diameter').fill('.2362')
      await expect(page.getByText(`Now ${trigger.toFixed(4)} in.`)).toBeVisible()
      await take(page, axis)
      await expect(page.getByLabel('Machine position')).toHaveValue(trigger.toFixed(4))
      await expect(page.getByText(/, taken \d\d:\d\d:\d\d/)).toBeVisible()
      await page.getByLabel('The touched face on the drawing').fill('0')
      await press(page, `Record ${axis} of G54`)
    }
  })

  await test.step('Z by a tool on a gauge block', async () => {
    const at = toolOnBlock(hand, 7, 1)
    await doThere()
    const preset = hand.see().tools.find(({ number }) => number === 7)?.length ?? 0
    await page.getByLabel('Tool', { exact: true }).fill('7')
    await page.getByLabel('Tool length').fill(String(preset))
    await page.getByLabel('Gauge block').fill('1')
    await take(page, 'Z')
    await expect(page.getByLabel('Machine position')).toHaveValue(at.toFixed(4))
    await page.getByLabel('The touched face on the drawing').fill('0')
    await press(page, 'Record Z of G54')
  })

  await test.step('the program that loads the offset goes to the machine, and runs there block by block', async () => {
    await page.getByRole('link', { name: 'Take the program for G54 to the control.' }).click()
    await press(page, 'To the simulated Mill 1')
    await expect(page.getByText('Taken: loaded into the simulated machine')).toBeVisible()
    await page.getByRole('link', { name: 'To the simulated Mill 1' }).click()
    await page.getByRole('tab', { name: 'Program' }).click()
    await page.getByRole('slider', { name: 'Rapid, per cent' }).press('End')
    const over = page.getByText('The program at its end.')
    for (let n = 0; n < 60 && !(await over.isVisible()); n++) {
      const start = page.getByRole('button', { name: 'Cycle start' })
      if (await start.isEnabled()) await start.click()
      await page.waitForTimeout(250)
    }
    await expect(over).toBeVisible()
    await expect(page.getByRole('alert')).toHaveCount(0)
  })

  await test.step('what was found agrees with what is hidden, within the doubt of the methods', async () => {
    await page.getByRole('tab', { name: 'What is hidden' }).click()
    await press(page, 'Uncover it')
    const off = async (name: string) =>
      Number(
        await page
          .getByRole('row', { name: new RegExp(`^${name}`) })
          .getByRole('cell')
          .nth(2)
          .textContent(),
      )
    // The probe: 0.0001 and the step of the display; a jaw out by a thousandth over six inches moves the face by half as
    // much again at the middle of the part. The block: 0.0005.
    expect(Math.abs(await off('X of G54'))).toBeLessThanOrEqual(0.0006)
    expect(Math.abs(await off('Y of G54'))).toBeLessThanOrEqual(0.0006)
    expect(Math.abs(await off('Z of G54'))).toBeLessThanOrEqual(0.0007)
    await expectAccessible(page)
  })

  await test.step('it is checked, the program is proved, and runs on the machine without an alarm', async () => {
    await page.getByRole('link', { name: 'Shop' }).click()
    await page.getByRole('link', { name: /Bracket, practised/ }).click()
    await toStep(page, 'Zero')
    await page.getByRole('tab', { name: /Check/ }).click()
    await press(page, 'It stands over part zero')
    const text =
      'G20 G90 G17 G40 G49 G80 G69 G94\nG53 G0 Z0.\nT7 M6\nG90 G54 G0 X1. Y-.5\nS3000 M3\nG43 H7 Z1.\nZ.1\nG1 Z-.1 F20.\nY1.\nG0 Z1.\nM5\nG53 G0 Z0.\nM30\n'
    await toStep(page, 'Prove')
    await page.getByLabel('Open a program file').setInputFiles({
      name: 'slot.nc',
      mimeType: 'text/plain',
      buffer: Buffer.from(text),
    })
    await press(page, 'Record the proof')
    await expect(page.getByText('Proved by RT')).toBeVisible()
    await page.goto(`${server.address}/machines/mill-1/simulated`)
    await page.getByRole('tab', { name: 'Offsets and lengths' }).click()
    await press(page, 'Key in all as the presetter says')
    await page.getByRole('tab', { name: 'Program' }).click()
    await page.getByLabel('Another program').fill(text)
    await press(page, 'Load it')
    await page.getByLabel('Single block').click()
    await expect(page.getByLabel('Single block')).not.toBeChecked()
    await press(page, 'Cycle start')
    await expect(page.getByText('The program at its end.')).toBeVisible({ timeout: LONG_MS })
    await expect(page.getByRole('alert')).toHaveCount(0)
  })

  await test.step('the same program with a length that is an inch short: the crash, harmless, with its line', async () => {
    await page.getByRole('tab', { name: 'Offsets and lengths' }).click()
    const preset = hand.see().tools.find(({ number }) => number === 7)?.length ?? 0
    await page.getByLabel('Tool', { exact: true }).selectOption('7')
    await page.getByLabel('Length of T7', { exact: true }).fill(String(preset - 1.2))
    await press(page, 'Key in Length of T7')
    await page.getByRole('tab', { name: 'Program' }).click()
    await press(page, /Reset, to the start/)
    await press(page, 'Cycle start')
    await expect(page.getByRole('alert')).toContainText(
      /Collision: the (cutter|shank|holder) of T7 met the moving jaw, in line 7\./,
      {
        timeout: LONG_MS,
      },
    )
    await expectAccessible(page)
    await press(page, 'Reset')
    await expect(page.getByRole('alert')).toHaveCount(0)
  })
})

test('the list, the exercises and the simulated machines fit, and break no rule', async ({ page }) => {
  await signIn(page)
  await page.getByRole('link', { name: 'Practice' }).click()
  await expect(page.getByText('Begin here.')).toBeVisible()
  await expectView(page, { vertically: true })
  for (const [title, ready] of [
    [/with an edge finder/, 'from the front'],
    [/both sides of a face/, 'from the front'],
    [/Square the vise/, 'from the front'],
    [/wrong tool length/, 'Next:'],
    [/Touch off a tool/, 'the chuck on the left'],
    [/Choose collet/, 'Stopped'],
    [/Key in the pallets/, 'Interlock'],
  ] as const) {
    await page.getByRole('link', { name: title }).click()
    await expect(page.getByRole('button', { name: 'Start', exact: true })).toBeVisible()
    await expectAccessible(page)
    await press(page, 'Start')
    await expect(page.getByText(ready).first()).toBeVisible()
    await expectView(page, { vertically: 'wide' })
    await page.getByRole('link', { name: 'Practice' }).click()
  }
  await page.getByRole('link', { name: 'Lathe 1' }).click()
  await press(page, 'Switch it on')
  for (const tab of ['Program', 'Offsets and lengths', 'What is hidden', 'On the table']) {
    await page.getByRole('tab', { name: tab }).click()
    await expectView(page, { vertically: 'wide' })
  }
})

test('an exercise by keyboard: hints on request, a slip that is said, the error beside that of a good hand, kept', async ({
  page,
}) => {
  await signIn(page)
  await page.getByRole('link', { name: 'Practice' }).click()
  await page.getByRole('link', { name: /start point/ }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Start', exact: true }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Say where the grooving cycle starts')).toBeVisible()
  await page.getByRole('button', { name: 'A hint' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Which corner of the insert does the control know?')).toBeVisible()
  await page.getByLabel('X of the start').focus()
  for (const typed of ['1.1.1', '-.5', '-.75']) {
    await page.keyboard.type(typed)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByRole('button', { name: 'How far off am I?' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByText('1.1.1 has two decimal points in one number.')).toBeVisible()
  await page.getByLabel('X of the start').fill('9')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  const result = page.getByRole('region', { name: 'Result' })
  await expect(result.getByText('Check this')).toBeVisible()
  await expect(result.getByRole('row', { name: /X of the start/ })).toContainText('truly')
  await expectAccessible(page)
  // A reload keeps what came of it; the list has it for this person.
  await page.reload()
  await expect(result.getByText('Check this')).toBeVisible()
  await page.getByRole('link', { name: 'All exercises' }).click()
  await expect(page.getByRole('link', { name: /start point/ })).toContainText('X of the start off by')
  await expect(page.getByLabel('Results of')).toHaveValue('RT')
})

test('the edge finder by hand: it kicks, and what goes wrong is said', async ({ page, server }) => {
  await signIn(page)
  await page.goto(`${server.address}/practice/corner-edge-finder`)
  await press(page, 'Start')
  await page.getByLabel('In the spindle').selectOption('edge-finder')
  await expect(page.getByText('In the spindle now: edge finder.')).toBeVisible()
  await press(page, 'Start the spindle at 1000')
  await page.getByRole('button', { name: 'X minus 10 clicks' }).focus()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByTestId('position-X')).toHaveText('-0.1000')
  await page.getByLabel('Distance along X').fill('50')
  await press(page, 'Jog X minus')
  await expect(page.getByText('X is at the end of its travel, at -30.0000 in.')).toBeVisible()
  await press(page, 'Axis Z')
  await page.getByLabel('Distance along Z').fill('18')
  await press(page, 'Jog Z minus')
  await press(page, 'Axis Y')
  await page.getByLabel('Distance along Y').fill('8')
  await press(page, 'Jog Y minus')
  await press(page, 'Axis X')
  await page.getByLabel('Distance along X').fill('20')
  await press(page, 'Jog X plus')
  await expect(page.getByRole('alert')).toContainText('Collision')
  await expectAccessible(page)
  await press(page, 'Reset')
  await expect(page.getByText('The alarm is cleared.')).toBeVisible()
  // The server is started again: the machine is off, what was answered is still there.
  await page.getByLabel('X of G54').fill('-12.5')
  await server.stop()
  await server.start()
  await expect(page.getByText('This machine is switched off')).toBeVisible()
  await expect(page.getByLabel('X of G54')).toHaveValue('-12.5')
  await press(page, 'Switch it on with the same piece')
  await expect(page.getByTestId('position-X')).toHaveText('0.0000')
})

test('a tool touched off on the lathe: faced, skimmed, measured, both positions taken, good to half a thousandth', async ({
  page,
  server,
}) => {
  await signIn(page)
  await page.goto(`${server.address}/practice/touch-off`)
  await press(page, 'Start')
  await page.getByLabel('At work').selectOption('T1')
  await expect(page.getByText('T1 is at work.')).toBeVisible()
  const jog = async (axis: 'X' | 'Z', by: number) => {
    await press(page, `Axis ${axis}`)
    await page.getByLabel(`Distance along ${axis}`).fill(Math.abs(by).toFixed(3))
    const before = await page.getByTestId(`position-${axis}`).textContent()
    await press(page, `Jog ${axis} ${by < 0 ? 'minus' : 'plus'}`)
    await expect(page.getByTestId(`position-${axis}`)).not.toHaveText(before ?? '')
  }
  const tip = async () => (await seeMachine(page, server, 'touch-off')).bar
  const bar = await tip()
  if (!bar?.tip) throw new Error('no bar')
  // A micrometer is not put on while it turns.
  await press(page, 'Start the spindle at 800')
  await press(page, 'measure')
  await expect(page.getByRole('alert')).toContainText('Never measure with the spindle turning.')
  await press(page, 'Reset')
  await press(page, 'Start the spindle at 800')
  await jog('X', bar.diameter + 0.2 - bar.tip.X)
  await jog('Z', bar.face - 0.02 - bar.tip.Z)
  await jog('X', -((await tip())?.tip?.X ?? 0) - 0.08)
  await expect(page.getByText('The face is cut.')).toBeVisible()
  await page.getByRole('tab', { name: 'Work out Z' }).click()
  await take(page, 'Z')
  await page.getByLabel('Z of the face').fill('0')
  await press(page, 'Answer Z with it')
  await jog('Z', 0.3)
  await jog('X', bar.diameter - 0.05 - ((await tip())?.tip?.X ?? 0))
  await jog('Z', -0.6)
  await expect(page.getByText('A skim is cut.')).toBeVisible()
  await page.getByRole('tab', { name: 'Work out X' }).click()
  await take(page, 'X')
  await jog('Z', 1)
  await press(page, 'Stop the spindle')
  await press(page, 'measure')
  await expect(page.getByTestId('measured')).toHaveText(/^\d\.\d{4}$/)
  await page.getByLabel('Diameter measured').fill((await page.getByTestId('measured').textContent()) ?? '')
  await expectAccessible(page)
  await press(page, 'Answer X with it')
  await press(page, 'How far off am I?')
  const result = page.getByRole('region', { name: 'Result' })
  await expect(result.getByText('Good', { exact: true })).toBeVisible()
  await expect(result.getByRole('listitem')).toHaveCount(0)
})

test('the clamp is spotted by reading; stepping into it is said, and counts against the answer', async ({
  page,
  server,
}) => {
  await signIn(page)
  await page.goto(`${server.address}/practice/spot-clamp`)
  await press(page, 'Start')
  await expect(page.getByText('Next:')).toBeVisible()
  await page.getByRole('slider', { name: 'Rapid, per cent' }).press('End')
  await page.getByLabel('Single block').click()
  await expect(page.getByLabel('Single block')).not.toBeChecked()
  await press(page, 'Cycle start')
  const alarm = page.getByRole('alert')
  await expect(alarm).toContainText(/Collision: the cutter of T3 met the clamp, in line \d+\./, {
    timeout: LONG_MS,
  })
  const line = /in line (\d+)/.exec((await alarm.textContent()) ?? '')?.[1] ?? ''
  await expect(page.locator('[aria-current=step]')).toContainText(new RegExp(`^${line}`))
  await page.getByLabel('Line', { exact: true }).fill(line)
  await press(page, 'How far off am I?')
  const result = page.getByRole('region', { name: 'Result' })
  await expect(result.getByText('Check this')).toBeVisible()
  await expect(result.getByRole('row', { name: /^line/ })).toContainText('right')
  await expect(result.getByText(/Something was hit once/)).toBeVisible()
  await press(page, 'The same piece again')
  await page.getByLabel('Line', { exact: true }).fill(line)
  await press(page, 'How far off am I?')
  await expect(result.getByText('Good', { exact: true })).toBeVisible()
})

test('positions from an address: said on the machine’s page, refused where the server must not call, typed all the same', async ({
  page,
  server,
}) => {
  await signIn(page)
  await page.goto(`${server.address}/machines/mill-1`)
  await page.getByLabel('Machine positions are').selectOption('agent')
  await page.getByLabel('Address of the agent').fill('machine')
  await press(page, 'Save')
  await expect(page.getByText(/An address such as/)).toBeVisible()
  await expectAccessible(page)
  await page.getByLabel('Address of the agent').fill('http://169.254.169.254')
  await press(page, 'Save')
  await expect(page.getByText('Version 2.')).toBeVisible()
  await page.getByRole('link', { name: 'Shop' }).click()
  await page
    .getByRole('link', { name: /second side/ })
    .first()
    .click()
  await toStep(page, 'Zero')
  await page.getByLabel('Found with').selectOption('edge-finder')
  await page.getByRole('button', { name: /^Take position Y: none to be had now/ }).click()
  await expect(page.getByText(/The server does not call this address/).first()).toBeVisible()
  await page.getByLabel('Machine position').fill('-9.2205')
  await expect(page.getByText('= -9.2205 in')).toBeVisible()
  await expectAccessible(page)
})
