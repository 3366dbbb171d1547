import { mkdirSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { gzipSync } from 'node:zlib'

/** One script of the built page: `bytes` are those sent by gzip, where the tablet does without brotli; `modules` come from the root. */
const entryOf = (chunk, root) => ({
  file: chunk.fileName,
  bytes: gzipSync(chunk.code).length,
  isEntry: chunk.isEntry,
  imports: chunk.imports,
  lazyImports: chunk.dynamicImports,
  modules: Object.entries(chunk.modules)
    .filter(([, { renderedLength }]) => renderedLength > 0)
    .map(([id]) => id.replace(`${root}/`, '').replace(/\?.*$/, '')),
})

/** A plugin that says what is in each script of the page, beside the build, for the budgets of scripts/budgets.test.mjs. */
export const bundleReport = (file, root) => ({
  name: 'bundle-report',
  generateBundle(_, bundle) {
    const chunks = Object.values(bundle).filter(({ type }) => type === 'chunk')
    mkdirSync(dirname(file), { recursive: true })
    writeFileSync(file, JSON.stringify(chunks.map((chunk) => entryOf(chunk, root))))
  },
})
