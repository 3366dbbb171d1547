import type { Page } from '@playwright/test'
import {
  download,
  expect,
  expectView,
  openAt,
  openEarlier,
  openRow,
  recordProof,
  signIn,
  test,
  toStep,
} from './dogleg.ts'

const code = (page: Page) => page.getByRole('region', { name: 'Program text' })
const part = (page: Page, name: RegExp) => page.getByRole('tab', { name })

test('every part of both cycles is accessible and fits', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Code')
  for (const tab of [/Thread/, /Hole/, /Work/, /Places/, /Speed/, /^Out/]) {
    await part(page, tab).click()
    await expect(code(page)).toContainText('G84')
    await expectView(page, { vertically: tab.source === 'Thread' || (tab.source === 'Hole' && 'wide') })
  }
  await page.locator('.recharts-line').first().waitFor()
  await page.goto(new URL('/', page.url()).href)
  await openEarlier(page, /O-ring/, 'Code')
  for (const tab of [/Groove/, /Finish/, /Insert/, /Cut/, /Speed/]) {
    await part(page, tab).click()
    await expect(code(page)).toContainText('G75')
    await expectView(page, { vertically: /Groove|Insert/.test(tab.source) && 'wide' })
  }
  await page.getByRole('link', { name: 'Materials' }).click()
  await expect(page.getByText('Speeds over the surface')).toBeVisible()
  await expectView(page, { vertically: false })
})

/** How exact a groove is, and its corners: as the drawing says. */
async function finish(page: Page) {
  await part(page, /Finish/).click()
  await page.getByLabel(/^Walls within/).fill('.003')
  await page.getByLabel(/^Bottom .*within/).fill('.002')
  await page.getByLabel('Corner radius').fill('.01')
}

