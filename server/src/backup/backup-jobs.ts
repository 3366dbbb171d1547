import { StartProblem } from '../problem.ts'
import { copyLogbook } from './copy.ts'

// What makes backups: in a thread of its own, which may be ended at any moment. What is half made is no backup.

/** Makes a copy; gives why it could not, in a sentence: on its way out of a thread an error loses what it is. */
export async function copy({ from, to }: { from: string; to: string }): Promise<string | undefined> {
  try {
    await copyLogbook(from, to)
    return undefined
  } catch (error) {
    if (error instanceof StartProblem) return error.message
    throw error
  }
}
