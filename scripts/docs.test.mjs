import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { expect, it } from 'vitest'

const root = join(import.meta.dirname, '..')
const pages = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '*.md'], {
  cwd: root,
  encoding: 'utf8',
})
  .split('\n')
  .filter(Boolean)

/** Addresses of a page that lead to files of the project. */
const linksIn = (text) =>
  [...text.matchAll(/\]\(([^)\s]+)\)/g)].map(([, to]) => to).filter((to) => !/^(https?:|#|mailto:)/.test(to))

it.each(pages)('every link of %s leads somewhere', (page) => {
  const text = readFileSync(join(root, page), 'utf8')
  const lost = linksIn(text).filter((to) => !existsSync(join(root, dirname(page), to.replace(/#.*$/, ''))))
  expect(lost).toEqual([])
})

it('every file that CONTRIBUTING.md names is there', () => {
  const text = readFileSync(join(root, 'CONTRIBUTING.md'), 'utf8')
  const named = [...text.matchAll(/`((?:core|web|server|e2e|docs|scripts)\/[^`\s]+)`/g)].map(
    ([, path]) => path,
  )
  expect(named.length).toBeGreaterThan(20)
  expect(named.filter((path) => !existsSync(join(root, path)))).toEqual([])
})
