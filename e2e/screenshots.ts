import { join } from 'node:path'
import { rebateProgram } from '@dogleg/core/demo'
import type { SimulatedView } from '@dogleg/core/simulated'
import { chromium } from '@playwright/test'
import { openAt, quiet, toStep } from './dogleg.ts'
import { launchOptions, Server } from './harness.ts'
import { codeAtKeyboard, enter, letIn, signsIn } from './people.ts'

// One current picture of each main view, from the demo data, into docs/screenshots.
const server = new Server()
await server.start()
const browser = await chromium.launch(launchOptions)

async function tablet(size: { width: number; height: number }) {
  const page = await browser.newPage({ viewport: size, baseURL: server.address })
  await page.addInitScript(() => localStorage.setItem('dogleg.operator', 'RT'))
  const shot = async (name: string) => {
    await quiet(page)
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

await page.getByRole('link', { name: 'Find a setup' }).click()
await page.getByRole('searchbox').fill('housing T5')
await page.getByText(/setups? with housing T5/).waitFor()
await shot('search')

await open(/second side/, 'Ready')
await page.getByRole('button', { name: /I have read/ }).waitFor()
await shot('ready')
await page.getByRole('button', { name: /I have read/ }).click()

await toStep(page, 'Hold')
await page.getByRole('tab', { name: /Square the vise/ }).click()
await page.getByRole('radio', { name: 'one bolt' }).click()
await page.getByLabel('Dial reads').first().fill('0')
await page.getByLabel('Dial reads').last().fill('-.030')
await shot('hold-square')
await page.getByRole('tab', { name: /clear/ }).click()
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
await page
  .getByText(/and \d+ earlier/)
  .first()
  .click()
await openAt(page, /Counterweight bracket/, 'Zero')
await page.getByRole('tab', { name: /Check/ }).click()
await page.locator('.recharts-line').first().waitFor()
await page.getByLabel('Length of the tool').fill('5.0265')
await toStep(page, 'Angle')
await page.getByText('counter-clockwise').waitFor()
await shot('angle')

await open(/first side/, 'Logbook')
await page.locator('tr[data-kind=pickup]').first().waitFor()
await shot('logbook')
await toStep(page, 'Code')
await page.getByRole('tab', { name: 'Hole' }).click()
await page.getByLabel('Tap tip, deep').focus()
await page.locator('[data-lit="true"]').first().waitFor()
await shot('code-tapping')
await page.goto('/')
await page
  .getByText(/and \d+ earlier/)
  .first()
  .waitFor()
for (const more of await page.getByText(/and \d+ earlier/).all()) await more.click()
await openAt(page, /housing, rebate/, 'Prove')
await page.getByText('Proved by').waitFor()
await page.setViewportSize({ width: 800, height: 1280 })
await page.getByRole('tab', { name: /^Findings/ }).click()
await page.waitForTimeout(1000)
await shot('prove-compensated')
await page.setViewportSize({ width: 1280, height: 800 })
// The same along another edge, and with one slip: G42 for G41 takes the cutter to the side where a clamp stands.
await page.getByLabel('Open a program file').setInputFiles({
  name: 'O5412 rebate',
  mimeType: 'text/plain',
  buffer: Buffer.from(
    rebateProgram
      .replace('Y-0.5 ,R0.3', 'Y-1.05 ,R0.3')
      .replace('X3.2', 'X3.6')
      .replace('G3 X3.5 Y-0.2', 'G3 X3.9 Y-0.75')
      .replace('G41', 'G42'),
  ),
})
await page
  .getByText(/\d stops?/)
  .first()
  .waitFor()
await page.getByRole('tab', { name: 'Step' }).click()
// What is written, whose radius, and then what is hit.
for (const _ of ['line 10', 'line 15', 'line 17'])
  await page.getByRole('button', { name: 'Next finding' }).click()
await page.getByText('The next press, line 17').waitFor()
await page.waitForTimeout(1000)
await shot('prove')
await open(/first side/, 'Run')
await page.getByRole('tab', { name: /What is gauged/ }).click()
await page.getByText('Good', { exact: true }).waitFor()
await page.getByRole('tab', { name: 'Result' }).click()
await page.getByLabel('Dead band').focus()
await page.waitForTimeout(800)
await shot('gauge')
await open(/both operations/, 'Run')
await page
  .getByText(/stops after 10 changes/)
  .first()
  .waitFor()
await shot('pallets')
await page.getByRole('tab', { name: /^Time/ }).click()
await page.getByRole('button', { name: /TAP/ }).click()
await page.getByText('as 2 timed cycles of this machine say').waitFor()
await shot('time')
await open(/first side/, 'Hand over')
await page.getByRole('article', { name: 'Setup sheet' }).waitFor()
await shot('setup-sheet')
await page.goto('/profiles/two-line')
await shot('profiles')

// An exercise: the edge finder beside the left face, in steps of a hundredth until it kicks.
const press = (name: string) => page.getByRole('button', { name, exact: true }).click()
const jog = async (axis: string, by: number) => {
  await press(`Axis ${axis}`)
  await page.getByLabel(`Distance along ${axis}`).fill(Math.abs(by).toFixed(2))
  await press(`Jog ${axis} ${by < 0 ? 'minus' : 'plus'}`)
}
await page.goto('/practice/corner-edge-finder')
await press('Start')
await page.getByLabel('In the spindle').selectOption('edge-finder')
await page.getByText('In the spindle now: edge finder.').waitFor()
await press('Start the spindle at 1000')
const machine = await page.evaluate(
  () => JSON.parse(localStorage.getItem('dogleg.draft.practice.corner-edge-finder') ?? '{}').machine,
)
const see = async (): Promise<SimulatedView> =>
  (await (await page.request.get(`/api/simulated/${machine}`)).json()).view
const { seen } = await see()
const part = seen?.bodies.find(({ role }) => role === 'part')
if (!seen || !part) throw new Error('no part in the vise')
await jog('Y', Math.min(...part.corners.map(({ y }) => y)) + 1)
await jog('X', Math.min(...part.corners.map(({ x }) => x)) - 0.3)
await jog('Z', part.top - 0.2 - seen.tipZ)
await press('Axis X')
for (let n = 0; n < 60 && !(await see()).mounted.kicked; n++) {
  await press('X plus 1 click')
  await page.waitForTimeout(60)
}
await page.getByText('The edge finder kicked.').waitFor()
await shot('exercise')
// The simulated Mill 1 with a tool length that is too short: the crash of its first approach.
await page.goto('/machines/mill-1/simulated')
await page.getByLabel('Piece number').fill('4711')
await press('Switch it on')
await page.getByTestId('position-X').waitFor()
const hidden = await (await page.request.get('/api/simulated/mill-1/hidden')).json()
await page.request.post('/api/simulated/mill-1/actions', {
  data: {
    actions: [
      ...(['X', 'Y', 'Z'] as const).map((axis) => ({
        do: 'key-offset',
        offset: 'G54',
        axis,
        value: hidden.zero[axis],
      })),
      ...hidden.tools.map(({ number, length }: { number: number; length: number }) => ({
        do: 'key-length',
        tool: number,
        length: number === 7 ? length - 1.2 : length,
      })),
      {
        do: 'load',
        text: 'G20 G90 G17 G40 G49 G80\nG53 G0 Z0.\nT7 M6\nG0 G54 X1. Y1.\nS3000 M3\nG43 H7 Z1.\nZ.1\nG1 Z-.2 F12.\nX3.\nG0 Z1.\nM5\nG53 G0 Z0.\nM30\n',
      },
      { do: 'single', on: false },
      { do: 'override', rapid: 100 },
      { do: 'start' },
    ],
  },
})
await page.getByRole('tab', { name: 'Program' }).click()
await page.getByRole('alert').waitFor({ timeout: 60_000 })
await page.waitForTimeout(500)
await shot('simulated')

// A shop on a network: its people and tablets.
await signsIn(server)
const lead = await tablet({ width: 1280, height: 800 })
await lead.page.goto('/')
await letIn(lead.page, codeAtKeyboard(server), 'Office')
await enter(lead.page, 'RT')
await lead.page.getByRole('heading', { name: 'Mill 1' }).waitFor()
const other = await browser.newContext({ baseURL: server.address })
const mill = await other.newPage()
await mill.goto('/')
await letIn(mill, codeAtKeyboard(server), 'Mill 1')
await enter(mill, 'KM')
await mill.getByRole('heading', { name: 'Mill 1' }).waitFor()
await lead.page.goto('/people')
await lead.page.getByText('KM is at it').waitFor()
await lead.shot('people')
await other.close()

await browser.close()
await server.stop()