test('the tapped holes of the housing: built from nothing by keyboard, proved, downloaded, kept in the log', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Code')
  await page.getByRole('button', { name: 'New program' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Four holes')
  await page.getByRole('button', { name: 'Tapped holes' }).click()
  // Nothing is written before the drawing's numbers are there, and the page says which.
  await expect(page.getByText(/answers are still missing/)).toContainText('the places of the holes')
  await part(page, /Places/).click()
  await page.getByLabel('X and Y, a hole to a line').fill('.6 -.55\n4.2 -.55\n4.2 -2.85\n.6 -2.85')
  await part(page, /Thread/).click()
  await page.getByRole('combobox', { name: 'Thread' }).selectOption('5/16-24 UNF')
  await part(page, /Hole/).click()
  await page.getByLabel('Full thread', { exact: true }).fill('.47')
  await part(page, /Speed/).click()
  await page.getByLabel('Tap is T').focus()
  await page.keyboard.type('12')
  await page.keyboard.press('Enter')
  await page.keyboard.type('480')
  await page.getByLabel('Drill is T').fill('3')
  await page.getByLabel('Chamfer is T').fill('5')
  await expect(code(page)).toContainText('G98 G84 X0.6 Y-0.55 Z-0.6367 R0.1 F20. J')
  await expect(page.getByText('Good', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Prove it' }).click()
  await expect(page.getByLabel('Name of the program')).toHaveValue('Four holes')
  await expect(page.getByText('Good', { exact: true }).first()).toBeVisible()
  await recordProof(page)
  await toStep(page, 'Code')
  const { name, text } = await download(page)
  expect(name).toBe('four-holes.nc')
  expect(text).toContain('A QUALIFIED PERSON')
  expect(text.match(/^T\d+ M6/gm)).toEqual(['T5 M6', 'T3 M6', 'T12 M6'])
  expect(text).toMatch(/M30\n%\n$/)
  await expect(page.getByText(/Taken: downloaded by RT/)).toContainText('The same as this one.')
  // What it rests on moves: code and proof go stale, and nothing is given out.
  await page.getByRole('button', { name: /Something changed/ }).click()
  await page.getByRole('radio', { name: /Vise moved/ }).click()
  await page.getByRole('button', { name: 'Enter it in the logbook' }).click()
  await expect(page.getByRole('link', { name: /^Code/ })).toContainText('stale')
  await expect(page.getByText(/of G54 are stale/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Prove it' })).toBeDisabled()
  await toStep(page, 'Logbook')
  await expect(page.getByText('Program built: Four holes').first()).toBeVisible()
})

test('the grooves of the drawtube: refused while a number is wrong, then cut, proved and downloaded', async ({
  page,
}) => {
  await signIn(page)
  await openEarlier(page, /O-ring/, 'Code')
  await page.getByRole('button', { name: 'New program' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Rings')
  await page.getByRole('button', { name: 'Groove', exact: true }).click()
  await page.getByLabel('Bar diameter').fill('1.375')
  await page.getByLabel('Wall, Z', { exact: true }).fill('-.5')
  await page.getByLabel('Other wall, Z').fill('-1.5')
  await page.getByLabel('Bottom diameter').fill('1.1')
  await finish(page)
  await part(page, /Insert/).click()
  await page.getByLabel('Tool is T').fill('4')
  await page.getByLabel('Its corner radius').fill('.008')
  await part(page, /Cut/).click()
  await expect(page.getByLabel('Start, Z')).toHaveAttribute('placeholder', '-0.6230')
  await page.getByLabel('Stepover').fill('.14')
  await expect(page.getByText(/leaves rings/)).toBeVisible()
  await expect(page.getByRole('img', { name: /rings are left/ })).toBeVisible()
  await expect(code(page)).toContainText('Nothing is written')
  await page.getByLabel('Stepover').fill('.1')
  await page.getByLabel('Start, Z').fill('-.5')
  await expect(page.getByText(/first plunge cuts .* into the wall/)).toBeVisible()
  await page.getByLabel('Start, Z').fill('')
  await expect(code(page)).toContainText('G75 X1.11 Z-1.495 I0.0472 K0.1 F0.004')
  await page.getByRole('button', { name: 'Play the cycle' }).click()
  await expect(page.getByRole('img', { name: /move \d+ of \d+, plunge/ })).toBeVisible()
  await page.getByRole('button', { name: 'Prove it' }).click()
  await expect(page.getByLabel('Name of the program')).toHaveValue('Rings')
  await expect(page.getByText('Good', { exact: true }).first()).toBeVisible()
  await toStep(page, 'Code')
  const { text } = await download(page)
  expect(text).toContain('G50 S2500')
  expect(text).toContain('T0404')
})

test('a groove inside: the bar of the tool table goes into the tube, and not into a full bar', async ({
  page,
}) => {
  await signIn(page)
  await openEarlier(page, /O-ring/, 'Code')
  await page.getByRole('button', { name: 'New program' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Snap ring')
  await page.getByRole('button', { name: 'Groove', exact: true }).click()
  await page.getByText('inside', { exact: true }).first().click()
  await page.getByLabel('Bore diameter').fill('.82')
  await page.getByLabel('Bottom diameter').fill('.92')
  await page.getByLabel('Wall, Z', { exact: true }).fill('-.4')
  await page.getByLabel('Other wall, Z').fill('-.55')
  await finish(page)
  await part(page, /Insert/).click()
  await page.getByLabel('Tool is T').fill('4')
  await page.getByLabel('Its corner radius').fill('.008')
  await expect(page.getByText(/T4 is a tool for outside in the tool table/)).toBeVisible()
  await page.getByLabel('Tool is T').fill('6')
  // A bar of .5 under an insert that stands .1 out of it.
  await expect(page.getByLabel('Smallest bore')).toHaveAttribute('placeholder', '0.6000')
  await page.getByRole('button', { name: 'Prove it' }).click()
  await expect(page.getByText('1 stop', { exact: true })).toBeVisible()
  await part(page, /Findings/).click()
  await expect(page.getByText('T6 has not been taken in this setup.').first()).toBeVisible()
  await part(page, /Work area/).click()
  await page.getByLabel('Bore').fill('2')
  await expect(page.getByText('From 0 to less than the diameter.')).toBeVisible()
  await page.getByLabel('Bore').fill('0')
  await part(page, /Findings/).click()
  await expect(page.getByText(/goes into drawtube at rapid/).first()).toBeVisible()
})

test('a word of the code and its field light each other; cycles are copied, moved and switched off', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Code')
  await part(page, /Hole/).click()
  await page.getByLabel('Tap tip, deep').focus()
  await expect(code(page).locator('[data-lit="true"]')).toHaveText('Z-0.6367')
  await code(page).locator('[data-word="multiple"]').click()
  await expect(part(page, /^Out/)).toHaveAttribute('aria-selected', 'true')
  await page.getByRole('button', { name: 'Copy the cycle' }).click()
  const cycles = page.getByRole('region', { name: 'Cycles of the program' }).getByRole('listitem')
  await expect(cycles).toHaveCount(2)
  await part(page, /Thread/).click()
  await page.getByRole('combobox', { name: 'Thread' }).selectOption('5/16-18 UNC')
  await expect(page.getByText(/T12 has a pitch of/)).toBeVisible()
  await page.getByRole('button', { name: 'Earlier' }).click()
  await expect(cycles.first()).toContainText('5/16-18 UNC')
  await page.getByLabel('in the program').uncheck()
  await expect(cycles.first()).toContainText('off')
  await expect(page.getByText('Good', { exact: true })).toBeVisible()
  // A program of the logbook that is not on this tablet is opened from it.
  const other = await (await page.context().browser()?.newContext())?.newPage()
  await other?.goto(page.url())
  await other?.evaluate(() => localStorage.setItem('dogleg.operator', 'MK'))
  await other?.reload()
  await other?.getByRole('button', { name: 'New program' }).click()
  await other?.getByLabel('Name', { exact: true }).fill('Others')
  await other?.getByRole('button', { name: 'Tapped holes' }).click()
  await other?.getByRole('tab', { name: /Thread/ }).click()
  await other?.getByRole('combobox', { name: 'Thread' }).selectOption('5/16-24 UNF')
  await other?.getByRole('tab', { name: /Hole/ }).click()
  await other?.getByLabel('Full thread', { exact: true }).fill('.5')
  await other?.getByRole('tab', { name: /Places/ }).click()
  await other?.getByLabel('X and Y, a hole to a line').fill('1 -1')
  await other?.getByRole('tab', { name: /Speed/ }).click()
  for (const [label, tool] of [
    ['Tap is T', '12'],
    ['Drill is T', '3'],
    ['Chamfer is T', '5'],
  ] as const)
    await other?.getByLabel(label).fill(tool)
  await other?.getByRole('button', { name: 'Record the program' }).click()
  await other?.close()
  await page.getByLabel('Program', { exact: true }).selectOption({ label: 'Others' })
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Others')
  await expect(code(page)).toContainText('G84 X1. Y-1.')
  await page.getByLabel('Program', { exact: true }).selectOption({ index: 0 })
  // Kept on the tablet: a reload loses nothing.
  await page.reload()
  await expect(cycles).toHaveCount(2)
  await page.getByRole('button', { name: 'Take the cycle out' }).click()
  await expect(cycles).toHaveCount(1)
})

test('another control writes it in its own words; what it lacks is written out', async ({ page }) => {
  await signIn(page)
  await page.getByRole('link', { name: 'Machines' }).click()
  await openRow(page, 'Lathe 1')
  await page.getByLabel('The control speaks').selectOption('two-line')
  await page.getByRole('button', { name: /^Save/ }).click()
  await expect(page.getByText(/version 2/i).first()).toBeVisible()
  await page.getByRole('link', { name: 'Shop' }).click()
  await openEarlier(page, /O-ring/, 'Code')
  await expect(code(page)).toContainText('G75 R.01')
  await expect(code(page)).toContainText('P472 Q944')
  await expect(page.getByRole('link', { name: /^Code/ })).toContainText('stale')
  await page.getByRole('link', { name: 'Machines' }).click()
  await openRow(page, 'Lathe 1')
  await page.getByLabel('The control speaks').selectOption('plain')
  await page.getByRole('button', { name: /^Save/ }).click()
  await expect(page.getByText(/version 3/i).first()).toBeVisible()
  await page.getByRole('link', { name: 'Shop' }).click()
  await openEarlier(page, /O-ring/, 'Code')
  await expect(code(page)).toContainText('G1 X1.2862')
  await expect(code(page)).not.toContainText('G75')
})

const DXF = (circles: readonly (readonly [number, number, number])[]) =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${circles
    .map(([x, y, r]) => `0\nCIRCLE\n8\n0\n10\n${x}\n20\n${y}\n40\n${r}\n`)
    .join('')}0\nENDSEC\n0\nEOF\n`

test('places from a table and from the circles of an outline; what is none says so', async ({ page }) => {
  await signIn(page)
  await openAt(page, /first side/, 'Code')
  await part(page, /Places/).click()
  const file = (name: string, text: string) =>
    page
      .getByLabel('Places from a CSV or DXF file')
      .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
  await file('holes.csv', 'X,Y\n1,-1\n2,-1\n3,-1\n')
  await expect(page.getByText('3 holes', { exact: true })).toBeVisible()
  await expect(code(page)).toContainText('X2. Y-1.')
  await file(
    'plate.dxf',
    DXF([
      [25.4, -25.4, 3],
      [50.8, -25.4, 3],
      [0, 0, 10],
    ]),
  )
  await page.getByRole('button', { name: /2 holes/ }).click()
  await expect(page.getByLabel('X and Y, a hole to a line')).toHaveValue('1 -1\n2 -1')
  // Many holes are written off the page.
  await file(
    'many.csv',
    Array.from({ length: 400 }, (_, n) => `${(n % 20) * 0.15} ${-Math.floor(n / 20) * 0.1}`).join('\n'),
  )
  await expect(page.getByText('400 holes', { exact: true })).toBeVisible()
  await expect(code(page)).toContainText('more lines: the whole text is in Prove')
  await file(
    'plate.dxf',
    DXF([
      [25.4, -25.4, 3],
      [50.8, -25.4, 3],
    ]),
  )
  await page.getByRole('button', { name: /2 holes/ }).click()
  await file('empty.dxf', DXF([]))
  await expect(page.getByText(/has no circles/)).toBeVisible()
  await file('photo.dxf', '\u0000\u0001 not a drawing')
  await expect(page.getByText(/can't be read|has no circles/)).toBeVisible()
  await expect(page.getByLabel('X and Y, a hole to a line')).toHaveValue('1 -1\n2 -1')
})

test('the way out: what pays, what it saves, the cap, and the acceleration from two timed holes', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Code')
  await part(page, /^Out/).click()
  const multiple = page.getByTestId('multiple')
  await expect(multiple).toHaveText('4.4')
  await page.getByRole('radio', { name: 'a multiple' }).click()
  await page.getByLabel('x infeed').fill('6')
  await expect(page.getByText(/A retract speed of 6 x infeed is 2880 rpm/)).toBeVisible()
  await page.getByLabel('x infeed').fill('2')
  await expect(code(page)).toContainText('J2')
  await page.getByRole('radio', { name: 'floating' }).click()
  await expect(page.getByText(/comes out at the speed that it went in at/)).toBeVisible()
  await page.getByRole('radio', { name: 'rigid' }).click()
  await page.getByText(/time two holes to find it/).click()
  await page.getByLabel('Retract at 1 x', { exact: true }).fill('3.6')
  await page.getByLabel('Retract faster').fill('3.9')
  await expect(page.getByText(/was not faster/)).toBeVisible()
  await page.getByLabel('Retract faster').fill('2.9')
  await expect(page.getByText(/says too little/)).toBeVisible()
  await page.getByLabel('Each within').fill('.01')
  await expect(page.getByRole('button', { name: 'Keep it for Mill 1' })).toBeVisible()
  // A speed that was found is kept as the shop's own.
  await part(page, /Speed/).click()
  await page.getByLabel('Tap', { exact: true }).fill('900')
  await page.getByRole('button', { name: 'Keep it as the shop’s own' }).first().click()
  await page.getByLabel('Tap', { exact: true }).fill('')
  await expect(page.getByLabel('Tap', { exact: true })).toHaveAttribute('placeholder', '888')
})
