import { createHash } from 'node:crypto'
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { z } from 'zod'
import { CONTRACT } from './contract.ts'
import { LANGUAGE } from './routes.ts'
import { rowContract } from './row-contract.ts'

const file = join(import.meta.dirname, 'language.json')

/** What the answers of a contract are made of, without a word of what is said about them. */
function saidOf(schema: z.ZodType): unknown {
  const plain = (value: unknown): unknown => {
    if (Array.isArray(value)) return value.map(plain)
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(
      Object.entries(value)
        .filter(([key]) => key !== 'description')
        .toSorted(([a], [b]) => (a < b ? -1 : 1))
        .map(([key, of]) => [key, plain(of)]),
    )
  }
  return plain(z.toJSONSchema(schema, { unrepresentable: 'any' }))
}
const hashOf = (of: unknown) => createHash('sha256').update(JSON.stringify(of)).digest('hex').slice(0, 12)

it('an answer that has changed is looked at: what an old page would misread is another language', () => {
  // Entries and rows have shapes and doors of their own: here it counts what stands round them.
  const answers = Object.fromEntries(
    [...Object.entries(CONTRACT), ...Object.entries(rowContract('vises'))].map(([name, { answer }]) => [
      name,
      hashOf(saidOf(answer)),
    ]),
  )
  const frozen = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as object) : {}
  const now = { language: LANGUAGE, answers }
  if (process.env.DOGLEG_FREEZE === '1') writeFileSync(file, `${JSON.stringify(now, null, 2)}\n`)
  else
    expect(
      now,
      'An answer changed. Would a page from before take it for something else? Then raise LANGUAGE in routes.ts. Freeze it: DOGLEG_FREEZE=1 npx vitest run core/src/api/language.test.ts',
    ).toEqual(frozen)
})
