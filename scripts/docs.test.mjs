import { execFileSync } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { expect, it } from 'vitest'

const root = join(import.meta.dirname, '..')
const pages = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '*.md'], {
  cwd: root,
  encoding: 'utf8',
})
  .split('\n')
  .filter((name) => name && existsSync(join(root, name)))

/** Addresses of a page that lead to files of the project. */
const linksIn = (text) =>
  [...text.matchAll(/\]\(([^)\s]+)\)/g)].map(([, to]) => to).filter((to) => !/^(https?:|#|mailto:)/.test(to))

it('every link of every page leads somewhere', () => {
  const lost = pages.flatMap((page) =>
    linksIn(readFileSync(join(root, page), 'utf8'))
      .filter((to) => !existsSync(join(root, dirname(page), to.replace(/#.*$/, ''))))
      .map((to) => `${page}: ${to}`),
  )
  expect(lost).toEqual([])
})

it.each([
  ['CONTRIBUTING.md', 20],
  ['docs/glossary.md', 20],
])('every file that %s names is there', (page, least) => {
  const text = readFileSync(join(root, page), 'utf8')
  const named = [...text.matchAll(/`((?:core|web|server|e2e|docs|scripts)\/[^`\s]+)`/g)].map(
    ([, path]) => path,
  )
  expect(named.length).toBeGreaterThan(least)
  expect(named.filter((path) => !existsSync(join(root, path)))).toEqual([])
})

it('every decision has its day, and its line in the list under it', () => {
  const folder = join(root, 'docs/decisions')
  const files = readdirSync(folder).filter((name) => !['README.md', 'template.md'].includes(name))
  const list = readFileSync(join(folder, 'README.md'), 'utf8')
  const listed = list.split(/^## /m).flatMap((part) => {
    const [day] = part.split('\n', 1)
    return [...part.matchAll(/^- \[(.+)\]\((\S+)\)$/gm)].map(([, title, name]) => `${day} ${name} ${title}`)
  })
  const there = files.map((name) => {
    const [title, , day] = readFileSync(join(folder, name), 'utf8').split('\n')
    return `${day} ${day === name.slice(0, 10) ? name : `${name} is of another day`} ${title.replace(/^# /, '')}`
  })
  expect(listed.sort()).toEqual(there.sort())
  expect(files.length).toBeGreaterThan(200)
})
