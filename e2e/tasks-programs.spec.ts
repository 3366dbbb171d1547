import { expect, openAt, test } from './dogleg.ts'
import { comes } from './person.ts'
import { seeMachine } from './simulated.ts'

// What people come to do with programs, parts and practice: as in tasks.spec.ts, by what the screen says, and counted.

test('serial numbers, with one part that was scrapped: none is given out twice, and the gap is explained', async ({
  page,
}) => {
  const person = await comes(page, 'RT')
  await openAt(page, /first side/, 'Code')
  await person.press('New program')
  await person.type('Name', 'Housing, serial')
  await person.press('Engraving')
  await person.type('The text', 'HSG-####')
  await person.type(/X$/, '1')
  await person.type('Y', '-2.8')
  await person.type('Box width', '2')
  await person.type('Box height', '.3')
  await person.isNext('Fill in Housing, serial: a cycle lacks something.')
  await person.tab('Tool')
  await person.press('List of tools: Tool')
  await person.press(/60 deg engraver/)
  await person.type('Point', '60')
  await person.type('Flat of the tip', '.005')
  await person.tab('Letters')
  await person.type('Measured, over all', '1.5')
  await person.press('Keep it')
  await person.tab('Serial')
  await person.press('Take it')
  await expect(page.getByLabel('This part')).toHaveValue('46')
  await person.type('The control’s counter shows', '46')
  // The profile has the width of its letters now: what was written for the control before does not hold any more, and comes first.
  await person.isNext('Take the program for G54 to the control again.')
  await person.isNextHere('Record Housing, serial, and prove it.')
  await person.press('Record the program')
  await person.press('Record HSG-0046 as engraved')
  // The number of the next part asks for the counter anew: what was read was read for the one before.
  await expect(page.getByLabel('This part')).toHaveValue('47')
  await expect(page.getByLabel('The control’s counter shows')).toHaveValue('')
  // 47 was scrapped before it was engraved.
  await person.type('This part', '48')
  await person.type('HSG-0047 left out, because', 'Sand hole in the face.')
  await person.press('Record')
  await person.type('The control’s counter shows', '48')
  await person.press('Record HSG-0048 as engraved')
  await expect(page.getByRole('row', { name: /HSG-0047 left out: Sand hole/ })).toBeVisible()
  await expect(page.getByText(/Nobody has accounted for/)).toHaveCount(0)
  expect(person.presses).toBeLessThanOrEqual(26)
})

test('eight metric holes in an inch setup, with new tools: beside the part, into a clamp, mended and proved', async ({
  page,
}) => {
  const person = await comes(page, 'RT')
  await openAt(page, /first side/, 'Code')
  await person.press('New program')
  await person.type('Name', 'Eight M8')
  await person.press('Tapped holes')
  await person.isNext('Fill in Eight M8: a cycle lacks something.')
  // It lacks something, and is there all the same.
  await expect(page.getByText('The program has no cycle that is on.')).toHaveCount(0)
  await person.choose('Thread', 'M8x1.25')
  await person.tab(/^Hole/)
  await person.type('Full thread', '12mm')
  await person.tab(/^Places/)
  const row = (y: string) => ['20mm', '45mm', '70mm', '100mm'].map((x) => `${x} ${y}`).join('\n')
  // A sign that was forgotten: holes beside the part are not written.
  await person.type('X and Y, a hole to a line', `${row('-15mm')}\n${row('70mm')}`)
  await person.tab(/^Speed/)
  // Nobody has a tap or a drill for it yet: each is made where it is asked for, and begins as what it is.
  const make = async (of: string, name: string, [cuts, out]: readonly [string, string]) => {
    await person.press(`List of tools: ${of}`)
    await person.press('New tool')
    await expect(page.getByRole('dialog').getByLabel('Name')).toHaveValue(name)
    await person.type('Cuts up to, mm', cuts)
    await person.type('Out of the holder, mm', out)
    await person.type('Holder diameter, mm', '40')
    await person.type('Holder length, mm', '50')
    await person.press('Save')
    await expect(page.getByRole('dialog')).toHaveCount(0)
  }
  await make('Tap', 'M8x1.25 tap', ['20', '60'])
  await make('Drill', '6.80 mm drill', ['60', '75'])
  await person.type('Chamfer is T', '5')
  await expect(page.getByText(/lies beside the part/)).toBeVisible()
  await person.isNext('Mend Eight M8: something in it says stop.')
  await person.tab(/^Places/)
  await person.type('X and Y, a hole to a line', `${row('-15mm')}\n${row('-70mm')}`)
  await expect(page.getByText(/lies beside the part/)).toHaveCount(0)
  await person.isNext('Record Eight M8, and prove it.')
  await person.press('Record the program')
  // A program with tools that nobody measured is not ready to be proved.
  await person.follow('Measure the length of T17.')
  await person.type('Machine Z, this tool on the block', '-9.2')
  await person.type('Machine Z, master on the same block', '-10.346')
  await person.press(/^Take the length of the last master/)
  await person.press('Record the length of T17')
  await person.isNext('Measure the length of T18.')
  await expect(page.getByLabel('Tool', { exact: true })).toHaveValue('18')
  await person.type('Machine Z, this tool on the block', '-8.9')
  await person.press('Record the length of T18')
  await person.isNext('Prove Housing, tapped holes.')
  await person.step('Code')
  await person.press('Prove it')
  await person.isNext('Step through it, and record the proof.')
  // The clamp that was put between the first row since.
  await person.tab('Work area')
  await person.press('Add: Clamp')
  for (const [label, value] of [
    ['X from', '2.1'],
    ['Y from', '-1'],
    ['Z from', '0'],
    ['X long', '.35'],
    ['Y long', '.5'],
    ['Z high', '1.5'],
  ] as const)
    await person.type(label, value)
  await person.press('Place it')
  await person.isNext('Record the work area as it is placed.')
  await person.look()
  await person.press('Record the work area')
  await person.isNext('Look at line 16.')
  await expect(page.getByRole('button', { name: 'Record the proof' })).toBeDisabled()
  await person.tab(/Findings/)
  await expect(page.getByText(/^Rapid: the tool goes through clamp 2/).first()).toBeVisible()
  await person.step('Code')
  await person.tab(/^Hole/)
  await person.type('Clearance', '1.6')
  await person.isNext('Record Eight M8, and prove it.')
  await person.press('Prove it')
  await person.isNext('Step through it, and record the proof.')
  await person.recordProof('RT')
  // What was proved before stands in another work area now.
  await person.isNext('Prove O5410 first side again.')
  expect(person.presses).toBeLessThanOrEqual(53)
})

