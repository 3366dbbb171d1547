import { chromium } from '@playwright/test'
import { launchOptions, Server } from './harness.ts'
const server = new Server()
await server.start()
const browser = await chromium.launch(launchOptions)
const size = process.env.UP ? { width: 800, height: 1280 } : { width: 1280, height: 800 }
const page = await browser.newPage({ viewport: size, baseURL: server.address })
page.on('console', (m) => m.type() === 'error' && console.log('console:', m.text()))
page.on('pageerror', (e) => console.log('pageerror:', e.message))
await page.addInitScript(() => localStorage.setItem('dogleg.operator', 'RT'))
const shot = async (name: string) => {
  await page.waitForTimeout(300)
  const over = await page.evaluate(() => [document.documentElement.scrollWidth, document.documentElement.scrollHeight])
  console.log(name, over)
  await page.screenshot({ path: `/tmp/shots/${name}.png` })
}
const open = async (title: RegExp) => {
  await page.goto('/')
  await page.getByRole('link', { name: title }).first().click()
  await page.getByRole('heading', { level: 1 }).waitFor()
}
try {
  const { run } = await import(process.argv[2] as string)
  await run({ page, shot, open, server })
} catch (e) { console.log(e) }
await browser.close()
await server.stop()
