import { expect, openAt, signIn, test } from './dogleg.ts'
import { comes } from './person.ts'

// What people come to do, done by what the screen says: each task fails where the foot of the page names something that is not next,
// and where it takes more presses than it did.

test('a new job, from the vise to the program that loads its zero', async ({ page }) => {
  // Somebody else walked round before: it is due for who comes now.
  const person = await comes(page, 'ST')
  await person.press('Open a setup on Mill 1')
  await person.type('Part and side', 'Bracket, first side')
  await person.type('Tightest position tolerance', '.002')
  await person.press('Open it')
  await person.follow(/Walk round/)
  // The note that was left stands over everything in Ready.
  await person.press(/I have read/)
  await person.walkRound()
  await person.follow('Choose the vise, and see whether it clears.')
  // Over the whole travel of Z there is no place for it: said before anybody measures where it stands.
  await expect(page.getByText(/^No safe position/)).toBeVisible()
  await person.type(/^Lowest spindle position/, '-12')
  await expect(page.getByTestId('interval')).toContainText('The fixed jaw may stand from')
  await person.type(/^Fixed jaw/, '10.5')
  await person.press('Record the clearance')
  await person.follow('Sweep the fixed jaw.')
  await person.type('Bolt, from left end', '-1')
  await person.type('Swept from', '.4')
  await person.type('to', '5.6')
  await person.type('Dial reads', '-.030', 1)
  await person.press('Record the sweep')
  await person.isNext(/^Tap until the dial shows/)
  for (const [reads, next] of [
    ['.0002', 'Snug the second bolt, and sweep.'],
    ['.0001', 'Tighten both bolts, and sweep once more.'],
    ['.0001', /^Take X of G54/],
  ] as const) {
    await person.type('Dial reads', reads, 1)
    await person.press('Record the sweep')
    await person.isNext(next)
  }
  await person.follow(/^Take X of G54/)
  await person.edge('X', '+', '-14.2')
  await person.isNext(/^Take Y of G54/)
  await person.edge('Y', '-', '-6.1')
  await person.isNext(/^Take Z of G54/)
  await person.choose('Found with', 'tool on gauge block')
  await person.type('Tool', '7')
  await person.press(/^Take the measured length of T7/)
  await person.type(/^Gauge block/, '1')
  await person.type('Machine position', '-9.8')
  await person.press('Record Z of G54')
  await person.follow('Take the program for G54 to the control.')
  const file = await person.download()
  expect(file.suggestedFilename()).toBe('bracket-first-side-g54.nc')
  await person.follow('Check G54 with a pointed tool.')
  await expect(page.getByRole('button', { name: 'It stands over part zero' })).toBeEnabled()
  await person.press('It stands over part zero')
  expect(person.presses).toBeLessThanOrEqual(44)
})

test('a bumped vise: everything that no longer holds is asked for again, in the order in which it holds', async ({
  page,
}) => {
  const person = await comes(page, 'RT')
  await openAt(page, /first side/, 'Zero')
  await person.press(/Something changed/)
  await person.pick(/Vise moved/)
  await person.press('Enter it in the logbook')
  // It is not squared where it stands elsewhere, and no zero is taken from it before it is square.
  await person.follow('See again whether the vise clears.')
  await person.press('Record the clearance')
  await person.follow('Sweep the fixed jaw again.')
  for (const next of [
    'Snug the second bolt, and sweep.',
    'Tighten both bolts, and sweep once more.',
    'Read again whether the fixed jaw stands upright.',
  ]) {
    await person.type('Dial reads', '.0001', 1)
    await person.press('Record the sweep')
    await person.isNext(next)
  }
  await person.type('Dial at the top', '.0002')
  await person.type('On top, clamped', '.0001')
  await person.press('Record the two readings')
  await person.follow('Take X of G54 again.')
  await person.edge('X', '+', '-14.2')
  await person.isNext('Take Y of G54 again.')
  await person.edge('Y', '-', '-6.1')
  await person.isNext('Take Z of G54 again.')
  // The tool and its length stand there as they were typed last.
  await expect(page.getByLabel('Tool', { exact: true })).toHaveValue('7')
  await person.type(/^Gauge block/, '1')
  await person.type('Machine position', '-9.8')
  await person.press('Record Z of G54')
  await person.follow('Take the program for G54 to the control again.')
  await person.download()
  await person.follow('Check G54 with a pointed tool.')
  await expect(page.getByRole('button', { name: 'It stands over part zero' })).toBeEnabled()
  await person.press('It stands over part zero')
  // What was built and proved rests on what was there before.
  await person.follow('Look at Housing, tapped holes and record it again.')
  expect(person.presses).toBeLessThanOrEqual(30)
})

