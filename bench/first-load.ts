import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { report } from './report.ts'

const LIMIT_BYTES = 200_000
const root = join(import.meta.dirname, '..')
const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
]

/** Starts the built server on a new file; resolves with its address. */
function serve() {
  const file = join(mkdtempSync(join(tmpdir(), 'dogleg-bench-')), 'log.sqlite')
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    env: { ...process.env, DOGLEG_DATA: file, DOGLEG_PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const address = new Promise<string>((resolve, reject) => {
    let said = ''
    child.stdout.on('data', (data) => {
      said += data
      const found = /Dogleg is at (\S+)/.exec(said)?.[1]
      if (found) resolve(found)
    })
    child.once('exit', () => reject(new Error(`the server ended: ${said}`)))
  })
  return { address, stop: () => child.kill() }
}

/** JavaScript that the first screen loads, as it crosses the network, and the time until the list is on screen. */
export async function benchFirstLoad() {
  const server = serve()
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: FLAGS })
  try {
    const page = await browser.newPage()
    const scripts: Promise<number>[] = []
    page.on('requestfinished', (request) => {
      if (request.resourceType() === 'script')
        scripts.push(request.sizes().then(({ responseBodySize }) => responseBodySize))
    })
    await page.goto(await server.address)
    await page.getByRole('link', { name: /first side/ }).waitFor()
    const shown = await page.evaluate(() => performance.now())
    const bytes = (await Promise.all(scripts)).reduce((sum, size) => sum + size, 0)
    report({
      name: `JavaScript of the first screen, as sent (list shown ${Math.round(shown)} ms after the address was opened)`,
      baseline: 'the room given to it',
      measured: `${(bytes / 1000).toFixed(1)} kB`,
      against: `${LIMIT_BYTES / 1000} kB`,
      ratio: bytes / LIMIT_BYTES,
      limit: 1,
    })
  } finally {
    await browser.close()
    server.stop()
  }
}
