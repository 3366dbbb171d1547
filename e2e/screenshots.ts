import { join } from 'node:path'
import { housingProgram } from '@dogleg/core/demo'
import { chromium } from '@playwright/test'
import { openAt, toStep } from './dogleg.ts'
import { launchOptions, Server } from './harness.ts'

// One current picture of each main view, from the demo data, into docs/screenshots.
const server = new Server()
await server.start()
const browser = await chromium.launch(launchOptions)

async function tablet(size: { width: number; height: number }) {
  const page = await browser.newPage({ viewport: size, baseURL: server.address })
  await page.addInitScript(() => localStorage.setItem('dogleg.operator', 'RT'))
  const shot = async (name: string) => {
    await page.waitForLoadState('networkidle')
    await page.screenshot({ path: join(import.meta.dirname, '../docs/screenshots', `${name}.png`) })
  }
  const open = async (title: RegExp, step: string) => {
    await page.goto('/')
    await openAt(page, title, step)
  }
  return { page, shot, open }
}

const { page, shot, open } = await tablet({ width: 1280, height: 800 })
await page.goto('/')
await page.getByRole('link', { name: /first side/ }).waitFor()
await shot('shop')

await open(/second side/, 'Ready')
await page.getByRole('button', { name: /I have read/ }).waitFor()
await shot('ready')
await page.getByRole('button', { name: /I have read/ }).click()

await toStep(page, 'Hold')
await page.getByRole('radio', { name: 'one bolt' }).click()
await page.getByLabel('Dial reads').first().fill('0')
await page.getByLabel('Dial reads').last().fill('-.030')
await shot('hold-square')
await page.getByRole('tab', { name: /clear/ }).click()
await shot('hold-clear')
await open(/Drawtube/, 'Hold')
await page.getByRole('tab', { name: 'Collet, stop' }).click()
await shot('hold-collet')

await open(/second side/, 'Zero')
await page.getByLabel('Found with').selectOption('corner')
await page.getByLabel('Touched with').selectOption('probe')
await page.getByLabel('Into X face').selectOption('+')
await page.getByLabel('Into Y face').selectOption('+')
await page.getByLabel('Touches on the face along X').fill('-15.7684 -7.5\n-15.7790 -6.7')
await page.getByLabel('Touches on the face along Y').fill('-15.2 -8.1840\n-13.6 -8.1632')
await page.getByLabel('Tip, diameter').fill('.2362')
await shot('zero-corner')

// The job that comes back every week: its last time lay askew.
await page.goto('/')
await page.getByText(/and \d+ earlier/).click()
await openAt(page, /Counterweight bracket/, 'Zero')
await page.getByRole('tab', { name: 'Offsets' }).click()
await page.getByRole('button', { name: /Copy or shift/ }).click()
await page.getByLabel('How many').fill('3')
await page.getByLabel('Step in X').fill('6')
await page.getByRole('button', { name: 'Record 9 values' }).click()
await page.getByRole('row', { name: /G57/ }).getByText('from G54').first().waitFor()
await shot('offsets')
await page.getByRole('tab', { name: 'Tools' }).click()
await page.getByLabel('Tool', { exact: true }).fill('9')
await page.getByLabel('Machine Z, this tool').fill('-10.8110')
await page.getByLabel('Machine Z, master').fill('-10.3460')
await page.getByLabel('Length of the master').fill('4.000')
await shot('tools')
await page.getByRole('tab', { name: 'Probe' }).click()
await shot('probe')
await page.getByRole('tab', { name: /Check/ }).click()
await page.locator('.recharts-line').first().waitFor()
await page.getByLabel('Length of the tool').fill('5.0265')
await shot('zero-check')
await toStep(page, 'Angle')
await page.getByText('counter-clockwise').waitFor()
await shot('angle')

await open(/first side/, 'Zero')
await page.getByRole('link', { name: 'Program', exact: true }).click()
await page.getByRole('button', { name: 'Download .nc' }).waitFor()
await shot('program')
await page.getByRole('link', { name: 'Logbook' }).click()
await page.locator('tr[data-kind=pickup]').first().waitFor()
await shot('logbook')
await toStep(page, 'Code')
await page.getByRole('tab', { name: 'Hole' }).click()
await page.getByLabel('Tap tip, deep').focus()
await page.locator('[data-lit="true"]').first().waitFor()
await shot('code-tapping')
await page.goto('/')
await page.getByRole('link', { name: /first side/ }).waitFor()
const rings = page.getByRole('link', { name: /O-ring/ }).first()
if (!(await rings.isVisible()))
  await page
    .getByText(/and \d+ earlier/)
    .last()
    .click()
await openAt(page, /O-ring/, 'Code')
await page.getByLabel('How far the cycle has gone').fill('420')
await page.getByLabel('Bottom diameter').focus()
await shot('code-groove')
await open(/first side/, 'Prove')
await page.getByText('Proved by').waitFor()
// The same program with one slip: G99 for G98 where a clamp stands between the holes.
await page.getByLabel('Open a program file').setInputFiles({
  name: 'O5410 first side',
  mimeType: 'text/plain',
  buffer: Buffer.from(housingProgram.replace('G98 G83', 'G99 G83')),
})
await page.getByText('1 stop').waitFor()
await page.getByRole('tab', { name: 'Step' }).click()
await page.getByRole('button', { name: 'Next finding' }).click()
await page.getByText('passes through clamp 1').waitFor()
await page.waitForTimeout(1000)
await shot('prove')
await page.goto('/machines/mill-1')
await shot('machines')
await page.goto('/tools/mill-1-t7')
await page.getByText('Its shape').waitFor()
await shot('shapes')
await page.goto('/profiles/two-line')
await shot('profiles')

await browser.close()
await server.stop()