test('handed over and taken over: the note first, the walk-round, and then what is left of the job', async ({
  page,
}) => {
  const person = await comes(page, 'RT')
  await openAt(page, /first side/, 'Hand over')
  await person.tab(/To the next shift/)
  await person.type('A note for the next shift', 'Clamps are at 20 ft-lb. T12 is new.')
  await person.press('Hand over')
  await signIn(page, 'ST')
  await page.getByRole('link', { name: 'Shop' }).click()
  await person.link(/RT left a note/)
  await expect(page.getByText('Clamps are at 20 ft-lb. T12 is new.').first()).toBeVisible()
  await person.press(/I have read the note by RT/)
  await person.follow(/^Walk round the machine/)
  await person.walkRound()
  await person.follow('Prove Housing, tapped holes.')
  await expect(page.getByLabel('Name of the program')).toHaveValue('Housing, tapped holes')
  expect(person.presses).toBeLessThanOrEqual(10)
})

test('an own machine, in the other unit: converted as asked, kept when it is saved, and a setup opened on it', async ({
  page,
}) => {
  const person = await comes(page, 'RT')
  await person.link('Machines')
  await person.link(/Mill 1/)
  await person.press('Copy as a new machine')
  await expect(page.getByText('Not in the list yet: this machine is kept when you save it.')).toBeVisible()
  await person.type('Name', 'Mill 9')
  await person.choose('Position display is in', 'mm')
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText(
    'Convert the lengths of this machine to mm, or were they in the wrong unit?',
  )
  await expect(dialog.getByRole('row', { name: '-30 in -762 mm -30 mm' })).toBeVisible()
  await person.press('Convert them')
  await expect(page.getByLabel('X lowest, mm')).toHaveValue('-762')
  await person.press('Save')
  await expect(page.getByRole('link', { name: /Mill 9/ })).toHaveAttribute('aria-current', 'page')
  await person.link('Shop')
  await person.press('Open a setup on Mill 9')
  await person.type('Part and side', 'Plate')
  await person.type('Tightest position tolerance', '.1')
  await expect(page.getByText('= 0.100 mm')).toBeVisible()
  await person.press('Open it')
  await person.isNext(/Walk round/)
  expect(person.presses).toBeLessThanOrEqual(13)
})

test('a part that lies askew: the angle first, the program turned by it, proved, and taken again', async ({
  page,
}) => {
  const person = await comes(page, 'RT')
  await openAt(page, /first side/, 'Angle')
  await person.isNextHere('Measure how the part lies: one edge at two places, or two holes.')
  await person.type('Spindle at each touch, X and Y', '-18 -6.2\n-14 -6.13')
  // A tenth of an inch at the farthest cut: nothing that one would leave.
  await expect(page.getByTestId('angle')).toHaveText(/1\.003/)
  await expect(page.getByText(/^Ignored, it costs 0\.10\d\d in at the farthest cut/)).toBeVisible()
  await person.press('Record the angle of G54')
  await person.follow('Look at Housing, tapped holes and record it again.')
  // Who turns it is said where it is turned, once: Code does.
  await expect(page.getByLabel('turned as it lies')).toBeChecked()
  await person.press('Record the program')
  await person.isNext('Prove O5410 first side again.')
  await person.press('Prove it')
  await expect(page.getByLabel('Name of the program')).toHaveValue('Housing, tapped holes')
  await person.isNext('Step through it, and record the proof.')
  await person.recordProof('RT')
  await person.isNext('Prove O5410 first side again.')
  expect(person.presses).toBeLessThanOrEqual(6)
})