test('a second operation in a collet, and a groove: the bar that does not fit, the tool that is needed', async ({
  page,
}) => {
  const person = await comes(page, 'LB')
  await person.press('Open a setup on Lathe 1')
  await person.type('Part and side', 'Ring, second operation')
  await person.type('Tightest position tolerance', '.002')
  await person.press('Open it')
  await person.follow('Choose collet and stop.')
  await person.choose('Collet or jaws', '5C')
  await person.choose('Stop', 'Clamped in the draw tube')
  await person.pick(/second: to length/)
  await person.type('Diameter', '1.25')
  await expect(page.getByText('A bar of 1.2500 in does not go into 5C.')).toBeVisible()
  await person.choose('Collet or jaws', '16C')
  await person.type('Bar diameter varies by, in all', '.001')
  await person.type('Length tolerance, whole', '.01')
  await person.press('Record collet and stop')
  await person.follow(/^Look: Anti-rotation screw/)
  await person.look()
  for (const line of [/Tick: Anti-rotation/, /Tick: .*clamping direction/, /Tick: The stop is locked/])
    await person.press(line)
  // No program says yet which tool cuts: none is named.
  await person.isNext('Choose the tool that cuts, and take its X.')
  await person.step('Code')
  await person.type('Name', 'Ring groove')
  await person.press('Groove')
  await person.type('Bar diameter', '1.25')
  await person.type('Bottom diameter', '1.1')
  await person.type('Wall, Z', '-.5')
  await person.type('Other wall, Z', '-.9')
  await person.tab(/Finish/)
  await person.type('Walls within ±', '.002')
  await person.type('Bottom Ø within ±', '.002')
  await person.type('Corner radius', '.02')
  await person.tab(/Insert/)
  await person.press('List of tools: Tool')
  await person.press(/0\.118 grooving insert/)
  await person.type('Its corner radius', '.008')
  await person.choose('Material', 'Mild steel')
  await person.isNextHere('Record Ring groove, and prove it.')
  await person.press('Record the program')
  await person.follow('Take X of T4.')
  await person.look()
  await person.type('Machine X at the cut', '-5.2')
  await person.type('Diameter measured', '1.2')
  await person.press('Record X of T4')
  await person.isNext('Take Z of T4.')
  await person.type('Machine Z at the face', '-12.4')
  await person.press('Record Z of T4')
  await person.follow('Key T4 in, and check it at the bar.')
  expect(person.presses).toBeLessThanOrEqual(44)
})

test('two pallets that call each other: mended, proved as they run, and only then started', async ({
  page,
}) => {
  const person = await comes(page, 'RT')
  await openAt(page, /both operations/, 'Ready')
  await person.press(/I have read/)
  await person.walkRound()
  await person.follow('Mend the programs of the pallets.')
  await person.press(/Mend with a main program/)
  await person.press(/on to the next/)
  await person.press(/on to the next/)
  await person.press('Take all of them')
  await person.isNext('Record the pallets as they are planned now.')
  await person.press('Record the pallets')
  for (const [program, pallet] of [
    ['O5501 first operation', 1],
    ['O5502 second operation', 2],
  ] as const) {
    await person.follow(`Prove ${program} as pallet ${pallet} runs it.`)
    await expect(page.getByLabel('Name of the program')).toHaveValue(program)
    await expect(page.getByLabel('Program text')).toContainText('M99')
    await person.isNext('Step through it, and record the proof again.')
    await person.recordProof('RT')
  }
  await person.follow(/^Before cycle start: say which pallet is inside/)
  await person.pick(/2.*side clamps B/)
  await person.pick(/O5490/)
  await person.pick('on')
  await person.press(/I have looked/)
  await person.isNext('Hand it over.')
  expect(person.presses).toBeLessThanOrEqual(20)
})

