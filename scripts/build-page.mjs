// Builds the page (web/dist), with compressed copies of its files.
import { readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, gzip } from 'node:zlib'
import { build } from 'vite'

const root = join(import.meta.dirname, '..')
await build({ root: join(root, 'web'), logLevel: 'warn', build: { chunkSizeWarningLimit: 700 } })

const assets = join(root, 'web/dist/assets')
const compress = { gz: promisify(gzip), br: promisify(brotliCompress) }
const names = (await readdir(assets)).filter((name) => /\.(js|css)$/.test(name))
await Promise.all(
  names.flatMap((name) =>
    Object.entries(compress).map(async ([ending, squeeze]) =>
      writeFile(join(assets, `${name}.${ending}`), await squeeze(await readFile(join(assets, name)))),
    ),
  ),
)
