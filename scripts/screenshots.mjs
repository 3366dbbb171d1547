// npm run screenshots: takes the pictures of docs/screenshots anew.
import { ensureBuilt, ensureChromium, ensureInstalled, root, run } from './prepare.mjs'

ensureInstalled()
await ensureChromium()
ensureBuilt()
process.exitCode = run(process.execPath, ['--import', 'tsx', `${root}/e2e/screenshots.ts`]) ? 0 : 1
