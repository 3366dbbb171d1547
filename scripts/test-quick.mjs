// npm run test:quick [since]: the inner loop. Format, lint, import rules, unused, types, and the unit tests that reach what was
// changed since a commit: the last one, or where nothing has been changed since, the one before.
import { spawnSync } from 'node:child_process'
import { checkAll } from './checks.mjs'
import { ensureInstalled, root, tool } from './prepare.mjs'

ensureInstalled()
const git = (...args) => spawnSync('git', args, { cwd: root, encoding: 'utf8' }).stdout
const since = process.argv[2] ?? (git('status', '--porcelain').trim() ? 'HEAD' : 'HEAD~1')
const good = (await checkAll()).every(Boolean)
console.log(`\n== unit tests that reach what was changed since ${since}`)
const passed = tool('vitest', 'vitest.mjs', ['run', '--changed', since, '--passWithNoTests'])
process.exitCode = good && passed ? 0 : 1
