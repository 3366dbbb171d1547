import type { z } from 'zod'
import { Problem } from './problem.ts'

/** What a value is wrong with, in plain words, where its schema has none of its own. */
function plainly({ code, input }: z.core.$ZodRawIssue): string {
  switch (code) {
    case 'invalid_type':
      return input === undefined ? 'This is missing.' : 'This is of another kind than it should be.'
    case 'invalid_union':
      return 'This is none of the kinds that are known here.'
    case 'invalid_value':
      return 'This is none of those that there are.'
    case 'invalid_format':
      return 'This is not written as it should be.'
    case 'too_small':
      return 'This is too small or too short.'
    case 'too_big':
      return 'This is too large or too long.'
    case 'unrecognized_keys':
      return 'This has something that is not known here.'
    default:
      return 'This is not understood.'
  }
}

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
