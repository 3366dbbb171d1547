import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fillShop } from './shop-history.ts'

// A server on a shop's logbook that was made up by seed.

const MACHINES = 20

const main = join(import.meta.dirname, '../server/dist/main.js')

export interface Running {
  address: string
  child: ChildProcess
  startMs: number
}

export function start(file: string, begins: 'empty' | '' = ''): Promise<Running> {
  const began = performance.now()
  const child = spawn(process.execPath, [main], {
    env: {
      ...process.env,
      DOGLEG_DATA: file,
      DOGLEG_NEW: begins,
      DOGLEG_PORT: '0',
      DOGLEG_LOG: 'error',
      DOGLEG_MOST_A_MINUTE: '1000000',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  return new Promise((resolve, reject) => {
    let output = ''
    child.stdout?.on('data', (data) => {
      output += data
      const address = /Dogleg is at (\S+)/.exec(output)?.[1]
      if (address) resolve({ address, child, startMs: performance.now() - began })
    })
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}: ${output}`)))
  })
}

export async function stop({ child }: Running) {
  const ended = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGTERM')
  await ended
}

/** What the process holds of the memory, in MB. */
export const memoryOf = ({ child }: Running) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1]) / 1024

export async function ask(running: Running, path: string, body?: unknown): Promise<string> {
  const response = await fetch(running.address + path, {
    method: body === undefined ? 'GET' : 'POST',
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  })
  const text = await response.text()
  if (!response.ok) throw new Error(`${path}: ${response.status} ${text.slice(0, 300)}`)
  return text
}

export interface Shop {
  file: string
  running: Running
  opened: { setup: string; machine: string }[]
  readMs: number
}

export async function makeShop(setups: number, days: number): Promise<Shop & { entries: number }> {
  const file = join(mkdtempSync(join(tmpdir(), 'dogleg-bench-')), 'log.sqlite')
  await stop(await start(file, 'empty'))
  // The note says how far it went; the rows are written past it.
  const made = fillShop(file, { machines: MACHINES, setups, days, until: Date.now() - 3_600_000, seed: 27 })
  const running = await start(file)
  const began = performance.now()
  // After a change of Dogleg the logbook is read through once.
  for (;;) {
    const response = await fetch(`${running.address}/api/setups`)
    if (response.ok && !('reads' in ((await response.json()) as object))) break
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
  return { file, running, ...made, readMs: performance.now() - began }
}
