// What the commands need before they can run, done once and skipped when it is done already.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))
process.chdir(root)
export const CHROMIUM = '/usr/bin/chromium'

/** Says what is missing in plain words, and ends. */
export function giveUp(...lines) {
  console.error(['', ...lines, ''].join('\n'))
  process.exit(1)
}

/** Runs a command in view; returns whether it went well. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options })
  return result.status === 0
}

/** Runs a tool of node_modules by its script, without a shell and without npx. */
export const tool = (name, script, args, options) =>
  run(process.execPath, [join(root, 'node_modules', name, script), ...args], options)

const sha = (text) => createHash('sha256').update(text).digest('hex')

/** Whether `stamp` says that this was done for `state` already; `mark` says so from now on. */
function stamped(stamp, state) {
  const path = join(root, stamp)
  return {
    done: existsSync(path) && readFileSync(path, 'utf8') === state,
    mark: () => {
      mkdirSync(dirname(path), { recursive: true })
      writeFileSync(path, state)
    },
  }
}

function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major > 20 || (major === 20 && minor >= 19)) return
  giveUp(
    `Dogleg needs Node 20.19 or newer; this is ${process.versions.node}.`,
    'Install a newer Node and start again.',
  )
}

/** The database driver is compiled where there is no ready-made one: make sure that it loads. */
function requireSqlite() {
  try {
    const Sqlite = createRequire(join(root, 'server/package.json'))('better-sqlite3')
    new Sqlite(':memory:').close()
  } catch (error) {
    giveUp(
      'The SQLite driver (better-sqlite3) does not load:',
      `  ${error.message.split('\n')[0]}`,
      'It is compiled when there is no ready-made one for this machine. That needs a C++ compiler, make and Python 3.',
      'On Debian: apt-get install g++ make python3. Then delete node_modules and start again.',
    )
  }
}

const installedState = () =>
  `${sha(readFileSync(join(root, 'package-lock.json')))} ${process.versions.modules}`
const INSTALLED = 'node_modules/.dogleg-installed'

/**
 * Installs the packages of package-lock.json, unless that was done for this lock and this Node. `npm install` and not
 * `npm ci`: the lock names only the platform packages that the registry had, and `npm ci` refuses such a lock.
 */
export function ensureInstalled() {
  requireNode()
  if (stamped(INSTALLED, installedState()).done) return
  console.log(
    'Installing packages. The first time this takes some minutes, because SQLite may have to be compiled.',
  )
  if (!run('npm', ['install', '--no-audit', '--no-fund', '--loglevel', 'error']))
    giveUp(
      'The packages could not be installed; what npm said stands above.',
      'Check that the npm registry can be reached, and that a C++ compiler, make and Python 3 are there, then start again.',
    )
  requireSqlite()
  stamped(INSTALLED, installedState()).mark()
}

function filesUnder(path) {
  if (!statSync(path).isDirectory()) return [path]
  return readdirSync(path, { withFileTypes: true })
    .filter(({ name }) => name !== 'node_modules' && name !== 'dist')
    .flatMap(({ name }) => filesUnder(join(path, name)))
}

const BUILT_FROM = [
  'core/src',
  'server/src',
  'server/vite.config.ts',
  'web',
  'package-lock.json',
  'scripts/build.mjs',
]

/** Builds page and server, unless the sources are those of the last build. */
export function ensureBuilt() {
  const state = BUILT_FROM.flatMap((path) => filesUnder(join(root, path)))
    .filter((path) => !/\.test\.tsx?$/.test(path))
    .sort()
    .map((path) => `${relative(root, path)} ${sha(readFileSync(path))}`)
    .join('\n')
  const { done, mark } = stamped('.dogleg/built', sha(state))
  if (done && existsSync(join(root, 'web/dist/index.html')) && existsSync(join(root, 'server/dist/main.js')))
    return
  console.log('Building.')
  if (!run(process.execPath, [join(root, 'scripts/build.mjs')]))
    giveUp('The build failed; what it said stands above.')
  mark()
}

/** Finds Debian's Chromium, or installs it where this user may. */
export function ensureChromium() {
  if (existsSync(CHROMIUM)) return
  const mayInstall = process.getuid?.() === 0 && run('which', ['apt-get'], { stdio: 'ignore' })
  if (mayInstall) {
    console.log('Installing Chromium for the browser tests.')
    const quiet = { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }
    run('apt-get', ['update', '-qq'], quiet)
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
      ...quiet,
      stdio: ['ignore', 'ignore', 'inherit'],
    })
  }
  if (!existsSync(CHROMIUM))
    giveUp(
      `The browser tests need Chromium at ${CHROMIUM}.`,
      'On Debian: apt-get install chromium. Then run npm test again.',
    )
}
