// What the commands need before they can run, done once and skipped when it is done already.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs'
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
  const problem = nodeProblem(process.versions.node)
  if (problem) giveUp(...problem)
}

/** What is wrong with a Node of this version; undefined where nothing is. */
export function nodeProblem(version) {
  const [major, minor] = version.split('.').map(Number)
  if (major > 20 || (major === 20 && minor >= 19)) return undefined
  return [
    `Dogleg needs Node 20.19 or newer; this is ${version}.`,
    'Install a newer Node and start again. The logbook is not touched by that.',
  ]
}

/** What npm's own messages come to, and what to do about it. The first that is found counts. */
const INSTALL_PROBLEMS = [
  [
    /ENOSPC|no space left/i,
    'The disk is full: there is no room for the packages (about 700 MB).',
    'Make room, then start again. The logbook is not touched by that.',
  ],
  [
    /EACCES|EPERM|EROFS/,
    'This user may not write in the folder of Dogleg, where the packages go.',
    'Put Dogleg into a folder of your own, or start it as the user who may write there.',
  ],
  [
    /ENOTFOUND|EAI_AGAIN|ECONNREFUSED|ECONNRESET|ETIMEDOUT|ENETUNREACH|EHOSTUNREACH|ERR_SOCKET_TIMEOUT/,
    'The packages could not be fetched: the npm registry does not answer.',
    'Connect this computer to the network for the first start, or set the proxy that npm should use. After that Dogleg needs none.',
  ],
]

/** Why the packages could not be installed, in words, from what npm said. */
export const installProblem = (said) =>
  INSTALL_PROBLEMS.find(([sign]) => sign.test(said))?.slice(1) ?? [
    'The packages could not be installed; what npm said stands above.',
    'Delete the folder node_modules and start again.',
  ]

const installedState = () =>
  `${sha(readFileSync(join(root, 'package-lock.json')))} ${process.versions.modules}`
const INSTALLED = 'node_modules/.dogleg-installed'

/**
 * Installs the packages of package-lock.json, unless that was done for this lock and this Node. `npm install` and not
 * `npm ci`: the lock names only the platform packages that the registry had, and `npm ci` refuses such a lock.
 */
export function ensureInstalled() {
  requireNode()
  const { done, mark } = stamped(INSTALLED, installedState())
  if (done) return
  console.log('Installing packages. This is done once, and takes about half a minute.')
  const install = spawnSync(
    'npm',
    ['install', '--no-audit', '--no-fund', '--prefer-offline', '--loglevel', 'error'],
    {
      cwd: root,
      stdio: ['ignore', 'inherit', 'pipe'],
      encoding: 'utf8',
    },
  )
  const said = `${install.stderr ?? ''}${install.error?.message ?? ''}`
  if (install.status !== 0) {
    console.error(said)
    giveUp(...installProblem(said))
  }
  mark()
}

function filesUnder(path) {
  if (!statSync(path).isDirectory()) return [path]
  return readdirSync(path, { withFileTypes: true })
    .filter(({ name }) => name !== 'node_modules' && name !== 'dist')
    .flatMap(({ name }) => filesUnder(join(path, name)))
}

/** What is built: by which script, from which files, and what must be there afterwards. */
const BUILDS = {
  server: {
    from: ['core/src', 'server/src', 'server/vite.config.ts'],
    makes: ['server/dist/main.js', 'server/dist/demo.json'],
  },
  page: { from: ['core/src', 'web'], makes: ['web/dist/index.html', '.dogleg/page-bundle.json'] },
}

function ensureOne(name) {
  const { from, makes } = BUILDS[name]
  const script = `scripts/build-${name}.mjs`
  const state = [...from, 'package-lock.json', script]
    .flatMap((path) => filesUnder(join(root, path)))
    .filter((path) => !/\.test\.tsx?$/.test(path))
    .sort()
    .map((path) => `${relative(root, path)} ${sha(readFileSync(path))}`)
    .join('\n')
  const { done, mark } = stamped(`.dogleg/built-${name}`, sha(state))
  if (done && makes.every((path) => existsSync(join(root, path)))) return
  console.log(`Building the ${name}.`)
  // Whoever asks for it, a test as well: what is built is what is used.
  const env = { ...process.env, NODE_ENV: 'production' }
  if (!run(process.execPath, [join(root, script)], { env }))
    giveUp(
      'The build failed; what it said stands above.',
      ...(diskIsFull() ? ['The disk is full: make room, then start again.'] : []),
    )
  mark()
}

/** Whether less room is left than a build needs. */
function diskIsFull() {
  const { bavail, bsize } = statfsSync(root)
  return bavail * bsize < 20_000_000
}

/** Builds the server and its demo, or the page, unless its sources are those of the last build. */
export const ensureServerBuilt = () => ensureOne('server')
export const ensurePageBuilt = () => ensureOne('page')

/** Builds server and page, each unless its sources are those of the last build. */
export function ensureBuilt() {
  ensureServerBuilt()
  ensurePageBuilt()
}

/** Installs Debian's Chromium where it is missing and this user may: begun now, while other work goes on; ended where the promise is. */
export function beginChromium() {
  const mayInstall = process.getuid?.() === 0 && run('which', ['apt-get'], { stdio: 'ignore' })
  if (existsSync(CHROMIUM) || !mayInstall) return Promise.resolve()
  console.log('Installing Chromium for the browser tests, beside the rest.')
  const child = spawn(
    'sh',
    ['-c', 'apt-get update -qq && apt-get install -y -qq --no-install-recommends chromium'],
    { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }, stdio: ['ignore', 'ignore', 'inherit'] },
  )
  return new Promise((resolve) => child.once('close', resolve))
}

/** Ends with a sentence where there is no Chromium, once its installation has ended. */
export async function ensureChromium(begun = beginChromium()) {
  await begun
  if (!existsSync(CHROMIUM))
    giveUp(
      `The browser tests need Chromium at ${CHROMIUM}.`,
      'On Debian: apt-get install chromium. Then run npm test again.',
    )
}
