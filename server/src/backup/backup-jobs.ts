import { StartProblem } from '../problem.ts'
import { copyLogbook } from './copy.ts'

// What makes a backup: in a process of its own, which may be ended at any moment. What is half made is no backup. A thread will not do:
// where one is ended in the middle of the store driver's work, the driver ends the whole process with it.

export interface CopyAsked {
  from: string
  to: string
}

/** How it went; `why` it could not be made, in a sentence, or what failed. */
export type CopyTold = { made: true } | { why: string } | { failed: string }

async function copy({ from, to }: CopyAsked): Promise<CopyTold> {
  try {
    await copyLogbook(from, to)
    return { made: true }
  } catch (error) {
    return error instanceof StartProblem ? { why: error.message } : { failed: String(error) }
  }
}

// Whoever asked is gone: nobody is told.
process.once('disconnect', () => process.exit())
process.once('message', (asked) => {
  void copy(asked as CopyAsked).then((told) => process.send?.(told, () => process.exit()))
})
