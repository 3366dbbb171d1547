import { type ChildProcess, fork } from 'node:child_process'
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

/** What is asked of the process that servers run in, and what it answers. */
type Asked = { start: Record<string, string> } | { stop: number }
type Answer = { id: number; port: number } | { id: number; says: string }

/** The process that the servers of this worker run in. It is begun when the first of them is, and anew once it was killed. */
let host: ChildProcess | undefined
let asked = 0

function begin(): ChildProcess {
  const begun = fork(join(import.meta.dirname, 'server-host.mjs'), { execArgv: [] })
  begun.once('exit', () => {
    if (host === begun) host = undefined
  })
  return begun
}

/** Asks for a server to be started or stopped; its port. */
function ask(what: Asked): Promise<number> {
  host ??= begin()
  const running = host
  asked += 1
  const id = asked
  // A script that has nothing else to do waits for the answer, and may end once it has it.
  running.ref()
  running.channel?.ref()
  return new Promise<number>((resolve, reject) => {
    const ended = () => reject(new Error('the server ended'))
    const answered = (answer: Answer) => {
      if (answer.id !== id) return
      running.off('message', answered).off('exit', ended)
      running.unref()
      running.channel?.unref()
      if ('says' in answer) reject(new Error(answer.says))
      else resolve(answer.port)
    }
    running.on('message', answered).once('exit', ended)
    running.send({ id, ...what })
  })
}

/** Ends the process as if the power had failed. */
async function kill() {
  const running = host
  host = undefined
  if (!running) return
  const ended = new Promise((resolve) => running.once('exit', resolve))
  running.kill('SIGKILL')
  await ended
}

/** The real server on a file of its own, filled with the demo unless told otherwise; it can be stopped and started again. */
export class Server {
  readonly file = join(mkdtempSync(join(tmpdir(), 'dogleg-e2e-')), 'log.sqlite')
  private running = false
  private readonly settings: Record<string, string> = {}
  /** Where it answers; a free one to begin with, unless told. */
  port: number
  private readonly begins: 'demo' | 'ask'

  constructor(port = 0, begins: 'demo' | 'ask' = 'demo') {
    this.begins = begins
    this.port = port
  }

  get address() {
    return `http://127.0.0.1:${this.port}`
  }

  /** With more settings than the usual ones, from then on. */
  async start(settings: Record<string, string> = {}) {
    Object.assign(this.settings, settings)
    this.port = await ask({
      start: {
        DOGLEG_DATA: this.file,
        DOGLEG_NEW: this.begins,
        // Two servers on a busy machine answer slowly: only failures are told.
        DOGLEG_LOG: 'error',
        DOGLEG_MOST_A_MINUTE: '1000000',
        DOGLEG_PORT: String(this.port),
        ...this.settings,
      },
    })
    this.running = true
  }

  /** Stops it, or kills it and whatever else runs in its process. */
  async stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM') {
    if (!this.running) return
    this.running = false
    await (signal === 'SIGKILL' ? kill() : ask({ stop: this.port }))
  }
}
