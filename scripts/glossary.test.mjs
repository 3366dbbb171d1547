import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { TERMS } from '../core/src/glossary/index.ts'

const root = join(import.meta.dirname, '..')

it('docs/glossary.md has the words that the app explains, and no others', () => {
  const text = readFileSync(join(root, 'docs/glossary.md'), 'utf8')
  const lines = [...text.matchAll(/^- \*\*(.+?)\*\*: (.+(?:\n {2}.+)*)$/gm)].map(([, term, says]) => [
    term,
    says.replace(/\n +/g, ' '),
  ])
  expect(lines).toEqual(TERMS.map(({ term, says }) => [term, says]))
})
