// npm run dev: server and page, both reloading as the sources change. The page is at port 7081. The server's threads run what was
// built when it began: start it again to see a change of theirs.
import { ensureInstalled, ensureServerBuilt } from './prepare.mjs'

ensureInstalled()
ensureServerBuilt()
const { default: concurrently } = await import('concurrently')
const { result } = concurrently(
  [
    {
      name: 'server',
      command: 'node --import tsx --watch-path=server/src --watch-path=core/src server/src/main.ts',
    },
    { name: 'page', command: 'vite web' },
  ],
  { killOthersOn: ['failure', 'success'], prefixColors: ['blue', 'yellow'] },
)
await result.catch(() => process.exit(1))
