import { type ChildProcess, fork } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const root = join(import.meta.dirname, '..')

/**
 * A newer release of what is built: the same server, and a page that begins with another script and is kept under another mark. Gives
 * its folder.
 */
function newerRelease(): string {
  const folder = mkdtempSync(join(tmpdir(), 'dogleg-newer-'))
  for (const part of ['server', 'web', 'e2e']) mkdirSync(join(folder, part))
  writeFileSync(join(folder, 'package.json'), '{ "type": "module" }')
  for (const part of ['server/dist', 'web/dist', 'e2e/server-host.mjs'])
    cpSync(join(root, part), join(folder, part), { recursive: true })
  for (const part of ['node_modules', 'server/migrations', 'server/node_modules'])
    symlinkSync(join(root, part), join(folder, part))
  const file = (name: string) => join(folder, 'web/dist', name)
  const change = (name: string, how: (text: string) => string) => {
    const before = readFileSync(file(name), 'utf8')
    const after = how(before)
    if (after === before) throw new Error(`${name} is as it was`)
    writeFileSync(file(name), after)
  }
  const entry = /src="(\/assets\/index-[\w-]+\.js)"/.exec(readFileSync(file('index.html'), 'utf8'))?.[1]
  if (!entry) throw new Error('the page has no script to begin with')
  writeFileSync(
    file('assets/newer.js'),
    `import '${entry}'\ndocument.documentElement.dataset.release = 'newer'\n`,
  )
  change('index.html', (html) => html.replace(`src="${entry}"`, 'src="/assets/newer.js"'))
  change('sw.js', (worker) =>
    worker.replace(
      /url:"index\.html",revision:"\w+"/,
      'url:"index.html",revision:"newer"},{url:"assets/newer.js",revision:"newer"',
    ),
  )
  return folder
}

/** Runs the newer release on a logbook, at a port; gives how to end it. */
export async function startNewer(file: string, port: number): Promise<() => Promise<void>> {
  const host: ChildProcess = fork(join(newerRelease(), 'e2e/server-host.mjs'), { execArgv: [] })
  const settings = {
    DOGLEG_DATA: file,
    DOGLEG_PORT: String(port),
    DOGLEG_LOG: 'error',
    DOGLEG_MOST_A_MINUTE: '1000000',
  }
  await new Promise<void>((resolve, reject) => {
    host.once('message', (answer: { port?: number; says?: string }) =>
      answer.port === port ? resolve() : reject(new Error(answer.says ?? 'another port')),
    )
    host.once('exit', () => reject(new Error('the newer server ended')))
    host.send({ id: 1, start: settings })
  })
  return () =>
    new Promise((resolve) => {
      host.once('exit', () => resolve())
      host.disconnect()
    })
}
