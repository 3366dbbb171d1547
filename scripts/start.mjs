// npm start: everything that is needed on a fresh checkout, then the server.
import { pathToFileURL } from 'node:url'
import { ensureBuilt, ensureInstalled, root } from './prepare.mjs'

ensureInstalled()
ensureBuilt()
await import(pathToFileURL(`${root}/server/dist/main.js`).href)
