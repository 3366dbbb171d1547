import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
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

async function touchOffZ(page: Page) {
  await page.getByRole('tab', { name: /Z/ }).click()
  await page.getByLabel('Tool', { exact: true }).fill('7')
  await page.getByLabel('Tool length').fill('4.512')
  await page.getByLabel('Gauge block').fill('25.4mm')
  await page.getByLabel('Machine position').fill('-9.834')
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
await page.getByRole('tab', { name: 'All pairs' }).click()
await shot('hold-pairs')
await page.getByRole('tab', { name: 'True ratio' }).click()
await page
  .getByLabel('Diameter and length, a bar to a line')
  .fill('1.248 .0000\n1.249 .0042\n1.250 .0079\n1.251 .0121\n1.252 .0160')
await page.locator('.recharts-line').first().waitFor()
await shot('hold-ratio')

await open(/second side/, 'Zero')
await page.getByLabel('Found with').selectOption('edge-finder')
await page.getByRole('radio', { name: 'Y+' }).click()
await page.getByLabel('Finder tip, diameter').fill('.2')
await page.getByLabel('The touched face on the drawing').fill('-3')
await page.getByLabel('Machine position').fill('-9.2205')
await shot('zero-edge-finder')
await page.getByRole('tab', { name: /X/ }).click()
await shot('zero-indicator')
await touchOffZ(page)
await page.getByLabel('Machine position').fill('9.834')
await shot('zero-stop')

await open(/serial number/, 'Zero')
await shot('zero-stale')

await open(/first side/, 'Zero')
await shot('zero-check')
await page.getByRole('link', { name: 'Program', exact: true }).click()
await shot('program')
await page.getByRole('button', { name: 'Something changed' }).click()
await page.getByRole('radio', { name: /Vise moved/ }).click()
await shot('something-changed')
await page.keyboard.press('Escape')
await page.getByRole('link', { name: 'Logbook' }).click()
await shot('logbook')
await page.goto('/machines/mill-1')
await shot('machines')
await page.goto('/collets/16c')
await shot('collets')
await page.goto('/profiles/two-line')
await shot('profiles')

const upright = await tablet({ width: 800, height: 1280 })
await upright.open(/second side/, 'Zero')
await touchOffZ(upright.page)
await upright.shot('upright')

await browser.close()
await server.stop()
