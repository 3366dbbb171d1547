import { Problem } from '../problem.ts'
import { isDamage, isUnwritable } from './errors.ts'

/**
 * What an error of the logbook's file comes to for a person; undefined where it is none. It is asked where the error is caught: on its
 * way out of a thread an error loses its code.
 */
export function databaseProblem(error: unknown): Problem | undefined {
  if (isUnwritable(error))
    return new Problem(
      503,
      'logbook-unwritable',
      'The logbook file cannot be written now, and nothing was changed. Entries are kept on this tablet and are sent when it can be; save anything else again then. Check the disk and who may write the file.',
    )
  if (isDamage(error))
    return new Problem(
      503,
      'logbook-damaged',
      'This part of the logbook file is damaged and cannot be read. Stop Dogleg, keep a copy of the file, and take the last backup: npm run restore FILE.',
    )
  return undefined
}
