import type { z } from 'zod'

/** What a value is wrong with, in plain words, where its schema has none of its own. */
export function plainly({ code, input }: z.core.$ZodRawIssue): string {
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
