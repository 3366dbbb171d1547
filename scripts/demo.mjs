// npm run demo: the made-up shop, in a logbook of its own, at a port of its own, beside a shop that may be running.
import { join } from 'node:path'
import { root } from './prepare.mjs'

process.env.DOGLEG_DATA = join(root, 'data/demo.sqlite')
process.env.DOGLEG_NEW = 'demo'
process.env.DOGLEG_BACKUPS ??= join(root, 'data/demo-backups')
process.env.DOGLEG_PORT ??= '7090'
await import('./start.mjs')
