// The checks that are not tests: format and lint, import rules, what nothing uses, types. Two run at a time.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { root } from './prepare.mjs'

const WORKSPACES = ['core', 'server', 'web', 'e2e', 'bench']
const AT_ONCE = 2

/** What core declares is worked out once, for all the others; what has not changed since the last time is not looked at again. */
const TYPES = ['types', 'typescript-7/bin/tsc', ['-b', ...WORKSPACES]]
const CHECKS = [
  TYPES,
  ['format and lint', '@biomejs/biome/bin/biome', ['check', '.']],
  [
    'import rules',
    'dependency-cruiser/bin/dependency-cruise.mjs',
    ['--config', '.dependency-cruiser.cjs', 'core/src', 'server/src', 'web/src', 'bench', 'e2e'],
  ],
  ['nothing unused', 'knip/bin/knip.js', []],
]

/** Runs a tool of node_modules by its script; what it says is shown when it has ended, so that two do not mix. */
function runCheck([title, script, args]) {
  return new Promise((resolve) => {
    const began = performance.now()
    const child = spawn(process.execPath, [join(root, 'node_modules', script), ...args], {
      cwd: root,
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (data) => {
        said += data
      })
    child.once('close', (code) => {
      console.log(
        `${code === 0 ? 'good' : 'FAILED'}  ${title} (${((performance.now() - began) / 1000).toFixed(1)} s)`,
      )
      if (code !== 0) console.log(said)
      resolve(code === 0)
    })
  })
}

/** How each of the checks went, in their order. */
async function runAll(checks) {
  const went = []
  const left = [...checks.keys()]
  const work = async () => {
    for (let next = left.shift(); next !== undefined; next = left.shift())
      went[next] = await runCheck(checks[next])
  }
  await Promise.all(Array.from({ length: AT_ONCE }, work))
  return went
}

export const checkAll = () => runAll(CHECKS)
export const checkTypes = async () => (await runAll([TYPES])).every(Boolean)
