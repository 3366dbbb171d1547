import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** The server as it was built; `built-server.mjs` sees to it before the tests begin. */
const main = fileURLToPath(new URL('../../dist/main.js', import.meta.url))

const command = fileURLToPath(new URL('../../dist/logbook-command.js', import.meta.url))

export const newFolder = () => mkdtempSync(join(tmpdir(), 'dogleg-test-'))

export interface Started {
  address: string
  child: ChildProcess
  output: () => string
}

export interface StartOptions {
  /** User to run as, where the test runs as root. */
  uid?: number
  /** More settings of its environment. */
  settings?: Record<string, string>
  /** Port to ask for; a free one when left out. */
  port?: string
}

function run(file: string, { port = '0', settings, ...options }: StartOptions) {
  const child = spawn(process.execPath, [main], {
    env: {
      ...process.env,
      DOGLEG_DATA: file,
      DOGLEG_NEW: 'demo',
      DOGLEG_LOG: 'error',
      DOGLEG_MOST_A_MINUTE: '1000000',
      DOGLEG_PORT: port,
      ...settings,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
    ...options,
  })
  let output = ''
  child.stdout?.on('data', (data) => {
    output += data
  })
  child.stderr?.on('data', (data) => {
    output += data
  })
  const ended = new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)))
  return { child, ended, output: () => output }
}

/** Starts the real server on a file and a free port; resolves when it serves. */
export async function startServer(file: string, options: StartOptions = {}): Promise<Started> {
  const { child, ended, output } = run(file, options)
  for (;;) {
    const address = /Dogleg is at (\S+)/.exec(output())?.[1]
    if (address) return { address, child, output }
    const code = await Promise.race([ended, new Promise((resolve) => setTimeout(resolve, 25, 'wait'))])
    if (code !== 'wait') throw new Error(`the server ended with ${code}: ${output()}`)
  }
}

/** Runs the server where it is expected to refuse; resolves with its exit code and what it said. */
export async function refusedStart(file: string, options: StartOptions = {}) {
  const { ended, output } = run(file, options)
  return { code: await ended, says: output() }
}

/** Starts a server and ends it at once so many ms later, wherever it is then. */
export async function killAfter(file: string, ms: number) {
  const { child, ended } = run(file, {})
  const timer = setTimeout(() => child.kill('SIGKILL'), ms)
  await ended
  clearTimeout(timer)
}

/** Ends a server at once, as a power cut would. */
export async function kill({ child }: Started) {
  const ended = new Promise((resolve) => child.once('exit', resolve))
  child.kill('SIGKILL')
  await ended
}

/** Runs a command as whoever sits at the server would (`backup`, `restore`, `verify` …), on a logbook. */
export function runCommand(file: string, ...args: (string | { typed: string })[]) {
  const words = args.filter((each) => typeof each === 'string')
  const input = args.map((each) => (typeof each === 'string' ? '' : each.typed)).join('')
  const { status, stdout, stderr } = spawnSync(process.execPath, [command, ...words], {
    env: { ...process.env, DOGLEG_DATA: file },
    encoding: 'utf8',
    input,
  })
  return { status, says: stdout + stderr }
}
