import type { Page } from '@playwright/test'
import {
  download,
  expect,
  expectView,
  openAt,
  openEarlier,
  recordProof,
  signIn,
  test,
  toStep,
} from './dogleg.ts'

const code = (page: Page) => page.getByRole('region', { name: 'Program text' })
const part = (page: Page, name: string) => page.getByRole('tab', { name })

test('a serial number on the housing: by keyboard, proved, downloaded, engraved, and never again', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Code')
  await page.getByRole('button', { name: 'New program' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Housing, serial')
  await page.getByRole('button', { name: 'Engraving' }).click()
  await page.getByLabel('The text', { exact: true }).focus()
  for (const text of ['HSG-####', '1', '-2.8', '2', '.3']) {
    await page.keyboard.type(text)
    await page.keyboard.press('Enter')
  }
  await part(page, 'Tool').click()
  await page.getByLabel('Tool is T').fill('15')
  // Nor is the point of a tool made up.
  await expect(page.getByText(/still missing: .*angle of the point, flat of the tip/)).toBeVisible()
  await page.getByLabel('Point', { exact: true }).fill('60')
  await page.getByLabel('Flat of the tip').fill('.005')
  // Nobody has said which number it is: nothing is made up.
  await part(page, 'Serial').click()
  await expect(page.getByLabel('This part')).toHaveValue('')
  await page.getByLabel('This part').fill('1')
  await expect(page.getByTestId('width-doubt')).toBeVisible()
  // The number is set by itself: it may be cut over letters that nobody has measured.
  await expect(page.getByText(/“HSG-” may come out up to/)).toBeVisible()
  await expect(code(page)).toContainText('Nothing is written')
  await part(page, 'Letters').click()
  await page.getByLabel('Measured, over all').fill('1.5')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByTestId('width-doubt')).toBeHidden()
  // The shop's list goes on after 45, which was left out.
  await part(page, 'Serial').click()
  await expect(page.getByText('HSG-0001 is lower than what was given out last')).toBeVisible()
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByLabel('This part')).toHaveValue('46')
  await page.getByLabel('The control’s counter shows').fill('44')
  await expect(page.getByText(/would engrave 44 next/)).toBeVisible()
  await expect(code(page)).toContainText('Nothing is written')
  await page.getByLabel('The control’s counter shows').fill('46')
  await expect(code(page)).toContainText('G47 P0 (HSG-) X')
  await expect(code(page)).toContainText('G47 P1 (####) X')
  await expect(code(page)).toContainText('G187 P3 E0.002')
  const { name, text } = await download(page)
  expect(name).toBe('housing-serial.nc')
  expect(text).toMatch(/G187 P3 E0\.002[\s\S]*G47 P0 \(HSG-\)[\s\S]*G47 P1 \(####\)[\s\S]*G187/)
  await page.getByRole('button', { name: 'Prove it' }).click()
  await expect(page.getByLabel('Name of the program')).toHaveValue('Housing, serial')
  await expect(page.getByText('Good', { exact: true }).first()).toBeVisible()
  await recordProof(page)

  await toStep(page, 'Code')
  await part(page, 'Serial').click()
  await page.getByRole('button', { name: 'Record HSG-0046 as engraved' }).click()
  await expect(page.getByRole('row', { name: /HSG-0046 engraved RT/ })).toBeVisible()
  await expect(page.getByLabel('This part')).toHaveValue('47')
  // The counter has gone on too; a number that was given out is refused.
  await page.getByLabel('The control’s counter shows').fill('47')
  await expect(code(page)).toContainText('G47 P1 (####)')
  await page.getByLabel('This part').fill('46')
  await page.getByLabel('The control’s counter shows').fill('46')
  await expect(page.getByText(/HSG-0046 was engraved by RT/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Prove it' })).toBeDisabled()
  // A gap is asked about, and explained once.
  await page.getByLabel('This part').fill('49')
  await page.getByLabel('The control’s counter shows').fill('49')
  await page.getByLabel(/HSG-0047 to HSG-0048 left out, because/).fill('Two castings with sand holes')
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByText('would be left out')).toBeHidden()
  await toStep(page, 'Logbook')
  await expect(page.getByText('HSG-0046 engraved').first()).toBeVisible()
  await expect(page.getByText('Two castings with sand holes').first()).toBeVisible()
})

test('how wide the control’s letters are: measured once, kept in the profile, no band any more', async ({
  page,
}) => {
  await signIn(page)
  await openAt(page, /first side/, 'Code')
  await page.getByRole('button', { name: 'New program' }).click()
  await page.getByRole('button', { name: 'Engraving' }).click()
  await page.getByLabel('The text', { exact: true }).fill('SAMPLE (A)')
  await page.getByLabel(/X$/).first().fill('0')
  await page.getByLabel('Y', { exact: true }).fill('-2.8')
  await page.getByLabel('Box width').fill('2')
  await page.getByLabel('Box height').fill('.25')
  await part(page, 'Letters').click()
  await page.getByLabel('Height', { exact: true }).fill('.25')
  await part(page, 'Tool').click()
  await page.getByLabel('Tool is T').fill('15')
  await page.getByLabel('Point', { exact: true }).fill('60')
  await page.getByLabel('Flat of the tip').fill('.005')
  await expect(page.getByText(/cannot carry “\(” “\)”/)).toBeVisible()
  await part(page, 'Text').click()
  await page.getByLabel('The text', { exact: true }).fill('SAMPLE')
  await part(page, 'Letters').click()
  await expect(page.getByText(/within 20 %/).first()).toBeVisible()
  const drawn = page.getByRole('img', { name: /The text SAMPLE/ })
  await expect(drawn).toContainText('±')
  await page.getByLabel('Measured, over all').fill('9')
  await expect(page.getByText(/cannot be this text/)).toBeVisible()
  await page.getByLabel('Measured, over all').fill('1.4')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText(/letters are .* times as wide/)).toBeVisible()
  await expect(drawn).not.toContainText('±')
  await expect(page.getByTestId('width-doubt')).toBeHidden()
  // Written out, on an arc, the letters are the program's own.
  await part(page, 'Text').click()
  await page.getByRole('radio', { name: 'on an arc' }).click()
  await page.getByLabel('Centre, X').fill('2')
  await page.getByLabel('Y', { exact: true }).fill('-1.5')
  await page.getByLabel('Diameter').fill('2')
  await page.getByLabel('Middle at').fill('90')
  await expect(code(page)).toContainText('G1 Z-')
  await expect(code(page)).not.toContainText('G47')
})

test('a scale on the drawtube: refused while Z zero is in the wrong place, then wrapped, proved, downloaded', async ({
  page,
}) => {
  await signIn(page)
  await openEarlier(page, /Drawtube, scale/, 'Code')
  await page.getByRole('button', { name: 'New program' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Fine scale')
  await page.getByRole('button', { name: 'Wrapped' }).click()
  await page.getByLabel('Divisions').fill('60')
  // A scale is as the drawing has it: which lines are longer, how long each is, and what numerals it has.
  await page.getByLabel('Line', { exact: true }).fill('.06')
  await page.getByLabel('A longer one every').fill('5')
  await page.getByLabel('that long').fill('.09')
  await page.getByLabel('The longest every').fill('10')
  await page.getByLabel('that long').last().fill('.12')
  await part(page, 'Numerals').click()
  await page.getByLabel('A numeral every').fill('10')
  for (const [label, value] of [
    ['Height', '.1'],
    ['The first is', '0'],
    ['then in steps of', '10'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(value)
  await part(page, 'Cylinder').click()
  await page.getByLabel('Diameter').fill('1.5')
  await page.getByLabel('Begins at X').fill('-.5')
  await part(page, 'Tool').click()
  await page.getByLabel('Depth', { exact: true }).fill('.006')
  await page.getByLabel('Tool is T').fill('15')
  await expect(
    page.getByText(/the part in the work area is 1\.3750 in, not 1\.5000 in|puts the centre line/i).first(),
  ).toBeVisible()
  await part(page, 'Cylinder').click()
  await page.getByLabel('Diameter').fill('1.375')
  await expect(code(page)).toContainText('G107 A0. Y0. R0.6875')
  await page.getByRole('radio', { name: 'in the centre' }).click()
  await expect(page.getByText(/the centre line lies at Z -0\.6875/)).toBeVisible()
  await expect(code(page)).toContainText('Nothing is written')
  await page.getByRole('radio', { name: 'on top' }).click()
  await page.getByLabel(/Slash/).check()
  await expect(code(page)).toContainText('/G107 A0. Y0. R0.6875')
  await expect(page.getByRole('img', { name: /4\.3197 once round/ })).toBeVisible()
  const { text } = await download(page)
  expect(text).toContain('/G107 A0. Y0. R0.6875')
  expect(text.match(/^G107$/m) ?? text.match(/^G107 /m)).not.toBeNull()
  await page.getByRole('button', { name: 'Prove it' }).click()
  await expect(page.getByLabel('Name of the program')).toHaveValue('Fine scale')
  await expect(page.getByText('Good', { exact: true }).first()).toBeVisible()
  await recordProof(page)
  // As X and angle, in inverse time; and a flat program from an outline.
  await toStep(page, 'Code')
  await part(page, 'Cylinder').click()
  await page.getByRole('radio', { name: 'as X and angle' }).click()
  await expect(code(page)).toContainText('G93')
  await part(page, 'Layout').click()
  await page.getByRole('radio', { name: 'file' }).click()
  await page.getByLabel('Flat layout from a program or DXF file').setInputFiles({
    name: 'logo.dxf',
    mimeType: 'text/plain',
    buffer: Buffer.from(
      [
        0,
        'SECTION',
        2,
        'ENTITIES',
        0,
        'LINE',
        8,
        0,
        10,
        0,
        20,
        0,
        11,
        0.2,
        21,
        0.3,
        0,
        'CIRCLE',
        8,
        0,
        10,
        0.1,
        20,
        0.5,
        40,
        0.1,
        0,
        'ENDSEC',
        0,
        'EOF',
      ].join('\n'),
    ),
  })
  await expect(page.getByLabel('Flat program, Y round')).toHaveValue(/G3 X0\.0000 Y0\.5/)
  await expect(code(page)).toContainText('A25.')
  await page.getByLabel('Flat program, Y round').fill('G84 X0 Z-1 R1 F1')
  await expect(page.getByText(/Line 1 of the flat program/).first()).toBeVisible()
})

test('every part of engraving and wrapping is accessible and fits', async ({ page }) => {
  await signIn(page)
  await openEarlier(page, /Drawtube, scale/, 'Code')
  for (const tab of ['Layout', 'Numerals', 'Cylinder', 'Tool', 'Cut']) {
    await part(page, tab).click()
    await expect(code(page)).toContainText('G107')
    await expectView(page, { vertically: tab !== 'Cylinder' && 'wide' })
  }
  await page.getByRole('button', { name: 'Engraving' }).click()
  await page.getByLabel('The text', { exact: true }).fill('SN ##')
  for (const tab of ['Text', 'Letters', 'Tool', 'Cut', 'Serial']) {
    await part(page, tab).click()
    await expectView(page, { vertically: false })
  }
})
