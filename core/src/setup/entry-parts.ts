import { z } from 'zod'
import { clockStamp } from '../log/index.ts'

// What the entries of a log are made of.

/** A row of reference data, at the version that the entry used. */
export const versionRef = z.object({ id: z.string().min(1).max(40), version: z.int().min(1) })

export const initials = z
  .string()
  .trim()
  .min(1, 'Say who you are: your initials.')
  .max(8, 'Initials, not a name: at most 8 characters.')

/** What every entry carries. The id is made by the client, so that sending it twice adds it once. */
export const stamp = {
  id: z.ulid(),
  setup: z.ulid().describe('the id of the entry that opened the setup'),
  at: z.iso
    .datetime({ precision: 3 })
    .describe('when it happened, UTC, by the server clock as far as the tablet knows it'),
  by: initials,
  clock: clockStamp.optional().describe('what the order is told from; nothing where no tablet wrote it'),
  received: z.iso
    .datetime({ precision: 3 })
    .optional()
    .describe('when the server received it; written by it'),
  latest: z.iso
    .datetime({ precision: 3 })
    .optional()
    .describe('the latest moment at which it can have been made; written by the server'),
  carried: z
    .object({ entry: z.ulid(), by: initials, at: z.iso.datetime({ precision: 3 }) })
    .optional()
    .describe('taken over from the last setup of the job: which entry it is there, who made it and when'),
}

export const offsetName = z
  .string()
  .regex(
    /^(G\d{2,3}(\.\d)?( P\d{1,3})?|T\d{1,4})$/,
    'An offset is written like G54 or G154 P3; the geometry of a lathe tool like T1.',
  )
export const words = (most: number) => z.string().trim().max(most, `Keep it under ${most} characters.`)
export const spokenWords = (most: number, says: string) => words(most).min(1, says)

/** Longer texts are not kept in the log. */
export const LONGEST_PROGRAM = 200_000
