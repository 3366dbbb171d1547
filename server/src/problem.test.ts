import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { PROBLEM_CODES } from '@dogleg/core/api'
import { expect, it } from 'vitest'

it('every code of a problem is one that the server says somewhere', () => {
  const sources = [import.meta.dirname, join(import.meta.dirname, '../../core/src')]
    .flatMap((folder) =>
      readdirSync(folder, { recursive: true, encoding: 'utf8' }).map((name) => join(folder, name)),
    )
    .filter((name) => /\.ts$/.test(name) && !/\.test\.ts$|api\/problems\.ts$/.test(name))
    .map((name) => readFileSync(name, 'utf8'))
    .join('\n')
  expect(PROBLEM_CODES.filter((code) => !sources.includes(`'${code}'`))).toEqual([])
})
