// npm run backup, restore, people, verify, export and import: what the server's own code does, built first where that is needed.
import { spawnSync } from 'node:child_process'
import { resolve } from 'node:path'
import { ensureInstalled, ensureServerBuilt, root } from './prepare.mjs'

const [command, ...rest] = process.argv.slice(2)
// A name is meant from where the command was given.
const from = process.env.INIT_CWD ?? process.cwd()
// What follows `people` are words.
const files = command === 'people' ? rest : rest.map((file) => resolve(from, file))
ensureInstalled()
ensureServerBuilt()
const { status } = spawnSync(
  process.execPath,
  [`${root}/server/dist/logbook-command.js`, command, ...files],
  {
    stdio: 'inherit',
  },
)
process.exit(status ?? 1)
