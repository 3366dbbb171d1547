import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Debian's Chromium, as it runs for root and without asking the network for anything. */
export const launchOptions = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
}

const main = join(import.meta.dirname, '../server/dist/main.js')

/** The real server on a file of its own, filled with the demo; it can be stopped and started again. */
export class Server {
  readonly file = join(mkdtempSync(join(tmpdir(), 'dogleg-e2e-')), 'log.sqlite')
  private child: ChildProcess | undefined
  /** Where it answers; a free one to begin with, unless told. */
  port: number

  constructor(port = 0) {
    this.port = port
  }

  get address() {
    return `http://127.0.0.1:${this.port}`
  }

  async start() {
    const child = spawn(process.execPath, [main], {
      env: { ...process.env, DOGLEG_DATA: this.file, DOGLEG_PORT: String(this.port) },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    this.child = child
    this.port = await new Promise<number>((resolve, reject) => {
      let said = ''
      child.stdout?.on('data', (data) => {
        said += data
        const port = /Dogleg is at \S+:(\d+)/.exec(said)?.[1]
        if (port) resolve(Number(port))
      })
      child.once('exit', () => reject(new Error(`the server ended: ${said}`)))
    })
  }

  async stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM') {
    const { child } = this
    this.child = undefined
    if (!child) return
    const ended = new Promise((resolve) => child.once('exit', resolve))
    child.kill(signal)
    await ended
  }
}
