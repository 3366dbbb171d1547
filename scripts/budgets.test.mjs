import { execFileSync } from 'node:child_process'
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { LONGER, MOST_LINES } from './long-files.mjs'

// What does not depend on how fast a machine is: sizes and counts. What needs a clock is in bench/.

/** Bytes of JavaScript, as sent by gzip, before the shop is on screen. 200 kB was meant; it was 275 kB, and is 129 kB. */
const FIRST_SCREEN = 150_000
/** Bytes that opening a view may add to what was loaded before it. */
const LAZY_VIEW = 250_000

const root = join(import.meta.dirname, '..')
const chunks = JSON.parse(readFileSync(join(root, '.dogleg/page-bundle.json'), 'utf8'))
const byFile = new Map(chunks.map((chunk) => [chunk.file, chunk]))

/** A script and all that it cannot do without. */
function withImports(file, found = new Set()) {
  if (found.has(file)) return found
  found.add(file)
  for (const each of byFile.get(file).imports) withImports(each, found)
  return found
}
const bytesOf = (files) => [...files].reduce((sum, file) => sum + byFile.get(file).bytes, 0)
const first = withImports(chunks.find(({ isEntry }) => isEntry).file)

/** What each lazy part adds to what loads it, in the cheapest way that leads to it. */
function addedBytes() {
  const added = new Map()
  const visit = (loaded) => {
    for (const file of loaded)
      for (const lazy of byFile.get(file).lazyImports) {
        const all = withImports(lazy)
        const bytes = bytesOf([...all].filter((each) => !loaded.has(each)))
        if (bytes >= (added.get(lazy) ?? Number.POSITIVE_INFINITY)) continue
        added.set(lazy, bytes)
        visit(new Set([...loaded, ...all]))
      }
  }
  visit(first)
  return added
}

/** The package that a module belongs to, with where it is installed; undefined for our own. */
const packageOf = (module) => /^(.*node_modules\/(@[^/]+\/[^/]+|[^/]+))\//.exec(module)?.slice(1, 3)

describe('what the page loads', () => {
  it(`is at most ${FIRST_SCREEN / 1000} kB of JavaScript for the first screen`, () => {
    expect(bytesOf(first)).toBeLessThanOrEqual(FIRST_SCREEN)
    // And it is a page: not the size of nothing.
    expect(bytesOf(first)).toBeGreaterThan(FIRST_SCREEN / 2)
  })

  it(`is at most ${LAZY_VIEW / 1000} kB more for each view that is opened`, () => {
    const added = addedBytes()
    expect(added.size).toBeGreaterThan(20)
    expect([...added].filter(([, bytes]) => bytes > LAZY_VIEW)).toEqual([])
  })

  it('is no more than a view’s for a worker, which has a memory of its own', () => {
    const assets = join(root, 'web/dist/assets')
    const workers = readdirSync(assets).filter((name) => /-worker-.*\.js$/.test(name))
    expect(workers.length).toBeGreaterThan(4)
    for (const name of workers)
      expect(gzipSync(readFileSync(join(assets, name))).length, name).toBeLessThanOrEqual(LAZY_VIEW)
  })

  it('has no module in two scripts, and no library in two versions', () => {
    const places = new Map()
    const installed = new Map()
    for (const { file, modules } of chunks)
      for (const module of modules) {
        places.set(module, [...(places.get(module) ?? []), file])
        const [path, name] = packageOf(module) ?? []
        if (name) installed.set(name, new Set([...(installed.get(name) ?? []), path]))
      }
    expect([...places].filter(([, files]) => files.length > 1)).toEqual([])
    expect([...installed].filter(([, paths]) => paths.size > 1)).toEqual([])
    expect(installed.has('react-dom')).toBe(true)
  })

  it('has each font once', () => {
    const assets = join(root, 'web/dist/assets')
    const css = readdirSync(assets)
      .filter((name) => name.endsWith('.css'))
      .map((name) => readFileSync(join(assets, name), 'utf8'))
      .join('\n')
    const faces = [...css.matchAll(/@font-face\s*\{([^}]*)\}/g)].map(([, body]) => {
      const of = (name) => new RegExp(`${name}:\\s*([^;]+)`).exec(body)?.[1]
      return ['font-family', 'font-style', 'font-weight', 'unicode-range'].map(of).join(' ')
    })
    expect(faces.length).toBeGreaterThan(3)
    expect(faces.filter((face, index) => faces.indexOf(face) !== index)).toEqual([])
  })
})

describe('what is built', () => {
  it('is what is used: React without what it says to who develops', () => {
    const text = [...first].map((file) => readFileSync(join(root, 'web/dist', file), 'utf8')).join('')
    expect(text.includes('Each child in a list should have a unique')).toBe(false)
    expect(text.includes('Minified React error')).toBe(true)
  })
})

describe('the files of the project', () => {
  const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard'], {
    cwd: root,
    encoding: 'utf8',
  })
    .split('\n')
    .filter((name) => /\.(tsx?|mjs|cjs)$/.test(name))
  const lines = (name) => readFileSync(join(root, name), 'utf8').split('\n').length - 1

  it(`have at most ${MOST_LINES} lines, or a reason`, () => {
    const present = files.filter((name) => statSync(join(root, name), { throwIfNoEntry: false }))
    expect(present.filter((name) => lines(name) > MOST_LINES && !(name in LONGER))).toEqual([])
    // A reason whose file is short again goes.
    expect(
      Object.keys(LONGER).filter((name) => !present.includes(name) || lines(name) <= MOST_LINES),
    ).toEqual([])
  })

  it('draw the numbers of a property evenly: fc.double is nothing, nine times in ten', () => {
    const tests = files.filter((name) => /\.test\.tsx?$/.test(name))
    expect(tests.length).toBeGreaterThan(100)
    expect(
      tests.filter((name) => /fc\.(double|float)\(/.test(readFileSync(join(root, name), 'utf8'))),
    ).toEqual([])
  })
})
