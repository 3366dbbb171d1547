// Builds the page (web/dist, with compressed copies of its files) and the server (server/dist).
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { build } from 'vite'

const root = join(import.meta.dirname, '..')
await build({ root: join(root, 'web'), logLevel: 'warn', build: { chunkSizeWarningLimit: 700 } })
await build({ root: join(root, 'server'), logLevel: 'warn' })

const assets = join(root, 'web/dist/assets')
for (const name of readdirSync(assets).filter((each) => /\.(js|css)$/.test(each))) {
  const bytes = readFileSync(join(assets, name))
  writeFileSync(join(assets, `${name}.gz`), gzipSync(bytes))
  writeFileSync(join(assets, `${name}.br`), brotliCompressSync(bytes))
}
