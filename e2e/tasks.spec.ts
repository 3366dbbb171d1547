import { expect, signIn, test } from './dogleg.ts'
import { Person } from './person.ts'

// What people come to do, done by what the screen says: each task fails where the foot of the page names something that is not next,
// and where it takes more presses than it did.

test('a new job, from the vise to the program that loads its zero', async ({ page }) => {
  const person = new Person(page)
  // Somebody else walked round before: it is due for who comes now.
  page.setDefaultTimeout(15_000)
  await signIn(page, 'ST')
  await person.press('Open a setup on Mill 1')
  await person.type('Part and side', 'Bracket, first side')
  await person.type('Tightest position tolerance', '.002')
  await person.press('Open it')
  await person.follow(/note/)
  await person.press(/I have read/)
  await person.follow(/Walk round/)
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
  await person.follow(/^Look at G54|^Check G54|look/i)
  await expect(page.getByRole('button', { name: 'It stands over part zero' })).toBeEnabled()
  await person.press('It stands over part zero')
  expect(person.presses).toBeLessThanOrEqual(60)
})