test('five bores: gauged in the cycle, and the part before which to correct', async ({ page }) => {
  const person = await comes(page, 'RT')
  await openAt(page, /first side/, 'Run')
  await person.tab(/What is gauged/)
  await person.press('New plan')
  await person.type('Name', 'Five bores')
  await person.press('Add')
  await person.type('Drawing size', '.500 to .501')
  await person.tab('Where')
  await person.type('X', '.6')
  await person.type('Y', '-.7')
  for (const x of ['1.4', '2.2', '3', '3.8']) {
    await person.press('Copy the feature')
    // As large and as close as the one before; where it is nobody has said.
    await expect(page.getByLabel('X', { exact: true })).toHaveValue('')
    await person.type('X', x)
    await person.type('Y', '-.7')
  }
  await person.press('Record the plan')
  await person.isNextHere(
    'Try Five bores on every kind of part, take the program, and record what it measures.',
  )
  await person.tab(/Try it/)
  await expect(page.getByText(/^Tried on \d+ kinds of part: each came out as the plan says/)).toBeVisible()
  await person.tab(/What is gauged/)
  await person.download()
  await person.tab(/Chart/)
  await person.pick('many')
  // The third grows by .00008 a part: the tenth would be over .501.
  const parts = Array.from({ length: 9 }, (_, n) =>
    ['.5004', '.5006', (0.5003 + 0.00008 * n + (n % 2) * 0.00001).toFixed(5), '.5005', '.5005'].join(' '),
  )
  await person.type('A part to a line', parts.join('\n'))
  await person.press('Record 9 parts')
  await person.isNextHere('Correct BORE 3 of Five bores before part 10.')
  expect(person.presses).toBeLessThanOrEqual(28)
})

test('the first exercise: a corner with the edge finder, as good as a good hand', async ({
  page,
  server,
}) => {
  const person = await comes(page, 'RT')
  await person.link('Practice')
  await person.link(/with an edge finder/)
  await person.press('Start')
  await person.choose('In the spindle', 'edge finder')
  await person.press(/^Start the spindle/)
  const see = () => seeMachine(page, server, 'corner-edge-finder')
  /** Quickly, by as much as the eye says. */
  const move = async (axis: 'X' | 'Y' | 'Z', by: number) => {
    await person.press(`Axis ${axis}`)
    await person.type(`Distance along ${axis}`, Math.abs(by).toFixed(2))
    const before = await page.getByTestId(`position-${axis}`).textContent()
    await person.press(`Jog ${axis} ${by < 0 ? 'minus' : 'plus'}`)
    await expect(page.getByTestId(`position-${axis}`)).not.toHaveText(before ?? '')
  }
  const kicked = async () => (await see()).mounted.kicked
  for (const axis of ['X', 'Y'] as const) {
    const other = axis === 'X' ? 'Y' : 'X'
    const { seen } = await see()
    const part = seen?.bodies.find(({ role }) => role === 'part')
    if (!seen || !part) throw new Error('no part is seen')
    const along = (of: 'x' | 'y') => part.corners.map((corner) => corner[of])
    const own = axis === 'X' ? 'x' : 'y'
    const across = axis === 'X' ? 'y' : 'x'
    const middle = (Math.min(...along(across)) + Math.max(...along(across))) / 2
    await move(other, middle - seen.spindle[across])
    await move(axis, Math.min(...along(own)) - 0.4 - seen.spindle[own])
    await move('Z', part.top - 0.2 - seen.tipZ)
    await person.press(`Axis ${axis}`)
    for (const [step, back] of [
      ['ten thou', 3],
      ['a thou', 6],
      ['a tenth', 0],
    ] as const) {
      await person.choose(/^One click is/, step)
      await person.turn(`${axis} plus 1 click`, page.getByTestId(`position-${axis}`), kicked)
      for (let n = 0; n < back; n++) await person.press(`${axis} minus 1 click`)
    }
    await person.tab(`Work out ${axis}`)
    await person.pick(`${axis}+`)
    await person.press(new RegExp(`^Take position ${axis}`))
    await person.press(`Answer ${axis} with it`)
    await person.press('Z to the top')
    await expect(page.getByTestId('position-Z')).toHaveText('0.0000')
  }
  await person.press('How far off am I?')
  await expect(page.getByRole('region', { name: 'Result' }).getByText('Good', { exact: true })).toBeVisible()
  expect(person.presses).toBeLessThanOrEqual(73)
})
