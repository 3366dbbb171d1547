import { plainly } from '@dogleg/core/log'
import type { z } from 'zod'
import { Problem } from './problem.ts'

/** Reads data with a schema, or refuses it with the first sentence and the list of fields. */
export function parse<T extends z.ZodType>(schema: T, data: unknown): z.output<T> {
  const result = schema.safeParse(data, { error: plainly })
  if (result.success) return result.data
  const issues = result.error.issues.map(({ path, message }) => ({ path: path.join('.'), says: message }))
  throw new Problem(
    422,
    'not-valid',
    `${issues[0]?.says ?? 'Not understood.'} (${issues[0]?.path || 'body'})`,
    issues,
  )
}
