// npm run bench: each measurement as a ratio against a baseline of the same run.
import { ensureBuilt, ensureChromium, ensureInstalled, root, run } from './prepare.mjs'

ensureInstalled()
await ensureChromium()
ensureBuilt()
process.exitCode = run(process.execPath, ['--import', 'tsx', `${root}/bench/main.ts`]) ? 0 : 1
