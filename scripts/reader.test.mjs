import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { BUILT_IN_PROFILES } from '../core/src/control/index.ts'
import { listedCodes } from '../core/src/program/index.ts'

const page = join(import.meta.dirname, '..', 'docs/reader.md')
const STANDING = { exact: 'exactly', harmless: 'harmless', 'not-seen': '**not seen**' }
const ON = { both: 'both', mill: 'mill', lathe: 'lathe' }

const table = (heads, rows) => {
  const all = [heads, ...rows]
  const widths = heads.map((_, column) => Math.max(...all.map((row) => row[column].length)))
  const line = (row) => `| ${row.map((cell, column) => cell.padEnd(widths[column])).join(' | ')} |`
  return [line(heads), `| ${widths.map((width) => '-'.repeat(width)).join(' | ')} |`, ...rows.map(line)].join(
    '\n',
  )
}

const codes = () =>
  table(
    ['code', 'on', 'is read', 'what it does'],
    listedCodes().map(({ letter, code, on, standing, says }) => [
      `${letter}${code}`,
      ON[on],
      STANDING[standing],
      says,
    ]),
  )

const own = () =>
  table(
    ['profile', 'code', 'on', 'what it does'],
    BUILT_IN_PROFILES.flatMap(({ name, ownCodes }) =>
      ownCodes.map(({ code, on, says }) => [name, code, ON[on], says]),
    ),
  )

const withTables = (text) =>
  Object.entries({ codes: codes(), own: own() }).reduce(
    (so, [name, of]) =>
      so.replace(
        new RegExp(`<!-- ${name} -->[^]*?<!-- end -->`),
        `<!-- ${name} -->\n\n${of}\n\n<!-- end -->`,
      ),
    text,
  )

it('docs/reader.md has every code with where it stands', () => {
  const text = readFileSync(page, 'utf8')
  const now = withTables(text)
  expect(now).toContain('| G41 ')
  if (process.env.DOGLEG_FREEZE === '1') writeFileSync(page, now)
  else expect(text).toBe(now)
})
