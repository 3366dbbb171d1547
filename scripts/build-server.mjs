// Builds the server (server/dist), and beside it the demo that fills an empty logbook.
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build } from 'vite'

const server = join(import.meta.dirname, '../server')
await build({ root: server, logLevel: 'warn' })
const demo = execFileSync(process.execPath, [join(server, 'dist/make-demo.js')], { maxBuffer: 1 << 28 })
writeFileSync(join(server, 'dist/demo.json'), demo)
